// The disk fills up: at every size at which a write can fail, the edit is refused whole and the
// book stays what it was.

#include <gmock/gmock.h>
#include <gtest/gtest.h>
#include <sqlite3.h>
#include <unistd.h>

#include <filesystem>
#include <fstream>

#include "store/book.h"

namespace zl::store {
namespace {

namespace fs = std::filesystem;

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
  const fs::path folder = fs::temp_directory_path() / ("zledger-full-" + std::to_string(getpid()));
  fs::create_directories(folder);
  const std::string path = (folder / "a.zledger").string();
  int refused = 0;
  bool written = false;
  for (int room = 0; room < 60 && !written; ++room) {
    fs::remove_all(folder);
    fs::create_directories(folder);
    {
      auto book = Book::create(path);
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
  fs::remove_all(folder);
}

TEST(Damage, ABookThatWasTornIsRefusedOrReported) {
  const fs::path folder = fs::temp_directory_path() / ("zledger-torn-" + std::to_string(getpid()));
  fs::create_directories(folder);
  const std::string path = (folder / "a.zledger").string();
  {
    auto book = Book::create(path);
    ASSERT_TRUE(book->append(large("first"), 0));
  }
  const auto size = fs::file_size(path);
  int noticed = 0;
  for (int tenth = 1; tenth < 10; ++tenth) {
    const std::string torn = (folder / ("torn" + std::to_string(tenth))).string();
    fs::copy_file(path, torn);
    fs::resize_file(torn, size * static_cast<unsigned>(tenth) / 10);
    auto book = Book::open(torn);
    const bool clean = book && book->verify() && book->facts("x") && book->facts("x")->size() == 60u;
    noticed += clean ? 0 : 1;
  }
  EXPECT_EQ(noticed, 9) << "no torn book passes for a whole one";
  fs::remove_all(folder);
}

}  // namespace
}  // namespace zl::store
