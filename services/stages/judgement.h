#pragma once
// The last stage: what monitors find in the values and in what peers say beside them.

#include <vector>

#include "core/monitor/finding.h"
#include "services/stages/evaluated.h"

namespace zl::services {

struct Judgement {
  std::vector<Finding> findings;
};

Judgement judge(const Evaluated& e, const FilingReview& review, std::vector<OnOtherModel> others);

}  // namespace zl::services
