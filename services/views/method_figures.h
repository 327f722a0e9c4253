#pragma once
// What the ways of valuing a share say of one another.

#include <vector>

#include "services/stages/snapshot.h"

namespace zl::services {

/// Growth rates that the exit multiple implies under the scenario's own terminal rule, ascending.
std::vector<double> impliedGrowthOf(const Snapshot& s, int scenario);

/// Value per share that a statistic of peers' multiple implies, in the listing's unit; absent where the model values
/// nothing by it. `statistic` is one of kValuedStatistics.
Figure impliedByPeers(const Evaluation& e, Multiple m, const char* statistic, int scenario);

}  // namespace zl::services
