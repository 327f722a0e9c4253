// Any file may call itself a book: what is not as the program writes it is refused or named, nothing
// in it is run, and what is whole can be saved.

#include <gmock/gmock.h>

#include <fstream>

#include "store/schema.h"
#include "store/survey.h"
#include "tests/support/book_fixture.h"

namespace zl::store {
namespace {

namespace fs = std::filesystem;
using test::BookTest;
using testing::HasSubstr;

TEST_F(BookTest, ASchemaThatIsNoBooksIsRefused) {
  const struct {
    const char* sql;
    const char* named;
  } cases[] = {
      {"CREATE TRIGGER t AFTER INSERT ON journal BEGIN DELETE FROM cases; END", "trigger t"},
      {"CREATE VIEW v AS SELECT 1", "view v"},
      {"ALTER TABLE cases RENAME TO other; CREATE VIEW cases AS SELECT company, text FROM other", "table other"},
      {"DROP TABLE journal_documents", "journal_documents is missing"},
      {"ALTER TABLE facts ADD COLUMN more TEXT DEFAULT (hex(randomblob(9)))", "table facts"},
      {"CREATE INDEX i ON facts(length(text))", "index i"},
      {"PRAGMA user_version = 0", "version 0"},
      {"PRAGMA user_version = -5", "version -5"},
      {"PRAGMA user_version = 99", "version 99"},
      {"PRAGMA application_id = 1", "not a book"},
  };
  for (const auto& c : cases) {
    temporary_.clear();
    {
      auto book = Book::make(path_);
      ASSERT_TRUE(book->append(edit("a", "1"), 0));
    }
    tamper(c.sql);
    for (const auto& opened : {Book::open(path_), Book::look(path_)}) {
      ASSERT_FALSE(opened) << c.sql;
      EXPECT_THAT(opened.error().text(), HasSubstr(c.named)) << c.sql;
    }
    EXPECT_EQ(filesBeside().size(), 1u) << "refusing leaves no trace: " << c.sql;
  }
}

TEST_F(BookTest, FiguresAndTextsOutOfRangeAreDamageWithItsPlace) {
  const struct {
    const char* sql;
    const char* named;
  } cases[] = {
      {"UPDATE facts SET decimals = 3000000000 WHERE id = 2", "facts, row 2, 'decimals' holds 3000000000"},
      {"UPDATE facts SET decimals = -99 WHERE id = 2", "-99"},
      {"UPDATE facts SET decimals = 'many' WHERE id = 2", "'decimals' holds no number"},
      {"UPDATE facts SET period_end = '2025-13-45' WHERE id = 3", "'2025-13-45', which is no date"},
      {"UPDATE facts SET period_start = X'07' WHERE id = 3", "'period_start' does not hold a text"},
      {"UPDATE facts SET text = '1e5x' WHERE id = 1", "which is no number"},
      {"UPDATE facts SET text = CAST(X'FF' AS TEXT) WHERE id = 1", "not UTF-8"},
      {"UPDATE facts SET nil = 7 WHERE id = 1", "'nil' holds 7"},
      {"UPDATE facts SET segments = 'half' WHERE id = 1", "axes"},
      {"UPDATE journal SET state = 12", "'state' holds 12"},
      {"UPDATE journal SET label = X'00'", "'label' does not hold a text"},
      {"UPDATE documents SET active = -1", "'active' holds -1"},
      {"UPDATE documents SET period_end = 'soon'", "no date"},
      {"UPDATE cases SET text = X'1234'", "'text' does not hold a text"},
  };
  for (const auto& c : cases) {
    fs::remove(path_);
    {
      auto book = Book::make(path_);
      ASSERT_TRUE(book->append(import(6), 0));
    }
    tamper(c.sql);
    auto book = Book::open(path_);
    ASSERT_TRUE(book) << book.error().text();
    std::string found;
    const auto note = [&](const auto& read) {
      if (read) return;
      EXPECT_EQ(read.error().kind, ErrorKind::Damaged);
      found += read.error().text();
    };
    note(book->documents("x"));
    note(book->facts("x"));
    note(book->caseText("x"));
    note(book->journal("x"));
    EXPECT_THAT(found, HasSubstr(c.named)) << c.sql;
    const auto surveyed = survey(path_, [](SurveyedDocument&) { return std::string(); });
    ASSERT_TRUE(surveyed) << surveyed.error().text();
    EXPECT_FALSE(surveyed->damage.empty()) << "and verifying names it: " << c.sql;
  }
}

TEST_F(BookTest, NamesAreNamesOfFiles) {
  ASSERT_TRUE(Book::make(path_));
  const fs::path here = fs::current_path();
  fs::current_path(folder_);
  for (const std::string& name : {std::string(":memory:"), std::string("file:a.zledger?mode=memory"),
                                  std::string("file:a.zledger"), std::string(""), folder_.string()}) {
    EXPECT_FALSE(Book::open(name)) << name;
  }
  auto made = Book::make("file:b?mode=memory");
  ASSERT_TRUE(made) << made.error().text();
  EXPECT_TRUE(fs::exists(folder_ / "file:b?mode=memory")) << "a strange name, and a file of it";
  EXPECT_TRUE(Book::look("file:b?mode=memory"));
  fs::current_path(here);
  ASSERT_EQ(mkfifo((folder_ / "pipe").c_str(), 0600), 0);
  EXPECT_EQ(Book::open((folder_ / "pipe").string()).error().kind, ErrorKind::WrongKind) << "and nobody waits for it";
}

// Pages of a made-up book are overwritten one after another: opening, reading and surveying end with
// a value each time, and rescuing gives a whole book of what is left or says that nothing is.
TEST_F(BookTest, DamagedPagesAreNamedAndTheRestIsSaved) {
  {
    auto book = Book::make(path_);
    for (int i = 0; i < 12; ++i) ASSERT_TRUE(book->append(import(60), *book->head("x")));
    ASSERT_TRUE(book->keepVersion({0, "x", "v", "", "", "", "{}", {1, 2}}));
  }
  const std::string whole = (folder_ / "whole").string();
  fs::copy_file(path_, whole);
  constexpr int kPage = 4096;
  const int pages = static_cast<int>(fs::file_size(whole)) / kPage;
  ASSERT_GT(pages, 15);
  const Judge judge = [](SurveyedDocument& d) {
    return d.content == std::string("bytes\0with a nought", 19) && d.facts.size() == 60u ? std::string() : "not whole";
  };
  int rescued = 0;
  for (int page = 1; page < pages; ++page) {
    fs::copy_file(whole, path_, fs::copy_options::overwrite_existing);
    std::fstream file(path_, std::ios::binary | std::ios::in | std::ios::out);
    file.seekp(page * kPage);
    file << std::string(kPage, page % 2 == 0 ? '\xFF' : '\0');
    file.close();
    const auto surveyed = survey(path_, judge);
    EXPECT_TRUE(surveyed) << page;
    if (!surveyed) continue;
    EXPECT_FALSE(surveyed->damage.empty()) << "damage on page " << page << " passes unseen";
    const std::string saved = (folder_ / ("saved" + std::to_string(page))).string();
    const auto made = rescue(path_, saved, judge);
    if (!made) continue;
    ++rescued;
    auto book = Book::open(saved);
    ASSERT_TRUE(book) << page << book.error().text();
    EXPECT_TRUE(book->verify()) << page;
    EXPECT_EQ(book->facts("x")->size(), 60 * book->documents("x")->size()) << "only whole documents: page " << page;
    EXPECT_TRUE(survey(saved, judge)->damage.empty()) << page;
  }
  EXPECT_GT(rescued, pages / 2);
}

TEST_F(BookTest, RescuingAWholeBookKeepsAllOfItUnderTheSameNumbers) {
  {
    auto book = Book::make(path_);
    ASSERT_TRUE(book->append(import(7), 0));
    ASSERT_TRUE(book->append(edit("b", "{}"), 1));
    ASSERT_TRUE(book->append(import(3), 2));
    ASSERT_TRUE(book->mark(book->journal("x")->back(), true, std::nullopt, 3));
    ASSERT_TRUE(book->keepVersion({0, "x", "v", "at", "me", "note", "{}", {1}}));
    ASSERT_TRUE(book->keepDraft("x", "me", {"f", "text"}));
  }
  const std::string saved = (folder_ / "saved").string();
  const auto result = rescue(path_, saved, [](SurveyedDocument&) { return std::string(); });
  ASSERT_TRUE(result) << result.error().text();
  EXPECT_TRUE(result->damage.empty());
  EXPECT_EQ(rescue(path_, saved, [](SurveyedDocument&) { return std::string(); }).error().kind, ErrorKind::Conflict);
  auto a = Book::open(path_);
  auto b = Book::open(saved);
  EXPECT_EQ(*a->head("x"), *b->head("x"));
  EXPECT_EQ(**a->caseText("x"), **b->caseText("x"));
  EXPECT_EQ(b->versions("x")->front().documents, std::vector<std::int64_t>{1});
  EXPECT_EQ(b->drafts("x", "me")->front().text, "text");
  const auto left = *a->journal("x");
  const auto right = *b->journal("x");
  ASSERT_EQ(left.size(), right.size());
  for (size_t i = 0; i < left.size(); ++i) {
    EXPECT_EQ(std::tie(left[i].number, left[i].label, left[i].state, left[i].documents),
              std::tie(right[i].number, right[i].label, right[i].state, right[i].documents));
  }
  EXPECT_EQ(b->facts("x")->size(), 7u) << "what was set aside stays so";
}

}  // namespace
}  // namespace zl::store
