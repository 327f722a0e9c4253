// Payments of a share, by hand: specials apart, quarters, fiscal years that end in another month than December.

#include "core/capital/dividend_history.h"

#include <gtest/gtest.h>

namespace zl {
namespace {

SeriesPoint paid(int year, unsigned month, unsigned day, double amount, const char* source = "") {
  return {makeDate(year, month, day), 100, amount, source};
}

const std::vector<SeriesPoint> kPoints = {paid(2023, 2, 10, 1.0), paid(2023, 3, 1, 0),
                                          paid(2023, 8, 10, 1.2), paid(2024, 2, 9, 1.2),
                                          paid(2024, 8, 9, 1.3),  paid(2024, 12, 2, 5),
                                          paid(2026, 2, 9, 1.5),  paid(2026, 3, 2, 0.4, "Special, sale of a mill")};

TEST(DividendHistory, SpecialsAreFarAboveTheUsualOrSayThatTheyAre) {
  const std::vector<DividendPayment> payments = paymentsOf(kPoints, makeDate(2026, 12, 31));
  ASSERT_EQ(payments.size(), 7u) << "a day without a dividend is none";
  std::vector<double> special;
  for (const DividendPayment& p : payments) {
    if (p.special) special.push_back(p.amount);
  }
  EXPECT_EQ(special, (std::vector<double>{5, 0.4}));  // the median of all is 1.2
  EXPECT_EQ(paymentsOf(kPoints, makeDate(2024, 8, 9)).size(), 4u) << "what comes later is not known yet";
  EXPECT_FALSE(paymentsOf({paid(2024, 1, 2, 1), paid(2024, 7, 2, 9)}, makeDate(2025, 1, 1))[1].special)
      << "of two nobody knows which is usual";
}

TEST(DividendHistory, QuartersAndFiscalYearsAddUp) {
  const std::vector<DividendPayment> payments = paymentsOf(kPoints, makeDate(2026, 12, 31));
  const std::vector<DividendSum> quarters = byQuarter(payments);
  ASSERT_EQ(quarters.size(), 6u);
  EXPECT_EQ(quarters[0].quarter, 1);
  EXPECT_EQ(quarters[4].special, 5);
  EXPECT_EQ(quarters[5].regular, 1.5);
  // Years to June: 2023 has 1.0; 2024 1.2 + 1.2; 2025 1.3 and 5 special; 2026 1.5 and 0.4 special.
  const std::vector<DividendSum> years = byFiscalYear(payments, 6);
  ASSERT_EQ(years.size(), 4u);
  EXPECT_NEAR(years[1].regular, 2.4, 1e-12);
  EXPECT_NEAR(years[1].growth.value(), 1.4, 1e-12);
  EXPECT_EQ(years[2].special, 5);
  EXPECT_EQ(byFiscalYear({{makeDate(2024, 6, 28), 1}}, 6).front().year, 2024)
      << "the month that ends the year is in it";
  EXPECT_EQ(byFiscalYear({{makeDate(2024, 7, 1), 1}}, 6).front().year, 2025);
  // Years to December: 2025 has nothing and stands; nothing grows from it.
  const std::vector<DividendSum> calendar = byFiscalYear(payments, 12);
  ASSERT_EQ(calendar.size(), 4u);
  EXPECT_EQ(calendar[2].year, 2025);
  EXPECT_EQ(calendar[2].regular, 0);
  EXPECT_NEAR(calendar[2].growth.value(), -1, 1e-12);
  EXPECT_FALSE(calendar[3].growth.hasValue());
  double all = 0, byYears = 0;
  for (const DividendPayment& p : payments) all += p.amount;
  for (const DividendSum& y : calendar) byYears += y.regular + y.special;
  EXPECT_NEAR(all, byYears, 1e-12);
}

TEST(DividendHistory, TheLastTwelveMonthsLeaveSpecialsOut) {
  const std::vector<DividendPayment> payments = paymentsOf(kPoints, makeDate(2026, 12, 31));
  EXPECT_NEAR(lastTwelveMonths(payments, makeDate(2025, 1, 31)).value(), 2.5, 1e-12);
  EXPECT_NEAR(lastTwelveMonths(payments, makeDate(2026, 1, 31)).value(), 0, 1e-12);
  EXPECT_TRUE(lastTwelveMonths({}, makeDate(2026, 1, 31)).isAbsent());
}

}  // namespace
}  // namespace zl
