#include "core/peers/difference.h"

#include <cmath>

namespace zl {
namespace {

constexpr size_t kGrounds = 4;
constexpr double kClosest = 1e-9;  ///< of required return and lasting growth

Figure MultipleGrounds::*const kEach[kGrounds] = {&MultipleGrounds::growth, &MultipleGrounds::payout,
                                                  &MultipleGrounds::retaining, &MultipleGrounds::risk};

double factorial(size_t n) {
  double product = 1;
  for (size_t i = 2; i <= n; ++i) product *= static_cast<double>(i);
  return product;
}

Figure logOf(const Figure& x, const char* whyNot) {
  if (!x.hasValue()) return x;
  return x.value() > 0 ? Figure::of(std::log(x.value())) : Figure::notMeaningful(whyNot);
}

void setAll(MultipleGap& gap, const Figure& figure) {
  gap.parts.fill(figure);
  gap.unexplained = figure;
}

}  // namespace

Figure justifiedForwardMultiple(const MultipleGrounds& grounds, double lastingGrowth) {
  if (const Figure* missing = decidingGap({&grounds.growth, &grounds.payout, &grounds.retaining, &grounds.risk}))
    return *missing;
  const double g = grounds.growth.value(), k = grounds.risk.value(), roe = grounds.retaining.value();
  if (k - lastingGrowth < kClosest) return Figure::notMeaningful("the required return does not exceed growth");
  if (roe <= 0) return Figure::notMeaningful("the return on equity is not positive");
  double paid = 0;
  for (int t = 1; t <= kJustifiedYears; ++t) paid += std::pow(1 + g, t - 1) / std::pow(1 + k, t);
  const double after = std::pow(1 + g, kJustifiedYears - 1) * (1 + lastingGrowth) * (1 - lastingGrowth / roe) /
                       ((k - lastingGrowth) * std::pow(1 + k, kJustifiedYears));
  return Figure::of(grounds.payout.value() * paid + after);
}

MultipleGap gapOf(const Figure& subjects, const Figure& peers, const MultipleGrounds& here,
                  const MultipleGrounds& there, double lastingGrowth) {
  MultipleGap gap;
  MultipleGrounds theirs = there;
  for (size_t i = 0; i < kGrounds; ++i) {
    gap.known[i] = (there.*kEach[i]).hasValue();
    if (!gap.known[i]) theirs.*kEach[i] = here.*kEach[i];
  }
  gap.whole =
      logOf(subjects, "the subject's multiple is not positive") - logOf(peers, "the peers' multiple is not positive");
  gap.justifiedHere = justifiedForwardMultiple(here, lastingGrowth);
  gap.justifiedThere = justifiedForwardMultiple(theirs, lastingGrowth);
  // Every mixture of the two companies' grounds; bit i set: the subject's.
  std::array<double, size_t{1} << kGrounds> logs{};
  for (size_t mask = 0; mask < logs.size(); ++mask) {
    MultipleGrounds mixed = theirs;
    for (size_t i = 0; i < kGrounds; ++i) {
      if ((mask >> i & 1U) != 0) mixed.*kEach[i] = here.*kEach[i];
    }
    const Figure log = logOf(justifiedForwardMultiple(mixed, lastingGrowth),
                             "a mixture of the two companies' grounds justifies no positive multiple");
    if (!log.hasValue()) {
      setAll(gap, log);
      return gap;
    }
    logs[mask] = log.value();
  }
  for (size_t i = 0; i < kGrounds; ++i) {
    double share = 0;
    for (size_t mask = 0; mask < logs.size(); ++mask) {
      if ((mask >> i & 1U) != 0) continue;
      const auto others = static_cast<size_t>(__builtin_popcountll(mask));
      const double weight = factorial(others) * factorial(kGrounds - others - 1) / factorial(kGrounds);
      share += weight * (logs[mask | size_t{1} << i] - logs[mask]);
    }
    gap.parts[i] = Figure::of(share);
  }
  gap.unexplained = gap.whole - Figure::of(logs.back() - logs.front());
  return gap;
}

}  // namespace zl
