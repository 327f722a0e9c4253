#include "services/driver_evidence.h"

#include <algorithm>

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
  const std::vector<bool> flagged = exceptionalColumns(s);
  // A growth figure leans on two years; either one being odd spoils it.
  const std::string& name = s.evaluation->model().rows[static_cast<size_t>(row)].name;
  const bool isGrowth = name.find("growth") != std::string::npos;
  e.exceptional = flagged;
  for (size_t i = 1; isGrowth && i < flagged.size(); ++i) e.exceptional[i] = flagged[i] || flagged[i - 1];
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

std::vector<Figure> growthOf(const Snapshot& s, int row, int scenario) {
  std::vector<Figure> list;
  list.reserve(static_cast<size_t>(s.evaluation->layout().columns()));
  for (int c = 0; c < s.evaluation->layout().columns(); ++c) {
    list.push_back(c == 0 ? Figure::absent("there is no earlier year")
                          : growth(s.evaluation->figure(row, c - 1, scenario), s.evaluation->figure(row, c, scenario)));
  }
  return list;
}

std::vector<Figure> shareOfRevenue(const Snapshot& s, int row, int scenario) {
  std::vector<Figure> list;
  list.reserve(static_cast<size_t>(s.evaluation->layout().columns()));
  const int revenue = s.evaluation->model().find("revenue");
  for (int c = 0; c < s.evaluation->layout().columns(); ++c) {
    const Figure base = s.evaluation->figure(revenue, c, scenario);
    if (base.hasValue() && base.value() <= 0) {
      list.push_back(Figure::notMeaningful("revenue is not positive"));
    } else {
      list.push_back(s.evaluation->figure(row, c, scenario) / base);
    }
  }
  return list;
}

}  // namespace zl::services
