#pragma once
// A cost that other lines hold as it was filed: statements by function have depreciation inside cost of sales and the
// other functions, and state it apart only in the cash flow statement or the notes. Deducted beside them it would count
// twice. Text of kits/standard/ties:
//
//   inside ebit depreciation = cost_of_sales + operating_expenses
//
// Where the tie 'ebit' fails by exactly that line, the lines named hold it, and it is taken out of them in proportion,
// so that EBIT is as filed and EBITDA is EBIT with it added back.

#include <functional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/filing/mapping.h"
#include "core/filing/tie.h"

namespace zl {

struct ContainedCost {
  Tie tie;
  std::string line;
  std::vector<std::string> hosts;
};

/// The 'inside' lines of a ties text; fails where one names no tie above it or a line that is no addend of it.
Result<std::vector<ContainedCost>> parseContained(std::string_view text, const std::vector<Tie>& ties,
                                                  const std::string& source);

/// Takes the cost out of the lines that hold it, in one period; the parts of their cells say so. False, and nothing
/// changed, where the tie holds, cannot be judged, or fails by something else.
bool takeOut(const ContainedCost& cost, const std::function<LineCell*(const std::string&)>& cellOf,
             std::span<const Fact> facts);

}  // namespace zl
