// Every operation of the tape against value-or-reason arithmetic, on values, gaps and edges.

#include <algorithm>
#include <cmath>
#include <limits>

#include "tests/support/model_support.h"

namespace zl {
namespace {

constexpr double kNaN = std::numeric_limits<double>::quiet_NaN();

struct Operation {
  const char* rule;
  double a, b, c;
  double expected;  ///< NaN: no value
};

class Kernel : public testing::TestWithParam<Operation> {};

TEST_P(Kernel, DoesWhatTheInterpreterDoes) {
  const Operation& op = GetParam();
  const model::Model m = test::modelOf(
      "input a \"A\" ratio constant\ninput b \"B\" ratio constant\ninput c \"C\" ratio constant\n"
      "row r \"R\" ratio constant\n value " +
      std::string(op.rule) + "\n");
  const auto program = model::compile(m, {1, 1});
  ASSERT_TRUE(program);
  for (int lanes : {1, 9, 40}) {  // the narrow and the wide kernel
    model::LaneInputs inputs(*program, lanes);
    for (size_t i = 0; i < program->inputs.size(); ++i) {
      const int row = program->inputs[i].cell.row.number();
      inputs.setAll(i, row == 0 ? op.a : row == 1 ? op.b : op.c);
    }
    const std::uint32_t slot = static_cast<std::uint32_t>(program->slot({model::RowId(3), 0}));
    const model::LaneResults r = model::evaluate(*program, inputs, {{slot}});
    for (int lane = 0; lane < lanes; ++lane) {
      if (std::isnan(op.expected)) {
        EXPECT_TRUE(std::isnan(r.at(0, lane))) << op.rule << " gave " << r.at(0, lane);
      } else {
        EXPECT_DOUBLE_EQ(r.at(0, lane), op.expected) << op.rule;
      }
    }
  }
  const auto figure = [](double x) { return std::isnan(x) ? Figure::absent() : Figure::of(x); };
  const Figure read = model::interpret(m, {1, 1}, *m.rows[3].value, 0, [&](model::Cell cell) {
    return figure(cell.row.number() == 0 ? op.a : cell.row.number() == 1 ? op.b : op.c);
  });
  EXPECT_EQ(read.hasValue(), !std::isnan(op.expected)) << op.rule;
  if (read.hasValue()) {
    EXPECT_DOUBLE_EQ(read.value(), op.expected) << op.rule;
  }
}

INSTANTIATE_TEST_SUITE_P(
    Operations, Kernel,
    testing::Values(
        Operation{"a + b", 2, 3, 0, 5}, Operation{"a + b", 2, kNaN, 0, kNaN}, Operation{"a - b", 2, 3, 0, -1},
        Operation{"a * b", 2, 3, 0, 6}, Operation{"a * b", 1e200, 1e200, 0, kNaN}, Operation{"a / b", 3, 2, 0, 1.5},
        Operation{"a / b", 3, 0, 0, kNaN}, Operation{"a / b", 0, 0, 0, kNaN}, Operation{"a / (b / c)", 1, 1, 0, kNaN},
        Operation{"a^b", 2, 10, 0, 1024}, Operation{"a^b", -8, 0.5, 0, kNaN}, Operation{"a^b", 0, -1, 0, kNaN},
        Operation{"-a", 2, 0, 0, -2}, Operation{"-a", kNaN, 0, 0, kNaN}, Operation{"abs(a)", -2, 0, 0, 2},
        Operation{"min(a, b)", 2, 3, 0, 2}, Operation{"min(a, b)", kNaN, 3, 0, kNaN},
        Operation{"min(a, b)", 2, kNaN, 0, kNaN}, Operation{"max(a, b)", 2, 3, 0, 3},
        Operation{"max(a, b)", kNaN, 3, 0, kNaN}, Operation{"max(a, b)", 3, kNaN, 0, kNaN},
        Operation{"if(a < b, 1, 2)", 1, 2, 0, 1}, Operation{"if(a < b, 1, 2)", 2, 2, 0, 2},
        Operation{"if(a <= b, 1, 2)", 2, 2, 0, 1}, Operation{"if(a > b, 1, 2)", 3, 2, 0, 1},
        Operation{"if(a >= b, 1, 2)", 1, 2, 0, 2}, Operation{"if(a == b, 1, 2)", 2, 2, 0, 1},
        Operation{"if(a == b, 1, 2)", 2, 3, 0, 2}, Operation{"if(a == b, 1, 2)", kNaN, 3, 0, kNaN},
        Operation{"if(a > 0, b, c)", 1, 5, kNaN, 5}, Operation{"if(a > 0, b, c)", -1, kNaN, 7, 7},
        Operation{"if(a > 0, b, c)", 1, kNaN, 7, kNaN}, Operation{"if(a > 0 and b > 0, 1, 2)", 1, 1, 0, 1},
        Operation{"if(a > 0 and b > 0, 1, 2)", 1, -1, 0, 2}, Operation{"if(a > 0 or b > 0, 1, 2)", -1, 1, 0, 1},
        Operation{"if(a > 0 or b > 0, 1, 2)", -1, -1, 0, 2}, Operation{"if(a > 0 or b > 0, 1, 2)", kNaN, -1, 0, kNaN},
        Operation{"guard(a > 0, b, \"no\")", 1, 5, 0, 5}, Operation{"guard(a > 0, b, \"no\")", 0, 5, 0, kNaN},
        Operation{"guard(a > 0, b, \"no\")", kNaN, 5, 0, kNaN}, Operation{"a", 4, 0, 0, 4},
        Operation{"known(a, b)", 2, 3, 0, 2}, Operation{"known(a, b)", kNaN, 3, 0, 3},
        Operation{"known(a, b)", kNaN, kNaN, 0, kNaN}, Operation{"known(a / b, c)", 1, 0, 9, 9},
        Operation{"a^b", 7, 1, 0, 7}, Operation{"a^b", 2.25, 0.5, 0, 1.5}, Operation{"2 + 3 * 4 - 6 / 2", 0, 0, 0, 11},
        Operation{"2^3^2", 0, 0, 0, 512}, Operation{"50%", 0, 0, 0, 0.5}));

TEST(Compile, RefusesAbsurdHorizons) {
  const model::Model m = test::modelOf("row r \"R\" ratio rate\n forecast 1\n");
  for (const model::Layout layout : {model::Layout{0, 5}, model::Layout{3, 0}, model::Layout{50, 11}}) {
    const auto p = model::compile(m, layout);
    ASSERT_FALSE(p);
    EXPECT_EQ(p.error().kind, ErrorKind::BadInput);
  }
  EXPECT_TRUE(model::compile(m, {45, 15}));
}

TEST(Compile, ACircleThatOnlyAChoiceClosesIsOneRoundUntilItIsTaken) {
  test::SmallModel m;
  // x = 1 + y / 2 and y = x / 2 where the choice closes the circle: x = 4/3. Open, y is 10.
  m.model = test::modelOf(
      "choice closed \"C\"\n option no \"no\"\n option yes \"yes\"\n"
      "row x \"X\" ratio constant\n value 1 + y / 2\n"
      "row y \"Y\" ratio constant\n value if(closed is yes, x / 2, 10)\n"
      "row seen \"S\" ratio constant\n value x + y\n");
  m.filed["none"] = test::figures({1});
  Evaluation open = m.evaluate();
  EXPECT_DOUBLE_EQ(open.constant("x", 0).value(), 6);
  EXPECT_DOUBLE_EQ(open.constant("seen", 0).value(), 16);
  EXPECT_EQ(open.rounds(), 1);
  m.theCase.scenarios[0].inputs["closed"] = {1, {}, {}};
  m.theCase.scenarios[1].inputs["closed"] = {1, {}, {}};
  Evaluation closed = m.evaluate();
  EXPECT_NEAR(closed.constant("x", 0).value(), 4.0 / 3, 1e-9);
  EXPECT_GT(closed.rounds(), 3);
  // known() must not take a circle for open: x = 1 + y / 2 and y = x / 2 again.
  m.model = test::modelOf(
      "choice closed \"C\"\n option no \"no\"\n option yes \"yes\"\n"
      "row x \"X\" ratio constant\n value 1 + known(y, 7) / 2\n"
      "row y \"Y\" ratio constant\n value if(closed is yes, x / 2, 10)\n");
  EXPECT_NEAR(m.evaluate().constant("x", 0).value(), 4.0 / 3, 1e-9);
}

TEST(Compile, TheYearBeyondGoesOnByTheSameRules) {
  test::SmallModel m;
  m.model = test::modelOf(
      "driver growth \"G\" ratio rate\n default 10%\n beyond lasting\n"
      "driver share \"S\" ratio rate\n default 50%\n"
      "input lasting \"L\" ratio constant\n default 2%\n"
      "row sales \"Sales\" money flow\n history filed\n forecast sales[-1] * (1 + growth)\n"
      "row kept \"Kept\" money flow\n forecast sales * share\n"
      "row next \"Next\" money constant\n value beyond(kept)\n"
      "row all \"All\" money constant\n value total(kept)\n");
  m.filed["sales"] = test::figures({100});
  const Evaluation e = m.evaluate();
  const double last = e.figure("sales", e.layout().columns() - 1, 0).value();
  EXPECT_NEAR(e.constant("next", 0).value(), last * 1.02 * 0.5, 1e-9);
  double sum = 0;
  for (int c = e.layout().historyYears; c < e.layout().columns(); ++c) sum += e.figure("kept", c, 0).value();
  EXPECT_NEAR(e.constant("all", 0).value(), sum, 1e-9) << "the year beyond is in no sum";
}

TEST(Compile, OrdersRowsByNeedNotByDeclaration) {
  test::SmallModel m;
  m.model = test::modelOf(
      "row last \"Last\" ratio rate\n forecast middle + 1\n"
      "row middle \"Middle\" ratio rate\n forecast first + 1\n"
      "row first \"First\" ratio rate\n forecast 1\n");
  m.filed["none"] = test::figures({1});
  EXPECT_DOUBLE_EQ(m.evaluate().figure("last", 1, 0).value(), 3);
}

TEST(Compile, LongChainsOfYearsDoNotExhaustTheStack) {
  std::string rows = "row r0 \"R\" ratio rate\n forecast 1\n";
  for (int i = 1; i < 3000; ++i) {
    rows += "row r" + std::to_string(i) + " \"R\" ratio rate\n forecast r" + std::to_string(i - 1) + " + 1\n";
  }
  test::SmallModel m;
  m.model = test::modelOf(rows);
  m.filed["none"] = test::figures({1});
  EXPECT_DOUBLE_EQ(m.evaluate().figure("r2999", 3, 0).value(), 3000);
}

TEST(Lanes, ALongBranchThatNobodyTakesChangesNothing) {
  const model::Model m = test::modelOf(
      "input a \"A\" ratio constant\ninput b \"B\" ratio constant\nrow r \"R\" ratio constant\n"
      " value 1 + if(a > 0, (b + 1) * (b + 2) * (b + 3) - if(a > 1, b * b * b * b * b * b, 0), b)\n");
  const auto program = model::compile(m, {1, 1});
  const auto skips = std::count_if(program->tape.begin(), program->tape.end(),
                                   [](const model::Instruction& i) { return i.code == model::Code::Skip; });
  EXPECT_EQ(skips, 2);  // one within the other
  // Blocks of 32 in which nobody, somebody and everybody takes the branch, and one without an answer.
  constexpr int kLanes = 128;
  model::LaneInputs inputs(*program, kLanes);
  const auto a = [](int lane) { return lane == 5 ? kNaN : lane < 32 ? 0.0 : lane < 64 ? lane % 3 : 2.0; };
  for (int lane = 0; lane < kLanes; ++lane) {
    inputs.set(0, lane, a(lane));
    inputs.set(1, lane, lane);
  }
  const model::LaneResults r =
      model::evaluate(*program, inputs, {{static_cast<std::uint32_t>(program->slot({model::RowId(2), 0}))}});
  for (int lane = 0; lane < kLanes; ++lane) {
    const double b = lane;
    const double taken = (b + 1) * (b + 2) * (b + 3) - (a(lane) > 1 ? b * b * b * b * b * b : 0);
    const double expected = std::isnan(a(lane)) ? kNaN : 1 + (a(lane) > 0 ? taken : b);
    EXPECT_TRUE(std::isnan(expected) ? std::isnan(r.at(0, lane)) : r.at(0, lane) == expected) << lane;
  }
}

TEST(Lanes, UniformAndVaryingInputsMix) {
  const model::Model m = test::modelOf(
      "input a \"A\" ratio constant\ninput b \"B\" ratio constant\nrow r \"R\" ratio constant\n value a * b\n");
  const auto program = model::compile(m, {1, 1});
  constexpr int kLanes = 1000;
  model::LaneInputs inputs(*program, kLanes);
  inputs.setAll(0, 3);
  for (int lane = 0; lane < kLanes; ++lane) inputs.set(1, lane, lane);
  EXPECT_FALSE(inputs.varies(0));
  EXPECT_TRUE(inputs.varies(1));
  const model::LaneResults r =
      model::evaluate(*program, inputs, {{static_cast<std::uint32_t>(program->slot({model::RowId(2), 0}))}});
  for (int lane = 0; lane < kLanes; ++lane) EXPECT_DOUBLE_EQ(r.at(0, lane), 3.0 * lane);
}

TEST(Lanes, WhatIsNotSetIsAbsent) {
  const model::Model m = test::modelOf("input a \"A\" ratio constant\nrow r \"R\" ratio constant\n value a\n");
  const auto program = model::compile(m, {1, 1});
  const model::LaneInputs inputs(*program, 2);
  const model::LaneResults r =
      model::evaluate(*program, inputs, {{static_cast<std::uint32_t>(program->slot({model::RowId(1), 0}))}});
  EXPECT_TRUE(std::isnan(r.at(0, 0)));
}

}  // namespace
}  // namespace zl
