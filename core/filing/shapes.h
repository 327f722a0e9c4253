#pragma once
// What is made of a statement's lines after they are filled, because filers state the same in different shapes.

#include <vector>

#include "core/filing/contained.h"
#include "core/filing/held.h"
#include "core/filing/moving.h"
#include "core/filing/solved.h"
#include "core/filing/untold.h"

namespace zl {

struct StatementShapes {
  std::vector<ContainedCost> contained;    ///< costs that other lines hold
  std::vector<TieWithLines> solved;        ///< ties that give a line which is not filed
  std::vector<TieWithLines> completed;     ///< ties that say that a line which is not filed is none
  std::vector<SummedBalance> summed = {};  ///< balance sheets of net assets
  std::vector<UntoldRest> untold = {};     ///< what totals leave where a source leaves concepts out
  std::vector<HoldingLine> holding = {};   ///< lines that hold what is stated beside them
  std::vector<MovingBalance> moving = {};  ///< balances that are told by what moves them; `standardise` looks for them

  /// Every shape, on the lines of one period. `factOf` gives the fact of a concept in it, for a source that leaves
  /// concepts out; empty for others, whose totals must tie by what is filed.
  void apply(const std::function<LineCell*(const std::string&)>& cellOf, std::span<const Fact> facts,
             const std::function<const size_t*(const std::string&)>& factOf = {}) const {
    for (const TieWithLines& tie : solved) solve(tie, cellOf);
    for (const SummedBalance& balance : summed) sumUp(balance, cellOf, facts);
    if (factOf) {
      for (const UntoldRest& rest : untold) fillUntold(rest, cellOf, factOf, facts);
    }
    for (const HoldingLine& line : holding) takeOutHeld(line, cellOf, facts);
    for (const TieWithLines& tie : completed) complete(tie, cellOf, facts);
    for (const ContainedCost& cost : contained) takeOut(cost, cellOf, facts);
  }
};

}  // namespace zl
