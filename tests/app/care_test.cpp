// What the window does when things go wrong: two programs on one book, a company that cannot be
// shown, copies, drafts, exceptions.

#include <gmock/gmock.h>

#include <sqlite3.h>

#include <QEvent>
#include <fstream>
#include <stdexcept>

#include "app/editor/model_editor.h"
#include "app/frame/application.h"
#include "app/frame/unshown_panel.h"
#include "store/copies.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

using testing::HasSubstr;

class WindowCare : public WindowFixture {
 protected:
  [[nodiscard]] services::CaseEdit horizon(int years) {
    return services::setHorizon(bench().settled().caseOf(), years);
  }
  void reopen() {
    window_.reset();
    start();
    ASSERT_TRUE(window_->openBook(path()));
  }
  std::string said() { return status().toStdString(); }
};

TEST_F(WindowCare, WhatAnotherProgramStoresIsShownAndNothingOfItIsLost) {
  auto other = open();
  ASSERT_TRUE(other->apply(services::setHorizon(other->now()->caseOf(), 7)));
  bench().lookForOthers();
  EXPECT_EQ(bench().settled().caseOf().horizon, 7);
  EXPECT_THAT(said(), HasSubstr("Another program has changed this book"));
  // An edit made upon what stood before is refused with a word, and theirs is shown.
  const services::CaseEdit mine = horizon(5);
  ASSERT_TRUE(other->apply(services::setHorizon(other->now()->caseOf(), 9)));
  EXPECT_FALSE(bench().apply(mine));
  EXPECT_THAT(said(), HasSubstr("somebody else changed this company"));
  EXPECT_EQ(bench().settled().caseOf().horizon, 9);
  EXPECT_TRUE(bench().apply(horizon(5)));
}

TEST_F(WindowCare, AnEditWaitsForAnotherProgramWithoutHoldingUpAFrame) {
  auto holder = store::Book::open(book());
  auto change = holder->change();
  ASSERT_TRUE(change);
  EXPECT_FALSE(bench().apply(horizon(6)));
  EXPECT_THAT(said(), HasSubstr("Waiting for another program"));
  EXPECT_FALSE(bench().apply(horizon(8))) << "one waits at a time";
  change = tl::unexpected(Error{});
  ASSERT_TRUE(QTest::qWaitFor([&] { return bench().settled().caseOf().horizon == 6; }, kLongest));
  EXPECT_EQ(open()->now()->caseOf().horizon, 6);
}

TEST_F(WindowCare, WhatWaitsIsNotLeftBehindWithoutAWordAndGoesIntoNoOtherBook) {
  const std::string next = folder_.file("next.zledger");
  std::filesystem::copy_file(book(), next);
  ASSERT_TRUE(
      (*services::Session::open(next, "", resources_, test::testDesk()))->keepDraft({"note", "of the next book"}));
  auto holder = store::Book::open(book());
  auto change = holder->change();
  ASSERT_TRUE(change);
  bench().keepDraft(QStringLiteral("note"), QStringLiteral("half a thought"));
  EXPECT_FALSE(bench().apply(horizon(6)));
  EXPECT_FALSE(window_->openBook(text(next)));
  EXPECT_THAT(said(), HasSubstr("this edit waits for it: "));
  confirms_ = false;
  EXPECT_FALSE(window_->close()) << "an edit that waits is asked about";
  EXPECT_THAT(asked_.toStdString(), HasSubstr("this edit waits for it: "));
  change = tl::unexpected(Error{});
  ASSERT_TRUE(QTest::qWaitFor([&] { return bench().settled().caseOf().horizon == 6; }, kLongest));

  auto again = holder->change();
  ASSERT_TRUE(again);
  bench().keepDraft(QStringLiteral("note"), QStringLiteral("another"));
  ASSERT_TRUE(window_->openBook(text(next)));
  EXPECT_THAT(said(), HasSubstr("Not kept in the book before: another program is still writing"));
  again = tl::unexpected(Error{});
  bench().flushDrafts();
  auto there = services::Session::open(next, "", resources_, test::testDesk());
  ASSERT_EQ((*there)->drafts()->size(), 1u) << "a draft is of its own book";
  EXPECT_EQ((*there)->drafts()->front().text, "of the next book");
  EXPECT_NE((*there)->now()->caseOf().horizon, 6);
}

