#pragma once
// Paths and projections that hardly any company has kept up.

#include "core/monitor/finding.h"

namespace zl {

/// By scenario: growth above the economy, margins above any seen, returns that never fade, negative
/// cash, share counts that move, dividends above free cash flow; figures adopted from an average
/// with an exceptional year in it. Part of monitor().
void monitorProjection(const MonitorView& view, std::vector<Finding>& found);

}  // namespace zl
