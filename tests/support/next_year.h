#pragma once
// The year after the base year as if it had come in as base forecasts it, but for revenue.

#include <cmath>
#include <sstream>
#include <string>

#include "services/stages/snapshot.h"

namespace zl::test {

/// A table of facts of fiscal 2026, in whole thousands, with revenue times a factor.
inline std::string nextYear(const services::Snapshot& s, double revenueFactor) {
  const Evaluation& e = *s.evaluation;
  std::ostringstream csv;
  csv << "concept,label,start,end,unit,decimals,value\n";
  for (size_t r = 0; r < e.model().rows.size(); ++r) {
    const model::Row& line = e.model().rows[r];
    const Figure f = e.figure(model::RowId(r), e.layout().historyYears, e.caseOf().indexOf(kBase));
    if (!line.historyFiled || !f.hasValue()) continue;
    const double x = std::round(f.value() * (line.name == "revenue" ? revenueFactor : 1) / 1000) * 1000;
    csv << line.name << ",," << (line.timing == model::Timing::Flow ? "2026-01-01" : "") << ",2026-12-31,"
        << (line.kind == Kind::Shares ? "shares" : "EUR") << ",-3," << static_cast<long long>(x) << '\n';
  }
  return csv.str();
}

}  // namespace zl::test
