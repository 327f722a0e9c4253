#pragma once
// What figures beside the outlook stand on: estimates, figures of the economy, reference cases, what
// a choice costs, a forecast year that has come true, published sets, versions.

#include <string>

#include "core/evidence/estimate.h"
#include "core/monitor/limits.h"
#include "services/assumption_history.h"
#include "services/compare.h"
#include "services/driver_evidence.h"
#include "services/interim_progress.h"
#include "services/own_rows.h"
#include "services/published.h"
#include "services/roll_forward.h"
#include "services/scenario_view.h"
#include "services/stories/story.h"

namespace zl::services {

/// What estimates say of a row in a forecast column, with every estimate it needs.
Story estimateStory(const Snapshot& s, int row, int column, EstimateBy by, EstimateEnd end, const Figure& figure);

/// A dated rate or yield of the book, or a figure of the economy beside a driver.
Story rateStory(const Snapshot& s, const std::string& name, const Figure& figure, Kind kind, const std::string& source);

/// Where the last forecast year's choice stands among the regular years.
Story rankStory(const Snapshot& s, int row, int scenario, const Figure& figure);

/// What a driver holds in a reference case, and the value per share of one.
Story referenceStory(const Snapshot& s, int row, Reference reference, const Figure& figure);
Story referenceValueStory(const Snapshot& s, Reference reference, const Figure& figure);

/// Parts of the sum of caution: a choice's neutral counterpart, its effect, a total.
Story neutralStory(const Snapshot& s, const CautionLine& line);
Story cautionStory(const Snapshot& s, const CautionLine& line);
Story cautionTotalStory(const Snapshot& s, bool together, const Figure& figure);

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

/// A part of the walk from one value to another, by its place in `walk.steps`.
Story walkStepStory(const Snapshot& s, const ValueWalk& walk, size_t step, const std::string& shown);

/// A scenario's probability and how it came about.
Story probabilityStory(const Snapshot& s, int scenario, const Result<AssumptionHistory>& history);

/// A monitor's limit, the analyst's own or the one it has by default.
Story limitStory(const Snapshot& s, const MonitorLimit& limit, bool preset);

/// Value per share of a scenario with the text of own rows that is being written, or (`change`) what
/// that text does to it.
Story ownEffectStory(const Snapshot& s, const OwnEffect& effect, int scenario, bool change);

/// A figure of a version, told within that version.
Story versionStory(const Side& side, const BesideLine& line, const std::string& scenario);
/// The probability-weighted value per share of a version.
Story weightedStory(const Side& side, const Figure& figure);

}  // namespace zl::services
