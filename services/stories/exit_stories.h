#pragma once
// What figures of the exit return stand on, where they are no row of the model.

#include "services/stories/story.h"
#include "services/views/exit_return.h"
#include "services/views/exit_runs.h"

namespace zl::services {

/// The yearly return of a scenario or what a part adds to its total.
Story exitStory(const Snapshot& s, const std::string& label, const ExitReturn& of, const Figure& figure, int scenario);
/// What the exit multiple is held against; `scenario` -1: a figure of all.
Story exitBesideStory(const Snapshot& s, const std::string& label, const ExitBeside& of, const Figure& figure,
                      Kind kind, int scenario);
/// The yearly return for one growth and one multiple.
Story exitGridStory(const Snapshot& s, double growth, double multiple, const Figure& figure);

/// A figure of a run that was kept as a version, or of the present one.
Story exitRunStory(const Snapshot& s, const ExitRunLine& line, size_t side, const std::string& run);

}  // namespace zl::services
