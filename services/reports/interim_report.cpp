#include <algorithm>

#include <fmt/core.h>

#include "core/quantity/number_text.h"
#include "exchange/json/reader.h"
#include "services/reports/report.h"
#include "services/text/text_cells.h"

namespace zl::services {

Json interimJson(const Snapshot& s, Basis basis) {
  const InterimTable table = interimTable(s, basis);
  Json rows = Json::array();
  for (const InterimRow& r : table.rows) {
    const model::Row& row = s.evaluation->model()[r.row];
    Json figures = Json::array();
    for (const Figure& f : r.figures) figures.push_back(figureJson(f));
    rows.push_back({{"row", row.name},
                    {"label", row.label},
                    {"kind", model::kindWord(row.kind)},
                    {"figures", std::move(figures)}});
  }
  return {{"company", s.company().id},
          {"basis", basis == Basis::Quarters ? "quarters" : "trailing"},
          {"currency", s.company().currency},
          {"periods", table.periods},
          {"rows", std::move(rows)}};
}

std::string interimText(const Snapshot& s, Basis basis) {
  const InterimTable table = interimTable(s, basis);
  std::string out = "row,label,unit";
  for (const std::string& period : table.periods) out += "," + period;
  out += '\n';
  for (const InterimRow& r : table.rows) {
    const model::Row& row = s.evaluation->model()[r.row];
    out += fmt::format("{},{},{}", row.name, quotedCell(row.label),
                       row.kind == Kind::Money ? s.company().currency : model::kindWord(row.kind));
    for (const Figure& f : r.figures) {
      out += "," + (f.hasValue() ? plainNumber(f.value()) : std::string(f.isNotMeaningful() ? "nm" : ""));
    }
    out += '\n';
  }
  return out;
}

}  // namespace zl::services
