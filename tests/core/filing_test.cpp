#include "core/filing/tie.h"
#include "tests/support/model_support.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "core/filing/fact_lines.h"
#include "core/filing/minor_unit.h"
#include "core/filing/restatement.h"

#include "core/monitor/finding.h"

namespace zl {
namespace {

Fact fact(const char* name, const char* text, int year, bool balance = false, int decimals = -3,
          std::int64_t document = 1) {
  Fact f;
  f.concept_name = name;
  f.text = text;
  f.unit = "EUR";
  f.decimals = decimals;
  f.document = document;
  f.period.end = makeDate(year, 12, 31);
  if (!balance) f.period.start = makeDate(year, 1, 1);
  return f;
}

StandardStatements build(const std::vector<Fact>& facts, const std::string& rules) {
  const auto parsed = MappingRules::parse(rules, "rules");
  EXPECT_TRUE(parsed) << (parsed ? "" : parsed.error().text());
  return StandardStatements::build(facts, *parsed, "EUR");
}

TEST(Mapping, TriesAlternativesSumsAndOptionalLines) {
  const std::vector<Fact> facts{fact("a:Sales", "100", 2024), fact("a:Selling", "30", 2024),
                                fact("a:Admin", "20", 2024), fact("a:Own", "7", 2024)};
  const StandardStatements s = build(facts,
                                     "revenue = x:Revenue | a:Sales\ncosts = a:Selling + a:Admin + a:Research?\n"
                                     "net = a:Sales - a:Selling\ngoodwill? = a:Goodwill\nequity = a:Equity\n");
  ASSERT_EQ(s.years().size(), 1u);
  EXPECT_DOUBLE_EQ(s.at("revenue", 0).figure.value(), 100);
  EXPECT_DOUBLE_EQ(s.at("costs", 0).figure.value(), 50);
  EXPECT_DOUBLE_EQ(s.at("net", 0).figure.value(), 70);
  EXPECT_EQ(s.at("goodwill", 0).origin, Origin::NoneReported);
  EXPECT_DOUBLE_EQ(s.at("goodwill", 0).figure.value(), 0);
  EXPECT_EQ(s.at("equity", 0).origin, Origin::Missing);  // never a silent zero
  EXPECT_TRUE(s.at("equity", 0).figure.isAbsent());
  ASSERT_EQ(s.unmapped().size(), 1u);
  EXPECT_EQ(s.unmapped()[0].concept_name, "a:Own");
}

TEST(Mapping, APartIsReadAgainWhereverItsConceptStands) {
  const std::vector<Fact> facts{fact("a:Research", "20", 2024), fact("a:Admin", "30", 2024)};
  const std::string text = "part research? = a:Research\ncosts = a:Admin + a:Research?\nother? = a:Other\n";
  const auto rules = MappingRules::parse(text, "rules");
  ASSERT_TRUE(rules);
  EXPECT_EQ(rules->lineOf("a:Research"), "costs");
  const auto figure = [&](const char* line, const LineChoices& choices) {
    return StandardStatements::build(facts, *rules, "EUR", choices, {}).at(line, 0).figure.value();
  };
  EXPECT_DOUBLE_EQ(figure("research", {}), 20);
  EXPECT_DOUBLE_EQ(figure("costs", {}), 50);
  const LineChoices moved{{"a:Research", {"other", 1, "by hand"}}};
  EXPECT_DOUBLE_EQ(figure("research", moved), 20);
  EXPECT_DOUBLE_EQ(figure("costs", moved), 30);
  const LineChoices aside{{"a:Research", {"", 1, "by hand"}}};
  EXPECT_DOUBLE_EQ(figure("research", aside), 0) << "set aside is set aside";
}

TEST(SharedText, ReadsLikeTheTextItHolds) {
  TextPool pool;
  const SharedText a = pool("ifrs-full:Revenue");
  const SharedText b = pool(std::string("ifrs-full:") + "Revenue");
  const SharedText apart("ifrs-full:Revenue");
  EXPECT_EQ(a, b);
  EXPECT_EQ(a, apart) << "equal whether or not they share";
  EXPECT_FALSE(a < apart);
  EXPECT_EQ(&a.str(), &b.str());
  EXPECT_NE(&a.str(), &apart.str());
  EXPECT_TRUE(SharedText().empty());
  EXPECT_EQ(SharedText(), SharedText("")) << "nothing is the empty text";
  EXPECT_LT(SharedText("a"), SharedText("b"));
  EXPECT_EQ("<" + a + ">", "<ifrs-full:Revenue>");
  std::map<std::string, int> counts;
  ++counts[a];
  ++counts[apart];
  EXPECT_EQ(counts.at("ifrs-full:Revenue"), 2);
  SharedList<Segment> axes{{"axis", "member"}};
  const SharedList<Segment> copy = axes;
  axes = {};
  EXPECT_TRUE(axes.empty());
  EXPECT_EQ(copy.size(), 1u) << "a copy does not follow";
  EXPECT_EQ(copy, SharedList<Segment>({{"axis", "member"}}));
}

TEST(MinorUnits, MoveThePointAndKeepEveryDigit) {
  Company company;
  company.listing = {"CTS", "EUR", 100, 1};
  company.furtherListings = {{"GBX", "GBP", 1000, 1}};  // the record's word goes before the usual one
  struct Expected {
    const char *unit, *text, *inUnit, *inText;
    int places;
  };
  for (const Expected& x : {Expected{"ZAC", "1250", "ZAR", "12.50", 2}, Expected{"CTS", "-7", "EUR", "-0.07", 2},
                            Expected{"CTS/shares", "12.345", "EUR/shares", "0.12345", 2},
                            Expected{"GBX", "1250", "GBP", "1.250", 3}, Expected{"EUR", "1250", "EUR", "1250", 0},
                            Expected{"CTSX", "5", "CTSX", "5", 0}, Expected{"shares", "5", "shares", "5", 0}}) {
    std::vector<Fact> facts{fact("a:Sales", x.text, 2024, false, 0)};
    facts[0].unit = x.unit;
    const auto said = readInCurrency(facts, minorUnits(company));
    EXPECT_EQ(facts[0].unit, x.inUnit);
    EXPECT_EQ(facts[0].text, x.inText);
    const bool minor = std::string(x.unit) != x.inUnit;
    ASSERT_EQ(said.count(0), minor ? 1u : 0u) << x.unit;
    EXPECT_EQ(*facts[0].decimals, x.places);
    if (minor) {
      EXPECT_EQ(said.at(0).text, x.text);
    }
  }
}

TEST(Mapping, SetsAsideSegmentsForeignCurrencyAndPartYears) {
  std::vector<Fact> facts{fact("a:Sales", "100", 2024), fact("a:Sales", "60", 2024), fact("a:Sales", "999", 2024),
                          fact("a:Sales", "40", 2024)};
  facts[1].segments = {{"axis", "machines"}};
  facts[2].unit = "USD";
  facts[3].period.start = makeDate(2024, 7, 1);
  facts.push_back(fact("a:Sales", "81234", 2024));
  facts[4].unit = "hours";
  const StandardStatements s = build(facts, "revenue = a:Sales\n");
  EXPECT_DOUBLE_EQ(s.at("revenue", 0).figure.value(), 100);
  EXPECT_EQ(s.segmentFacts(), 1);
  EXPECT_EQ(s.otherCurrencyFacts(), 1) << "hours are no currency";
  ASSERT_EQ(s.unmapped().size(), 1u);
  EXPECT_EQ(s.unmapped()[0].facts, 1);
}

TEST(Mapping, LaterDocumentsRestateAndDuplicatesMustAgree) {
  const std::vector<Fact> facts{fact("a:Sales", "100000", 2024), fact("a:Sales", "100400", 2024),
                                fact("a:Sales", "95000", 2024, false, -3, 2), fact("a:Cost", "50000", 2024),
                                fact("a:Cost", "51001", 2024)};
  const StandardStatements s = build(facts, "revenue = a:Sales\ncost = a:Cost\n");
  EXPECT_DOUBLE_EQ(s.at("revenue", 0).figure.value(), 95000);  // as last filed
  // 100,000 and 100,400 agree within two halves of a thousand; 50,000 and 51,001 do not.
  ASSERT_EQ(s.disagreements().size(), 1u);
  EXPECT_EQ(facts[s.disagreements()[0].other].text, "51001");
}

TEST(Mapping, RulesThatMeanNothingAreRefusedWithTheirLine) {
  for (const char* bad : {"revenue", "revenue = ", "revenue = a b", "= a", "revenue = a + + b", "revenue = a |"}) {
    const auto r = MappingRules::parse(std::string("ok = x\n") + bad, "rules");
    ASSERT_FALSE(r) << bad;
    EXPECT_EQ(r.error().where, "rules, line 2") << bad;
  }
}

struct TieCase {
  const char* assets;
  const char* claims;
  int decimals;
  TieResult::State state;
};

class TieRounding : public testing::TestWithParam<TieCase> {};

TEST_P(TieRounding, AllowsHalfAUnitOfEachAddend) {
  const TieCase& c = GetParam();
  const std::vector<Fact> facts{fact("assets", c.assets, 2024, true, c.decimals),
                                fact("debt", "400000", 2024, true, c.decimals),
                                fact("equity", c.claims, 2024, true, c.decimals), fact("sales", "1", 2024)};
  const StandardStatements s = build(facts, "assets = assets\ndebt = debt\nequity = equity\nrevenue = sales\n");
  const auto ties = parseTies("tie b \"Balance\" assets = debt + equity\n", "ties");
  ASSERT_TRUE(ties);
  const std::vector<TieResult> r = checkTies(*ties, s, facts);
  ASSERT_EQ(r.size(), 1u);
  EXPECT_EQ(r[0].state, c.state) << r[0].gap << " within " << r[0].tolerance;
}

// Three figures in thousands allow 3 * 500 = 1,500, the bound itself included.
INSTANTIATE_TEST_SUITE_P(Cases, TieRounding,
                         testing::Values(TieCase{"1000000", "600000", -3, TieResult::State::Ties},
                                         TieCase{"1001500", "600000", -3, TieResult::State::Ties},
                                         TieCase{"1001501", "600000", -3, TieResult::State::Fails},
                                         TieCase{"1000000.01", "600000", 2, TieResult::State::Ties},
                                         TieCase{"1000000.02", "600000", 2, TieResult::State::Fails}));

TEST(Tie, OpeningBalancesAndMissingLines) {
  const std::vector<Fact> facts{fact("cash", "100", 2023, true, 0), fact("cash", "130", 2024, true, 0),
                                fact("move", "30", 2024, false, 0), fact("move", "5", 2023, false, 0)};
  const StandardStatements s = build(facts, "cash = cash\nmove = move\n");
  const auto ties = parseTies("tie c \"Cash\" cash = cash[-1] + move\n", "ties");
  ASSERT_TRUE(ties);
  const std::vector<TieResult> r = checkTies(*ties, s, facts);
  ASSERT_EQ(r.size(), 2u);
  EXPECT_EQ(r[0].state, TieResult::State::NotChecked);  // 2023 has no opening balance
  EXPECT_THAT(r[0].missing, testing::ElementsAre("cash"));
  EXPECT_EQ(r[1].state, TieResult::State::Ties);
}

TEST(Tie, RulesThatMeanNothingAreRefused) {
  for (const char* bad : {"tie", "tie a b = c", "tie a \"A\" b c", "tie a \"A\" b = ", "tie a \"A\" b = c d",
                          "tie a \"A\" b = c[-2]", "foo"}) {
    EXPECT_FALSE(parseTies(bad, "ties")) << bad;
  }
}

TEST(FilingMonitors, NameAMissingYear) {
  const std::vector<Fact> facts{fact("sales", "1", 2022), fact("sales", "2", 2024)};
  const StandardStatements s = build(facts, "revenue = sales\n");
  const std::vector<Finding> found = monitorFilings(test::shippedModel(), s, facts, {}, {});
  ASSERT_EQ(found.size(), 1u);
  EXPECT_EQ(found[0].monitor, "period missing or overlapping");
  EXPECT_THAT(found[0].text, testing::HasSubstr("731 days apart"));
}

TEST(Restatements, FirstAndLastFiledBeyondRounding) {
  const std::vector<Fact> facts{fact("S", "1000", 2023, false, 0, 1), fact("T", "50", 2023, false, 0, 1),
                                fact("S", "980", 2023, false, 0, 2),
                                fact("T", "49.8", 2023, false, 1, 2),  // agrees: 50 may be 49.5 to 50.5
                                fact("S", "975.5", 2023, false, 1, 3)};
  const std::vector<Restatement> list = restatements(facts);
  ASSERT_EQ(list.size(), 1u);
  EXPECT_EQ(facts[list[0].first].text, "1000");
  EXPECT_EQ(facts[list[0].last].text, "975.5");
  EXPECT_EQ(list[0].change, "-24.5");
  const auto rules = MappingRules::parse("sales = S\ntax = T\n", "r");
  const auto sales = [&](const FirstFiled& first) {
    return StandardStatements::build(facts, *rules, "EUR", {}, first).at("sales", 0).figure.value();
  };
  EXPECT_EQ(sales({}), 975.5);
  EXPECT_EQ(sales({"sales"}), 1000);
  EXPECT_EQ(sales({kEveryLine}), 1000);
  EXPECT_EQ(sales({"tax"}), 975.5);
}

TEST(FactUnits, DecideHowAFigureIsShown) {
  const std::pair<const char*, Kind> units[] = {
      {"EUR", Kind::Money},  {"shares", Kind::Shares}, {"EUR/shares", Kind::PerShare},
      {"pure", Kind::Count}, {"t", Kind::Count},       {"utr:MWh", Kind::Count}};
  for (const auto& [unit, kind] : units) EXPECT_EQ(kindOfUnit(unit), kind) << unit;
}

}  // namespace
}  // namespace zl
