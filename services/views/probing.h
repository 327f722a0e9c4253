#pragma once
// The model run with parts of a scenario otherwise, and the figures at which a row comes to a target. In: a snapshot.
// Out: figures of one row; every solution of a range.

#include <vector>

#include "core/outlook/probe.h"
#include "services/stages/snapshot.h"

namespace zl::services {

/// The figure of a constant row of a scenario in every variant.
std::vector<Figure> probeScenario(const Snapshot& s, int scenario, const std::vector<Variant>& variants,
                                  model::RowId wanted);

/// Every x of low..high at which the row is `target`, the variant being `at(x)`: 512 equal steps, each change of sign
/// between two that have a value halved until it is settled. Ascending; empty where there is none.
std::vector<double> solveScenario(const Snapshot& s, int scenario, model::RowId wanted, double target, double low,
                                  double high, const std::function<Variant(double)>& at);

}  // namespace zl::services
