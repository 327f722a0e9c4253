#include <gtest/gtest.h>

#include "core/period/date.h"

namespace zl {
namespace {

TEST(Date, ParsesOnlyRealDays) {
  EXPECT_EQ(dateText(*parseDate("2024-02-29")), "2024-02-29");
  for (const char* bad : {"2023-02-29", "2024-13-01", "2024-1-1", "24-01-01", "2024/01/01", "", "2024-01-01T00"}) {
    EXPECT_FALSE(parseDate(bad)) << bad;
  }
}

TEST(Date, YearsMoveMonthEndsToMonthEnds) {
  EXPECT_EQ(addYears(makeDate(2024, 2, 29), 1), makeDate(2025, 2, 28));
  EXPECT_EQ(addYears(makeDate(2023, 2, 28), 1), makeDate(2024, 2, 29));
  EXPECT_EQ(addYears(makeDate(2025, 12, 31), 1), makeDate(2026, 12, 31));
}

TEST(Period, FullYearsAreTwelveMonthsOr52Or53Weeks) {
  const auto period = [](const char* from, const char* to) { return Period{parseDate(from), *parseDate(to)}; };
  EXPECT_TRUE(period("2024-01-01", "2024-12-31").isFullYear());  // 366 days
  EXPECT_TRUE(period("2023-01-01", "2023-12-30").isFullYear());  // 52 weeks
  EXPECT_TRUE(period("2023-01-01", "2024-01-06").isFullYear());  // 53 weeks
  EXPECT_FALSE(period("2023-01-01", "2023-06-30").isFullYear());
  EXPECT_FALSE((Period{std::nullopt, makeDate(2023, 12, 31)}).isFullYear());
}

TEST(Stub, IsTheShareOfTheFirstYearStillToCome) {
  const Date base = makeDate(2025, 12, 31);
  const Date next = makeDate(2026, 12, 31);
  // 245 of 365 days lie between 30 April and 31 December 2026.
  EXPECT_DOUBLE_EQ(stubFor(makeDate(2026, 4, 30), base, next)->remaining, 245.0 / 365.0);
  EXPECT_DOUBLE_EQ(stubFor(base, base, next)->remaining, 1.0);
  EXPECT_FALSE(stubFor(makeDate(2025, 12, 30), base, next));
  EXPECT_FALSE(stubFor(next, base, next));
}

TEST(ValuationTime, AnUnfiledYearEndMayLieBetweenForEighteenMonths) {
  const Date base = makeDate(2024, 12, 31);
  const auto within = valuationTime(makeDate(2025, 4, 30), base);
  ASSERT_TRUE(within);
  EXPECT_EQ(within->yearsPassed, 0);
  EXPECT_DOUBLE_EQ(within->stub.remaining, 245.0 / 365.0);
  const auto past = valuationTime(makeDate(2026, 4, 30), base);
  ASSERT_TRUE(past);
  EXPECT_EQ(past->yearsPassed, 1);
  EXPECT_DOUBLE_EQ(past->stub.remaining, 245.0 / 365.0);
  EXPECT_EQ(valuationTime(makeDate(2025, 12, 31), base)->yearsPassed, 1) << "the very day ends the year";
  EXPECT_FALSE(valuationTime(makeDate(2026, 7, 31), base)) << "nineteen months";
  EXPECT_FALSE(valuationTime(makeDate(2024, 12, 30), base));
}

}  // namespace
}  // namespace zl
