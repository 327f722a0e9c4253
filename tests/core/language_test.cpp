// The model language: what it accepts, what it refuses and where it says so.

#include <set>

#include "core/model/expression_words.h"
#include "core/model/peer_multiple.h"
#include "core/model/program.h"
#include "tests/support/model_support.h"

namespace zl::model {
namespace {

std::string faultOf(const std::string& rows) {
  const auto m = parseModel("model t \"T\" 1\n" + rows, "t.model");
  return m ? "accepted" : m.error().text();
}

TEST(Language, RefusalsNameRowAndPlace) {
  const std::string filed =
      "row sales \"Sales\" money flow\n history filed\n forecast sales[-1]\n"
      "row stock \"Stock\" money balance\n history filed\n forecast stock[-1]\n"
      "row share \"Share\" ratio rate\n forecast 0.5\n";
  const struct {
    const char* text;
    const char* message;
  } kCases[] = {
      {"row a \"A\" money flow\n forecast nowhere", "t.model, line 11, column 11: row 'a': there is no row 'nowhere'"},
      {"row a \"A\" money flow\n forecast sales + share", "money and ratio cannot be added"},
      {"row a \"A\" ratio rate\n forecast sales * share", "the rule gives money, but the row is ratio"},
      {"row a \"A\" money constant\n value total(stock)", "a balance cannot be summed over time"},
      {"row a \"A\" money constant\n value total(stock + stock)", "a balance cannot be summed over time"},
      {"row a \"A\" money flow\n forecast avg(sales)", "avg() takes the mean of opening and closing"},
      {"row a \"A\" money constant\n value sales", "has a figure per year; say which"},
      {"row a \"A\" money flow\n history final(sales)\n forecast sales", "history cannot look into the forecast"},
      {"row a \"A\" money flow\n history a\n forecast sales", "leads back to itself in the same year"},
      {"row a \"A\" money flow\n forecast sales[-11]", "looks back a whole number of 1 to 10 years"},
      {"row a \"A\" money flow\n forecast sales[1]", "expected '-'"},
      {"row a \"A\" ratio rate\n forecast 2^sales", "only ratios can be raised to a power"},
      {"row a \"A\" money flow", "this row needs a forecast rule"},
      {"driver a \"A\" ratio rate\n forecast share", "a driver is assumed or given and has no rule"},
      {"driver a \"A\" ratio constant", "a driver has a path over the years"},
      {"row sales \"Again\" money flow\n forecast 0", "this name is used by two rows"},
      {"row a \"A\" cash flow\n forecast 0", "'cash' is not a kind"},
      {"row a \"A\" money weekly\n forecast 0", "'weekly' is not a timing"},
      {"row a \"A\" money flow\n forecast (sales", "expected ')'"},
      {"row a \"A\" money flow\n forecast sales ? 1", "the character '?' has no meaning here"},
      {"row a \"A money flow\n forecast sales", "has no closing quotation mark"},
      {"row a \"A\" money flow\n forecast median(sales)", "there is no function 'median'"},
      {"driver a \"A\" ratio rate\n range 2 to 1", "the range runs from high to low"},
      {"row a \"A\" money flow\n forecast beyond(sales)", "belongs in a constant row"},
      {"row a \"A\" money flow\n forecast sales\n beyond sales", "only a driver says what it is beyond"},
      {"given a \"A\" shares constant\n record options 1 count", "a list of the record is read by place from 1"},
      {"given a \"A\" money constant\n record option_tranches 1 count", "the field is shares"},
      {"row a \"A\" shares constant\n value 0\n record option_tranches 1 count", "only a given is read from a list"},
      {"row a \"A\" money flow\n history base(share) * sales\n forecast 0", "has no history rule"},
      {"row a \"A\" money flow\n history third_year(sales)\n forecast 0", "history cannot look into the forecast"},
      {"given a \"A\" ratio constant\n regular margin over sales", "there is no row 'margin'"},
      {"given a \"A\" money constant\n regular sales over sales", "a mean of regular years is a given ratio"},
      {"row n \"N\" count flow\n history filed\n forecast 0\ngiven a \"A\" ratio constant\n regular sales over n",
       "their units differ"},
      {"given a \"A\" ratio constant\n regular sales over sales\nrow b \"B\" ratio rate\n history a\n forecast a",
       "history cannot read 'a', which is a mean of it"},
      {"multiple a \"A\" \"a\" shares last sales", "expected base, opening_year, second_year, third_year or normal"},
      {"multiple a \"A\" \"a\" shares base nothing", "there is no row 'nothing'"},
  };
  for (const auto& c : kCases) {
    EXPECT_THAT(faultOf(filed + c.text), testing::HasSubstr(c.message)) << c.text;
  }
}

TEST(Language, DeepNestingIsRefusedNotRecursedInto) {
  const std::string deep(100000, '(');
  EXPECT_THAT(faultOf("row a \"A\" ratio rate\n forecast " + deep), testing::HasSubstr("nested more than 64 deep"));
  std::string minus(100000, '-');
  EXPECT_THAT(faultOf("row a \"A\" ratio rate\n forecast " + minus + "1"),
              testing::HasSubstr("nested more than 64 deep"));
}

TEST(Language, WhatWouldCostMoreThanAMachineHasIsRefused) {
  std::string sum = "1";
  for (int i = 0; i < 50000; ++i) sum += " + 1";
  EXPECT_THAT(faultOf("row a \"A\" ratio rate\n forecast " + sum), testing::HasSubstr("more than 2,000 operations"));
  // avg() stands for two of what is in it, total() for fifteen: nested they multiply.
  const std::string stock = "row stock \"S\" money balance\n history filed\n forecast stock[-1]\n";
  std::string mean = "stock";
  for (int i = 0; i < 20; ++i) mean = "avg(" + mean + ")";
  EXPECT_THAT(faultOf(stock + "row a \"A\" money balance\n forecast " + mean),
              testing::HasSubstr("more than 20,000 operations"));
  std::string all = "1";
  for (int i = 0; i < 10; ++i) all = "total(" + all + ")";
  EXPECT_THAT(faultOf("row a \"A\" ratio constant\n value " + all), testing::HasSubstr("more than 20,000 operations"));
  EXPECT_EQ(faultOf(stock + "row a \"A\" money balance\n forecast avg(avg(stock))"), "accepted");
  std::string many;
  for (int i = 0; i < 60; ++i) {
    std::string rule = "stock";
    for (int k = 0; k < 12; ++k) rule = "avg(" + rule + ")";
    many += "row r" + std::to_string(i) + " \"R\" money balance\n forecast " + rule + "\n";
  }
  EXPECT_THAT(faultOf(stock + many), testing::HasSubstr("400,000 operations"));
}

TEST(Language, ExpressionsPrintAndParseBackTheSame) {
  for (const char* text :
       {"a + b * c", "(a + b) * c", "a - (b - c)", "-a^2", "(-a)^2", "a / (b / c)", "if(a > b, a, b)",
        "guard(a > 0 and b > 0 or c == 1, a / b, \"why\")", "max(0, -a)", "a[-1] * (1 + b)", "a^(b + 1)"}) {
    const std::string rows = "driver a \"A\" ratio rate\ndriver b \"B\" ratio rate\ndriver c \"C\" ratio rate\n";
    const Model first = test::modelOf(rows + "row r \"R\" ratio rate\n forecast " + text);
    const std::string once = expressionText(*first.rows.back().forecast);
    const Model second = test::modelOf(rows + "row r \"R\" ratio rate\n forecast " + once);
    EXPECT_EQ(expressionText(*second.rows.back().forecast), once) << text;
    EXPECT_EQ(once, text);
  }
}

TEST(Language, ExpressionsAreReadOutInTheWordsOfTheirRows) {
  const std::string rows =
      "driver growth \"Growth\" ratio rate\ndriver ebit \"EBIT\" ratio rate\n"
      "choice way \"Terminal flow\"\n option one \"by return\"\n option two \"as it is\"\n"
      "choice metric \"Exit multiple of\"\n option ebitda \"EBITDA\"\n option sales \"sales\"\n";
  const struct {
    const char* rule;
    const char* words;
  } kCases[] = {
      {"growth + ebit - 2 - growth", "growth plus EBIT less 2 less growth"},
      {"growth * (365 days / 30 days) - 0 ratio", "(growth times (365 days over 30 days)) less 0"},
      {"growth - (ebit - 2)", "growth less (EBIT less 2)"},
      {"growth * ebit / 2 + ebit", "(growth times EBIT over 2) plus EBIT"},
      {"growth / (ebit / 2)", "growth over (EBIT over 2)"},
      {"ebit[-1]^2", "EBIT of the year before to the power of 2"},
      {"if(way is two, ebit, 0)", "if terminal flow is 'as it is' then EBIT, else 0"},
      {"if(metric is ebitda, ebit, 0)", "if exit multiple of 'EBITDA' then EBIT, else 0"},
      {"guard(ebit > 0, growth / ebit, \"a loss\")", "growth over EBIT, as long as EBIT is above 0"},
      {"known(ebit, guard(0 > 1, ebit, \"no EBIT\"))", "EBIT, where it is known, else no value, as 'no EBIT'"},
  };
  for (const auto& c : kCases) {
    const Model m = test::modelOf(rows + "row r \"R\" ratio rate\n forecast " + c.rule);
    EXPECT_EQ(expressionWords(*m.rows.back().forecast, m), c.words) << c.rule;
  }
}

constexpr const char* kGround =
    "model ground \"Ground\" 1\ngroup \"Sales\"\n"
    "driver growth \"Growth\" ratio rate\n history guard(sales[-1] > 0, sales / sales[-1] - 1, \"none before\")\n"
    " range -1 to 2\n default last\n"
    "row sales \"Sales\" money flow\n history filed\n forecast sales[-1] * (1 + growth)\n"
    "group \"Profit\"\nrow profit \"Profit\" money flow\n history filed\n first 0\n forecast sales * 0.1\n";

Result<Model> upon(const std::string& text) {
  return parseModel({{"ground", kGround}, {"own", text}});
}

TEST(Language, AMultipleOfAnyRowIsItsLineAndItsLineIsTheMultiple) {
  const Model m =
      test::modelOf("row sales \"Net SALES\" money flow\n forecast 0\nrow ebitda \"EBITDA\" money flow\n forecast 0\n");
  const PeerMultiple next = multipleOfRow(m[m.find("sales")], true, PeerMultiple::Of::NextYear);
  EXPECT_EQ(
      lineOf(next),
      "multiple ev_to_sales_next \"EV to net SALES, next year\" \"net SALES of next year\" firm second_year sales\n");
  const PeerMultiple trailing = multipleOfRow(m[m.find("ebitda")], false, PeerMultiple::Of::Trailing);
  EXPECT_EQ(lineOf(trailing), "multiple price_to_ebitda \"Price to EBITDA\" \"EBITDA\" shares base ebitda\n");
}

TEST(Language, LaterTextsAddAmendAndLeaveOut) {
  const auto m = upon(
      "row stock \"Stock\" money balance\n forecast sales\n"
      "group \"Sales\"\nrow orders \"Orders\" money flow\n history fact \"x:Orders\" along \"x:Axis\" \"x:Member\"\n"
      " forecast sales * 1.1\n"
      "amend sales\n forecast orders[-1]\n"
      "amend growth\n forecast guard(sales[-1] > 0, sales / sales[-1] - 1, \"none before\")\n"
      "unprojected group \"Profit\"\n");
  ASSERT_TRUE(m) << m.error().text();
  const auto row = [&](const char* name) { return (*m)[m->find(name)]; };
  EXPECT_EQ(m->find("orders").at(), m->find("sales").at() + 1) << "it joins the end of its group";
  EXPECT_EQ(row("stock").group, "Own rows");
  EXPECT_EQ(m->textOf(m->find("orders").at()), 1);
  EXPECT_EQ(row("orders").fact->member, "x:Member");
  EXPECT_FALSE(row("orders").isStandardLine()) << "no concept can be put on it";
  EXPECT_EQ(row("sales").amendedBy, 1);
  EXPECT_TRUE(row("sales").historyFiled) << "what is not amended stays";
  EXPECT_EQ(row("growth").declared, Declared::Row) << "a driver with a rule is assumed no more";
  EXPECT_TRUE(row("growth").history);
  EXPECT_FALSE(row("profit").projected);
  EXPECT_FALSE(row("profit").first) << "the first year goes with the others";
  const Model ground = *parseModel(kGround, "ground");
  EXPECT_EQ(ground[ground.find("growth")].declared, Declared::Driver) << "the ground is untouched";
}

TEST(Language, FaultsOfLaterTextsSayWhichTextAndWhere) {
  const struct {
    const char* text;
    const char* message;
  } kCases[] = {
      {"row sales \"Again\" money flow\n forecast 0", "own, line 1, column 1: row 'sales': the model has this row"},
      {"amend nothing\n forecast 0", "own, line 1, column 7: there is no row 'nothing' to amend"},
      {"amend sales\nrow x \"X\" money flow\n forecast 0", "own, line 2, column 1: expected what to amend"},
      {"unprojected group \"None\"", "own, line 1, column 19: the group 'None' has no rows with years"},
      {"model other \"O\" 2 extends elsewhere", "own, line 1, column 27: this text extends 'elsewhere'"},
      {"model other \"O\" 2", "expected 'extends'"},
      {"history 0", "expected group, row, driver, input, choice, given, amend, unprojected, means, view or method"},
  };
  for (const auto& c : kCases) {
    const auto m = upon(c.text);
    ASSERT_FALSE(m) << c.text;
    EXPECT_THAT(m.error().text(), testing::HasSubstr(c.message)) << c.text;
  }
  const auto m = upon("amend sales\n history nowhere\n");
  const auto place = placeOf(m.error(), {{"ground", kGround}, {"own", ""}});
  ASSERT_TRUE(place);
  EXPECT_EQ(place->text, 1u);
  EXPECT_EQ(place->at.line, 2);
  EXPECT_EQ(place->at.column, 10);
}

TEST(Language, ARateOfChangeIsKnownByItsRuleNotByItsName) {
  const Model m = test::shippedModel();
  std::set<std::string> found;
  for (const Row& row : m.rows) {
    if (comparesYears(row)) found.insert(row.name);
  }
  // Read off the model's text: x / x[-1] - 1, or revenue - revenue[-1]. Growth capex and an opening balance are
  // neither.
  EXPECT_THAT(found, testing::ElementsAre("debt_growth", "dividend_growth", "growth_capex_ratio",
                                          "incremental_sales_to_capital", "revenue_growth"));
}

TEST(Language, TheShippedModelIsSoundAndDocumentsItsDrivers) {
  const Model m = test::shippedModel();
  ASSERT_GT(m.rows.size(), 150u);
  for (const Row& row : m.rows) {
    if (row.declared == Declared::Driver || row.declared == Declared::Input) {
      EXPECT_TRUE(row.range) << row.name << " has no range";
      EXPECT_TRUE(row.preset) << row.name << " has no default";
    }
  }
}

}  // namespace
}  // namespace zl::model
