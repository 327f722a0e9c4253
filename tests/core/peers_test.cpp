#include "core/model/parser.h"
#include "core/peers/likeness.h"
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
  EXPECT_EQ(cell(2, Multiple::PriceToEarnings).reason(), "earnings not positive");
  EXPECT_FALSE(cell(3, Multiple::PriceToEarnings).in) << "no choice can put the subject in its own average";
  EXPECT_EQ(cell(4, Multiple::EvToEbitda).reason(), "more net cash than market value");
  EXPECT_FALSE(cell(5, Multiple::EvToEbitda).in);  // absent cash is not nought
  EXPECT_EQ(cell(5, Multiple::PriceToEarnings).reason(), "another business");
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
  EXPECT_THAT(c.rows.front().cells.at(Multiple::PriceToEarningsNext).reason(), testing::HasSubstr("no fiscal year"))
      << "nobody says what the second year brings";
  // A fiscal year that ends in March, held against twelve months to December: nine of one, three of the next.
  Peer march = p;
  march.years.front().end = makeDate(2025, 3, 31);
  march.expected.front().end = makeDate(2026, 3, 31);
  EXPECT_FALSE(crossCheck(subject(), {march}, {}, {}).rows.front().cells.at(Multiple::PriceToEarnings).in)
      << "what is only expected makes no trailing figure";
  for (const MultipleRule& rule : shippedMultiples()) EXPECT_EQ(ruleOf(rule.multiple).id, rule.id);
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
  for (const MultipleRule& rule : shippedMultiples()) {
    const auto cell = [&](const Peer& of) {
      return crossCheck(subject(), {of}, {{{"EUR", "JPY"}, kTimes}}, {}).rows.front().cells.at(rule.multiple).multiple;
    };
    if (!cell(p).hasValue()) continue;
    EXPECT_NEAR(cell(yen).value(), cell(p).value(), 1e-12) << rule.id;
    EXPECT_NEAR(cell(mixed).value(), cell(p).value(), 1e-12) << rule.id;
  }
}

/// Margins of 4, 6 and 8 % make 6 % of the last year's 1,200: 72; a price of 20 on ten shares is 200.
TEST(Multiples, ANormalYearIsTheMeanShareOfRevenueTimesTheRevenueNow) {
  Peer p = peer("a", 20, 96, 240);
  p.years = {{makeDate(2023, 12, 31), Figure::of(1000), Figure::of(200), Figure::of(40)},
             {makeDate(2024, 12, 31), Figure::of(1100), Figure::absent("not given"), Figure::of(66)},
             {makeDate(2025, 12, 31), Figure::of(1200), Figure::of(240), Figure::of(96)}};
  EXPECT_NEAR(multipleOf(p, Multiple::PriceToEarningsNormal), 200 / 72.0, 1e-12);
  EXPECT_NEAR(multipleOf(p, Multiple::EvToEbitdaNormal), 200 / (0.2 * 1200), 1e-12) << "a year without is no nought";
  p.years.erase(p.years.begin(), p.years.begin() + 2);
  const auto cell = crossCheck(subject(), {p}, {}, {}).rows.front().cells.at(Multiple::PriceToEarningsNormal);
  EXPECT_THAT(cell.reason(), testing::HasSubstr("two regular years"));
}

TEST(Multiples, TheYearAfterNextIsReadFromWhatIsExpected) {
  Peer p = peer("a", 30, 10, 100);
  for (const int year : {2026, 2027, 2028})
    p.expected.push_back({makeDate(year, 12, 31), Figure::of(1000), {}, Figure::of(year - 2016)});
  EXPECT_NEAR(multipleOf(p, Multiple::PriceToEarningsThis), 300 / 10.0, 1e-12);
  EXPECT_NEAR(multipleOf(p, Multiple::PriceToEarningsNext), 300 / 11.0, 1e-12);
  EXPECT_NEAR(multipleOf(p, Multiple::PriceToEarningsAfter), 300 / 12.0, 1e-12);
  p.expected.pop_back();
  EXPECT_FALSE(crossCheck(subject(), {p}, {}, {}).rows.front().cells.at(Multiple::PriceToEarningsAfter).in);
}

constexpr const char* kOwnMultiples = R"(model small "Small" 1
group "All"
given price "Price" quote constant
given quote_rate "Rate" quote_rate constant
given diluted_shares "Shares" shares constant
given claims "Claims" money constant
row orders "Orders on hand" money balance
  history filed
  forecast orders[-1]
row turnover "Turnover" money flow
  history filed
  forecast turnover[-1]
row earned "Earned" money flow
  history filed
  forecast earned[-1]
view as_peer_years "As a peer"
  turnover
