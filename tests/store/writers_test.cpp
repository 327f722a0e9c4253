// Several writers on one book: what is read together is of one moment, what is written together is
// there whole or not at all, and nobody gets in between.

#include <gmock/gmock.h>

#include "tests/support/book_fixture.h"

namespace zl::store {
namespace {

using test::BookTest;

TEST_F(BookTest, WhatIsReadTogetherIsOfOneMoment) {
  auto one = Book::make(path_);
  const auto first = one->append(edit("a", "first"), 0);
  auto two = Book::open(path_);
  {
    const auto moment = one->moment();
    ASSERT_TRUE(moment) << moment.error().text();
    EXPECT_EQ(**one->caseText("x"), "first");
    // Another program stores an edit between the reading of the case and the reading of the head.
    ASSERT_TRUE(two->append(edit("b", "second"), *first));
    EXPECT_EQ(*one->head("x"), *first) << "the head belongs to the case that was read";
    EXPECT_EQ(one->journal("x")->size(), 1u);
  }
  EXPECT_EQ(**one->caseText("x"), "second");
  EXPECT_EQ(one->append(edit("c", "over"), *first).error().kind, ErrorKind::Conflict);
}

TEST_F(BookTest, AChangeIsSeenByItselfAndByOthersOnlyWhenStored) {
  auto one = Book::make(path_);
  auto two = Book::open(path_);
  two->setPatience(0);
  {
    auto change = one->change();
    ASSERT_TRUE(change);
    ASSERT_TRUE(change->append(import(3), 0));
    EXPECT_EQ(one->facts("x")->size(), 3u) << "what would be can be looked at";
    EXPECT_TRUE(two->facts("x")->empty());
    EXPECT_EQ(two->append(edit("b", "2"), 0).error().kind, ErrorKind::Busy);
  }
  EXPECT_TRUE(one->facts("x")->empty()) << "without store() it has never been";
  EXPECT_TRUE(one->documents("x")->empty());
  EXPECT_TRUE(two->append(edit("b", "2"), 0)) << "and the way is free";
}

TEST_F(BookTest, AVersionKeptWithAnEditComesAndGoesWithIt) {
  auto book = Book::make(path_);
  Edit e = edit("roll", "1");
  e.keep = KeptVersion{0, "x", "before", "2026-01-01", "me", "", "0", {}};
  ASSERT_TRUE(book->append(e, 0));
  EXPECT_EQ(book->versions("x")->size(), 1u);
  EXPECT_EQ(book->append(e, 1).error().kind, ErrorKind::Conflict) << "its name is taken";
  EXPECT_EQ(*book->head("x"), 1) << "and then the edit is not there either";
}

TEST_F(BookTest, AnotherProgramsChangeIsNoticed) {
  auto one = Book::make(path_);
  auto two = Book::open(path_);
  const auto before = *one->changesOfOthers();
  ASSERT_TRUE(one->append(edit("a", "1"), 0));
  EXPECT_EQ(*one->changesOfOthers(), before) << "one's own is none";
  ASSERT_TRUE(two->append(edit("b", "2"), 1));
  EXPECT_NE(*one->changesOfOthers(), before);
}

TEST_F(BookTest, DraftsAreOfOnePersonAndGoWhenEmpty) {
  auto book = Book::make(path_);
  ASSERT_TRUE(book->keepDraft("x", "ann", {"own rows", "row a"}));
  ASSERT_TRUE(book->keepDraft("x", "ann", {"own rows", "row ab"}));
  ASSERT_TRUE(book->keepDraft("x", "bob", {"own rows", "row c"}));
  auto again = Book::open(path_);
  ASSERT_EQ(again->drafts("x", "ann")->size(), 1u);
  EXPECT_EQ(again->drafts("x", "ann")->front().text, "row ab");
  EXPECT_EQ(*again->head("x"), 0) << "a draft is no edit";
  ASSERT_TRUE(again->keepDraft("x", "ann", {"own rows", ""}));
  EXPECT_TRUE(again->drafts("x", "ann")->empty());
  EXPECT_EQ(again->drafts("x", "bob")->size(), 1u);
}

TEST_F(BookTest, BytesThatAreNoTextAreStoppedAtTheDoor) {
  auto book = Book::make(path_);
  Edit e = edit("caf\xE9", "1");
  EXPECT_EQ(book->append(e, 0).error().kind, ErrorKind::BadInput);
  e = import(2);
  e.incoming[0].document.name = "\xFF.csv";
  EXPECT_EQ(book->append(e, 0).error().kind, ErrorKind::BadInput);
  EXPECT_EQ(book->keepDraft("x", "me", {"f", "\xC0"}).error().kind, ErrorKind::BadInput);
  EXPECT_TRUE(book->journal("x")->empty());
  EXPECT_TRUE(book->documents("x")->empty());
  EXPECT_TRUE(book->append(edit("café", "1"), 0));
}

}  // namespace
}  // namespace zl::store
