#pragma once
// A company as the sum of what its parts are worth by themselves.

#include <optional>
#include <string>
#include <vector>

#include "core/outlook/case.h"
#include "core/quantity/figure.h"

namespace zl {

/// One part of the base year, in reporting currency.
struct Part {
  std::string label;
  Figure revenue, profit;            ///< profit is EBIT as filed by part
  std::optional<PartChoice> choice;  ///< none yet
};

struct ValuedPart {
  Part part;
  Figure metric;  ///< what the choice is of
  Figure value;   ///< metric times multiple; absent without a choice
  Figure share;   ///< of all parts' values
};

struct SumOfParts {
  std::vector<ValuedPart> parts;
  Figure unallocated;       ///< profit of the parts less that of the whole: costs of no part, positive is a cost
  Figure unallocatedValue;  ///< what they take off; nought where they are nothing
  Figure enterprise;        ///< the sum; absent, and names what is missing, while anything is
};

/// Costs of no part under this share of the whole's profit need no multiple.
inline constexpr double kLittleUnallocated = 0.005;

/// Sum of metric times multiple, less the capitalised cost of no part. A part with revenue or profit and no choice, a
/// metric that is not positive and costs of no part without a multiple leave no sum. Where a part files no profit the
/// costs of no part cannot be told, and none are taken off.
SumOfParts sumOfParts(const std::vector<Part>& parts, const Figure& profitOfWhole,
                      const std::optional<PartChoice>& unallocated);

}  // namespace zl
