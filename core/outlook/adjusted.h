#pragma once
// Adjusted history: what the analyst's adjustments make of the filed flows. Filed figures are
// never overwritten; this says what stands beside them.

#include <map>
#include <string>
#include <vector>

#include "core/filing/tie.h"
#include "core/outlook/case.h"

namespace zl {

/// How far an adjusted figure is from the filed one, in reporting currency.
struct Shift {
  double amount = 0;
  std::vector<std::string> why;  ///< one line per reason: typed, or carried from another line
};

/// By line and fiscal year. An adjustment of a part carries into EBIT, profit before tax and net
/// income by the ties of the income statement, except into one that is adjusted itself, which is what was typed; tax
/// moves by `taxRate` (0..1; not at all where it has no value) of the change of profit before tax, unless tax itself is
/// adjusted in that year. Balances, minorities and the cash flow statement stay as filed: cash was paid as it was paid.
std::map<CellOfLine, Shift> shiftsOf(const Case& c, const model::Model& m, const std::vector<Tie>& ties,
                                     const Figure& taxRate);

}  // namespace zl
