// Tables, sets of files, linkbases and folders from file to standard line, through a real book.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <fstream>

#include "exchange/json/lines_json.h"
#include "services/reports/report.h"
#include "tests/support/demo_book.h"
#include "tests/support/files.h"

namespace zl::services {
namespace {

using exchange::ContentKind;
using test::DemoBook;
using test::demoFile;
using testing::Contains;
using testing::HasSubstr;

const char* const kOlder =
    "Figures in EUR thousand;;\n;31.12.2013;31.12.2012\nNet sales;398.000,0;370.000,0\n"
    "Cost of goods sold;(230.000,0);(220.000,0)\nSundry gains;1.000,0;-\n";

double figure(const Session& session, const char* row, int column) {
  return session.now()->evaluation->figure(row, column, 1).valueOr(-1);
}

TEST_F(DemoBook, ATableJoinsTheHistoryAndIsRemembered) {
  const auto session = open();
  const ImportContext context = session->importContext();
  EXPECT_EQ(context.hints.currency, "EUR");
  EXPECT_EQ(context.hints.fiscal->month, 12u);
  auto previews = preview({{"older.csv", kOlder}}, context);
  ASSERT_TRUE(previews) << previews.error().text();
  ImportPreview& p = previews->at(0);
  EXPECT_EQ(p.kind, ContentKind::PlainTable);
  EXPECT_EQ(p.mapped, 4);
  EXPECT_EQ(p.unmapped, 1);
  EXPECT_EQ(dateText(*p.incoming.document.periodEnd), "2013-12-31");
  EXPECT_THAT(readingText(p, resources_->model), HasSubstr("column '31.12.2012': 12 months to 2012-12-31"));

  // Corrected before it is stored: the row that no line is called like.
  const std::string digest = p.incoming.document.digest;
  setLine(p.readings[0].reading, 2, {"other_income", 1, "chosen by hand"}, resources_->labels);
  p.readings[0].reading.columns[1].included = false;
  ASSERT_TRUE(applyReadings(p, context));
  EXPECT_EQ(p.mapped, 3);
  EXPECT_NE(p.incoming.document.digest, digest) << "one table read in two ways is two documents";
  const auto result = session->bringIn(std::move(*previews));
  ASSERT_TRUE(result) << result.error().text();
  EXPECT_EQ(session->now()->years().size(), 13u);
  EXPECT_EQ(figure(*session, "revenue", 0), 398e6);
  EXPECT_EQ(figure(*session, "cost_of_sales", 0), 230e6) << "printed as a negative, a cost all the same";
  EXPECT_EQ(figure(*session, "other_income", 0), 1e6);

  // The next table of the same company knows the row; another company does not.
  const auto next = preview({{"next.csv", "EUR m;2011\nSundry gains;2.5\n"}}, session->importContext());
  ASSERT_TRUE(next) << next.error().text();
  EXPECT_EQ(next->at(0).readings[0].reading.lines[0].choice.line, "other_income");
  const auto other = preview({{"next.csv", "EUR m;2011\nSundry gains;2.5\n"}}, {"other", resources_, "now", {}});
  ASSERT_TRUE(other);
  EXPECT_EQ(other->at(0).readings[0].reading.lines[0].choice.line, "");

  // What was read for one company does not slip into another.
  auto strange = preview({{"next.csv", "EUR m;2011\nNet sales;2.5\n"}}, {"other", resources_, "now", {}});
  EXPECT_EQ(session->bringIn(std::move(*strange)).error().kind, ErrorKind::Conflict);

  // Undo takes the facts and the choices; the book still opens.
  ASSERT_TRUE(session->undo());
  EXPECT_EQ(session->now()->years().size(), 12u);
  EXPECT_EQ(session->now()->filed->choices.count("label:Sundry gains"), 0u);
  ASSERT_TRUE(session->redo());
  EXPECT_EQ(open()->now()->years().size(), 13u);
}

TEST_F(DemoBook, ATableIsGuessedAgainWithWhatWasFixed) {
  const auto session = open();
  const ImportContext context = session->importContext();
  auto previews = preview({{"older.csv", kOlder}}, context);
  ASSERT_TRUE(previews);
  ImportPreview& p = previews->at(0);
  TableHints fixed = context.hints;
  fixed.fixedScale = 6;
  fixed.fixedCurrency = "USD";
  ASSERT_TRUE(guessAgain(p, 0, fixed, context));
  EXPECT_EQ(p.incoming.facts[0].text, "398000000000");
  EXPECT_EQ(p.incoming.facts[0].unit, "USD");
  // Periods corrected before stay when only the unit is fixed.
  p.readings[0].reading.columns[1].included = false;
  fixed.fixedScale = 3;
  ASSERT_TRUE(guessAgain(p, 0, fixed, context));
  EXPECT_FALSE(p.readings[0].reading.columns[1].included);
  EXPECT_EQ(p.incoming.facts[0].text, "398000000");
  fixed.headerRow = 4;
  const Status refused = guessAgain(p, 0, fixed, context);
  ASSERT_FALSE(refused);
  EXPECT_THAT(refused.error().text(), HasSubstr("no row names years"));
  EXPECT_EQ(p.incoming.facts[0].unit, "USD") << "a reading that fails leaves the one before";
  p.readings[0].included = false;
  EXPECT_THAT(applyReadings(p, context).error().text(), HasSubstr("no sheet of it is to come in"));
}

TEST_F(DemoBook, WhatIsPutOnALineStaysThere) {
  const auto session = open();
  const double before = figure(*session, "receivables", 11);
  const Case& c = session->now()->caseOf();
  ASSERT_TRUE(
      session->apply(setLineChoice(c, resources_->model, "vsh:OrderBacklog", LineChoice{"receivables", 1, "a test"})));
  EXPECT_GT(figure(*session, "receivables", 11), before);
  EXPECT_EQ(session->undoLabel(), "Put vsh:OrderBacklog on Trade receivables");
  const auto reopened = open();
  EXPECT_GT(figure(*reopened, "receivables", 11), before);
  EXPECT_EQ(lineOf(*reopened->now()->filed, *resources_, "vsh:OrderBacklog"), "receivables");
  ASSERT_TRUE(
      reopened->apply(setLineChoice(reopened->now()->caseOf(), resources_->model, "vsh:OrderBacklog", std::nullopt)));
  EXPECT_EQ(figure(*reopened, "receivables", 11), before);
  const Status bad = reopened->apply(setLineChoice(reopened->now()->caseOf(), resources_->model, "vsh:OrderBacklog",
                                                   LineChoice{"gross_profit", 1, ""}));
  EXPECT_THAT(bad.error().text(), HasSubstr("no standard line 'gross_profit'"));
  const Status heavy =
      reopened->apply(setLineChoice(reopened->now()->caseOf(), resources_->model, "x:Y", LineChoice{"cash", 2, ""}));
  EXPECT_THAT(heavy.error().text(), HasSubstr("must be 1 or -1"));
}

TEST_F(DemoBook, FirstFiledIsAnEditLikeAnyOther) {
  const auto session = open();
  const auto apply = [&](const char* line, bool first) {
    return session->apply(setFirstFiled(session->now()->caseOf(), resources_->model, line, first));
  };
  const double last = figure(*session, "revenue", 8);
  ASSERT_TRUE(apply("revenue", true));
  EXPECT_NE(figure(*session, "revenue", 8), last);
  EXPECT_EQ(session->undoLabel(), "Use Revenue as first filed");
  EXPECT_EQ(figure(*open(), "revenue", 8), figure(*session, "revenue", 8)) << "kept in the book";
  const Json list = restatementsJson(*session->now());
  const auto of = [&](const char* line) {
    return *std::find_if(list.begin(), list.end(), [&](const Json& r) { return r["line"] == line; });
  };
  EXPECT_EQ(of("revenue")["in_use"], "first");
  EXPECT_EQ(of("tax")["in_use"], "last");
  EXPECT_EQ(of("revenue")["first_document"], "annual-2022.xbrl");
  ASSERT_TRUE(apply("revenue", false));
  EXPECT_EQ(figure(*session, "revenue", 8), last);
  EXPECT_THAT(apply("gross_profit", true).error().text(),
              HasSubstr("no standard line 'gross_profit' to use as first filed"));
}

TEST_F(DemoBook, ALinkbasePlacesTheFilersOwnConcepts) {
  const auto session = open();
  const double before = figure(*session, "other_current_assets", 11);
  const std::string links =
      "<?xml version=\"1.0\"?><link:linkbase xmlns:link=\"http://www.xbrl.org/2003/linkbase\" "
      "xmlns:xlink=\"http://www.w3.org/1999/xlink\"><link:calculationLink><link:loc xlink:label=\"p\" "
      "xlink:href=\"t.xsd#ifrs-full_CurrentAssets\"/><link:loc xlink:label=\"c\" "
      "xlink:href=\"v.xsd#vsh_OrderBacklog\"/>"
      "<link:calculationArc xlink:from=\"p\" xlink:to=\"c\" weight=\"1\"/></link:calculationLink></link:linkbase>";
  ASSERT_TRUE(session->importFiles({{"vsh_cal.xml", links}}));
  EXPECT_GT(figure(*session, "other_current_assets", 11), before);
  EXPECT_THAT(session->now()->filed->choices.at("vsh:OrderBacklog").reason,
              HasSubstr("the rest of ifrs-full:CurrentAssets"));
  ASSERT_TRUE(session->undo());
  EXPECT_EQ(figure(*session, "other_current_assets", 11), before);
}

TEST_F(DemoBook, InlineFilesOfOneReportAreReadTogether) {
  const auto session = open();
  std::string whole = demoFile("filings/interim-2024-q1.xhtml");
  const std::size_t from = whole.find("<ix:resources>");
  const std::size_t to = whole.find("</ix:resources>");
  std::string front = whole;  // the front page keeps the contexts, the rest the facts
  front.erase(front.find("<table>") + 7, front.find("</table>") - front.find("<table>") - 7);
  std::string back = whole;
  back.erase(from + 14, to - from - 14);
  EXPECT_THAT(session->importFiles({{"back.xhtml", back}}).error().text(), HasSubstr("that no file given defines"));
  const auto result = session->importFiles({{"front.xhtml", front}, {"back.xhtml", back}});
  ASSERT_TRUE(result) << result.error().text();
  ASSERT_EQ(result->files.size(), 2u);
  EXPECT_EQ(result->files[1].mapped, 17);
  EXPECT_EQ(result->files[0].filer.filerName, "Vessingholt N.V.");
}

TEST(Folders, BringWhatIsReadableAndNameTheRest) {
  const test::TemporaryFolder folder;
  std::filesystem::create_directories(folder.file("in/deep"));
  std::filesystem::create_directories(folder.file("in/.hidden"));
  const auto write = [&](const char* name, const std::string& text) { std::ofstream(folder.file(name)) << text; };
  write("in/a.xbrl", demoFile("filings/annual-2025.xbrl"));
  write("in/deep/b.xbrl", demoFile("filings/annual-2024.xbrl"));
  write("in/picture.png", "\x89PNG\r\n");
  write("in/.hidden/c.xbrl", "<x");
  const auto files = readFiles({folder.file("in")});
  ASSERT_TRUE(files) << files.error().text();
  ASSERT_EQ(files->size(), 3u);
  const auto resources = *Resources::load();
  std::vector<std::string> seen;
  ImportContext context{"vessingholt", resources, "now", {}};
  context.progress = [&](size_t, size_t total, const std::string& name) {
    EXPECT_EQ(total, 3u);
    seen.push_back(name);
  };
  const auto previews = preview(*files, context);
  ASSERT_TRUE(previews) << previews.error().text();
  EXPECT_EQ(seen.size(), 3u);
  EXPECT_EQ(std::count_if(previews->begin(), previews->end(), [](const ImportPreview& p) { return p.passedOver; }), 1);
  const auto result = Session::import(folder.file("b.zledger"), "vessingholt", *files, resources, test::testDesk());
  ASSERT_TRUE(result) << result.error().text();
  EXPECT_EQ(result->files.size(), 2u);
  EXPECT_THAT(result->warnings, Contains(HasSubstr("picture.png: passed over")));
  // The same file named by hand is refused: somebody meant it.
  EXPECT_FALSE(preview({{"picture.png", "\x89PNG\r\n"}}, {"vessingholt", resources, "now", {}}));

  context.stopped = exchange::StopCheck([&] { return seen.size() > 4; });  // in the second file of this reading
  const auto stopped = preview(*files, context);
  ASSERT_FALSE(stopped);
  EXPECT_EQ(stopped.error().kind, ErrorKind::Cancelled);
}

TEST(Tables, AmountsInNoCurrencyAreNotStored) {
  const test::TemporaryFolder folder;
  const auto resources = *Resources::load();
  const std::string table = ";2024;2023\nNet sales;5;4\nNumber of shares;2;2\n";
  auto previews = preview({{"bare.csv", table}}, {"bare", resources, "now", {}});
  ASSERT_TRUE(previews) << previews.error().text();
  EXPECT_THAT(readyToStore(*previews).error().text(), HasSubstr("bare.csv: the table names no currency"));
  const auto stored = Session::bringIn(folder.file("b.zledger"), "bare", *previews, resources, test::testDesk());
  EXPECT_FALSE(stored);
  EXPECT_FALSE(std::filesystem::exists(folder.file("b.zledger")));
  TableHints fixed;
  fixed.fixedCurrency = "CHF";
  ASSERT_TRUE(guessAgain(previews->at(0), 0, fixed, {"bare", resources, "now", {}}));
  EXPECT_TRUE(Session::bringIn(folder.file("b.zledger"), "bare", *previews, resources, test::testDesk()));
}

TEST(Tables, OfOneImportAreInTheCurrencyThatSomeOfThemName) {
  const auto resources = *Resources::load();
  const ImportContext context{"bare", resources, "now", {}};
  const std::string bare = ";2024;2023\nNet sales;5;4\n";
  const std::string swiss = "CHF m;2024;2023\nCash;3;2\n";
  const std::string british = "GBP m;2024;2023\nInventories;1;1\n";
  const auto units = [&](const std::vector<ImportFile>& files) {
    std::string all;
    const auto previews = preview(files, context);
    EXPECT_TRUE(previews) << previews.error().text();
    for (const ImportPreview& p : *previews) all += p.incoming.facts.front().unit + "; ";
    return all;
  };
  EXPECT_EQ(units({{"a.csv", bare}, {"b.csv", swiss}}), "CHF; CHF; ");
  EXPECT_EQ(units({{"a.csv", bare}, {"b.csv", swiss}, {"c.csv", british}}), "; CHF; GBP; ") << "they are in two";
  const auto previews = preview({{"a.csv", bare}, {"b.csv", swiss}}, context);
  ASSERT_TRUE(previews);
  EXPECT_THAT(previews->at(0).readings.at(0).reading.doubts, Contains(HasSubstr("CHF is taken, as 'b.csv' is in")));
  EXPECT_TRUE(readyToStore(*previews));
}

TEST(LinesJson, RoundTripsAndRefusesOtherThings) {
  const LineChoices choices{{"label:A \"quoted\"", {"cash", -1, "why"}}, {"x:B", {"", 1, ""}}};
  EXPECT_EQ(*exchange::lineChoicesFromText(exchange::lineChoicesText(choices), "t"), choices);
  for (const char* bad :
       {"{}", "[]", R"({"format":"zealous-ledger-lines","version":2,"lines":{}})",
        R"({"format":"zealous-ledger-lines","version":1})",
        R"({"format":"zealous-ledger-lines","version":1,"lines":{"a":{"line":"b","weight":3}}})",
        R"({"format":"zealous-ledger-lines","version":1,"lines":{"a":{"line":"b","weight":1,"more":1}}})"}) {
    EXPECT_FALSE(exchange::lineChoicesFromText(bad, "t")) << bad;
  }
}

}  // namespace
}  // namespace zl::services
