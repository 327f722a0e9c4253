#pragma once
// Books of the store's tests.

#include <gtest/gtest.h>
#include <sqlite3.h>

#include <algorithm>
#include <filesystem>

#include "store/book.h"
#include "tests/support/temporary_folder.h"

namespace zl::test {

/// A folder of its own for each test, and edits to write.
class BookTest : public testing::Test {
 protected:
  static store::Edit edit(const std::string& label, const std::string& text) {
    store::Edit e;
    e.entry = {0, "x", "2026-01-01T00:00:00Z", "me", label, "[]", "[]", {}, store::JournalEntry::State::Done};
    e.caseText = text;
    return e;
  }

  static store::Edit import(int facts) {
    store::Edit e = edit("import", "{}");
    store::Incoming in;
    in.company = "x";
    in.document = {0, "a.csv", "CSV fact table", "digest", makeDate(2024, 12, 31), "2026-01-01"};
    in.content = std::string("bytes\0with a nought", 19);
    for (int i = 0; i < facts; ++i) {
      Fact f;
      f.concept_name = "c:" + std::to_string(i % 7);
      f.label = i % 2 == 0 ? "label" : "";
      f.period = {makeDate(2024, 1, 1), makeDate(2024, 12, 31)};
      f.unit = "EUR";
      f.text = "12.50";
      f.decimals = -3;
      f.nil = i == 3;
      f.exact = i == 4;
      f.segments = i == 5 ? std::vector<Segment>{{"axis", "member"}, {"b", ""}} : std::vector<Segment>{};
      f.place = "line " + std::to_string(i);
      in.facts.push_back(f);
    }
    e.incoming.push_back(std::move(in));
    return e;
  }

  /// Statements run on the file behind the program's back.
  void tamper(const std::string& sql) const {
    sqlite3* db = nullptr;
    ASSERT_EQ(sqlite3_open(path_.c_str(), &db), SQLITE_OK);
    char* message = nullptr;
    EXPECT_EQ(sqlite3_exec(db, sql.c_str(), nullptr, nullptr, &message), SQLITE_OK) << message;
    sqlite3_free(message);
    sqlite3_close(db);
  }
  [[nodiscard]] std::vector<std::string> filesBeside() const {
    std::vector<std::string> names;
    for (const auto& entry : std::filesystem::directory_iterator(folder_)) names.push_back(entry.path().filename());
    std::sort(names.begin(), names.end());
    return names;
  }

  const TemporaryFolder temporary_;
  const std::filesystem::path folder_ = temporary_.path();
  const std::string path_ = temporary_.file("a.zledger");
};

}  // namespace zl::test
