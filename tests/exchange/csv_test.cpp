#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "exchange/csv/rows.h"
#include "exchange/csv/table.h"
#include "exchange/csv/tables.h"

namespace zl::exchange {
namespace {

const std::string kHead = "concept,label,start,end,unit,decimals,value\n";

TEST(FactTable, ReadsQuotedCellsAndBothSeparators) {
  const auto a = readFactTable(kHead +
                                   "revenue,\"Sales, "
                                   "\"\"net\"\"\",2024-01-01,2024-12-31,EUR,-3,1200000\r\ncash,,,2024-12-31,EUR,INF,5."
                                   "25\ncash,,,2023-12-31,EUR,,\n",
                               "t");
  ASSERT_TRUE(a) << a.error().text();
  ASSERT_EQ(a->facts.size(), 3u);
  EXPECT_EQ(a->facts[0].label, "Sales, \"net\"");
  EXPECT_EQ(a->facts[0].place, "line 2");
  EXPECT_TRUE(a->facts[1].exact);
  EXPECT_TRUE(a->facts[1].period.isInstant());
  EXPECT_TRUE(a->facts[2].nil);
  const auto b =
      readFactTable("concept;label;start;end;unit;decimals;value\nrevenue;x;2024-01-01;2024-12-31;EUR;0;7\n", "t");
  ASSERT_TRUE(b);
  EXPECT_EQ(b->facts[0].text, "7");
}

TEST(FactTable, FaultsNameTheLine) {
  const struct {
    std::string text;
    const char* what;
    const char* where;
  } kCases[] = {
      {kHead + "\nb,,,2024-13-31,EUR,0,1\n", "'2024-13-31' in 'end' is not a date", "line 3"},
      {kHead + "a,,,2024-12-31,EUR,0,1.2.3\n", "'1.2.3' is not a plain decimal", "line 2"},
      {kHead + "a,,,2024-12-31,EUR,x,1\n", "'x' in 'decimals'", "line 2"},
      {kHead + "a,,,2024-12-31,EUR,-2147483648,1\n", "'-2147483648' in 'decimals'", "line 2"},
      {kHead + ",,,2024-12-31,EUR,0,1\n", "the cell 'concept' is empty", "line 2"},
      {kHead + "a,,2025-01-01,2024-12-31,EUR,0,1\n", "ends before it starts", "line 2"},
      {kHead + "a,,,2024-12-31,EUR,0,1,extra\n", "the row has 8 cells, the header 7", "line 2"},
      {kHead + "a,\"open,,2024-12-31,EUR,0,1\n", "a quoted cell is never closed", "line"},
      {kHead + "a,b\"c,,2024-12-31,EUR,0,1\n", "quotation mark", "line 2"},
      {"concept,end,unit,value\n", "the column 'start' is missing", "line 1"},
      {"concept,concept\n", "two columns are called 'concept'", "line 1"},
      {kHead, "a header and no facts", "t"},
      {kHead + "caf\xE9,,,2024-12-31,EUR,0,1\n", "not UTF-8", "line 2"},
      {kHead + std::string(70000, 'a') + ",,,2024-12-31,EUR,0,1\n", "65,536 is the limit", "line 2"},
      {kHead + std::string(5000, ','), "more than 4,096 columns", "line 2"},
      {"", "no header row", "line 1"},
  };
  for (const auto& c : kCases) {
    const auto r = readFactTable(c.text, "t");
    ASSERT_FALSE(r) << c.what;
    EXPECT_THAT(r.error().what, testing::HasSubstr(c.what));
    EXPECT_THAT(r.error().where, testing::HasSubstr(c.where)) << c.what;
  }
}

TEST(Tables, ABadRowIsSetAsideAndStopsNoOther) {
  const std::string wide =
      "peer,name,currency,price,price_currency,minor_per_major,price_date,shares,year_end,revenue,ebitda,net_income\n";
  const std::string peer = ",EUR,5,EUR,1,2025-01-01,10,2024-12-31,1,2,3\n";
  const auto peers =
      readPeers(wide + "a,,EUR" + peer.substr(4) + "a,A" + peer + "b,B" + peer.substr(0, 30) + "\n", "p");
  ASSERT_TRUE(peers) << peers.error().text();
  ASSERT_EQ(peers->rows.size(), 1u) << "the first row that can be used says the peer's own columns";
  EXPECT_EQ(peers->rows.front().name, "A");
  const auto facts =
      readFactTable(kHead + "a,,,2024-12-31,EUR,0,n/a\nb,,,2024-12-31,EUR,0,1\nc,,,2024-12-31,EUR,0,1,2\n", "f");
  ASSERT_TRUE(facts) << facts.error().text();
  EXPECT_EQ(facts->facts.size(), 1u);
  std::string closes = "date,close\n2025-01-02,10\n";
  for (int i = 0; i < 8; ++i) closes += "2025-02-0" + std::to_string(i + 1) + ",n/a\n";
  const auto prices = readPrices(closes, "c");
  ASSERT_TRUE(prices) << prices.error().text();
  EXPECT_EQ(prices->closes.size(), 1u);
  const auto rates = readRates("rate,date,figure,source\nspot,today,1,x\nspot,2025-01-01,1,x\n", "r");
  ASSERT_TRUE(rates) << rates.error().text();
  EXPECT_EQ(rates->rows.size(), 1u);
  const auto estimates = readEstimates(
      "item,year,low,mean,high,count,date,source\nrevenue,2026,,1,,,2026-01-30,a\nrevenue,2027,2,1,,,2026-01-30,a\n",
      "e");
  ASSERT_TRUE(estimates) << estimates.error().text();
  EXPECT_EQ(estimates->rows.size(), 1u);
  using testing::HasSubstr;
  EXPECT_THAT(peers->warnings, testing::ElementsAre(HasSubstr("line 2: the cell 'name' is empty; it was set aside"),
                                                    HasSubstr("line 4")));
  EXPECT_THAT(facts->warnings,
              testing::ElementsAre(HasSubstr("'n/a' is not a plain decimal"), HasSubstr("8 cells, the header 7")));
  EXPECT_EQ(prices->warnings.size(), 6u);
  EXPECT_EQ(prices->warnings.back(), "3 more rows could not be used and were set aside");
  EXPECT_THAT(rates->warnings, testing::ElementsAre(HasSubstr("'today' in 'date' is not a date")));
  EXPECT_THAT(estimates->warnings, testing::ElementsAre(HasSubstr("out of order")));
}

TEST(Prices, AscendAndAreUnique) {
  const auto p = readPrices("date,close\n2025-01-03,11\n2025-01-02,10.5\n", "p");
  ASSERT_TRUE(p);
  EXPECT_EQ(p->closes.front().close, 10.5);
  EXPECT_DOUBLE_EQ(closeAt(p->closes, makeDate(2025, 1, 2))->close, 10.5);
  EXPECT_FALSE(closeAt(p->closes, makeDate(2025, 1, 1)));
  EXPECT_EQ(p->unit, "");
  EXPECT_EQ(readPrices("date,close,unit\n2025-01-03,11,GBX\n2025-01-02,10,GBX\n", "p")->unit, "GBX");
  EXPECT_THAT(readPrices("date,close,currency\n2025-01-03,11,EUR\n2025-01-02,10,USD\n", "p").error().what,
              testing::HasSubstr("in 'EUR' and in 'USD'"));
  EXPECT_THAT(readPrices("date,close\n2025-01-02,10\n2025-01-02,11\n", "p").error().what,
              testing::HasSubstr("two closes"));
  const auto twice = readPrices("date,close\n2025-01-02,10\n2025-01-03,7\n2025-01-02,11\n2025-01-03,7\n", "p");
  ASSERT_TRUE(twice) << twice.error().text();
  EXPECT_EQ(twice->closes.size(), 1u) << "the same close twice is one, two are none";
  EXPECT_EQ(twice->closes.front().close, 7);
  EXPECT_THAT(readPrices("date,close\n2025-01-02,-10\n", "p").error().what, testing::HasSubstr("not positive"));
  EXPECT_THAT(readPrices("date,close\n2025-01-02,inf\n", "p").error().what, testing::HasSubstr("not a number"));
}

TEST(Peers, EmptyCellsAreAbsentAndYearsAscend) {
  const std::string head =
      "peer,name,currency,price,price_currency,minor_per_major,price_date,shares,debt,cash,year_end,revenue,ebitda,net_"
      "income\n";
  const auto p = readPeers(
      head + "a,A,EUR,5,EUR,1,2025-01-01,10,,3,2023-12-31,1,2,3\na,A,EUR,5,EUR,1,2025-01-01,10,,3,2024-12-31,4,5,\n",
      "p");
  ASSERT_TRUE(p) << p.error().text();
  ASSERT_EQ(p->rows.size(), 1u);
  EXPECT_TRUE(p->rows.front().debt.isAbsent());
  EXPECT_EQ(p->rows.front().years.size(), 2u);
  EXPECT_TRUE(p->rows.front().years[1].netIncome.isAbsent());
  const auto turned = readPeers(
      head + "a,A,EUR,5,EUR,1,2025-01-01,10,,3,2024-12-31,1,2,3\na,A,EUR,5,EUR,1,2025-01-01,10,,3,2023-12-31,4,5,6\n",
      "p");
  ASSERT_TRUE(turned) << turned.error().text();
  EXPECT_EQ(turned->rows.front().years.size(), 1u);
  EXPECT_THAT(turned->warnings, testing::ElementsAre(testing::HasSubstr("line 3: the fiscal years of a must ascend")));
}

TEST(FactTable, CellsThatCrossWhatIsReadAtOnceStayWhole) {
  // A row of 200 KB in cells just under the limit, quoted ones with breaks and separators inside.
  const std::string plain(65000, 'p');
  std::string quoted;
  while (quoted.size() < 60000) quoted += "one, two\n\"\"three\"\"; ";
  const auto rows = readCsvRows(plain + ",\"" + quoted + "\"," + plain + "\nlast,row,here\n", ',', "t");
  ASSERT_TRUE(rows) << rows.error().text();
  ASSERT_EQ(rows->size(), 2u);
  EXPECT_EQ((*rows)[0].cells[0], plain);
  EXPECT_EQ((*rows)[0].cells[1].size(), quoted.size() / 20 * 18) << "of each piece of 20 two marks go";
  EXPECT_EQ((*rows)[0].cells[2], plain);
  EXPECT_EQ((*rows)[1].cells[1], "row");
}

TEST(Peers, MayFileRentAndMoreFigures) {
  const std::string head =
      "peer,name,currency,price,price_currency,minor_per_major,price_date,shares,debt,leases,preferred,minorities,"
      "pension,cash,associates,leases_filed,year_end,revenue,ebitda,net_income,lease_cost,stock_pay,remark\n";
  const auto row = [&](const std::string& filed) {
    return head + "p,Peer,EUR,10,EUR,1,2026-04-30,100,5,6,0,0,0,1,0," + filed + ",2025-12-31,50,9,4,2,,\n";
  };
  const auto rents = readPeers(row("rent"), "t");
  ASSERT_TRUE(rents) << rents.error().text();
  EXPECT_TRUE(rents->rows.front().filesRent);
  EXPECT_DOUBLE_EQ(rents->rows.front().years.front().leaseCost.value(), 2);
  EXPECT_TRUE(rents->rows.front().years.front().stockPay.isAbsent()) << "left empty";
  EXPECT_TRUE(rents->rows.front().years.front().research.isAbsent()) << "no such column";
  EXPECT_FALSE(readPeers(row("debt"), "t")->rows.front().filesRent);
  EXPECT_FALSE(readPeers(row(""), "t")->rows.front().filesRent);
  const auto wrong = readPeers(row("capital"), "t");
  ASSERT_FALSE(wrong);
  EXPECT_THAT(wrong.error().text(), testing::HasSubstr("leases_filed is debt or rent, not 'capital'"));
  EXPECT_THAT(wrong.error().where, testing::HasSubstr("line 2"));
}

TEST(Rates, TheLatestAtTheDateCounts) {
  const auto r =
      readRates("rate,date,figure,source\nspot EUR/GBP,2025-01-01,0.8,x\nspot EUR/GBP,2026-01-01,0.9,x\n", "r");
  ASSERT_TRUE(r);
  EXPECT_DOUBLE_EQ(spotRatesAt(r->rows, makeDate(2025, 6, 1)).at({"EUR", "GBP"}), 0.8);
  EXPECT_TRUE(spotRatesAt(r->rows, makeDate(2024, 6, 1)).empty());
}

TEST(Estimates, KeepTheirDatesAndRefuseWhatCannotBe) {
  const std::string head = "item,year,low,mean,high,count,date,source\n";
  const auto good =
      readEstimates(head + "revenue,2026,,100,,,2026-01-30,a\nrevenue,2026,90,101,,7,2026-04-30,b\n", "e");
  ASSERT_TRUE(good) << good.error().text();
  EXPECT_FALSE(good->rows[0].low.has_value()) << "an empty cell is no zero";
  EXPECT_EQ(good->rows[1].count, 7);
  EXPECT_EQ(latestEstimates(good->rows, makeDate(2026, 2, 1)).front().mean, 100);
  EXPECT_EQ(latestEstimates(good->rows, makeDate(2026, 5, 1)).front().source, "b");
  EXPECT_TRUE(latestEstimates(good->rows, makeDate(2025, 1, 1)).empty());
  const std::pair<const char*, const char*> bad[] = {{"revenue,26,,100,,,2026-01-30,a\n", "no fiscal year"},
                                                     {"revenue,2026,110,100,,,2026-01-30,a\n", "out of order"},
                                                     {"revenue,2026,,100,,-1,2026-01-30,a\n", "no number of analysts"},
                                                     {"revenue,2026,,,,,2026-01-30,a\n", "mean"},
                                                     {",2026,,100,,,2026-01-30,a\n", "item"},
                                                     {"", "no estimates"}};
  for (const auto& [row, why] : bad) {
    const auto refused = readEstimates(head + row, "e.csv");
    ASSERT_FALSE(refused) << row;
    EXPECT_THAT(refused.error().text(), testing::HasSubstr(why));
  }
}

}  // namespace
}  // namespace zl::exchange
