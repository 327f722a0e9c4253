#pragma once
// What a change is made of: a margin by mix and within its parts, growth organic and bought, the
// return on what was paid for businesses.

#include <vector>

#include "core/filing/company.h"
#include "core/filing/mapping.h"
#include "core/quantity/figure.h"

namespace zl {

/// One part of the company in one year.
struct PartYear {
  Figure revenue;
  Figure profit;
};

struct MarginChange {
  Figure mix;     ///< sum of (s1 - s0)(m0 - M0): parts gained or lost weight
  Figure within;  ///< sum of s1 (m1 - m0): parts earned more or less
  Figure total;   ///< M1 - M0; the two add up to it
};

/// s share of the parts' revenue, m a part's margin, M all parts' margin. Both years list the same
/// parts in the same order; absent where a part lacks a figure, not meaningful where revenue is not
/// positive.
MarginChange marginChange(const std::vector<PartYear>& before, const std::vector<PartYear>& now);

/// Revenue that deals added in each fiscal year within their first twelve months (negative: sold
/// businesses' revenue that left), in reporting currency.
std::vector<double> acquiredRevenue(const std::vector<Deal>& deals, const std::vector<FiscalYear>& years);

/// (revenue - acquired) / revenue before - 1; the effect of currencies is not known and stays in it.
Figure organicGrowth(const Figure& before, const Figure& revenue, double acquired);

}  // namespace zl
