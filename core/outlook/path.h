#pragma once
// The path of a driver over the forecast years, by shape. Years count from 1.

#include <optional>
#include <string>
#include <vector>

#include "core/quantity/figure.h"

namespace zl {

enum class Shape { Hold, Typed, Glide, Fade, Steps, Recovery, Cycle, Follow };

struct Path {
  Shape shape = Shape::Hold;
  std::optional<double> level;  ///< Hold, Cycle: the level. Glide, Fade, Recovery: the long-run level L.
                                ///< Empty: the last actual.
  std::optional<double> start;  ///< Glide, Fade: start instead of the last actual
  int from = 0;                 ///< Glide: last year still at the start. Fade: first year that moves.
  int to = 0;                   ///< Glide, Recovery: year in which L is reached; 0 = the last year
  double halfLife = 3.0;        ///< Fade: years in which half the distance to L is gone
  /// Typed: by year. Steps: by stage. An empty one repeats the one before. Cycle: deviations from
  /// the level, repeating.
  std::vector<std::optional<double>> typed;
  double distance = 0;    ///< Follow: from base's figure, in the driver's own unit
  bool widening = false;  ///< Follow: the distance grows by equal steps and is whole in the last year

  friend bool operator==(const Path&, const Path&) = default;
};

/// What a path is drawn from besides itself.
struct PathGround {
  Figure lastActual;
  int years = 0;                  ///< forecast years
  std::vector<int> stages = {};   ///< lengths that sum to `years`; empty: one stage
  std::vector<Figure> base = {};  ///< Follow: base's figure by year
};

/// One figure per forecast year; absent where the path needs a last actual and there is none.
///  Hold      x_t = level
///  Typed     x_t as typed, else x_{t-1}, the last actual before the first
///  Glide     equal yearly steps from the start to L between years `from` and `to`
///  Fade      the start before year `from`, then x_t = L + (x_{t-1} - L) * 0.5^(1/halfLife)
///  Steps     x_t as typed for the stage that year t lies in
///  Recovery  equal yearly steps from the last actual to L in year `to`, then L
///  Cycle     x_t = level + the deviation whose turn it is
///  Follow    x_t = base_t + distance, or + distance * t / years where it widens
std::vector<Figure> figuresOf(const Path& path, const PathGround& ground);

/// The stage (from 0) that forecast year t (from 1) lies in.
int stageOf(const std::vector<int>& stages, int year);

/// What is wrong with a path, empty when nothing is: no level to go to, a half-life of zero,
/// years out of order or beyond the horizon, base following itself.
std::string faultOf(const Path& path, int years, bool inBase);

const char* shapeWord(Shape shape);
std::optional<Shape> shapeOf(const std::string& word);

}  // namespace zl
