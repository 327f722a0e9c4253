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
  c.scenarios[1].inputs["d"] = {1.0 / 7, {"r", "a", "t"}};
  c.exceptional[2024] = "recall";
  c.peers["p/q"] = {false, "no"};
  c.notes["a"] = "line\nline";
  return c;
}

TEST(CaseJson, RoundTripsWithoutLoss) {
  const Case c = fullCase();
  const auto again = caseFromJson(*parseJson(toJson(c).dump(), "t"), "t");
  ASSERT_TRUE(again) << again.error().text();
  EXPECT_EQ(*again, c);
  EXPECT_EQ(toJson(*again).dump(), toJson(c).dump());
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
  EXPECT_THAT(fault([](Json& j) { j["version"] = 2; }), testing::HasSubstr("version 2"));
  EXPECT_THAT(fault([](Json& j) { j["valuation_date"] = "30.4.2026"; }), testing::HasSubstr("not a date"));
  EXPECT_THAT(fault([](Json& j) { j["scenarios"][0]["drivers"]["a"]["path"]["shape"] = "wave"; }),
              testing::HasSubstr("t/scenarios/0/drivers/a/path: there is no shape 'wave'"));
  EXPECT_THAT(fault([](Json& j) { j["scenarios"][1]["inputs"]["d"]["figure"] = "12"; }),
              testing::HasSubstr("'figure' must be a number"));
  EXPECT_THAT(fault([](Json& j) { j["scenarios"] = 3; }), testing::HasSubstr("must be a list"));
  EXPECT_THAT(fault([](Json& j) {
                j["scenarios"][1]["drivers"]["b"]["path"]["typed"] = Json::array({1, "x"});
              }),
              testing::HasSubstr("numbers and nulls"));
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
