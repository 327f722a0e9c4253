// The same answers from libraries that we did not write, over random inputs with a fixed seed.

#include <gtest/gtest.h>

#include <algorithm>
#include <boost/math/statistics/univariate_statistics.hpp>
#include <boost/math/tools/roots.hpp>
#include <boost/multiprecision/cpp_int.hpp>
#include <cmath>
#include <vector>

#include "core/history/statistics.h"
#include "core/quantity/decimal.h"
#include "core/valuation/implied_growth.h"

namespace zl {
namespace {

class Numbers {
 public:
  unsigned long long next() {
    unsigned long long z = (state_ += 0x9E3779B97F4A7C15ull);
    z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9ull;
    z = (z ^ (z >> 27)) * 0x94D049BB133111EBull;
    return z ^ (z >> 31);
  }
  double between(double low, double high) { return low + (high - low) * static_cast<double>(next() >> 11) * 0x1p-53; }

 private:
  unsigned long long state_ = 99;
};

using Rational = boost::multiprecision::cpp_rational;

/// A decimal text with its exact value as a fraction of whole numbers.
std::pair<std::string, Rational> randomDecimal(Numbers& numbers) {
  const auto places = static_cast<unsigned>(numbers.next() % 7);
  const long long mantissa = static_cast<long long>(numbers.next() % 2000000000000ull) - 1000000000000ll;
  Rational value(mantissa);
  std::string digits = std::to_string(std::llabs(mantissa));
  for (unsigned i = 0; i < places; ++i) value /= 10;
  if (digits.size() <= places) digits.insert(0, places + 1 - digits.size(), '0');
  if (places > 0) digits.insert(digits.size() - places, ".");
  return {(mantissa < 0 ? "-" : "") + digits, value};
}

TEST(SecondOpinion, DecimalsAgreeWithRationals) {
  Numbers numbers;
  for (int i = 0; i < 2000; ++i) {
    const auto [textA, a] = randomDecimal(numbers);
    const auto [textB, b] = randomDecimal(numbers);
    const Decimal x = *Decimal::parse(textA);
    const Decimal y = *Decimal::parse(textB);
    EXPECT_EQ(x < y, a < b) << textA << ' ' << textB;
    EXPECT_EQ(x == y, a == b);
    const Rational sum = a + b;
    const Rational difference = a - b;
    EXPECT_DOUBLE_EQ((x + y).toDouble(), sum.convert_to<double>()) << textA << ' ' << textB;
    EXPECT_DOUBLE_EQ((x - y).toDouble(), difference.convert_to<double>());
    EXPECT_EQ((x - y) + y, x);
    EXPECT_EQ(*Decimal::parse(x.text()), x) << textA;
  }
}

TEST(SecondOpinion, StatisticsAgreeWithBoost) {
  Numbers numbers;
  for (int round = 0; round < 200; ++round) {
    std::vector<Figure> figures;
    std::vector<double> plain;
    const int count = 1 + static_cast<int>(numbers.next() % 15);
    for (int i = 0; i < count; ++i) {
      plain.push_back(numbers.between(-50, 100));
      figures.push_back(Figure::of(plain.back()));
      if (numbers.next() % 3 == 0) figures.push_back(Figure::notMeaningful("odd"));
    }
    const Statistics s = describe(figures);
    EXPECT_EQ(s.count, count);
    EXPECT_NEAR(s.mean.value(), boost::math::statistics::mean(plain.begin(), plain.end()), 1e-10);
    EXPECT_NEAR(s.median.value(), boost::math::statistics::median(plain.begin(), plain.end()), 1e-10);
    EXPECT_LE(s.lowerQuartile.value(), s.median.value());
    EXPECT_LE(s.median.value(), s.upperQuartile.value());
  }
}

TEST(SecondOpinion, ImpliedGrowthAgreesWithABracketedSearch) {
  Numbers numbers;
  int found = 0;
  for (int i = 0; i < 500; ++i) {
    const double nopat = numbers.between(10, 200);
    const double wacc = numbers.between(0.04, 0.15);
    const double onNew = numbers.between(0.05, 0.30);
    const double truth = numbers.between(-0.05, wacc - 0.02);
    const auto terminal = [&](double g) { return nopat * (1 + g) * (1 - g / onNew) / (wacc - g); };
    const std::vector<double> roots = impliedGrowth(nopat, wacc, onNew, terminal(truth));
    const bool has = std::any_of(roots.begin(), roots.end(), [&](double g) { return std::fabs(g - truth) < 1e-8; });
    EXPECT_TRUE(has) << "the growth that made the figure is among those found: " << truth;
    for (double g : roots) {
      const auto gap = [&](double x) { return terminal(x) - terminal(truth); };
      const double width = std::min(1e-4, (wacc - g) / 4);
      if (gap(g - width) * gap(g + width) >= 0) continue;  // a double root has no change of sign
      std::uintmax_t rounds = 100;
      const auto [low, high] = boost::math::tools::toms748_solve(gap, g - width, g + width,
                                                                 boost::math::tools::eps_tolerance<double>(50), rounds);
      EXPECT_NEAR(g, (low + high) / 2, 1e-9);
      ++found;
    }
  }
  EXPECT_GT(found, 400);
}

}  // namespace
}  // namespace zl
