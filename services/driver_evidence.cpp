#include "services/driver_evidence.h"

#include <algorithm>

#include "services/history_figures.h"

namespace zl::services {

std::vector<bool> exceptionalColumns(const Snapshot& s) {
  std::vector<bool> flags;
  for (const FiscalYear& year : s.years()) flags.push_back(s.caseOf().exceptional.count(year.label()) > 0);
  return flags;
}

DriverEvidence evidenceOf(const Snapshot& s, int row, int scenario) {
  DriverEvidence e;
  const int filed = s.evaluation->layout().historyYears;
  for (int c = 0; c < filed; ++c) e.history.push_back(s.history->at(row, c));
  e.exceptional = leftOut(s, row);
  for (int years : {3, 5, 10}) {
    const auto from = e.history.size() - static_cast<size_t>(std::min(years, filed));
    const std::vector<Figure> window(e.history.begin() + static_cast<std::ptrdiff_t>(from), e.history.end());
    const std::vector<bool> out(e.exceptional.begin() + static_cast<std::ptrdiff_t>(from), e.exceptional.end());
    e.windows.push_back({years, describe(window), describe(window, out)});
  }
  e.spread = describe(e.history, e.exceptional);
  const Figure chosen = s.evaluation->figure(row, s.evaluation->layout().columns() - 1, scenario);
  e.percentile = chosen.hasValue() ? percentileOf(chosen.value(), e.history, e.exceptional) : chosen;
  return e;
}

}  // namespace zl::services
