// Adjustments and share splits: what stands beside the filed figures.

#include "core/outlook/adjusted.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "core/filing/split.h"
#include "tests/support/model_support.h"
#include "tests/support/source_folder.h"

namespace zl {
namespace {

std::vector<Tie> shippedTies() {
  const auto ties = parseTies(test::fileText(test::sourceFolder() + "/kits/standard/ties"), "standard.ties");
  EXPECT_TRUE(ties);
  return *ties;
}

TEST(Adjusted, AOneOffCarriesIntoTheTotalsWithItsTax) {
  Case c = newCase("x", makeDate(2026, 1, 1));
  c.adjustments[{"exceptional_items", 2025}] = {-40, {"plant closed", "", ""}};
  const auto shifts = shiftsOf(c, test::shippedModel(), shippedTies(), Figure::of(0.25));
  // By hand: a cost of 40 taken out lifts EBIT and profit before tax by 40, tax by 10, net income by 30.
  EXPECT_DOUBLE_EQ(shifts.at({"exceptional_items", 2025}).amount, -40);
  EXPECT_DOUBLE_EQ(shifts.at({"ebit", 2025}).amount, 40);
  EXPECT_DOUBLE_EQ(shifts.at({"pretax_profit", 2025}).amount, 40);
  EXPECT_DOUBLE_EQ(shifts.at({"tax", 2025}).amount, 10);
  EXPECT_DOUBLE_EQ(shifts.at({"net_income", 2025}).amount, 30);
  EXPECT_EQ(shifts.size(), 5u) << "balances and the cash flow statement stay";
  EXPECT_EQ(shifts.at({"exceptional_items", 2025}).why.front(), "plant closed");
}

TEST(Adjusted, TaxTypedByHandIsNotReckonedAgain) {
  Case c = newCase("x", makeDate(2026, 1, 1));
  c.adjustments[{"revenue", 2024}] = {100, {}};
  c.adjustments[{"tax", 2024}] = {5, {}};
  c.adjustments[{"ebit", 2024}] = {-20, {}};
  const auto shifts = shiftsOf(c, test::shippedModel(), shippedTies(), Figure::of(0.25));
  EXPECT_DOUBLE_EQ(shifts.at({"ebit", 2024}).amount, -20) << "what was typed, not that on top of what its parts carry";
  EXPECT_THAT(shifts.at({"ebit", 2024}).why.back(), testing::HasSubstr("from its parts, the other"));
  EXPECT_DOUBLE_EQ(shifts.at({"tax", 2024}).amount, 5);
  EXPECT_DOUBLE_EQ(shifts.at({"net_income", 2024}).amount, -25);
  c.adjustments = {{{"operating_cash_flow", 2024}, {12, {}}}};
  EXPECT_EQ(shiftsOf(c, test::shippedModel(), shippedTies(), Figure::of(0.25)).size(), 1u)
      << "a normal cash flow moves no profit";
}

TEST(Adjusted, ACaseRefusesWhatCannotBeAdjusted) {
  const model::Model m = test::shippedModel();
  for (const char* line : {"inventory", "gross_profit", "shares", "no_such_line"}) {
    Case c = newCase("x", makeDate(2026, 1, 1));
    c.adjustments[{line, 2025}] = {1, {}};
    EXPECT_THAT(faultsOf(c, m), testing::ElementsAre(testing::HasSubstr(line))) << line;
  }
  Case c = newCase("x", makeDate(2026, 1, 1));
  c.windows.push_back({2020, 2020, "none"});
  EXPECT_THAT(faultsOf(c, m), testing::ElementsAre(testing::HasSubstr("2020")));
}

Fact shareFact(std::int64_t document, int year, const char* unit, const char* text, const char* concept_name) {
  Fact f;
  f.document = document;
  f.concept_name = concept_name;
  f.period = {std::nullopt, makeDate(year, 12, 31)};
  f.unit = unit;
  f.text = text;
  return f;
}

TEST(Splits, OlderReportsAreRestatedAndNewerOnesAreNot) {
  const std::vector<ShareSplit> splits = {{makeDate(2023, 6, 1), 3, 2}, {makeDate(2025, 1, 2), 2, 1}};
  const std::vector<Fact> facts = {
      shareFact(1, 2022, "shares", "100", "shares"),  shareFact(1, 2022, "EUR/shares", "6", "eps"),
      shareFact(1, 2022, "EUR", "600", "net_income"), shareFact(2, 2023, "shares", "150", "shares"),
      shareFact(2, 2022, "shares", "150", "shares"),  shareFact(3, 2025, "shares", "300", "shares"),
      shareFact(3, 2024, "EUR/shares", "2.5", "eps")};
  const std::vector<Fact> now = restatedForSplits(facts, splits);
  ASSERT_EQ(now.size(), facts.size());
  EXPECT_EQ(now[0].text, "300") << "3 for 2, then 2 for 1";
  EXPECT_EQ(now[1].text, "2");
  EXPECT_EQ(now[2].text, "600") << "money is money";
  EXPECT_EQ(now[3].text, "300") << "reported between the two splits";
  EXPECT_EQ(now[4].text, "300") << "a comparative in a report after the first split is on its basis";
  EXPECT_EQ(now[5].text, "300");
  EXPECT_EQ(now[6].text, "2.5") << "reported after both";
  EXPECT_TRUE(restatedForSplits(facts, {}).empty());
  EXPECT_DOUBLE_EQ(splitFactor(splits, makeDate(2022, 12, 31), makeDate(2022, 12, 31)), 3);
}

}  // namespace
}  // namespace zl
