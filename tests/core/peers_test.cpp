#include "core/peers/peer.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

namespace zl {
namespace {

Peer peer(const char* id, double price, double income, double ebitda) {
  Peer p;
  p.id = p.name = id;
  p.currency = p.priceCurrency = "EUR";
  p.price = Figure::of(price);
  p.shares = Figure::of(10);
  for (Figure* f : {&p.debt, &p.leases, &p.preferred, &p.minorities, &p.pension, &p.cash, &p.associates})
    *f = Figure::of(0);
  p.years = {{makeDate(2025, 12, 31), Figure::of(1000), Figure::of(ebitda), Figure::of(income)}};
  return p;
}

Subject subject() {
  Subject s;
  s.id = "me";
  s.currency = "EUR";
  s.target = makeDate(2025, 12, 31);
  s.revenue = Figure::of(1000);
  s.netIncome = Figure::of(50);
  s.ebitda = Figure::of(100);
  s.dilutedShares = Figure::of(10);
  s.quoteRate = Figure::of(1);
  s.claims = Figure::of(200);
  return s;
}

TEST(Aligned, MonthsWeighTheTwoFiscalYears) {
  std::vector<PeerYear> years{{makeDate(2025, 9, 30), {}, {}, Figure::of(120)},
                              {makeDate(2026, 9, 30), {}, {}, Figure::of(240)}};
  // Year end September, target December: nine months of the first year, three of the next.
  EXPECT_DOUBLE_EQ(alignedMetric(years, &PeerYear::netIncome, makeDate(2025, 12, 31)).value(), 120 * 0.75 + 240 * 0.25);
  EXPECT_DOUBLE_EQ(alignedMetric(years, &PeerYear::netIncome, makeDate(2025, 9, 30)).value(), 120);
  years.pop_back();
  EXPECT_TRUE(alignedMetric(years, &PeerYear::netIncome, makeDate(2025, 12, 31)).isAbsent());
  EXPECT_TRUE(alignedMetric(years, &PeerYear::netIncome, makeDate(2027, 12, 31)).isAbsent());
}

TEST(CrossCheck, NothingOddReachesTheStatistics) {
  std::vector<Peer> peers{peer("a", 50, 50, 100), peer("b", 100, 50, 100),   peer("loss", 50, -5, -1),
                          peer("me", 500, 1, 1),  peer("rich", 50, 50, 100), peer("out", 900, 50, 100)};
  peers[4].cash = Figure::of(600);  // more net cash than market value
  peers[5].cash = Figure::absent("not given");
  const std::map<std::string, PeerChoice> choices{{"out/price-earnings", {false, "another business"}},
                                                  {"me/price-earnings", {true, "try"}},
                                                  {"loss/price-earnings", {true, "try"}}};
  const CrossCheck c = crossCheck(subject(), peers, {}, choices);
  const auto cell = [&](size_t i, Multiple m) { return c.rows[i].cells.at(m); };
  EXPECT_FALSE(cell(2, Multiple::PriceToEarnings).in);
  EXPECT_EQ(cell(2, Multiple::PriceToEarnings).reason, "earnings not positive");
  EXPECT_FALSE(cell(3, Multiple::PriceToEarnings).in) << "no choice can put the subject in its own average";
  EXPECT_EQ(cell(4, Multiple::EvToEbitda).reason, "more net cash than market value");
  EXPECT_FALSE(cell(5, Multiple::EvToEbitda).in);  // absent cash is not nought
  EXPECT_EQ(cell(5, Multiple::PriceToEarnings).reason, "another business");
  const MultipleStatistics& pe = c.statistics.at(Multiple::PriceToEarnings);
  EXPECT_EQ(pe.count, 3);  // a: 10, b: 20, rich: 10
  EXPECT_DOUBLE_EQ(pe.median.value(), 10);
  EXPECT_NEAR(pe.mean.value(), 40.0 / 3, 1e-12);
  EXPECT_NEAR(pe.harmonicMean.value(), 12, 1e-12);  // 3 / (1/10 + 1/20 + 1/10)
  // 10 * 50 / 10 shares; EV: 5 * 100 less claims of 200 over 10 shares.
  EXPECT_NEAR(c.implied.at(Multiple::PriceToEarnings).median.value(), 50, 1e-12);
  EXPECT_NEAR(c.implied.at(Multiple::EvToEbitda).low.value(), 30, 1e-12);
}

TEST(CrossCheck, ASubjectWithLossesHasNoEarningsValue) {
  Subject s = subject();
  s.netIncome = Figure::of(-1);
  const CrossCheck c = crossCheck(s, {peer("a", 50, 50, 100)}, {}, {});
  EXPECT_EQ(c.implied.at(Multiple::PriceToEarnings).median.reason(), "the subject's earnings are not positive");
}

TEST(CrossCheck, PricesInPenceAndOtherCurrenciesComeToTheReportingCurrency) {
  Peer p = peer("a", 4300, 50, 100);
  p.priceCurrency = "GBP";
  p.minorPerMajor = 100;
  const SpotRates rates{{{"EUR", "GBP"}, 0.86}};
  EXPECT_NEAR(marketEquity(p, rates).value(), 43 / 0.86 * 10, 1e-9);
  EXPECT_THAT(marketEquity(p, {}).reason(), testing::HasSubstr("no exchange rate from GBP to EUR"));
}

TEST(CrossCheck, ScaleAndOutliersAreMarkedNotRemoved) {
  std::vector<Peer> peers;
  for (double price : {50.0, 52.0, 54.0, 56.0, 500.0})
    peers.push_back(peer(("p" + std::to_string(static_cast<int>(price))).c_str(), price, 50, 100));
  peers[0].years[0].revenue = Figure::of(9000);
  const CrossCheck c = crossCheck(subject(), peers, {}, {});
  EXPECT_TRUE(c.rows[0].outOfScale);
  EXPECT_FALSE(c.rows[1].outOfScale);
  EXPECT_TRUE(c.rows[4].cells.at(Multiple::PriceToEarnings).outlier);
  EXPECT_TRUE(c.rows[4].cells.at(Multiple::PriceToEarnings).in);
  EXPECT_FALSE(c.rows[1].cells.at(Multiple::PriceToEarnings).outlier);
}

TEST(Bridge, EnterpriseValueGivesBackThePrice) {
  Peer p = peer("a", 50, 50, 100);
  p.debt = Figure::of(70);
  p.cash = Figure::of(20);
  p.minorities = Figure::of(5);
  p.associates = Figure::of(3);
  EXPECT_NEAR((enterpriseValue(p, {}) - p.debt - p.minorities + p.cash + p.associates).value() / 10, 50, 1e-12);
}

}  // namespace
}  // namespace zl
