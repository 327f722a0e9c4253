#pragma once
// How far the ways to a value lie apart in one scenario.

#include <vector>

#include "core/outlook/evaluation.h"

namespace zl {

struct MethodSpread {
  struct One {
    const model::Method* method;
    double value;       ///< per share, in the listing's unit; over nought
    double weight = 0;  ///< in the blend
  };
  std::vector<One> methods;  ///< the lowest first
  bool weighted = false;     ///< only those with a weight: two of them or more have one
  /// The highest over the lowest; 1 with fewer than two.
  [[nodiscard]] double apart() const { return methods.size() < 2 ? 1 : methods.back().value / methods.front().value; }
};

/// Of the methods that are weighted, where two are and have a value over nought; else of all that have one.
MethodSpread spreadOfMethods(const Evaluation& e, int scenario);

}  // namespace zl
