#pragma once
// The values of methods that have a range by themselves, as peers' multiples have, for the range chart.

#include <vector>

#include "app/charts/range_chart.h"
#include "core/peers/peer.h"
#include "services/stages/snapshot.h"

namespace zl::app {

/// Of the base scenario.
std::vector<MethodRange> ownRanges(const services::Snapshot& s);
/// What others say the share is worth, each from its low to its high.
std::vector<MethodRange> othersRanges(const services::Snapshot& s);
/// What each multiple of peers implies per share of base: low to high, the median between.
std::vector<MethodRange> rangesOfMultiples(const services::Snapshot& s, const std::vector<Multiple>& multiples);

/// A row of base across all ranges: the price, the value to buy below.
std::optional<RangeMark> rangeMark(const services::Snapshot& s, model::Role role);

}  // namespace zl::app
