// Parts against the whole, with the filed rounding.

#include "core/filing/segments.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "core/filing/debt_due.h"
#include "core/filing/tie.h"

namespace zl {
namespace {

Fact part(const char* member, int year, const char* text, int decimals, std::int64_t document = 1) {
  Fact f;
  f.document = document;
  f.concept_name = "x:Revenue";
  f.unit = "EUR";
  f.text = text;
  f.decimals = decimals;
  f.period = {makeDate(year, 1, 1), makeDate(year, 12, 31)};
  if (*member != 0) f.segments = {{"x:RegionsAxis", member}};
  return f;
}

const std::vector<FiscalYear> kYears = {{makeDate(2024, 12, 31)}, {makeDate(2025, 12, 31)}};

std::vector<SegmentSum> sumsOf(const std::vector<Fact>& facts) {
  const auto rows = segmentRows(facts, kYears, [](const std::string&) { return std::string("revenue"); });
  return checkSegmentSums(rows, facts, kYears);
}

TEST(Segments, AddUpWithinTheFiledRounding) {
  // Three figures rounded to millions may miss by 3 x 0.5 million, the whole's half unit included.
  const std::vector<Fact> facts = {part("x:North", 2025, "41000000", -6), part("x:South", 2025, "60000000", -6),
                                   part("", 2025, "102000000", -6)};
  const std::vector<SegmentSum> sums = sumsOf(facts);
  ASSERT_EQ(sums.size(), 1u);
  EXPECT_TRUE(sums[0].ties);
  EXPECT_EQ(sums[0].gap, "-1000000");
  EXPECT_EQ(sums[0].tolerance, "1500000");
  EXPECT_EQ(sums[0].facts, (std::vector<size_t>{0, 1, 2}));
  std::vector<Fact> finer = facts;
  for (Fact& f : finer) f.decimals = -5;
  EXPECT_FALSE(sumsOf(finer)[0].ties);
}

TEST(Segments, AreHeldAgainstTheWholeOfTheirOwnDocument) {
  // The next report restates the whole alone: the parts still add up to what they were filed with.
  const std::vector<Fact> facts = {part("x:North", 2024, "40", 0), part("x:South", 2024, "60", 0),
                                   part("", 2024, "100", 0), part("", 2024, "95", 0, 2)};
  EXPECT_TRUE(sumsOf(facts)[0].ties);
  EXPECT_TRUE(sumsOf({part("x:North", 2024, "40", 0), part("", 2024, "100", 0)}).empty()) << "one part is no sum";
  EXPECT_TRUE(sumsOf({part("x:North", 2024, "40", 0), part("x:South", 2024, "60", 0)}).empty()) << "no whole";
  std::vector<Fact> quarters = facts;
  for (Fact& f : quarters) f.period.start = makeDate(2024, 10, 1);
  EXPECT_TRUE(sumsOf(quarters).empty()) << "a quarter is no year";
}

TEST(Segments, NamesReadAsWords) {
  for (const auto& [name, words] : std::initializer_list<std::pair<const char*, const char*>>{
           {"vsh:ServiceAndPartsMember", "Service and Parts"},
           {"ifrs-full:GeographicalAreasAxis", "Geographical Areas"},
           {"x:EMEAMember", "EMEA"},
           {"Member", "Member"},
           {"x:Asia", "Asia"}}) {
    EXPECT_EQ(plainMember(name), words);
  }
}

TEST(Segments, ARollLeavesAQuestionNotAFault) {
  const auto ties = parseTies("roll eq \"Movement of equity\" equity = equity[-1] + net_income\n", "t");
  ASSERT_TRUE(ties);
  EXPECT_TRUE(ties->front().roll);
  EXPECT_FALSE(parseTies("rolls eq \"x\" a = b\n", "t"));
}

/// A note of each taxonomy: 30 within a year, 20 in the second, 50 after the fifth; last year's note is overtaken.
TEST(DebtDue, IsReadFromTheNotesOfTheLatestBalance) {
  struct Tagged {
    const char* name;
    const char* member;  ///< of the maturity axis; empty: the company as a whole
    const char* text;
  };
  const std::vector<std::vector<Tagged>> kNotes = {
      {{"us-gaap:LongTermDebtMaturitiesRepaymentsOfPrincipalInNextTwelveMonths", "", "30"},
       {"us-gaap:LongTermDebtMaturitiesRepaymentsOfPrincipalInYearTwo", "", "20"},
       {"us-gaap:LongTermDebtMaturitiesRepaymentsOfPrincipalInYearThree", "", "0"},
       {"us-gaap:LongTermDebtMaturitiesRepaymentsOfPrincipalAfterYearFive", "", "50"}},
      {{"ifrs-full:Borrowings", "ifrs-full:NotLaterThanOneYearMember", "30"},
       {"ifrs-full:Borrowings", "ifrs-full:LaterThanOneYearAndNotLaterThanTwoYearsMember", "20"},
       {"ifrs-full:Borrowings", "ifrs-full:LaterThanFiveYearsMember", "50"},
       {"ifrs-full:Borrowings", "", "100"}}};
  for (const std::vector<Tagged>& note : kNotes) {
    std::vector<Fact> facts;
    for (const int year : {2025, 2024}) {
      for (const Tagged& tagged : note) {
        Fact f;
        f.concept_name = tagged.name;
        f.unit = "USD";
        f.text = year == 2025 ? tagged.text : "7";
        f.period.end = makeDate(year, 12, 31);
        if (*tagged.member != 0) f.segments = {{"ifrs-full:MaturityAxis", tagged.member}};
        facts.push_back(f);
      }
    }
    std::vector<std::pair<int, double>> due;
    for (const DebtDue& d : filedDebtDue(facts, "USD")) due.emplace_back(d.year, d.amount);
    EXPECT_THAT(due, testing::ElementsAre(std::pair(2026, 30.0), std::pair(2027, 20.0), std::pair(2031, 50.0)));
    EXPECT_THAT(filedDebtDue(facts, "EUR"), testing::IsEmpty());
  }
}

}  // namespace
}  // namespace zl
