#pragma once
// Statistics that leave out what is absent, not meaningful or exceptional, and count what is used.

#include <algorithm>
#include <span>
#include <utility>
#include <vector>

#include "core/quantity/figure.h"

namespace zl {

struct Statistics {
  int count = 0;     ///< figures used
  int left_out = 0;  ///< absent, not meaningful or flagged
  Figure mean, median, low, high, lowerQuartile, upperQuartile;
};

/// `flagged` may be empty, or has one entry per figure: true leaves it out.
Statistics describe(std::span<const Figure> figures, const std::vector<bool>& flagged = {});

/// From the lowest to the highest of what has a figure: all that many monitors ask of a history.
struct FigureRange {
  int count = 0;
  double low = 0, high = 0;  ///< of at least one figure

  void take(const Figure& figure) {
    if (!figure.hasValue()) return;
    low = count == 0 ? figure.value() : std::min(low, figure.value());
    high = count == 0 ? figure.value() : std::max(high, figure.value());
    ++count;
  }
};

/// Quantile by linear interpolation between order statistics (Hyndman and Fan 1996, type 7).
/// `sorted` ascending and not empty; 0 <= p <= 1.
double quantile(std::span<const double> sorted, double p);

/// The straight line of least squares through points; needs three of them with two different x.
struct LineFit {
  Figure slope;  ///< y per x; not meaningful with fewer points
  Figure fit;    ///< R squared; not meaningful where y does not move
  int count = 0;
};
LineFit fitLine(std::span<const std::pair<double, double>> points);

/// A normal year's part of a whole: the mean of part over whole in the last five years that are regular, have both and
/// a positive whole. Ascending by year; `flagged` as for describe(). Absent with fewer than two.
Figure regularShare(std::span<const Figure> parts, std::span<const Figure> wholes,
                    const std::vector<bool>& flagged = {});

/// x / before - 1: meaningful where before > 0 and x >= 0.
Figure growth(const Figure& before, const Figure& x);

/// (last / first)^(1/years) - 1: meaningful where both are positive and years >= 1.
Figure compoundGrowth(const Figure& first, const Figure& last, int years);

/// Mid-rank share of the figures at or below x, 0..1; not meaningful without any figure.
Figure percentileOf(double x, std::span<const Figure> figures, const std::vector<bool>& flagged = {});

}  // namespace zl
