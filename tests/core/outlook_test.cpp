#include <cmath>

#include "core/history/statistics.h"
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
  EXPECT_THAT(values(figuresOf(hold, last, 3)), testing::ElementsAre(10, 10, 10));
  hold.level = 4;
  EXPECT_THAT(values(figuresOf(hold, last, 3)), testing::ElementsAre(4, 4, 4));
  Path glide;
  glide.shape = Shape::Glide;
  glide.level = 2;
  glide.from = 1;
  glide.to = 5;
  EXPECT_THAT(values(figuresOf(glide, last, 6)), testing::ElementsAre(10, 8, 6, 4, 2, 2));
  Path fade;
  fade.shape = Shape::Fade;
  fade.level = 2;
  fade.from = 2;
  fade.halfLife = 1;
  EXPECT_THAT(values(figuresOf(fade, last, 4)), testing::ElementsAre(10, 6, 4, 3));  // half the distance a year
  Path typed;
  typed.shape = Shape::Typed;
  typed.typed = {std::nullopt, 7.0, std::nullopt};
  EXPECT_THAT(values(figuresOf(typed, last, 4)), testing::ElementsAre(10, 7, 7, 7));
}

TEST(Path, WithoutAnActualThereIsNoPathRatherThanNought) {
  const Figure none = Figure::absent();
  for (const Figure& f : figuresOf(Path{}, none, 3)) EXPECT_TRUE(f.isAbsent());
  Path glide;
  glide.shape = Shape::Glide;
  glide.level = 1;
  const std::vector<Figure> x = figuresOf(glide, none, 3);
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
  EXPECT_THAT(faults([&](Case& c) { level(c, "no_such_row", 1); }), testing::HasSubstr("no driver 'no_such_row'"));
  EXPECT_THAT(faults([](Case& c) { c.scenarios[0].probability = 1.2; }), testing::HasSubstr("it can be 0 to 1"));
  EXPECT_THAT(faults([](Case& c) { c.horizon = 2; }), testing::HasSubstr("3 to 15"));
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
  EXPECT_DOUBLE_EQ(weightedValue(e, "r").value(), 0.25 * 2 + 0.5 * 2 + 0.25 * 3);
  m.theCase.scenarios[0].probability = 0.5;
  EXPECT_EQ(weightedValue(m.evaluate(), "r").reason(), "the probabilities do not sum to one");
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
