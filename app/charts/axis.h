#pragma once
// Round tick positions and a linear scale between figures and pixels.

#include <cmath>
#include <vector>

namespace zl::app {

struct Scale {
  double low = 0, high = 1;  ///< figures
  double from = 0, to = 1;   ///< pixels
  [[nodiscard]] double at(double x) const { return from + (x - low) / (high - low) * (to - from); }
  [[nodiscard]] double figure(double pixel) const { return low + (pixel - from) / (to - from) * (high - low); }
};

/// At most `most` ticks at 1, 2 or 5 times a power of ten inside low..high.
inline std::vector<double> roundTicks(double low, double high, int most) {
  std::vector<double> ticks;
  if (!(high > low) || most < 1) return ticks;
  const double raw = (high - low) / most;
  const double power = std::pow(10, std::floor(std::log10(raw)));
  double step = power;
  for (double factor : {1.0, 2.0, 5.0, 10.0}) {
    step = power * factor;
    if (step >= raw) break;
  }
  // Counted rather than stepped: far from zero a step can be too small to move a double.
  const double first = std::ceil(low / step);
  for (int i = 0; i <= 2 * most; ++i) {
    const double x = (first + i) * step;
    if (x > high + step * 1e-9) break;
    ticks.push_back(std::fabs(x) < step * 1e-9 ? 0 : x);
  }
  return ticks;
}

}  // namespace zl::app