multiple ev_to_sales "EV to sales" "sales" firm base turnover
multiple price_to_orders "Price to orders" "orders on hand" shares base orders
multiple ev_to_turnover_next "EV to turnover, next year" "turnover of next year" firm second_year turnover
multiple price_to_orders_next "Price to orders, next year" "orders of next year" shares second_year orders
multiple ev_sales "Sales, by another name" "sales" firm base turnover
multiple price_to_earned "Price to earned" "earned" shares base earned
)";

TEST(OwnMultiples, AreOfAnyRowAndReadWhatPeersSayOfIt) {
  const auto m = model::parseModel(kOwnMultiples, "small");
  ASSERT_TRUE(m) << m.error().text();
  const std::vector<Multiple> all = declaredMultiples(*m);
  ASSERT_EQ(all.size(), shippedMultiples().size() + 5) << "EV to sales is shipped";
  EXPECT_EQ(declaredMultiples(*m), all) << "the same words are the same multiple";
  const Multiple orders = all[all.size() - 5], next = all[all.size() - 4], ordersNext = all[all.size() - 3],
                 earned = all.back();
  EXPECT_EQ(multipleId(all[all.size() - 2]), "own-ev-sales") << "what is in and out of the shipped one is its own";
  EXPECT_EQ(multipleId(orders), "price-orders");
  EXPECT_EQ(multipleName(next), "ev_to_turnover_next");
  Peer p = peer("a", 30, 10, 100);  // worth 300
  p.years.back().further["orders"] = Figure::of(600);
  p.expected = {{makeDate(2026, 12, 31), Figure::of(1000), {}, {}}, {makeDate(2027, 12, 31), Figure::of(1500), {}, {}}};
  p.expected[1].further["orders"] = Figure::of(750);
  Subject s = subject();
  s.multiples = all;
  const CrossCheck c = crossCheck(s, {p}, {}, {{peerChoiceKey("a", next), {false, "no"}}});
  const auto& cells = c.rows.front().cells;
  EXPECT_NEAR(cells.at(orders).multiple.value(), 0.5, 1e-12);
  EXPECT_NEAR(cells.at(next).multiple.value(), 300 / 1500.0, 1e-12)
      << "sales of next year, as the shipped one has them";
  EXPECT_NEAR(cells.at(ordersNext).multiple.value(), 300 / 750.0, 1e-12) << "a balance to come, not the last one";
  EXPECT_FALSE(cells.at(next).in) << "in or out like any other";
  EXPECT_THAT(cells.at(earned).reason(), testing::HasSubstr("does not give earned"));
  EXPECT_EQ(c.statistics.at(orders).count, 1);
  EXPECT_EQ(trailingMultipleOf(*m, "turnover", true), Multiple::EvToSales);
  EXPECT_EQ(trailingMultipleOf(*m, "orders", false), std::nullopt);
}

TEST(Mixes, AreSharesThatAddUpAndAreApartByHalfOfTheirDifferences) {
  const auto a = revenueMix("Europe 60 %; North America 30%;Asia 10");
  ASSERT_TRUE(a);
  EXPECT_NEAR(a->at("North America"), 0.3, 1e-12);
  for (const char* none : {"", " ; ", "Europe", "60 %", "Europe sixty %", "Europe 70 %; Asia 40 %", "Europe -5 %"})
    EXPECT_FALSE(revenueMix(none)) << none;
  // |0.6 - 0.2| + |0.3 - 0| + |0.1 - 0.8|, halved.
  EXPECT_NEAR(mixApart(*a, {{"EUROPE", 0.2}, {"asia", 0.8}}).value(), 0.7, 1e-12);
  EXPECT_NEAR(mixApart(*a, *a).value(), 0, 1e-12);
  EXPECT_NEAR(mixApart(*a, {{"Africa", 1}}).value(), 1, 1e-12) << "nothing in common";
  EXPECT_TRUE(mixApart(*a, {}).isAbsent());
}

TEST(Peers, StandAtTheCloseOfTheDayWhereTheirClosesAreKnown) {
  Peer p = peer("a", 99, 10, 100);
  priceAt(p, makeDate(2026, 1, 1));
  EXPECT_EQ(p.price.value(), 99) << "one price is all there is";
  p.closes = {{makeDate(2026, 1, 10), 10}, {makeDate(2026, 2, 10), 20}};
  const std::pair<Date, double> kByHand[] = {
      {makeDate(2026, 1, 10), 10}, {makeDate(2026, 2, 9), 10}, {makeDate(2027, 1, 1), 20}};
  for (const auto& [day, close] : kByHand) {
    priceAt(p, day);
    EXPECT_EQ(p.price.value(), close) << dateText(day);
  }
  priceAt(p, makeDate(2026, 1, 9));
  EXPECT_THAT(p.price.reason(), testing::HasSubstr("first close"));
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
  EXPECT_THAT(cell.reason(), testing::HasSubstr("lease_cost"));
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
