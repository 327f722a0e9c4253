#pragma once
// What the ways of valuing a share say of one another.

#include <string>
#include <vector>

#include "services/stages/snapshot.h"

namespace zl::services {

/// Growth rates that the exit multiple implies under the scenario's own terminal rule, ascending.
std::vector<double> impliedGrowthOf(const Snapshot& s, int scenario);

/// Value per share that a statistic of peers' multiple implies, in the listing's unit; absent where the model values
/// nothing by it. `statistic` is one of kValuedStatistics.
Figure impliedByPeers(const Evaluation& e, Multiple m, const char* statistic, int scenario);
/// The enterprise value that it stands for, in reporting currency: the value per share times the diluted count, with
/// the claims. Absent where nothing is left for shareholders, since the floor under a share hides how much is missing.
Figure impliedEnterprise(const Evaluation& e, Multiple m, const char* statistic, int scenario);

/// In one sentence: how many ways have a value, the lowest and the highest, how far apart they lie.
std::string methodSpreadWords(const Snapshot& s, int scenario);

}  // namespace zl::services
