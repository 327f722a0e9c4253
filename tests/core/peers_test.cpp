#include "core/peers/measures.h"
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
  EXPECT_EQ(statisticNamed(pe, "mean"), pe.mean);
  EXPECT_TRUE(statisticNamed(pe, "mode").isAbsent());
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
  EXPECT_NEAR((enterpriseValue(p, {}, {}) - p.debt - p.minorities + p.cash + p.associates).value() / 10, 50, 1e-12);
}

/// EBITDA 100 with 12 of lease cost, 5 of stock pay, 20 of research; claims 300 and leases of 40.
Peer fullPeer(bool filesRent) {
  Peer p = peer("full", 100, 50, 100);
  p.debt = Figure::of(300);
  p.leases = Figure::of(40);
  p.cash = Figure::of(90);
  p.filesRent = filesRent;
  PeerYear& year = p.years.front();
  year.ebit = Figure::of(70);
  year.interest = Figure::of(14);
  year.equity = Figure::of(660);
  year.leaseCost = Figure::of(12);
  year.stockPay = Figure::of(5);
  year.research = Figure::of(20);
  return p;
}

TEST(OneBasis, PeersFollowTheSubjectsChoice) {
  struct Expected {
    bool filesRent;
    MeasureBasis basis;
    double ebitda, value;
  };
  // Market equity 1,000 + debt 300 - cash 90 = 1,210, and 40 more where leases are debt.
  for (const Expected& x :
       {Expected{false, {true, true, true}, 100, 1250}, Expected{false, {false, true, true}, 88, 1210},
        Expected{true, {true, true, true}, 112, 1250}, Expected{true, {false, true, true}, 100, 1210},
        Expected{false, {true, false, true}, 105, 1250}, Expected{false, {true, true, false}, 120, 1250},
        Expected{true, {true, false, false}, 137, 1250}}) {
    const Peer p = fullPeer(x.filesRent);
    EXPECT_DOUBLE_EQ(ebitdaOn(x.basis, p, p.years.front()).value(), x.ebitda);
    Subject s = subject();
    s.basis = x.basis;
    EXPECT_DOUBLE_EQ(enterpriseValue(p, {}, x.basis).value(), x.value);
    EXPECT_DOUBLE_EQ(crossCheck(s, {p}, {}, {}).rows.front().cells.at(Multiple::EvToEbitda).multiple.value(),
                     x.value / x.ebitda);
  }
}

/// Price 20 on 10 shares, debt 50, cash 20: equity 200, firm 230.
Peer wholePeer() {
  Peer p = peer("whole", 20, 12, 30);
  p.debt = Figure::of(50);
  p.cash = Figure::of(20);
  PeerYear& y = p.years.front();
  y.revenue = Figure::of(100);
  y.ebit = Figure::of(20);
  y.nopat = Figure::of(15);
  y.operatingCashFlow = Figure::of(18);
  y.capex = Figure::of(8);
  y.equity = Figure::of(80);
  y.intangibles = Figure::of(30);
  PeerYear next = y;
  next.end = makeDate(2026, 12, 31);
  next.netIncome = Figure::of(16);
  next.ebitda = Figure::of(40);
  p.expected = {next};
  return p;
}

double multipleOf(const Peer& p, Multiple m) {
  return crossCheck(subject(), {p}, {{{"EUR", "JPY"}, 160.0}}, {}).rows.front().cells.at(m).multiple.value();
}

TEST(Multiples, AreWhatTheirTableSays) {
  const Peer p = wholePeer();
  const std::pair<Multiple, double> kByHand[] = {{Multiple::PriceToEarnings, 200 / 12.0},
                                                 {Multiple::PriceToSales, 2},
                                                 {Multiple::PriceToBook, 2.5},
                                                 {Multiple::PriceToTangibleBook, 4},
                                                 {Multiple::PriceToOperatingCash, 200 / 18.0},
                                                 {Multiple::PriceToFreeCash, 20},
                                                 {Multiple::EvToSales, 2.3},
                                                 {Multiple::EvToEbitda, 230 / 30.0},
                                                 {Multiple::EvToEbit, 11.5},
                                                 {Multiple::EvToNopat, 230 / 15.0},
                                                 {Multiple::EvToCapital, 230 / 110.0},
                                                 {Multiple::PriceToEarningsThis, 12.5},
                                                 {Multiple::EvToEbitdaThis, 5.75}};
  for (const auto& [m, expected] : kByHand) EXPECT_NEAR(multipleOf(p, m), expected, 1e-12) << multipleId(m);
  const CrossCheck c = crossCheck(subject(), {p}, {}, {});
  EXPECT_THAT(c.rows.front().cells.at(Multiple::PriceToEarningsNext).reason, testing::HasSubstr("no fiscal year"))
      << "nobody says what the second year brings";
  // A fiscal year that ends in March, held against twelve months to December: nine of one, three of the next.
  Peer march = p;
  march.years.front().end = makeDate(2025, 3, 31);
  march.expected.front().end = makeDate(2026, 3, 31);
  EXPECT_FALSE(crossCheck(subject(), {march}, {}, {}).rows.front().cells.at(Multiple::PriceToEarnings).in)
      << "what is only expected makes no trailing figure";
  for (const MultipleRule& rule : multipleRules()) EXPECT_EQ(ruleOf(rule.multiple).id, rule.id);
}

