#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <functional>

#include "exchange/json/case_json.h"
#include "exchange/json/company_json.h"

namespace zl::exchange {
namespace {

Case fullCase() {
  Case c = newCase("x", makeDate(2026, 4, 30));
  c.horizon = 7;
  Path fade;
  fade.shape = Shape::Fade;
  fade.level = 0.1 + 0.2;  // a double that no short decimal equals
  fade.start = -1e-7;
  fade.from = 2;
  fade.halfLife = 2.5;
  Path typed;
  typed.shape = Shape::Typed;
  typed.typed = {0.01, std::nullopt, 1.0 / 3};
  Path glide;
  glide.shape = Shape::Glide;
  glide.level = 0.5;
  glide.to = 4;
  c.scenarios[0].drivers["a"] = {fade, {"why \"so\" – ü", "me", "2026-01-01T00:00:00Z"}};
  c.scenarios[1].drivers["b"] = {typed, {}};
  c.scenarios[2].drivers["c"] = {glide, {}};
  c.scenarios[1].inputs["d"] = {1.0 / 7, "", {"r", "a", "t"}};
  c.exceptional[2024] = "recall";
  c.peers["p/q"] = {false, "no"};
  c.peerSets["few"] = {"p", "q"};
  c.peerSet = "another/few";
  c.shownMultiples = {"ev-sales", "price-orders"};
  c.notes["a"] = "line\nline";
  c.lines["x:Concept"] = {"revenue", -1, "the filer's sign"};
  c.firstFiled = {"revenue"};
  c.ownLines = {{"own_backlog", "Backlog – in hand", false}, {"own_rent", "Rent", true}};
  c.adjustments[{"ebit", 2025}] = {-1.0 / 3, {"one-off", "me", "t"}};
  c.adjustments[{"ebit", 2024}] = {1e9, {}};
  c.windows = {{2016, 2021, "before the recall"}, {2014, 2025, "all of it"}};
  c.tests["cover"] = {3.5, ""};
  c.tests["tax"] = {std::nullopt, "losses carried forward"};
  c.model = "quick";
  c.ownRows["standard"] = {"row a \"Ä\" money flow\n  forecast 0\n", {"why", "me", "t"}};
  PublishedSet set;
  set.name = "Spring";
  set.valuationDate = makeDate(2026, 4, 30);
  set.figures["revenue"] = {{2026, 1.0 / 3}, {2027, -2e9}};
  set.values = {{"worst", 0}, {"base", 710.5}};
  set.price = 742;
  set.said = {"first note", "me", "t"};
  c.published = {set};
  c.limits = {{"terminal share", 0.8}};
  return c;
}

TEST(CaseJson, RoundTripsWithoutLoss) {
  const Case c = fullCase();
  const auto again = caseFromJson(*parseJson(toJson(c).dump(), "t"), "t");
  ASSERT_TRUE(again) << again.error().text();
  EXPECT_EQ(*again, c);
  EXPECT_EQ(toJson(*again).dump(), toJson(c).dump());
}

TEST(CaseJson, RefusesBrokenHistoryChoicesByTheirPlace) {
  struct Bad {
    const char* member;
    const char* value;
    const char* says;
  };
  for (const Bad& bad : std::initializer_list<Bad>{
           {"adjustments",
            R"([{"line": "ebit", "year": 2025, "amount": 1}, {"line": "ebit", "year": 2025, "amount": 2}])",
            "t/adjustments/1: this line and year is given twice"},
           {"adjustments", R"([{"line": "ebit", "year": "2025", "amount": 1}])", "t/adjustments/0"},
           {"adjustments", R"([{"line": "ebit", "year": 2025, "amount": 1, "tax": 0}])", "no member 'tax'"},
           {"adjustments", R"({})", "must be a list of at most 10000"},
           {"windows", R"([{"from": 2016, "to": 2021}])", "'reason' is missing"},
           {"windows", R"([5])", "t/windows/0"},
           {"own_lines", R"([{"name": "own_x", "label": "X", "flow": "yes"}])", "t/own_lines/0"},
           {"own_lines", R"([{"label": "X", "flow": true}])", "'name' is missing"},
           {"tests", R"([{"threshold": 1}])", "'test' is missing"},
           {"tests", R"([{"test": "cover", "threshold": "high"}])", "t/tests/0"},
           {"own_rows", R"([])", "'own_rows' must be an object"},
           {"own_rows", R"({"standard": "row"})", "t/own_rows/standard: must be an object"},
           {"own_rows", R"({"standard": {"rows": ""}})", "'text' is missing"},
           {"published", R"({})", "'published' must be a list"},
           {"published", R"([{"name": "x", "valuation_date": "2026-01-01", "figures": {}}])", "'values' must be"},
           {"published",
            R"([{"name": "x", "valuation_date": "2026-01-01", "figures": {"revenue": {"soon": 1}}, "values": {}}])",
            "t/published/figures/revenue: 'soon' is not a fiscal year"},
           {"limits", R"({"terminal share": "high"})", "must be a number"}}) {
    Json j = toJson(fullCase());
    j[bad.member] = Json::parse(bad.value);
    const auto c = caseFromJson(j, "t");
    ASSERT_FALSE(c) << bad.value;
    EXPECT_THAT(c.error().text(), testing::HasSubstr(bad.says)) << bad.value;
  }
  Json old = toJson(fullCase());
  for (const char* member : {"adjustments", "windows", "own_lines", "tests", "own_rows", "published", "limits",
                             "peer_sets", "peer_set", "parts", "shown_multiples"}) {
    old.erase(member);
  }
  const auto c = caseFromJson(old, "t");
  ASSERT_TRUE(c) << "a case written before these were known still opens";
  EXPECT_TRUE(c->adjustments.empty() && c->windows.empty() && c->ownLines.empty() && c->tests.empty());
}

TEST(CaseJson, RefusesWhatItDoesNotKnow) {
  const auto fault = [](const std::function<void(Json&)>& change) {
    Json j = toJson(fullCase());
    change(j);
    const auto c = caseFromJson(j, "t");
    return c ? std::string("accepted") : c.error().text();
  };
  EXPECT_THAT(fault([](Json& j) { j["extra"] = 1; }), testing::HasSubstr("no member 'extra'"));
  EXPECT_THAT(fault([](Json& j) { j.erase("horizon"); }), testing::HasSubstr("'horizon' is missing"));
  EXPECT_THAT(fault([](Json& j) { j["version"] = kCaseVersion + 1; }),
              testing::HasSubstr("version " + std::to_string(kCaseVersion + 1)));
  EXPECT_THAT(fault([](Json& j) { j["shown_multiples"] = "all"; }), testing::HasSubstr("a list of multiples"));
  EXPECT_THAT(fault([](Json& j) { j["valuation_date"] = "30.4.2026"; }), testing::HasSubstr("not a date"));
  EXPECT_THAT(fault([](Json& j) { j["scenarios"][0]["drivers"]["a"]["path"]["shape"] = "wave"; }),
              testing::HasSubstr("t/scenarios/0/drivers/a/path: there is no shape 'wave'"));
  EXPECT_THAT(fault([](Json& j) { j["scenarios"][1]["inputs"]["d"]["figure"] = "12"; }),
              testing::HasSubstr("'figure' must be a number"));
  EXPECT_THAT(fault([](Json& j) { j["scenarios"] = 3; }), testing::HasSubstr("must be a list"));
  EXPECT_THAT(fault([](Json& j) { j["peer_set"] = "nowhere"; }), testing::HasSubstr("no set of peers 'nowhere'"));
  EXPECT_THAT(fault([](Json& j) { j["peer_sets"] = {{"few", {1}}}; }), testing::HasSubstr("holds short names"));
  EXPECT_THAT(fault([](Json& j) {
                j["parts"] = Json::array({{{"part", "a/b"}, {"of", "cash"}, {"multiple", 3}}});
              }),
              testing::HasSubstr("'of' is ebit or revenue"));
  EXPECT_THAT(fault([](Json& j) {
                j["scenarios"][1]["drivers"]["b"]["path"]["typed"] = Json::array({1, "x"});
              }),
              testing::HasSubstr("numbers and nulls"));
}

TEST(CaseJson, OfANewerProgramIsUnderstoodAsFarAsItGoes) {
  Json j = toJson(fullCase());
  EXPECT_EQ(newerVersion(j), 0);
  j["version"] = 9;
  j["dreams"] = {{"of", "a later version"}};
  j["scenarios"][0]["mood"] = "grim";
  EXPECT_EQ(newerVersion(j), 9);
  EXPECT_FALSE(caseFromJson(j, "t")) << "never taken for one that can be written back";
  const auto c = understoodCase(j, "t");
  ASSERT_TRUE(c) << c.error().text();
  EXPECT_EQ(*c, fullCase());
  EXPECT_FALSE(caseFromJson(toJson(fullCase()).patch(Json::parse(R"([{"op": "add", "path": "/x", "value": 1}])")), "t"))
      << "what one reader passed over is no licence for the next";
  EXPECT_EQ(newerVersion(Json::parse(R"({"format": "other", "version": 9})")), 0);
  EXPECT_EQ(newerVersion(Json::parse("[]")), 0);
}

TEST(Json, BrokenDeepAndHugeTextIsRefused) {
  EXPECT_THAT(parseJson("{\"a\":", "t").error().what, testing::HasSubstr("broken at byte"));
  EXPECT_FALSE(parseJson(std::string(100000, '['), "t"));
  EXPECT_FALSE(parseJson("{\"a\":1e999}", "t"));
  EXPECT_FALSE(parseJson("\xFF", "t"));
}

TEST(CompanyJson, RoundTripsAndChecksItsFigures) {
  Company c;
  c.id = "x";
  c.name = "X";
  c.currency = "EUR";
  c.listing = {"GBX", "GBP", 100, 0.5};
  c.shares = 1e6 / 3;
  c.options = 5;
  const auto again = companyFromJson(toJson(c), "t");
  ASSERT_TRUE(again) << again.error().text();
  EXPECT_EQ(*again, c);
  const auto fault = [&](const char* key, const Json& value) {
    Json j = toJson(c);
    j[key] = value;
    const auto r = companyFromJson(j, "t");
    return r ? std::string("accepted") : r.error().text();
  };
  EXPECT_THAT(fault("shares", 0), testing::HasSubstr("must be positive"));
  EXPECT_THAT(fault("options", -1), testing::HasSubstr("must not be negative"));
  EXPECT_THAT(fault("currency", "EURO"), testing::HasSubstr("three letters"));
  EXPECT_THAT(fault("id", "a b"), testing::HasSubstr("without spaces"));
}

}  // namespace
}  // namespace zl::exchange
