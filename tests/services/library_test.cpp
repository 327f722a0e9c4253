// A book of several companies: who is in it, what each is worth, and that one stops no other.

#include "services/library/library.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "exchange/json/reader.h"
#include "services/edits/edits.h"
#include "tests/support/demo_book.h"
#include "tests/support/plain_company.h"

namespace zl::services {
namespace {

using test::PlainCompany;
using test::testDesk;
using testing::HasSubstr;

class LibraryTest : public test::DemoBook {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    // A small dollar company of thousands, and a yen one of billions that grows by a tenth.
    test::addCompany(book(), resources_, "umber-mills", "Umber Mills Inc.", {});
    test::addCompany(book(), resources_, "kagerou", "kagerou kaiun KK", {"JPY", 4e9, 1.1, 2020, 5, 88e9});
  }
  [[nodiscard]] std::vector<CompanyValue> values() const {
    auto stored = store::Book::open(book());
    const auto evaluator = CaseEvaluator::upon(resources_);
    auto list = valuesOf(*stored, *evaluator, testDesk().today());
    EXPECT_TRUE(list) << list.error().text();
    return std::move(*list);
  }
};

TEST_F(LibraryTest, CompaniesAreListedByNameHoweverItIsWritten) {
  auto stored = store::Book::open(book());
  const auto all = companiesOf(*stored);
  ASSERT_TRUE(all);
  std::vector<std::string> ids;
  for (const CompanyEntry& c : *all) ids.push_back(c.id);
  EXPECT_THAT(ids, testing::ElementsAre("kagerou", "ostravelle", "umber-mills", "vessingholt"));
  EXPECT_EQ((*all)[0].name, "kagerou kaiun KK");
}

TEST_F(LibraryTest, EveryCompanyIsWorthWhatItsOwnSessionSays) {
  const std::vector<CompanyValue> all = values();
  ASSERT_EQ(all.size(), 4u);
  for (const CompanyValue& v : all) {
    EXPECT_EQ(v.fault, "") << v.company.id;
    const auto session = Session::open(book(), v.company.id, resources_, testDesk());
    ASSERT_TRUE(session);
    const Snapshot& s = *(*session)->now();
    ASSERT_EQ(v.values.size(), s.caseOf().scenarios.size());
    for (size_t i = 0; i < v.values.size(); ++i) {
      EXPECT_EQ(v.values[i].value.value(), s.evaluation->constant("value_per_share", static_cast<int>(i)).value());
    }
    EXPECT_EQ(v.unit, s.company().listing.unit);
    EXPECT_EQ(v.valuedOn, s.caseOf().valuationDate);
    EXPECT_NEAR(v.upside.value(),
                weightedValue(*s.evaluation, model::Role::ValuePerShare).value() / v.price.value() - 1, 1e-12);
  }
  EXPECT_EQ(all[0].unit, "JPY");
  EXPECT_EQ(all[3].unit, "GBX");
}

TEST_F(LibraryTest, OneThatCannotBeValuedSaysWhyAndStopsNoOther) {
  test::spoilCase(book(), "kagerou");
  const std::vector<CompanyValue> all = values();
  ASSERT_EQ(all.size(), 4u);
  EXPECT_THAT(all[0].fault, HasSubstr("case of kagerou"));
  EXPECT_TRUE(all[1].values.at(1).value.hasValue());
  EXPECT_TRUE(all[3].values.at(1).value.hasValue());
  const std::string text = valuesText(all);
  EXPECT_THAT(text, HasSubstr("kagerou,kagerou kaiun KK,,,,,,,,,"));
  EXPECT_EQ(valuesJson(all)[0].count("price"), 0u);
}

TEST_F(LibraryTest, TheValuingIsStoppedBetweenCompanies) {
  auto stored = store::Book::open(book());
  const auto evaluator = CaseEvaluator::upon(resources_);
  int asked = 0;
  const auto list = valuesOf(*stored, *evaluator, testDesk().today(), exchange::StopCheck([&] { return ++asked > 1; }));
  ASSERT_FALSE(list);
  EXPECT_EQ(list.error().kind, ErrorKind::Cancelled);
}

TEST_F(LibraryTest, SessionsOfOneBookWorkInTurnAndShareTheirModels) {
  test::addCompany(book(), resources_, "flint", "Flint & Daughters", {"GBP", 30});  // two years, as the mills
  const auto first = Session::open(book(), "umber-mills", resources_, testDesk());
  const auto like = Session::openIn((*first)->book(), "flint", (*first)->evaluator(), testDesk());
  const auto second = Session::openIn((*first)->book(), "vessingholt", (*first)->evaluator(), testDesk());
  ASSERT_TRUE(first && like && second);
  EXPECT_EQ((*first)->now()->evaluation->compiled(), (*like)->now()->evaluation->compiled()) << "one program for both";
  ASSERT_TRUE((*first)->apply(setHorizon((*first)->now()->caseOf(), 6)));
  ASSERT_TRUE((*second)->apply(setHorizon((*second)->now()->caseOf(), 7)));
  ASSERT_TRUE((*first)->apply(setHorizon((*first)->now()->caseOf(), 8))) << "another company's edit is no conflict";
  ASSERT_TRUE((*second)->undo());
  EXPECT_EQ((*first)->now()->caseOf().horizon, 8);
  EXPECT_EQ((*second)->now()->caseOf().horizon, 10);
  EXPECT_THAT(Session::open(book(), "nobody", resources_, testDesk()).error().todo, HasSubstr("It has vessingholt, "));
}

TEST_F(LibraryTest, AValueIsTheSameHoweverManyCasesWereEvaluatedInBetween) {
  // The caches keep a few of each stage; going through more than that and back must change nothing.
  auto session = std::move(*Session::open(book(), "vessingholt", resources_, testDesk()));
  const Case start = session->now()->caseOf();
  const double before = session->now()->evaluation->constant("value_per_share", 1).value();
  for (int horizon = kShortestHorizon; horizon <= kLongestHorizon; ++horizon) {
    const auto other = session->preview(setHorizon(start, horizon).after);
    ASSERT_TRUE(other);
    EXPECT_EQ((*other)->evaluation->layout().forecastYears, horizon);
    EXPECT_EQ((*other)->history->layout().forecastYears, horizon);
  }
  const auto again = session->preview(start);
  ASSERT_TRUE(again);
  EXPECT_EQ((*again)->evaluation->constant("value_per_share", 1).value(), before);
  EXPECT_EQ((*again)->filed, session->now()->filed) << "what a case says of its horizon changes nothing filed";
}

}  // namespace
}  // namespace zl::services
