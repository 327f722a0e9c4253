#pragma once
// Runs of the exit return beside each other: the present one and those that were kept as versions. In: sides, each with
// its snapshot. Out: the same lines of every side, of one scenario.

#include <string>
#include <vector>

#include "services/views/compare.h"
#include "services/views/exit_return.h"

namespace zl::services {

/// What goes into the exit and what comes out of it, a figure a side; absent where a side's model has no such row.
struct ExitRunLine {
  std::string label;
  Kind kind = Kind::Ratio;
  std::vector<Figure> figures;
};

/// Of the scenario of that id; of a side that has none of that id every figure is absent and says so.
std::vector<ExitRunLine> exitRuns(const std::vector<Side>& sides, const std::string& scenario);

}  // namespace zl::services
