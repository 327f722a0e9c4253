#pragma once
// Moving a case on by whole fiscal years: what was assumed for a calendar year stays with it.

#include "core/outlook/case.h"

namespace zl {

/// The case with its base year `years` later. Typed years and turns of a cycle that have passed
/// fall away, years counted from the base move nearer, a stage that has begun grows shorter and the
/// last one longer, so that the horizon keeps its length. A path that ended in the last year still
/// does. The valuation date is the caller's to set.
Case rolledForward(const Case& c, int years);

}  // namespace zl
