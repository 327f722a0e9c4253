#pragma once
// What figures of versions stand on: told within the version, walked from one to another, or as they
// would be with own rows that are being written.

#include <string>

#include "services/stories/story.h"
#include "services/views/compare.h"
#include "services/views/own_rows.h"

namespace zl::services {

/// A part of the walk from one value to another, by its place in `walk.steps`.
Story walkStepStory(const Snapshot& s, const ValueWalk& walk, size_t step, const std::string& shown);

/// Value per share of a scenario with the text of own rows that is being written, or (`change`) what
/// that text does to it.
Story ownEffectStory(const Snapshot& s, const OwnEffect& effect, int scenario, bool change);

/// A figure of a version, told within that version.
Story versionStory(const Side& side, const BesideLine& line, const std::string& scenario);
/// The probability-weighted value per share of a version; `row` is the value weighted, after or before
/// the floor at zero.
Story weightedStory(const Side& side, model::Role role, const Figure& figure);

}  // namespace zl::services
