// Dated rates, closes and the alignment of fiscal years.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <iterator>

#include "core/capital/rates.h"

namespace zl {
namespace {

std::vector<MarketRate> rates() {
  return {
      {"spot EUR/GBP", makeDate(2025, 1, 1), 0.84, "a"},      {"spot EUR/GBP", makeDate(2025, 7, 1), 0.86, "b"},
      {"spot EUR/GBP", makeDate(2025, 4, 1), 0.85, "c"},      {"spot USD/JPY", makeDate(2025, 1, 1), 150, "d"},
      {"risk-free EUR", makeDate(2025, 1, 1), 0.025, "e"},    {"spot EURGBP", makeDate(2025, 1, 1), 9, "not a pair"},
      {"spot EUR-GBP", makeDate(2025, 1, 1), 9, "not a pair"}};
}

struct Lookup {
  Date date;
  const char* name;
  double figure;  ///< 0: none
};

class RateAt : public testing::TestWithParam<Lookup> {};

TEST_P(RateAt, TheLatestOnOrBeforeTheDate) {
  const auto found = rateAt(rates(), GetParam().name, GetParam().date);
  EXPECT_EQ(found.has_value(), GetParam().figure != 0);
  if (found) {
    EXPECT_DOUBLE_EQ(found->figure, GetParam().figure);
  }
}

INSTANTIATE_TEST_SUITE_P(Dates, RateAt,
                         testing::Values(Lookup{makeDate(2024, 12, 31), "spot EUR/GBP", 0},
                                         Lookup{makeDate(2025, 1, 1), "spot EUR/GBP", 0.84},
                                         Lookup{makeDate(2025, 3, 31), "spot EUR/GBP", 0.84},
                                         Lookup{makeDate(2025, 4, 1), "spot EUR/GBP", 0.85},
                                         Lookup{makeDate(2026, 1, 1), "spot EUR/GBP", 0.86},
                                         Lookup{makeDate(2026, 1, 1), "risk-free EUR", 0.025},
                                         Lookup{makeDate(2026, 1, 1), "risk-free USD", 0}));

TEST(Spot, WorksBothWaysAndOnlyForKnownPairs) {
  const SpotRates spots = spotRatesAt(rates(), makeDate(2025, 5, 1));
  EXPECT_EQ(spots.size(), 2u) << "names that are no pairs are passed over";
  EXPECT_DOUBLE_EQ(spot(spots, "EUR", "GBP").value(), 0.85);
  EXPECT_DOUBLE_EQ(spot(spots, "GBP", "EUR").value(), 1 / 0.85);
  EXPECT_DOUBLE_EQ(spot(spots, "CHF", "CHF").value(), 1);
  EXPECT_TRUE(spot(spots, "EUR", "JPY").isAbsent()) << "nothing is quoted against both";
}

TEST(Spot, APairThatIsNotQuotedIsCrossedThroughTheCurrencyMostPairsShare) {
  // By hand: 1 NOK = 1 / 11.5 EUR, 1 EUR = 160 JPY; through the dollar it would be 1 / 10 x 150 = 15.
  const SpotRates spots{{{"EUR", "NOK"}, 11.5}, {{"EUR", "JPY"}, 160}, {{"EUR", "USD"}, 1.1},
                        {{"USD", "NOK"}, 10},   {{"USD", "JPY"}, 150}, {{"EUR", "GBP"}, 0.85}};
  EXPECT_EQ(crossOf(spots, "NOK", "JPY"), "EUR");
  EXPECT_DOUBLE_EQ(spot(spots, "NOK", "JPY").value(), 160 / 11.5);
  EXPECT_DOUBLE_EQ(spot(spots, "JPY", "NOK").value(), 11.5 / 160);
  EXPECT_EQ(crossOf(spots, "EUR", "JPY"), "") << "what is quoted is not crossed";
  EXPECT_EQ(crossOf(spots, "GBP", "CHF"), "");
}

TEST(Rates, TablesAddAndTheLaterOneStandsWhereBothSpeak) {
  MarketRates all(rates());
  const double before = rateAt(all, "spot USD/JPY", makeDate(2026, 1, 1))->figure;
  all.merge({{"spot EUR/GBP", makeDate(2025, 4, 1), 0.9, "later"}});
  EXPECT_DOUBLE_EQ(rateAt(all, "spot EUR/GBP", makeDate(2025, 5, 1))->figure, 0.9);
  EXPECT_EQ(rateAt(all, "spot EUR/GBP", makeDate(2025, 5, 1))->source, "later");
  EXPECT_DOUBLE_EQ(rateAt(all, "spot EUR/GBP", makeDate(2026, 1, 1))->figure, 0.86) << "other days stay";
  EXPECT_DOUBLE_EQ(rateAt(all, "spot USD/JPY", makeDate(2026, 1, 1))->figure, before) << "other names stay";
  EXPECT_EQ(std::distance(all.begin(), all.end()), 7) << "a figure that was given again is one figure";
}

TEST(Closes, TablesAddDayByDay) {
  std::vector<PricePoint> prices{{makeDate(2025, 1, 3), 10, 1}, {makeDate(2025, 1, 6), 11, 1}};
  mergePrices(prices, {{makeDate(2025, 1, 6), 21, 2}, {makeDate(2025, 1, 7), 22, 2}});
  ASSERT_EQ(prices.size(), 3u);
  EXPECT_DOUBLE_EQ(closeAt(prices, makeDate(2025, 1, 5))->close, 10);
  EXPECT_DOUBLE_EQ(closeAt(prices, makeDate(2025, 1, 6))->close, 21);
  EXPECT_EQ(closeAt(prices, makeDate(2025, 1, 9))->document, 2);
}

TEST(Peers, TablesAddFigureByFigureAndAPriceStaysWithItsDay) {
  Peer first;
  first.id = "a";
  first.name = "First";
  first.price = Figure::of(10);
  first.priceDate = makeDate(2025, 6, 1);
  first.priceCurrency = "EUR";
  first.debt = Figure::of(5);
  first.years = {{makeDate(2024, 12, 31), Figure::of(100), Figure::of(20)}};
  Peer later = first;
  later.price = Figure::of(7);
  later.priceDate = makeDate(2025, 1, 1);  // the later table, the earlier day
  later.debt = Figure::absent();
  later.cash = Figure::of(3);
  later.years = {{makeDate(2023, 12, 31), Figure::of(90)}, {makeDate(2024, 12, 31), Figure::of(101)}};
  std::vector<Peer> peers{first};
  Peer other;
  other.id = "b";
  mergePeers(peers, {later, other});
  ASSERT_EQ(peers.size(), 2u);
  EXPECT_EQ(peers[0].price.value(), 10);
  EXPECT_EQ(peers[0].debt.value(), 5) << "what the later table leaves out stays";
  EXPECT_EQ(peers[0].cash.value(), 3);
  ASSERT_EQ(peers[0].years.size(), 2u);
  EXPECT_EQ(peers[0].years[0].revenue.value(), 90);
  EXPECT_EQ(peers[0].years[1].revenue.value(), 101);
  EXPECT_EQ(peers[0].years[1].ebitda.value(), 20);
}

TEST(Closes, TheLastTradeCounts) {
  const std::vector<PricePoint> prices{
      {makeDate(2025, 1, 3), 10}, {makeDate(2025, 1, 6), 11}, {makeDate(2025, 1, 7), 12}};
  EXPECT_FALSE(closeAt(prices, makeDate(2025, 1, 2)));
  EXPECT_DOUBLE_EQ(closeAt(prices, makeDate(2025, 1, 5))->close, 10) << "a Sunday takes Friday's close";
  EXPECT_DOUBLE_EQ(closeAt(prices, makeDate(2025, 1, 6))->close, 11);
  EXPECT_DOUBLE_EQ(closeAt(prices, makeDate(2030, 1, 1))->close, 12);
  EXPECT_FALSE(closeAt({}, makeDate(2025, 1, 6)));
}

/// A peer earns 12 a year up to its year end and 24 a year after it: by the month, the twelve
/// months to December hold m months at 1 and 12 - m at 2.
class Alignment : public testing::TestWithParam<unsigned> {};

TEST_P(Alignment, WeighsByTheMonthsInside) {
  const unsigned month = GetParam();
  const auto lastDay = [](int year, unsigned m) {
    return m == 12 ? makeDate(year, 12, 31) : Date(makeDate(year, m + 1, 1) - std::chrono::days(1));
  };
  const std::vector<PeerYear> years{{lastDay(2025, month), {}, {}, Figure::of(12)},
                                    {lastDay(2026, month), {}, {}, Figure::of(24)}};
  const double inside = month;  // months of the first year that fall into January to December 2025
  const double expected = inside * 1 + (12 - inside) * 2;
  EXPECT_NEAR(alignedMetric(years, &PeerYear::netIncome, makeDate(2025, 12, 31)).value(), expected, 1e-12);
}

INSTANTIATE_TEST_SUITE_P(YearEnds, Alignment, testing::Range(1u, 13u));

TEST(Aligned, GapsInAYearStayGaps) {
  std::vector<PeerYear> years{{makeDate(2025, 6, 30), {}, {}, Figure::of(1)},
                              {makeDate(2026, 6, 30), {}, {}, Figure::absent("not given")}};
  EXPECT_TRUE(alignedMetric(years, &PeerYear::netIncome, makeDate(2025, 12, 31)).isAbsent());
  years[1].netIncome = Figure::notMeaningful("restated");
  EXPECT_TRUE(alignedMetric(years, &PeerYear::netIncome, makeDate(2025, 12, 31)).isNotMeaningful());
}

}  // namespace
}  // namespace zl
