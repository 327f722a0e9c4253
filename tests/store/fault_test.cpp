// The disk fills up: at every size at which a write can fail, the edit is refused whole and the
// book stays what it was.

#include <gmock/gmock.h>
#include <gtest/gtest.h>
#include <sqlite3.h>

#include <filesystem>
#include <fstream>
#include <functional>

#include "store/book.h"
#include "tests/support/failing_disk.h"
#include "tests/support/temporary_folder.h"

namespace zl::store {
namespace {

namespace fs = std::filesystem;

/// A free name in an empty folder.
std::string freshName(const test::TemporaryFolder& folder) {
  folder.clear();
  return folder.file("a.zledger");
}

Edit large(const std::string& label) {
  Edit e;
  e.entry = {0, "x", "2026-01-01", "me", label, "[]", "[]", {}, JournalEntry::State::Done};
  e.caseText = std::string(3000, 'c');
  Incoming in;
  in.company = "x";
  in.document = {0, "a.csv", "CSV fact table", label, std::nullopt, "2026-01-01"};
  in.content = std::string(9000, 'd');
  for (int i = 0; i < 60; ++i) {
    Fact f;
    f.concept_name = "c:" + std::to_string(i);
    f.period.end = makeDate(2024, 12, 31);
    f.unit = "EUR";
    f.text = "1";
    f.place = "line " + std::to_string(i);
    in.facts.push_back(f);
  }
  e.incoming.push_back(in);
  return e;
}

int pages(const std::string& path) {
  sqlite3* db = nullptr;
  sqlite3_open(path.c_str(), &db);
  int count = 0;
  sqlite3_exec(
      db, "PRAGMA page_count",
      [](void* out, int, char** v, char**) {
        *static_cast<int*>(out) = std::stoi(v[0]);
        return 0;
      },
      &count, nullptr);
  sqlite3_close(db);
  return count;
}

TEST(FullDisk, AnEditIsWholeOrNotThere) {
  const test::TemporaryFolder folder;
  int refused = 0;
  bool written = false;
  for (int room = 0; room < 60 && !written; ++room) {
    const std::string path = freshName(folder);
    {
      auto book = Book::make(path);
      ASSERT_TRUE(book);
      ASSERT_TRUE(book->append(large("first"), 0));
    }
    const int used = pages(path);
    auto book = Book::open(path);
    ASSERT_TRUE(book);
    ASSERT_TRUE(book->limitPages(used + room));
    const auto number = book->append(large("second"), 1);
    written = number.has_value();
    if (!written) {
      ++refused;
      EXPECT_EQ(number.error().kind, ErrorKind::Storage) << number.error().text();
      EXPECT_THAT(number.error().what, testing::HasSubstr("nothing was changed"));
    }
    auto again = Book::open(path);
    ASSERT_TRUE(again) << again.error().text();
    EXPECT_TRUE(again->verify());
    EXPECT_EQ(*again->head("x"), written ? 2 : 1);
    EXPECT_EQ(again->facts("x")->size(), written ? 120u : 60u) << "all facts of an edit or none";
    EXPECT_EQ(again->documents("x")->size(), written ? 2u : 1u);
  }
  EXPECT_GT(refused, 3) << "the write must have failed at several points";
  EXPECT_TRUE(written) << "with room enough it succeeds";
}

struct Work {
  const char* name;
  std::function<Status(Book&)> run;
  std::function<bool(Book&)> isDone;
};

/// Does the work on a book of one edit while the n-th operation of the disk fails, and looks at what is
/// left; whether it got through without a fault.
bool failsWholly(const std::string& path, const Work& work, int n, int code, bool once) {
  const std::string what = std::string(work.name) + ", operation " + std::to_string(n);
  EXPECT_TRUE(Book::make(path)->append(large("first"), 0));
  FailingDisk disk;
  bool through = false;
  {
    auto book = Book::open(path);
    disk.failAt(n, code, once);
    const Status done = work.run(*book);
    through = disk.count() < n;
    disk.failAt(0, SQLITE_OK, true);
    EXPECT_EQ(work.isDone(*book), done.has_value()) << what << ", on the same connection";
    EXPECT_TRUE(done || !through) << what;
  }
  auto again = Book::open(path);
  EXPECT_TRUE(again && again->verify()) << what;
  if (!again) return true;
  const std::int64_t head = *again->head("x");
  EXPECT_EQ(again->facts("x")->size(), static_cast<size_t>(60 * head)) << what << ": all facts of an edit or none";
  EXPECT_TRUE(again->append(large("later"), head)) << what << ": with the disk well again work goes on";
  return through;
}

// The n-th write, sync or truncation fails, for n = 1, 2, 3 … until the work gets through without one:
// a disk that is full for good, and one that fails once. What was refused is not there, what was accepted
// is, the book is whole, and with the disk well again work goes on.
TEST(FailingWrites, EveryChangeIsWholeOrNotThere) {
  const auto statusOf = [](const auto& result) { return result ? Status() : Status(tl::unexpected(result.error())); };
  const KeptVersion version{0, "x", "v", "", "", "", "t", {1}};
  const Work works[] = {
      {"append", [&](Book& b) { return statusOf(b.append(large("second"), 1)); },
       [](Book& b) { return *b.head("x") == 2; }},
      {"mark", [](Book& b) { return b.mark(b.journal("x")->front(), true, "before", 1); },
       [](Book& b) { return *b.head("x") == 0; }},
      {"keep", [&](Book& b) { return statusOf(b.keepVersion(version)); },
       [](Book& b) { return b.versions("x")->size() == 1; }},
      {"draft",
       [](Book& b) {
         return b.keepDraft("x", "me", Draft{"f", "t"});
       },
       [](Book& b) { return b.drafts("x", "me")->size() == 1; }},
  };
  const test::TemporaryFolder folder;
  for (const Work& work : works) {
    for (const auto& [code, once] : {std::pair(SQLITE_FULL, false), {SQLITE_IOERR_FSYNC, true}}) {
      int n = 1;
      while (n < 200 && !failsWholly(freshName(folder), work, n, code, once)) ++n;
      EXPECT_GT(n, 2) << work.name << ": the disk must have failed at several points";
      EXPECT_LT(n, 200) << work.name;
    }
  }
}

TEST(FailingWrites, AMakingThatFailsLeavesTheNameFree) {
  const test::TemporaryFolder folder;
  bool through = false;
  for (int n = 1; n < 200 && !through; ++n) {
    const std::string path = freshName(folder);
    FailingDisk disk;
    disk.failAt(n, SQLITE_FULL, false);
    const auto made = Book::make(path, [](Book& book) -> Status {
      const auto number = book.append(large("first"), 0);
      return number ? Status() : tl::unexpected(number.error());
    });
    through = disk.count() < n;
    disk.failAt(0, SQLITE_OK, true);
    if (made) {
      // The disk failed where the book was opened, after all of it had its name.
      auto again = Book::open(path);
      ASSERT_TRUE(again) << n << again.error().text();
      EXPECT_EQ(again->facts("x")->size(), 60u) << n;
      continue;
    }
    EXPECT_FALSE(fs::exists(path)) << n;
    EXPECT_TRUE(fs::is_empty(fs::path(path).parent_path())) << n << ": something was left beside";
  }
  EXPECT_TRUE(through);
}

TEST(Damage, ABookThatWasTornIsRefusedOrReported) {
  const test::TemporaryFolder folder;
  const std::string path = folder.file("a.zledger");
  {
    auto book = Book::make(path);
    ASSERT_TRUE(book->append(large("first"), 0));
  }
  const auto size = fs::file_size(path);
  int noticed = 0;
  for (int tenth = 1; tenth < 10; ++tenth) {
    const std::string torn = folder.file("torn" + std::to_string(tenth));
    fs::copy_file(path, torn);
    fs::resize_file(torn, size * static_cast<unsigned>(tenth) / 10);
    auto book = Book::open(torn);
    const bool clean = book && book->verify() && book->facts("x") && book->facts("x")->size() == 60u;
    noticed += clean ? 0 : 1;
  }
  EXPECT_EQ(noticed, 9) << "no torn book passes for a whole one";
}

}  // namespace
}  // namespace zl::store