TEST_F(WindowCare, ACompanyThatCannotBeShownSaysWhyAndIsSteppedBack) {
  {
    auto stored = store::Book::open(book());
    store::Edit edit;
    edit.entry = {
        0, "vessingholt", "2026-01-01", "x", "Import R&D.json", "[]", "[]", {}, store::JournalEntry::State::Done};
    store::Incoming in;
    in.company = "vessingholt";
    in.document = {0, "R&D.json", "company record", "d", std::nullopt, "2026-01-01"};
    in.content = "{}";
    edit.incoming.push_back(in);
    ASSERT_TRUE(stored->append(edit, *stored->head("vessingholt")));
  }
  EXPECT_FALSE(window_->openBook(path()));
  auto* panel = find<UnshownPanel>("unshownPanel");
  ASSERT_TRUE(panel->isVisible());
  EXPECT_THAT(find<QLabel>("whyUnshown")->text().toStdString(), HasSubstr("R&D.json"));
  auto* back = find<QPushButton>("stepBackUnshown");
  EXPECT_EQ(back->text(), QStringLiteral("&Take back: Import R&&D.json"));
  EXPECT_FALSE(window_->findChild<QAction*>(QStringLiteral("importAction"))->isEnabled());
  QTest::mouseClick(back, Qt::LeftButton);
  EXPECT_FALSE(panel->isVisible());
  EXPECT_TRUE(bench().isOpen());
  EXPECT_THAT(said(), HasSubstr("Undone: Import R&D.json"));
}

TEST_F(WindowCare, ADamagedBookIsLookedThroughAndWhatIsWholeIsSaved) {
  ASSERT_TRUE(QTest::qWaitFor([&] { return !store::copiesOf(book()).empty(); }, kLongest));
  window_.reset();
  {
    sqlite3* db = nullptr;
    ASSERT_EQ(sqlite3_open(book().c_str(), &db), SQLITE_OK);
    EXPECT_EQ(sqlite3_exec(db, "UPDATE facts SET period_end = 'lost' WHERE id = 7", nullptr, nullptr, nullptr),
              SQLITE_OK);
    sqlite3_close(db);
  }
  start();
  EXPECT_FALSE(window_->openBook(path()));
  auto* why = find<QLabel>("whyUnshown");
  EXPECT_THAT(why->text().toStdString(), HasSubstr("facts, row 7, 'period_end' holds 'lost'"));
  ASSERT_TRUE(QTest::qWaitFor(
      [&] { return why->text().contains(QLatin1String("its content is whole and gives them again")); }, kLongest))
      << why->text().toStdString();
  EXPECT_TRUE(find<QPushButton>("openNewestCopy")->isVisible());
  chosenBook_ = text(folder_.file("saved.zledger"));
  QTest::mouseClick(find<QPushButton>("rescueBook"), Qt::LeftButton);
  ASSERT_TRUE(bench().isOpen()) << said();
  EXPECT_EQ(bench().path(), chosenBook_);
}

