#include "core/valuation/yearly_return.h"

#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>

namespace zl {

Figure yearlyReturn(const Figure& price, const std::vector<double>& dividends, const Figure& last, int years) {
  if (const Figure* gap = decidingGap({&last, &price})) return *gap;
  const auto gap = [&](double r) {
    double worth = last.value() / std::pow(1 + r, years);
    for (size_t t = 0; t < dividends.size(); ++t) worth += dividends[t] / std::pow(1 + r, static_cast<double>(t) + 1);
    return worth - price.value();
  };
  constexpr double kLowest = -0.999, kHighest = 100;
  if (!(price.value() > 0) || gap(kLowest) <= 0 || gap(kHighest) >= 0)
    return Figure::notMeaningful("nothing comes back, or more than any rate tells");
  std::uintmax_t rounds = 200;
  const auto [low, high] =
      boost::math::tools::toms748_solve(gap, kLowest, kHighest, boost::math::tools::eps_tolerance<double>(48), rounds);
  return Figure::of((low + high) / 2);
}

ReturnSplit splitReturn(const PriceParts& now, const PriceParts& then, double dividends) {
  for (const PriceParts* p : {&now, &then}) {
    if (p->revenue > 0 && p->amount > 0 && p->count > 0 && p->price > 0) continue;
    const Figure none = Figure::notMeaningful("revenue, amount, count and price must be positive, now and then");
    return {none, none, none, none, none};
  }
  const double total = (then.price + dividends) / now.price - 1;
  const double whole = std::log1p(total);
  // Log points of a total of nothing: each part is its own log points then.
  const double scale = std::fabs(whole) < 1e-12 ? 1 : total / whole;
  const auto points = [&](double a, double b) { return Figure::of(std::log(b / a) * scale); };
  const auto multiple = [](const PriceParts& p) { return p.price * p.count / p.amount; };
  return {points(now.revenue, then.revenue), points(now.amount / now.revenue, then.amount / then.revenue),
          points(then.count, now.count), points(multiple(now), multiple(then)),
          Figure::of(std::log((then.price + dividends) / then.price) * scale)};
}

}  // namespace zl
