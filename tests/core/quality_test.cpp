// The quality review: what a test reads, where it holds, and texts that are no tests.

#include "core/review/quality.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

namespace zl {
namespace {

using testing::HasSubstr;

Series series(const std::vector<double>& numbers) {
  Series s;
  for (size_t i = 0; i < numbers.size(); ++i) {
    s.years.push_back(2020 + static_cast<int>(i));
    s.figures.push_back(Figure::of(numbers[i]));
  }
  s.exceptional.assign(numbers.size(), false);
  s.irregular.assign(numbers.size(), false);
  return s;
}

std::vector<QualityResult> reviewed(const std::string& test, const Series& s,
                                    const std::map<std::string, TestChoice>& choices = {},
                                    const std::string& sector = {}) {
  const auto tests = parseQualityTests("group \"G\"\n" + test + "\n", "t");
  EXPECT_TRUE(tests) << (tests ? "" : tests.error().text());
  return review(*tests, choices, sector, [&](const std::string&) { return s; });
}

TEST(Quality, EveryStatisticReadsItsYears) {
  struct Case {
    const char* reads;
    double figure;
    int count;
  };
  // 4, 1, 2, 9, 3 with the 9 flagged: the last three years regular are 2 and 3.
  Series s = series({4, 1, 2, 9, 3});
  s.exceptional[3] = true;
  for (const Case& c : std::initializer_list<Case>{{"last over 1", 3, 1},
                                                   {"mean over 3", 2.5, 2},
                                                   {"median over 5", 2.5, 4},
                                                   {"low over 5", 1, 4},
                                                   {"high over 5", 4, 4},
                                                   {"change over 2", 1, 2},
                                                   {"growth over 1", 3.0 / 9 - 1, 1},
                                                   {"growth over 50", std::pow(3.0 / 4, 0.25) - 1, 4},
                                                   {"nonzero over 5", 1, 5}}) {
    const auto results = reviewed(std::string("test a \"A\" row ") + c.reads + " at least 0", s);
    ASSERT_EQ(results.size(), 1u);
    EXPECT_NEAR(results[0].figure.value(), c.figure, 1e-12) << c.reads;
    EXPECT_EQ(results[0].count, c.count) << c.reads;
  }
}

TEST(Quality, ThresholdsAreTheAnalystsToMoveAndToExempt) {
  const Series s = series({0.05, 0.07, 0.09});
  const std::string test = "test roic \"ROIC\" roic median over 3 at least 8%";
  EXPECT_EQ(reviewed(test, s)[0].holds, false);
  EXPECT_EQ(reviewed(test, s, {{"roic", {0.07, ""}}})[0].holds, true) << "the bound itself holds";
  EXPECT_TRUE(reviewed(test, s, {{"roic", {0.07, ""}}})[0].ownThreshold);
  const auto exempt = reviewed(test, s, {{"roic", {std::nullopt, "a young company"}}});
  EXPECT_FALSE(exempt[0].holds);
  EXPECT_EQ(exempt[0].exempt, "a young company");
  EXPECT_EQ(reviewed("test x \"X\" roic last over 1 at most 8%", s)[0].holds, false);
  EXPECT_TRUE(reviewed(test + " for \"Retail\"", s, {}, "Machinery").empty());
  EXPECT_EQ(reviewed(test + " for \"Retail\"", s, {}, "Retail").size(), 1u);
}

TEST(Quality, NothingToCoverHoldsAndNothingKnownDoesNot) {
  Series cover = series({4, 4});
  cover.figures[1] = Figure::notMeaningful("no interest");
  const auto holds = [&](const char* test, const Figure& interest) {
    Series covered = series({30, 0});
    covered.figures[1] = interest;
    const auto tests = parseQualityTests(std::string("group \"G\"\n") + test, "own.tests");
    EXPECT_TRUE(tests) << test;
    return review(*tests, {}, "", [&](const std::string& row) { return row == "interest" ? covered : cover; })[0];
  };
  const char* covering = "test c \"Cover\" row last over 1 at least 4 covers interest";
  EXPECT_EQ(holds(covering, Figure::of(0)).holds, true);
  EXPECT_FALSE(holds(covering, Figure::of(5)).holds) << "the cover has no figure for another reason";
  EXPECT_FALSE(holds(covering, Figure::absent("not filed")).holds);
  EXPECT_FALSE(holds("test c \"Cover\" row last over 1 at least 4", Figure::of(0)).holds);
  EXPECT_EQ(holds(covering, Figure::of(5)).remark, "no interest");
}

TEST(Quality, TextsThatAreNoTestsNameTheirLine) {
  for (const auto& [text, why] : std::initializer_list<std::pair<const char*, const char*>>{
           {"test a \"A\" row last over 1 at least 1", "inside a group"},
           {"group \"G\"\ntest a \"A\" row best over 1 at least 1", "no statistic 'best'"},
           {"group \"G\"\ntest a \"A\" row last over 0 at least 1", "1 to 50 years"},
           {"group \"G\"\ntest a \"A\" row last over 1 above 1", "at most"},
           {"group \"G\"\ntest a \"A\" row last over 1 at least ten", "no threshold"},
           {"group \"G\"\ntest a \"A\" row last over 1 at least 1 unless", "a sector"},
           {"group \"G\"\ntest a \"A\" row last over 1 at least 1 covers", "followed by a row"},
           {"group \"G\"\ntest a", "needs a name"},
           {"group", "one name in quotes"},
           {"group \"G\"\ntest a \"A\" r last over 1 at least 1\ntest a \"B\" r last over 1 at least 1",
            "two tests"}}) {
    const auto tests = parseQualityTests(text, "own.tests");
    ASSERT_FALSE(tests) << text;
    EXPECT_THAT(tests.error().text(), HasSubstr(why));
    EXPECT_THAT(tests.error().text(), HasSubstr("own.tests, line"));
  }
}

}  // namespace
}  // namespace zl
