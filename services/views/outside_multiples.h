#pragma once
// Multiples that are no peer's: of a sector over time and of deals, as rates of the book by name ("sector ev-ebitda
// Machinery", "deal ev-ebitda Orvane Mills"); and what others say the share is worth (estimates of value_per_share).
// In: a snapshot. Out: each by its days, statistics, what it implies for the subject.

#include <optional>
#include <string>
#include <vector>

#include "core/capital/rates.h"
#include "services/stages/snapshot.h"

namespace zl::services {

struct DatedMultiple {
  std::string whose;  ///< the sector, or who was bought
  Date on;
  double multiple = 0;
  std::string source;
};

/// One multiple of one sector over time, or of all deals that are told in it.
struct OutsideMultiples {
  std::string label;  ///< "Machinery, EV to EBITDA", "Deals, EV to EBITDA"
  Multiple multiple = Multiple::EvToEbitda;
  std::vector<DatedMultiple> points;  ///< up to the valuation date, the earliest first
  int count = 0;
  Figure low, median, high, latest;
  Figure percentile;                        ///< mid-rank share of the points at or below the latest; of sectors
  Figure impliedLow, implied, impliedHigh;  ///< per share of base by low, median and high, in the listing's unit
};

struct OutsideView {
  std::vector<OutsideMultiples> sectors, deals;
  std::vector<std::string> untold;  ///< names that begin so and name no multiple
};
OutsideView outsideMultiples(const Snapshot& s);

/// What somebody else says the share is worth.
struct OthersValue {
  std::string source;  ///< who and how, as typed
  Date on;
  int year = 0;  ///< fiscal year that it is said of
  double mean = 0;
  std::optional<double> low, high;
  Figure against;  ///< base's value over it, less one
};
/// Estimates of the row that means the value per share, up to the valuation date; of one source the latest.
std::vector<OthersValue> othersValues(const Snapshot& s);

}  // namespace zl::services
