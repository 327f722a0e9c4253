// What model text says of rows from outside them: roles, choices, views, methods; and sums that run.

#include "core/model/program.h"
#include "tests/support/model_support.h"

namespace zl::model {
namespace {

using testing::HasSubstr;

constexpr const char* kRows =
    "row sales \"Sales\" money flow\n history filed\n forecast sales[-1] * 2\n"
    "row worth \"Worth\" quote constant\n value 3 quote\n"
    "driver rate \"Rate\" ratio rate\n default 10%\n"
    "choice way \"Way\"\n option one \"the first\"\n option two \"the second\"\n default two\n";

Result<Model> read(const std::string& text) {
  return parseModel(std::string("model t \"T\" 1\n") + kRows + text, "t.model");
}

TEST(Declarations, RolesViewsAndMethodsAreBoundToRows) {
  const auto m = read(
      "means revenue = sales\nmeans value_per_share = worth wacc = rate\n"
      "view table \"A table\"\n sales\n optional -rate total worth\n"
      "method flows \"Flows\"\n mark \"f\"\n flow sales to firm\n rate rate\n value worth\n low worth\n high worth\n"
      " leads way is two\n");
  ASSERT_TRUE(m) << m.error().text();
  EXPECT_EQ(m->find(Role::Revenue), m->find("sales"));
  EXPECT_EQ(m->nameOf(Role::ValuePerShare), "worth");
  EXPECT_EQ(m->row(Role::Fcff), nullptr);
  EXPECT_EQ(m->nameOf(Role::Fcff), "");
  const auto& rows = m->view("table");
  ASSERT_EQ(rows.size(), 3u);
  EXPECT_TRUE(rows[1].optional && rows[1].minus && !rows[1].total);
  EXPECT_TRUE(rows[2].total);
  EXPECT_TRUE(m->isTotal(m->find("worth")));
  EXPECT_FALSE(m->isTotal(m->find("sales")));
  EXPECT_TRUE(m->view("nothing").empty());
  ASSERT_EQ(m->methods.size(), 1u);
  EXPECT_EQ(m->methods[0].mark, "f");
  EXPECT_EQ(m->methods[0].option, 1);
  EXPECT_THAT(m->restingFeatures(), testing::Contains(HasSubstr("'fcff'")));
  EXPECT_THAT(m->restingFeatures(), testing::Not(testing::Contains(HasSubstr("'revenue'"))));
}

TEST(Declarations, WhatCannotBeBoundIsRefusedWithItsPlace) {
  const std::pair<const char*, const char*> kCases[] = {
      {"means revenue = nothing", "the role 'revenue': there is no row 'nothing'"},
      {"means profit = sales", "the program asks for no role 'profit'"},
      {"means cash = sales", "the role 'cash' is money balance, and 'sales' is money flow"},
      {"means terminal_rule = way", "is a choice whose option 1 is 'value_driver'"},
      {"view v \"V\"\n sales nothing", "the view 'v': there is no row 'nothing'"},
      {"method m \"M\"\n low worth\n high worth", "the method 'm' needs a row for its value"},
      {"method m \"M\"\n value worth\n low worth", "needs both ends of its range"},
      {"method m \"M\"\n value sales", "'sales' is no value per share"},
      {"method m \"M\"\n value worth\n leads way is three", "'way' has no option 'three'"},
      {"method m \"M\"\n value worth\n flow sales to firm", "needs the flow it discounts and the rate"},
      {"means wacc = rate\nmethod m \"M\"\n value worth\n flow sales to shareholders\n rate rate",
       "belongs to shareholders at the firm's rate 'rate'"},
      {"choice c \"C\"\n option a \"A\"", "needs two options or more"},
      {"choice c \"C\"\n option a \"A\"\n option a \"B\"", "has an option 'a' already"},
      {"choice c \"C\"\n option a \"A\"\n option b \"B\"\n default d", "has no option 'd'"},
      {"row r \"R\" ratio constant\n value if(way is third, 1, 0)", "its options are one, two"},
      {"row r \"R\" ratio rate\n forecast if(rate is one, 1, 0)", "it is no choice"},
      {"row r \"R\" ratio rate\n forecast if(rate[-1] is one, 1, 0)", "'is' stands between a choice"},
      {"row r \"R\" money flow\n forecast sum(k = 1 to 11, sales[-k])", "1 to 10 years"},
      {"row r \"R\" money flow\n forecast sum(k = 3 to 1, sales)", "a sum runs upwards"},
      {"row r \"R\" money flow\n forecast sum(k = 1 to 2, sum(j = 1 to 2, sales))", "within another"},
      {"row r \"R\" money flow\n forecast sales + 5", "money and ratio cannot be added"},
      {"driver d \"D\" ratio rate\n range 0 money to 1 money", "this figure is money"},
  };
  for (const auto& [text, message] : kCases) {
    const auto m = read(text);
    EXPECT_THAT(m ? "accepted" : m.error().text(), testing::AllOf(HasSubstr(message), HasSubstr("t.model, line")))
        << text;
  }
}

TEST(Declarations, LaterTextsAddToViewsAndTakeOverRolesAndMethods) {
  const std::string ground = std::string("model t \"T\" 1\n") + kRows +
                             "means revenue = sales\nview v \"V\"\n sales\nmethod m \"M\"\n value worth\n";
  const auto m = parseModel({{"ground", ground},
                             {"own",
                              "row more \"More\" money flow\n history filed\n forecast sales\nmeans revenue = more\n"
                              "view v\n total more\nmethod m \"Mine\"\n value worth\n"}});
  ASSERT_TRUE(m) << m.error().text();
  EXPECT_EQ(m->nameOf(Role::Revenue), "more");
  ASSERT_EQ(m->view("v").size(), 2u);
  EXPECT_EQ(m->view("v")[1].row, m->find("more"));
  ASSERT_EQ(m->methods.size(), 1u);
  EXPECT_EQ(m->methods[0].label, "Mine");
}

/// The two evaluators against a sum worked by hand: 1*400 + 2*200 + 3*100 in the first forecast year.
TEST(Declarations, SumsRunOverYearsBackInBothEvaluatorsAlike) {
  test::SmallModel small;
  small.model = test::modelOf(
      "row sales \"Sales\" money flow\n history filed\n forecast sales[-1] * 2\n"
      "row mix \"Mix\" money flow\n rule sum(k = 1 to 3, k * sales[-k])\n"
      "row alone \"Alone\" money flow\n rule sum(k = 2 to 2, sales[-k])\n");
  small.filed["sales"] = {Figure::of(50), Figure::of(100), Figure::of(200), Figure::of(400)};
  const Evaluation e = small.evaluate();
  EXPECT_EQ(e.figure("mix", 3, 0).value(), 1 * 200 + 2 * 100 + 3 * 50);
  EXPECT_TRUE(e.figure("mix", 2, 0).isAbsent()) << "there are no three years before";
  EXPECT_EQ(e.figure("mix", 4, 0).value(), 1 * 400 + 2 * 200 + 3 * 100);
  EXPECT_EQ(e.figure("mix", 6, 0).value(), 1 * 1600 + 2 * 800 + 3 * 400);
  EXPECT_EQ(e.figure("alone", 4, 0).value(), 200);
  const Row& mix = small.model[small.model.find("mix")];
  EXPECT_EQ(expressionText(*mix.forecast), "sum(k = 1 to 3, k * sales[-k])");
  EXPECT_EQ(expressionText(*mix.history), expressionText(*mix.forecast)) << "one rule, stated once";
}

TEST(Declarations, AChoiceStandsOnAnOptionByNameOrOldNumberAndOnNothingElse) {
  test::SmallModel small;
  small.model = test::modelOf(std::string(kRows) + "row r \"R\" ratio constant\n value if(way is two, 22, 11)\n");
  small.filed["sales"] = {Figure::of(1)};
  EXPECT_EQ(small.evaluate().constant("r", 0).value(), 22) << "by default";
  InputChoice& held = small.theCase.scenarios[1].inputs["way"];
  const std::pair<InputChoice, double> kGood[] = {
      {{0, "one", {}}, 11}, {{0, "two", {}}, 22}, {{0, {}, {}}, 11}, {{1, {}, {}}, 22}};
  for (const auto& [choice, expected] : kGood) {
    held = choice;
    EXPECT_TRUE(faultsOf(small.theCase, small.model).empty());
    EXPECT_EQ(small.evaluate().constant("r", 1).value(), expected) << choice.option << choice.figure;
  }
  for (const InputChoice& bad : {InputChoice{0, "three", {}}, InputChoice{0.5, {}, {}}, InputChoice{2, {}, {}}}) {
    held = bad;
    EXPECT_THAT(faultsOf(small.theCase, small.model), testing::ElementsAre(HasSubstr("there are one, two")));
  }
  const Row& way = small.model[small.model.find("way")];
  EXPECT_EQ(chosenFigure(way, 1, {}).option, "two");
  EXPECT_EQ(optionLabel(way, 1), "the second");
  EXPECT_EQ(optionLabel(way, 0.5), "");
}

TEST(Declarations, ShippedModelsPlayEveryRoleAndExplainEveryRow) {
  const Model full = test::shippedModel();
  EXPECT_THAT(full.restingFeatures(), testing::IsEmpty());
  const std::string standard = test::fileText(test::sourceFolder() + "/kits/standard/model");
  const std::string quick = test::fileText(test::sourceFolder() + "/kits/quick/model");
  const auto extended = parseModel({{"standard", standard}, {"quick", quick}});
  ASSERT_TRUE(extended) << extended.error().text();
  EXPECT_THAT(extended->restingFeatures(), testing::IsEmpty());
  for (const Model& m : {full, *extended}) {
    for (const Row& row : m.rows) EXPECT_FALSE(row.help.empty()) << row.name << " has no help";
  }
}

}  // namespace
}  // namespace zl::model
