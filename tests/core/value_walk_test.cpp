// The value walk against hand-worked games and the properties that define the Shapley value.

#include "core/outlook/value_walk.h"

#include <numeric>

#include "tests/support/model_support.h"

namespace zl {
namespace {

/// Grounds for a model of a few lines: history rules read the mixture's base inputs.
struct Game {
  model::Model model;
  std::map<std::string, std::vector<Figure>> filed[2];  ///< by end
  WalkEnd ends[2] = {{newCase("x", makeDate(2026, 1, 1)), {}}, {newCase("x", makeDate(2026, 1, 1)), {}}};
  WalkPlan plan = {kBase, false, false};

  void choose(int end, const std::string& input, double figure, const std::string& scenario = kBase) {
    Case& c = ends[end].assumptions;
    c.scenarios[static_cast<size_t>(c.indexOf(scenario))].inputs[input] = {figure, {}, {}};
  }
  void hold(int end, const std::string& driver, double level) {
    Path path;
    path.level = level;
    Case& c = ends[end].assumptions;
    c.scenarios[static_cast<size_t>(c.indexOf(kBase))].drivers[driver] = {path, {}};
  }
  Result<ValueWalk> walk(int from = 0) const {
    return walkValue(ends[from], ends[1 - from], plan, [&](const Case& mixed, bool second) -> Result<Ground> {
      test::SmallModel m;
      m.model = model;
      m.filed = filed[second != (from == 1) ? 1 : 0];
      m.theCase = mixed;
      m.horizon = mixed.horizon;
      for (Scenario& s : m.theCase.scenarios) s.drivers.clear();
      const Evaluation e = m.evaluate();
      const model::Layout layout = e.layout();
      return Ground{
          e.compiled(),
          std::make_shared<const model::HistoryTable>(
              model, layout, [&](const std::string& row, int c) { return m.filed.at(row)[static_cast<size_t>(c)]; },
              [&](model::RowId row) { return constantFigure(model[row], mixed, mixed.base(), {}); })};
    });
  }
};

/// A model of a few lines whose row raw_value is walked, whatever its kind.
model::Model valued(const std::string& rows) {
  model::Model m = test::modelOf(rows);
  m.roles[static_cast<size_t>(model::Role::ValueBeforeFloor)] = m.find("raw_value");
  return m;
}

Game gameOf(const std::string& rows) {
  Game g;
  g.model = valued(rows);
  g.filed[0]["none"] = g.filed[1]["none"] = test::figures({1});
  return g;
}

double sum(const ValueWalk& walk) {
  return std::accumulate(walk.steps.begin(), walk.steps.end(), 0.0,
                         [](double s, const WalkStep& step) { return s + step.effect; });
}

constexpr const char* kTwoInputs =
    "group \"Width\"\ninput a \"A\" ratio constant\ngroup \"Height\"\ninput b \"B\" ratio constant\n"
    "input c \"C\" ratio constant\n default 1\ngroup \"Value\"\n";

TEST(ValueWalk, SharesAProductEqually) {
  // 2 x 3 to 4 x 5. Width first 6, last 10: mean 8. Height last 8, first 4: mean 6. Together 14.
  Game g = gameOf(std::string(kTwoInputs) + "row raw_value \"Value\" ratio constant\n value a * b * c\n");
  g.choose(0, "a", 2);
  g.choose(0, "b", 3);
  g.choose(1, "a", 4);
  g.choose(1, "b", 5);
  const auto walk = g.walk();
  ASSERT_TRUE(walk) << walk.error().text();
  ASSERT_EQ(walk->steps.size(), 2u);
  EXPECT_EQ(walk->steps[0].label, "Width");
  EXPECT_NEAR(walk->steps[0].effect, 8, 1e-12);
  EXPECT_NEAR(walk->steps[1].effect, 6, 1e-12);
  EXPECT_EQ(walk->steps[1].rows, std::vector<std::string>{"B"}) << "C is the same in both";
  EXPECT_EQ(walk->mixtures, 4u);
  const auto back = g.walk(1);
  ASSERT_TRUE(back);
  for (size_t i = 0; i < 2; ++i) EXPECT_NEAR(back->steps[i].effect, -walk->steps[i].effect, 1e-12);
}

TEST(ValueWalk, ThreePartsByHand) {
  // v = a b + c from (1, 2, 3) to (3, 5, 7): a: (4 + 10) / 2 = 7, b: (3 + 9) / 2 = 6, c: 4.
  Game g = gameOf(std::string(kTwoInputs) + "row raw_value \"Value\" ratio constant\n value a * b + c\n");
  g.plan.byRow = true;
  const double from[] = {1, 2, 3}, to[] = {3, 5, 7}, expected[] = {7, 6, 4};
  for (int i = 0; i < 3; ++i) {
    const std::string name(1, static_cast<char>('a' + i));
    g.choose(0, name, from[i]);
    g.choose(1, name, to[i]);
  }
  const auto walk = g.walk();
  ASSERT_TRUE(walk) << walk.error().text();
  ASSERT_EQ(walk->steps.size(), 3u);
  for (size_t i = 0; i < 3; ++i) EXPECT_NEAR(walk->steps[i].effect, expected[i], 1e-12) << walk->steps[i].label;
  g.plan.byRow = false;
  const auto grouped = g.walk();
  ASSERT_TRUE(grouped);
  EXPECT_EQ(grouped->steps[1].rows, (std::vector<std::string>{"B", "C"}));
  EXPECT_NEAR(sum(*grouped), 17, 1e-12);
}

TEST(ValueWalk, AMixtureWithoutAValueIsNamed) {
  Game g = gameOf(std::string(kTwoInputs) +
                  "row raw_value \"Value\" ratio constant\n value guard(a > b, 1 / (a - b), \"A must exceed B\")\n");
  g.choose(0, "a", 0.05);
  g.choose(0, "b", 0.02);
  g.choose(1, "a", 0.10);
  g.choose(1, "b", 0.06);
  const auto walk = g.walk();
  ASSERT_TRUE(walk);
  EXPECT_EQ(walk->gap, "the first with the second's Height has no value (Base: A must exceed B)");
  EXPECT_NEAR(walk->from.value(), 1 / 0.03, 1e-9);
  EXPECT_NEAR(walk->to.value(), 25, 1e-9);
  g.choose(1, "b", 0.2);
  const auto none = g.walk();
  ASSERT_TRUE(none);
  EXPECT_EQ(none->to.reason(), "the second has no value (Base: A must exceed B)");
}

constexpr const char* kHistoryGame =
    "group \"Growth\"\ndriver g \"Growth\" ratio rate\n range -1 to 9\n default 0\n"
    "group \"Basis\"\ninput share \"Share\" ratio constant\n default 1\n"
    "group \"Rows\"\nrow sales \"Sales\" money flow\n history filed\n forecast sales[-1] * (1 + g)\n"
    "row counted \"Counted\" money flow\n history sales * share\n forecast sales * share\n"
    "row raw_value \"Value\" money constant\n value base(counted) + total(counted)\n";

TEST(ValueWalk, HistoryMovesWithTheInputsItStandsOn) {
  // Sales 100, growth 0 to 100 %, three years, share 1 to 0.5.
  // Growth 0: 400, or 200 at half. Growth 1: 100 + 200 + 400 + 800 = 1500, or 750.
  // Growth: ((1500 - 400) + (750 - 200)) / 2 = 825. Share: ((200 - 400) + (750 - 1500)) / 2 = -475.
  Game g;
  g.model = valued(kHistoryGame);
  g.filed[0]["sales"] = g.filed[1]["sales"] = test::figures({100});
  for (WalkEnd& end : g.ends) end.assumptions.horizon = 3;
  g.hold(1, "g", 1);
  g.choose(1, "share", 0.5);
  const auto walk = g.walk();
  ASSERT_TRUE(walk) << walk.error().text();
  ASSERT_EQ(walk->steps.size(), 2u);
  EXPECT_NEAR(walk->steps[0].effect, 825, 1e-9);
  EXPECT_NEAR(walk->steps[1].effect, -475, 1e-9);
  EXPECT_NEAR(walk->to.value(), 750, 1e-9);
}

TEST(ValueWalk, NewFilingsAndAnotherHorizonArePartsOfTheirOwn) {
  // Sales 100 to 150, three to four years, no growth: 400, 500, 600, 750.
  // Filed: ((600 - 400) + (750 - 500)) / 2 = 225. Horizon: ((500 - 400) + (750 - 600)) / 2 = 125.
  Game g;
  g.model = valued(kHistoryGame);
  g.filed[0]["sales"] = test::figures({100});
  g.filed[1]["sales"] = test::figures({100, 150});
  g.plan.filedDiffers = true;
  g.ends[0].assumptions.horizon = 3;
  g.ends[1].assumptions.horizon = 4;
  const auto walk = g.walk();
  ASSERT_TRUE(walk) << walk.error().text();
  ASSERT_EQ(walk->steps.size(), 2u);
  EXPECT_EQ(walk->steps[0].label, "Filed figures");
  EXPECT_NEAR(walk->steps[0].effect, 225, 1e-9);
  EXPECT_EQ(walk->steps[1].label, "Horizon");
  EXPECT_NEAR(walk->steps[1].effect, 125, 1e-9);
}

TEST(ValueWalk, WeighsScenariosByProbability) {
  // v = a: worst 1, base 2, best 4 at 25, 50, 25 %: 2.25. To 2, 2, 4 at 50, 25, 25 %: 2.5.
  // A: ((0.25 x 1) + (0.5 x 1)) / 2 = 0.375. Probabilities: ((2 - 2.25) + (2.5 - 2.5)) / 2 = -0.125.
  Game g = gameOf(std::string(kTwoInputs) + "row raw_value \"Value\" ratio constant\n value a\n");
  g.plan.scenario.clear();
  for (int end = 0; end < 2; ++end) {
    g.choose(end, "a", end == 0 ? 1 : 2, "worst");
    g.choose(end, "a", 2);
    g.choose(end, "a", 4, "best");
  }
  g.ends[1].assumptions.scenarios[0].probability = 0.5;
  g.ends[1].assumptions.scenarios[1].probability = 0.25;
  const auto walk = g.walk();
  ASSERT_TRUE(walk) << walk.error().text();
  ASSERT_EQ(walk->steps.size(), 2u);
  EXPECT_NEAR(walk->from.value(), 2.25, 1e-12);
  EXPECT_NEAR(walk->steps[0].effect, 0.375, 1e-12);
  EXPECT_EQ(walk->steps[1].label, "Probabilities");
  EXPECT_NEAR(walk->steps[1].effect, -0.125, 1e-12);
  g.ends[1].assumptions.scenarios[0].probability = 0.6;
  EXPECT_EQ(g.walk().error().what, "the probabilities do not sum to one");
}

TEST(ValueWalk, RefusesWhatItCannotSplit) {
  std::string rows;
  std::string total = "0";
  for (int i = 0; i < 13; ++i) {
    const std::string name = "i" + std::to_string(i);
    rows += "input " + name + " \"I\" ratio constant\n default 0\n";
    total += " + " + name;
  }
  Game g = gameOf(rows + "row raw_value \"Value\" ratio constant\n value " + total + "\n");
  for (int i = 0; i < 13; ++i) g.choose(1, "i" + std::to_string(i), 1);
  g.plan.byRow = true;
  EXPECT_EQ(g.walk().error().kind, ErrorKind::BadInput);
  g.plan.byRow = false;
  const auto grouped = g.walk();
  ASSERT_TRUE(grouped) << grouped.error().text();
  EXPECT_NEAR(sum(*grouped), 13, 1e-12);
  g.ends[1].assumptions.scenarios.push_back({"storm", "Storm", 0, {}, {}});
  g.plan.scenario = "storm";
  EXPECT_EQ(g.walk().error().what, "only one of the two has the scenario 'Storm'");
}

/// The shipped model on a plain company, the ends differing in some drivers by a little.
struct Company {
  test::SmallModel model = test::companyWith(5, {{"revenue", 1000},
                                                 {"cost_of_sales", 550},
                                                 {"operating_expenses", 250},
                                                 {"depreciation", 40},
                                                 {"ebit", 160},
                                                 {"plant", 400},
                                                 {"cash", 50},
                                                 {"receivables", 120},
                                                 {"capex", 45},
                                                 {"pretax_profit", 160},
                                                 {"tax", 40},
                                                 {"net_income", 120},
                                                 {"equity", 570}});
  WalkEnd ends[2];

