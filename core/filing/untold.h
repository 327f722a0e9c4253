#pragma once
// What a filer states in concepts of its own that a source leaves out: facts of a company gathered by standard concepts
// hold the totals and not all their parts. Text of kits/standard/ties:
//
//   rest liabilities other_noncurrent_liabilities, current us-gaap:LiabilitiesCurrent = other_current_liabilities
//   payables
//
// What the parts of the tie 'liabilities' leave of its total goes to the first line; where one of the concepts after
// 'current' is filed, what the lines behind it and what else is called current leave of that goes to the first of
// those.

#include <functional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/filing/tie.h"

namespace zl {

struct UntoldRest {
  Tie tie;
  std::string line;
  std::vector<std::string> currentTotals;  ///< concepts; the first that is filed
  std::vector<std::string>
      currentLines;  ///< the one that takes the rest, and others within; empty where there are none
};
Result<std::vector<UntoldRest>> parseUntold(std::string_view text, const std::vector<Tie>& ties,
                                            const std::string& source);

/// Gives the lines what the total of one period leaves, as the total's fact less those of its parts. `factOf` is the
/// fact of a concept in that period, null where there is none. False, and nothing changed, where the parts give the
/// total or more than it, or either is not filed.
bool fillUntold(const UntoldRest& rest, const std::function<LineCell*(const std::string&)>& cellOf,
                const std::function<const size_t*(const std::string&)>& factOf, std::span<const Fact> facts);

}  // namespace zl
