#pragma once
// Ties that fail in what was filed, and the one row that, put elsewhere, makes most of them hold.

#include <functional>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/filing/mapping.h"
#include "core/filing/tie.h"
#include "core/structure/placing_rules.h"

namespace zl {

/// A concept put on another line, turned round or set aside, and what that does.
struct Repair {
  std::string concept_name;
  std::string label;   ///< as filed
  LineChoice choice;   ///< with its reason
  std::string before;  ///< the line that it stands on now; empty where on none
  int mended = 0;      ///< ties, by year, that do not hold now and would
  int failing = 0;     ///< ties that would still fail
};

/// The statements as they would be under other choices.
using Restate = std::function<StandardStatements(const LineChoices&)>;

/// The change of one concept after which the most ties hold; none of those that hold may fail for it. Tried are
/// concepts whose figure is the gap of a failing tie in every year it fails in, or half of it: missing from it, counted
/// in it, or with the other sign; of a tie that lacks lines, the one that goes on one of them and is all that the
/// others leave, in two years at least. Of changes that mend as much, the one whose line the label resembles. Nothing
/// where no single change explains a gap: a figure is wrong then, or several rows are. `facts` are those `now` was made
/// of.
std::optional<Repair> bestRepair(const std::vector<Tie>& ties, const StandardStatements& now,
                                 std::span<const Fact> facts, const LineChoices& choices, const PlacingRules& placing,
                                 const Restate& restate);

}  // namespace zl
