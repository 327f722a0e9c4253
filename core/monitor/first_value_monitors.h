#pragma once
// What a first value may mislead about: proposals that nobody has looked at, scenarios out of order, a value far from
// the price or from what another
// model makes of it, a valuation date in a year whose opening is not filed.

#include <vector>

#include "core/monitor/finding.h"

namespace zl {

void monitorFirstValue(const MonitorView& view, std::vector<Finding>& found);

}  // namespace zl
