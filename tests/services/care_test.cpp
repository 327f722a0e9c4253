// Looking after books: what is stored can be shown or stepped back, what is damaged is named, what is
// whole can be saved, and a start that breaks leaves nothing.

#include "services/sessions/book_care.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>
#include <sqlite3.h>

#include <fstream>

#include "services/sessions/case_file.h"
#include "services/sessions/demo.h"
#include "tests/support/demo_book.h"
#include "tests/support/files.h"

namespace zl::services {
namespace {

using test::demoFile;
using test::testDesk;
using testing::HasSubstr;

class Care : public test::DemoBook {
 protected:
  /// Stores files the way nobody can through a session: without looking at what would be.
  void force(const std::string& name, exchange::ContentKind kind, const std::string& content) {
    auto stored = store::Book::open(book());
    ASSERT_TRUE(stored);
    store::Edit edit;
    edit.entry = {
        0, "vessingholt", "2026-01-01", "x", "Forced " + name, "[]", "[]", {}, store::JournalEntry::State::Done};
    store::Incoming in;
    in.company = "vessingholt";
    in.document = {0, name, exchange::contentKindText(kind), exchange::digestOf(content), std::nullopt, "2026-01-01"};
    in.content = content;
    edit.incoming.push_back(in);
    ASSERT_TRUE(stored->append(edit, *stored->head("vessingholt")));
  }
  void tamper(const std::string& sql) const {
    sqlite3* db = nullptr;
    ASSERT_EQ(sqlite3_open(book().c_str(), &db), SQLITE_OK);
    EXPECT_EQ(sqlite3_exec(db, sql.c_str(), nullptr, nullptr, nullptr), SQLITE_OK) << sqlite3_errmsg(db);
    sqlite3_close(db);
  }
  [[nodiscard]] std::vector<std::string> faults() const {
    std::vector<std::string> all;
    const auto check = checkBook(book(), resources_, testDesk());
    EXPECT_TRUE(check) << check.error().text();
    for (const auto* list : {&check->survey.damage, &check->faults}) {
      for (const store::DamageFound& d : *list) all.push_back(d.where + ": " + d.what);
    }
    EXPECT_EQ(check->isWhole(), all.empty());
    return all;
  }
};

TEST_F(Care, ACompanyThatCannotBeShownOpensSaysWhyAndIsSteppedBack) {
  std::string dollars = demoFile("company.json");
  dollars.replace(dollars.find("\"EUR\""), 5, "\"USD\"");
  for (const auto& [kind, content, why] :
       {std::tuple(exchange::ContentKind::CompanyRecord, dollars, "no full fiscal year"),
        {exchange::ContentKind::CompanyRecord, std::string("{\"format\": 7}"), "company.json"},
        {exchange::ContentKind::PriceTable, std::string("date,close\nnever,1\n"), "not a date"}}) {
    force("company.json", kind, content);
    auto session = Session::open(book(), "", resources_, testDesk());
    ASSERT_TRUE(session) << session.error().text();
    ASSERT_TRUE((*session)->fault()) << why;
    EXPECT_EQ((*session)->now(), nullptr);
    EXPECT_THAT((*session)->fault()->text(), HasSubstr(why));
    EXPECT_EQ((*session)->undoLabel(), "Forced company.json");
    EXPECT_FALSE((*session)->keepVersion("x", ""));
    EXPECT_FALSE((*session)->importFiles({{"rates.csv", "rate,date,figure,source\n"}}));
    EXPECT_THAT(faults(), testing::Contains(HasSubstr("cannot be shown")));
    ASSERT_TRUE((*session)->undo());
    EXPECT_FALSE((*session)->fault());
    ASSERT_NE((*session)->now(), nullptr);
    EXPECT_EQ((*session)->now()->company().currency, "EUR");
    EXPECT_FALSE((*session)->redo()) << "what cannot be shown is not done again";
    EXPECT_TRUE((*session)->now() != nullptr);
  }
}

TEST_F(Care, WhatIsMissingCanBeImportedIntoACompanyThatCannotBeShown) {
  std::string dollars = demoFile("company.json");
  dollars.replace(dollars.find("\"EUR\""), 5, "\"USD\"");
  force("company.json", exchange::ContentKind::CompanyRecord, dollars);
  std::string euros = demoFile("company.json");
  euros.replace(euros.find("Vessingholt N.V."), 16, "Vessingholt Ltd.");
  const auto result = Session::import(book(), "vessingholt", {{"company.json", euros}}, resources_, testDesk());
  ASSERT_TRUE(result) << result.error().text();
  EXPECT_EQ(result->shown->company().name, "Vessingholt Ltd.");
}

TEST_F(Care, AFirstImportThatCannotBeShownLeavesNoFile) {
  const std::string path = folder_.file("new.zledger");
  const auto result =
      Session::import(path, "vessingholt", {{"company.json", demoFile("company.json")}}, resources_, testDesk());
  ASSERT_FALSE(result);
  EXPECT_THAT(result.error().text(), testing::AllOf(HasSubstr("no full fiscal year"), HasSubstr("Nothing was stored")));
  EXPECT_FALSE(std::filesystem::exists(path));
  // An empty file that an older program left is made again.
  std::ofstream(path).flush();
  ASSERT_TRUE(makeDemoBook(path, resources_, testDesk()));
  EXPECT_TRUE(Session::open(path, "", resources_, testDesk()));
}

TEST_F(Care, NamesOfCompaniesAreOneWord) {
  for (const std::string& id : {std::string(), std::string("two words"), std::string("../x"), std::string("a\\b"),
                                std::string("x\n"), std::string("caf\xE9"), std::string(65, 'x')}) {
    const auto result = Session::import(folder_.file("n.zledger"), id,
                                        {{"a.xbrl", demoFile("filings/annual-2025.xbrl")}}, resources_, testDesk());
    ASSERT_FALSE(result) << id;
    EXPECT_THAT(result.error().what, HasSubstr("cannot be the short name")) << id;
  }
  for (const char* id : {"acme", "3-rivers_2", "ünïcode", "数字"}) EXPECT_TRUE(validCompanyId(id)) << id;
}

TEST_F(Care, TextsThatAreNoneAreRefusedBeforeTheyAreStored) {
  auto session = open();
  const Case& c = session->now()->caseOf();
  const auto refused = session->apply(setNote(c, session->now()->evaluation->model(), "revenue", "caf\xE9"));
  ASSERT_FALSE(refused);
  EXPECT_EQ(refused.error().kind, ErrorKind::BadInput);
  EXPECT_FALSE(session->keepVersion("caf\xE9", ""));
  EXPECT_TRUE(session->versions()->empty());
  const auto named = session->importFiles(
      {{"caf\xE9.csv", "concept,label,start,end,unit,decimals,value\nrevenue,,2013-01-01,2013-12-31,EUR,0,1\n"}});
  EXPECT_FALSE(named);
  // XML that says it is UTF-8 and is not: each such text went on as bytes, and ended the program later.
  const auto latin = preview(
      {{"a.xbrl", "<?xml version=\"1.0\"?>\n<xbrl xmlns=\"http://www.xbrl.org/2003/instance\">\n<a>\xE9</a></xbrl>"}},
      session->importContext());
  ASSERT_FALSE(latin);
  EXPECT_THAT(latin.error().text(), testing::AllOf(HasSubstr("line 3"), HasSubstr("UTF-8")));
}

TEST_F(Care, AWholeBookIsFoundWholeAndTamperingIsNamed) {
  EXPECT_THAT(faults(), testing::IsEmpty());
  const struct {
    const char* sql;
    const char* named;
  } cases[] = {
      {"UPDATE documents SET content = CAST(CAST(content AS TEXT) || 'x' AS BLOB) WHERE name = 'annual-2025.xbrl'",
       "annual-2025.xbrl"},
      {"UPDATE facts SET text = '1' WHERE id = (SELECT MAX(f.id) FROM facts f JOIN documents d ON d.id = f.document "
       "WHERE "
       "d.name = 'annual-2025.xbrl')",
       "document 'annual-2025.xbrl': its facts are not those of its content"},
      {"DELETE FROM facts WHERE id = (SELECT MIN(id) FROM facts)", "its facts are not those of its content"},
      {"UPDATE cases SET text = '{'", "broken at byte"},
      {"UPDATE journal SET backward = '[{\"op\":\"remove\",\"path\":\"/none\"}]' WHERE number = "
       "(SELECT MAX(number) FROM journal)",
       "cannot be taken back"},
      {"UPDATE cases SET text = replace(text, '\"horizon\":10', '\"horizon\":99')", "cannot be shown"},
  };
  for (const auto& c : cases) {
    const std::string whole = folder_.file("whole");
    std::filesystem::copy_file(book(), whole, std::filesystem::copy_options::overwrite_existing);
    tamper(c.sql);
    EXPECT_THAT(faults(), testing::Contains(HasSubstr(c.named))) << c.sql;
    std::filesystem::copy_file(whole, book(), std::filesystem::copy_options::overwrite_existing);
  }
}

TEST_F(Care, ARescuedBookValuesTheSameAndLostFactsAreReadAgain) {
  const double value = open()->now()->evaluation->constant("value_per_share", 1).value();
  tamper(
      "UPDATE facts SET period_end = 'lost' WHERE document = (SELECT id FROM documents WHERE name = "
      "'annual-2025.xbrl')");
  ASSERT_TRUE((*Session::open(book(), "", resources_, testDesk()))->fault());
  const std::string saved = folder_.file("saved.zledger");
  const auto survey = rescueBook(book(), saved, resources_, testDesk());
  ASSERT_TRUE(survey) << survey.error().text();
  std::string said;
  for (const store::DamageFound& d : survey->damage) said += d.where + ": " + d.what + '\n';
  EXPECT_THAT(said, HasSubstr("document 'annual-2025.xbrl': some of its facts were lost; its content is whole"));
  auto session = Session::open(saved, "", resources_, testDesk());
  ASSERT_TRUE(session) << session.error().text();
  ASSERT_FALSE((*session)->fault()) << (*session)->fault()->text();
  EXPECT_DOUBLE_EQ((*session)->now()->evaluation->constant("value_per_share", 1).value(), value);
  EXPECT_EQ(rescueBook(book(), saved, resources_, testDesk()).error().kind, ErrorKind::Conflict)
      << "nothing is overwritten";
  EXPECT_TRUE(checkBook(saved, resources_, testDesk())->isWhole());
}

TEST_F(Care, AReadOnlyBookIsLookedAt) {
  auto session = Session::openIn(*store::Book::look(book()), "", resources_, testDesk());
  ASSERT_TRUE(session) << session.error().text();
  EXPECT_NE((*session)->now(), nullptr);
  EXPECT_FALSE((*session)->readOnly().empty());
  EXPECT_EQ((*session)->apply(setHorizon((*session)->now()->caseOf(), 5)).error().kind, ErrorKind::Unsupported);
  EXPECT_FALSE((*session)->undo());
  EXPECT_FALSE((*session)->keepVersion("x", ""));
}

}  // namespace
}  // namespace zl::services
