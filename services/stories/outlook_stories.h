#pragma once
// What figures around the projection stand on: a forecast year that has come true, the year to date,
// published sets, implied growth, probabilities and limits.

#include <string>

#include "core/monitor/limits.h"
#include "services/sessions/assumption_history.h"
#include "services/stories/story.h"
#include "services/views/decide.h"
#include "services/views/interim_progress.h"
#include "services/views/published.h"
#include "services/views/roll_forward.h"

namespace zl::services {

/// A year that was forecast and is filed now: what came, and the gap to base (or, with `share`, the
/// gap as a share of the forecast). Columns are those of the layout.
Story actualStory(const Snapshot& s, const ForecastAgainstActual& line);
Story gapStory(const Snapshot& s, const ForecastAgainstActual& line, bool share);

enum class InterimFigure { Growth, Reached, Usual, Rest, RestGrowth };
Story interimProgressStory(const Snapshot& s, const InterimLine& line, const std::string& period, InterimFigure which);

enum class PublishedFigure { Old, Now, Change, Share };
Story publishedStory(const Snapshot& s, const PublishedLine& line, const PublishedSet& set, PublishedFigure which);

/// The growth rates that an exit multiple implies.
Story impliedGrowthStory(const Snapshot& s, int scenario);

/// A scenario's probability and how it came about.
Story probabilityStory(const Snapshot& s, int scenario, const Result<AssumptionHistory>& history);

/// Base value with an undecided row at its lower or upper quartile, or how far the two lie apart.
enum class UndecidedFigure { Low, High, Effect };
Story undecidedStory(const Snapshot& s, const Undecided& u, Kind kind, UndecidedFigure which);

/// A monitor's limit, the analyst's own or the one it has by default.
Story limitStory(const Snapshot& s, const MonitorLimit& limit, bool preset);

}  // namespace zl::services
