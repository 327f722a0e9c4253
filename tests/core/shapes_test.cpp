// Shapes of statements: depreciation inside the functions, totals that are not stated.
// Depreciation: Worked by hand: 1,000 less 600 less 250 is the EBIT of 150 that was filed, and the
// 80 of depreciation are in the 850: 80 x 600 / 850 = 56.47, to the last place filed 56, and the rest, 24, of the 250.

#include "core/filing/shapes.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <array>

#include "core/filing/interim.h"
#include "core/quantity/number_text.h"

namespace zl {
namespace {

using testing::HasSubstr;

Fact eurosOf(const std::string& name, const char* figure, bool flow, int year = 2024) {
  Fact f;
  f.concept_name = name;
  f.text = figure;
  f.unit = "EUR";
  f.period.end = makeDate(year, 12, 31);
  if (flow) f.period.start = makeDate(year, 1, 1);
  return f;
}

constexpr const char* kTies =
    "tie ebit \"EBIT\" ebit = sales - cost - functions - depreciation\n"
    "inside ebit depreciation = cost + functions\n";

/// Worked by hand: of 500 from operations, investing took 230 and financing 180, which both stand whole on the rest:
/// -410. 500 - 410 = 90 is the movement. Told of them are 200 for plant and 90 of dividends: what is left is -30 and
/// -90.
class Holds : public testing::Test {
 protected:
  static constexpr const char* kTies =
      "tie movement \"Cash\" net = operations - plant - dividends - buybacks + rest\n"
      "holds movement rest = plant dividends buybacks\n";

  [[nodiscard]] StandardStatements of(const std::map<std::string, const char*>& figures) {
    facts_.clear();
    std::string rules;
    for (const char* line : {"net", "operations", "plant", "dividends", "buybacks", "rest"}) {
      rules += std::string(line) + " = " + line + "\n";
    }
    for (const auto& [line, figure] : figures) facts_.push_back(eurosOf(line, figure, true));
    const StatementShapes shapes{{}, {}, {}, {}, {}, *parseHolding(kTies, ties_, "t")};
    return StandardStatements::build(facts_, *MappingRules::parse(rules, "r"), "EUR").shaped(shapes, facts_);
  }

  std::vector<Tie> ties_ = *parseTies(kTies, "t");
  std::vector<Fact> facts_;
};

/// Worked by hand: 40, 55 and 30 move by 15 and -25, as the cash flow statement says; 70, 90 and 61 do not.
class Moves : public testing::Test {
 protected:
  /// The concept found, with the figures of three years of each row; "" where there is none.
  [[nodiscard]] std::string found(const std::map<std::string, std::array<const char*, 3>>& rows,
                                  const LineChoices& choices = {}) const {
    std::vector<Fact> facts;
    std::string rules = "cash = cash\nnet = net\nother = ";
    for (const auto& [name, figures] : rows) {
      for (int y = 0; y < 3; ++y) {
        const char* figure = figures[static_cast<size_t>(y)];
        if (figure != nullptr) facts.push_back(eurosOf(name, figure, name == "net", 2022 + y));
      }
      if (name != "cash" && name != "net") rules += name + "? + ";
    }
    rules += "none?\n";
    const StandardStatements s = StandardStatements::build(facts, *MappingRules::parse(rules, "r"), "EUR", choices);
    const auto one = foundByMovement(parseMoving("moves cash = other", ties_, "t")->front(), s, facts, choices);
    return one ? one->first + " to " + one->second.line : "";
  }

