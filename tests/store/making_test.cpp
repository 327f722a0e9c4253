// A file is there whole or not at all: new books, files that are written, copies.

#include <fcntl.h>
#include <gmock/gmock.h>
#include <sys/file.h>
#include <sys/stat.h>

#include <fstream>

#include "store/copies.h"
#include "store/place.h"
#include "store/schema.h"
#include "store/whole_file.h"
#include "tests/support/book_fixture.h"

namespace zl::store {
namespace {

namespace fs = std::filesystem;
using test::BookTest;
using testing::ElementsAre;
using testing::HasSubstr;
using testing::IsEmpty;

std::string contentOf(const std::string& path) {
  std::ifstream in(path, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}

TEST_F(BookTest, AMakingThatFailsLeavesTheNameFree) {
  const auto refused = Book::make(path_, [&](Book& book) -> Status {
    EXPECT_TRUE(book.append(import(5), 0));
    EXPECT_FALSE(fs::exists(path_)) << "nothing stands under the name before all of it is there";
    return fail(ErrorKind::BadInput, "a fault", "somewhere");
  });
  ASSERT_FALSE(refused);
  EXPECT_EQ(refused.error().what, "a fault");
  EXPECT_THAT(filesBeside(), IsEmpty());
  const auto made = Book::make(path_, [&](Book& book) -> Status {
    return book.append(import(5), 0) ? Status() : fail(ErrorKind::Internal, "no");
  });
  ASSERT_TRUE(made) << made.error().text();
  EXPECT_EQ(Book::make(path_).error().kind, ErrorKind::Conflict);
}

TEST_F(BookTest, WhatAMakingThatWasCutShortLeftIsMadeAgain) {
  const auto halfOf = [&](int left) {
    temporary_.clear();
    if (left == 0) std::ofstream(path_).flush();
    if (left == 1) tamper("PRAGMA journal_mode = WAL");
    if (left == 2) tamper("PRAGMA application_id = " + std::to_string(kApplicationId));
    if (left == 3) {
      tamper("PRAGMA application_id = " + std::to_string(kApplicationId));
      std::ofstream(path_ + "-wal") << "an old log";
    }
  };
  for (int left = 0; left < 4; ++left) {
    halfOf(left);
    EXPECT_TRUE(Book::isHalfMade(path_)) << left;
    EXPECT_FALSE(Book::open(path_)) << left;
    auto made = Book::make(path_);
    ASSERT_TRUE(made) << left << made.error().text();
    EXPECT_TRUE(made->append(edit("a", "1"), 0));
    EXPECT_FALSE(Book::isHalfMade(path_)) << left;
  }
  // What holds something is nobody's to make again.
  temporary_.clear();
  tamper("CREATE TABLE t(a)");
  EXPECT_FALSE(Book::isHalfMade(path_));
  EXPECT_EQ(Book::make(path_).error().kind, ErrorKind::Conflict);
  fs::remove(path_);
  std::ofstream(path_) << "a text of somebody's";
  EXPECT_FALSE(Book::isHalfMade(path_));
}

TEST_F(BookTest, WhatAKilledProgramLeftBesideIsClearedAway) {
  const std::string dead = (folder_ / ".a.zledger.123-1.zl-part").string();
  const std::string alive = (folder_ / ".a.zledger.124-1.zl-part").string();
  const std::string foreign = (folder_ / ".a.zledger.notes.zl-part").string();
  for (const std::string& path : {dead, alive, foreign}) std::ofstream(path) << "x";
  const int held = open(alive.c_str(), O_RDONLY);
  ASSERT_EQ(flock(held, LOCK_EX), 0);
  ASSERT_TRUE(Book::make(path_));
  EXPECT_THAT(filesBeside(), testing::IsSupersetOf({std::string(".a.zledger.124-1.zl-part"), std::string("a.zledger"),
                                                    std::string(".a.zledger.notes.zl-part")}));
  EXPECT_FALSE(fs::exists(dead));
  close(held);
}

TEST_F(BookTest, AFileIsReplacedWholeWithItsRightsAndThroughALink) {
  const std::string file = (folder_ / "out.json").string();
  ASSERT_TRUE(writeWhole(file, "one"));
  ASSERT_EQ(chmod(file.c_str(), 0600), 0);
  const std::string link = (folder_ / "link.json").string();
  fs::create_symlink("out.json", link);
  ASSERT_TRUE(writeWhole(link, "two"));
  EXPECT_EQ(contentOf(file), "two");
  EXPECT_TRUE(fs::is_symlink(link));
  struct stat about {};
  stat(file.c_str(), &about);
  EXPECT_EQ(about.st_mode & 0777, 0600u);
  EXPECT_THAT(filesBeside(), ElementsAre("link.json", "out.json")) << "without leftovers";
  const Status full = writeWhole("/dev/full", "x");
  ASSERT_FALSE(full);
  EXPECT_EQ(full.error().kind, ErrorKind::Storage);
  EXPECT_EQ(writeWhole(folder_.string(), "x").error().kind, ErrorKind::WrongKind);
  EXPECT_EQ(writeWhole((folder_ / "none" / "a").string(), "x").error().kind, ErrorKind::Storage);
}

TEST_F(BookTest, ADayHasACopyFromBeforeItsFirstChange) {
  {
    auto book = Book::make(path_);
    ASSERT_TRUE(book->append(edit("a", "first"), 0));
  }
  for (int day = 1; day <= 9; ++day) {
    auto book = Book::open(path_);
    book->copyDaily("2026-03-0" + std::to_string(day));
    EXPECT_EQ(copiesOf(path_).size(), static_cast<size_t>(std::min(day - 1, 7))) << "looking costs no copy";
    for (int edits = 0; edits < 2; ++edits) {
      ASSERT_TRUE(book->append(edit("day", "day " + std::to_string(day)), *book->head("x")));
    }
    EXPECT_THAT(book->notices(), IsEmpty());
  }
  std::vector<std::string> names;
  for (const Copy& copy : copiesOf(path_)) names.push_back(copy.name);
  EXPECT_EQ(names.size(), 7u) << "the newest seven days are kept";
  EXPECT_THAT(names, testing::Contains("2026-03-09"));
  EXPECT_THAT(names, testing::Not(testing::Contains("2026-03-02")));
  auto copy = Book::look(copiesFolder(path_) + "/2026-03-09.zledger");
  ASSERT_TRUE(copy) << copy.error().text();
  EXPECT_EQ(**copy->caseText("x"), "day 8") << "as it was when the day began";
  EXPECT_EQ(bookOfCopy(copiesFolder(path_) + "/2026-03-09.zledger"), fs::absolute(path_).string());
  EXPECT_EQ(bookOfCopy(path_), "");
}

TEST_F(BookTest, ACopyThatCannotBeMadeIsToldAndKeepsNobodyFromWorking) {
  auto book = Book::make(path_);
  std::ofstream(copiesFolder(path_)) << "a file where the folder would be";
  book->copyDaily("2026-03-01");
  ASSERT_TRUE(book->append(edit("a", "1"), 0));
  ASSERT_EQ(book->notices().size(), 1u);
  EXPECT_THAT(book->notices()[0], HasSubstr("copy"));
}

/// A file is open as long as somebody has it open, whatever its name becomes meanwhile: numbers of files are given
/// again.
TEST_F(BookTest, WhatIsClosedIsOpenNoMoreUnderAnyName) {
  const std::string other = (folder_ / "other.zledger").string();
  {
    const auto book = Book::make(path_);
    ASSERT_TRUE(book);
    EXPECT_TRUE(isOpenHere(path_));
    fs::rename(path_, other);
    EXPECT_TRUE(isOpenHere(other));
  }
  EXPECT_FALSE(isOpenHere(other));
  std::ofstream(path_, std::ios::binary | std::ios::trunc) << "not a book, and long enough to be looked at as one";
  EXPECT_FALSE(Book::open(path_));
  EXPECT_FALSE(isOpenHere(path_));
}

TEST_F(BookTest, GoingBackKeepsWhatStoodThere) {
  {
    auto book = Book::make(path_);
    ASSERT_TRUE(book->append(edit("a", "old"), 0));
    ASSERT_TRUE(book->copyTo((folder_ / "kept.zledger").string()));
    EXPECT_EQ(book->copyTo((folder_ / "kept.zledger").string()).error().kind, ErrorKind::Conflict);
    ASSERT_TRUE(book->append(edit("b", "new"), 1));
  }
  {
    auto open = Book::open(path_);
    const auto refused = putBack((folder_ / "kept.zledger").string(), path_, "2026-03-01");
    ASSERT_FALSE(refused) << "whoever has it open would go on in a file that is no more there";
    EXPECT_EQ(refused.error().kind, ErrorKind::Busy);
    EXPECT_EQ(**open->caseText("x"), "new");
  }
  const auto aside = putBack((folder_ / "kept.zledger").string(), path_, "2026-03-01");
  ASSERT_TRUE(aside) << aside.error().text();
  EXPECT_EQ(**Book::open(path_)->caseText("x"), "old");
  EXPECT_EQ(**Book::look(*aside)->caseText("x"), "new");
  // A damaged book goes aside as it is.
  std::ofstream(path_, std::ios::binary | std::ios::trunc) << "not a book any more, and long enough to be looked at";
  const auto damaged = putBack((folder_ / "kept.zledger").string(), path_, "2026-03-02");
  ASSERT_TRUE(damaged) << damaged.error().text();
  EXPECT_THAT(contentOf(*damaged), HasSubstr("not a book"));
  EXPECT_EQ(**Book::open(path_)->caseText("x"), "old");
  // What is no whole book is put nowhere.
  EXPECT_FALSE(putBack(*damaged, path_, "2026-03-03"));
  EXPECT_EQ(**Book::open(path_)->caseText("x"), "old");
}

TEST_F(BookTest, AMigrationIsPrecededByACopy) {
  tamper(std::string(kSchema1) + kSchema2 + "PRAGMA application_id = " + std::to_string(kApplicationId) +
         "; PRAGMA user_version = 2; INSERT INTO cases VALUES('x', 'the case');");
  ASSERT_TRUE(Book::open(path_));
  ASSERT_EQ(copiesOf(path_).size(), 1u);
  EXPECT_EQ(copiesOf(path_)[0].name, "before version 4");
  auto old = Book::look(copiesOf(path_)[0].path);
  ASSERT_TRUE(old) << "an older book is looked at without bringing it up to date";
  EXPECT_EQ(**old->caseText("x"), "the case");
  EXPECT_TRUE(old->versions("x")->empty());
  EXPECT_TRUE(old->drafts("x", "me")->empty());
  EXPECT_FALSE(old->append(edit("a", "1"), 0));
}

TEST_F(BookTest, LookingLeavesNoTraceAndSeesTheLog) {
  auto writer = Book::make(path_);
  ASSERT_TRUE(writer->append(edit("a", "in the log"), 0));
  const std::vector<std::string> before = filesBeside();
  {
    auto looking = Book::look(path_);
    ASSERT_TRUE(looking) << looking.error().text();
    EXPECT_EQ(**looking->caseText("x"), "in the log");
    EXPECT_EQ(looking->append(edit("b", "2"), 1).error().kind, ErrorKind::Unsupported);
  }
  EXPECT_EQ(filesBeside(), before);
}

// From statfs(2) of Linux, "File system types".
TEST(Place, NetworkFoldersAreKnownByTheirNumber) {
  EXPECT_EQ(networkByNumber(0x6969), "NFS");
  EXPECT_EQ(networkByNumber(0xFF534D42), "CIFS");
  EXPECT_EQ(networkByNumber(static_cast<int>(0xFE534D42)), "SMB") << "also where the number came out negative";
  for (const long local : {0xEF53L, 0x58465342L, 0x9123683EL, 0x01021994L, 0x794C7630L})
    EXPECT_EQ(networkByNumber(local), "");
}

}  // namespace
}  // namespace zl::store
