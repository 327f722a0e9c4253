#pragma once
// The last stage: what peers say beside the values, and what monitors find.

#include <vector>

#include "core/monitor/finding.h"
#include "core/peers/peer.h"
#include "services/stages/evaluated.h"

namespace zl::services {

struct Judgement {
  CrossCheck crossCheck;
  std::vector<Finding> findings;
};

/// The basis that the base scenario's choices stand for.
MeasureBasis basisOf(const model::Model& m, const Case& c);

/// What peers say of the company alone, without a monitor.
CrossCheck crossCheckOf(const Evaluated& e);

Judgement judge(const Evaluated& e, const FilingReview& review);

}  // namespace zl::services
