// The command line in process: what it prints, and its exit status.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <fstream>
#include <nlohmann/json.hpp>
#include <sstream>

#include "cli/run.h"
#include "core/text/utf8.h"
#include "tests/support/demo_book.h"
#include "tests/support/files.h"
#include "tests/support/next_year.h"
#include "tests/support/temporary_folder.h"

namespace zl::cli {
namespace {

struct Outcome {
  int status;
  std::string out, err;
};

Outcome zledger(const std::vector<std::string>& arguments) {
  std::ostringstream out, err;
  const int status = run(arguments, out, err, test::testDesk());
  return {status, out.str(), err.str()};
}

class Cli : public test::DemoBook {};

TEST_F(Cli, PrintsValuesAsTextAndAsJson) {
  const Outcome text = zledger({"value", book()});
  EXPECT_EQ(text.status, 0) << text.err;
  EXPECT_THAT(text.out, testing::HasSubstr("price 742.0 (close of 2026-04-30, GBX)"));
  const Outcome json = zledger({"value", book(), "--json"});
  const auto j = nlohmann::json::parse(json.out);
  EXPECT_EQ(j["price"], 742.0);
  ASSERT_EQ(j["scenarios"].size(), 3u);
  for (const auto& s : j["scenarios"]) EXPECT_GT(s["figures"]["value_per_share"].get<double>(), 0);
  EXPECT_EQ(j["cross_check"]["price-earnings"]["implied_per_share"]["median"]["not_meaningful"],
            "the subject's earnings are not positive");
}

TEST_F(Cli, TracesChecksAndLists) {
  EXPECT_THAT(zledger({"trace", book(), "revenue", "--year", "2025"}).out,
              testing::HasSubstr("annual-2025.xbrl, line"));
  EXPECT_THAT(zledger({"check", book()}).out, testing::HasSubstr("negative base year"));
  EXPECT_THAT(zledger({"statements", book(), "--scenario", "worst"}).out,
              testing::HasSubstr("revenue,\"Revenue\",EUR,412000000"));
  EXPECT_THAT(zledger({"facts", book()}).out, testing::HasSubstr("vsh:OrderBacklog"));
  const auto facts = nlohmann::json::parse(zledger({"facts", book(), "--json"}).out);
  EXPECT_GT(facts.size(), 1000u);
  EXPECT_THAT(zledger({"journal", book()}).out, testing::HasSubstr("Import 26 files"));
}

TEST(CliStranger, ATableAloneIsReadCorrectedValuedAndDecided) {
  const test::TemporaryFolder folder;
  const std::string table = folder.file("t.csv"), book = folder.file("s.zledger");
  std::ofstream(table)
      << "USD m;2024;2023;Prior year\nSales;1000;950;900\nOperating expenses;880;840;800\n"
         "EBIT;120;110;100\nCash;100;90;80\nPlant and equipment;400;380;360\nTotal assets;500;470;440\n"
         "Debt;200;190;180\nTotal equity;300;280;260\nShares outstanding (m);10;10;10\n";
  const auto with = [&](std::vector<std::string> more) {
    std::vector<std::string> all{"import", book, table, "--company", "s"};
    all.insert(all.end(), more.begin(), more.end());
    return zledger(all);
  };
  EXPECT_THAT(with({}).out + with({}).err, testing::HasSubstr("the column 'Prior year' is left out"));
  EXPECT_THAT(with({"--period", "Other=2022"}).err, testing::HasSubstr("There are: '2024', '2023', 'Prior year'"));
  EXPECT_THAT(with({"--period", "Prior year=soon"}).err, testing::HasSubstr("'soon' is no period"));
  EXPECT_THAT(with({"--period", "nothing"}).err, testing::HasSubstr("names no column"));
  const Outcome in = with({"--period", "Prior year=12 to 2022-12-31", "--accept"});
  ASSERT_EQ(in.status, 0) << in.err;
  EXPECT_THAT(zledger({"statements", book}).out, testing::HasSubstr("revenue,\"Revenue\",USD,900000000,950000000"));
  const auto value = nlohmann::json::parse(zledger({"value", book, "--json"}).out);
  EXPECT_GT(value["scenarios"][1]["figures"]["value_per_share"].get<double>(), 0);
  const auto open = nlohmann::json::parse(zledger({"decide", book, "--json"}).out);
  EXPECT_EQ(open["unit"], "USD");
  EXPECT_EQ(open["undecided"][0]["from"], "placeholder");
  EXPECT_THAT(zledger({"decide", book, "beta"}).err, testing::HasSubstr("a decision has a reason"));
  EXPECT_THAT(zledger({"decide", book, "revenue", "--reason", "x"}).err, testing::HasSubstr("nothing that waits"));
  ASSERT_EQ(zledger({"decide", book, "beta", "--reason", "as the market"}).status, 0);
  const auto left = nlohmann::json::parse(zledger({"decide", book, "--json"}).out);
  EXPECT_EQ(left["undecided"].size() + 1, open["undecided"].size());
  EXPECT_THAT(zledger({"decide", book}).out, testing::Not(testing::HasSubstr("  beta ")));
}

TEST_F(Cli, ExportAppliesBackAndUndoes) {
  const Outcome exported = zledger({"export", book(), "--json"});
  ASSERT_EQ(exported.status, 0);
  auto changed = nlohmann::json::parse(exported.out);
  changed["horizon"] = 6;
  std::ofstream(folder_.file("case.json")) << changed.dump();
  ASSERT_EQ(zledger({"apply", book(), folder_.file("case.json")}).status, 0);
  auto again = nlohmann::json::parse(zledger({"export", book(), "--json"}).out);
  again["stands_on"] = changed["stands_on"];  // the entry it was exported at is another one now
  EXPECT_EQ(again, changed);
  std::ofstream(folder_.file("old.json")) << exported.out;
  const Outcome stale = zledger({"apply", book(), folder_.file("old.json")});
  EXPECT_EQ(stale.status, 1);
  EXPECT_THAT(stale.err, testing::HasSubstr("1 edit was made since this file was exported"));
  EXPECT_EQ(zledger({"apply", book(), folder_.file("old.json"), "--over"}).status, 0);
  EXPECT_EQ(zledger({"undo", book()}).status, 0);
  EXPECT_THAT(zledger({"undo", book()}).out, testing::HasSubstr("undone: Apply case.json"));
  EXPECT_EQ(zledger({"export", book(), "--json"}).out, exported.out);
  EXPECT_EQ(zledger({"redo", book()}).status, 0);
}

TEST_F(Cli, KeepsComparesAndWalksVersions) {
  EXPECT_EQ(zledger({"versions", book(), "--keep", "start", "--note", "as demoed"}).status, 0);
  auto changed = nlohmann::json::parse(zledger({"export", book(), "--json"}).out);
  changed["scenarios"][1]["inputs"]["terminal_growth"] = {{"figure", 0.015}};
  std::ofstream(folder_.file("case.json")) << changed.dump();
  ASSERT_EQ(zledger({"apply", book(), folder_.file("case.json")}).status, 0);
  const auto list = nlohmann::json::parse(zledger({"versions", book(), "--json"}).out);
  EXPECT_EQ(list[0]["note"], "as demoed");
  EXPECT_THAT(zledger({"compare", book(), "start", "now"}).out, testing::HasSubstr("Terminal growth, % (Base)"));
  const auto walk = nlohmann::json::parse(zledger({"walk", book(), "start", "now", "--json"}).out);
  ASSERT_EQ(walk["steps"].size(), 1u);
  EXPECT_NEAR(walk["steps"][0]["effect"].get<double>(),
              walk["to"]["raw_value"].get<double>() - walk["from"]["raw_value"].get<double>(), 1e-9);
  EXPECT_THAT(zledger({"walk", book(), "start", "now", "--weighted"}).out, testing::HasSubstr("Valuation choices"));
  EXPECT_EQ(zledger({"restore", book(), "start"}).status, 0);
  EXPECT_THAT(zledger({"compare", book(), "start", "now"}).out, testing::HasSubstr("Assumptions: all the same"));
  EXPECT_EQ(zledger({"versions", book(), "--drop", "start"}).status, 0);
  EXPECT_EQ(zledger({"versions", book()}).out, "");
}

TEST_F(Cli, LooksAtTheOutlookFromItsSides) {
  EXPECT_THAT(zledger({"scenarios", book()}).out, testing::HasSubstr("As last year"));
  const auto scenarios = nlohmann::json::parse(zledger({"scenarios", book(), "--json"}).out);
  EXPECT_TRUE(scenarios["reference_values"].contains("Own average"));
  EXPECT_THAT(zledger({"caution", book()}).out, testing::HasSubstr("All together"));
  EXPECT_TRUE(nlohmann::json::parse(zledger({"caution", book(), "--json"}).out)["together"].is_number());
  EXPECT_EQ(zledger({"roll", book()}).out, "no year has been filed since 2025\n");
  EXPECT_EQ(zledger({"acknowledge", book(), "negative base year", "--reason", "the recall"}).status, 0);
  EXPECT_THAT(zledger({"check", book()}).out, testing::HasSubstr("(acknowledged: the recall)"));
}

TEST_F(Cli, SwitchesModelsAndKeepsOwnRows) {
  EXPECT_THAT(zledger({"model", book()}).out, testing::HasSubstr("* standard"));
  ASSERT_EQ(zledger({"model", book(), "quick"}).status, 0);
  EXPECT_THAT(zledger({"model", book()}).out, testing::HasSubstr("* quick"));
  EXPECT_THAT(zledger({"trace", book(), "fcff", "--year", "2026"}).out, testing::HasSubstr("nopat - reinvestment"));
  ASSERT_EQ(zledger({"undo", book()}).status, 0);
  std::ofstream(folder_.file("rows.model")) << "row orders \"Orders\" money flow\n  forecast revenue * 1.1\n";
  std::ofstream(folder_.file("bad.model")) << "row orders \"Orders\" money flow\n  forecast nowhere\n";
  EXPECT_THAT(zledger({"rows", book(), "--try", folder_.file("rows.model")}).out, testing::HasSubstr("adds    orders"));
  EXPECT_EQ(zledger({"rows", book()}).out, "") << "trying stores nothing";
  EXPECT_THAT(zledger({"rows", book(), "--set", folder_.file("bad.model")}).err,
              testing::HasSubstr("own rows, line 2, column 12"));
  ASSERT_EQ(zledger({"rows", book(), "--set", folder_.file("rows.model"), "--reason", "backlog"}).status, 0);
  EXPECT_THAT(zledger({"trace", book(), "orders", "--year", "2026"}).out,
              testing::HasSubstr("by the own rows, assumed"));
  EXPECT_THAT(zledger({"rows", book(), "--build", "list"}).out, testing::HasSubstr("Debt by tranche"));
  const Outcome built = zledger({"rows", book(), "--build", "Debt by tranche", "--json"});
  EXPECT_EQ(nlohmann::json::parse(built.out)["would_break"].size(), 0u);
  EXPECT_THAT(zledger({"rows", book()}).out,
              testing::AllOf(testing::HasSubstr("orders"), testing::HasSubstr("tranche_1")));
  EXPECT_EQ(zledger({"rows", book(), "--drop"}).status, 0);
  EXPECT_EQ(zledger({"rows", book()}).out, "");
}

TEST_F(Cli, FreezesEstimatesAndHoldsThemAgainstToday) {
  ASSERT_EQ(zledger({"publish", book(), "Spring", "--note", "initiation"}).status, 0);
  EXPECT_THAT(zledger({"publish", book()}).out, testing::HasSubstr("Spring  2026-05-01T12:00:00Z  tester  initiation"));
  EXPECT_THAT(zledger({"publish", book(), "--compare", "Spring"}).out, testing::HasSubstr("715.0 to 735.0"));
  const auto lines = nlohmann::json::parse(zledger({"publish", book(), "--compare", "Spring", "--json"}).out);
  EXPECT_EQ(lines[1]["change"], 0);
  EXPECT_EQ(zledger({"publish", book(), "--withdraw", "Spring"}).status, 0);
  EXPECT_EQ(zledger({"roll", book(), "--interim"}).out, "no interim report of 2026 has been filed\n");
}

TEST_F(Cli, ComparesANewYearAndRollsForward) {
  const auto resources = services::Resources::load();
  ASSERT_TRUE(resources);
  const auto session = services::Session::open(book(), "", *resources, test::testDesk());
  ASSERT_TRUE(session);
  std::ofstream(folder_.file("annual-2026.csv")) << test::nextYear(*(*session)->now(), 1.1);
  ASSERT_EQ(zledger({"import", book(), "--company", "vessingholt", folder_.file("annual-2026.csv")}).status, 0);
  EXPECT_THAT(zledger({"check", book()}).out, testing::HasSubstr("newer year filed"));
  const auto lines = nlohmann::json::parse(zledger({"roll", book(), "--json"}).out);
  const auto revenue = std::find_if(lines.begin(), lines.end(), [](const auto& l) { return l["row"] == "revenue"; });
  ASSERT_NE(revenue, lines.end());
  EXPECT_NEAR((*revenue)["actual"].get<double>() / (*revenue)["forecast"]["base"].get<double>(), 1.1, 1e-5);
  ASSERT_EQ(zledger({"roll", book(), "--forward"}).status, 0);
  EXPECT_THAT(zledger({"versions", book()}).out, testing::HasSubstr("Before 2026 was filed"));
  EXPECT_THAT(zledger({"walk", book(), "Before 2026 was filed", "now"}).out, testing::HasSubstr("Base year"));
  EXPECT_THAT(zledger({"journal", book(), "--row", "revenue_growth"}).out, testing::HasSubstr("-> typed 3.5, 5.0"));
  EXPECT_THAT(zledger({"statements", book()}).out, testing::HasSubstr("2026,2027E"));
}

TEST_F(Cli, SaysWhatIsWrongOnce) {
  std::filesystem::create_directory(folder_.file("empty"));
  const struct {
    std::vector<std::string> arguments;
    int status;
    const char* message;
  } kCases[] = {
      {{"value", folder_.file("none.zledger")}, 1, "there is no such book"},
      {{"value", book(), "--company", "other"}, 1, "no company 'other'"},
      {{"trace", book(), "no_row"}, 1, "no row 'no_row'"},
      {{"trace", book(), "revenue", "--year", "1990"}, 1, "outside 2014 to 2035E"},
      {{"trace", book(), "revenue", "--scenario", "middling"}, 1, "There are: worst, base, best"},
      {{"import", book(), "--company", "vessingholt", folder_.file("none.xbrl")}, 1, "there is no such file"},
      {{"import", book(), "--company", "vessingholt", folder_.file("empty")}, 1, "the folder holds no files"},
      {{"apply", book(), book()}, 1, "this is the book that is open"},
      {{"demo", book()}, 1, "already a file of this name"},
      {{"walk", book(), "none", "now"}, 1, "there is no version 'none'"},
      {{"versions", book(), "--keep", "now"}, 1, "other than 'now'"},
      {{"roll", book(), "--forward"}, 1, "no year has been filed since 2025"},
      {{"model", book(), "other"}, 1, "There are: standard, quick"},
      {{"rows", book(), "--build", "other"}, 1, "'--build list' names those there are"},
      {{"publish", book(), "--compare", "other"}, 1, "Publish some first"},
      {{"acknowledge", book(), "year", "--reason", "x"}, 1, "several findings hold 'year'"},
      {{"acknowledge", book(), "no such thing", "--reason", "x"}, 1, "'zledger check' lists them"},
      {{"import", book(), "--company", "", folder_.file("empty")}, 1, "cannot be the short name"},
      {{"verify", folder_.file("empty")}, 1, "not a file"},
      {{"backup", folder_.file("none.zledger")}, 1, "there is no such book"},
      {{"nonsense"}, 2, ""},
      {{}, 2, ""},
  };
  for (const auto& c : kCases) {
    const Outcome r = zledger(c.arguments);
    EXPECT_EQ(r.status, c.status) << c.message;
    EXPECT_THAT(r.err, testing::HasSubstr(c.message));
  }
}

TEST_F(Cli, LooksAfterABook) {
  const std::string copy = folder_.file("copy.zledger");
  EXPECT_THAT(zledger({"backup", book(), copy}).out, testing::HasSubstr("copied to"));
  EXPECT_EQ(zledger({"backup", book(), copy}).status, 1) << "nothing is overwritten";
  EXPECT_EQ(zledger({"backup", book()}).status, 0);
  EXPECT_THAT(zledger({"backup", book(), "--list"}).out, testing::HasSubstr("by hand 2026-05-01T12-00-00Z"));
  EXPECT_THAT(zledger({"verify", book()}).out,
              testing::HasSubstr("whole: 33 documents, 1 case, 5 journal entries, 0 versions"));
  EXPECT_EQ(nlohmann::json::parse(zledger({"verify", book(), "--json"}).out)["whole"], true);
  const Outcome rescued = zledger({"rescue", book(), folder_.file("saved.zledger")});
  EXPECT_EQ(rescued.status, 0) << rescued.err;
  EXPECT_EQ(zledger({"value", folder_.file("saved.zledger")}).out, zledger({"value", book()}).out);
  // What was done since the copy is kept where it is put back.
  const std::string before = zledger({"value", book()}).out;
  ASSERT_EQ(zledger({"model", book(), "quick"}).status, 0);
  EXPECT_NE(zledger({"value", book()}).out, before);
  const Outcome back = zledger({"backup", book(), "--back", "by hand 2026-05-01T12-00-00Z"});
  EXPECT_EQ(back.status, 0) << back.err;
  EXPECT_EQ(zledger({"value", book()}).out, before);
  EXPECT_EQ(zledger({"backup", book(), "--back", "none"}).status, 1);
  std::filesystem::resize_file(book(), std::filesystem::file_size(book()) / 2);
  const Outcome damaged = zledger({"verify", book()});
  EXPECT_EQ(damaged.status, 1);
  EXPECT_THAT(damaged.out + damaged.err, testing::HasSubstr("damage"));
}

TEST_F(Cli, OutputThatWasNotWrittenIsAnError) {
  std::ofstream full("/dev/full");
  std::ostringstream err;
  EXPECT_EQ(run({"value", book()}, full, err, test::testDesk()), 1);
  EXPECT_THAT(err.str(), testing::HasSubstr("could not be written"));
  std::ofstream again("/dev/full");
  EXPECT_EQ(run({"--help"}, again, err, test::testDesk()), 1);
}

TEST_F(Cli, NothingOutOfAFileSteersTheTerminal) {
  std::string record = test::demoFile("company.json");
  const std::string name = "Vessingholt N.V.";
  record.replace(record.find(name), name.size(), "A\\u001b[2J\\u202e\\u009bB");
  std::ofstream(folder_.file("company.json")) << record;
  ASSERT_EQ(zledger({"import", book(), "--company", "vessingholt", folder_.file("company.json")}).status, 0);
  for (const std::vector<std::string>& command : {std::vector<std::string>{"value", book()},
                                                  {"value", book(), "--json"},
                                                  {"check", book()},
                                                  {"journal", book()}}) {
    const Outcome shown = zledger(command);
    EXPECT_EQ(shown.out, harmless(shown.out, true)) << command[0];
  }
  EXPECT_THAT(zledger({"value", book()}).out, testing::HasSubstr("[2J"));
  const Outcome digits = zledger({"value", book(), "--company", std::string(50000, '7')});
  EXPECT_EQ(digits.status, 1);
  EXPECT_LT(digits.err.size(), 2000u);
}

TEST_F(Cli, HugeFilesAreRefusedBeforeTheyAreRead) {
  const std::string path = folder_.file("huge.xbrl");
  std::ofstream(path) << "<xbrl";
  std::filesystem::resize_file(path, 3ull << 30);  // sparse: takes no room on the disk
  const Outcome r = zledger({"import", book(), "--company", "vessingholt", path});
  EXPECT_EQ(r.status, 1);
  EXPECT_THAT(r.err, testing::HasSubstr("larger than 1 GiB"));
}

TEST_F(Cli, ImportReportsWhatMappedAndWhatDidNot) {
  std::ofstream(folder_.file("more.csv")) << "concept,label,start,end,unit,decimals,value\nrevenue,,2013-01-01,2013-12-"
                                             "31,EUR,-3,398000000\nown:Orders,,2013-01-01,2013-12-31,EUR,-3,1000\n";
  const Outcome r = zledger({"import", book(), "--company", "vessingholt", folder_.file("more.csv")});
  EXPECT_EQ(r.status, 0) << r.err;
  EXPECT_THAT(r.out, testing::HasSubstr("more.csv: CSV fact table, 1 facts mapped, 1 unmapped"));
  EXPECT_THAT(r.out, testing::HasSubstr("unmapped: own:Orders (1)"));
}

}  // namespace
}  // namespace zl::cli
