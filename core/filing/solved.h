#pragma once
// A total that a filer does not state, from the others of its tie: one row of equity, liabilities that are not added
// up. Text of kits/standard/ties: 'solve equity', the name of a tie above it.

#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "core/filing/mapping.h"
#include "core/filing/tie.h"

namespace zl {

/// The ties that 'solve' lines name; fails where one is not there or has an opening balance.
Result<std::vector<Tie>> parseSolved(std::string_view text, const std::vector<Tie>& ties, const std::string& source);

/// Gives the one line of the tie that is not filed in a period the figure and the facts of the others. False, and
/// nothing changed, where none or more than one is missing, or where nothing else is filed.
bool solve(const Tie& tie, const std::function<LineCell*(const std::string&)>& cellOf);

}  // namespace zl
