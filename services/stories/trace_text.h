#pragma once
// A trace as text and for other programs.

#include <string>

#include "services/stages/snapshot.h"
#include "services/text/figure_json.h"

namespace zl::services {

/// Walks from a figure down to filed facts, assumptions and givens, `depth` steps at most.
Json traceJson(const Snapshot& s, model::Cell cell, int scenario, int depth);
std::string traceText(const Snapshot& s, model::Cell cell, int scenario, int depth);

}  // namespace zl::services
