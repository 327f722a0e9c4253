// Everyday edits as commands, on a stranger: from a table of statements to a value with peers, and no other file.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <nlohmann/json.hpp>
#include <sstream>

#include "cli/run.h"
#include "tests/support/demo_book.h"
#include "tests/support/source_folder.h"
#include "tests/support/temporary_folder.h"

namespace zl::cli {
namespace {

using testing::HasSubstr;

class Verbs : public testing::Test {
 protected:
  void SetUp() override {
    ASSERT_EQ(
        run("import", {"--company", "norr", test::sourceFolder() + "/tests/corpus/filers/norrvale.csv", "--accept"}),
        "");
  }
  /// What went wrong, empty where nothing did; what was printed is kept.
  std::string run(const std::string& verb, std::vector<std::string> arguments) {
    arguments.insert(arguments.begin(), {verb, folder_.file("b.zledger")});
    std::ostringstream out, err;
    status_ = zl::cli::run(arguments, out, err, test::testDesk());
    out_ = out.str();
    return status_ == 0 ? "" : err.str();
  }
  nlohmann::json json(const std::string& verb) {
    EXPECT_EQ(run(verb, {"--json"}), "");
    return nlohmann::json::parse(out_);
  }
  /// A figure of 'figures': by page, row, column, scenario.
  double figure(const std::string& row, const std::string& column, const std::string& scenario) {
    for (const auto& f : json("figures")) {
      const bool table = f["table"] == "model";
      if (table && f["row"] == row && f["column"] == column && f["scenario"] == scenario && f["figure"].is_number())
        return f["figure"].get<double>();
    }
    return std::nan("");
  }

