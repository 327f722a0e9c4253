#pragma once
// Choices of the cost of capital, of what lies beyond the forecast and of the claims that another, as obvious, would
// make differ: each with what the value would be under it, those that move it least folded into one line. Part of
// monitor().

#include <vector>

#include "core/monitor/finding.h"

namespace zl {

void monitorCapital(const MonitorView& view, std::vector<Finding>& found);

}  // namespace zl
