#pragma once
// What stands between a company and its first value: in order, each with where it is given.

#include <string>
#include <vector>

#include "core/monitor/finding.h"
#include "services/stages/snapshot.h"

namespace zl::services {

struct Need {
  /// Line: of a statement, which no filed row gives. Shares, Price, Rate: a figure that can be typed here. Date: the
  /// valuation date lies out of reach. Other: an input or a rule of the model, told by its reason.
  enum class What { Line, Shares, Price, Rate, Date, Other } what = What::Other;
  std::string words;   ///< "the price in GBX", "total equity of 2025"
  std::string reason;  ///< why it has no figure
  std::string series;  ///< of a rate or price: as it is typed
  model::Cell cell;    ///< to trace
  Stop stop = Stop::Verdict;
  [[nodiscard]] bool isTyped() const { return what == What::Shares || what == What::Price || what == What::Rate; }
};

/// Empty where base has a value and a price. What the value rests on and nothing gives comes first, lines before
/// counts before rates; the price last.
std::vector<Need> stillNeeded(const Snapshot& s);

}  // namespace zl::services
