// A day's work without a window, through the command line alone.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <fstream>
#include <functional>
#include <nlohmann/json.hpp>
#include <sstream>

#include "cli/run.h"
#include "tests/support/demo_book.h"
#include "tests/support/files.h"
#include "tests/support/source_folder.h"

namespace zl::cli {
namespace {

using Json = nlohmann::json;

class Batch : public test::DemoBook {
 protected:
  int zledger(const std::vector<std::string>& arguments) {
    std::ostringstream out, err;
    const int status = run(arguments, out, err, test::testDesk());
    out_ = out.str();
    err_ = err.str();
    return status;
  }
  Json json(std::vector<std::string> arguments) {
    arguments.emplace_back("--json");
    EXPECT_EQ(zledger(arguments), 0) << err_;
    return Json::parse(out_);
  }
  double value(const std::string& file, int scenario = 1) {
    return json({"value", file})["scenarios"][static_cast<size_t>(scenario)]["figures"]["value_per_share"]
        .get<double>();
  }
  std::string out_, err_;
};

TEST_F(Batch, ABookOfOneCompanyFromFilingsToValue) {
  const std::string file = folder_.file("new.zledger");
  const std::string demo = test::sourceFolder() + "/demo/";
  std::vector<std::string> arguments{"import", file, "--company", "vessingholt"};
  for (const char* name : {"company.json", "rates.csv", "prices.csv", "peers.csv", "filings/annual-2023.xbrl",
                           "filings/annual-2024.xbrl", "filings/annual-2025.xbrl"}) {
    arguments.push_back(demo + name);
  }
  ASSERT_EQ(zledger(arguments), 0) << err_;
  EXPECT_THAT(out_, testing::HasSubstr("annual-2025.xbrl: XBRL 2.1 instance"));
  EXPECT_GT(value(file), 0) << "presets alone give a first value";
  ASSERT_EQ(zledger({"apply", file, demo + "case.json"}), 0) << err_;
  // Four years of history instead of twelve: the forecast and so the value rest on the last one.
  EXPECT_NEAR(value(file), value(book()), 1e-6 * value(book()));
  ASSERT_EQ(zledger({"undo", file}), 0);
  ASSERT_EQ(zledger({"undo", file}), 1);
  EXPECT_THAT(err_, testing::HasSubstr("nothing to undo"));
}

TEST_F(Batch, EveryFigureOfTheVerdictTracesToItsSources) {
  for (const char* row : {"value_per_share", "upside", "buy_below", "enterprise_value", "net_debt_dated"}) {
    const Json trace = json({"trace", book(), row, "--depth", "4"});
    EXPECT_EQ(trace["row"], row);
    EXPECT_EQ(trace["source"], "derived");
    EXPECT_FALSE(trace["formula"].get<std::string>().empty());
    EXPECT_GE(trace["inputs"].size(), 1u) << row;
  }
  const Json filed = json({"trace", book(), "capex", "--year", "2024"});
  EXPECT_EQ(filed["figure"], 32828000);  // 28,889,000 + 4,596,000 - 657,000 as annual-2025.xbrl files them
  EXPECT_THAT(filed["inputs"][0]["from"][0].get<std::string>(), testing::HasSubstr("annual-2025.xbrl"));
}

TEST_F(Batch, TheBasisCommandSaysWhatAChoiceWouldDoToValue) {
  const Json measures = json({"basis", book()});
  for (const Json& m : measures) {
    if (m["row"] != "value_per_share") continue;
    EXPECT_NEAR(m["now"].get<double>(), value(book()), 1e-9);
    EXPECT_GT(m["otherwise"]["Stock pay: added back"].get<double>(), m["now"].get<double>());
    return;
  }
  FAIL() << "value per share is what the choice is about";
}

TEST_F(Batch, StatementsTieInTheOutputItself) {
  for (const char* scenario : {"worst", "base", "best"}) {
    const Json s = json({"statements", book(), "--scenario", scenario});
    std::map<std::string, std::vector<double>> rows;
    for (const Json& row : s["rows"]) {
      for (const Json& f : row["figures"]) rows[row["row"]].push_back(f.is_number() ? f.get<double>() : 0);
    }
    for (size_t c = 1; c < s["periods"].size(); ++c) {
      const auto at = [&](const char* row) { return rows.at(row)[c]; };
      EXPECT_NEAR(at("total_assets"), at("total_liabilities") + at("total_equity"), 1) << scenario << c;
      EXPECT_NEAR(at("cash"), rows.at("cash")[c - 1] + at("net_cash_movement"), 1) << scenario << c;
      EXPECT_NEAR(at("gross_profit"), at("revenue") - at("cost_of_sales"), 1) << scenario << c;
      EXPECT_NEAR(at("net_income"), at("pretax_profit") - at("tax"), 1) << scenario << c;
    }
  }
}

TEST_F(Batch, FactsCarryTheirPlaceInTheFile) {
  // The line a fact names is the line of the file on which it stands.
  const Json facts = json({"facts", book()});
  int checked = 0;
  for (const Json& fact : facts) {
    if (fact["document"] != "annual-2021.xbrl" || fact["concept"] != "ifrs-full:Revenue") continue;
    const int line = std::stoi(fact["place"].get<std::string>().substr(5));
    std::istringstream text(test::demoFile("filings/annual-2021.xbrl"));
    std::string content;
    for (int i = 0; i < line; ++i) std::getline(text, content);
    EXPECT_THAT(content, testing::HasSubstr(">" + fact["value"].get<std::string>() + "</ifrs-full:Revenue>"));
    ++checked;
  }
  EXPECT_EQ(checked, 8) << "this year, the year before, two businesses and four regions";
}

TEST_F(Batch, TheReviewIsPrintedAsThePageShowsIt) {
  const Json tests = json({"review", book()});
  int looks = 0;
  for (const Json& test : tests) {
    EXPECT_TRUE(test.at("figure").is_number() || test.at("figure").is_object());
    looks += test.at("holds").is_boolean() && !test.at("holds").get<bool>() ? 1 : 0;
    if (test.at("test") == "cover") {
      // EBIT of 2.0 over interest of 12.3 million, as filed for 2025.
      EXPECT_NEAR(test.at("figure").get<double>(), 2.0 / 12.3, 0.01);
      EXPECT_EQ(test.at("holds"), false);
    }
  }
  EXPECT_GT(looks, 3);
  ASSERT_EQ(zledger({"review", book()}), 0);
  EXPECT_THAT(out_, testing::HasSubstr("Resilience,EBIT over gross interest,interest_cover,last,1,"));
}

TEST_F(Batch, JournalTellsWhoDidWhatWhen) {
  ASSERT_EQ(zledger({"undo", book()}), 0);
  ASSERT_EQ(zledger({"journal", book()}), 0);
  EXPECT_THAT(out_, testing::HasSubstr("2026-05-01T12:00:00Z  tester  Import 26 files\n"));
  EXPECT_THAT(out_, testing::HasSubstr("Apply case.json  (undone)"));
}

TEST_F(Batch, CasesThatDoNotFitAreRefusedAndNothingChanges) {
  Json exported = json({"export", book()});
  const double before = value(book());
  const auto refuse = [&](const std::function<void(Json&)>& change, const char* message) {
    Json changed = exported;
    change(changed);
    std::ofstream(folder_.file("bad.json")) << changed.dump();
    EXPECT_EQ(zledger({"apply", book(), folder_.file("bad.json")}), 1) << message;
    EXPECT_THAT(err_, testing::HasSubstr(message));
    EXPECT_DOUBLE_EQ(value(book()), before);
  };
  refuse([](Json& j) { j["company"] = "other"; }, "the case is of 'other', the open company is 'vessingholt'");
  refuse([](Json& j) { j["model"] = "bank"; }, "there is no model 'bank'");
  refuse([](Json& j) { j["horizon"] = 40; }, "the horizon is 40 years; it can be 3 to 15");
  refuse([](Json& j) { j["scenarios"].erase(1); }, "there is no scenario 'base'");
  refuse([](Json& j) { j["scenarios"][1]["drivers"]["beta"]["path"]["level"] = 99; },
         "99 is outside the allowed range -1 to 5");
  refuse([](Json& j) { j["scenarios"][1]["drivers"]["gamma"] = j["scenarios"][1]["drivers"]["beta"]; },
         "no model has a driver 'gamma' (Base)");
  refuse([](Json& j) { j["version"] = 100; }, "the case has version 100");
  refuse([](Json& j) { j["scenarios"][1]["probability"] = 0.7; }, "probabilities");
  refuse([](Json& j) { j["scenarios"][1]["inputs"]["terminal_choice"] = {{"figure", 0.5}}; }, "perpetual_growth");
  refuse(
      [](Json& j) {
        j["exceptional_years"].push_back({{"year", 1999}, {"reason", "long ago"}});
      },
      "there is no filed year '1999'");
  refuse(
      [](Json& j) {
        j["peers"]["brackenfield/price-earnings"] = {{"in", false}, {"reason", "odd"}};
      },
      "There are brackenfeld/price-earnings");
  refuse(
      [](Json& j) {
        j["peers"]["brackenfeld/price-nothing"] = {{"in", false}, {"reason", "odd"}};
      },
      "there is no peer's multiple 'brackenfeld/price-nothing'");
  refuse(
      [](Json& j) {
        j["lines"]["ifrs-full:Revenues"] = {{"line", "revenue"}, {"weight", 1}};
      },
      "There are ifrs-full:Revenue,");
}

TEST_F(Batch, EveryCommandExplainsItself) {
  for (const char* command : {"import", "value", "trace", "check", "statements", "facts", "export", "apply", "undo",
                              "redo", "journal", "demo"}) {
    EXPECT_EQ(zledger({command, "--help"}), 0) << command;
    EXPECT_THAT(out_, testing::HasSubstr("BOOK")) << command;
  }
  EXPECT_EQ(zledger({"--help"}), 0);
  EXPECT_EQ(zledger({"value"}), 2) << "a missing argument is wrong usage";
  EXPECT_EQ(zledger({"trace", book(), "revenue", "--depth", "99"}), 2);
}

TEST_F(Batch, ATableIsShownThenCorrectedThenAccepted) {
  const std::string file = folder_.file("table.zledger");
  std::ofstream(folder_.file("t.csv")) << "EUR thousand;2024;2023\nTurnover;1.000;900\nCost of goods sold;(600);(550)\n"
                                          "Odd gains;10;-\nNumber of shares;500;500\n";
  const std::vector<std::string> import{"import", file, "--company", "odd", folder_.file("t.csv")};
  ASSERT_EQ(zledger(import), 0) << err_;
  EXPECT_THAT(out_, testing::HasSubstr("nothing is stored yet"));
  EXPECT_FALSE(std::filesystem::exists(file));
  std::vector<std::string> wrong = import;
  wrong.insert(wrong.end(), {"--line", "Odd gains=nonsense"});
  EXPECT_EQ(zledger(wrong), 1);
  EXPECT_THAT(err_, testing::HasSubstr("'Odd gains=nonsense' names no standard line"));
  std::vector<std::string> accepted = import;
  accepted.insert(accepted.end(),
                  {"--line", "Odd gains=other_income", "--scale", "6", "--currency", "CHF", "--accept"});
  ASSERT_EQ(zledger(accepted), 0) << err_;
  ASSERT_EQ(zledger({"facts", file}), 0) << err_;
  EXPECT_THAT(out_, testing::HasSubstr("label:Odd gains,other_income,2024-01-01/2024-12-31,CHF,10000000"));
  EXPECT_THAT(out_, testing::HasSubstr("t.csv,cell B2"));
  ASSERT_EQ(zledger({"statements", file}), 0);
  EXPECT_THAT(out_, testing::HasSubstr("cost_of_sales,\"Cost of sales\",CHF,550000000,600000000"));
  ASSERT_EQ(zledger({"statements", file, "--basis", "quarters"}), 0);
  EXPECT_EQ(out_, "row,label,unit\n") << "no interim report, no quarter";
}

TEST_F(Batch, ConceptsMoveAndRestatementsChoose) {
  const auto receivables = [&] {
    ASSERT_EQ(zledger({"trace", book(), "receivables", "--year", "2025", "--depth", "0"}), 0) << err_;
  };
  receivables();
  const std::string before = out_;
  ASSERT_EQ(zledger({"map", book(), "vsh:OrderBacklog=receivables", "--reason", "ordered is owed"}), 0) << err_;
  receivables();
  EXPECT_NE(out_, before);
  ASSERT_EQ(zledger({"undo", book()}), 0);
  receivables();
  EXPECT_EQ(out_, before);
  EXPECT_EQ(zledger({"map", book(), "vsh:OrderBacklogs=receivables"}), 1);
  EXPECT_THAT(err_, testing::HasSubstr("There are vsh:OrderBacklog,"));
  EXPECT_EQ(zledger({"map", book(), "vsh:OrderBacklog"}), 1);
  EXPECT_THAT(err_, testing::HasSubstr("names no standard line"));

  const Json list = json({"restatements", book()});
  ASSERT_GT(list.size(), 3u);
  for (const Json& r : list) EXPECT_EQ(r["in_use"], "last");
  ASSERT_EQ(zledger({"restatements", book(), "--use", "first"}), 0) << err_;
  for (const Json& r : json({"restatements", book()})) EXPECT_EQ(r["in_use"], "first");
  ASSERT_EQ(zledger({"restatements", book(), "--use", "last"}), 0) << err_;
  ASSERT_EQ(zledger({"restatements", book(), "--use", "first", "--line", "tax"}), 0) << err_;
  for (const Json& r : json({"restatements", book()})) EXPECT_EQ(r["in_use"], r["line"] == "tax" ? "first" : "last");
  ASSERT_EQ(zledger({"restatements", book()}), 0);
  EXPECT_THAT(out_, testing::HasSubstr("ifrs-full:Revenue,revenue,2022-01-01/2022-12-31,EUR,"));
  EXPECT_NE(zledger({"restatements", book(), "--use", "middle"}), 0);
}

}  // namespace
}  // namespace zl::cli
