// What is wrong with filed figures though every subtotal ties: dates, scales, lengths, splits.

#include <gmock/gmock.h>
#include <gtest/gtest.h>
#include "tests/support/model_support.h"

#include <cmath>

#include "core/monitor/finding.h"

namespace zl {
namespace {

using testing::HasSubstr;

class Plausible : public testing::Test {
 protected:
  void file(const std::string& concept_name, const std::string& start, const std::string& end, double amount,
            std::int64_t document) {
    Fact f;
    f.document = document;
    f.concept_name = concept_name;
    f.unit = concept_name == "shares" ? "shares" : "EUR";
    f.text = std::to_string(static_cast<long long>(amount));
    f.place = "line 7";
    if (!start.empty()) f.period.start = parseDate(start);
    f.period.end = *parseDate(end);
    facts_.push_back(f);
  }
  void year(int y, double sales, std::int64_t document) {
    file("revenue", std::to_string(y) + "-01-01", std::to_string(y) + "-12-31", sales, document);
  }
  /// Five balances of a year, told apart by the year's number.
  void balances(const std::string& date, int content, std::int64_t document) {
    for (const char* name : {"cash", "receivables", "inventory", "plant", "payables"}) {
      file(name, "", date, 1000 + content * 37 + name[0], document);
    }
  }
  std::vector<std::string> findings(const std::string& monitor) {
    const StandardStatements s = StandardStatements::build(facts_, rules_, "EUR");
    std::vector<std::string> texts;
    for (const Finding& f :
         monitorFilings(test::shippedModel(), s, facts_, {}, {}, {}, {{1, "a.csv"}, {2, "b.csv"}, {3, "c.csv"}})) {
      if (f.monitor == monitor) texts.push_back(f.text);
    }
    return texts;
  }

  MappingRules rules_ = *MappingRules::parse(
      "revenue = revenue\ncash = cash\nreceivables = receivables\ninventory = inventory\nplant = plant\npayables = "
      "payables\nshares = shares\n",
      "r");
  std::vector<Fact> facts_;
};

TEST_F(Plausible, AColumnUnderTheWrongDateIsNamed) {
  balances("2022-12-31", 22, 1);
  balances("2023-12-31", 23, 1);
  balances("2023-12-31", 23, 2);
  balances("2024-12-31", 24, 2);
  EXPECT_TRUE(findings("column under the wrong date").empty());
  // The third filing's comparative column holds 2022 under the date of 2023.
  balances("2023-12-31", 22, 3);
  EXPECT_THAT(findings("column under the wrong date"),
              testing::ElementsAre(HasSubstr("c.csv reports for 2023-12-31 what other filings report for 2022-12-31")));
}

TEST_F(Plausible, RestatedBalancesAreNoWrongDate) {
  balances("2023-12-31", 23, 1);
  balances("2023-12-31", 99, 2);
  balances("2024-12-31", 24, 2);
  EXPECT_TRUE(findings("column under the wrong date").empty()) << "no other date holds these figures";
}

TEST_F(Plausible, ScaleSlipsBothWaysAndNotGrowth) {
  for (int y = 2018; y <= 2024; ++y) year(y, 500000 * (1 + 0.1 * (y - 2018)), 1);
  EXPECT_TRUE(findings("scale slip").empty());
  year(2021, 650, 2);
  EXPECT_THAT(findings("scale slip"),
              testing::ElementsAre(
                  HasSubstr("revenue 2021 is about 1,000 times less than its neighbours (650 in b.csv, line 7)")));
  year(2021, 650e9, 3);
  EXPECT_THAT(findings("scale slip"), testing::ElementsAre(HasSubstr("about 1,000,000 times its neighbours")));
  year(2021, 65e6, 4);
  EXPECT_THAT(findings("scale slip"), testing::ElementsAre(HasSubstr("about 100 times its neighbours")))
      << "pence read as pounds";
  facts_.clear();
  for (int y = 2018; y <= 2024; ++y) year(y, 1000 * std::pow(40.0, y - 2018), 1);
  EXPECT_TRUE(findings("scale slip").empty()) << "a series that grows is no slip";
}

TEST_F(Plausible, SlipsAtEitherEndAreSeen) {
  for (int y = 2018; y <= 2021; ++y) year(y, y == 2018 || y == 2021 ? 5e8 : 5e5, 1);
  EXPECT_EQ(findings("scale slip").size(), 2u);
}

TEST_F(Plausible, ASignUnlikeAllOtherYearsIsNamed) {
  for (int y = 2018; y <= 2022; ++y) year(y, y == 2020 ? -105 : 100 + y - 2018, 1);
  EXPECT_THAT(
      findings("sign unlike history"),
      testing::ElementsAre(HasSubstr("revenue 2020 is -105 (a.csv, line 7); the 4 other years are above zero")));
  year(2023, -110, 1);
  EXPECT_THAT(findings("sign unlike history"), testing::IsEmpty()) << "two years below may well be meant";
}

TEST_F(Plausible, InterestWithIncomeTakenOffIsNoGrossInterest) {
  const MappingRules rules =
      *MappingRules::parse("interest_expense = x:InterestIncomeExpenseNet | x:InterestExpense\n", "r");
  const auto named = [&](const char* concept_name) {
    facts_.clear();
    file(concept_name, "2024-01-01", "2024-12-31", 12, 1);
    const StandardStatements s = StandardStatements::build(facts_, rules, "EUR");
    std::vector<std::string> texts;
    for (const Finding& f : monitorFilings(test::shippedModel(), s, facts_, {}, {})) {
      if (f.monitor == "net interest used as gross") texts.push_back(f.text);
    }
    return texts;
  };
  EXPECT_THAT(named("x:InterestIncomeExpenseNet"),
              testing::ElementsAre(HasSubstr("x:InterestIncomeExpenseNet stands on")));
  EXPECT_THAT(named("x:InterestExpense"), testing::IsEmpty());
}

TEST_F(Plausible, YearsOfAnotherLength) {
  year(2021, 100, 1);
  year(2023, 120, 1);
  EXPECT_THAT(findings("period missing or overlapping"), testing::ElementsAre(HasSubstr("730 days apart")));
  facts_.clear();
  year(2021, 100, 1);
  file("revenue", "2022-01-01", "2022-03-31", 30, 1);
  file("revenue", "2022-04-01", "2023-03-31", 130, 1);
  EXPECT_THAT(findings("fiscal year of another length"), testing::ElementsAre(HasSubstr("a period of 90 days")));
  EXPECT_TRUE(findings("period missing or overlapping").empty());
  facts_.clear();
  year(2021, 100, 1);
  file("revenue", "2021-07-01", "2022-06-30", 110, 1);
  EXPECT_THAT(findings("period missing or overlapping"), testing::ElementsAre(HasSubstr("overlap by 184 days")));
}

TEST_F(Plausible, SharesThatJumpAsInASplit) {
  for (int y = 2020; y <= 2023; ++y) {
    year(y, 100, 1);
    file("shares", "", std::to_string(y) + "-12-31", y < 2022 ? 1000 : 5010, 1);
  }
  EXPECT_THAT(findings("shares jump"), testing::ElementsAre(HasSubstr("is about 5 times as high in 2022")));
  facts_.back().text = "5600";
  EXPECT_EQ(findings("shares jump").size(), 1u) << "an issue of new shares is no split";
}

}  // namespace
}  // namespace zl
