#include <fmt/format.h>

#include "services/intake/judged.h"
#include "services/reports/report.h"

namespace zl::services {

std::string readingText(const ImportPreview& preview, const model::Model& m) {
  std::string out;
  for (const SheetReading& s : preview.readings) {
    const TableReading& r = s.reading;
    const Sheet& sheet = preview.workbook->sheets.at(static_cast<size_t>(s.sheet));
    out += fmt::format("{}{}: {} x 10^{}{}\n", preview.name, sheet.name.empty() ? "" : ", sheet '" + sheet.name + "'",
                       r.currency.empty() ? "no currency" : r.currency, r.scale, s.included ? "" : ", left out");
    for (const TableColumn& c : r.columns) {
      out += c.end == Date{} ? fmt::format("  column '{}': left out: {}\n", c.heading, c.doubt)
                             : fmt::format("  column '{}': {} months to {}{}\n", c.heading, c.months, dateText(c.end),
                                           c.included ? "" : ", left out: " + c.doubt);
    }
    for (const TableLine& l : r.lines) {
      out += fmt::format("  {:<44} {}{:<28} {}{}\n", l.label, l.choice.weight < 0 ? "-" : " ",
                         l.choice.line.empty() ? "(none)" : l.choice.line, l.choice.reason,
                         l.total ? "; in '" + r.lines[*l.total].label + "'" : "");
    }
    if (r.sums > 0) out += fmt::format("  {} of its rows found to be totals of others\n", r.sums);
    for (const std::string& doubt : r.doubts) out += "  look at: " + doubt + "\n";
  }
  if (preview.holding > 0 || !preview.failing.empty()) {
    if (preview.readings.empty()) out += preview.name + ":\n";
    out += fmt::format("  {} ties would hold, {} would fail\n", preview.holding, preview.notHolding);
    for (const std::string& tie : preview.failing) out += "  look at: " + tie + "\n";
    if (preview.repair) out += "  mend: " + repairText(preview, m) + "\n";
  }
  return out;
}

}  // namespace zl::services
