// Trends against closed forms and hand-worked series.

#include "core/history/trend.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <cmath>

namespace zl {
namespace {

using testing::HasSubstr;

Series seriesOf(int first, const std::vector<double>& numbers) {
  Series s;
  for (size_t i = 0; i < numbers.size(); ++i) {
    s.years.push_back(first + static_cast<int>(i));
    s.figures.push_back(std::isnan(numbers[i]) ? Figure::absent("not filed") : Figure::of(numbers[i]));
  }
  s.exceptional.assign(numbers.size(), false);
  s.irregular.assign(numbers.size(), false);
  return s;
}

TEST(Trend, CompoundGrowthIsNotTheMeanOfTheYearlyRates) {
  // 100 -> 150 -> 75: +50 %, -50 %; mean 0, compound sqrt(0.75) - 1.
  const SpanTrend t = spanTrend(seriesOf(2020, {100, 150, 75}), 2020, 2022);
  EXPECT_DOUBLE_EQ(t.change.value(), -25);
  EXPECT_NEAR(t.meanGrowth.value(), 0, 1e-15);
  EXPECT_NEAR(t.compound.value(), std::sqrt(0.75) - 1, 1e-15);
}

TEST(Trend, SaysWhyThereIsNoRate) {
  struct Case {
    std::vector<double> figures;
    int from, to;
    const char* reason;
  };
  for (const Case& c : std::initializer_list<Case>{{{-5, 10}, 2020, 2021, "first year is not positive"},
                                                   {{10, -5}, 2020, 2021, "last year is not positive"},
                                                   {{10, 12}, 2019, 2021, "no figures from 2019"},
                                                   {{10, 12}, 2021, 2021, "no figures from 2021"},
                                                   {{std::nan(""), 12}, 2020, 2021, "not filed"}}) {
    const SpanTrend t = spanTrend(seriesOf(2020, c.figures), c.from, c.to);
    EXPECT_FALSE(t.compound.hasValue());
    EXPECT_THAT(t.compound.reason(), HasSubstr(c.reason));
  }
  Series changed = seriesOf(2020, {10, 11, 12});
  changed.irregular[1] = true;  // the year-end was changed between 2020 and 2021
  EXPECT_THAT(spanTrend(changed, 2020, 2022).compound.reason(), HasSubstr("not a whole year"));
  EXPECT_TRUE(spanTrend(changed, 2021, 2022).compound.hasValue());
  EXPECT_THAT(stackedGrowth(changed, 2)[2].reason(), HasSubstr("not a whole year"));
}

TEST(Trend, StacksYearsSoThatAnEasyComparisonShows) {
  const std::vector<Figure> two = stackedGrowth(seriesOf(2020, {100, 50, 100}), 2);
  EXPECT_TRUE(two[1].isAbsent());
  EXPECT_DOUBLE_EQ(two[2].value(), 0) << "+100 % off a depressed year is nothing over two";
  EXPECT_DOUBLE_EQ(stackedGrowth(seriesOf(2020, {100, 50, 100}), 1)[2].value(), 1);
}

TEST(Trend, FitsAnExactExponentialExactly) {
  std::vector<double> numbers;
  for (int i = 0; i < 8; ++i) numbers.push_back(40 * std::pow(1.07, i));
  const FittedTrend exact = fittedTrend(seriesOf(2015, numbers), 2015, 2022);
  EXPECT_NEAR(exact.growth.value(), 0.07, 1e-12);
  EXPECT_NEAR(exact.fit.value(), 1, 1e-12);
  // Least squares by hand: ln 1, ln e^2, ln e^1 at x = 0, 1, 2: slope 1/2, R2 = 1/4.
  const FittedTrend hand = fittedTrend(seriesOf(2000, {1, std::exp(2), std::exp(1)}), 2000, 2002);
  EXPECT_NEAR(hand.growth.value(), std::exp(0.5) - 1, 1e-12);
  EXPECT_NEAR(hand.fit.value(), 0.25, 1e-12);
  Series flagged = seriesOf(2015, numbers);
  flagged.figures[3] = Figure::of(9999);
  flagged.exceptional[3] = true;
  EXPECT_NEAR(fittedTrend(flagged, 2015, 2022).growth.value(), 0.07, 1e-12) << "an exceptional year bends nothing";
  EXPECT_EQ(fittedTrend(flagged, 2015, 2022).count, 7);
  EXPECT_THAT(fittedTrend(seriesOf(2015, {1, -2, 3}), 2015, 2017).growth.reason(), HasSubstr("2016"));
  EXPECT_FALSE(fittedTrend(seriesOf(2015, {1, 2}), 2015, 2016).growth.hasValue());
  EXPECT_FALSE(fittedTrend(seriesOf(2015, {3, 3, 3}), 2015, 2017).fit.hasValue());
}

TEST(Trend, MarksEndsThatMislead) {
  // 2022 is 60 of a median of 100: depressed, and so is every rate from it.
  Series s = seriesOf(2020, {100, 100, 60, 100, 100});
  EXPECT_THAT(endMark(s, 2), HasSubstr("2022 is depressed: 60 %"));
  EXPECT_EQ(endMark(s, 0), "");
  const SpanTrend from = spanTrend(s, 2022, 2024);
  ASSERT_EQ(from.marks.size(), 1u);
  s.exceptional[4] = true;
  EXPECT_THAT(spanTrend(s, 2022, 2024).marks[1], HasSubstr("2024 is flagged"));
  EXPECT_TRUE(spanTrend(s, 2022, 2024).compound.hasValue()) << "a flagged end keeps its value";
  EXPECT_THAT(endMark(seriesOf(2020, {10, 10, 30}), 2), HasSubstr("elevated: 300 %"));
  EXPECT_EQ(endMark(seriesOf(2020, {10, 30}), 1), "") << "one year beside it is no measure";
  EXPECT_EQ(endMark(seriesOf(2020, {-10, -10, 30}), 2), "");
}

}  // namespace
}  // namespace zl
