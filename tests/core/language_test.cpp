// The model language: what it accepts, what it refuses and where it says so.

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
      {"row a \"A\" money flow\n history base(share) * sales\n forecast 0", "has no history rule"},
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

TEST(Language, TheShippedModelIsSoundAndDocumentsItsDrivers) {
  const Model m = test::shippedModel();
  ASSERT_GT(m.rows.size(), 150u);
  for (const Row& row : m.rows) {
    if (row.role == Role::Driver || row.role == Role::Input) {
      EXPECT_TRUE(row.range) << row.name << " has no range";
      EXPECT_TRUE(row.preset) << row.name << " has no default";
    }
  }
}

}  // namespace
}  // namespace zl::model