  test::TemporaryFolder folder_;
  std::string out_;
  int status_ = 0;
};

TEST_F(Verbs, FromStatementsToAValueWithPeersWithoutAnotherFile) {
  EXPECT_EQ(json("value")["still_needed"][0]["what"], "the price in USD");
  EXPECT_EQ(run("value", {}), "");
  EXPECT_THAT(out_, HasSubstr("still needed, in this order:\n  the price in USD ("));
  EXPECT_THAT(out_, HasSubstr("): zledger price BOOK FIGURE\n"));
  EXPECT_THAT(out_, HasSubstr("no peers yet")) << "and not a line for every multiple";
  EXPECT_EQ(run("company", {"name", "Norrvale Instruments", "--reason", "cover page"}), "");
  EXPECT_EQ(run("price", {"55.2", "--reason", "close"}), "");
  EXPECT_EQ(run("rate", {"risk-free USD", "4.1%", "--reason", "yield of ten years"}), "");
  EXPECT_EQ(run("peer", {"Calder Mills", "--price", "31", "--shares", "220m", "--revenue", "4.2bn", "--ebitda", "610m",
                         "--net-income", "290m", "--debt", "900m", "--cash", "200m"}),
            "");
  EXPECT_EQ(run("peer", {"Calder Mills", "--price", "32"}), "");
  EXPECT_EQ(run("estimate", {"revenue", "2026", "9.9bn", "--low", "9.6bn", "--count", "7"}), "");
  const auto value = json("value");
  EXPECT_EQ(value["company"], "norr");
  EXPECT_EQ(value["price"], 55.2);
  EXPECT_TRUE(value["still_needed"].empty());
  // 32 x 220 m over 290 m.
  EXPECT_NEAR(value["cross_check"]["price-earnings"]["median"].get<double>(), 32.0 * 220 / 290, 1e-9);
  const auto market = json("market");
  EXPECT_EQ(market["rates"][0]["figure"], 0.041);
  EXPECT_EQ(market["peers"][0]["years"][0]["revenue"], 4.2e9) << "a later price takes nothing else away";
  EXPECT_EQ(market["estimates"][0]["low"], 9.6e9);
  EXPECT_EQ(run("company", {"--json"}), "");
  EXPECT_THAT(out_, HasSubstr("\"reason\": \"cover page\""));
}

TEST_F(Verbs, CapitalAndCashAreTheModelsFigures) {
  EXPECT_EQ(run("price", {"55.2"}), "");
  EXPECT_EQ(run("rate", {"spread from cover 3", "1.5%"}), "");
  const auto find = [&](const nlohmann::json& report, const char* table, const std::string& row, const char* scenario,
                        const char* period) {
    for (const auto& f : report["figures"]) {
      const bool same = f["table"] == table && f.value("row", f.value("label", "")) == row &&
                        f["scenario"] == scenario && f.value("period", "") == period;
      if (same && f["figure"].is_number()) return f["figure"].get<double>();
    }
    return std::nan("");
  };
  const auto capital = json("capital");
  EXPECT_EQ(find(capital, "rate, first year", "wacc", "base", ""), figure("wacc", "2026E", "base"));
  EXPECT_EQ(find(capital, "rate by year", "wacc", "worst", "2030E"), figure("wacc", "2030E", "worst"));
  const auto cash = json("cash");
  EXPECT_EQ(find(cash, "walk to a share", "value_per_share", "best", ""),
            json("value")["scenarios"][2]["figures"]["value_per_share"].get<double>());
  EXPECT_NEAR(find(cash, "economic profit", "economic_profit_gap", "base", ""), 0, 1);
  EXPECT_EQ(run("cash", {"--csv"}), "");
  EXPECT_THAT(out_, testing::StartsWith("table,row,label,period,scenario,figure,why,source\n"));
  EXPECT_EQ(run("capital", {}), "");
  EXPECT_THAT(out_, HasSubstr("there is no index in the book")) << "what is missing is told with how to give it";
  EXPECT_THAT(out_, HasSubstr("synthetic, from interest cover, %        n.m.  no interest"));
  EXPECT_NE(run("capital", {"--scenario", "middling"}), "");
}

TEST_F(Verbs, PeersExitPastAndDividendsInThreeForms) {
  EXPECT_EQ(run("price", {"55.2"}), "");
  for (const char* report : {"peers", "multiples", "past", "exit", "dividends", "parts"}) {
    EXPECT_EQ(run(report, {}), "") << report;
    const auto told = json(report);
    EXPECT_EQ(told["company"], "norr") << report;
    EXPECT_GT(told["figures"].size(), report == std::string("parts") ? 5u : 10u) << report;
    EXPECT_EQ(run(report, {"--csv"}), "");
    EXPECT_THAT(out_, testing::StartsWith("table,row,label,period,scenario,figure,why,source\n")) << report;
  }
  EXPECT_EQ(run("exit", {}), "");
  EXPECT_THAT(out_, HasSubstr("Price to pay for the required return"));
  EXPECT_EQ(run("past", {}), "");
  EXPECT_THAT(out_, HasSubstr("1 month counts")) << "one price is one month";
}

TEST_F(Verbs, SetsOfPeersAndWhatIsNone) {
  EXPECT_EQ(run("price", {"55.2"}), "");
  EXPECT_EQ(run("peer", {"Calder Mills", "--price", "32", "--shares", "290m", "--net-income", "220m"}), "");
  EXPECT_EQ(run("peer", {"Orvane Works", "--price", "10", "--shares", "100m", "--net-income", "50m"}), "");
  EXPECT_NEAR(json("value")["cross_check"]["price-earnings"]["median"].get<double>(), (32.0 * 290 / 220 + 20) / 2,
              1e-9);
  EXPECT_EQ(run("peer-set", {"mills", "--members", "calder-mills", "--use"}), "");
  EXPECT_THAT(out_, HasSubstr("* mills: calder-mills"));
  EXPECT_NEAR(json("value")["cross_check"]["price-earnings"]["median"].get<double>(), 32.0 * 290 / 220, 1e-9);
  EXPECT_THAT(run("peer-set", {"works", "--members", "nobody"}), HasSubstr("there is no peer 'nobody'"));
  EXPECT_THAT(run("peer-set", {"works", "--use"}), HasSubstr("there is no set 'works'"));
  EXPECT_EQ(run("peer-set", {"--all"}), "");
  EXPECT_THAT(out_, HasSubstr("* all candidates"));
  EXPECT_THAT(run("book-peer", {"nobody"}), HasSubstr("the book has no company 'nobody'"));
  EXPECT_THAT(run("part", {"Mills", "9"}), HasSubstr("there is no part 'Mills'"));
}

TEST_F(Verbs, MultiplesOfOnesOwnSharedSetsAndRunsKept) {
  EXPECT_EQ(run("price", {"55.2"}), "");
  EXPECT_EQ(run("peer", {"Calder Mills", "--price", "32", "--shares", "290m", "--net-income", "220m"}), "");
  EXPECT_EQ(run("multiple", {"receivables", "--reason", "what is owed"}), "");
  EXPECT_THAT(out_, HasSubstr("* price-receivables: Price to trade receivables"));
  EXPECT_EQ(run("peer", {"Calder Mills", "--figure", "receivables=464m"}), "");
  EXPECT_NEAR(json("value")["cross_check"]["price-receivables"]["median"].get<double>(), 20, 1e-9) << "32 x 290 / 464";
  EXPECT_THAT(run("peer", {"Calder Mills", "--figure", "plant=4m"}), HasSubstr("no multiple is of 'plant'"));
  EXPECT_THAT(run("multiple", {"nothing"}), HasSubstr("no row 'nothing'"));
  EXPECT_THAT(run("multiple", {"--show", "price-nothing"}), HasSubstr("no multiple 'price-nothing'"));
  EXPECT_EQ(run("multiple", {"--show", "ev-sales,price-receivables"}), "");
  EXPECT_THAT(out_, HasSubstr("  price-earnings: "));
  EXPECT_THAT(out_, HasSubstr("* ev-sales: "));
  EXPECT_EQ(run("multiple", {"receivables", "--drop"}), "");
  EXPECT_THAT(out_, testing::Not(HasSubstr("price-receivables")));
  // Two companies of a book: which one is meant is asked, until it has been said.
  EXPECT_EQ(
      run("import", {"--company", "varr", test::sourceFolder() + "/tests/corpus/filers/norrvale.csv", "--accept"}), "");
  EXPECT_THAT(run("price", {}), HasSubstr("several companies"));
  EXPECT_THAT(run("home", {"--company", "norr", "--set", "nobody"}), HasSubstr("no company 'nobody'"));
  EXPECT_EQ(run("home", {"--company", "norr", "--set", "norr"}), "");
  EXPECT_EQ(run("home", {}), "");
  EXPECT_EQ(out_, "norr\n");
  EXPECT_EQ(run("peer-set", {"mills", "--members", "calder-mills"}), "");
  EXPECT_EQ(run("peer-set", {"--company", "varr", "--of-book"}), "");
  EXPECT_EQ(out_, "mills --of norr\n");
  EXPECT_EQ(run("peer-set", {"mills", "--company", "varr", "--of", "norr", "--use"}), "");
  EXPECT_THAT(out_, HasSubstr("* norr/mills, shared: calder-mills"));
  EXPECT_EQ(run("peer-set", {"mills", "--company", "varr", "--of", "norr", "--drop"}), "");
  EXPECT_THAT(out_, testing::Not(HasSubstr("shared")));
  EXPECT_EQ(run("versions", {"--keep", "first run"}), "");
  EXPECT_EQ(run("set", {"exit_return_multiple", "20; 18"}), "");
  EXPECT_EQ(run("exit-runs", {}), "");
  EXPECT_THAT(out_, HasSubstr("Multiple in the exit year:  now 18.00  first run 14.00")) << out_;
}

TEST_F(Verbs, DriversInputsAndYears) {
  EXPECT_EQ(run("set", {"revenue_growth", "7%; 6%; 5%", "--reason", "orders"}), "");
  EXPECT_EQ(run("set", {"revenue_growth", "2%", "--shape", "glide", "--by", "5", "--scenario", "worst"}), "");
  EXPECT_EQ(run("set", {"revenue_growth", "4%", "--year", "2028"}), "");
  EXPECT_NEAR(figure("revenue_growth", "2026E", "base"), 0.07, 1e-12);
  EXPECT_NEAR(figure("revenue_growth", "2028E", "base"), 0.04, 1e-12);
  EXPECT_NEAR(figure("revenue_growth", "2030E", "worst"), 0.02, 1e-12);
  EXPECT_EQ(run("adjust", {"tax", "2025", "480", "--reason", "one-off"}), "");
  EXPECT_EQ(figure("tax", "2025", ""), 480e6);
  EXPECT_EQ(run("adjust", {"tax", "2025", "--off"}), "");
  EXPECT_EQ(figure("tax", "2025", ""), 512e6) << "as filed";
  EXPECT_EQ(run("choose", {"terminal_rule", "value_driver", "--scenario", "best"}), "");
  EXPECT_EQ(run("probability", {"worst=30%", "best=20%"}), "");
  EXPECT_EQ(run("flag", {"2024", "--reason", "strike"}), "");
  EXPECT_EQ(run("note", {"revenue", "see orders"}), "");
  EXPECT_EQ(run("note", {}), "");
  EXPECT_EQ(out_, "revenue: see orders\n");
  EXPECT_EQ(run("set", {"revenue_growth", "--default"}), "");
  EXPECT_EQ(run("check", {}), "");
}

TEST_F(Verbs, TheRecordInFieldsAndLists) {
  EXPECT_EQ(run("company", {"shares", "610m", "--reason", "register"}), "");
  EXPECT_EQ(run("trace", {"shares_now"}), "");
  EXPECT_THAT(out_, HasSubstr("register")) << "why it is so is told where it is used";
  EXPECT_EQ(run("company", {"debt_due", "--add", "2028;350m;no;bond;4.5%"}), "");
  EXPECT_EQ(run("company", {"debt_due", "--add", "2027;120m;yes;loan;"}), "");
  EXPECT_EQ(run("company", {"debt_due"}), "");
  EXPECT_EQ(out_, "2028;350000000;no;bond;4.5%\n2027;120000000;yes;loan;\n");
  EXPECT_EQ(run("company", {"operating_figures", "--add", "Instruments sold;pieces;2025;1200"}), "");
  EXPECT_EQ(run("listing", {"--add", "GBX;GBP;100;0.5"}), "");
  EXPECT_EQ(run("rate", {"spot USD/GBP", "0.8"}), "");
  EXPECT_EQ(run("price", {"50"}), "");
  const auto listings = json("market")["listings"];
  ASSERT_EQ(listings.size(), 2u);
  EXPECT_NEAR(listings[1]["price"].get<double>(), 50 * 0.8 * 100 * 0.5, 1e-9) << "two receipts make a share";
  EXPECT_EQ(run("listing", {"--value", "GBX"}), "");
  EXPECT_NEAR(json("value")["price"].get<double>(), 2000, 1e-9) << "the dollar price, at the day's rate";
  EXPECT_EQ(run("undo", {}), "");
  EXPECT_EQ(json("value")["price"], 50.0);
}

TEST_F(Verbs, WhatCannotBeIsRefusedWithWhatToDo) {
  const std::tuple<const char*, std::vector<std::string>, const char*> kCases[] = {
      {"set", {"revenue_grwth", "4%"}, "There are revenue_growth"},
      {"set", {"revenue_growth", "four"}, "holds no figures"},
      {"set", {"revenue_growth"}, "no figure is given"},
      {"set", {"revenue_growth", "4%", "--year", "1999"}, "2026 to 2035"},
      {"set", {"revenue_growth", "4%;5%", "--shape", "glide"}, "takes one figure"},
      {"choose", {"terminal_rule", "magic"}, "There are"},
      {"flag", {"1999", "--reason", "x"}, "There are 2023 to 2025"},
      {"flag", {"2024"}, "has its reason"},
      {"adjust", {"tax", "2031", "4", "--reason", "x"}, "no filed figure"},
      {"adjust", {"tax", "2025", "4"}, "has its reason"},
      {"probability", {"worst=20%"}, "would sum to 0.95"},
      {"probability", {"worst=120%"}, "no probability"},
      {"note", {"nowhere", "x"}, "no row 'nowhere'"},
      {"company", {"kountry", "US"}, "There are country"},
      {"company", {"country", "usa"}, "two capital letters"},
      {"company", {"shares", "abc"}, "is no number"},
      {"company", {"shares", "601"}, "601,400,000 are filed"},
      {"company", {"currency", "SEK"}, "what is filed is in USD"},
      {"company", {"splits", "--add", "2025-13-01;2;1"}, "Splits, row 1"},
      {"company", {"splits", "--add", "2025-12-01;2"}, "For is missing"},
      {"company", {"name", ""}, "a company has a name"},
      {"listing", {"--value", "NOK"}, "there is no further listing"},
      {"price", {"x"}, "is no price"},
      {"price", {"-4"}, "Nothing was changed"},
      {"rate", {"risk-free USD", "x"}, "is no number"},
      {"rate", {"risk-free USD", "4%", "--date", "soon"}, "is no date"},
      {"peer", {"Nobody"}, "nothing is said of the peer"},
      {"peer", {"Nobody", "--shares", "many"}, "is no number"},
      {"estimate", {"revenoo", "2026", "4"}, "no row 'revenoo'"},
      {"estimate", {"revenue", "2026", "x"}, "is no number"}};
  const auto before = json("value");
  for (const auto& [verb, arguments, why] : kCases) {
    EXPECT_THAT(run(verb, arguments), HasSubstr(why)) << verb << " " << arguments.front();
  }
  EXPECT_EQ(json("value"), before) << "and nothing was changed";
}

TEST_F(Verbs, CheckEndsWithOneWhereAnythingIsAFault) {
  EXPECT_EQ(run("check", {}), "");
  // Without its inventories the assets no longer add up.
  EXPECT_EQ(run("map", {"label:Inventories=", "--reason", "try"}), "");
  run("check", {});
  EXPECT_THAT(out_, HasSubstr("fault")) << "a tie fails";
  EXPECT_EQ(status_, 1);
}

}  // namespace
}  // namespace zl::cli
