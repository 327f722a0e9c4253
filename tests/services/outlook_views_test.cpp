// Scenarios side by side, the sum of caution, findings accepted, and a year that came in.

#include <gmock/gmock.h>

#include "services/edits/driver_moves.h"
#include "services/edits/scenario_edits.h"
#include "services/reports/report.h"
#include "services/sessions/assumption_history.h"
#include "services/views/compare.h"
#include "services/views/driver_evidence.h"
#include "services/views/roll_forward.h"
#include "services/views/scenario_view.h"
#include "tests/support/demo_book.h"
#include "tests/support/next_year.h"

namespace zl::services {
namespace {

using test::DemoBook;

class OutlookViews : public DemoBook {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    session_ = open();
  }
  const Snapshot& now() const { return *session_->now(); }
  model::RowId row(const char* name) const { return now().evaluation->model().find(name); }
  double value(const Case& c, const char* name = "raw_value") const {
    const auto s = session_->preview(c);
    EXPECT_TRUE(s) << (s ? "" : s.error().text());
    return (*s)->evaluation->constant(name, (*s)->caseOf().indexOf(kBase)).value();
  }
  static Path held(double level) {
    Path p;
    p.level = level;
    return p;
  }
  const Finding* finding(const std::string& monitor) const {
    for (const Finding& f : now().findings()) {
      if (f.monitor == monitor) return &f;
    }
    return nullptr;
  }

