#pragma once
// The values that peers' multiples imply, as ranges for the range chart.

#include <vector>

#include "app/charts/range_chart.h"
#include "services/snapshot.h"

namespace zl::app {

std::vector<MethodRange> peerRanges(const services::Snapshot& s);

/// A row of base across all ranges: the price, the value to buy below.
std::optional<RangeMark> rangeMark(const services::Snapshot& s, const char* row);

}  // namespace zl::app
