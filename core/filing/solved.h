#pragma once
// A total that a filer does not state, from the others of its tie: one row of equity, liabilities that are not added
// up. Text of kits/standard/ties: 'solve equity', the name of a tie above it. And what a tie says is none.

#include <functional>
#include <set>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/filing/mapping.h"
#include "core/filing/tie.h"

namespace zl {

/// A tie, and those of its lines that something is said of; empty: of all.
struct TieWithLines {
  Tie tie;
  std::set<std::string> lines;
};

/// The ties that 'solve' lines name, with the lines that may be solved ('solve pretax ebit'); fails where one is not
/// there or has an opening balance.
Result<std::vector<TieWithLines>> parseSolved(std::string_view text, const std::vector<Tie>& ties,
                                              const std::string& source);

/// Gives the one line of the tie that is not filed in a period the figure and the facts of the others. False, and
/// nothing changed, where none or more than one is missing, where it may not be solved, or where nothing else is filed.
bool solve(const TieWithLines& tie, const std::function<LineCell*(const std::string&)>& cellOf);

/// A tie that says by itself that lines are none: where what is filed of it adds up to its total, nothing is left for a
/// line that is not filed. Text: 'complete assets', or 'complete ebit cost_of_sales' for these lines alone.
Result<std::vector<TieWithLines>> parseComplete(std::string_view text, const std::vector<Tie>& ties,
                                                const std::string& source);

/// Makes lines of the tie that are not filed in a period none reported. False, and nothing changed, where its filed
/// lines do not add up to its total, a line is missing that must not be, or nothing is filed.
bool complete(const TieWithLines& tie, const std::function<LineCell*(const std::string&)>& cellOf,
              std::span<const Fact> facts);

/// A balance sheet that adds up to net assets and states neither all assets nor all liabilities. Text: 'sums balance
/// assets liabilities': the tie of the balance and those of its two totals.
struct SummedBalance {
  Tie balance, first, second;
};
Result<std::vector<SummedBalance>> parseSums(std::string_view text, const std::vector<Tie>& ties,
                                             const std::string& source);

/// Makes both totals the sums of their filed lines, those that are not filed none, where the balance then ties by the
/// rest of it that is filed. False, and nothing changed, where one of them is filed or it does not tie.
bool sumUp(const SummedBalance& balance, const std::function<LineCell*(const std::string&)>& cellOf,
           std::span<const Fact> facts);

}  // namespace zl
