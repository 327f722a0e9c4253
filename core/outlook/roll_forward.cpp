#include "core/outlook/roll_forward.h"

#include <algorithm>

namespace zl {
namespace {

/// Stages that have passed wholly, and the lengths that are left.
struct StagesLeft {
  size_t passed = 0;
  std::vector<int> lengths;
};

StagesLeft stagesLeft(std::vector<int> stages, int years) {
  StagesLeft left;
  int toPass = years;
  for (size_t k = 0; k < stages.size(); ++k) {
    const int gone = std::min(toPass, stages[k]);
    toPass -= gone;
    if (stages[k] > gone) {
      left.lengths.push_back(stages[k] - gone);
    } else if (k + 1 < stages.size()) {
      ++left.passed;
    }
  }
  if (left.lengths.empty() && !stages.empty()) left.lengths.push_back(0);
  if (!left.lengths.empty()) left.lengths.back() += years;
  if (left.lengths.size() < 2) left.lengths.clear();
  return left;
}

Path rolled(Path path, int years, size_t stagesPassed) {
  const auto drop = [&](size_t count) {
    if (path.typed.empty()) return;
    // What repeats the one before must not lose it.
    std::optional<double> last;
    for (size_t i = 0; i < std::min(count, path.typed.size()); ++i) last = path.typed[i] ? path.typed[i] : last;
    path.typed.erase(path.typed.begin(),
                     path.typed.begin() + static_cast<std::ptrdiff_t>(std::min(count, path.typed.size())));
    if (path.typed.empty()) path.typed.push_back(last);
    if (!path.typed.front()) path.typed.front() = last;
  };
  switch (path.shape) {
    case Shape::Typed:
      drop(static_cast<size_t>(years));
      break;
    case Shape::Steps:
      drop(stagesPassed);
      break;
    case Shape::Cycle:
      std::rotate(path.typed.begin(),
                  path.typed.begin() + static_cast<std::ptrdiff_t>(static_cast<size_t>(years) % path.typed.size()),
                  path.typed.end());
      break;
    case Shape::Glide:
    case Shape::Fade:
    case Shape::Recovery:
      path.from = std::max(path.from - years, path.shape == Shape::Fade ? 1 : 0);
      if (path.to > 0) path.to = std::max(path.to - years, path.from + 1);
      break;
    case Shape::Hold:
    case Shape::Follow:
      break;
  }
  return path;
}

}  // namespace

Case rolledForward(const Case& c, int years) {
  Case next = c;
  if (years <= 0) return next;
  next.baseYear += years;
  const StagesLeft left = stagesLeft(c.stages, years);
  next.stages = left.lengths;
  for (Scenario& s : next.scenarios) {
    for (auto& [row, a] : s.drivers) a.path = rolled(a.path, years, left.passed);
  }
  return next;
}

}  // namespace zl
