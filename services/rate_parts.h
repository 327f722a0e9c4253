#pragma once
// The discount rate of the first forecast year, split into parts that add up to it.

#include <string>
#include <vector>

#include "services/stories/story.h"

namespace zl::services {

/// One part, weighted by its share of the capital: a fraction of the rate.
struct RatePart {
  enum class What { RiskFree, Premium, Country, Size, Debt, Preferred };
  What what = What::RiskFree;
  std::string label;
  Figure figure;
};

/// In the order of the build-up; they sum to the WACC. A part without a figure keeps its reason.
std::vector<RatePart> rateParts(const Snapshot& s, int scenario);

/// A part with the rows it is the product of.
Story ratePartStory(const Snapshot& s, int scenario, const RatePart& part);

}  // namespace zl::services
