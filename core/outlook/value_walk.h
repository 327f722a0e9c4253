#pragma once
// What moved the value per share between two cases, split by what differs between them in a way
// that adds up and does not depend on any order (L. Shapley, A value for n-person games, 1953).
//
// A part is a group of drivers, inputs and givens (or a single one), the model with its own rows,
// the filed figures with what the analyst made of them, the horizon, or the probabilities. Every mixture of the parts
// of both ends is valued: 2^n lanes for n parts. A part's effect is its mean marginal effect over all orders in which
// the parts could be changed.

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "core/outlook/evaluation.h"

namespace zl {

/// One end of a walk.
struct WalkEnd {
  Case assumptions;
  Givens givens;
};

/// What a case stands on: the compiled model, and the history it is evaluated on.
struct Ground {
  std::shared_ptr<const CompiledModel> compiled;
  std::shared_ptr<const model::HistoryTable> history;
  int baseYear = 0;  ///< fiscal year that its first forecast year follows
};

/// Gives the ground of a mixture: its case, on the filed figures of the first or the second end.
using GroundOf = std::function<Result<Ground>(const Case& mixed, bool secondFiled)>;

struct WalkPlan {
  std::string scenario;       ///< by id, in both ends; empty: the probability-weighted value
  bool byRow = false;         ///< one part a row that differs, instead of one a group of the model
  bool filedDiffers = false;  ///< the ends stand on other documents
};

struct WalkStep {
  std::string label;              ///< of the group or the row
  std::vector<std::string> rows;  ///< labels of what differs in it
  double effect = 0;              ///< on the raw value per share, in listing units
};

struct ValueWalk {
  Figure from, to;              ///< raw value per share of the two ends: before the floor at zero
  std::vector<WalkStep> steps;  ///< in the model's order; sums to to - from
  std::string gap;              ///< why the walk is not meaningful; names the mixture without a value
  size_t mixtures = 0;
};

inline constexpr int kMostWalkParts = 12;

/// Fails with BadInput when more than twelve parts differ, or a scenario is missing in one end.
Result<ValueWalk> walkValue(const WalkEnd& from, const WalkEnd& to, const WalkPlan& plan, const GroundOf& groundOf);

/// The steps' effects rounded to `decimals` so that they add up to the rounded total as printed:
/// the largest remainders are rounded away from what the others lose.
std::vector<double> effectsThatAddUp(const ValueWalk& walk, int decimals);

}  // namespace zl
