// Figures of the market beside the journal: fetched ones reach what is open and no undo takes them back, typed ones
// are edits, a case says which price it stands on, and a company is told when rates it shares have moved.

#include "services/intake/market.h"

#include <gmock/gmock.h>

#include <algorithm>

#include "services/edits/edits.h"
#include "tests/support/plain_company.h"

namespace zl::services {
namespace {

using testing::HasSubstr;

/// A book of two strangers: one of thousands of dollars, one of yen listed in dollars. Time moves as the test says.
class MarketOfBook : public testing::Test {
 protected:
  void SetUp() override {
    resources_ = *Resources::load();
    bring("umber-mills", "Umber Mills Inc.", {});
    bring("kagerou", "kagerou kaiun KK", {"JPY", 4e9, 1.1, 2020, 5, 88e9});
  }
  void bring(const std::string& id, const std::string& name, const test::PlainCompany& company) {
    std::vector<ImportFile> files = company.files();
    files.push_back({"record.json", company.record(id, name)});
    const auto added = Session::import(path(), id, files, resources_, desk());
    ASSERT_TRUE(added) << added.error().text();
  }
  [[nodiscard]] std::string path() const { return folder_.file("two.zledger"); }
  Desk desk() {
    return {"tester", [this] { return clock_; }, [] { return makeDate(2026, 5, 1); }, store::Book::kPatience};
  }
  std::unique_ptr<Session> open(const std::string& company) {
    auto session = Session::open(path(), company, resources_, desk());
    EXPECT_TRUE(session) << (session ? "" : session.error().text());
    return std::move(*session);
  }
  /// A session whose case is stored: until then it is valued on the last day with a price.
  std::unique_ptr<Session> openStored(const std::string& company) {
    auto session = open(company);
    EXPECT_TRUE(session->apply(setHorizon(session->now()->caseOf(), 9)));
    return session;
  }
  static double priceOf(const Session& s) { return s.now()->given(model::Role::Price).figure.value(); }
  static std::string sourceOf(const Session& s) { return s.now()->given(model::Role::Price).source; }
  static store::Observation fetched(const std::string& series, const char* day, double figure) {
    return {0, {}, series, *parseDate(day), figure, {}, "the desk", {}};
  }
  static const Finding* sharedChange(const Session& s) {
    const auto& all = s.now()->findings();
    const auto found =
        std::find_if(all.begin(), all.end(), [](const Finding& f) { return f.monitor == "shared rates changed"; });
    return found == all.end() ? nullptr : &*found;
  }