  std::vector<Tie> ties_ = *parseTies("tie cash \"Cash\" cash = cash[-1] + net\ntie sum \"S\" cash = net\n", "t");
};

TEST_F(Moves, TheOneRowThatChangesByTheMovementIsTheBalance) {
  const std::array<const char*, 3> net = {"4", "15", "-25"}, vault = {"40", "55", "30"}, claims = {"70", "90", "61"};
  EXPECT_EQ(found({{"net", net}, {"vault", vault}, {"claims", claims}}), "vault to cash");
  EXPECT_EQ(found({{"net", {"4", "18", "-25"}}, {"vault", vault}, {"claims", claims}}), "") << "not by so much";
  EXPECT_EQ(found({{"net", net}, {"claims", claims}}), "");
  EXPECT_EQ(found({{"net", net}, {"vault", vault}, {"other_vault", vault}}), "") << "which of the two?";
  EXPECT_EQ(found({{"net", net}, {"vault", vault}, {"cash", {"1", "2", "3"}}}), "") << "cash is filed";
  EXPECT_EQ(found({{"net", {"4", "15", nullptr}}, {"vault", vault}}), "") << "one movement may be chance";
  EXPECT_EQ(found({{"net", {"0", "0", "0"}}, {"vault", {"40", "40", "40"}}}), "") << "what rests is moved by nothing";
  LineChoice byHand{"other", 1, "I say so"};
  byHand.byHand = true;
  EXPECT_EQ(found({{"net", net}, {"vault", vault}}, {{"vault", byHand}}), "") << "the analyst has placed it";
  EXPECT_THAT(parseMoving("moves sum = other", ties_, "t").error().text(), HasSubstr("no movement of 'cash'"));
  EXPECT_THAT(parseMoving("moves tax = other", ties_, "t").error().text(), HasSubstr("no tie 'tax'"));
  EXPECT_THAT(parseMoving("moves cash =", ties_, "t").error().text(), HasSubstr("expected lines"));
}

TEST_F(Holds, WhatIsToldOfATotalIsTakenOutOfItsRest) {
  const StandardStatements s =
      of({{"net", "90"}, {"operations", "500"}, {"plant", "200"}, {"dividends", "90"}, {"rest", "-410"}});
  EXPECT_EQ(s.at("rest", 0).figure.value(), -120);
  EXPECT_EQ(s.at("rest", 0).parts.size(), 3u) << "it says what it is made of";
  EXPECT_EQ(s.at("plant", 0).figure.value(), 200);
  const StandardStatements one =
      of({{"net", "90"}, {"operations", "500"}, {"plant", "230"}, {"dividends", "90"}, {"rest", "-180"}});
  EXPECT_EQ(one.at("rest", 0).figure.value(), -90) << "plant stands beside it, the dividends are in it";
}

TEST_F(Holds, WhatCannotBeToldStays) {
  const std::tuple<std::map<std::string, const char*>, const char*> kCases[] = {
      {{{"net", "0"}, {"operations", "500"}, {"plant", "200"}, {"dividends", "90"}, {"rest", "-210"}}, "it ties"},
      {{{"net", "90"}, {"operations", "500"}, {"plant", "90"}, {"dividends", "90"}, {"rest", "-320"}},
       "either of two lines would explain it"},
      {{{"net", "99"}, {"operations", "500"}, {"plant", "200"}, {"dividends", "90"}, {"rest", "-410"}},
       "the gap is something else"},
      {{{"operations", "500"}, {"plant", "200"}, {"dividends", "90"}, {"rest", "-410"}}, "no total is filed"}};
  for (const auto& [figures, why] : kCases) {
    const StandardStatements s = of(figures);
    EXPECT_EQ(plainNumber(s.at("rest", 0).figure.value()), figures.at("rest")) << why;
  }
  EXPECT_THAT(parseHolding("holds movement rest = sales", ties_, "t").error().text(), HasSubstr("no other addend"));
  EXPECT_THAT(parseHolding("holds cash rest = plant", ties_, "t").error().text(), HasSubstr("no tie 'cash'"));
  EXPECT_THAT(parseHolding("holds movement rest =", ties_, "t").error().text(), HasSubstr("one to eight"));
}

class Inside : public testing::Test {
 protected:
  void file(const char* name, const char* text, Period period = {makeDate(2024, 1, 1), makeDate(2024, 12, 31)}) {
    Fact f;
    f.concept_name = name;
    f.text = text;
    f.unit = "EUR";
    f.period = period;
    facts_.push_back(f);
  }
  void year(const char* ebit) {
    file("sales", "1000");
    file("cost", "600");
    file("functions", "250");
    file("depreciation", "80");
    file("ebit", ebit);
  }
  [[nodiscard]] StandardStatements statements() const {
    return StandardStatements::build(facts_, rules_, "EUR").shaped(shapes_, facts_);
  }

