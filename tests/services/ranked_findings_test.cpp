// Findings about what an outlook stands on, and the order in which all findings are shown. Expected: what each
// monitor's limit says, and the order by severity, then by what the driver moves.

#include "services/views/ranked_findings.h"

#include <gmock/gmock.h>

#include "core/quantity/number_text.h"
#include "services/edits/edits.h"
#include "services/reports/report.h"
#include "tests/support/demo_book.h"

namespace zl::services {
namespace {

using testing::HasSubstr;

class RankedFindingsOfDemo : public test::DemoBook {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    session_ = open();
  }
  const Snapshot& now() const { return *session_->now(); }
  void type(const char* row, double figure, const char* reason) {
    ASSERT_TRUE(session_->apply(setInput(now().caseOf(), now().model(), kBase, row, figure, said(reason))));
  }
  void hold(const char* scenario, const char* row, double level) {
    Path path;
    path.level = level;
    ASSERT_TRUE(session_->apply(setDriver(now().caseOf(), now().model(), scenario, row, path, said("tried"))));
  }
  static Provenance said(const std::string& reason) { return {reason, "tester", "2026-05-01T12:00:00Z"}; }
  std::vector<std::string> textsOf(const std::string& monitor) const {
    std::vector<std::string> texts;
    for (const Finding& f : now().findings()) {
      if (f.monitor == monitor) texts.push_back(f.text);
    }
    return texts;
  }

