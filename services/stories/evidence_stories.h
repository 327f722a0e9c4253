#pragma once
// What stands beside a driver and what it stands on: estimates, figures of the economy, the rank of a
// choice, reference cases, what each prudent choice costs.

#include <string>

#include "core/evidence/estimate.h"
#include "services/stories/story.h"
#include "services/views/scenario_view.h"

namespace zl::services {

/// What estimates say of a row in a forecast column, with every estimate it needs.
Story estimateStory(const Snapshot& s, model::RowId row, int column, EstimateBy by, EstimateEnd end,
                    const Figure& figure);

/// A dated rate or yield of the book, or a figure of the economy beside a driver.
Story rateStory(const Snapshot& s, const std::string& name, const Figure& figure, Kind kind, const std::string& source);

/// Where the last forecast year's choice stands among the regular years.
Story rankStory(const Snapshot& s, model::RowId row, int scenario, const Figure& figure);

/// What a driver holds in a reference case, and the value per share of one.
Story referenceStory(const Snapshot& s, model::RowId row, Reference reference, const Figure& figure);
Story referenceValueStory(const Snapshot& s, Reference reference, const Figure& figure);

/// Parts of the sum of caution: a choice's neutral counterpart, its effect, a total.
Story neutralStory(const Snapshot& s, const CautionLine& line);
Story cautionStory(const Snapshot& s, const CautionLine& line);
Story cautionTotalStory(const Snapshot& s, bool together, const Figure& figure);

}  // namespace zl::services
