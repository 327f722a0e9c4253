#pragma once
// What figures of quarters and other parts of a year stand on.

#include <string>

#include "services/stories/story.h"

namespace zl::services {

/// What a figure of an interim period stands on: its facts with document and place, or history's rule
/// with the lines it reads. `period` is a quarter's label.
Story interimStory(const Snapshot& s, model::RowId row, const std::string& period, InterimStatements::Span span,
                   const Figure& figure);

}  // namespace zl::services