  std::unique_ptr<Session> session_;
};

TEST_F(RankedFindingsOfDemo, WhatAnOutlookStandsOnIsHeldAgainstItsEvidence) {
  EXPECT_THAT(textsOf("multiple away from its reason"), testing::IsEmpty())
      << "the demo's reasons agree with its peers";
  type("exit_multiple", 7.5, "Near the peers' median");
  EXPECT_THAT(textsOf("multiple away from its reason"), testing::ElementsAre(HasSubstr("the peers' median is 10.29")));
  type("exit_multiple", 7.5, "A quarter under the peers' median");
  EXPECT_THAT(textsOf("multiple away from its reason"), testing::IsEmpty()) << "a distance is no claim";
  for (const char* said : {"Nahe dem Median der Vergleichsgruppe", "Proche de la m\u00E9diane des pairs",
                           "Cerca de la mediana de los pares", "Near de mediaan van peers"}) {
    type("exit_multiple", 7.5, said);
    EXPECT_THAT(textsOf("multiple away from its reason"), testing::ElementsAre(HasSubstr("the peers' median is 10.29")))
        << said;
  }
  type("exit_multiple", 7.5, "Ein Viertel unter dem Median der Vergleichsgruppe");
  EXPECT_THAT(textsOf("multiple away from its reason"), testing::IsEmpty()) << "nor is one in German";

  EXPECT_THAT(textsOf("tax far from marginal"), testing::IsEmpty());
  hold(kBase, "tax_rate", 0.12);
  EXPECT_THAT(textsOf("tax far from marginal"), testing::ElementsAre(HasSubstr("12.0 % in the last forecast year")));

  EXPECT_THAT(textsOf("cash flow not explained"), testing::ElementsAre(HasSubstr("2025 (102.2 %)")))
      << "26.5 m were written down, not paid, over 25.9 m of operating cash flow";
}

TEST_F(RankedFindingsOfDemo, WhatTheOtherModelMakesOfTheCaseIsToldWhereItIsFarAway) {
  const auto on = [&](const char* name) {
    Case other = now().caseOf();
    other.model = name;
    const Result<Evaluated> there = now().evaluator->evaluate(now().sources(), other);
    EXPECT_TRUE(there);
    return there->evaluation->constant(model::Role::ValueBeforeFloor, other.indexOf(kBase));
  };
  const Figure full = on("standard"), quick = on("quick");
  ASSERT_GT(std::max(full.value() / quick.value(), quick.value() / full.value()), 1.25);
  EXPECT_THAT(textsOf("models apart"),
              testing::ElementsAre(testing::AllOf(HasSubstr("Quick outlook"), HasSubstr(figureText(quick, Kind::Quote)),
                                                  HasSubstr("EBIT"), HasSubstr("% of revenue here"))));
  ASSERT_TRUE(session_->apply(setLimit(now().caseOf(), "models apart", 50)));
  EXPECT_THAT(textsOf("models apart"), testing::IsEmpty());
  CaseEdit change{now().caseOf(), "the other model"};
  change.after.model = "quick";
  change.after.limits.clear();
  ASSERT_TRUE(session_->apply(change));
  EXPECT_THAT(textsOf("models apart"), testing::ElementsAre(HasSubstr(figureText(full, Kind::Quote))));
}

/// Expected: the case typed a tenth higher, one row after the other, and valued whole.
TEST_F(RankedFindingsOfDemo, WhatIsNotDecidedAndMovesTheValueMostIsNamedToWhoReadsIt) {
  const Snapshot& s = now();
  const Case& c = s.caseOf();
  const int lane = c.indexOf(kBase);
  const model::RowId value = s.model().find(model::Role::ValueBeforeFloor);
  std::vector<std::pair<double, std::string>> moved;
  for (size_t r = 0; r < s.model().rows.size(); ++r) {
    const model::Row& row = s.model().rows[r];
    Case typed = c;
    if (!row.projected || row.isChoice()) continue;
    if (row.declared == model::Declared::Driver && c.driver(c.base(), row.name) == nullptr) {
      Path path;
      path.shape = Shape::Typed;
      for (int column = s.evaluation->layout().historyYears; column < s.evaluation->layout().columns(); ++column)
        path.typed.emplace_back(1.1 * s.evaluation->figure(model::RowId(r), column, lane).orNaN());
      typed.scenario(kBase)->drivers[row.name] = {path, {}};
    } else if (row.declared == model::Declared::Input && c.input(c.base(), row.name) == nullptr) {
      typed.scenario(kBase)->inputs[row.name].figure = 1.1 * s.evaluation->constant(model::RowId(r), lane).orNaN();
    } else {
      continue;
    }
    const Result<Evaluated> then = s.evaluator->evaluate(s.sources(), typed);
    if (!then) continue;  // beyond its range, or of what nobody knows
    const Figure apart = then->evaluation->constant(value, lane) - s.evaluation->constant(value, lane);
    if (apart.hasValue()) moved.emplace_back(-std::abs(apart.value()), row.label);
  }
  std::stable_sort(moved.begin(), moved.end());
  ASSERT_GT(moved.size(), 20u);
  const std::string most = moved[0].second + ", " + moved[1].second + ", " + moved[2].second;
  for (const Finding& f : s.findings()) {
    const bool asked = f.monitor == "models apart" || f.monitor.starts_with("value far from");
    EXPECT_EQ(s.textOf(f), asked ? f.text + "; what is not decided and moves it most: " + most : f.text);
  }
  EXPECT_THAT(findingsText(s), HasSubstr("moves it most: " + most));
  EXPECT_THAT(findingsJson(s).dump(), HasSubstr("moves it most: " + most));
}

TEST_F(RankedFindingsOfDemo, SeverityGoesFirstThenWhatMovesTheValue) {
  for (const char* scenario : {kWorst, kBase, kBest}) hold(scenario, "operating_expense_ratio", 0.2);
  hold(kBase, "tax_rate", 0.1);
  const RankedFindings ranked = rankedFindings(now());
  size_t counted = 0;
  int severity = 9;
  double share = 1e9;
  for (const RankedFinding& r : ranked.shown) {
    const Finding& f = now().findings()[r.finding];
    counted += 1 + r.alike.size();
    if (!f.acknowledged.empty()) continue;
    const int of = static_cast<int>(f.severity);
    EXPECT_LE(of, severity) << f.text;
    if (of < severity) share = 1e9;
    severity = of;
    if (!r.hasShare()) continue;
    EXPECT_LE(r.share.value(), share) << f.text;
    EXPECT_TRUE(r.share.value() >= 0.01 || f.severity == Severity::Fault) << f.text;
    share = r.share.value();
  }
  for (const RankedFinding& r : ranked.folded) {
    counted += 1 + r.alike.size();
    EXPECT_LT(r.share.value(), 0.01);
    EXPECT_THAT(foldedText(ranked, now()), HasSubstr(now().findings()[r.finding].monitor));
  }
  EXPECT_EQ(counted, now().findings().size()) << "none is lost";
  const auto margin = std::find_if(ranked.shown.begin(), ranked.shown.end(), [&](const RankedFinding& r) {
    return now().findings()[r.finding].monitor == "margin above any seen";
  });
  ASSERT_NE(margin, ranked.shown.end());
  EXPECT_THAT(textOf(*margin, now()), HasSubstr("; the same in Base, Best")) << "one line for all scenarios";
  const std::string name = now().findings()[margin->finding].row;
  ASSERT_TRUE(session_->apply(acknowledgeLine(*margin, now(), said("a new plant"))));
  for (const Finding& f : now().findings()) {
    if (f.monitor != "margin above any seen" || f.row != name) continue;
    EXPECT_EQ(f.acknowledged, "a new plant") << f.scenario;
  }
}

}  // namespace
}  // namespace zl::services
