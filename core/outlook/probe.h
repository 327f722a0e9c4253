#pragma once
// What a row would be if parts of one scenario were otherwise: every variant is a lane of one program.

#include <map>
#include <vector>

#include "core/outlook/evaluation.h"

namespace zl {

/// Figures in place of the scenario's own: of a driver one per forecast year, of an input or a given one.
using Variant = std::map<model::RowId, std::vector<Figure>>;

struct ProbeGround {
  const CompiledModel& compiled;
  const model::HistoryTable& history;
  const Case& assumptions;
  const Scenario& scenario;
  const Givens& givens;
};

/// What an evaluation has in a scenario, but for what a variant says otherwise; so with all below.
std::vector<Figure> probe(const Evaluation& e, int scenario, const std::vector<Variant>& variants, model::RowId wanted);

/// The figure of a constant row in every variant, without the reasons of a full evaluation: absent where it has none.
std::vector<Figure> probe(const ProbeGround& ground, const std::vector<Variant>& variants, model::RowId wanted);

}  // namespace zl
