#include "core/outlook/path_grip.h"

#include <algorithm>

namespace zl {
namespace {

Path typedOut(const std::vector<Figure>& current) {
  Path path;
  path.shape = Shape::Typed;
  for (const Figure& f : current) path.typed.push_back(f.hasValue() ? std::optional(f.value()) : std::nullopt);
  return path;
}

Path stepMoved(Path path, const PathGround& ground, const std::vector<Figure>& current, int stage, double figure) {
  // Stages that repeat the one before are typed out first, so that they stay where they are.
  const auto count = std::max<size_t>(1, ground.stages.size());
  path.typed.resize(count);
  int first = 0;
  for (size_t k = 0; k < count; ++k) {
    if (!path.typed[k] && current[static_cast<size_t>(first)].hasValue()) {
      path.typed[k] = current[static_cast<size_t>(first)].value();
    }
    first += k < ground.stages.size() ? ground.stages[k] : 0;
  }
  path.typed[static_cast<size_t>(stage)] = figure;
  return path;
}

Path distanceMoved(Path path, const PathGround& ground, int year, double figure) {
  const auto at = static_cast<size_t>(year);
  if (at >= ground.base.size() || !ground.base[at].hasValue()) return path;
  const double share = path.widening ? static_cast<double>(year + 1) / ground.years : 1;
  path.distance = (figure - ground.base[at].value()) / share;
  return path;
}

}  // namespace

Path moved(const Path& path, const PathGround& ground, const std::vector<Figure>& current, Grip grip, int year,
           double figure) {
  const int last = ground.years - 1;
  const int at = grip == Grip::Level ? last : year;
  if (path.shape == Shape::Steps) return stepMoved(path, ground, current, stageOf(ground.stages, at + 1), figure);
  if (path.shape == Shape::Follow) return distanceMoved(path, ground, at, figure);
  if (grip == Grip::Level && path.shape != Shape::Typed) {
    Path with = path;
    with.level = figure;
    return with;
  }
  Path typed = typedOut(current);
  const auto here = static_cast<size_t>(at);
  if (grip == Grip::Stage && current[here].hasValue()) {
    const double shift = figure - current[here].value();
    const int stage = stageOf(ground.stages, at + 1);
    for (size_t t = 0; t < typed.typed.size(); ++t) {
      if (stageOf(ground.stages, static_cast<int>(t) + 1) == stage && typed.typed[t]) *typed.typed[t] += shift;
    }
  }
  typed.typed[here] = figure;
  return typed;
}

}  // namespace zl