  std::unique_ptr<Session> session_;
};

TEST_F(OutlookViews, ScenariosStandSideBySideWithTheReferences) {
  const std::vector<ScenarioLine> lines = scenarioLines(now());
  const auto growth =
      std::find_if(lines.begin(), lines.end(), [](const ScenarioLine& l) { return l.row == "revenue_growth"; });
  ASSERT_NE(growth, lines.end());
  EXPECT_TRUE(growth->differs);
  EXPECT_THAT(growth->cells[1].words, testing::StartsWith("typed 1.0, 3.5"));
  EXPECT_EQ(growth->references[0], now().history->at(row("revenue_growth"), 11));
  const auto premium =
      std::find_if(lines.begin(), lines.end(), [](const ScenarioLine& l) { return l.row == "size_addition"; });
  EXPECT_FALSE(premium->differs);
  EXPECT_TRUE(premium->references[1].isAbsent()) << "a rate of the market has no history in the filings";

  // As last year: every driver with a history holds its last actual, done here one by one.
  Case c = now().caseOf();
  for (const model::Row& r : now().evaluation->model().rows) {
    if (r.declared != model::Declared::Driver || !r.history) continue;
    const Figure last = now().history->at(row(r.name.c_str()), 11);
    if (last.hasValue() && last.value() >= r.range->low && last.value() <= r.range->high) {
      c = setDriver(c, now().evaluation->model(), kBase, r.name, held(last.value()), {}).after;
    }
  }
  const auto reference = referenceValue(now(), Reference::LastYear);
  ASSERT_TRUE(reference) << reference.error().text();
  EXPECT_NEAR(reference->value(), value(c, "value_per_share"), 1e-9);
}

TEST_F(OutlookViews, ConsensusTellsDriversByTheirOwnRules) {
  const Consensus consensus = consensusOf(now());
  const auto spread = [&](const char* name, int year) { return consensus.spread(row(name), 12 + year); };
  // Revenue 728 (705 to 752) after 723.703, nine analysts; the snapshot of January is older.
  EXPECT_NEAR(spread("revenue_growth", 0).mean.value(), 728 / 723.703 - 1, 1e-12);
  EXPECT_NEAR(spread("revenue_growth", 0).low.value(), 705 / 723.703 - 1, 1e-12);
  EXPECT_EQ(spread("revenue_growth", 0).count, 9);
  // In the second year its own ends count, over the mean of the first: 729 to 802 over 728.
  EXPECT_NEAR(spread("revenue_growth", 1).low.value(), 729.0 / 728 - 1, 1e-12);
  EXPECT_NEAR(spread("revenue_growth", 1).high.value(), 802.0 / 728 - 1, 1e-12);
  // Capex 38 (33 to 46), six analysts: the ratio's ends cross those of revenue.
  EXPECT_NEAR(spread("capex_ratio", 0).high.value(), 46.0 / 705, 1e-12);
  EXPECT_EQ(spread("capex_ratio", 0).count, 6);
  EXPECT_NEAR(consensus.at(row("capex_ratio"), 12, EstimateEnd::High).value(), 46.0 / 752, 1e-12);
  EXPECT_TRUE(spread("revenue_growth", 3).mean.isAbsent());
  EXPECT_TRUE(spread("receivable_days", 0).mean.isAbsent()) << "nobody estimates receivables";
  EXPECT_TRUE(spread("beta", 0).mean.isAbsent());

  // Valued before April's snapshot, January's counts.
  ASSERT_TRUE(session_->apply(setValuationDate(now().caseOf(), makeDate(2026, 3, 31))));
  EXPECT_NEAR(consensusOf(now()).spread(row("revenue_growth"), 12).mean.value(), 722 / 723.703 - 1, 1e-12);
  ASSERT_TRUE(session_->undo());

  const DriverEvidence e = evidenceOf(now(), row("revenue_growth"), 1);
  EXPECT_EQ(e.consensus.size(), 10u);
  ASSERT_TRUE(e.economy.has_value());
  EXPECT_EQ(e.economy->name, "long-run growth EUR");
  EXPECT_DOUBLE_EQ(e.economy->figure.value(), 0.025);
  EXPECT_GT(evidenceOf(now(), row("capex_ratio"), 1).peers.count + e.peers.count, 0);

  // The consensus case: three years from the estimates, base after them.
  Case c = now().caseOf();
  for (const char* driver : {"revenue_growth", "cost_of_sales_ratio", "operating_expense_ratio", "capex_ratio"}) {
    std::map<int, double> years;
    for (int t = 0; t < 3; ++t) years[t] = spread(driver, t).mean.value();
    c = typeDriverYears(c, now().evaluation->model(), kBase, driver, forecastOf(now(), 1, row(driver)), years, {})
            .after;
  }
  const auto reference = referenceValue(now(), Reference::ConsensusMean);
  ASSERT_TRUE(reference) << reference.error().text();
  EXPECT_NEAR(reference->value(), value(c, "value_per_share"), 1e-9);
}

TEST_F(OutlookViews, TrendIsTheSlopeOfTheRegularYears) {
  // By hand from the regular years among the last five; 2024 and 2025 are flagged.
  const DriverEvidence e = evidenceOf(now(), row("cost_of_sales_ratio"), 1);
  const double y[] = {now().history->at(row("cost_of_sales_ratio"), 7).value(),
                      now().history->at(row("cost_of_sales_ratio"), 8).value(),
                      now().history->at(row("cost_of_sales_ratio"), 9).value()};
  EXPECT_NEAR(e.windows[1].trend.value(), (y[2] - y[0]) / 2, 1e-12) << "three even steps: the middle does not count";
  EXPECT_TRUE(e.windows[0].trend.isNotMeaningful()) << "one regular year of three";
}

TEST_F(OutlookViews, CautionIsTheDifferenceToANeutralChoice) {
  const auto sum = sumOfCaution(now());
  ASSERT_TRUE(sum) << sum.error().text();
  ASSERT_GT(sum->lines.size(), 5u);
  double alone = 0;
  Case all = now().caseOf();
  for (const CautionLine& line : sum->lines) {
    const model::Row& r = now().evaluation->model().rows[row(line.row.c_str()).at()];
    ASSERT_TRUE(line.neutral.hasValue()) << line.label;
    const auto neutral = [&](const Case& c) {
      if (r.declared == model::Declared::Driver) {
        return setDriver(c, now().evaluation->model(), kBase, line.row, held(line.neutral.value()), {}).after;
      }
      return setInput(c, now().evaluation->model(), kBase, line.row, line.neutral.value(), {}).after;
    };
    const double effect = value(now().caseOf()) - value(neutral(now().caseOf()));
    EXPECT_NEAR(line.effect.value(), effect, 1e-9) << line.label;
    alone += effect;
    all = neutral(all);
  }
  EXPECT_NEAR(sum->alone.value(), alone, 1e-8);
  EXPECT_NEAR(sum->together.value(), value(now().caseOf()) - value(all), 1e-8);
  EXPECT_TRUE(std::is_sorted(sum->lines.begin(), sum->lines.end(), [](const CautionLine& a, const CautionLine& b) {
    return a.effect.value() < b.effect.value();
  }));
}

TEST_F(OutlookViews, AnAcceptedFindingComesBackWhenItsFigureChanges) {
  ASSERT_NE(finding("negative base year"), nullptr);
  EXPECT_TRUE(finding("negative base year")->isOpen());
  const Finding before = *finding("negative base year");
  ASSERT_TRUE(session_->apply(acknowledge(now().caseOf(), before, session_->said("the recall"))));
  EXPECT_EQ(now().caseOf().acknowledged.begin()->first.find(before.text), std::string::npos) << "known by no prose";
  EXPECT_FALSE(finding("negative base year")->isOpen());
  EXPECT_EQ(finding("negative base year")->acknowledged, "the recall");
  EXPECT_THAT(findingsText(now()), testing::HasSubstr("(acknowledged: the recall)"));
  session_ = open();
  EXPECT_FALSE(finding("negative base year")->isOpen()) << "it is kept with the case";

  // Another basis changes the free cash flow that it speaks of.
  ASSERT_TRUE(session_->apply(
      setInput(now().caseOf(), now().evaluation->model(), kBase, "stock_pay_as_cost", 0, session_->said(""))));
  EXPECT_TRUE(finding("negative base year")->isOpen());
  ASSERT_TRUE(session_->undo());
  EXPECT_FALSE(finding("negative base year")->isOpen());
  ASSERT_TRUE(session_->apply(acknowledge(now().caseOf(), before, std::nullopt)));
  EXPECT_TRUE(finding("negative base year")->isOpen());

  // What was accepted before findings had keys stays accepted, and is opened like any other.
  Case old = now().caseOf();
  old.acknowledged[before.oldKey()] = session_->said("then");
  ASSERT_TRUE(session_->apply({old, "an older program's"}));
  EXPECT_EQ(finding("negative base year")->acknowledged, "then");
  ASSERT_TRUE(session_->apply(acknowledge(now().caseOf(), before, std::nullopt)));
  EXPECT_TRUE(finding("negative base year")->isOpen());
}

TEST(FindingKeys, TellScenariosAndFiguresApartAndNoWords) {
  const Finding a{"path at its limit",
                  Severity::Warning,
                  Stop::Outlook,
                  "Growth (Base) is held at 300.0 in 2026E",
                  "g",
                  1,
                  "",
                  "base"};
  Finding b = a;
  b.text = "Held at 300.0 in 2026E: Growth (Base)";
  EXPECT_EQ(a.key(), b.key());
  b.text = "Growth (Base) is held at 299.0 in 2026E";
  EXPECT_NE(a.key(), b.key());
  b = a;
  b.scenario = "best";
  EXPECT_NE(a.key(), b.key());
  b.row.clear();
  EXPECT_EQ(b.key(), b.oldKey()) << "nothing but its words tells it apart";
}

TEST_F(OutlookViews, ANewYearWaitsIsComparedAndRolledForward) {
  const double before = value(now().caseOf());
  const std::string csv = test::nextYear(now(), 1.05);
  EXPECT_EQ(keepAndRollForward(*session_).error().kind, ErrorKind::NotFound);
  const auto imported = session_->importFiles({{"annual-2026.csv", csv}});
  ASSERT_TRUE(imported) << imported.error().text();

  // Nothing moves by itself, and the page says what waits.
  EXPECT_EQ(now().years().size(), 12u);
  EXPECT_DOUBLE_EQ(value(now().caseOf()), before);
  ASSERT_NE(finding("newer year filed"), nullptr);
  EXPECT_EQ(finding("newer year filed")->stop, Stop::Outlook);

  const auto lines = forecastAgainstActual(now());
  const auto revenue =
      std::find_if(lines.begin(), lines.end(), [](const ForecastAgainstActual& l) { return l.row == "revenue"; });
  ASSERT_NE(revenue, lines.end());
  EXPECT_EQ(revenue->period, "2026");
  EXPECT_DOUBLE_EQ(revenue->forecast[1].value(), now().evaluation->figure("revenue", 12, 1).value());
  EXPECT_NEAR(revenue->gapShare.value(), 0.05, 1e-5);
  for (const ForecastAgainstActual& l : lines) {
    if (l.row == "cash" || l.row == "capex") {
      EXPECT_NEAR(l.gap.value(), 0, 501) << l.label;
    }
  }
  EXPECT_THAT(forecastAgainstActualText(now()), testing::HasSubstr("Revenue, EUR m"));

  const model::RowId growth = row("revenue_growth");
  const std::vector<Figure> typed = forecastOf(now(), 1, growth);
  ASSERT_TRUE(session_->keepVersion("Before 2026 was filed", "a name already taken"));
  const Status rolled = keepAndRollForward(*session_);
  ASSERT_TRUE(rolled) << rolled.error().text();
  EXPECT_EQ(now().years().size(), 13u);
  EXPECT_EQ(now().periodOf(13), "2027E");
  EXPECT_EQ(dateText(now().caseOf().valuationDate), "2026-12-31");
  EXPECT_EQ(finding("newer year filed"), nullptr);
  for (size_t t = 0; t + 1 < typed.size(); ++t) {
    EXPECT_EQ(forecastOf(now(), 1, growth)[t], typed[t + 1]) << "what was typed stays with its year";
  }

  // What moved the value: nobody changed a driver, so the base year and the calendar did.
  const auto from = sideOf(*session_, "Before 2026 was filed (2)");
  ASSERT_TRUE(from) << from.error().text();
  const Side to = *sideOf(*session_, kNow);
  const auto walk = walkBetween(*from, to, kBase, false);
  ASSERT_TRUE(walk) << walk.error().text();
  ASSERT_EQ(walk->gap, "");
  std::vector<std::string> labels;
  double sum = 0;
  for (const WalkStep& step : walk->steps) {
    labels.push_back(step.label);
    sum += step.effect;
  }
  EXPECT_EQ(labels, (std::vector<std::string>{"Peers", "Calendar", "Filed figures"}))
      << "minorities' new income is valued at the peers' multiple";
  EXPECT_NEAR(walk->from.value(), before, 1e-9);
  EXPECT_NEAR(walk->to.value(), value(now().caseOf()), 1e-9);
  EXPECT_NEAR(sum, walk->to.value() - walk->from.value(), 1e-7);

  ASSERT_TRUE(session_->undo());
  EXPECT_EQ(now().years().size(), 12u);
  EXPECT_DOUBLE_EQ(value(now().caseOf()), before);
  ASSERT_TRUE(session_->redo());
  session_ = open();
  EXPECT_EQ(now().years().size(), 13u);
}

TEST_F(OutlookViews, AnAssumptionTellsWhoChangedItFromWhatToWhatAndWhy) {
  const model::Model& m = now().evaluation->model();
  const auto set = [&](const char* scenario, const char* driver, double level, const char* why) {
    ASSERT_TRUE(session_->apply(setDriver(now().caseOf(), m, scenario, driver, held(level), session_->said(why))));
  };
  set("best", "tax_rate", 0.22, "a lower rate abroad");
  set(kBase, "tax_rate", 0.26, "not this one");
  set("best", "tax_rate", 0.20, "lower still");
  set("best", "tax_rate", 0.10, "undone");
  ASSERT_TRUE(session_->undo());
  ASSERT_TRUE(session_->apply(clearDriver(now().caseOf(), m, "best", "tax_rate")));
  const auto told = historyOf(*session_, "best", "tax_rate");
  ASSERT_TRUE(told) << told.error().text();
  const std::vector<AssumptionChange>& changes = told->changes;
  ASSERT_GE(changes.size(), 3u);
  EXPECT_EQ(told->untoldBefore, 0);
  EXPECT_EQ(changes[0].to, "") << "it follows base again";
  EXPECT_EQ(changes[0].from, "holds 20.0 %");
  EXPECT_EQ(changes[1].from, "holds 22.0 %");
  EXPECT_EQ(changes[1].reason, "lower still");
  EXPECT_EQ(changes[1].author, "tester");
  EXPECT_EQ(changes[2].to, "holds 22.0 %");
  EXPECT_EQ(changeText(changes[2]), "nothing of its own -> holds 22.0 %  (a lower rate abroad)");
  EXPECT_EQ(historyOf(*session_, "best", "no_row").error().kind, ErrorKind::NotFound);
}

TEST_F(OutlookViews, ASnapshotOfEstimatesAddsToThoseThereAre) {
  const auto count = now().market->estimates.size();
  const std::string later =
      "item,year,low,mean,high,count,date,source\nrevenue,2026,710000000,735000000,760000000,9,2026-04-29,later\n";
  ASSERT_TRUE(session_->importFiles({{"estimates-2.csv", later}}));
  EXPECT_EQ(now().market->estimates.size(), count + 1);
  EXPECT_NEAR(consensusOf(now()).spread(row("revenue_growth"), 12).mean.value(), 735 / 723.703 - 1, 1e-12);
  ASSERT_TRUE(session_->undo());
  EXPECT_EQ(now().market->estimates.size(), count);
  const auto refused =
      session_->importFiles({{"bad.csv", "item,year,low,mean,high,count,date,source\nrevenue,2026\n"}});
  ASSERT_FALSE(refused);
  EXPECT_THAT(refused.error().text(), testing::HasSubstr("bad.csv"));
}

TEST_F(OutlookViews, AnUndoDoesNotRunOverWhatAnotherProgramDid) {
  const auto other = open();
  ASSERT_TRUE(session_->apply(setHorizon(now().caseOf(), 8)));
  const auto late = open();
  ASSERT_TRUE(late->apply(setHorizon(late->now()->caseOf(), 9)));
  const Status refused = session_->undo();
  ASSERT_FALSE(refused);
  EXPECT_EQ(refused.error().kind, ErrorKind::Conflict);
  EXPECT_EQ(open()->now()->caseOf().horizon, 9) << "what the other stored stands";
  EXPECT_EQ(now().caseOf().horizon, 9) << "and is shown here";
  EXPECT_FALSE(other->apply(setHorizon(other->now()->caseOf(), 6))) << "an edit is told the same";
}

TEST_F(OutlookViews, AFurtherScenarioIsOneMoreLane) {
  ASSERT_TRUE(session_->apply(addScenario(now().caseOf(), "Long recall", "worst")));
  ASSERT_EQ(now().evaluation->scenarios(), 4);
  EXPECT_DOUBLE_EQ(now().evaluation->constant("raw_value", 3).value(),
                   now().evaluation->constant("raw_value", 0).value());
  EXPECT_EQ(now().caseOf().scenarios[3].id, "longrecall");
  EXPECT_TRUE(weightedValue(*now().evaluation, model::Role::ValueBeforeFloor).hasValue()) << "it weighs nothing yet";
  ASSERT_TRUE(session_->apply(renameScenario(now().caseOf(), "longrecall", "Long")));
  ASSERT_TRUE(session_->apply(removeScenario(now().caseOf(), "longrecall")));
  EXPECT_EQ(now().evaluation->scenarios(), 3);
}

}  // namespace
}  // namespace zl::services
