#pragma once
// Share splits: counts and per-share figures filed before one are restated to today's shares.

#include <span>
#include <vector>

#include "core/filing/company.h"
#include "core/filing/fact.h"

namespace zl {

/// Today's shares for one share of `date`, as a document that reports up to `reportsTo` counts it:
/// a report that ends on or after a split's day is on the new basis already, comparatives included.
double splitFactor(std::span<const ShareSplit> splits, Date date, Date reportsTo);

/// All facts, counts of shares multiplied and amounts per share divided by their factor; the order
/// is kept, so that an index names the same fact as before. Empty where there is nothing to restate.
std::vector<Fact> restatedForSplits(std::span<const Fact> facts, std::span<const ShareSplit> splits);

}  // namespace zl
