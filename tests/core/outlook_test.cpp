#include <cmath>

#include "core/history/statistics.h"
#include "core/outlook/path_grip.h"
#include "core/outlook/path_words.h"
#include "tests/support/model_support.h"

namespace zl {
namespace {

std::vector<double> values(const std::vector<Figure>& figures) {
  std::vector<double> list;
  for (const Figure& f : figures) list.push_back(f.valueOr(std::nan("")));
  return list;
}

TEST(Path, ShapesByHand) {
  const Figure last = Figure::of(10);
  Path hold;
  EXPECT_THAT(values(figuresOf(hold, {last, 3})), testing::ElementsAre(10, 10, 10));
  hold.level = 4;
  EXPECT_THAT(values(figuresOf(hold, {last, 3})), testing::ElementsAre(4, 4, 4));
  Path glide;
  glide.shape = Shape::Glide;
  glide.level = 2;
  glide.from = 1;
  glide.to = 5;
  EXPECT_THAT(values(figuresOf(glide, {last, 6})), testing::ElementsAre(10, 8, 6, 4, 2, 2));
  Path fade;
  fade.shape = Shape::Fade;
  fade.level = 2;
  fade.from = 2;
  fade.halfLife = 1;
  EXPECT_THAT(values(figuresOf(fade, {last, 4})), testing::ElementsAre(10, 6, 4, 3));  // half the distance a year
  Path typed;
  typed.shape = Shape::Typed;
  typed.typed = {std::nullopt, 7.0, std::nullopt};
  EXPECT_THAT(values(figuresOf(typed, {last, 4})), testing::ElementsAre(10, 7, 7, 7));
}

Path pathOf(Shape shape, std::optional<double> level, std::vector<std::optional<double>> typed = {}) {
  Path path;
  path.shape = shape;
  path.level = level;
  path.typed = std::move(typed);
  return path;
}

TEST(Path, ShapesByStageCycleAndDistanceByHand) {
  const PathGround six{Figure::of(10), 6, {2, 1, 3}, test::figures({1, 2, 3, 4, 5, 6})};
  const auto run = [&](const Path& path) { return values(figuresOf(path, six)); };
  EXPECT_THAT(run(pathOf(Shape::Steps, {}, {8.0, 5.0, 2.0})), testing::ElementsAre(8, 8, 5, 2, 2, 2));
  EXPECT_THAT(run(pathOf(Shape::Steps, {}, {std::nullopt, 5.0})), testing::ElementsAre(10, 10, 5, 5, 5, 5));
  // A typed start stands in place of the last actual, 10, whatever the shape.
  for (Shape shape : {Shape::Typed, Shape::Steps, Shape::Hold}) {
    Path started = pathOf(shape, {}, {std::nullopt});
    started.start = 4.0;
    EXPECT_THAT(run(started), testing::Each(4)) << shapeWord(shape);
  }
  Path recovery = pathOf(Shape::Recovery, 22.0);
  recovery.to = 4;
  EXPECT_THAT(run(recovery), testing::ElementsAre(13, 16, 19, 22, 22, 22));
  EXPECT_THAT(run(pathOf(Shape::Cycle, 5.0, {1.0, -2.0, 0.5, std::nullopt})), testing::ElementsAre(6, 3, 5.5, 5, 6, 3));
  Path follow = pathOf(Shape::Follow, {});
  follow.distance = -3;
  EXPECT_THAT(run(follow), testing::ElementsAre(-2, -1, 0, 1, 2, 3));
  follow.widening = true;
  EXPECT_THAT(run(follow), testing::ElementsAre(0.5, 1, 1.5, 2, 2.5, 3));
  EXPECT_EQ(faultOf(follow, 6, true), "base cannot follow itself");
  EXPECT_EQ(faultOf(follow, 6, false), "");
  EXPECT_EQ(faultOf(pathOf(Shape::Cycle, 5.0), 6, true), "a cycle needs at least one deviation");
  recovery.to = 7;
  EXPECT_THAT(faultOf(recovery, 6, true), testing::HasSubstr("by year 6"));
}

TEST(Path, AMoveKeepsTheShapeWhereItCan) {
  const PathGround ground{Figure::of(10), 5, {2, 3}, test::figures({4, 4, 4, 4, 4})};
  struct Move {
    Path path;
    Grip grip;
    int year;
    double figure;
    Path expected;
  };
  Path follow = pathOf(Shape::Follow, {});
  follow.distance = 1;
  Path further = follow;
  further.distance = 3;
  Path widening = follow;
  widening.widening = true;
  Path wider = widening;
  wider.distance = 2 * 5.0 / 2;  // two above base in the second of five years
  const Move moves[] = {
      {pathOf(Shape::Hold, 6.0), Grip::Level, 0, 7, pathOf(Shape::Hold, 7.0)},
      {pathOf(Shape::Hold, 6.0), Grip::Year, 1, 7, pathOf(Shape::Typed, {}, {6.0, 7.0, 6.0, 6.0, 6.0})},
      {pathOf(Shape::Hold, 6.0), Grip::Stage, 3, 7, pathOf(Shape::Typed, {}, {6.0, 6.0, 7.0, 7.0, 7.0})},
      {pathOf(Shape::Typed, {}, {1.0, 2.0, 3.0, 4.0, 5.0}), Grip::Stage, 0, 3,
       pathOf(Shape::Typed, {}, {3.0, 4.0, 3.0, 4.0, 5.0})},
      {pathOf(Shape::Typed, {}, {1.0, 2.0, 3.0, 4.0, 5.0}), Grip::Level, 0, 9,
       pathOf(Shape::Typed, {}, {1.0, 2.0, 3.0, 4.0, 9.0})},
      {pathOf(Shape::Steps, {}, {8.0, 5.0}), Grip::Year, 4, 4, pathOf(Shape::Steps, {}, {8.0, 4.0})},
      {pathOf(Shape::Steps, {}, {8.0}), Grip::Year, 0, 9, pathOf(Shape::Steps, {}, {9.0, 8.0})},
      {pathOf(Shape::Cycle, 5.0, {1.0, -1.0}), Grip::Level, 0, 6, pathOf(Shape::Cycle, 6.0, {1.0, -1.0})},
      {follow, Grip::Year, 2, 7, further},
      {widening, Grip::Year, 1, 6, wider}};
  for (const Move& m : moves) {
    const Path after = moved(m.path, ground, figuresOf(m.path, ground), m.grip, m.year, m.figure);
    EXPECT_EQ(after, m.expected) << shapeWord(m.path.shape) << " to " << pathWords(after, Kind::Count);
  }
}

TEST(Path, ReadsInWords) {
  Path glide = pathOf(Shape::Glide, 0.02);
  glide.to = 5;
  EXPECT_EQ(pathWords(glide, Kind::Ratio), "glides to 2.0 % by year 5");
  EXPECT_EQ(pathWords(Path{}, Kind::Ratio), "holds the last actual");
  EXPECT_EQ(pathWords(pathOf(Shape::Typed, {}, {0.05, 0.05, 0.04, 0.04}), Kind::Ratio), "typed 5.0, 5.0, 4.0 %");
  EXPECT_EQ(pathWords(pathOf(Shape::Cycle, 60.0, {5.0, -5.0}), Kind::Days), "cycles around 60 days by 5, (5) days");
}

TEST(Path, BeyondTheRangeItIsHeldThereAndSaysSo) {
  test::SmallModel m;
  m.model = test::modelOf("driver a \"A\" ratio rate\n range 0 to 1\nrow r \"R\" ratio constant\n value final(a)\n");
  m.filed["none"] = test::figures({1});
  m.theCase.horizon = m.horizon = 3;
  m.theCase.scenarios[1].drivers["a"] = {pathOf(Shape::Cycle, 0.9, {0.0, 0.3}), {}};
  Path below = pathOf(Shape::Follow, {});
  below.distance = -0.95;
  m.theCase.scenarios[0].drivers["a"] = {below, {}};
  const Evaluation e = m.evaluate();
  EXPECT_THAT(values({e.figure("a", 1, 1), e.figure("a", 2, 1), e.figure("a", 3, 1)}),
              testing::ElementsAre(0.9, 1, 0.9));
  EXPECT_TRUE(e.clipped({model::RowId(0), 2}, 1));
  EXPECT_FALSE(e.clipped({model::RowId(0), 1}, 1));
  EXPECT_DOUBLE_EQ(e.constant("r", 0).value(), 0);
  EXPECT_TRUE(e.clipped({model::RowId(0), 3}, 0)) << "0.9 less 0.95 lies below the range";
}

TEST(Path, WithoutAnActualThereIsNoPathRatherThanNought) {
  const Figure none = Figure::absent();
  for (const Figure& f : figuresOf(Path{}, {none, 3})) EXPECT_TRUE(f.isAbsent());
  Path glide;
  glide.shape = Shape::Glide;
  glide.level = 1;
  const std::vector<Figure> x = figuresOf(glide, {none, 3});
  EXPECT_TRUE(x[0].isAbsent());
  EXPECT_DOUBLE_EQ(x[2].value(), 1);  // where it arrives it is known
}

TEST(Case, FaultsNameTheRangeAndTheValue) {
  const model::Model m = test::shippedModel();
  Case good = newCase("x", makeDate(2026, 1, 1));
  EXPECT_TRUE(faultsOf(good, m).empty());
  const auto faults = [&](const std::function<void(Case&)>& change) {
    Case c = good;
    change(c);
    const auto list = faultsOf(c, m);
    return list.empty() ? std::string() : list.front();
  };
  const auto level = [](Case& c, const char* row, double x) {
    Path p;
    p.level = x;
    c.scenarios[1].drivers[row] = {p, {}};
  };
  EXPECT_THAT(faults([&](Case& c) { level(c, "revenue_growth", -1.5); }),
              testing::HasSubstr("-1.5 is outside the allowed range -0.9 to 3"));
  EXPECT_THAT(faults([&](Case& c) { level(c, "receivable_days", -1); }),
              testing::HasSubstr("outside the allowed range 0 to 720"));
  EXPECT_THAT(faults([&](Case& c) { level(c, "beta", std::nan("")); }), testing::HasSubstr("not a finite number"));
  EXPECT_EQ(faults([&](Case& c) { level(c, "row_of_another_model", 1); }), "") << "it rests until that model is in use";
  EXPECT_THAT(faults([&](Case& c) {
                level(c, "row_of_another_model", 1);
                c.scenarios[1].drivers["row_of_another_model"].path.shape = Shape::Follow;
              }),
              testing::HasSubstr("row_of_another_model (Base)"))
      << "but must still be a path";
  EXPECT_THAT(faults([](Case& c) { c.scenarios[0].probability = 1.2; }), testing::HasSubstr("it can be 0 to 1"));
  EXPECT_THAT(faults([](Case& c) { c.horizon = 2; }), testing::HasSubstr("3 to 15"));
  EXPECT_THAT(faults([](Case& c) { c.stages = {3, 4}; }), testing::HasSubstr("7 years together; the horizon is 10"));
  EXPECT_THAT(faults([](Case& c) { c.stages = {0, 10}; }), testing::HasSubstr("at least one"));
  EXPECT_THAT(faults([](Case& c) { c.scenarios.erase(c.scenarios.begin() + 1); }),
              testing::HasSubstr("no scenario 'base'"));
  EXPECT_THAT(faults([](Case& c) { c.scenarios[1].drivers["beta"].path.shape = Shape::Fade; }),
              testing::HasSubstr("needs a level"));
}

TEST(Scenarios, HoldOnlyTheirDifferencesAndFollowBase) {
  test::SmallModel m;
  m.model = test::modelOf("driver a \"A\" ratio rate\n default 1\nrow r \"R\" ratio constant\n value final(a)\n");
  m.filed["none"] = test::figures({1});
  Path two, three;
  two.level = 2;
  three.level = 3;
  m.theCase.scenarios[1].drivers["a"] = {two, {}};
  m.theCase.scenarios[2].drivers["a"] = {three, {}};
  const Evaluation e = m.evaluate();
  EXPECT_DOUBLE_EQ(e.constant("r", 0).value(), 2);  // worst says nothing and follows base
  EXPECT_DOUBLE_EQ(e.constant("r", 2).value(), 3);
  EXPECT_DOUBLE_EQ(weightedValue(e, e.model().find("r")).value(), 0.25 * 2 + 0.5 * 2 + 0.25 * 3);
  m.theCase.scenarios[0].probability = 0.5;
  EXPECT_EQ(weightedValue(m.evaluate(), m.model.find("r")).reason(), "the probabilities do not sum to one");
}

TEST(Presets, HoldTheLastActualOrElseWhatTheModelSays) {
  test::SmallModel m;
  m.model = test::modelOf(
      "driver a \"A\" ratio rate\n history filed\n default last else 25%\nrow r \"R\" ratio constant\n value "
      "final(a)\n");
  m.filed["a"] = test::figures({0.4});
  EXPECT_DOUBLE_EQ(m.evaluate().constant("r", 0).value(), 0.4);
  m.filed["a"] = {Figure::notMeaningful("a loss")};
  EXPECT_DOUBLE_EQ(m.evaluate().constant("r", 0).value(), 0.25);
}

TEST(Statistics, LeaveOutWhatHasNoValueAndCountTheRest) {
  const std::vector<Figure> x{
      Figure::of(1), Figure::notMeaningful("odd"), Figure::of(4), Figure::absent(), Figure::of(2), Figure::of(100)};
  const Statistics s = describe(x, {false, false, false, false, false, true});
  EXPECT_EQ(s.count, 3);
  EXPECT_EQ(s.left_out, 3);
  EXPECT_DOUBLE_EQ(s.median.value(), 2);
  EXPECT_NEAR(s.mean.value(), 7.0 / 3, 1e-15);
  EXPECT_TRUE(describe({}).mean.isAbsent());
}

/// Shares of 10, 20, 30, 40, 50 and 60 %: the last five make 40, without the flagged 60 the five before it 30.
TEST(Statistics, ANormalShareIsOfTheLastFiveRegularYears) {
  std::vector<Figure> parts, wholes;
  for (const double part : {10, 20, 30, 40, 50, 60}) {
    parts.push_back(Figure::of(part));
    wholes.push_back(Figure::of(100));
  }
  EXPECT_NEAR(regularShare(parts, wholes).value(), 0.4, 1e-12);
  EXPECT_NEAR(regularShare(parts, wholes, {false, false, false, false, false, true}).value(), 0.3, 1e-12);
  wholes[5] = Figure::of(0);
  parts[4] = Figure::absent("not filed");
  EXPECT_NEAR(regularShare(parts, wholes).value(), 0.25, 1e-12) << "of 10 to 40";
  EXPECT_TRUE(regularShare(std::span(parts).first(1), std::span(wholes).first(1)).isAbsent());
}

/// Older cases hold a level of what is a path by now; the path, where there is one, was chosen later.
TEST(Cases, AnInputThatBecameADriverHoldsItsLevel) {
  const model::Model m =
      test::modelOf("driver growth \"Growth\" ratio rate\ninput rate \"Rate\" ratio constant\n default 0\n");
  Case c = newCase("one", makeDate(2026, 4, 30));
  c.scenarios[0].inputs["growth"].figure = 0.07;
  c.scenarios[0].inputs["growth"].said.reason = "orders";
  c.scenarios[0].inputs["rate"] = {0.1, {}, {}};
  c.scenarios[1].inputs["growth"] = {0.05, {}, {}};
  c.scenarios[1].drivers["growth"].path.level = 0.02;
  const Case now = inputsAsPaths(c, m);
  EXPECT_EQ(now.scenarios[0].drivers.at("growth").path.level, 0.07);
  EXPECT_EQ(now.scenarios[0].drivers.at("growth").said.reason, "orders");
  EXPECT_EQ(now.scenarios[0].inputs.count("growth"), 0u);
  EXPECT_EQ(now.scenarios[0].inputs.at("rate").figure, 0.1);
  EXPECT_EQ(now.scenarios[1].drivers.at("growth").path.level, 0.02);
  EXPECT_EQ(inputsAsPaths(now, m), now);
}

TEST(Statistics, QuantilesAreTypeSeven) {
  // Hyndman and Fan (1996), type 7 on 1..4: h = (n - 1) p, so the quartiles are 1.75, 2.5, 3.25.
  const double x[] = {1, 2, 3, 4};
  EXPECT_DOUBLE_EQ(quantile(x, 0.25), 1.75);
  EXPECT_DOUBLE_EQ(quantile(x, 0.5), 2.5);
  EXPECT_DOUBLE_EQ(quantile(x, 0.75), 3.25);
  EXPECT_DOUBLE_EQ(quantile(x, 1), 4);
}

TEST(Statistics, GrowthOffALossMeansNothing) {
  EXPECT_NEAR(growth(Figure::of(80), Figure::of(100)).value(), 0.25, 1e-15);
  EXPECT_TRUE(growth(Figure::of(-10), Figure::of(20)).isNotMeaningful());
  EXPECT_EQ(growth(Figure::of(10), Figure::of(-20)).reason(), "turned negative");
  EXPECT_NEAR(compoundGrowth(Figure::of(100), Figure::of(121), 2).value(), 0.10, 1e-12);
  EXPECT_TRUE(compoundGrowth(Figure::of(-1), Figure::of(5), 3).isNotMeaningful());
  const std::vector<Figure> past = test::figures({1, 2, 2, 3});
  EXPECT_DOUBLE_EQ(percentileOf(2, past).value(), 0.5);  // one below, two level: (1 + 1) / 4
}

}  // namespace
}  // namespace zl
