#pragma once
// Whether an outlook stands on what it says it stands on, and on a usual year: a base year at the height of a cycle,
// tax that stays away from the marginal rate, a multiple away from the statistic its reason names.

#include <vector>

#include "core/monitor/finding.h"

namespace zl {

void monitorStanding(const MonitorView& view, std::vector<Finding>& found);

}  // namespace zl
