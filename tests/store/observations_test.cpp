// Figures of the market beside the journal: added, told apart by when they were fetched, never undone.

#include <gmock/gmock.h>

#include "store/schema.h"
#include "store/survey.h"
#include "tests/support/book_fixture.h"

namespace zl::store {
namespace {

using test::BookTest;
using testing::HasSubstr;

Observation price(const char* day, double figure, const char* fetched, const char* company = "x") {
  return {0, company, "price", *parseDate(day), figure, "GBX", "desk", fetched};
}

std::vector<double> figuresOf(const Result<std::vector<Observation>>& list) {
  std::vector<double> figures;
  if (!list) ADD_FAILURE() << list.error().text();
  for (const Observation& o : *list) figures.push_back(o.figure);
  return figures;
}

TEST_F(BookTest, ObservationsAreAddedOnceAndReadByCompanyAndFromWhereOneLeftOff) {
  auto book = Book::make(path_);
  ASSERT_TRUE(book->append(import(3), 0));
  const std::string standing = *book->standingOf("x");
  ASSERT_EQ(*book->observe({price("2026-01-02", 10, "t1"),
                            price("2026-01-03", 11, "t1", "y"),
                            {0, "", "spot EUR/GBP", *parseDate("2026-01-02"), 0.86, "", "desk", "t1"}}),
            3);
  EXPECT_EQ(*book->observe({price("2026-01-02", 10, "t1"), price("2026-01-02", 12, "t2")}), 1)
      << "one is there already";
  const auto all = book->observations("x");
  EXPECT_EQ(figuresOf(all), (std::vector<double>{10, 0.86, 12})) << "another company's are its own";
  EXPECT_EQ(figuresOf(book->observations("x", (*all)[1].id)), (std::vector<double>{12}));
  Observation first = (*all)[0];
  first.id = 0;
  EXPECT_EQ(first, price("2026-01-02", 10, "t1"));
  EXPECT_EQ(*book->standingOf("x"), standing) << "no document, entry or case has changed";
  EXPECT_EQ(book->journal("x")->size(), 1u);
  ASSERT_TRUE(book->append(edit("a", "1"), *book->head("x")));
  EXPECT_NE(*book->standingOf("x"), standing);
  EXPECT_EQ(*book->lastEdit("x"), "2026-01-01T00:00:00Z");
  EXPECT_EQ(*book->lastEdit("nobody"), "");
}

TEST_F(BookTest, ObservationsAreStoredAllOrNone) {
  auto book = Book::make(path_);
  const auto bad = book->observe({price("2026-01-02", 10, "t1"), price("2026-01-03", 10, "\xff")});
  ASSERT_FALSE(bad);
  EXPECT_TRUE(book->observations("x")->empty());
  tamper("INSERT INTO observations VALUES(7, 'x', 'price', '2026-01-02', 'much', 'GBX', 'desk', 't1')");
  EXPECT_THAT(book->observations("x").error().text(), HasSubstr("observations, row 7, 'figure'"));
}

TEST_F(BookTest, AnOlderBookIsGivenAPlaceForThemAndARescueKeepsThem) {
  tamper(std::string(kSchema1) + kSchema2 + kSchema3 + "PRAGMA application_id = " + std::to_string(kApplicationId) +
         "; PRAGMA user_version = 3; INSERT INTO cases VALUES('x', 'the case');");
  {
    auto book = Book::open(path_);
    ASSERT_TRUE(book) << book.error().text();
    EXPECT_EQ(**book->caseText("x"), "the case");
    ASSERT_EQ(*book->observe({price("2026-01-02", 10, "t1")}), 1);
    ASSERT_TRUE(book->append(import(3), 0));
  }
  const std::string saved = temporary_.file("saved.zledger");
  const auto rescued = rescue(path_, saved, [](SurveyedDocument&) { return std::string(); });
  ASSERT_TRUE(rescued) << rescued.error().text();
  EXPECT_EQ(figuresOf(Book::open(saved)->observations("x")), (std::vector<double>{10}));
}

}  // namespace
}  // namespace zl::store
