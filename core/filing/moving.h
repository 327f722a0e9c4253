#pragma once
// A balance that no label tells, found by what moves it: the cash flow statement says by how much cash changed in every
// year, and one row of the balance sheet changed so. Text of kits/standard/ties:
//
//   moves cash = other_current_assets other_noncurrent_assets
//
// Where the total of the tie 'cash' (total = total[-1] + movements) is filed in no year, it is looked for among what
// stands on the lines on the right.

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "core/filing/mapping.h"
#include "core/filing/tie.h"

namespace zl {

struct MovingBalance {
  Tie tie;
  std::vector<std::string> lines;  ///< where it may stand
};

/// The 'moves' lines of a ties text; fails where one names no tie above it, or one that is no movement of its total.
Result<std::vector<MovingBalance>> parseMoving(std::string_view text, const std::vector<Tie>& ties,
                                               const std::string& source);

/// The concept whose figures move as the tie says in each of two years or more, with the choice that puts it on the
/// tie's total. Empty where the total is filed, where no concept moves so, or more than one, and for what the analyst
/// has placed.
std::optional<std::pair<std::string, LineChoice>> foundByMovement(const MovingBalance& moving,
                                                                  const StandardStatements& statements,
                                                                  std::span<const Fact> facts,
                                                                  const LineChoices& choices);

}  // namespace zl