TEST(Multiples, CurrencyAndScaleOfAPeerChangeNothing) {
  const Peer p = wholePeer();
  // Told in thousands of yen at 160 to the euro, its price too.
  Peer yen = p;
  constexpr double kTimes = 160;
  yen.currency = yen.priceCurrency = "JPY";
  for (Figure* f : {&yen.price, &yen.debt, &yen.cash}) *f = *f * Figure::of(kTimes);
  for (std::vector<PeerYear>* years : {&yen.years, &yen.expected}) {
    for (PeerYear& y : *years) {
      for (Figure* f : {&y.revenue, &y.ebitda, &y.netIncome, &y.ebit, &y.nopat, &y.operatingCashFlow, &y.capex,
                        &y.equity, &y.intangibles})
        *f = *f * Figure::of(kTimes);
    }
  }
  Peer mixed = p;  // reports in euro, quoted in yen
  mixed.priceCurrency = "JPY";
  mixed.price = p.price * Figure::of(kTimes);
  for (const MultipleRule& rule : multipleRules()) {
    const auto cell = [&](const Peer& of) {
      return crossCheck(subject(), {of}, {{{"EUR", "JPY"}, kTimes}}, {}).rows.front().cells.at(rule.multiple).multiple;
    };
    if (!cell(p).hasValue()) continue;
    EXPECT_NEAR(cell(yen).value(), cell(p).value(), 1e-12) << rule.id;
    EXPECT_NEAR(cell(mixed).value(), cell(p).value(), 1e-12) << rule.id;
  }
}

TEST(Multiples, OrderAndAPeerAtTheMedianLeaveTheMedian) {
  std::vector<Peer> peers{peer("a", 10, 2, 9), peer("b", 30, 2, 9), peer("c", 70, 2, 9), peer("d", 90, 2, 9)};
  const auto median = [&] {
    return crossCheck(subject(), peers, {}, {}).statistics.at(Multiple::PriceToEarnings).median;
  };
  const double before = median().value();
  std::reverse(peers.begin(), peers.end());
  EXPECT_DOUBLE_EQ(median().value(), before);
  peers.push_back(peer("e", 50, 2, 9));  // 10 x 50 / 2 is the median of 50, 150, 350 and 450
  EXPECT_DOUBLE_EQ(median().value(), before);
}

TEST(OneBasis, WhatATableDoesNotGiveIsSaidNotGuessed) {
  Subject s = subject();
  s.basis.leasesAsDebt = false;
  const CrossCheck c = crossCheck(s, {peer("plain", 50, 50, 100), fullPeer(false)}, {}, {});
  const MultipleCell& cell = c.rows[0].cells.at(Multiple::EvToEbitda);
  EXPECT_FALSE(cell.in);
  EXPECT_THAT(cell.reason, testing::HasSubstr("lease_cost"));
  EXPECT_EQ(c.statistics.at(Multiple::EvToEbitda).count, 1);
  EXPECT_TRUE(c.rows[0].cells.at(Multiple::PriceToEarnings).in) << "earnings stand as filed";
}

TEST(PeerMeasures, AreDefinedAsTheSubjectsOwn) {
  const Peer p = fullPeer(false);
  const MeasureBasis usual;
  const std::pair<const char*, double> kExpected[] = {
      {"ebitda_margin", 0.1},    {"ebit_margin", 0.07},        {"net_margin", 0.05},
      {"interest_cover", 5},     {"ebitda_cover", 100 / 14.0}, {"net_debt_to_ebitda", 2.5},  // (300 + 40 - 90) / 100
      {"debt_to_capital", 0.34}, {"stock_pay_ratio", 0.005},   {"research_ratio", 0.02}};
  for (const auto& [row, expected] : kExpected) EXPECT_NEAR(peerMeasure(p, row, usual).value(), expected, 1e-12) << row;
  EXPECT_TRUE(peerMeasure(p, "revenue_growth", usual).isAbsent()) << "one year only";
  EXPECT_TRUE(peerMeasure(p, "capex_ratio", usual).isAbsent());
  EXPECT_TRUE(peerMeasure(p, "gross_margin", usual).isAbsent()) << "not in any peer table";
  EXPECT_TRUE(peerMeasure(p, "interest_cover", {false, true, true}).isAbsent()) << "lease interest is not known";
  EXPECT_NEAR(peerMeasure(p, "net_debt_to_ebitda", {false, true, true}).value(), 210.0 / 88, 1e-12);
  Peer grown = p;
  grown.years.push_back(p.years.front());
  grown.years.back().revenue = Figure::of(1100);
  grown.years.back().equity = Figure::of(740);
  EXPECT_NEAR(peerMeasure(grown, "revenue_growth", usual).value(), 0.1, 1e-12);
  EXPECT_NEAR(peerMeasure(grown, "roe", usual).value(), 50.0 / 700, 1e-12);
  Peer subjectItself = p;
  subjectItself.id = "me";
  const PeerSpread spread = peerSpread({p, grown, subjectItself}, "me", "ebitda_margin", usual);
  EXPECT_EQ(spread.count, 2);
  EXPECT_NEAR(spread.median.value(), (0.1 + 100 / 1100.0) / 2, 1e-12);
}

}  // namespace
}  // namespace zl
