#pragma once
// A line that holds others which are stated beside it: "cash from financing (180), of which dividends (90)", "financial
// result (120), of which interest (95)". The section's total stands on the line of its rest, whole, and what is told of
// it would count twice. Text of kits/standard/ties:
//
//   holds movement other_cash_flow = dividends buybacks net_borrowing
//
// Where the tie 'movement' fails by exactly the sum of some of the lines on the right, and of these alone, the first
// line holds them, and they are taken out of it whole.

#include <functional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/filing/mapping.h"
#include "core/filing/tie.h"

namespace zl {

struct HoldingLine {
  Tie tie;
  TieTerm holder;
  std::vector<TieTerm> held;
};

/// The 'holds' lines of a ties text; fails where one names no tie above it, a line that is no addend of it, or more
/// than eight lines.
Result<std::vector<HoldingLine>> parseHolding(std::string_view text, const std::vector<Tie>& ties,
                                              const std::string& source);

/// Takes them out, in one period; the parts of the holder's cell say so. Lines of the tie that are not filed count as
/// none. False, and nothing changed, where the tie holds, no set of lines explains it, or several sets of the fewest
/// do.
bool takeOutHeld(const HoldingLine& holding, const std::function<LineCell*(const std::string&)>& cellOf,
                 std::span<const Fact> facts);

}  // namespace zl
