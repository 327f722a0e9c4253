#pragma once
// Monitors of the peers: how many count, who of them is out of scale, stale, of another currency or the subject itself,
// and of the ways to value that lie apart.

#include "core/monitor/finding.h"

namespace zl {

void monitorPeers(const MonitorView& view, std::vector<Finding>& found);

}  // namespace zl
