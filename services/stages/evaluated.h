#pragma once
// The third stage: every row, year and scenario of a case upon its ground, with what the market, the
// record and the calendar give. Who needs values and no opinion on them stops here.

#include <map>
#include <memory>
#include <string>

#include "core/outlook/evaluation.h"
#include "services/stages/ground.h"

namespace zl::services {

/// A given with its origin, for traces.
struct GivenFigure {
  Figure figure;
  std::string source;
};

struct Evaluated {
  std::shared_ptr<const Ground> ground;
  std::map<std::string, GivenFigure> givens;
  std::shared_ptr<const Evaluation> evaluation;

  [[nodiscard]] const Case& caseOf() const { return evaluation->caseOf(); }
  /// A constant row of the base scenario.
  [[nodiscard]] Figure baseConstant(const std::string& row) const {
    return evaluation->constant(row, caseOf().indexOf(kBase));
  }
};

Evaluated evaluateOn(std::shared_ptr<const Ground> ground, const Case& c);

}  // namespace zl::services
