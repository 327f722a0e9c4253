#include "core/history/statistics.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace zl {
namespace {

std::vector<double> usable(std::span<const Figure> figures, const std::vector<bool>& flagged) {
  std::vector<double> kept;
  for (size_t i = 0; i < figures.size(); ++i) {
    const bool out = i < flagged.size() && flagged[i];
    if (!out && figures[i].hasValue()) kept.push_back(figures[i].value());
  }
  return kept;
}

}  // namespace

double quantile(std::span<const double> sorted, double p) {
  const double position = p * static_cast<double>(sorted.size() - 1);
  const auto below = static_cast<size_t>(position);
  if (below + 1 >= sorted.size()) return sorted.back();
  const double share = position - static_cast<double>(below);
  return sorted[below] + share * (sorted[below + 1] - sorted[below]);
}

Statistics describe(std::span<const Figure> figures, const std::vector<bool>& flagged) {
  Statistics s;
  std::vector<double> x = usable(figures, flagged);
  s.count = static_cast<int>(x.size());
  s.left_out = static_cast<int>(figures.size() - x.size());
  if (x.empty()) {
    const Figure none = Figure::absent("no figure to take a statistic of");
    s.mean = s.median = s.low = s.high = s.lowerQuartile = s.upperQuartile = none;
    return s;
  }
  std::sort(x.begin(), x.end());
  s.mean = Figure::of(std::accumulate(x.begin(), x.end(), 0.0) / static_cast<double>(x.size()));
  s.median = Figure::of(quantile(x, 0.5));
  s.low = Figure::of(x.front());
  s.high = Figure::of(x.back());
  s.lowerQuartile = Figure::of(quantile(x, 0.25));
  s.upperQuartile = Figure::of(quantile(x, 0.75));
  return s;
}

LineFit fitLine(std::span<const std::pair<double, double>> points) {
  LineFit fitted;
  fitted.count = static_cast<int>(points.size());
  const double n = fitted.count;
  double meanX = 0, meanY = 0;
  for (const auto& [x, y] : points) meanX += x / n, meanY += y / n;
  double xx = 0, xy = 0, yy = 0;
  for (const auto& [x, y] : points) {
    xx += (x - meanX) * (x - meanX);
    xy += (x - meanX) * (y - meanY);
    yy += (y - meanY) * (y - meanY);
  }
  if (fitted.count < 3 || !(xx > 0)) {
    fitted.slope = fitted.fit = Figure::notMeaningful("a fit needs at least three years");
    return fitted;
  }
  constexpr double kNoMovement = 1e-12;
  fitted.slope = Figure::of(xy / xx);
  fitted.fit = yy > kNoMovement ? Figure::of(xy * xy / (xx * yy)) : Figure::notMeaningful("the figures do not move");
  return fitted;
}

Figure regularShare(std::span<const Figure> parts, std::span<const Figure> wholes, const std::vector<bool>& flagged) {
  constexpr int kMost = 5;
  double sum = 0;
  int count = 0;
  for (size_t i = parts.size(); i > 0 && count < kMost; --i) {
    const Figure &part = parts[i - 1], &whole = wholes[i - 1];
    if ((!flagged.empty() && flagged[i - 1]) || !part.hasValue() || !whole.hasValue() || whole.value() <= 0) continue;
    sum += part.value() / whole.value();
    ++count;
  }
  return count < 2 ? Figure::absent("a normal year takes two regular years that have the figure")
                   : Figure::of(sum / count);
}

Figure growth(const Figure& before, const Figure& x) {
  if (const Figure* gap = decidingGap({&before, &x})) return *gap;
  if (before.value() <= 0) return Figure::notMeaningful("the year before is not positive");
  if (x.value() < 0) return Figure::notMeaningful("turned negative");
  return Figure::of(x.value() / before.value() - 1);
}

Figure compoundGrowth(const Figure& first, const Figure& last, int years) {
  if (const Figure* gap = decidingGap({&first, &last})) return *gap;
  if (years < 1) return Figure::notMeaningful("a compound rate needs at least one year");
  if (first.value() <= 0) return Figure::notMeaningful("the first year is not positive");
  if (last.value() <= 0) return Figure::notMeaningful("the last year is not positive");
  return Figure::of(std::pow(last.value() / first.value(), 1.0 / years) - 1);
}

Figure percentileOf(double x, std::span<const Figure> figures, const std::vector<bool>& flagged) {
  const std::vector<double> kept = usable(figures, flagged);
  if (kept.empty()) return Figure::notMeaningful("no history to rank it in");
  double rank = 0;
  for (double y : kept) rank += y < x ? 1.0 : (y == x ? 0.5 : 0.0);
  return Figure::of(rank / static_cast<double>(kept.size()));
}

}  // namespace zl
