#include <fmt/core.h>

#include "exchange/json/reader.h"
#include "services/text/text_cells.h"
#include "services/views/own_rows.h"

namespace zl::services {

std::string checkText(const OwnRowsCheck& check, const Snapshot& s) {
  if (check.fault) return check.fault->text() + '\n';
  std::string out;
  for (const OwnRow& row : check.rows) {
    out += fmt::format("{:<8}{:<32}{}\n", row.amended ? "amends" : "adds", row.name, row.label);
  }
  out += fmt::format("{:<16}{:>12}{:>12}  {}\n", "value per share", "before", "with", s.company().listing.unit);
  for (const OwnEffect& e : check.effects) {
    out += fmt::format("{:<16}{:>12}{:>12}\n", e.scenario, shownOrDash(e.before, Kind::Quote),
                       shownOrDash(e.after, Kind::Quote));
    if (!e.after.hasValue()) out += "  " + e.after.reason() + '\n';
  }
  for (const std::string& fault : check.newFaults) out += "would break: " + fault + '\n';
  return out;
}

Json checkJson(const OwnRowsCheck& check) {
  if (check.fault) {
    Json json{{"fault", check.fault->what}, {"where", check.fault->where}};
    if (check.at) json["at"] = {{"line", check.at->line}, {"column", check.at->column}};
    return json;
  }
  Json rows = Json::array();
  for (const OwnRow& row : check.rows) {
    rows.push_back({{"row", row.name}, {"label", row.label}, {"amended", row.amended}});
  }
  Json effects = Json::array();
  for (const OwnEffect& e : check.effects) {
    effects.push_back({{"scenario", e.scenario}, {"before", figureJson(e.before)}, {"with", figureJson(e.after)}});
  }
  return {{"rows", std::move(rows)}, {"effects", std::move(effects)}, {"would_break", check.newFaults}};
}

}  // namespace zl::services
