#pragma once
// The last stage: what monitors find in the values and in what peers say beside them.

#include <vector>

#include "core/monitor/finding.h"
#include "services/stages/snapshot.h"

namespace zl::services {

std::vector<Finding> judge(const Snapshot& s);

}  // namespace zl::services
