// What a margin change, growth and a price are made of: by hand.

#include "core/review/make_up.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "core/capital/price_history.h"

namespace zl {
namespace {

PartYear partYear(double revenue, double profit) {
  return {Figure::of(revenue), Figure::of(profit)};
}

TEST(MakeUp, AMarginChangeIsMixAndWithin) {
  // Shares 80/20 -> 50/50; margins 10 % and 30 % -> 12 % and 30 %; group 14 % -> 21 %.
  // Mix: -0.3 x (10 - 14) + 0.3 x (30 - 14) = 6 points; within: 0.5 x 2 = 1 point.
  const MarginChange c = marginChange({partYear(80, 8), partYear(20, 6)}, {partYear(50, 6), partYear(50, 15)});
  EXPECT_NEAR(c.mix.value(), 0.06, 1e-12);
  EXPECT_NEAR(c.within.value(), 0.01, 1e-12);
  EXPECT_NEAR(c.total.value(), 0.07, 1e-12);
  const MarginChange none = marginChange({partYear(0, 0), partYear(20, 6)}, {partYear(50, 6), partYear(50, 15)});
  EXPECT_FALSE(none.mix.hasValue()) << "a part without revenue has no margin";
  EXPECT_TRUE(none.total.hasValue());
  EXPECT_TRUE(marginChange({{Figure::absent("not filed"), Figure::of(1)}}, {partYear(1, 1)}).total.isAbsent());
}

TEST(MakeUp, ADealIsBoughtGrowthForTwelveMonthsOnly) {
  const std::vector<FiscalYear> years = {{makeDate(2020, 12, 31)}, {makeDate(2021, 12, 31)}, {makeDate(2022, 12, 31)}};
  Deal deal;
  deal.on = makeDate(2021, 7, 1);
  deal.price = 10;
  deal.revenue = 365;  // one a day
  const std::vector<double> acquired = acquiredRevenue({deal}, years);
  EXPECT_DOUBLE_EQ(acquired[0], 0);
  EXPECT_NEAR(acquired[1], 183, 1e-9) << "from 1 July to the year end";
  EXPECT_NEAR(acquired[2], 182, 1e-9) << "the rest of its first twelve months";
  EXPECT_NEAR(organicGrowth(Figure::of(1000), Figure::of(1283), acquired[1]).value(), 0.10, 1e-12);
  deal.price = -10;
  EXPECT_NEAR(acquiredRevenue({deal}, years)[1], -183, 1e-9) << "a business sold takes its revenue along";
}

TEST(MakeUp, APriceAgainstItsOwnPast) {
  std::vector<PricePoint> prices;
  for (int day = 0; day < 800; ++day) {
    prices.push_back({makeDate(2023, 1, 1) + std::chrono::days(day), 100.0 + (day < 500 ? day : 1000 - day)});
  }
  const Date last = prices.back().date;  // close 301; the peak was 600 on day 500
  const PriceSummary s = summarise(prices, last);
  EXPECT_DOUBLE_EQ(s.last.value(), 301);
  EXPECT_DOUBLE_EQ(s.high52.value(), 600);
  EXPECT_DOUBLE_EQ(s.low52.value(), 301);
  EXPECT_EQ(s.highDate, makeDate(2023, 1, 1) + std::chrono::days(500));
  EXPECT_EQ(s.lowDate, last) << "301 stood on day 201 too, more than a year before";
  EXPECT_NEAR(s.drawdown.value(), 301.0 / 600 - 1, 1e-12);
  EXPECT_DOUBLE_EQ(s.average200.value(), 400.5);  // 301 to 500
  EXPECT_NEAR(s.return1.value(), 301.0 / (100 + 799 - 365) - 1, 1e-12);
  EXPECT_TRUE(s.return5.isAbsent());
  EXPECT_DOUBLE_EQ(summarise(prices, makeDate(2023, 1, 11)).last.value(), 110) << "nothing later is known";
  EXPECT_TRUE(summarise(prices, makeDate(2023, 1, 11)).average200.isAbsent());
  EXPECT_TRUE(summarise(prices, makeDate(2020, 1, 1)).last.isAbsent());
}

TEST(MakeUp, HowAPriceSwingsInAYear) {
  std::vector<PricePoint> prices;
  for (int day = 0; day <= 20; ++day) {
    prices.push_back({makeDate(2025, 1, 1) + std::chrono::days(day), day % 2 == 0 ? 100.0 : 110.0});
  }
  const PriceSummary s = summarise(prices, prices.back().date);
  // Ten returns of +10 % and ten of -1/11: each half of their distance from the mean.
  const double distance = (0.1 + 1.0 / 11) / 2;
  EXPECT_NEAR(s.swing.value(), distance * 20 / std::sqrt(19.0), 1e-12);
  EXPECT_NEAR(s.deepest.value(), 100.0 / 110 - 1, 1e-12);
  prices.pop_back();
  EXPECT_TRUE(summarise(prices, prices.back().date).swing.isAbsent());
}

}  // namespace
}  // namespace zl
