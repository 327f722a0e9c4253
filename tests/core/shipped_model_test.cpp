// The shipped texts as a whole: model, mapping rules and ties fit each other.

#include <cmath>
#include <set>
#include <sstream>

#include "core/filing/parts.h"
#include "core/filing/shapes.h"
#include "core/filing/tie.h"
#include "core/quantity/number_text.h"
#include "tests/support/model_support.h"
#include "tests/support/source_folder.h"

namespace zl {
namespace {

std::string shipped(const char* name) {
  return test::fileText(test::sourceFolder() + "/" + name);
}

TEST(Shipped, ConceptsOfThePublicTaxonomiesHaveTheirLines) {
  const auto rules = MappingRules::parse(shipped("kits/standard/rules"), "rules");
  const auto parts = PartRules::parse(shipped("kits/standard/parts"), "parts");
  ASSERT_TRUE(rules && parts);
  std::istringstream table(shipped("tests/core/concept_lines.txt"));
  int asked = 0;
  for (std::string row; std::getline(table, row);) {
    if (row.empty() || row[0] == '#') continue;
    const bool total = row.compare(0, 6, "total ") == 0;
    const std::string line = row.substr(total ? 6 : 0, row.find(':') - (total ? 6 : 0));
    std::istringstream concepts(row.substr(row.find(':') + 1));
    for (std::string name; concepts >> name; ++asked) {
      const PartRules::Residual* residual = parts->of(name);
      const std::string rest = residual == nullptr ? "" : (residual->weight < 0 ? "-" : "") + residual->line;
      EXPECT_EQ(total ? rest : rules->lineOf(name), line) << name;
    }
  }
  EXPECT_GE(asked, 200);
}

TEST(Shipped, EveryFiledRowHasARuleAndEveryRuleARow) {
  const model::Model m = test::shippedModel();
  const auto rules = MappingRules::parse(shipped("kits/standard/rules"), "rules");
  ASSERT_TRUE(rules) << rules.error().text();
  std::set<std::string> lines;
  for (const MappingRule& rule : rules->rules()) {
    EXPECT_TRUE(lines.insert(rule.line).second) << rule.line << " has two rules";
    const model::RowId row = m.find(rule.line);
    ASSERT_TRUE(row.known()) << "no row for the line " << rule.line;
    EXPECT_TRUE(m[row].historyFiled) << rule.line;
  }
  for (const model::Row& row : m.rows) {
    if (!row.historyFiled) continue;
    EXPECT_EQ(lines.count(row.name), 1u) << "no rule for the row " << row.name;
  }
}

TEST(Shipped, EveryLineCanBeFiledUnderItsOwnName) {
  const auto rules = MappingRules::parse(shipped("kits/standard/rules"), "rules");
  for (const MappingRule& rule : rules->rules()) {
    EXPECT_TRUE(rules->mentions(rule.line)) << "the CSV layout promises the line's own name: " << rule.line;
  }
}

TEST(Shipped, NoConceptFeedsTwoLines) {
  const auto rules = MappingRules::parse(shipped("kits/standard/rules"), "rules");
  std::map<std::string, std::string> lineOf;
  for (const MappingRule& rule : rules->rules()) {
    for (const auto& alternative : rule.alternatives) {
      for (const MappingTerm& term : alternative) {
        // What is taken out of one line may stand on another; a total repeats what its parts are.
        if (term.weight < 0 || rule.part || rule.line.starts_with("total_")) continue;
        const auto [at, fresh] = lineOf.try_emplace(term.concept_name, rule.line);
        EXPECT_TRUE(fresh || at->second == rule.line)
            << term.concept_name << " feeds " << at->second << " and " << rule.line;
      }
    }
  }
}

/// A year of a filer under the other public taxonomy, worked by hand so that all of it ties.
TEST(Shipped, TheOtherTaxonomyFillsTheSameLines) {
  const std::pair<const char*, int> kFlows[] = {
      {"Revenues", 1000},
      {"CostOfRevenue", 600},
      {"OperatingExpenses", 290},
      {"SellingGeneralAndAdministrativeExpense", 210},
      {"DepreciationDepletionAndAmortization", 50},
      {"RestructuringCharges", 20},
      {"OperatingIncomeLoss", 110},
      {"InterestExpense", 12},
      {"InvestmentIncomeInterest", 2},
      {"IncomeTaxExpenseBenefit", 25},
      {"IncomeLossFromContinuingOperationsBeforeIncomeTaxesExtraordinaryItemsNoncontrollingInterest", 100},
      {"ProfitLoss", 75},
      {"NetCashProvidedByUsedInOperatingActivities", 130},
      {"PaymentsToAcquirePropertyPlantAndEquipment", 60},
      {"PaymentsOfDividends", 30},
      {"ProceedsFromIssuanceOfLongTermDebt", 15},
      {"RepaymentsOfLongTermDebt", 25},
      {"CashAndCashEquivalentsPeriodIncreaseDecrease", 30}};
  const std::pair<const char*, int> kBalances[] = {{"CashAndCashEquivalentsAtCarryingValue", 80},
                                                   {"ShortTermInvestments", 5},
                                                   {"AccountsReceivableNetCurrent", 120},
                                                   {"InventoryNet", 95},
                                                   {"PropertyPlantAndEquipmentNet", 300},
                                                   {"Goodwill", 100},
                                                   {"Assets", 700},
                                                   {"AccountsPayableCurrent", 90},
                                                   {"LongTermDebtNoncurrent", 210},
                                                   {"Liabilities", 300},
                                                   {"StockholdersEquity", 400}};
  std::vector<Fact> facts;
  const auto file = [&](const char* name, int amount, bool flow) {
    Fact f;
    f.concept_name = std::string("us-gaap:") + name;
    f.unit = "USD";
    f.text = std::to_string(amount);
    f.decimals = 0;
    f.period.end = makeDate(2024, 12, 31);
    if (flow) f.period.start = makeDate(2024, 1, 1);
    facts.push_back(f);
  };
  for (const auto& [name, amount] : kFlows) file(name, amount, true);
  for (const auto& [name, amount] : kBalances) file(name, amount, false);
  const auto rules = MappingRules::parse(shipped("kits/standard/rules"), "rules");
  const auto ties = parseTies(shipped("kits/standard/ties"), "ties");
  const StatementShapes shapes{*parseContained(shipped("kits/standard/ties"), *ties, "ties"), {}, {}};
  const StandardStatements s = StandardStatements::build(facts, *rules, "USD").shaped(shapes, facts);
  EXPECT_TRUE(s.unmapped().empty());
  // Operating expenses as filed hold restructuring, which has a line of its own: 290 - 20. These and cost of sales
  // hold depreciation, which is taken out of both in proportion: 50 of 600 + 270 is 34.48 and 15.52, in units as filed.
  const std::pair<const char*, double> kLines[] = {{"cost_of_sales", 566}, {"operating_expenses", 254},
                                                   {"depreciation", 50},   {"exceptional_items", 20},
                                                   {"ebit", 110},          {"cash", 85},
                                                   {"net_borrowing", -10}, {"equity", 400},
                                                   {"total_equity", 400},  {"minorities", 0},
                                                   {"plant_bought", 60}};
  for (const auto& [line, amount] : kLines) EXPECT_EQ(s.at(line, 0).figure.value(), amount) << line;
  int held = 0;
  for (const TieResult& r : checkTies(*ties, s, facts)) {
    EXPECT_NE(r.state, TieResult::State::Fails) << (*ties)[r.tie].label << " off by " << r.gap;
    held += r.state == TieResult::State::Ties ? 1 : 0;
  }
  EXPECT_EQ(held, 8) << "all but the movement of cash, which needs a year before";
}

TEST(Shipped, TiesNameOnlyLinesAndCoverTheStatements) {
  const model::Model m = test::shippedModel();
  const auto ties = parseTies(shipped("kits/standard/ties"), "ties");
  ASSERT_TRUE(ties) << ties.error().text();
  std::set<std::string> tied;
  for (const Tie& tie : *ties) {
    std::vector<TieTerm> terms = tie.addends;
    terms.push_back(tie.total);
    for (const TieTerm& term : terms) {
      EXPECT_TRUE(m.find(term.line).known()) << term.line;
      tied.insert(term.line);
    }
  }
  for (const model::Row& row : m.rows) {
    const bool part = row.label.ends_with("part of the above");  // of a line that is tied itself
    const bool statement = row.group == "Balance sheet" && row.historyFiled;
    if (!statement || part) continue;
    EXPECT_EQ(tied.count(row.name), 1u) << row.name << " is in no tie";
  }
}

TEST(Shipped, RatesReadRight) {
  // A balance never turns into a flow by a slip of the pen: signs of the walk from cash to cash.
  const model::Model m = test::shippedModel();
  const auto timing = [&](const char* row) { return m[m.find(row)].timing; };
  for (const char* row : {"cash", "debt", "equity", "plant", "tax_losses", "shares"})
    EXPECT_EQ(timing(row), model::Timing::Balance) << row;
  for (const char* row : {"revenue", "ebit", "capex", "fcff", "dividends"})
    EXPECT_EQ(timing(row), model::Timing::Flow) << row;
  for (const char* row : {"wacc", "roic", "factor"}) EXPECT_EQ(timing(row), model::Timing::Rate) << row;
  for (const char* row : {"value_per_share", "upside", "price"}) EXPECT_EQ(timing(row), model::Timing::Constant) << row;
}

TEST(Shipped, LabelsAreTheTradesWordsForTheVerdict) {
  const model::Model m = test::shippedModel();
  const std::pair<const char*, const char*> kWords[] = {{"upside", "Upside"},
                                                        {"margin_of_safety", "Margin of safety"},
                                                        {"price_above_value", "Price above value"},
                                                        {"buy_below", "Buy below"}};
  for (const auto& [row, label] : kWords) EXPECT_EQ(m[m.find(row)].label, label);
}

struct Words {
  double value, price;           ///< per share
  double upside, safety, above;  ///< NaN: not meaningful
};

class VerdictWords : public testing::TestWithParam<Words> {};

TEST_P(VerdictWords, KeepTheirDefinitions) {
  const Words& w = GetParam();
  test::SmallModel m;
  const model::Model shippedOne = test::shippedModel();
  const auto rule = [&](const char* row) { return expressionText(*shippedOne[shippedOne.find(row)].value); };
  m.model = test::modelOf(
      "given price \"P\" quote constant\ngiven value_per_share \"V\" quote constant\n"
      "row upside \"U\" ratio constant\n value " +
      rule("upside") + "\nrow margin_of_safety \"M\" ratio constant\n value " + rule("margin_of_safety") +
      "\nrow price_above_value \"A\" ratio constant\n value " + rule("price_above_value") + "\n");
  m.filed["none"] = test::figures({1});
  m.givens = {{"price", Figure::of(w.price)}, {"value_per_share", Figure::of(w.value)}};
  const Evaluation e = m.evaluate();
  const std::pair<const char*, double> kRows[] = {
      {"upside", w.upside}, {"margin_of_safety", w.safety}, {"price_above_value", w.above}};
  for (const auto& [row, expected] : kRows) {
    const Figure f = e.constant(row, 0);
    ASSERT_EQ(f.hasValue(), !std::isnan(expected)) << row << f.reason();
    if (!f.hasValue()) continue;
    EXPECT_NEAR(f.value(), expected, 1e-12) << row;
  }
}

// A price of 50 against a value of 20 stands 150 % above value and has 60 % downside.
INSTANTIATE_TEST_SUITE_P(Cases, VerdictWords,
                         testing::Values(Words{20, 50, -0.6, -1.5, 1.5}, Words{50, 20, 1.5, 0.6, -0.6},
                                         Words{50, 50, 0, 0, 0}, Words{0, 50, -1, std::nan(""), std::nan("")},
                                         Words{50, 0, std::nan(""), std::nan(""), std::nan("")}));

struct Shown {
  double figure;
  Kind kind;
  const char* text;
  const char* unit;
};

class ShownFigures : public testing::TestWithParam<Shown> {};

TEST_P(ShownFigures, CarryTheirUnitOnce) {
  const Shown& s = GetParam();
  EXPECT_EQ(figureText(Figure::of(s.figure), s.kind), s.text);
  EXPECT_EQ(unitText(s.kind, "EUR", "GBX"), s.unit);
}

INSTANTIATE_TEST_SUITE_P(
    Kinds, ShownFigures,
    testing::Values(Shown{1234567890, Kind::Money, "1,234.6", "EUR m"}, Shown{-50000, Kind::Money, "(0.1)", "EUR m"},
                    Shown{60420000, Kind::Shares, "60.4", "m shares"}, Shown{0.1234, Kind::Ratio, "12.3", "%"},
                    Shown{1.005, Kind::PerShare, "1.00", "EUR"}, Shown{7.5, Kind::Multiple, "7.50", "\xC3\x97"},
                    Shown{61.4, Kind::Days, "61", "days"}, Shown{1019.44, Kind::Quote, "1,019.4", "GBX"},
                    Shown{12.345, Kind::Quote, "12.35", "GBX"}, Shown{1, Kind::Count, "1", ""},
                    Shown{0.9776, Kind::Count, "0.9776", ""}, Shown{85.8, Kind::QuoteRate, "85.8000", "GBX/EUR"}));

TEST(TypedFigures, WhatIsShownReadsBackTheSame) {
  for (const auto& [figure, kind] : {std::pair(0.123, Kind::Ratio),
                                     {-0.056, Kind::Ratio},
                                     {723.7e6, Kind::Money},
                                     {-1234.5e6, Kind::Money},
                                     {61.0, Kind::Days},
                                     {7.5, Kind::Multiple}}) {
    const auto back = typedFigure(figureText(Figure::of(figure), kind), kind);
    ASSERT_TRUE(back);
    EXPECT_NEAR(*back, figure, 1e-9 * std::abs(figure));
  }
}

TEST(PlainNumber, ReadsBackToTheSameBits) {
  for (double x : {0.1, 1.0 / 3, 4.12e8, 1e-5, -2.5, 123456789012.25, 1e22, 1e-300, 0.0}) {
    EXPECT_EQ(std::stod(plainNumber(x)), x) << plainNumber(x);
  }
  EXPECT_EQ(plainNumber(4.12e8), "412000000");
  EXPECT_EQ(plainNumber(0.028), "0.028");
}

}  // namespace
}  // namespace zl
