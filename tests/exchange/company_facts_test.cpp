// Facts of one filer over many filings. Figures are written down beside what should come of them.

#include "exchange/oim/company_facts.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

namespace zl::exchange {
namespace {

using testing::HasSubstr;

constexpr const char* kText = R"({"cik":12,"entityName":"Invented Tools Inc.","facts":{
  "dei":{"EntityCommonStockSharesOutstanding":{"label":"Shares","units":{"shares":[
     {"end":"2025-02-01","val":117500000,"form":"10-K","filed":"2025-02-10"}]}}},
  "us-gaap":{
   "Revenues":{"label":"Revenues","units":{"USD":[
     {"start":"2023-01-01","end":"2023-12-31","val":4000000000,"form":"10-K","filed":"2024-02-10"},
     {"start":"2023-01-01","end":"2023-12-31","val":3900000000,"form":"10-K/A","filed":"2024-06-01"},
     {"start":"2023-01-01","end":"2023-12-31","val":3900000000,"form":"10-K","filed":"2025-02-10"},
     {"start":"2024-01-01","end":"2024-12-31","val":4200500000,"form":"10-K","filed":"2025-02-10"}]}},
   "EarningsPerShareDiluted":{"label":"EPS","units":{"USD/shares":[
     {"start":"2024-01-01","end":"2024-12-31","val":4.05,"form":"10-K","filed":"2025-02-10"}]}},
   "Broken":{"units":{"USD":[{"end":"2024-13-31","val":1},{"end":"2024-12-31","val":"x"},{"end":"2024-12-31","val":7,"filed":"2025-02-10"}]}},
   "NoUnits":{"label":"x"}}}})";

TEST(CompanyFacts, TheLastFiledStandsAndOneBadEntryStopsNothing) {
  const auto filing = readCompanyFacts(kText, "facts.json");
  ASSERT_TRUE(filing) << filing.error().text();
  EXPECT_EQ(filing->about.filerName, "Invented Tools Inc.");
  EXPECT_EQ(filing->document.kind, "company facts (JSON)");
  EXPECT_EQ(filing->document.periodEnd, makeDate(2024, 12, 31));
  std::map<std::string, const Fact*> facts;
  for (const Fact& f : filing->facts) facts[f.concept_name.str() + " " + dateText(f.period.end)] = &f;
  EXPECT_EQ(facts.size(), 5u);
  const Fact& before = *facts.at("us-gaap:Revenues 2023-12-31");
  EXPECT_EQ(before.text, "3900000000");
  EXPECT_THAT(before.place, HasSubstr("filed 2025-02-10"));
  EXPECT_EQ(before.period.start, makeDate(2023, 1, 1));
  EXPECT_EQ(before.decimals, -6);
  EXPECT_EQ(facts.at("us-gaap:Revenues 2024-12-31")->decimals, -3) << "4,200,500 thousand";
  EXPECT_EQ(facts.at("us-gaap:EarningsPerShareDiluted 2024-12-31")->unit.str(), "USD/shares");
  EXPECT_EQ(facts.at("us-gaap:EarningsPerShareDiluted 2024-12-31")->text, "4.05");
  EXPECT_TRUE(facts.at("dei:EntityCommonStockSharesOutstanding 2025-02-01")->period.isInstant());
  EXPECT_THAT(filing->warnings, testing::Contains(HasSubstr("1 amounts were filed otherwise before")));
  EXPECT_THAT(filing->warnings, testing::Contains(HasSubstr("3 entries could not be read")));
}

TEST(CompanyFacts, WhatIsNoneIsRefusedWithTheReason) {
  const std::pair<const char*, const char*> kRefused[] = {
      {R"({"facts":[]})", "no object 'facts'"},
      {R"({"facts":{"x":1}})", "holds no facts"},
      {R"({"facts":{"x":{"A":{"units":{"USD":{}}}}}})", "is no list"},
      {R"({"facts":)", "facts.json"}};
  for (const auto& [text, what] : kRefused) {
    const auto filing = readCompanyFacts(text, "facts.json");
    ASSERT_FALSE(filing) << text;
    EXPECT_THAT(filing.error().text(), HasSubstr(what));
  }
}

}  // namespace
}  // namespace zl::exchange