TEST_F(WindowCare, DraftsSurviveAKillAndAnotherPage) {
  press(window_.get(), Qt::Key_R, Qt::ControlModifier | Qt::ShiftModifier);
  auto* editor = find<ModelEditor>("ownRowsText");
  editor->setFocus();
  QTest::keyClicks(editor, QStringLiteral("driver half"));
  go(Qt::Key_9);
  find<QLineEdit>("acknowledgeReason")->setFocus();
  QTest::keyClicks(find<QLineEdit>("acknowledgeReason"), QStringLiteral("because of"));
  go(Qt::Key_3);
  go(Qt::Key_9);
  EXPECT_EQ(find<QLineEdit>("acknowledgeReason")->text(), QStringLiteral("because of"));
  ASSERT_TRUE(QTest::qWaitFor([&] { return open()->drafts()->size() == 2; }, kLongest))
      << "kept soon after the last key";
  // The program is killed: nothing of it gets to close a book. What the file holds is what counts.
  std::filesystem::copy_file(book(), folder_.file("killed.zledger"));
  std::filesystem::copy_file(book() + "-wal", folder_.file("killed.zledger-wal"));
  window_.reset();
  start();
  ASSERT_TRUE(window_->openBook(text(folder_.file("killed.zledger"))));
  EXPECT_EQ(find<QLineEdit>("acknowledgeReason")->text(), QStringLiteral("because of"));
  press(window_.get(), Qt::Key_R, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(find<ModelEditor>("ownRowsText")->toPlainText(), QStringLiteral("driver half"));
  QTest::mouseClick(find<QPushButton>("letGoOwnRows"), Qt::LeftButton);
  bench().flushDrafts();
  auto session = services::Session::open(folder_.file("killed.zledger"), "", resources_, test::testDesk());
  EXPECT_EQ((*session)->drafts()->size(), 1u) << "what was let go is no draft any more";
}

TEST_F(WindowCare, AReasonHalfTypedComesBackWithItsDriver) {
  go(Qt::Key_4);
  bench().wantDriver("revenue_growth");
  auto* reason = find<QLineEdit>("reason");
  reason->setFocus();
  reason->selectAll();
  QTest::keyClicks(reason, QStringLiteral("A new reason"));
  bench().flushDrafts();
  ASSERT_EQ(open()->drafts()->size(), 1u);
  // The window goes without the field's leave: the text was in the book already.
  std::filesystem::copy_file(book(), folder_.file("k.zledger"));
  if (std::filesystem::exists(book() + "-wal"))
    std::filesystem::copy_file(book() + "-wal", folder_.file("k.zledger-wal"));
  window_.reset();
  start();
  ASSERT_TRUE(window_->openBook(text(folder_.file("k.zledger"))));
  go(Qt::Key_4);
  bench().wantDriver("operating_expense_ratio");
  EXPECT_NE(find<QLineEdit>("reason")->text(), QStringLiteral("A new reason"));
  bench().wantDriver("revenue_growth");
  EXPECT_EQ(find<QLineEdit>("reason")->text(), QStringLiteral("A new reason"));
  find<QLineEdit>("reason")->setFocus();
  press(find<QLineEdit>("reason"), Qt::Key_Return);
  EXPECT_EQ(bench().settled().caseOf().base().drivers.at("revenue_growth").said.reason, "A new reason");
  bench().flushDrafts();
  EXPECT_TRUE(
      (*services::Session::open(folder_.file("k.zledger"), "", resources_, test::testDesk()))->drafts()->empty());
}

TEST_F(WindowCare, ACopyIsOpenedAndPutBack) {
  ASSERT_TRUE(QTest::qWaitFor([&] { return !store::copiesOf(book()).empty(); }, kLongest))
      << "made when the book was opened";
  ASSERT_TRUE(bench().apply(horizon(6)));
  const std::vector<store::Copy> copies = store::copiesOf(book());
  ASSERT_EQ(copies.size(), 1u);
  EXPECT_EQ(copies[0].name, "2026-05-01");
  chosenBook_ = text(copies[0].path);
  window_->findChild<QAction*>(QStringLiteral("openBookAction"))->trigger();
  EXPECT_THAT(find<QLabel>("readOnlyNotice")->text().toStdString(), HasSubstr("This is a copy of book.zledger"));
  EXPECT_NE(bench().settled().caseOf().horizon, 6);
  confirms_ = false;
  QTest::mouseClick(find<QPushButton>("putCopyBack"), Qt::LeftButton);
  EXPECT_EQ(bench().path(), chosenBook_) << "not without a yes";
  confirms_ = true;
  QTest::mouseClick(find<QPushButton>("putCopyBack"), Qt::LeftButton);
  EXPECT_EQ(bench().path().toStdString(), std::filesystem::absolute(book()).string());
  EXPECT_NE(bench().settled().caseOf().horizon, 6);
  EXPECT_FALSE(find<QLabel>("readOnlyNotice")->isVisible());
  bool kept = false;
  for (const store::Copy& copy : store::copiesOf(book())) {
    auto session = services::Session::openIn(*store::Book::look(copy.path), "", resources_, test::testDesk());
    kept = kept || (*session)->now()->caseOf().horizon == 6;
  }
  EXPECT_TRUE(kept) << "what stood there is among the copies";
}

TEST_F(WindowCare, AnOldExportOverNewerWorkIsAskedAbout) {
  chosenCase_ = text(folder_.file("case.json"));
  ASSERT_TRUE(bench().exportCase(chosenCase_));
  ASSERT_TRUE(bench().apply(horizon(6)));
  confirms_ = false;
  const auto apply = [&] {
    for (QAction* action : window_->findChildren<QAction*>()) {
      if (action->text() == QStringLiteral("&Apply case…")) action->trigger();
    }
  };
  apply();
  EXPECT_THAT(asked_.toStdString(), HasSubstr("1 edit was made since this file was exported"));
  EXPECT_EQ(bench().settled().caseOf().horizon, 6);
  confirms_ = true;
  apply();
  EXPECT_NE(bench().settled().caseOf().horizon, 6);
}

TEST_F(WindowCare, AnExceptionInAnEventIsToldAndEndsNothing) {
  class Thrower : public QObject {
   public:
    bool event(QEvent* e) override {
      if (e->type() == QEvent::User) throw std::runtime_error("a bad day");
      if (e->type() == QEvent::MaxUser) throw std::bad_alloc();
      return QObject::event(e);
    }
  } thrower;
  auto* application = qobject_cast<Application*>(qApp);
  ASSERT_NE(application, nullptr) << "the tests run in the application that ships";
  application->setFaultHandler([&](const QString& fault) { bench().say(fault, true); });
  QEvent user(QEvent::User);
  QCoreApplication::sendEvent(&thrower, &user);
  EXPECT_THAT(said(), HasSubstr("a bad day"));
  QEvent memory(QEvent::MaxUser);
  QCoreApplication::sendEvent(&thrower, &memory);
  EXPECT_THAT(said(), HasSubstr("not enough memory"));
  application->setFaultHandler({});
  EXPECT_TRUE(bench().apply(horizon(6))) << "work goes on";
}

}  // namespace
}  // namespace zl::app
