// Quarters and trailing twelve months. Expected figures are sums and differences worked by hand.

#include "core/filing/interim.h"

#include <gtest/gtest.h>

#include "core/filing/shapes.h"

namespace zl {
namespace {

class Interim : public testing::Test {
 protected:
  void file(const char* concept_name, const char* start, const char* end, double amount, std::int64_t document = 1) {
    Fact f;
    f.document = document;
    f.concept_name = concept_name;
    f.unit = "EUR";
    f.text = std::to_string(static_cast<long long>(amount));
    if (*start != 0) f.period.start = parseDate(start);
    f.period.end = *parseDate(end);
    facts_.push_back(f);
  }
  void build() {
    annual_ = StandardStatements::build(facts_, rules_, "EUR");
    s_ = InterimStatements::build(facts_, rules_, "EUR", {}, {}, annual_, {});
  }
  int at(const std::string& label) {
    for (size_t i = 0; i < s_.quarters().size(); ++i) {
      if (s_.quarters()[i].label() == label) return static_cast<int>(i);
    }
    ADD_FAILURE() << "no " << label;
    return -1;
  }
  double quarter(const char* label, const char* line = "sales") { return s_.quarter(line, at(label)).valueOr(-999); }
  double trailing(const char* label) { return s_.trailing("sales", at(label)).valueOr(-999); }

  MappingRules rules_ = *MappingRules::parse("sales = S\nleases? = L\ncash = C\n", "r");
  std::vector<Fact> facts_;
  StandardStatements annual_;
  InterimStatements s_;
};

TEST_F(Interim, YearToDateFiguresBecomeQuartersAndTwelveMonths) {
  file("S", "2023-01-01", "2023-12-31", 400);
  file("S", "2023-01-01", "2023-03-31", 90);
  file("S", "2023-01-01", "2023-06-30", 195);
  file("S", "2024-01-01", "2024-03-31", 100);
  file("S", "2024-01-01", "2024-06-30", 210);
  file("S", "2024-01-01", "2024-09-30", 330);
  file("S", "2024-01-01", "2024-12-31", 460);
  file("S", "2025-01-01", "2025-03-31", 120);
  file("C", "", "2024-06-30", 55);
  build();
  EXPECT_EQ(quarter("Q1 2024"), 100);
  EXPECT_EQ(quarter("Q2 2024"), 110);
  EXPECT_EQ(quarter("Q3 2024"), 120);
  EXPECT_EQ(quarter("Q4 2024"), 130) << "the year less nine months";
  EXPECT_EQ(quarter("Q2 2023"), 105);
  EXPECT_EQ(quarter("Q4 2023"), -999) << "the third quarter was not filed: two quarters are not one";
  EXPECT_EQ(trailing("Q4 2024"), 460);
  EXPECT_EQ(trailing("Q2 2024"), 400 + 210 - 195);
  EXPECT_EQ(trailing("Q1 2025"), 460 + 120 - 100);
  EXPECT_EQ(trailing("Q3 2024"), -999) << "nine months of 2023 are not known";
  EXPECT_EQ(trailing("Q1 2023"), -999);
  EXPECT_EQ(s_.balance("cash", at("Q2 2024")).valueOr(-999), 55);
  EXPECT_TRUE(s_.balance("cash", at("Q3 2024")).isAbsent());
  EXPECT_EQ(quarter("Q1 2025", "leases"), 0) << "a line that the filer never has is none reported";
}

TEST_F(Interim, SingleQuartersAddUp) {
  const char* const kPeriods[][2] = {{"2024-01-01", "2024-03-31"},
                                     {"2024-04-01", "2024-06-30"},
                                     {"2024-07-01", "2024-09-30"},
                                     {"2023-10-01", "2023-12-31"},
                                     {"2023-07-01", "2023-09-30"}};
  double amount = 100;
  for (const auto& p : kPeriods) file("S", p[0], p[1], amount += 10);
  file("S", "2023-01-01", "2023-12-31", 500);
  file("S", "2024-01-01", "2024-12-31", 520);
  build();
  EXPECT_EQ(quarter("Q2 2024"), 120);
  EXPECT_EQ(s_.yearToDate("sales", at("Q3 2024")).value(), 110 + 120 + 130);
  EXPECT_EQ(quarter("Q4 2024"), 520 - 360);
  EXPECT_EQ(trailing("Q2 2024"), 110 + 120 + 140 + 150)
      << "four quarters, where no year to date is filed a year before";
}

TEST_F(Interim, HalfYearsOnly) {
  file("S", "2023-04-01", "2024-03-31", 300);
  file("S", "2023-04-01", "2023-09-30", 140);
  file("S", "2024-04-01", "2025-03-31", 330);
  file("S", "2024-04-01", "2024-09-30", 150);
  file("L", "2024-04-01", "2025-03-31", 9);
  build();
  ASSERT_EQ(s_.quarters().size(), 4u);
  EXPECT_EQ(s_.quarters()[0].label(), "Q2 2024") << "fiscal years are called by the year in which they end";
  EXPECT_EQ(trailing("Q2 2025"), 300 + 150 - 140);
  EXPECT_EQ(quarter("Q2 2025"), -999);
  EXPECT_EQ(quarter("Q4 2025"), -999);
  EXPECT_TRUE(s_.yearToDate("leases", at("Q2 2025")).isAbsent()) << "in the year's accounts, not in the half year's";
}

TEST_F(Interim, WeeksAndLaterFilings) {
  file("S", "2023-01-01", "2023-12-30", 520);
  file("S", "2023-12-31", "2024-12-28", 530);
  file("S", "2023-12-31", "2024-03-30", 125);
  file("S", "2023-12-31", "2024-06-29", 260, 2);
  file("S", "2023-12-31", "2024-03-30", 127, 2);
  build();
  EXPECT_EQ(quarter("Q1 2024"), 127) << "restated by the later filing";
  EXPECT_EQ(quarter("Q2 2024"), 133);
}

TEST_F(Interim, WithoutInterimReportsThereAreNone) {
  file("S", "2024-01-01", "2024-12-31", 460);
  build();
  EXPECT_TRUE(s_.quarters().empty());
  EXPECT_TRUE(s_.quarter("sales", 0).isAbsent());
  EXPECT_TRUE(s_.trailing("nothing", -1).isAbsent());
  facts_.clear();
  build();
  EXPECT_TRUE(s_.quarters().empty());
}

}  // namespace
}  // namespace zl
