// The book: what was shown as done is there after anything, and two writers never mix.

#include "store/book.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>
#include <signal.h>
#include <sqlite3.h>
#include <sys/wait.h>
#include <unistd.h>

#include <filesystem>
#include <fstream>

#include "store/schema.h"
#include "tests/support/book_fixture.h"

namespace zl::store {
namespace {

using test::BookTest;

TEST_F(BookTest, GivesBackWhatWasStored) {
  auto book = Book::make(path_);
  ASSERT_TRUE(book) << book.error().text();
  const Edit written = import(10);
  ASSERT_TRUE(book->append(written, 0));
  auto again = Book::open(path_);
  ASSERT_TRUE(again);
  const auto facts = again->facts("x");
  ASSERT_TRUE(facts);
  ASSERT_EQ(facts->size(), 10u);
  for (size_t i = 0; i < 10; ++i) {
    const Fact& a = written.incoming[0].facts[i];
    const Fact& b = (*facts)[i];
    EXPECT_EQ(
        std::tie(a.concept_name, a.label, a.period, a.unit, a.text, a.decimals, a.nil, a.exact, a.segments, a.place),
        std::tie(b.concept_name, b.label, b.period, b.unit, b.text, b.decimals, b.nil, b.exact, b.segments, b.place));
  }
  EXPECT_EQ(*again->content((*facts)[0].document), written.incoming[0].content);
  EXPECT_EQ(again->companies()->front(), "x");
  EXPECT_TRUE(again->verify());
}

TEST_F(BookTest, UndoSetsDocumentsAsideAndRedoBringsThemBack) {
  auto book = Book::make(path_);
  ASSERT_TRUE(book->append(import(3), 0));
  const JournalEntry entry = book->journal("x")->front();
  ASSERT_EQ(entry.documents.size(), 1u);
  ASSERT_TRUE(book->mark(entry, true, "before", *book->head("x")));
  EXPECT_TRUE(book->facts("x")->empty());
  EXPECT_EQ(book->documents("x")->size(), 1u) << "set aside, not deleted";
  EXPECT_EQ(**book->caseText("x"), "before");
  EXPECT_FALSE(book->mark(entry, true, "again", *book->head("x"))) << "it is undone already";
  ASSERT_TRUE(book->mark(entry, false, std::nullopt, *book->head("x")));
  EXPECT_EQ(book->facts("x")->size(), 3u);
  EXPECT_EQ(**book->caseText("x"), "before");
}

TEST_F(BookTest, ANewEditDropsWhatWasUndoneButKeepsItsRecord) {
  auto book = Book::make(path_);
  const auto first = book->append(edit("a", "1"), 0);
  const auto second = book->append(edit("b", "2"), *first);
  ASSERT_TRUE(book->mark((*book->journal("x"))[1], true, "1", *second));
  EXPECT_EQ(*book->head("x"), *first);
  ASSERT_TRUE(book->append(edit("c", "3"), *first));
  const auto journal = book->journal("x");
  ASSERT_EQ(journal->size(), 3u);
  EXPECT_EQ((*journal)[1].state, JournalEntry::State::Dropped);
  EXPECT_EQ((*journal)[1].number, *second);
}

TEST_F(BookTest, ASecondWriterIsToldAndChangesNothing) {
  auto one = Book::make(path_);
  auto two = Book::open(path_);
  ASSERT_TRUE(one->append(edit("a", "1"), 0));
  const auto late = two->append(edit("b", "2"), 0);
  ASSERT_FALSE(late);
  EXPECT_EQ(late.error().kind, ErrorKind::Conflict);
  EXPECT_EQ(**two->caseText("x"), "1");
  EXPECT_EQ(two->journal("x")->size(), 1u);
  // Nor does an undo run over what came in between.
  const JournalEntry first = two->journal("x")->front();
  ASSERT_TRUE(one->append(edit("c", "2"), first.number));
  EXPECT_EQ(two->mark(first, true, "0", first.number).error().kind, ErrorKind::Conflict);
  EXPECT_EQ(**two->caseText("x"), "2");
}

TEST_F(BookTest, OtherFilesAreRefusedAndLeftAlone) {
  EXPECT_EQ(Book::open(path_).error().kind, ErrorKind::NotFound);
  const auto refused = [&](const std::string& content) {
    std::ofstream(path_, std::ios::binary | std::ios::trunc) << content;
    const auto book = Book::open(path_);
    EXPECT_FALSE(book);
    std::ifstream in(path_, std::ios::binary);
    EXPECT_EQ(std::string(std::istreambuf_iterator<char>(in), {}), content);
    return book ? ErrorKind::Internal : book.error().kind;
  };
  EXPECT_EQ(refused("this is text, and long enough to be looked at as a header of a database file of any kind"),
            ErrorKind::WrongKind);
  EXPECT_EQ(Book::make(path_).error().kind, ErrorKind::Conflict) << "an existing file is never overwritten";
  std::filesystem::remove(path_);
  sqlite3* other = nullptr;
  sqlite3_open(path_.c_str(), &other);
  sqlite3_exec(other, "CREATE TABLE t(a)", nullptr, nullptr, nullptr);
  sqlite3_close(other);
  EXPECT_EQ(Book::open(path_).error().kind, ErrorKind::WrongKind);
}

TEST_F(BookTest, ABookOfANewerVersionIsNotTouched) {
  ASSERT_TRUE(Book::make(path_));
  sqlite3* raw = nullptr;
  sqlite3_open(path_.c_str(), &raw);
  sqlite3_exec(raw, "PRAGMA user_version = 99", nullptr, nullptr, nullptr);
  sqlite3_close(raw);
  const auto book = Book::open(path_);
  ASSERT_FALSE(book);
  EXPECT_EQ(book.error().kind, ErrorKind::Unsupported);
  EXPECT_THAT(book.error().what, testing::HasSubstr("version 99"));
}

TEST_F(BookTest, ABookOfTheFirstVersionIsBroughtUpToDate) {
  sqlite3* raw = nullptr;
  sqlite3_open(path_.c_str(), &raw);
  const std::string first = std::string(kSchema1) + "PRAGMA application_id = " + std::to_string(kApplicationId) +
                            "; PRAGMA user_version = 1; INSERT INTO cases VALUES('x', 'the case');";
  ASSERT_EQ(sqlite3_exec(raw, first.c_str(), nullptr, nullptr, nullptr), SQLITE_OK);
  sqlite3_close(raw);
  for (int opened = 0; opened < 2; ++opened) {
    auto book = Book::open(path_);
    ASSERT_TRUE(book) << book.error().text();
    EXPECT_EQ(**book->caseText("x"), "the case");
    EXPECT_EQ(book->versions("x")->size(), static_cast<size_t>(opened));
    ASSERT_TRUE(book->keepVersion({0, "x", "v" + std::to_string(opened), "", "", "", "text", {}}));
  }
}

TEST_F(BookTest, VersionsRememberTheirDocuments) {
  auto book = Book::make(path_);
  ASSERT_TRUE(book->append(import(3), 0));
  const JournalEntry entry = book->journal("x")->front();
  const KeptVersion kept{0, "x", "first", "2026-01-01", "me", "why", "text", entry.documents};
  const auto id = book->keepVersion(kept);
  ASSERT_TRUE(id) << id.error().text();
  EXPECT_EQ(book->keepVersion(kept).error().kind, ErrorKind::Conflict);
  ASSERT_TRUE(book->mark(entry, true, std::nullopt, *book->head("x")));
  const KeptVersion back = book->versions("x")->front();
  EXPECT_EQ(std::tie(back.id, back.name, back.at, back.author, back.note, back.caseText, back.documents),
            std::tie(*id, kept.name, kept.at, kept.author, kept.note, kept.caseText, kept.documents));
  EXPECT_TRUE(book->facts("x")->empty());
  EXPECT_EQ(book->facts("x", &back.documents)->size(), 3u);
  ASSERT_TRUE(book->setVersionAside(*id));
  EXPECT_EQ(book->setVersionAside(*id).error().kind, ErrorKind::NotFound);
  EXPECT_TRUE(book->versions("x")->empty());
  EXPECT_TRUE(book->keepVersion(kept)) << "its name is free again";
}

// A child writes edits and reports each one after it was shown as done; it is killed at an
// arbitrary moment, many times over. Everything reported must be there.
TEST_F(BookTest, KilledAtAnyMomentItKeepsAllThatWasReported) {
  ASSERT_TRUE(Book::make(path_));
  std::int64_t known = 0;
  for (int round = 0; round < 12; ++round) {
    int channel[2];
    ASSERT_EQ(pipe(channel), 0);
    const pid_t child = fork();
    ASSERT_GE(child, 0);
    if (child == 0) {
      close(channel[0]);
      auto book = Book::open(path_);
      if (!book) _exit(1);
      for (std::int64_t head = *book->head("x");;) {
        const std::string text = "case " + std::to_string(head + 1);
        const auto number = book->append(head % 5 == 0 ? import(200) : edit("e", text), head);
        if (!number) _exit(2);
        head = *number;
        if (write(channel[1], &head, sizeof head) != sizeof head) _exit(3);
      }
    }
    close(channel[1]);
    std::int64_t head = 0;
    std::int64_t reported = known;
    // The kill falls after a varying number of reports, wherever the child is by then.
    for (int i = 0; i <= round % 5 && read(channel[0], &head, sizeof head) == sizeof head; ++i) reported = head;
    usleep(static_cast<useconds_t>(round * 137 % 900));
    kill(child, SIGKILL);
    while (read(channel[0], &head, sizeof head) == sizeof head) reported = head;
    close(channel[0]);
    int status = 0;
    waitpid(child, &status, 0);
    ASSERT_TRUE(WIFSIGNALED(status)) << "the child must not have stopped by itself";
    auto book = Book::open(path_);
    ASSERT_TRUE(book) << book.error().text();
    ASSERT_TRUE(book->verify());
    ASSERT_GT(reported, known) << "the child must have got something done";
    EXPECT_GE(*book->head("x"), reported);
    EXPECT_EQ(static_cast<std::int64_t>(book->journal("x")->size()), *book->head("x")) << "no entry is half there";
    known = *book->head("x");
  }
}

}  // namespace
}  // namespace zl::store
