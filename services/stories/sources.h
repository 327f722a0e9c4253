#pragma once
// What a figure of the model stands on at last: facts with document and place, assumptions with author and reason,
// givens with their source.

#include <string>
#include <vector>

#include "core/outlook/trace.h"
#include "services/stages/snapshot.h"

namespace zl::services {

/// In words, what the last step of a trace stands on: document and place, or who assumed it and
/// why, or where a given comes from. One line each.
std::vector<std::string> sourceLines(const Snapshot& s, const TraceStep& step);

/// A fact as a source: concept, what its document says, period, document and place.
std::string factWords(const Snapshot& s, const LineCell::Part& part);

}  // namespace zl::services
