// Tables of the market as people have them, put in the documented layout. Expected: what a person reads off the table.

#include "services/intake/market_tables.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "exchange/csv/tables.h"
#include "services/kits/resources.h"
#include "tests/support/sheet_text.h"

namespace zl::services {
namespace {

using testing::Contains;
using testing::ElementsAre;
using testing::HasSubstr;

class TablesAsPeopleHaveThem : public testing::Test {
 protected:
  [[nodiscard]] std::optional<MarketTable> read(const std::string& text) const {
    return marketTableOf(test::sheetOf(text), hints_, resources_->labels, resources_->model);
  }
  [[nodiscard]] std::vector<Peer> peersIn(const std::string& text) const {
    const auto table = read(text);
    EXPECT_TRUE(table) << text;
    if (!table || table->kind != exchange::ContentKind::PeerTable) return {};
    const auto peers = exchange::readPeers(table->csv, "t");
    EXPECT_TRUE(peers) << table->csv;
    return peers ? peers->rows : std::vector<Peer>();
  }

  std::shared_ptr<const Resources> resources_ = *Resources::load();
  std::vector<Peer> known_;
  MarketHints hints_{"EUR", "EUR", makeDate(2026, 5, 1), makeDate(2025, 12, 31), "pasted", &known_};
};

TEST_F(TablesAsPeopleHaveThem, PricesAsAWebPageShowsThem) {
  const auto table = read(
      "Historical prices\n"
      "Date|Open|High|Low|Close|Adj Close|Volume\n"
      "Apr 30, 2026|12.10|12.40|12.00|12.35|12.35|1,200,300\n"
      "Apr 29, 2026|0.24 Dividend\n"
      "Apr 29, 2026|11.90|12.20|11.80|12.10|12.10|900,100\n");
  ASSERT_TRUE(table);
  EXPECT_EQ(table->kind, exchange::ContentKind::PriceTable);
  EXPECT_EQ(table->csv, "date,close,unit\n2026-04-30,12.35,\n2026-04-29,12.1,\n");
  EXPECT_THAT(table->notes, Contains(HasSubstr("row 4 was set aside: it has no price")));
}

TEST_F(TablesAsPeopleHaveThem, DaysAreReadInTheOrderThatTheTableHas) {
  EXPECT_THAT(read("Date|Close\n04/30/2026|5\n05/01/2026|6\n")->csv, HasSubstr("2026-05-01,6"));
  EXPECT_THAT(read("Datum|Schlusskurs\n30.04.2026|5,25\n04.05.2026|6,50\n")->csv, HasSubstr("2026-05-04,6.5"));
  // 1 to 5 March in the American way: the second figure changes from row to row.
  EXPECT_THAT(read("Date|Close\n03/02/2026|5\n03/03/2026|6\n03/04/2026|7\n")->csv, HasSubstr("2026-03-04,7"));
  EXPECT_THAT(read("Date|Close\n02/03/2026|5\n03/03/2026|6\n04/03/2026|7\n")->csv, HasSubstr("2026-03-04,7"));
}

TEST_F(TablesAsPeopleHaveThem, PricesInPence) {
  EXPECT_THAT(read("Date|Price (pence)\n2026-04-30|450.5\n")->csv, HasSubstr("2026-04-30,450.5,GBX"));
  EXPECT_THAT(read("Datum|Kurs\n30.04.2026|31,50 \u20AC\n")->csv, HasSubstr("2026-04-30,31.5,EUR"));
  EXPECT_THAT(read("Date|Close|Currency\n2026-04-30|4.5|GBP\n")->csv, HasSubstr("4.5,"));
}

TEST_F(TablesAsPeopleHaveThem, PeersInAnyOneUnitGrowFromOneRow) {
  const std::vector<Peer> peers = peersIn(
      "Comparable companies, EUR m\n"
      "Company|Price|Market cap|Net debt|Sales|EBITDA|Net profit|Comment\n"
      "Orvane Werke|24.0|1,200|300|2,400|310|120|larger\n"
      "Tessaly|8.5|425|(60)|600|n/a|31|\n"
      "Median||812|120|1,500|310|75|\n");
  ASSERT_EQ(peers.size(), 2u);
  EXPECT_EQ(peers[0].id, "orvane-werke");
  EXPECT_EQ(peers[0].shares.value(), 50e6) << "1,200 m over 24";
  EXPECT_EQ(peers[0].debt.value(), 300e6);
  EXPECT_EQ(peers[0].years[0].revenue.value(), 2400e6);
  EXPECT_EQ(peers[0].years[0].end, makeDate(2025, 12, 31)) << "of no year: the company's last";
  EXPECT_EQ(peers[0].remark, "larger");
  EXPECT_EQ(peers[1].cash.value(), 60e6) << "net debt below nought is cash";
  EXPECT_EQ(enterpriseValue(peers[0], {}, {}).value(), 1500e6) << "who gives the net debt has said what is owed";
  EXPECT_FALSE(peers[1].years[0].ebitda.hasValue());

  EXPECT_EQ(enterpriseValue(peersIn("EUR m\nCompany|Market cap|EV|EBITDA\nBrell|1,200|1,350|90\n")[0], {}, {}).value(),
            1350e6);
  EXPECT_FALSE(enterpriseValue(peersIn("EUR m\nCompany|Market cap|EBITDA\nBrell|1,200|90\n")[0], {}, {}).hasValue())
      << "what is owed is not known";
  const std::vector<Peer> whole = peersIn("Name|Market value|Revenue\nBrell|1.2bn|850m\n");
  ASSERT_EQ(whole.size(), 1u);
  EXPECT_EQ(marketEquity(whole[0], {}).value(), 1.2e9) << "without a price the whole is one share";
  EXPECT_EQ(whole[0].years[0].revenue.value(), 850e6);

  const std::vector<Peer> small =
      peersIn("Name|Price|Price unit|Currency|Shares (units)|Revenue (units)\nTiny|3|GBX|GBP|2000000|5200000\n");
  ASSERT_EQ(small.size(), 1u);
  EXPECT_EQ(small[0].currency, "GBP");
  EXPECT_EQ(small[0].minorPerMajor, 100);
  EXPECT_EQ(small[0].shares.value(), 2e6);
  EXPECT_EQ(small[0].years[0].revenue.value(), 5.2e6) << "in units, as it says";
}

TEST_F(TablesAsPeopleHaveThem, HeadingsThatNameAYearMakeYearsOfAPeer) {
  const std::string text =
      "EUR m\nCompany|Ticker|Price|Shares|Revenue FY24|Revenue FY25|Revenue (2026E)|EBITDA LTM|EPS growth\n"
      "Orvane|ORV|412p|50|2,300|2,400|2,500|310|4 %\n"
      "Brell|BRL|8|10|-|900|-|80|1 %\n"
      "Cassel|CSL|3|7|-|-|-|-|-\n";
  EXPECT_THAT(read(text)->notes, Contains("nothing was read of the columns 'Ticker', 'EPS growth'"));
  const std::vector<Peer> peers = peersIn(text);
  ASSERT_EQ(peers.size(), 3u);
  EXPECT_EQ(peers[0].priceCurrency, "GBP") << "412p";
  EXPECT_EQ(peers[0].minorPerMajor, 100);
  EXPECT_EQ(peers[0].price.value(), 412);
  ASSERT_EQ(peers[0].years.size(), 2u);
  EXPECT_EQ(peers[0].years[0].end, makeDate(2024, 12, 31));
  EXPECT_EQ(peers[0].years[0].revenue.value(), 2300e6);
  EXPECT_FALSE(peers[0].years[0].ebitda.hasValue());
  EXPECT_EQ(peers[0].years[1].revenue.value(), 2400e6);
  EXPECT_EQ(peers[0].years[1].ebitda.value(), 310e6) << "of no year: of the last that is filed";
  ASSERT_EQ(peers[0].expected.size(), 1u);
  EXPECT_EQ(peers[0].expected[0].end, makeDate(2026, 12, 31));
  EXPECT_EQ(peers[0].expected[0].revenue.value(), 2500e6);
  ASSERT_EQ(peers[1].years.size(), 1u) << "no figure, no year";
  EXPECT_EQ(peers[1].years[0].revenue.value(), 900e6);
  EXPECT_TRUE(peers[1].expected.empty());
  EXPECT_EQ(peers[2].price.value(), 3) << "a peer without figures is one";

  const std::string balances =
      "EUR m\nCompany|Price|Shares|Revenue 2024|Revenue 2025|Net debt 2024|Net debt 2025\n"
      "Orvane|12|50|2,300|2,400|280|310\n";
  EXPECT_EQ(peersIn(balances).at(0).debt.value(), 310e6) << "of what is owed the last balance counts";
  EXPECT_THAT(read(balances)->notes, Contains("nothing was read of the columns 'Net debt 2024'"));
}

/// What is no amount in the peer's currency is named cell by cell, and the rest comes in.
TEST_F(TablesAsPeopleHaveThem, EachOddCellOfAPeerIsNamedAndTheRestComesIn) {
  const auto table = read(
      "EUR m\nCompany|Price|Shares|Revenue|EBITDA|Net income|Debt\n"
      "Orvane|24|50|2,400|12 %|about 90|300\n"
      "|9|1|5|1|1|0\n"
      "Brell|5|60|n/a|-|30|$40\n"
      "Orvane|25|50|2,500|300|95|310\n");
  ASSERT_TRUE(table);
  EXPECT_THAT(table->notes, Contains(HasSubstr("row 3, EBITDA: '12 %' is a share and no amount")));
  EXPECT_THAT(table->notes, Contains(HasSubstr("row 3, Net income: 'about 90' is no number")));
  EXPECT_THAT(table->notes, Contains(HasSubstr("row 4 was set aside: it names no peer")));
  EXPECT_THAT(table->notes, Contains(HasSubstr("row 5, Debt: '$40' is in USD and the peer's figures are in EUR")));
  EXPECT_THAT(table->notes, Contains(HasSubstr("Orvane is there twice for the year to 2025-12-31; the first stands")));
  EXPECT_THAT(table->notes, Not(Contains(HasSubstr("n/a")))) << "what says that there is nothing is nothing odd";
  const auto peers = exchange::readPeers(table->csv, "t");
  ASSERT_TRUE(peers);
  ASSERT_EQ(peers->rows.size(), 2u);
  EXPECT_EQ(peers->rows[0].years[0].revenue.value(), 2400e6);
  EXPECT_TRUE(peers->rows[0].years[0].ebitda.isAbsent());
  EXPECT_TRUE(peers->rows[0].years[0].netIncome.isAbsent());
  EXPECT_EQ(peers->rows[1].years[0].netIncome.value(), 30e6);
}

TEST_F(TablesAsPeopleHaveThem, MoreOfAPeerThatIsThereIsInItsOwnTerms) {
  Peer there;
  there.id = "orv";
  there.name = "Orvane Werke";
  there.currency = "SEK";
  there.priceCurrency = "SEK";
  there.years = {{makeDate(2025, 9, 30), Figure::of(1)}};
  known_ = {there};
  const std::vector<Peer> peers = peersIn("Peer|Price\nOrvane Werke|31\n");
  ASSERT_EQ(peers.size(), 1u);
  EXPECT_EQ(peers[0].id, "orv");
  EXPECT_EQ(peers[0].currency, "SEK");
  EXPECT_EQ(peers[0].years[0].end, makeDate(2025, 9, 30));
}

TEST_F(TablesAsPeopleHaveThem, RatesAndEstimates) {
  EXPECT_EQ(read("Rate|Date|Value|Source\nrisk-free EUR|30 Apr 2026|2.6%|bond page\nEUR/GBP|2026-04-30|0.85|\n")->csv,
            "rate,date,figure,source\nrisk-free EUR,2026-04-30,0.026,bond page\nspot EUR/GBP,2026-04-30,0.85,pasted\n");
  EXPECT_THAT(read("Zins|Datum|Wert|Quelle\nrisk-free EUR|30.04.2026|2,6 %|Bank\n")->csv,
              HasSubstr("risk-free EUR,2026-04-30,0.026,Bank"));
  const auto estimates =
      read("EUR m\nItem|Fiscal year|Low|Consensus|High|Analysts\nRevenue|2026E|440|455|470|7\nFoo|2026|1|1|1|1\n");
  ASSERT_TRUE(estimates);
  EXPECT_THAT(estimates->csv, HasSubstr("revenue,2026,440000000,455000000,470000000,7,2026-05-01,pasted,analysts"));
  EXPECT_THAT(estimates->notes, ElementsAre(HasSubstr("'Foo' is no line")));
}

TEST_F(TablesAsPeopleHaveThem, PremiumsTaxAndSpreadsBecomeRates) {
  const auto rates = [&](const std::string& text) {
    const auto table = read(text);
    EXPECT_TRUE(table && table->kind == exchange::ContentKind::RateTable) << text;
    return table ? table->csv : std::string();
  };
  const std::string regions =
      rates("Country|Rating|Country Risk Premium|Corporate tax rate\nBrazil|BB|4.1%|34%\nIndia||2.9%|\n");
  EXPECT_THAT(regions, HasSubstr("country premium Brazil,2026-05-01,0.041,pasted"));
  EXPECT_THAT(regions, HasSubstr("tax Brazil,2026-05-01,0.34,pasted"));
  EXPECT_THAT(regions, HasSubstr("country premium India,2026-05-01,0.029,pasted"));
  EXPECT_THAT(regions, testing::Not(HasSubstr("tax India")));
  // No sign says so, but nobody pays 25 times the profit.
  EXPECT_THAT(rates("Region|Tax rate\nDE|30\nIE|12.5\n"), HasSubstr("tax IE,2026-05-01,0.125,"));
  const std::string spreads = rates("Interest coverage|Spread\n> 8.5|0.6%\n6.5 - 8.5|0.8%\n-100 to 0.5|12%\nx|y\n");
  EXPECT_EQ(spreads,
            "rate,date,figure,source\nspread from cover 8.5,2026-05-01,0.006,pasted\n"
            "spread from cover 6.5,2026-05-01,0.008,pasted\nspread from cover -100,2026-05-01,0.12,pasted\n");
  EXPECT_THAT(rates("Interest cover|Spread %\n< 0.5|14\n"), HasSubstr("spread from cover 0,2026-05-01,0.14"));
}

TEST_F(TablesAsPeopleHaveThem, LevelsOfSeries) {
  const auto table = read("Index|Date|Close|Unit\nBroad 100|30/04/2026|1,204.5|EUR\nBroad 100|29/04/2026|n/a|EUR\n");
  ASSERT_TRUE(table && table->kind == exchange::ContentKind::SeriesTable);
  EXPECT_EQ(table->csv, "series,date,level,unit,dividend,source\nBroad 100,2026-04-30,1204.5,EUR,,pasted\n");
  EXPECT_THAT(table->notes, Contains(HasSubstr("no level above nought")));
}

TEST_F(TablesAsPeopleHaveThem, StatementsAreNone) {
  for (const char* text :
       {"EUR m|2025|2024\nRevenue|412|390\nNet income|12|10\n", "Note|2025\nCash|5\n",
        "Year|Revenue|EBITDA|Net income\n2024|390|41|10\n2025|412|44|12\n", "", "a|b\nc|d\n", "Date|Close\n"}) {
    EXPECT_FALSE(read(text)) << text;
  }
  const auto unusable = read("Date|Close\nnothing|here\n2026-04-30|0\n");
  ASSERT_TRUE(unusable) << "its headings say what it is";
  EXPECT_EQ(unusable->csv, "");
  EXPECT_THAT(unusable->notes, ElementsAre(HasSubstr("'nothing' is no day"), HasSubstr("it has no price")));
}

}  // namespace
}  // namespace zl::services
