// Every edit: applied, undone, redone, reopened; and what it leaves alone.

#include "services/edits/edits.h"
#include "services/views/method_figures.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <functional>

#include "services/edits/driver_moves.h"
#include "services/edits/scenario_edits.h"
#include "services/reports/report.h"
#include "services/views/driver_evidence.h"
#include "tests/support/demo_book.h"

namespace zl::services {
namespace {

using test::DemoBook;

struct NamedEdit {
  const char* name;
  std::function<CaseEdit(const Case&, const model::Model&)> make;
  const char* label;
};

Path held(double level) {
  Path p;
  p.level = level;
  return p;
}

class Edits : public DemoBook, public testing::WithParamInterface<NamedEdit> {};

TEST_P(Edits, ApplyUndoRedoAndReopen) {
  auto session = open();
  const Case before = session->now()->caseOf();
  const CaseEdit edit = GetParam().make(before, session->now()->evaluation->model());
  ASSERT_FALSE(edit.after == before) << "the edit changes nothing";
  EXPECT_EQ(edit.label, GetParam().label);
  ASSERT_TRUE(session->apply(edit));
  EXPECT_EQ(session->now()->caseOf(), edit.after);
  EXPECT_EQ(session->undoLabel(), edit.label);
  ASSERT_TRUE(session->undo());
  EXPECT_EQ(session->now()->caseOf(), before);
  session = open();
  EXPECT_EQ(session->now()->caseOf(), before);
  ASSERT_TRUE(session->redo());
  EXPECT_EQ(session->now()->caseOf(), edit.after);
  EXPECT_EQ(open()->now()->caseOf(), edit.after);
}

INSTANTIATE_TEST_SUITE_P(
    All, Edits,
    testing::Values(
        NamedEdit{"Adjust",
                  [](const Case& c, const model::Model& m) {
                    return setAdjustment(c, m, "exceptional_items", 2025, 34300000, 0.0, {"closure", "me", "t"});
                  },
                  "Adjust Exceptional items 2025"},
        NamedEdit{"KeepWindow",
                  [](const Case& c, const model::Model&) {
                    return keepWindow(c, {2016, 2021, "before the recall"});
                  },
                  "Keep the window 2016 to 2021"},
        NamedEdit{"OwnLine", [](const Case& c, const model::Model&) { return addOwnLine(c, "Rent paid", true); },
                  "Add the line Rent paid"},
        NamedEdit{"MoveThreshold",
                  [](const Case& c, const model::Model&) {
                    return setTest(c, "cover", "EBIT over gross interest", TestChoice{2.0, ""});
                  },
                  "Set test EBIT over gross interest"},
        NamedEdit{"ExemptFromATest",
                  [](const Case& c, const model::Model&) {
                    return setTest(c, "tax", "Tax rate", TestChoice{std::nullopt, "losses"});
                  },
                  "Set test Tax rate"},
        NamedEdit{"SetDriver",
                  [](const Case& c, const model::Model& m) {
                    return setDriver(c, m, "worst", "beta", held(1.4), {"w", "me", "t"});
                  },
                  "Set Beta (Worst)"},
        NamedEdit{"TypeYears",
                  [](const Case& c, const model::Model& m) {
                    return typeDriverYears(c, m, "base", "capex_ratio", std::vector<Figure>(10, Figure::of(0.05)),
                                           {{2, 0.07}}, {});
                  },
                  "Set Capex, share of revenue (Base)"},
        NamedEdit{"ClearDriver",
                  [](const Case& c, const model::Model& m) { return clearDriver(c, m, "worst", "inventory_days"); },
                  "Reset Inventory days, on closing balance (Worst)"},
        NamedEdit{"SetReason",
                  [](const Case& c, const model::Model& m) {
                    return setReason(c, m, "best", "beta", {"why", "me", "t"});
                  },
                  "Reason for Beta (Best)"},
        NamedEdit{"SetInput",
                  [](const Case& c, const model::Model& m) { return setInput(c, m, "best", "exit_multiple", 9, {}); },
                  "Set Exit multiple (Best)"},
        NamedEdit{"SetProbability", [](const Case& c, const model::Model&) { return setProbability(c, "worst", 0.3); },
                  "Set probability (Worst)"},
        NamedEdit{"Flag", [](const Case& c, const model::Model&) { return setExceptional(c, 2021, "boom"); },
                  "Flag 2021 as exceptional"},
        NamedEdit{"Unflag", [](const Case& c, const model::Model&) { return setExceptional(c, 2024, std::nullopt); },
                  "Unflag 2024 as exceptional"},
        NamedEdit{"PeerOut",
                  [](const Case& c, const model::Model&) {
                    return setPeerChoice(c, "sorrelund/ev-ebitda", "Take out", PeerChoice{false, "x"});
                  },
                  "Take out"},
        NamedEdit{"PeerByRule",
                  [](const Case& c, const model::Model&) {
                    return setPeerChoice(c, "quillhaven/ev-ebitda", "By rule", std::nullopt);
                  },
                  "By rule"},
        NamedEdit{"Horizon", [](const Case& c, const model::Model&) { return setHorizon(c, 5); },
                  "Set horizon to 5 years"},
        NamedEdit{"Date", [](const Case& c, const model::Model&) { return setValuationDate(c, makeDate(2026, 3, 31)); },
                  "Set valuation date to 2026-03-31"},
        NamedEdit{"Stages",
                  [](const Case& c, const model::Model&) {
                    return setStages(c, {3, 4, 3});
                  },
                  "Set stages to 3 + 4 + 3 years"},
        NamedEdit{"Follow",
                  [](const Case& c, const model::Model& m) {
                    Path p;
                    p.shape = Shape::Follow;
                    p.distance = -0.02;
                    p.widening = true;
                    return setDriver(c, m, "worst", "revenue_growth", p, {"slower", "me", "t"});
                  },
                  "Set Revenue growth (Worst)"},
        NamedEdit{"AddScenario",
                  [](const Case& c, const model::Model&) { return addScenario(c, "Long Recall", "worst"); },
                  "Add the scenario Long Recall"},
        NamedEdit{"SwapScenarios", [](const Case& c, const model::Model&) { return swapScenarios(c, "worst", "best"); },
                  "Swap Worst and Best"},
        NamedEdit{"ResetScenario", [](const Case& c, const model::Model&) { return resetScenario(c, "worst"); },
                  "Reset Worst to base"},
        NamedEdit{"CopyScenario",
                  [](const Case& c, const model::Model& m) { return copyScenario(c, m, "worst", "best"); },
                  "Copy Worst to Best"},
        NamedEdit{"Note",
                  [](const Case& c, const model::Model& m) { return setNote(c, m, "revenue", "look \"again\"\n– ü"); },
                  "Note on Revenue"}),
    [](const auto& c) { return std::string(c.param.name); });

TEST_F(DemoBook, TypingAYearLeavesItsNeighboursAndKeepsTheReason) {
  auto session = open();
  const Case c = session->now()->caseOf();
  const model::Model& m = session->now()->evaluation->model();
  std::vector<Figure> current;
  for (int column = 12; column < 22; ++column)
    current.push_back(session->now()->evaluation->figure("inventory_days", column, 0));
  const CaseEdit edit =
      typeDriverYears(c, m, "worst", "inventory_days", current, {{3, 140}, {5, 130}}, {"", "me", "t"});
  ASSERT_TRUE(session->apply(edit));
  for (int i = 0; i < 10; ++i) {
    const double expected = i == 3 ? 140 : i == 5 ? 130 : current[static_cast<size_t>(i)].value();
    EXPECT_DOUBLE_EQ(session->now()->evaluation->figure("inventory_days", 12 + i, 0).value(), expected) << i;
  }
  EXPECT_EQ(session->now()->caseOf().scenarios[0].drivers.at("inventory_days").said.reason,
            "Recalled stock sells slowly");
  EXPECT_EQ(session->now()->caseOf().scenarios[1], c.scenarios[1]) << "base is untouched";
}

TEST_F(DemoBook, AShorterHorizonKeepsPathsThatStillMakeSense) {
  auto session = open();
  ASSERT_TRUE(session->apply(setHorizon(session->now()->caseOf(), 3)));
  EXPECT_TRUE(faultsOf(session->now()->caseOf(), session->now()->evaluation->model()).empty());
  EXPECT_EQ(session->now()->caseOf().base().drivers.at("cost_of_sales_ratio").path.to, 0)
      << "a glide past the end arrives in the last year";
  EXPECT_EQ(session->now()->caseOf().base().drivers.at("revenue_growth").path.typed.size(), 10u)
      << "typed years are kept for later";
}

TEST_F(DemoBook, StagesFollowTheHorizon) {
  const auto session = open();
  Case c = setStages(session->now()->caseOf(), {3, 4, 3}).after;
  EXPECT_EQ(setHorizon(c, 5).after.stages, (std::vector<int>{3, 2}));
  EXPECT_EQ(setHorizon(c, 14).after.stages, (std::vector<int>{3, 4, 7}));
  EXPECT_EQ(setHorizon(c, 3).after.stages, std::vector<int>{}) << "one stage needs no list";
  EXPECT_EQ(setHorizon(c, 0).after.stages, std::vector<int>{}) << "and none needs none: the horizon itself is refused";
  EXPECT_FALSE(session->preview(setHorizon(c, 0).after));
}

TEST_F(DemoBook, ShapesStartFromWhereThePathRuns) {
  auto session = open();
  ASSERT_TRUE(session->apply(setStages(session->now()->caseOf(), {3, 7})));
  const Snapshot& s = *session->now();
  const model::RowId row = s.evaluation->model().find("revenue_growth");
  const std::vector<Figure> before = forecastOf(s, 1, row);
  ShapeWish wish;
  wish.path.shape = Shape::Steps;
  EXPECT_EQ(shaped(s, 1, row, wish).typed, (std::vector<std::optional<double>>{before[2].value(), before[9].value()}));
  wish.path.shape = Shape::Recovery;
  wish.path.to = 4;
  EXPECT_EQ(shaped(s, 1, row, wish).level, before[9].value());
  wish.path.shape = Shape::Follow;
  EXPECT_NEAR(shaped(s, 0, row, wish).distance, forecastOf(s, 0, row)[9].value() - before[9].value(), 1e-15);

  // Several at once are one edit, each from its own figures; what is typed goes to all.
  const model::RowId margin = s.evaluation->model().find("operating_expense_ratio");
  wish.path.shape = Shape::Hold;
  wish.path.level = 0.05;
  wish.level = true;
  ASSERT_TRUE(session->apply(shapeDrivers(s, 1, {row, margin}, wish, {"", "me", "t"})));
  EXPECT_EQ(session->undoLabel(), "Shape 2 drivers: hold (Base)");
  for (const model::RowId r : {row, margin}) EXPECT_DOUBLE_EQ(forecastOf(*session->now(), 1, r)[5].value(), 0.05);
  EXPECT_FALSE(session->now()->caseOf().base().drivers.at("revenue_growth").said.reason.empty());
}

TEST_F(DemoBook, AMoveStopsAtTheRangeOfItsDriver) {
  auto session = open();
  const model::RowId row = session->now()->evaluation->model().find("tax_rate");
  ASSERT_TRUE(session->apply(moveDriver(*session->now(), 1, row, Grip::Stage, 0, 0.9, {})));
  for (const Figure& f : forecastOf(*session->now(), 1, row)) EXPECT_DOUBLE_EQ(f.value(), 0.6);
}

TEST_F(DemoBook, CopiedOverBaseNobodyElseMoves) {
  auto session = open();
  const auto values = [&] {
    std::vector<double> list;
    for (int i : {0, 1, 2}) list.push_back(session->now()->evaluation->constant("value_per_share", i).value());
    return list;
  };
  const std::vector<double> before = values();
  ASSERT_TRUE(
      session->apply(copyScenario(session->now()->caseOf(), session->now()->evaluation->model(), "best", kBase)));
  const std::vector<double> after = values();
  EXPECT_DOUBLE_EQ(after[0], before[0]);
  EXPECT_DOUBLE_EQ(after[1], before[2]) << "base is what best was";
  EXPECT_DOUBLE_EQ(after[2], before[2]);
  EXPECT_TRUE(session->now()->caseOf().scenarios[2].drivers.empty()) << "only differences are kept";
}

TEST_F(DemoBook, EditsOfScenariosThatDoNotExistDoNothing) {
  const auto session = open();
  const Case& c = session->now()->caseOf();
  EXPECT_EQ(setDriver(c, session->now()->evaluation->model(), "middling", "beta", held(1), {}).after, c);
  EXPECT_EQ(setProbability(c, "middling", 1).after, c);
  EXPECT_EQ(copyScenario(c, session->now()->evaluation->model(), "middling", kBase).after, c);
  EXPECT_EQ(removeScenario(c, kBase).after, c) << "the others stand on it";
  EXPECT_EQ(swapScenarios(c, kBase, "best").after, c);
}

TEST_F(DemoBook, MovingBaseMovesWhoeverFollowsIt) {
  auto session = open();
  const auto beta = [&](int scenario) { return session->now()->evaluation->figure("beta", 12, scenario).value(); };
  ASSERT_TRUE(session->apply(
      setDriver(session->now()->caseOf(), session->now()->evaluation->model(), "best", "beta", held(1.0), {})));
  ASSERT_TRUE(session->apply(
      setDriver(session->now()->caseOf(), session->now()->evaluation->model(), "base", "beta", held(1.3), {})));
  EXPECT_DOUBLE_EQ(beta(0), 1.3);
  EXPECT_DOUBLE_EQ(beta(2), 1.0);
}

TEST_F(DemoBook, EvidenceLeavesOutExceptionalYears) {
  const auto session = open();
  const Snapshot& s = *session->now();
  const model::RowId row = s.evaluation->model().find("inventory_days");
  const DriverEvidence e = evidenceOf(s, row, 1);
  ASSERT_EQ(e.windows.size(), 3u);
  EXPECT_EQ(e.windows[0].all.count, 3);
  EXPECT_EQ(e.windows[0].regular.count, 1) << "2024 and 2025 are flagged";
  EXPECT_NEAR(e.windows[0].regular.median.value(), e.history[9].value(), 1e-12);
  EXPECT_NEAR(e.windows[1].all.mean.value(),
              (e.history[7].value() + e.history[8].value() + e.history[9].value() + e.history[10].value() +
               e.history[11].value()) /
                  5,
              1e-9);
  EXPECT_EQ(e.spread.count, 10);
  // 112 days in the last year: nine of ten regular years lie below (2023 is above).
  EXPECT_NEAR(e.percentile.value(), 0.9, 1e-12);
}

TEST_F(DemoBook, GrowthEvidenceAlsoDropsTheYearAfterAnExceptionalOne) {
  auto session = open();
  ASSERT_TRUE(session->apply(setExceptional(session->now()->caseOf(), 2020, "plague")));
  const Snapshot& s = *session->now();
  const DriverEvidence e = evidenceOf(s, s.evaluation->model().find("revenue_growth"), 1);
  EXPECT_TRUE(e.exceptional[6] && e.exceptional[7]) << "2020, and 2021 off its base";
  EXPECT_FALSE(e.exceptional[8]);
  const DriverEvidence ratio = evidenceOf(s, s.evaluation->model().find("capex_ratio"), 1);
  EXPECT_TRUE(ratio.exceptional[6]);
  EXPECT_FALSE(ratio.exceptional[7]);
}

TEST(HistoryEdits, TakeBackWhatTheyGave) {
  const Case c = newCase("x", makeDate(2026, 1, 1));
  const model::Model m;
  const Case adjusted = setAdjustment(c, m, "ebit", 2025, 10, 12.0, {}).after;
  EXPECT_DOUBLE_EQ(adjusted.adjustments.at({"ebit", 2025}).amount, 2);
  const CaseEdit back = setAdjustment(adjusted, m, "ebit", 2025, 10, std::nullopt, {});
  EXPECT_EQ(back.after, c);
  EXPECT_EQ(back.label, "Take back the adjustment of ebit 2025");
  EXPECT_EQ(dropWindow(keepWindow(c, {2020, 2024, "r"}).after, 2020, 2024).after, c);
  EXPECT_EQ(dropWindow(c, 2020, 2024).after, c) << "what is not kept cannot be dropped";
  Case own = addOwnLine(c, "Rent", true).after;
  own.lines["x:Rent"] = {"own_rent", 1, ""};
  own.lines["x:Other"] = {"revenue", 1, ""};
  own.firstFiled = {"own_rent"};
  own.notes["own_rent"] = "note";
  own.adjustments[{"own_rent", 2025}] = {1, {}};
  const CaseEdit dropped = dropOwnLine(own, "own_rent");
  EXPECT_EQ(dropped.label, "Drop the line Rent");
  EXPECT_EQ(dropped.after.lines.size(), 1u) << "other concepts stay where they are";
  EXPECT_TRUE(dropped.after.ownLines.empty() && dropped.after.firstFiled.empty() && dropped.after.notes.empty());
  EXPECT_TRUE(dropped.after.adjustments.empty());
  EXPECT_EQ(setTest(setTest(c, "t", "T", TestChoice{1.0, ""}).after, "t", "T", std::nullopt).after, c);
}

TEST_F(DemoBook, TextAndJsonTellTheSameFigures) {
  const auto session = open();
  const Snapshot& s = *session->now();
  const Json value = valueJson(s);
  const std::string words = valueText(s);
  for (const Json& scenario : value["scenarios"]) {
    char shown[32];
    const double v = scenario["figures"]["value_per_share"].get<double>();
    std::snprintf(shown, sizeof shown, "%.1f", v);
    std::string grouped = shown;
    if (v >= 1000) grouped.insert(grouped.size() - 5, ",");
    EXPECT_THAT(words, testing::HasSubstr(grouped));
  }
  const Json statements = statementsJson(s, 1);
  EXPECT_EQ(statements["periods"].size(), 22u);
  EXPECT_EQ(statements["periods"][11], "2025");
  EXPECT_EQ(statements["periods"][12], "2026E");
  for (const Json& row : statements["rows"]) EXPECT_EQ(row["figures"].size(), 22u) << row["row"];
  const Json findings = findingsJson(s);
  EXPECT_EQ(findings.size(), s.findings().size());
  EXPECT_EQ(factsJson(s).size(), s.evidence->facts.size());
}

TEST_F(DemoBook, GapsReachJsonAsWhatTheyAre) {
  auto session = open();
  ASSERT_TRUE(session->apply(
      setInput(session->now()->caseOf(), session->now()->evaluation->model(), "base", "terminal_growth", 0.14, {})));
  const Json figures = valueJson(*session->now())["scenarios"][1]["figures"];
  EXPECT_EQ(figures["value_per_share"]["not_meaningful"], "the discount rate does not exceed growth");
  EXPECT_TRUE(figures["value_exit"].is_number());
  EXPECT_THAT(valueText(*session->now()),
              testing::HasSubstr("Base has no value: the discount rate does not exceed growth"));
}

TEST_F(DemoBook, ImpliedGrowthSatisfiesTheRuleInUse) {
  auto session = open();
  for (double keep : {0.0, 0.5, 1.0}) {
    ASSERT_TRUE(session->apply(
        setInput(session->now()->caseOf(), session->now()->evaluation->model(), "base", "return_weight", keep, {})));
    const std::vector<double> roots = impliedGrowthOf(*session->now(), 1);
    ASSERT_FALSE(roots.empty()) << keep;
    const double exit = session->now()->evaluation->constant("exit_terminal_value", 1).value();
    // Putting a root in as the terminal growth gives the exit's present value back.
    const auto check = session->preview(setInput(session->now()->caseOf(), session->now()->evaluation->model(), "base",
                                                 "terminal_growth", roots.back(), {})
                                            .after);
    ASSERT_TRUE(check) << check.error().text();
    EXPECT_NEAR((*check)->evaluation->constant("growth_terminal_value", 1).value(), exit, 1e-6 * exit) << keep;
  }
}

TEST_F(DemoBook, PreviewStoresNothing) {
  const auto session = open();
  const auto before = session->now();
  const auto next = session->preview(setHorizon(before->caseOf(), 4).after);
  ASSERT_TRUE(next);
  EXPECT_EQ((*next)->caseOf().horizon, 4);
  EXPECT_EQ(session->now(), before);
  EXPECT_EQ(open()->now()->caseOf().horizon, 10);
}

}  // namespace
}  // namespace zl::services
