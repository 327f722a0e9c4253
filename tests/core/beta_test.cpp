// Beta against the GNU Scientific Library's least squares and Student's t, on series made here; unlevering by hand.

#include "core/capital/beta.h"

#include <gmock/gmock.h>
#include <gsl/gsl_cdf.h>
#include <gsl/gsl_fit.h>
#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace zl {
namespace {

Date day(int n) {
  return makeDate(2020, 1, 6) + std::chrono::days(n);  // a Monday
}

/// Working days of `weeks` weeks: an index and a share that follows it 1.3 times with noise of its own.
struct Made {
  std::vector<SeriesPoint> share, index;
};
Made made(int weeks, unsigned seed) {
  std::mt19937_64 random(seed);
  std::normal_distribution<double> step(0.0003, 0.01), noise(0, 0.008);
  Made m;
  double index = 1000, share = 40;
  for (int d = 0; d < weeks * 7; ++d) {
    if (d % 7 > 4) continue;
    const double move = step(random);
    index *= 1 + move;
    share *= 1 + 1.3 * move + noise(random);
    m.index.push_back({day(d), index});
    m.share.push_back({day(d), share});
  }
  return m;
}

ReturnWindow all(ReturnFrequency frequency, bool total = false) {
  return {makeDate(1990, 1, 1), makeDate(2100, 1, 1), frequency, total};
}

TEST(Beta, AgreesWithAnotherLibrary) {
  const Made m = made(260, 7);
  for (const ReturnFrequency frequency : {ReturnFrequency::Daily, ReturnFrequency::Weekly, ReturnFrequency::Monthly}) {
    const PairedReturns paired = pairReturns(m.share, m.index, all(frequency));
    std::vector<double> x, y;
    for (const ReturnPair& p : paired.pairs) {
      x.push_back(p.index);
      y.push_back(p.share);
    }
    double a = 0, b = 0, aa = 0, ab = 0, bb = 0, squares = 0;
    gsl_fit_linear(x.data(), 1, y.data(), 1, x.size(), &a, &b, &aa, &ab, &bb, &squares);
    const Regression r = regress(paired.pairs);
    EXPECT_EQ(r.n, static_cast<int>(x.size()));
    EXPECT_NEAR(r.beta.value(), b, 1e-11);
    EXPECT_NEAR(r.alpha.value(), a, 1e-13);
    EXPECT_NEAR(r.standardError.value(), std::sqrt(bb), 1e-11);
    const double t = gsl_cdf_tdist_Pinv(0.975, static_cast<double>(x.size()) - 2);
    EXPECT_NEAR(r.high.value() - r.beta.value(), t * std::sqrt(bb), 1e-9);
    EXPECT_NEAR(r.low.value() + r.high.value(), 2 * b, 1e-10);
    EXPECT_NEAR(r.adjusted.value(), 2 * b / 3 + 1.0 / 3, 1e-12);
    EXPECT_NEAR(r.beta.value(), 1.3, 4 * r.standardError.value()) << "as it was made";
  }
}

TEST(Beta, AStraightLineIsFoundWithoutError) {
  std::vector<ReturnPair> pairs;
  for (int k = 0; k < 30; ++k) pairs.push_back({day(k), 0.01 * (k % 5 - 2), 0.002 + 0.8 * 0.01 * (k % 5 - 2)});
  const Regression r = regress(pairs);
  EXPECT_NEAR(r.beta.value(), 0.8, 1e-12);
  EXPECT_NEAR(r.alpha.value(), 0.002, 1e-14);
  EXPECT_NEAR(r.rSquared.value(), 1, 1e-12);
  EXPECT_NEAR(r.standardError.value(), 0, 1e-12);
}

TEST(Beta, NothingIsMadeOfTooLittle) {
  EXPECT_TRUE(regress({{day(0), 0.01, 0.02}, {day(1), 0.02, 0.01}}).beta.isNotMeaningful());
  std::vector<ReturnPair> flat;
  for (int k = 0; k < 30; ++k) flat.push_back({day(k), 0.001, 0.01 * (k % 3)});
  EXPECT_EQ(regress(flat).beta.reason(), "the index did not move");
  EXPECT_TRUE(rollingBeta(flat, 50).empty());
}

TEST(Beta, RollingIsTheRegressionOfEachWindow) {
  const Made m = made(120, 11);
  const std::vector<ReturnPair> pairs = pairReturns(m.share, m.index, all(ReturnFrequency::Weekly)).pairs;
  const auto rolling = rollingBeta(pairs, 52);
  ASSERT_EQ(rolling.size(), pairs.size() - 51);
  for (const size_t k : {size_t{0}, rolling.size() / 2, rolling.size() - 1}) {
    const std::vector<ReturnPair> window(pairs.begin() + static_cast<std::ptrdiff_t>(k),
                                         pairs.begin() + static_cast<std::ptrdiff_t>(k) + 52);
    EXPECT_NEAR(rolling[k].second.value(), regress(window).beta.value(), 1e-9) << k;
  }
}

TEST(Beta, ReturnsAreBetweenDaysThatBothHave) {
  // The index misses the second day: the return of both runs from the first to the third.
  const std::vector<SeriesPoint> share = {{day(0), 10}, {day(1), 11}, {day(2), 12, 0.6}, {day(30), 13}};
  const std::vector<SeriesPoint> index = {{day(0), 100}, {day(2), 110}, {day(30), 100}};
  const PairedReturns price = pairReturns(share, index, all(ReturnFrequency::Daily));
  ASSERT_EQ(price.pairs.size(), 1U);
  EXPECT_NEAR(price.pairs[0].share, 0.2, 1e-12);
  EXPECT_NEAR(price.pairs[0].index, 0.1, 1e-12);
  EXPECT_EQ(price.unmatched, 1);
  EXPECT_EQ(price.broken, 1) << "four weeks are no day";
  const PairedReturns total = pairReturns(share, index, all(ReturnFrequency::Daily, true));
  EXPECT_NEAR(total.pairs[0].share, 0.26, 1e-12) << "with the dividend of 0.60";
  // Weeks: the last common day of each; a dividend within the week counts.
  const std::vector<SeriesPoint> weekly = {{day(4), 10}, {day(8), 10, 1}, {day(11), 12}};
  const std::vector<SeriesPoint> level = {{day(4), 100}, {day(8), 90}, {day(11), 105}};
  const PairedReturns weeks = pairReturns(weekly, level, all(ReturnFrequency::Weekly, true));
  ASSERT_EQ(weeks.pairs.size(), 1U);
  EXPECT_NEAR(weeks.pairs[0].share, 0.3, 1e-12);
  EXPECT_NEAR(weeks.pairs[0].index, 0.05, 1e-12);
}

TEST(Beta, UnleveredAndReleveredByHand) {
  const auto f = [](double x) { return Figure::of(x); };
  // 1.2 / (1 + 0.75 x 40/100) = 0.923077
  EXPECT_NEAR(unlevered(f(1.2), f(40), f(100), f(0), {f(0.25)}).value(), 1.2 / 1.3, 1e-12);
  EXPECT_NEAR(relevered(f(1.2 / 1.3), f(0.4), {f(0.25)}).value(), 1.2, 1e-12);
  // (1.2 x 100 + 0.2 x 0.75 x 40) / (100 + 30) = 126 / 130
  EXPECT_NEAR(unlevered(f(1.2), f(40), f(100), f(0), {f(0.25), 0.2}).value(), 126.0 / 130, 1e-12);
  EXPECT_NEAR(relevered(f(126.0 / 130), f(0.4), {f(0.25), 0.2}).value(), 1.2, 1e-12);
  // Cash of 28 is a fifth of 140.
  EXPECT_NEAR(unlevered(f(1.2), f(40), f(100), f(28), {f(0.25), 0, true}).value(), 1.2 / 1.3 / 0.8, 1e-12);
  EXPECT_TRUE(unlevered(f(1.2), f(40), f(-1), f(0), {f(0.25)}).isNotMeaningful());
  EXPECT_TRUE(unlevered(f(1.2), f(40), f(100), f(140), {f(0.25), 0, true}).isNotMeaningful());
  EXPECT_FALSE(unlevered(f(1.2), f(40), f(100), f(0), {Figure()}).hasValue()) << "no rate is guessed";
}

}  // namespace
}  // namespace zl
