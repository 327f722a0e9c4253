#pragma once
// The growth rates that an exit multiple implies under the value-driver rule.

#include <vector>

namespace zl {

/// Every g in (-1, wacc) with  nopat * (1 + g) * (1 - g / returnOnNew) / (wacc - g) = terminal,
/// ascending; empty when there is none. `terminal` is the exit's terminal value brought to the
/// flow's own timing (exit / (1 + wacc)^0.5 for mid-year flows). Money figures in one unit.
/// The rule is quadratic in g, so the roots are exact up to rounding; no search is needed.
std::vector<double> impliedGrowth(double nopat, double wacc, double returnOnNew, double terminal);

}  // namespace zl
