#pragma once
// What in the history could mislead an average or a growth rate.

#include "core/monitor/finding.h"

namespace zl {

/// Where the monitors draw their lines.
struct HistoryLimits {
  double baseUnderMedian = 0.5;    ///< base year's figure over the median of its regular years
  double meanFromCompound = 0.02;  ///< mean of yearly growth less the compound rate
};

/// Base year far under its own median, mean of yearly growth far from the compound rate, windows
/// that start or end in an exceptional year, adjusted figures in use. Part of monitor().
void monitorHistory(const MonitorView& view, std::vector<Finding>& found, const HistoryLimits& limits = {});

}  // namespace zl