  test::TemporaryFolder folder_;
  std::shared_ptr<const Resources> resources_;
  std::string clock_ = "2026-04-01T08:00:00Z";
};

TEST_F(MarketOfBook, AFetchedPriceReachesWhatIsOpenWithoutReadingAFilingAgainAndNoUndoTakesItBack) {
  auto here = open("umber-mills");
  auto there = open("umber-mills");
  ASSERT_TRUE(here->apply(setHorizon(here->now()->caseOf(), 7)));
  ASSERT_EQ(*there->refresh(), Session::News::Company);
  const auto before = there->now();
  clock_ = "2026-04-02T08:00:00Z";
  ASSERT_TRUE(here->observe({fetched("price", "2025-03-31", 15)}));
  EXPECT_EQ(priceOf(*here), 15);
  EXPECT_THAT(sourceOf(*here), HasSubstr("fetched 2026-04-02T08:00 from the desk"));
  ASSERT_EQ(*there->refresh(), Session::News::Market);
  EXPECT_EQ(priceOf(*there), 15) << "over the table's 12 of the same day, which came earlier";
  EXPECT_EQ(there->now()->evidence, before->evidence);
  EXPECT_EQ(there->now()->ground->filed, before->ground->filed);
  EXPECT_EQ(there->now()->ground->history, before->ground->history);
  EXPECT_EQ(*there->refresh(), Session::News::None);
  ASSERT_TRUE(here->undo());
  EXPECT_EQ(here->now()->caseOf().horizon, 10);
  EXPECT_EQ(priceOf(*here), 15);
  EXPECT_EQ(priceOf(*open("umber-mills")), 15);
  EXPECT_TRUE(here->journal()->back().state != store::JournalEntry::State::Done) << "the fetch is no entry";
}

TEST_F(MarketOfBook, WhatOthersDidIsShownEvenWhereItFollowsAnEditOfOnesOwn) {
  auto one = open("umber-mills");
  auto two = open("umber-mills");
  ASSERT_TRUE(one->apply(setHorizon(one->now()->caseOf(), 7)));
  ASSERT_EQ(*two->refresh(), Session::News::Company);
  ASSERT_TRUE(two->apply(setHorizon(two->now()->caseOf(), 5)));
  ASSERT_EQ(*one->refresh(), Session::News::Company);
  EXPECT_EQ(one->now()->caseOf().horizon, 5);
  ASSERT_TRUE(one->observe({fetched("price", "2025-03-31", 14)}));
  ASSERT_EQ(*two->refresh(), Session::News::Market);
  ASSERT_TRUE(one->apply(setHorizon(one->now()->caseOf(), 9)));
  ASSERT_EQ(*two->refresh(), Session::News::Company);
  EXPECT_EQ(two->now()->caseOf().horizon, 9);
}

TEST_F(MarketOfBook, ATypedPriceIsAnEditThatNoTableAndNoFetchOvertakes) {
  auto session = openStored("umber-mills");
  ASSERT_TRUE(session->typeFigure("price", *parseDate("2025-03-31"), 13.5, "the close after the split"));
  EXPECT_EQ(priceOf(*session), 13.5);
  EXPECT_THAT(sourceOf(*session), HasSubstr("typed by tester on 2026-04-01: the close after the split"));
  clock_ = "2026-04-03T08:00:00Z";
  ASSERT_TRUE(session->importFiles({{"later.csv", "date,close\n2025-03-31,99\n2025-04-01,98\n"}}));
  ASSERT_TRUE(session->observe({fetched("price", "2025-03-31", 97)}));
  EXPECT_EQ(priceOf(*session), 13.5);
  ASSERT_TRUE(session->undo());  // the table
  ASSERT_TRUE(session->undo());  // the typed price
  EXPECT_EQ(priceOf(*session), 97) << "what was fetched stays";
  ASSERT_TRUE(session->redo());
  EXPECT_EQ(priceOf(*session), 13.5);
}

TEST_F(MarketOfBook, ACaseStandsOnThePriceOfItsDateOnTheLatestOrOnOneThatIsPinned) {
  auto session = openStored("umber-mills");
  ASSERT_TRUE(session->observe({fetched("price", "2025-06-30", 20)}));
  EXPECT_EQ(priceOf(*session), 12) << "of the valuation date";
  const auto stand = [&](PriceChoice price) { return session->apply(setPriceChoice(session->now()->caseOf(), price)); };
  ASSERT_TRUE(stand({PriceChoice::Stands::Live, 0, {}}));
  EXPECT_EQ(priceOf(*session), 20);
  EXPECT_THAT(sourceOf(*session), HasSubstr("latest, close of 2025-06-30"));
  ASSERT_TRUE(stand({PriceChoice::Stands::Pinned, 17, session->said("the bid")}));
  ASSERT_TRUE(session->observe({fetched("price", "2025-07-31", 25)}));
  EXPECT_EQ(priceOf(*session), 17);
  EXPECT_THAT(sourceOf(*session), HasSubstr("pinned by tester on 2026-04-01, USD: the bid"));
  EXPECT_EQ(open("umber-mills")->now()->caseOf().price, session->now()->caseOf().price) << "kept in the book";
  EXPECT_FALSE(stand({PriceChoice::Stands::Pinned, -1, {}}));
  EXPECT_EQ(priceOf(*session), 17);
  ASSERT_TRUE(session->undo());
  EXPECT_EQ(priceOf(*session), 25);
  ASSERT_TRUE(session->undo());
  EXPECT_EQ(priceOf(*session), 12);
}

TEST_F(MarketOfBook, WhatCannotBeAFigureOfASeriesIsRefusedWholeAndStoresNothing) {
  auto session = open("umber-mills");
  store::Observation pence = fetched("price", "2025-03-31", 1200);
  pence.unit = "GBX";
  const std::pair<std::vector<store::Observation>, const char*> kBad[] = {
      {{fetched("price", "2025-03-31", 14), pence}, "the price is in 'GBX', the listing in 'USD'"},
      {{fetched("price", "2025-03-31", 0)}, "a price must be above nought"},
      {{fetched("spot USD/EUR", "2025-03-31", -0.9)}, "an exchange rate must be above nought"},
      {{fetched("", "2025-03-31", 1)}, "the name of the series"},
      {{fetched("risk-free\nUSD", "2025-03-31", 1)}, "the name of the series"},
  };
  for (const auto& [observations, why] : kBad) {
    const Status s = session->observe(observations);
    ASSERT_FALSE(s);
    EXPECT_THAT(s.error().text(), HasSubstr(why));
  }
  EXPECT_FALSE(session->typeFigure("price", *parseDate("2025-03-31"), -3, ""));
  EXPECT_EQ(priceOf(*session), 12);
  EXPECT_EQ(session->now()->market->lastObservation, 0);
  EXPECT_EQ(session->journal()->size(), 1u);
}

TEST_F(MarketOfBook, ACompanyIsToldWhenRatesItSharesHaveMovedSinceItsLastEdit) {
  auto kagerou = open("kagerou");
  clock_ = "2026-04-02T08:00:00Z";
  ASSERT_TRUE(kagerou->importFiles(
      {{"rates.csv",
        "rate,date,figure,source\nrisk-free JPY,2025-01-31,0.01,table\nspot JPY/USD,2025-01-31,0.0066,t\n"}}));
  auto mills = open("umber-mills");
  ASSERT_NE(sharedChange(*mills), nullptr) << "its rates came in with another company";
  EXPECT_THAT(sharedChange(*mills)->text, HasSubstr("risk-free JPY none to 0.01"));
  EXPECT_THAT(sharedChange(*mills)->text, HasSubstr("the value per share of Base stays"));
  EXPECT_EQ(sharedChange(*kagerou), nullptr) << "it brought them in itself";
  clock_ = "2026-04-03T08:00:00Z";
  ASSERT_TRUE(mills->apply(setHorizon(mills->now()->caseOf(), 8)));
  EXPECT_EQ(sharedChange(*open("umber-mills")), nullptr) << "seen, and worked on since";
  clock_ = "2026-04-04T08:00:00Z";
  ASSERT_TRUE(mills->observe({fetched("risk-free JPY", "2025-02-28", 0.012)}));
  ASSERT_EQ(*kagerou->refresh(), Session::News::Market);
  ASSERT_NE(sharedChange(*kagerou), nullptr);
  EXPECT_THAT(sharedChange(*kagerou)->text, HasSubstr("risk-free JPY 0.01 to 0.012"));
}

TEST_F(MarketOfBook, ACaseThatNobodyHasStoredYetFollowsTheLastPriceWhereverItIsLookedAt) {
  auto here = open("umber-mills");
  auto there = open("umber-mills");
  ASSERT_TRUE(here->observe({fetched("price", "2025-06-30", 20)}));
  ASSERT_NE(*there->refresh(), Session::News::None);
  const auto later = open("umber-mills");
  for (const Session* s : {here.get(), there.get(), later.get()}) {
    EXPECT_EQ(priceOf(*s), 20);
    EXPECT_EQ(s->now()->caseOf().valuationDate, *parseDate("2025-06-30"));
  }
}

TEST_F(MarketOfBook, AVersionKeepsThePriceItStoodOn) {
  auto session = open("umber-mills");
  ASSERT_TRUE(session->keepVersion("spring", ""));
  clock_ = "2026-04-05T08:00:00Z";
  ASSERT_TRUE(session->observe({fetched("price", "2025-03-31", 15)}));
  const auto version = session->snapshotOf(*session->version("spring"));
  ASSERT_TRUE(version) << version.error().text();
  EXPECT_EQ((*version)->given(model::Role::Price).figure.value(), 12);
  EXPECT_EQ(priceOf(*session), 15);
}

}  // namespace
}  // namespace zl::services
