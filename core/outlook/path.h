#pragma once
// The path of a driver over the forecast years, by shape. Years count from 1.

#include <optional>
#include <vector>

#include "core/quantity/figure.h"

namespace zl {

enum class Shape { Hold, Typed, Glide, Fade };

struct Path {
  Shape shape = Shape::Hold;
  std::optional<double> level;               ///< Hold: the level. Glide, Fade: the long-run level L.
                                             ///< Empty: the last actual.
  std::optional<double> start;               ///< Glide, Fade: start instead of the last actual
  int from = 0;                              ///< Glide: last year still at the start. Fade: first year that moves.
  int to = 0;                                ///< Glide: year in which L is reached; 0 = the last year
  double halfLife = 3.0;                     ///< Fade: years in which half the distance to L is gone
  std::vector<std::optional<double>> typed;  ///< Typed: by year; an empty year repeats the one before

  friend bool operator==(const Path&, const Path&) = default;
};

/// One figure per forecast year; absent where the path needs a last actual and there is none.
///  Hold   x_t = level
///  Typed  x_t as typed, else x_{t-1}, the last actual before the first
///  Glide  equal yearly steps from the start to L between years `from` and `to`
///  Fade   the start before year `from`, then x_t = L + (x_{t-1} - L) * 0.5^(1/halfLife)
std::vector<Figure> figuresOf(const Path& path, const Figure& lastActual, int years);

/// What is wrong with a path, empty when nothing is: no level to go to, a half-life of zero,
/// years out of order or beyond the horizon.
std::string faultOf(const Path& path, int years);

const char* shapeWord(Shape shape);
std::optional<Shape> shapeOf(const std::string& word);

}  // namespace zl