  Company() {
    for (WalkEnd& end : ends) end = {model.theCase, model.givens};
  }
  void set(int end, const std::string& driver, double level) {
    Path path;
    path.level = level;
    Case& c = ends[end].assumptions;
    c.scenarios[static_cast<size_t>(c.indexOf(kBase))].drivers[driver] = {path, {}};
  }
  Evaluation evaluate(const Case& c) const {
    test::SmallModel m = model;
    m.theCase = c;
    return m.evaluate();
  }
  Result<ValueWalk> walk(bool byRow, int from = 0) const {
    return walkValue(ends[from], ends[1 - from], {kBase, byRow, false}, [&](const Case& mixed, bool) -> Result<Ground> {
      const Evaluation e = evaluate(mixed);
      const model::HistoryTable history(
          model.model, e.layout(),
          [&](const std::string& row, int c) { return model.filed.at(row)[static_cast<size_t>(c)]; },
          [&](model::RowId row) { return constantFigure(model.model[row], mixed, mixed.base(), model.givens); });
      return Ground{e.compiled(), std::make_shared<const model::HistoryTable>(history)};
    });
  }
};

TEST(ValueWalk, OnTheShippedModelItAddsUpAndTurnsRound) {
  struct Change {
    const char* driver;
    double from, to;
  };
  const Change changes[] = {{"revenue_growth", 0.02, 0.05},
                            {"cost_of_sales_ratio", 0.55, 0.53},
                            {"capex_ratio", 0.045, 0.06},
                            {"receivable_days", 44, 38},
                            {"payout", 0.3, 0.5},
                            {"borrowing_rate", 0.05, 0.05},
                            {"beta", 1.0, 1.1}};
  Company c;
  for (const Change& change : changes) {
    c.set(0, change.driver, change.from);
    c.set(1, change.driver, change.to);
  }
  const auto walk = c.walk(true);
  ASSERT_TRUE(walk) << walk.error().text();
  ASSERT_EQ(walk->gap, "");
  ASSERT_EQ(walk->steps.size(), 6u) << "the rate that is the same is no part";
  for (int end = 0; end < 2; ++end) {
    const Figure whole = c.evaluate(c.ends[end].assumptions).constant("raw_value", 1);
    EXPECT_NEAR((end == 0 ? walk->from : walk->to).value(), whole.value(), 1e-9)
        << "lanes and a whole evaluation agree";
  }
  EXPECT_NEAR(sum(*walk), walk->to.value() - walk->from.value(), 1e-9);
  const auto back = c.walk(true, 1);
  ASSERT_TRUE(back);
  for (size_t i = 0; i < walk->steps.size(); ++i) {
    EXPECT_NEAR(back->steps[i].effect, -walk->steps[i].effect, 1e-9) << walk->steps[i].label;
  }
  // More growth and a lower cost are worth something, more capex and a higher rate cost something.
  EXPECT_GT(walk->steps[1].effect, 0);
  EXPECT_LT(walk->steps[2].effect, 0);
  EXPECT_LT(walk->steps[5].effect, 0);
  const auto groups = c.walk(false);
  ASSERT_TRUE(groups);
  EXPECT_LT(groups->steps.size(), walk->steps.size());
  EXPECT_NEAR(sum(*groups), sum(*walk), 1e-9);
}

TEST(ValueWalk, PrintedEffectsAddUp) {
  ValueWalk walk;
  walk.from = Figure::of(10);
  walk.to = Figure::of(11);
  walk.steps = {{"a", {}, 1.0 / 3}, {"b", {}, 1.0 / 3}, {"c", {}, 1.0 / 3}};
  EXPECT_EQ(effectsThatAddUp(walk, 2), (std::vector<double>{0.34, 0.33, 0.33}));
  walk.to = Figure::of(10.01);
  walk.steps = {{"a", {}, 0.016}, {"b", {}, -0.006}};
  EXPECT_EQ(effectsThatAddUp(walk, 2), (std::vector<double>{0.02, -0.01}));
  walk.to = Figure::of(10.0);
  walk.steps = {{"a", {}, 0.006}, {"b", {}, 0.006}, {"c", {}, -0.012}};
  EXPECT_EQ(effectsThatAddUp(walk, 2), (std::vector<double>{0.0, 0.01, -0.01}));
}

TEST(ValueWalk, AModelThatSaysNotWhatItsValueIsIsRefused) {
  Game g = gameOf(std::string(kTwoInputs) + "row raw_value \"Value\" ratio constant\n value a * b * c\n");
  g.model.roles.fill({});
  g.choose(1, "a", 4);
  EXPECT_EQ(g.walk().error().what, "no row of the model means 'value_before_floor', which a walk explains");
}

}  // namespace
}  // namespace zl
