// The whole job without a window: files in, case applied, values out, edits, undo, reopen.

#include "services/sessions/session.h"
#include "services/stories/trace_text.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <atomic>
#include <thread>

#include <cmath>
#include <filesystem>
#include <set>
#include <tuple>

#include "core/proposal/propose.h"
#include "core/quantity/number_text.h"
#include "exchange/json/reader.h"
#include "services/reports/report.h"
#include "services/sessions/case_file.h"
#include "services/sessions/demo.h"
#include "services/views/driver_evidence.h"
#include "tests/support/demo_book.h"
#include "tests/support/files.h"
#include "tests/support/plain_company.h"

namespace zl::services {
namespace {

using test::DemoBook;
using test::demoFile;
using test::testDesk;

TEST_F(DemoBook, ValuesEveryScenarioAndTies) {
  const auto kept = open()->now();
  const Snapshot& s = *kept;
  EXPECT_EQ(s.years().size(), 12u);
  for (const TieResult& r : checkTies(s.resources->ties, s.filed->statements, s.evidence->facts)) {
    const std::vector<TieTerm>& parts = s.resources->ties[r.tie].addends;
    const bool needsOpening = std::any_of(parts.begin(), parts.end(), [](const TieTerm& t) { return t.opening; });
    EXPECT_EQ(r.state, needsOpening && r.column == 0 ? TieResult::State::NotChecked : TieResult::State::Ties)
        << s.resources->ties[r.tie].label << " " << s.periodOf(r.column) << " " << r.gap << " lacks "
        << testing::PrintToString(r.missing);
  }
  EXPECT_EQ(s.review->segmentSums.size(), 18u) << "six years: revenue by business and by region, profit by business";
  for (const SegmentSum& sum : s.review->segmentSums) EXPECT_TRUE(sum.ties) << sum.axis << ' ' << sum.gap;
  for (const Finding& f : s.findings()) EXPECT_NE(f.severity, Severity::Fault) << f.text;
  const double worst = s.evaluation->constant("value_per_share", 0).value();
  const double base = s.evaluation->constant("value_per_share", 1).value();
  const double best = s.evaluation->constant("value_per_share", 2).value();
  EXPECT_LT(worst, base);
  EXPECT_LT(base, best);
  EXPECT_NEAR(weightedValue(*s.evaluation, model::Role::ValuePerShare).value(), 0.25 * worst + 0.5 * base + 0.25 * best,
              1e-9);
  EXPECT_LT(s.evaluation->figure("fcff", 11, 1).value(), 0) << "the base year's free cash flow is negative";
}

TEST_F(DemoBook, ValueIsTheHandSumOfItsDiscountedFlows) {
  // Section by section from the displayed rows, with arithmetic of our own instead of the model's.
  const auto kept = open()->now();
  const Evaluation& e = *kept->evaluation;
  const double stub = 245.0 / 365.0;  // 30 April to 31 December 2026
  double factor = 1;
  double value = 0;
  for (int t = 0; t < 10; ++t) {
    const double wacc = e.figure("wacc", 12 + t, 1).value();
    const double flow = e.figure("fcff", 12 + t, 1).value() * (t == 0 ? stub : 1);
    const double time = t == 0 ? stub : 1;
    value += flow * factor * std::pow(1 + wacc, -time / 2);
    factor *= std::pow(1 + wacc, -time);
  }
  const double wacc = e.figure("wacc", 21, 1).value();
  const double nopat = e.figure("nopat", 21, 1).value();
  value += nopat * 1.02 * (1 - 0.02 / wacc) / (wacc - 0.02) * std::sqrt(1 + wacc) * factor;
  EXPECT_NEAR(e.constant("enterprise_value", 1).value(), value, 1e-6 * value);
  const double equity = value - e.constant("net_debt_dated", 1).value() - e.constant("other_claims", 1).value();
  EXPECT_NEAR(e.constant("value_per_share", 1).value(), equity / e.constant("diluted_shares", 1).value() * 85.8, 1e-4);
}

TEST_F(DemoBook, RestatedFiguresAreTheLastFiled) {
  const auto kept = open()->now();
  const Snapshot& s = *kept;
  const LineCell& revenue = s.filed->statements.at("revenue", 8);  // 2022
  ASSERT_EQ(revenue.parts.size(), 1u);
  const Fact& used = s.evidence->facts[revenue.parts[0].fact];
  EXPECT_EQ(s.document(used.document)->document.name, "annual-2023.xbrl");
  EXPECT_EQ(s.filed->statements.unmapped().size(), 3u);
  EXPECT_EQ(s.filed->statements.segmentFacts(), 48);
}

TEST_F(DemoBook, TracesEndAtFactsAndReasons) {
  const auto kept = open()->now();
  const Snapshot& s = *kept;
  const std::string down = traceText(s, {s.evaluation->model().find("receivables"), 12}, 1, 2);
  EXPECT_THAT(down, testing::HasSubstr("receivable_days * revenue / 365 days"));
  EXPECT_THAT(
      down, testing::HasSubstr("ifrs-full:Revenue = 723703000 EUR for 2025-01-01/2025-12-31; annual-2025.xbrl, line"));
  EXPECT_THAT(down, testing::HasSubstr("assumed in Base by demo on 2026-04-30: Disputed invoices"));
  // Every figure of the verdict ends, walked far enough, at something filed, assumed or given.
  std::function<void(const Json&)> walk = [&](const Json& step) {
    if (step.contains("inputs")) {
      for (const Json& input : step["inputs"]) walk(input);
    } else if (step["source"] != "derived") {
      EXPECT_TRUE(step.contains("from") && !step["from"].empty()) << step.dump();
    }
  };
  walk(traceJson(s, {s.evaluation->model().find("upside"), 0}, 0, 5));
}

TEST_F(DemoBook, EditsUndoAndRedoAcrossReopening) {
  const auto value = [](const Session& s) { return s.now()->evaluation->constant("value_per_share", 1).value(); };
  double before = 0, after = 0;
  {
    auto session = open();
    before = value(*session);
    Path path;
    path.level = 0.07;
    ASSERT_TRUE(session->apply(setDriver(session->now()->caseOf(), session->now()->evaluation->model(), "base",
                                         "revenue_growth", path, session->said("try"))));
    after = value(*session);
    EXPECT_GT(after, before);
    EXPECT_EQ(session->undoLabel(), "Set Revenue growth (Base)");
  }
  auto session = open();
  EXPECT_DOUBLE_EQ(value(*session), after);
  ASSERT_TRUE(session->undo());
  EXPECT_DOUBLE_EQ(value(*session), before);
  EXPECT_EQ(session->redoLabel(), "Set Revenue growth (Base)");
  session = open();
  ASSERT_TRUE(session->redo());
  EXPECT_DOUBLE_EQ(value(*session), after);
  while (!session->undoLabel().empty()) ASSERT_TRUE(session->undo());
  EXPECT_FALSE(session->undo()) << "the import that made the company stays";
  EXPECT_TRUE(decidedOnly(session->now()->caseOf()).base().drivers.empty());
}

TEST_F(DemoBook, RefusedEditsChangeNothing) {
  auto session = open();
  const auto before = session->now();
  const auto journal = session->journal()->size();
  Path path;
  path.level = -5;
  const Status s =
      session->apply(setDriver(before->caseOf(), before->evaluation->model(), "base", "revenue_growth", path, {}));
  ASSERT_FALSE(s);
  EXPECT_THAT(s.error().what, testing::HasSubstr("outside the allowed range"));
  EXPECT_EQ(session->now(), before);
  EXPECT_EQ(session->journal()->size(), journal);
  EXPECT_TRUE(session->apply({before->caseOf(), "nothing"}));
  EXPECT_EQ(session->journal()->size(), journal) << "an edit that changes nothing is not journalled";
}

TEST_F(DemoBook, ASecondSessionCannotOverwriteTheFirst) {
  auto one = open();
  auto two = open();
  ASSERT_TRUE(one->apply(setHorizon(one->now()->caseOf(), 8)));
  const Status late = two->apply(setHorizon(two->now()->caseOf(), 5));
  ASSERT_FALSE(late);
  EXPECT_EQ(late.error().kind, ErrorKind::Conflict);
  EXPECT_THAT(late.error().what, testing::HasSubstr("tester: Set horizon to 8 years")) << "it says who did what";
  EXPECT_EQ(open()->now()->caseOf().horizon, 8);
  EXPECT_EQ(two->now()->caseOf().horizon, 8) << "and shows it";
  ASSERT_TRUE(two->apply(setHorizon(two->now()->caseOf(), 5))) << "so that the edit can be made upon it";
  EXPECT_EQ(*one->refresh(), Session::News::Company);
  EXPECT_EQ(one->now()->caseOf().horizon, 5);
  EXPECT_EQ(*one->refresh(), Session::News::None);
  ASSERT_TRUE(two->undo());
  EXPECT_EQ(one->undo().error().kind, ErrorKind::Conflict);
  EXPECT_EQ(one->now()->caseOf().horizon, 8);
}

// What two programs did to one another's edits: a case read before an edit and a head read after it
// let the next edit pass the check of heads. Each load must be of one moment.
TEST_F(DemoBook, ASessionThatReadsWhileAnotherWritesSeesOneMoment) {
  auto writer = open();
  auto reader = open();
  std::atomic<bool> done = false;
  std::thread writing([&] {
    for (int i = 0; i < 60; ++i) {
      const Case& c = writer->now()->caseOf();
      const Status written =
          writer->apply(setNote(c, writer->now()->evaluation->model(), "revenue", "edit " + std::to_string(i)));
      EXPECT_TRUE(written || written.error().kind == ErrorKind::Conflict);
    }
    done = true;
  });
  do {
    ASSERT_TRUE(reader->refresh());
    const auto& notes = reader->now()->caseOf().notes;
    const auto note = notes.find("revenue");
    if (note == notes.end() || note->second.substr(0, 4) != "edit") continue;
    // The next edit upon what was read must be refused or keep what came before it.
    const std::string mine = "mine upon " + note->second;
    if (!reader->apply(setNote(reader->now()->caseOf(), reader->now()->evaluation->model(), "ebit", mine))) continue;
    EXPECT_EQ(reader->now()->caseOf().notes.at("revenue"), note->second);
    break;
  } while (!done);
  writing.join();
}

TEST_F(DemoBook, ImportsAreAllOrNothingAndUndoable) {
  auto session = open();
  const std::string good =
      "concept,label,start,end,unit,decimals,value\nrevenue,,2013-01-01,2013-12-31,EUR,-3,398000000\n";
  const auto bad = session->importFiles(
      {{"good.csv", good}, {"bad.csv", "concept,label,start,end,unit,decimals,value\nrevenue,,x,y,EUR,0,1\n"}});
  ASSERT_FALSE(bad);
  EXPECT_THAT(bad.error().where, testing::HasSubstr("bad.csv, line 2"));
  EXPECT_EQ(open()->now()->years().size(), 12u);
  ASSERT_TRUE(session->importFiles({{"good.csv", good}}));
  EXPECT_EQ(session->now()->years().size(), 13u);
  const auto again = session->importFiles({{"copy.csv", good}});
  ASSERT_TRUE(again);
  EXPECT_THAT(again->warnings, testing::ElementsAre(testing::HasSubstr("already in the book")));
  ASSERT_TRUE(session->undo());
  EXPECT_EQ(session->now()->years().size(), 12u);
  ASSERT_TRUE(session->redo());
  EXPECT_EQ(session->now()->years().size(), 13u);
}

TEST_F(DemoBook, AnImportThatWouldLeaveNothingToShowIsNotStored) {
  auto session = open();
  const auto before = session->now();
  const size_t documents = before->evidence->documents.size();
  const size_t entries = session->journal()->size();
  std::string record = demoFile("company.json");
  record.replace(record.find("\"EUR\""), 5, "\"USD\"");
  const auto result = session->importFiles({{"company.json", record}});
  ASSERT_FALSE(result);
  EXPECT_THAT(result.error().text(), testing::HasSubstr("no full fiscal year has been filed"));
  EXPECT_THAT(result.error().todo, testing::HasSubstr("Nothing was stored"));
  EXPECT_EQ(session->now(), before);
  EXPECT_EQ(session->journal()->size(), entries) << "it leaves no trace in the journal";
  EXPECT_EQ(open()->now()->evidence->documents.size(), documents) << "nor among the documents, set aside or not";
  const auto again = open();
  ASSERT_NE(again, nullptr);
  EXPECT_EQ(again->now()->company().currency, "EUR");
  EXPECT_TRUE(again->redoLabel().empty()) << "there is nothing to do again";
  ASSERT_TRUE(again->apply(setHorizon(again->now()->caseOf(), 6))) << "work goes on after it";
}

TEST_F(DemoBook, ScenariosStoreOnlyDifferences) {
  auto session = open();
  const Case& c = session->now()->caseOf();
  const Path same = c.base().drivers.at("capex_ratio").path;
  EXPECT_EQ(setDriver(c, session->now()->evaluation->model(), "best", "capex_ratio", same, {}).after, c);
  const CaseEdit reset = clearDriver(c, session->now()->evaluation->model(), "best", "revenue_growth");
  EXPECT_EQ(reset.after.scenarios[2].drivers.count("revenue_growth"), 0u);
}

TEST_F(DemoBook, AHorizonOfAnyAllowedLengthBalances) {
  auto session = open();
  for (int years : {3, 7, 15}) {
    ASSERT_TRUE(session->apply(setHorizon(session->now()->caseOf(), years))) << years;
    const Evaluation& e = *session->now()->evaluation;
    for (int c = 12; c < e.layout().columns(); ++c) {
      EXPECT_NEAR(e.figure("balance_gap", c, 0).value(), 0, 1) << years;  // one euro in a billion
    }
  }
}

TEST_F(DemoBook, AValuationDatePastAnUnfiledYearGivesAValueAndIsSaidAndALaterOneIsNamed) {
  auto session = open();
  ASSERT_TRUE(session->apply(setValuationDate(session->now()->caseOf(), makeDate(2027, 2, 1))));
  EXPECT_TRUE(session->now()->evaluation->constant("value_per_share", 1).hasValue());
  EXPECT_THAT(session->now()->findings(),
              testing::Contains(testing::Field(&Finding::monitor, "year ended and not filed")));
  ASSERT_TRUE(session->apply(setValuationDate(session->now()->caseOf(), makeDate(2027, 8, 1))));
  EXPECT_THAT(session->now()->evaluation->constant("value_per_share", 1).reason(),
              testing::HasSubstr("more than 18 months after the last filed year end"));
}

TEST_F(DemoBook, MonitorsSpeakWhenSomethingIsOff) {
  auto session = open();
  const auto said = [&](const Case& c) {
    const auto s = session->preview(c);
    std::set<std::string> names;
    if (s) {
      for (const Finding& f : (*s)->findings()) names.insert(f.monitor);
    }
    return names;
  };
  const Case& c = session->now()->caseOf();
  const auto with = [&](const char* input, double x) {
    Case changed = c;
    changed.scenarios[1].inputs[input] = {x, {}, {}};
    return changed;
  };
  const auto path = [&](const char* driver, double x) {
    Case changed = c;
    Path p;
    p.level = x;
    changed.scenarios[1].drivers[driver] = {p, {}};
    return changed;
  };
  using testing::Contains;
  EXPECT_THAT(said(with("terminal_growth", 0.14)), Contains("discount rate does not exceed growth"));
  EXPECT_THAT(said(with("terminal_growth", 0.06)), Contains("rate close to growth"));
  EXPECT_THAT(said(with("terminal_growth", 0.035)), Contains("growth above the risk-free rate"));
  EXPECT_THAT(said(path("operating_expense_ratio", 0.5)), Contains("revolver drawn"));
  EXPECT_THAT(said(path("operating_expense_ratio", 0.9)), Contains("negative equity value"));
  EXPECT_THAT(said(path("capex_ratio", 0.3)), Contains("driver outside history"));
  Case odd = c;
  odd.scenarios[0].probability = 0.9;
  EXPECT_THAT(said(odd), Contains("probabilities not one"));
  EXPECT_THAT(said(with("exit_multiple", 7.6)), testing::Not(Contains("rate close to growth")));
}

TEST_F(DemoBook, MonitorsOfPathsThatFewHaveKeptUp) {
  const auto session = open();
  const Case& c = session->now()->caseOf();
  const model::Model& m = session->now()->evaluation->model();
  const auto said = [&](const Case& changed, const std::string& monitor, const std::string& words) {
    const auto s = session->preview(changed);
    EXPECT_TRUE(s) << (s ? "" : s.error().text());
    if (!s) return false;
    return std::any_of((*s)->findings().begin(), (*s)->findings().end(), [&](const Finding& f) {
      return f.monitor == monitor && f.text.find(words) != std::string::npos;
    });
  };
  const auto held = [&](const char* driver, double level) {
    Path p;
    p.level = level;
    return setDriver(c, m, kBase, driver, p, {"tried", "tester", ""}).after;
  };
  const auto chosen = [&](const char* input, double x) { return setInput(c, m, kBase, input, x, {}).after; };
  // The demo's economy grows by 2.5 % in the long run (demo/rates.csv).
  EXPECT_TRUE(said(held("revenue_growth", 0.03), "growth above the economy", "Base: revenue still grows by 3.0 %"));
  EXPECT_FALSE(said(held("revenue_growth", 0.02), "growth above the economy", "Base"));
  Case staged = held("revenue_growth", 0.03);
  staged.stages = {10};
  EXPECT_FALSE(said(staged, "growth above the economy", "Base")) << "all is the first stage";
  EXPECT_TRUE(said(held("cost_of_sales_ratio", 0.3), "margin above any seen", "Base: Gross margin reaches"));
  EXPECT_TRUE(said(held("capex_ratio", 0.005), "returns do not fade", "Base")) << "capital shrinks beneath profit";
  EXPECT_FALSE(said(c, "returns do not fade", "Worst"));
  EXPECT_TRUE(said(chosen("return_weight", 0.5), "return above WACC for ever", "Base"));
  EXPECT_TRUE(said(held("payout", 4), "dividend above free cash flow", "Base: dividends exceed"));
  EXPECT_TRUE(said(c, "dividend above free cash flow", "Dividends of the base year are"));
  EXPECT_TRUE(said(held("buyback_payout", 5), "share count moves", "Base"));
  Case late = c;
  late.valuationDate = makeDate(2026, 5, 8);  // six weekdays after the last price of 30 April
  EXPECT_TRUE(said(late, "stale price", "6 weekdays"));
  late.valuationDate = makeDate(2026, 5, 7);
  EXPECT_FALSE(said(late, "stale price", "")) << "five are allowed";
  late.valuationDate = makeDate(2026, 9, 1);
  EXPECT_TRUE(said(late, "stale estimates", "(2026-04-24) is 130 days old"));
  EXPECT_TRUE(said(late, "stale rate", "rates the oldest is")) << "one line for all of them";
  EXPECT_TRUE(said(c, "restated values in use", "from what was first filed"));
  Case bare = c;
  bare.ownRows["standard"] = {"amend revolver\n  forecast 0\n", {}};
  Path costly;
  costly.level = 0.6;
  bare.scenarios[1].drivers["operating_expense_ratio"] = {costly, {}};
  EXPECT_TRUE(said(bare, "negative cash", "Base: cash is"));
  // A level that is the mean of ten years, two of them flagged.
  const DriverEvidence e = evidenceOf(*session->now(), m.find("capex_ratio"), 1);
  EXPECT_TRUE(said(held("capex_ratio", e.windows[2].all.mean.value()), "exceptional year inside an average",
                   "mean of 10 years with 2024, 2025 in it"));
  EXPECT_FALSE(
      said(held("capex_ratio", e.windows[2].regular.mean.value()), "exceptional year inside an average", "Capex"));
}

TEST_F(DemoBook, LimitsOfMonitorsAreTheAnalysts) {
  const auto session = open();
  const auto speaks = [&](const char* monitor) {
    const auto& findings = session->now()->findings();
    return std::any_of(findings.begin(), findings.end(), [&](const Finding& f) { return f.monitor == monitor; });
  };
  ASSERT_TRUE(speaks("growth above the economy"));
  ASSERT_TRUE(session->apply(setLimit(session->now()->caseOf(), "growth above the economy", 0.5)));
  EXPECT_FALSE(speaks("growth above the economy"));
  ASSERT_TRUE(session->apply(setLimit(session->now()->caseOf(), "few peers", 50)));
  EXPECT_TRUE(speaks("few peers"));
  // Of the demo's two methods by peers' multiples one has a value; dividends, book and parts are none of them.
  ASSERT_TRUE(session->apply(setLimit(session->now()->caseOf(), "value far from the peers", 1)));
  const auto& found = session->now()->findings();
  const auto far = std::find_if(found.begin(), found.end(),
                                [](const Finding& f) { return f.monitor == "value far from the peers"; });
  ASSERT_NE(far, found.end());
  const Evaluation& e = *session->now()->evaluation;
  EXPECT_FALSE(e.constant("by_earnings_median", 1).hasValue());
  EXPECT_THAT(far->text, testing::HasSubstr(" times " + figureText(e.constant("by_ebitda_median", 1), Kind::Quote) +
                                            ", the median of what the peers' multiples make of it"));
  ASSERT_TRUE(session->apply(setLimit(session->now()->caseOf(), "value far from the peers", std::nullopt)));
  for (const auto& [monitor, limit] :
       {std::pair("few peers", -1.0), std::pair("no such monitor", 1.0), std::pair("terminal share", std::nan(""))}) {
    const Status s = session->apply(setLimit(session->now()->caseOf(), monitor, limit));
    ASSERT_FALSE(s) << monitor;
    EXPECT_THAT(s.error().what, testing::HasSubstr(monitor));
  }
  EXPECT_EQ(open()->now()->caseOf().limits.size(), 2u) << "kept with the case";
  ASSERT_TRUE(session->apply(setLimit(session->now()->caseOf(), "growth above the economy", std::nullopt)));
  EXPECT_TRUE(speaks("growth above the economy"));
}

TEST_F(DemoBook, ACaseOfANewerProgramIsLookedAtAndNotChanged) {
  auto session = open();
  const double value = session->now()->evaluation->constant("value_per_share", 1).value();
  ASSERT_TRUE(session->readOnly().empty());
  session.reset();
  {
    auto text = exchange::Json::parse(*caseText(*open()));
    text["version"] = 9;
    text["dreams"] = 1;
    auto stored = store::Book::open(book());
    ASSERT_TRUE(stored);
    store::Edit write;
    write.entry.company = "vessingholt";
    write.entry.label = "by a newer program";
    write.entry.forward = write.entry.backward = "[]";
    write.caseText = text.dump();
    ASSERT_TRUE(stored->append(write, *stored->head("vessingholt")));
  }
  session = open();
  EXPECT_EQ(session->now()->evaluation->constant("value_per_share", 1).value(), value);
  EXPECT_THAT(session->readOnly(), testing::HasSubstr("a newer version of the program wrote this case (layout 9)"));
  const auto head = session->journal()->size();
  EXPECT_FALSE(session->apply(setHorizon(session->now()->caseOf(), 8)));
  EXPECT_FALSE(session->undo());
  EXPECT_FALSE(session->keepVersion("x", ""));
  EXPECT_FALSE(session->importFiles({{"estimates.csv", "item,year,low,mean,high,count,date,source\n"}}));
  EXPECT_EQ(session->journal()->size(), head);
  EXPECT_TRUE(session->preview(setHorizon(session->now()->caseOf(), 8).after)) << "looking may try things";
}

TEST(Import, MakesABookOfOtherFilesWithARecordOfItsOwn) {
  const test::TemporaryFolder folder;
  const auto resources = Resources::load();
  const auto result =
      Session::import(folder.file("b.zledger"), "plain", test::PlainCompany{}.files(), *resources, testDesk());
  ASSERT_TRUE(result) << result.error().text();
  EXPECT_THAT(result->warnings, testing::ElementsAre(testing::HasSubstr("no company record: currency USD")));
  const auto session = Session::open(folder.file("b.zledger"), "", *resources, testDesk());
  ASSERT_TRUE(session) << session.error().text();
  const Snapshot& s = *(*session)->now();
  EXPECT_EQ(dateText(s.caseOf().valuationDate), "2025-03-31");
  EXPECT_TRUE(s.evaluation->constant("value_per_share", 1).hasValue())
      << s.evaluation->constant("value_per_share", 1).reason();
}

TEST(Import, AFaultLeavesNoBookBehind) {
  const test::TemporaryFolder folder;
  const auto resources = Resources::load();
  EXPECT_FALSE(Session::import(folder.file("b.zledger"), "x", {{"f.xbrl", "<x"}}, *resources, testDesk()));
  EXPECT_FALSE(std::filesystem::exists(folder.file("b.zledger")));
}

TEST(CaseFile, RoundTripsThroughExportAndApply) {
  const test::TemporaryFolder folder;
  const auto resources = Resources::load();
  ASSERT_TRUE(makeDemoBook(folder.file("a.zledger"), *resources, testDesk()));
  auto session = *Session::open(folder.file("a.zledger"), "", *resources, testDesk());
  const std::string exported = *caseText(*session);
  ASSERT_TRUE(session->apply(setHorizon(session->now()->caseOf(), 5)));
  const auto assumptions = [](const std::string& text) {
    exchange::Json json = exchange::Json::parse(text);
    EXPECT_EQ(json.erase("stands_on"), 1u);
    return json.dump();
  };
  // An old export over newer work needs a word.
  const Status stale = applyCaseText(*session, exported, "case.json");
  ASSERT_FALSE(stale);
  EXPECT_EQ(stale.error().kind, ErrorKind::Conflict);
  EXPECT_THAT(stale.error().what,
              testing::HasSubstr("1 edit was made since this file was exported, the last by tester"));
  ASSERT_TRUE(applyCaseText(*session, exported, "case.json", Over::Anything));
  EXPECT_EQ(assumptions(*caseText(*session)), assumptions(exported));
  ASSERT_TRUE(applyCaseText(*session, *caseText(*session), "now.json"))
      << "what stands on the present state needs none";
  EXPECT_FALSE(applyCaseText(*session, "{\"format\": \"zealous-ledger-case\"}", "case.json"));
  EXPECT_EQ(assumptions(*caseText(*session)), assumptions(exported));
}

}  // namespace
}  // namespace zl::services
