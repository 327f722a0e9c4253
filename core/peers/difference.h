#pragma once
// Why a company's multiple is another than its peers': the multiple that growth, payout, return and risk justify, and
// the gap between two of them shared out among the four.

#include <array>

#include "core/quantity/figure.h"

namespace zl {

/// What a multiple of next year's earnings stands on. Rates per year as ratios.
struct MultipleGrounds {
  Figure growth;     ///< of earnings, for kJustifiedYears
  Figure payout;     ///< share of earnings paid in those years
  Figure retaining;  ///< return on equity that lasting growth is paid for with
  Figure risk;       ///< required return on equity
};
inline constexpr int kJustifiedYears = 5;

/// p * sum over t of (1+g)^(t-1)/(1+k)^t + (1+g)^(n-1) * (1+gL) * (1 - gL/ROE) / ((k - gL) * (1+k)^n), n = 5: the
/// two-stage dividend model over next year's earnings. Not meaningful where the required return does not exceed lasting
/// growth, or the return on equity is not positive.
Figure justifiedForwardMultiple(const MultipleGrounds& grounds, double lastingGrowth);

/// Of a gap in natural logarithms: parts and `unexplained` sum to `whole`.
struct MultipleGap {
  Figure whole;                 ///< ln(subject's multiple / the peers')
  std::array<Figure, 4> parts;  ///< growth, payout, return, risk: the Shapley value of each (Shapley 1953), in order
  Figure unexplained;           ///< what none of the four tells
  Figure justifiedHere, justifiedThere;
  std::array<bool, 4>
      known{};  ///< whether the peers' ground is; else the subject's own stands for it and tells nothing
};

/// Where a ground of the peers is absent the subject's own is taken for both, so that its part is nought. Not
/// meaningful where a multiple is not positive, or the justified multiple of a mixture is not.
MultipleGap gapOf(const Figure& subjects, const Figure& peers, const MultipleGrounds& here,
                  const MultipleGrounds& there, double lastingGrowth);

}  // namespace zl