  std::vector<Fact> facts_;
  MappingRules rules_ = *MappingRules::parse(
      "sales = sales\ncost = cost\nfunctions = functions\ndepreciation = depreciation\nebit = ebit\n", "r");
  std::vector<Tie> ties_ = *parseTies(kTies, "t");
  StatementShapes shapes_{*parseContained(kTies, ties_, "t"), {}, {}};
};

TEST_F(Inside, IsTakenOutInProportionAndTheTieHolds) {
  year("150");
  const StandardStatements s = statements();
  EXPECT_EQ(s.at("cost", 0).figure.value(), 544);
  EXPECT_EQ(s.at("functions", 0).figure.value(), 226);
  EXPECT_EQ(s.at("depreciation", 0).figure.value(), 80);
  EXPECT_EQ(checkTies(ties_, s, facts_)[0].state, TieResult::State::Ties);
  EXPECT_EQ(s.at("cost", 0).parts.back().share, "56");
  EXPECT_EQ(s.at("functions", 0).parts.back().share, "24");
}

TEST_F(Inside, WhatIsApartOrUnknownStays) {
  const std::tuple<const char*, const char*> kCases[] = {{"70", "it is deducted beside them"},
                                                         {"131", "the gap is something else"}};
  for (const auto& [ebit, why] : kCases) {
    facts_.clear();
    year(ebit);
    EXPECT_EQ(statements().at("cost", 0).figure.value(), 600) << why;
  }
  facts_.pop_back();
  EXPECT_EQ(statements().at("cost", 0).figure.value(), 600) << "no EBIT is filed";
  facts_.clear();
  year("150");
  facts_[1].text = "-600";
  facts_[2].text = "1450";
  EXPECT_EQ(statements().at("cost", 0).figure.value(), -600) << "a line below zero holds nothing";
  EXPECT_EQ(statements().at("functions", 0).figure.value(), 1370);
}

TEST_F(Inside, QuartersFollowTheirYear) {
  year("150");
  // Nine months: 700 less 430 less 180 is 90; of their 60 of depreciation 42 are in the 430.
  const Period nine{makeDate(2024, 1, 1), makeDate(2024, 9, 30)};
  file("sales", "700", nine);
  file("cost", "430", nine);
  file("functions", "180", nine);
  file("depreciation", "60", nine);
  file("ebit", "90", nine);
  const StandardStatements annual = statements();
  const auto interim = InterimStatements::build(facts_, rules_, "EUR", {}, {}, annual, shapes_);
  ASSERT_EQ(interim.quarters().size(), 2u);
  EXPECT_EQ(interim.yearToDate("cost", 0).value(), 388);
  EXPECT_EQ(interim.quarter("cost", 1).value(), 544 - 388);
  const auto ofLast = [&](const char* line) { return interim.quarter(line, 1).value(); };
  EXPECT_EQ(ofLast("sales") - ofLast("cost") - ofLast("functions") - ofLast("depreciation"), ofLast("ebit"));
}

TEST(Complete, WhatAddsUpToItsTotalLeavesNothingForOthers) {
  const std::string text = "tie all \"All\" whole = a + b + c\ncomplete all\n";
  const std::vector<Tie> ties = *parseTies(text, "t");
  const auto rules = *MappingRules::parse("year = year\nwhole = whole\na = a\nb = b\nc = c\n", "r");
  const auto after = [&](const std::string& shapesText, const std::map<std::string, const char*>& figures) {
    std::vector<Fact> facts;
    const auto file = [&](const std::string& name, const char* figure, bool flow) {
      Fact f;
      f.concept_name = name;
      f.text = figure;
      f.decimals = 0;
      f.unit = "EUR";
      f.period.end = makeDate(2024, 12, 31);
      if (flow) f.period.start = makeDate(2024, 1, 1);
      facts.push_back(f);
    };
    file("year", "1", true);
    for (const auto& [name, figure] : figures) file(name, figure, false);
    const StatementShapes shapes{{}, {}, *parseComplete(shapesText, ties, "t")};
    const StandardStatements s = StandardStatements::build(facts, rules, "EUR").shaped(shapes, facts);
    std::string origins;
    for (const char* line : {"a", "b", "c"}) {
      const Origin origin = s.at(line, 0).origin;
      origins += origin == Origin::Filed ? 'f' : origin == Origin::NoneReported ? '0' : '?';
    }
    return origins;
  };
  EXPECT_EQ(after(text, {{"whole", "100"}, {"a", "60"}, {"b", "40"}}), "ff0");
  EXPECT_EQ(after(text, {{"whole", "100"}, {"a", "60"}, {"b", "41"}}), "ff0") << "within three halves of a unit";
  EXPECT_EQ(after(text, {{"whole", "100"}, {"a", "60"}, {"b", "43"}}), "ff?")
      << "something is missing: it is not nothing";
  EXPECT_EQ(after(text, {{"whole", "100"}, {"a", "100"}}), "f00");
  EXPECT_EQ(after(text, {{"a", "60"}, {"b", "40"}}), "ff?") << "no total to add up to";
  EXPECT_EQ(after("complete all b\n", {{"whole", "100"}, {"a", "100"}}), "f0?") << "of these lines alone";
  EXPECT_THAT(parseComplete("complete x", ties, "t").error().text(), HasSubstr("there is no tie 'x'"));
  EXPECT_THAT(parseComplete("complete", ties, "t").error().text(), HasSubstr("name of a tie"));
  EXPECT_THAT(parseComplete("complete all d", ties, "t").error().text(), HasSubstr("'d' is no addend"));
}

TEST(Unfiled, ALineIsNoneOnlyWhereItsStatementIsFiled) {
  // Two years of flows and one balance sheet, which has stock and no debt; goodwill is in none.
  const auto rules = *MappingRules::parse(
      "sales = sales\nfees? = fees\ncash = cash\nstock? = stock\ndebt? = debt\ngoodwill? = goodwill\n", "r");
  std::vector<Fact> facts;
  const auto file = [&](const char* name, int year, bool flow) { facts.push_back(eurosOf(name, "7", flow, year)); };
  for (const int year : {2023, 2024, 2025}) file("sales", year, true);
  file("fees", 2025, true);
  for (const int year : {2024, 2025}) file("cash", year, false);
  file("stock", 2025, false);
  const StandardStatements s = StandardStatements::build(facts, rules, "EUR");
  EXPECT_EQ(s.at("stock", 0).origin, Origin::Missing) << "no balance sheet of that year is filed: nobody knows";
  EXPECT_EQ(s.at("stock", 1).origin, Origin::NoneReported);
  EXPECT_EQ(s.at("stock", 2).figure.valueOr(-1), 7);
  EXPECT_EQ(s.at("fees", 0).origin, Origin::NoneReported) << "the result of that year is filed, without fees";
  EXPECT_EQ(s.at("goodwill", 2).origin, Origin::NoneReported);
}

TEST(Untold, WhatATotalLeavesIsTheRestWhereConceptsAreLeftOut) {
  const std::string text =
      "tie debts \"Debts\" debts = short + shortother + long + longother\n"
      "rest debts longother, current shorttotal = shortother short\n";
  const std::vector<Tie> ties = *parseTies(text, "t");
  const StatementShapes shapes{{}, {}, {}, {}, *parseUntold(text, ties, "t")};
  const auto rules = *MappingRules::parse(
      "year = year\ndebts = debts\nshort = short\nshortother? = shortother\nlong = long | rentCurrent\n"
      "longother? = longother\n",
      "r");
  struct Filed {
    std::map<std::string, const char*> facts;
    double shortOther, longOther;
    bool leftOut = true;
  };
  // Worked by hand: of 100, 40 are short, of which 25 are named; 45 of the other 60 are.
  const Filed kCases[] = {
      {{{"debts", "100"}, {"shorttotal", "40"}, {"short", "25"}, {"long", "45"}}, 15, 15},
      {{{"debts", "100"}, {"shorttotal", "40"}, {"short", "25"}, {"long", "60"}}, 15, 0},
      {{{"debts", "100"}, {"shorttotal", "40"}, {"short", "25"}, {"shortother", "5"}, {"long", "60"}}, 15, 0},
      {{{"debts", "100"}, {"short", "25"}, {"long", "45"}}, 0, 30},
      {{{"debts", "100"}, {"shorttotal", "40"}, {"short", "25"}, {"rentCurrent", "10"}, {"longother", "60"}}, 5, 60},
      {{{"debts", "100"}, {"shorttotal", "40"}, {"short", "50"}, {"long", "60"}}, 0, 0},  // more than the total: wrong
      {{{"debts", "100"}, {"shorttotal", "40"}, {"short", "25"}, {"long", "45"}}, 0, 0, false}};
  for (const Filed& filed : kCases) {
    std::vector<Fact> facts{eurosOf("year", "1", true)};
    for (const auto& [name, figure] : filed.facts) facts.push_back(eurosOf(name, figure, false));
    const StandardStatements s = StandardStatements::build(facts, rules, "EUR").shaped(shapes, facts, filed.leftOut);
    EXPECT_EQ(s.at("shortother", 0).figure.valueOr(0), filed.shortOther) << facts.size();
    EXPECT_EQ(s.at("longother", 0).figure.valueOr(0), filed.longOther) << facts.size();
    const bool whole = filed.leftOut && filed.shortOther + filed.longOther > 0;
    EXPECT_EQ(checkTies(ties, s, facts)[0].state == TieResult::State::Ties, whole) << "from facts, and so it ties";
  }
  EXPECT_THAT(parseUntold("rest x y", ties, "t").error().text(), HasSubstr("there is no tie 'x'"));
  EXPECT_THAT(parseUntold("rest debts y", ties, "t").error().text(), HasSubstr("'y' is no addend"));
  EXPECT_THAT(parseUntold("rest debts long, current", ties, "t").error().text(), HasSubstr("expected 'current'"));
}

TEST(Solved, TheOneLineThatIsNotFiledFollowsFromTheOthers) {
  const std::string text =
      "tie balance \"Balance\" assets = debts + own\ntie own \"Own\" own = ours + theirs\nsolve own\nsolve balance\n";
  const std::vector<Tie> ties = *parseTies(text, "t");
  const StatementShapes shapes{{}, *parseSolved(text, ties, "t"), {}};
  const auto rules = *MappingRules::parse(
      "year = year\nassets = assets\ndebts = debts\nown = own\nours = ours\ntheirs? = theirs\n", "r");
  struct Filed {
    std::map<std::string, const char*> facts;
    std::map<std::string, double> expected;
  };
  const Filed kCases[] = {
      {{{"assets", "100"}, {"ours", "30"}, {"theirs", "5"}}, {{"own", 35}, {"debts", 65}}},  // no totals at all
      {{{"assets", "100"}, {"debts", "70"}, {"own", "30"}}, {{"ours", 30}}},                 // one row of equity
      {{{"debts", "70"}, {"own", "30"}, {"theirs", "4"}}, {{"ours", 26}, {"assets", 100}}},
      {{{"assets", "100"}}, {}}};  // two unknowns in each
  for (const Filed& filed : kCases) {
    std::vector<Fact> facts{eurosOf("year", "1", true)};
    for (const auto& [name, figure] : filed.facts) facts.push_back(eurosOf(name, figure, false));
    const StandardStatements s = StandardStatements::build(facts, rules, "EUR").shaped(shapes, facts);
    for (const char* line : {"assets", "debts", "own", "ours"}) {
      const auto expected = filed.expected.find(line);
      if (expected != filed.expected.end()) {
        EXPECT_EQ(s.at(line, 0).figure.valueOr(-1), expected->second) << line;
      } else {
        EXPECT_EQ(s.at(line, 0).origin == Origin::Filed, filed.facts.count(line) > 0) << line;
      }
    }
  }
  EXPECT_THAT(parseSolved("solve x", ties, "t").error().text(), HasSubstr("there is no tie 'x'"));
  EXPECT_FALSE(parseSolved("solve", ties, "t"));
}

TEST(Solved, OnlyTheLinesThatAreNamed) {
  // Profit before interest where no such row is filed: 70 and 12 of interest. Interest that is not told is not solved.
  const std::vector<Tie> ties = *parseTies("tie pretax \"Pretax\" pretax = ebit - interest\n", "t");
  const StatementShapes shapes{{}, *parseSolved("solve pretax ebit", ties, "t"), {}};
  const auto rules = *MappingRules::parse("pretax = pretax\nebit = ebit\ninterest = interest\n", "r");
  for (const auto& [filed, solved] : {std::pair("interest", true), {"ebit", false}}) {
    const std::vector<Fact> facts{eurosOf("pretax", "70", true), eurosOf(filed, "12", true)};
    const StandardStatements s = StandardStatements::build(facts, rules, "EUR").shaped(shapes, facts);
    EXPECT_EQ(s.at(solved ? "ebit" : "interest", 0).figure.valueOr(-1), solved ? 82 : -1);
  }
  EXPECT_THAT(parseSolved("solve pretax x", ties, "t").error().text(), HasSubstr("'x' is no line of 'pretax'"));
}

TEST(Solved, ABalanceSheetOfNetAssetsGivesBothTotals) {
  const std::string text =
      "tie balance \"Balance\" assets = debts + own\ntie assets \"Assets\" assets = cash + plant\n"
      "tie debts \"Debts\" debts = short + long\n";
  const std::vector<Tie> ties = *parseTies(text, "t");
  const StatementShapes shapes{{}, {}, {}, *parseSums("sums balance assets debts", ties, "t")};
  const auto rules = *MappingRules::parse(
      "year = year\nassets = assets\ndebts = debts\nown = own\ncash = cash\nplant = plant\nshort = short\nlong = "
      "long\n",
      "r");
  struct Filed {
    const char* what;
    std::map<std::string, const char*> facts;
    double assets, debts;  ///< -1: not known
  };
  const Filed kCases[] = {
      {"30 and 70 less 25 and 15 are 60",
       {{"cash", "30"}, {"plant", "70"}, {"short", "25"}, {"long", "15"}, {"own", "60"}},
       100,
       40},
      {"nothing falls due later", {{"cash", "30"}, {"plant", "70"}, {"short", "40"}, {"own", "60"}}, 100, 40},
      {"a row is missing", {{"cash", "30"}, {"plant", "70"}, {"short", "25"}, {"own", "60"}}, -1, -1},
      {"assets are stated",
       {{"assets", "100"}, {"cash", "30"}, {"plant", "70"}, {"short", "40"}, {"own", "60"}},
       100,
       -1}};
  for (const Filed& filed : kCases) {
    std::vector<Fact> facts{eurosOf("year", "1", true)};
    for (const auto& [name, figure] : filed.facts) facts.push_back(eurosOf(name, figure, false));
    const StandardStatements s = StandardStatements::build(facts, rules, "EUR").shaped(shapes, facts);
    EXPECT_EQ(s.at("assets", 0).figure.valueOr(-1), filed.assets) << filed.what;
    EXPECT_EQ(s.at("debts", 0).figure.valueOr(-1), filed.debts) << filed.what;
    if (filed.debts < 0) continue;
    for (const TieResult& tie : checkTies(ties, s, facts)) EXPECT_EQ(tie.state, TieResult::State::Ties) << filed.what;
  }
  for (const char* wrong : {"sums balance assets", "sums assets balance debts", "sums x assets debts"}) {
    EXPECT_FALSE(parseSums(wrong, ties, "t")) << wrong;
  }
}

TEST(Movement, OfOnePartOfABalanceTies) {
  // Cash 60 to 75 by the 15 of the cash flow statement; short-term investments beside it go from 20 to 50.
  const std::vector<Tie> ties = *parseTies("tie cash \"Cash\" cash = cash[-1] + movement\n", "t");
  const auto rules = *MappingRules::parse("cash = money + securities?\nmovement = movement\n", "r");
  std::vector<Fact> facts;
  const auto file = [&](int year, const char* name, const char* text, bool flow) {
    Fact f;
    f.concept_name = name;
    f.text = text;
    f.unit = "EUR";
    f.period.end = makeDate(year, 12, 31);
    if (flow) f.period.start = makeDate(year, 1, 1);
    facts.push_back(f);
  };
  file(2023, "movement", "4", true);
  file(2023, "money", "60", false);
  file(2023, "securities", "20", false);
  file(2024, "movement", "15", true);
  file(2024, "money", "75", false);
  file(2024, "securities", "50", false);
  const auto state = [&] { return checkTies(ties, StandardStatements::build(facts, rules, "EUR"), facts)[1].state; };
  EXPECT_EQ(state(), TieResult::State::Ties);
  facts[3].text = "17";
  EXPECT_EQ(state(), TieResult::State::Fails) << "no part moves by that";
}

TEST(InsideText, SaysWhatIsWrong) {
  const std::vector<Tie> ties = *parseTies(kTies, "t");
  const std::pair<const char*, const char*> kFaults[] = {
      {"inside ebit depreciation", "expected a tie, a line of it and '='"},
      {"inside x depreciation = cost", "there is no tie 'x'"},
      {"inside ebit rent = cost", "'rent' is no addend of 'ebit'"},
      {"inside ebit depreciation =", "no line is named"},
      {"inside ebit depreciation = cost functions", "'functions' is out of place"},
      {"inside ebit depreciation = depreciation", "no other addend"}};
  for (const auto& [text, what] : kFaults) {
    const auto parsed = parseContained(std::string("\n") + text, ties, "t");
    ASSERT_FALSE(parsed) << text;
    EXPECT_THAT(parsed.error().text(), HasSubstr(what));
    EXPECT_THAT(parsed.error().where, HasSubstr("t, line 2"));
  }
}

}  // namespace
}  // namespace zl
