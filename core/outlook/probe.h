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
/// The same for few variants that are asked again after every edit: what they do not reach is taken as the evaluation
/// has it. A program is made for each set of rows that they speak of, and kept.
std::vector<Figure> probeReached(const Evaluation& e, int scenario, const std::vector<Variant>& variants,
                                 model::RowId wanted);

/// The figure of a constant row in every variant, without the reasons of a full evaluation: absent where it has none.
std::vector<Figure> probe(const ProbeGround& ground, const std::vector<Variant>& variants, model::RowId wanted);
/// The same of several cells: by variant, then by cell.
std::vector<std::vector<Figure>> probe(const ProbeGround& ground, const std::vector<Variant>& variants,
                                       const std::vector<model::Cell>& wanted);

}  // namespace zl
