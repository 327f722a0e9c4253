#pragma once
// What in the history could mislead an average or a growth rate.

#include "core/monitor/finding.h"

namespace zl {

/// Base year far under its own median, mean of yearly growth far from the compound rate, windows
/// that start or end in an exceptional year, adjusted figures in use. Part of monitor().
void monitorHistory(const MonitorView& view, std::vector<Finding>& found);

}  // namespace zl
