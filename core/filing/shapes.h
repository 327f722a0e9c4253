#pragma once
// What is made of a statement's lines after they are filled, because filers state the same in different shapes.

#include <vector>

#include "core/filing/contained.h"
#include "core/filing/solved.h"

namespace zl {

struct StatementShapes {
  std::vector<ContainedCost> contained;  ///< costs that other lines hold
  std::vector<Tie> solved;               ///< ties that give a line which is not filed
  std::vector<CompleteTie> completed;    ///< ties that say that a line which is not filed is none

  /// Every shape, on the lines of one period.
  void apply(const std::function<LineCell*(const std::string&)>& cellOf, std::span<const Fact> facts) const {
    for (const Tie& tie : solved) solve(tie, cellOf);
    for (const CompleteTie& tie : completed) complete(tie, cellOf, facts);
    for (const ContainedCost& cost : contained) takeOut(cost, cellOf, facts);
  }
};

}  // namespace zl
