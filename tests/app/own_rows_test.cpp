// The analyst's own rows in the window: written, completed, refused at their place, tried, accepted;
// the second model; all by keys and mouse.

#include <gmock/gmock.h>

#include <QAction>
#include <QComboBox>
#include <QTreeView>

#include "app/editor/own_rows_panel.h"
#include "app/pages/outlook_page.h"
#include "core/quantity/number_text.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

class OwnRowsWindow : public WindowFixture {
 protected:
  void SetUp() override {
    WindowFixture::SetUp();
    press(window_.get(), Qt::Key_R, Qt::ControlModifier | Qt::ShiftModifier);
    ASSERT_EQ(QApplication::focusWidget(), editor());
  }
  ModelEditor* editor() { return find<ModelEditor>("ownRowsText"); }
  std::string message() { return find<QLabel>("ownRowsMessage")->text().toStdString(); }
  /// The check comes when the hand rests.
  void waitFor(const char* words) {
    EXPECT_TRUE(QTest::qWaitFor([&] { return message().find(words) != std::string::npos; }, kLongest)) << message();
  }
  void write(const QString& text) {
    for (const QString& line : text.split(QLatin1Char('\n'))) {
      QTest::keyClicks(editor(), line);
      QTest::keyClick(editor(), Qt::Key_Escape);  // no word is taken from the list
      QTest::keyClick(editor(), Qt::Key_Return);
    }
  }
  const std::vector<LedgerRow>& effects() { return find<LedgerView>("ownRowsEffect")->ledger().ledgerRows(); }
};

TEST_F(OwnRowsWindow, AreWrittenTriedAcceptedAndUndone) {
  const double before = base();
  EXPECT_THAT(message(), testing::HasSubstr("No own rows"));
  EXPECT_FALSE(find<QPushButton>("acceptOwnRows")->isEnabled());
  write(
      QStringLiteral("input new_hall \"New hall\" money constant\n  default 9000000\namend capex\n"
                     "  forecast revenue * capex_ratio + new_hall"));
  waitFor("not in use yet");
  EXPECT_EQ(base(), before) << "trying changes nothing";
  ASSERT_EQ(effects()[1].label, QStringLiteral("Base"));
  EXPECT_EQ(effects()[1].cells[0].figure.value(), before);
  const double tried = effects()[1].cells[1].figure.value();
  EXPECT_LT(tried, before);
  QTest::keyClicks(find<QLineEdit>("ownRowsReason"), QStringLiteral("a hall is planned"));
  press(editor(), Qt::Key_Return, Qt::ControlModifier);
  EXPECT_EQ(base(), tried);
  EXPECT_THAT(message(), testing::HasSubstr("In use"));
  EXPECT_EQ(bench().now().caseOf().ownRows.at("standard").said.reason, "a hall is planned");
  EXPECT_THAT(railSays().toStdString(), testing::HasSubstr("Base " + figureText(Figure::of(tried), Kind::Quote)));
  // Who made the rule is told where its figure is traced.
  bench().focus({bench().now().evaluation->model().find("capex"), bench().now().evaluation->layout().historyYears}, 1);
  EXPECT_THAT(find<QLabel>("traceSource")->text().toStdString(), testing::HasSubstr("a hall is planned"));
  find<QAction>("undo")->trigger();
  EXPECT_EQ(base(), before);
  EXPECT_EQ(editor()->toPlainText(), QString()) << "the field follows what is in use";
}

TEST_F(OwnRowsWindow, AFaultIsSaidAtItsPlaceAndNothingIsReplaced) {
  const double before = base();
  write(QStringLiteral("row orders \"Orders\" money flow\n  forecast nowhere * 2"));
  waitFor("line 2, column 12: row 'orders': there is no row 'nowhere'");
  EXPECT_FALSE(find<QPushButton>("acceptOwnRows")->isEnabled());
  ASSERT_EQ(editor()->extraSelections().size(), 1);
  EXPECT_EQ(editor()->extraSelections()[0].cursor.selectedText(), QStringLiteral("nowhere"));
  press(editor(), Qt::Key_Return, Qt::ControlModifier);
  EXPECT_EQ(base(), before);
  EXPECT_EQ(editor()->textCursor().blockNumber(), 1) << "the cursor goes where the fault is";
  // What is being written stays while other work goes on, and can be let go of.
  window_->activateWindow();
  ASSERT_TRUE(QTest::qWaitForWindowActive(window_.get()));
  go(Qt::Key_6);
  bench().apply(services::setHorizon(bench().settled().caseOf(), 9));
  press(window_.get(), Qt::Key_R, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_THAT(editor()->toPlainText().toStdString(), testing::HasSubstr("nowhere"));
  QTest::mouseClick(find<QPushButton>("letGoOwnRows"), Qt::LeftButton);
  EXPECT_EQ(editor()->toPlainText(), QString());
  EXPECT_TRUE(editor()->extraSelections().isEmpty());
}

TEST_F(OwnRowsWindow, WordsAreCompletedByKey) {
  QTest::keyClicks(editor(), QStringLiteral("amend net_inc"));
  QTreeView* list = nullptr;  // a window of its own
  for (QWidget* w : QApplication::topLevelWidgets()) {
    if (w->objectName() == QLatin1String("wordsThatFit")) list = qobject_cast<QTreeView*>(w);
  }
  ASSERT_NE(list, nullptr);
  ASSERT_TRUE(list->isVisible());
  EXPECT_EQ(list->model()->index(0, 0).data().toString(), QStringLiteral("net_income"));
  EXPECT_THAT(list->model()->index(0, 1).data().toString().toStdString(), testing::HasSubstr("Net income"));
  QTest::keyClick(list, Qt::Key_Down);
  QTest::keyClick(list, Qt::Key_Return);
  EXPECT_EQ(editor()->toPlainText(), QStringLiteral("amend net_income_common"));
  QTest::keyClick(editor(), Qt::Key_Return);
  QTest::keyClicks(editor(), QStringLiteral("  "));
  QTest::keyClick(editor(), Qt::Key_Space, Qt::ControlModifier);
  EXPECT_TRUE(list->isVisible()) << "asked for, words are offered before a letter is typed";
  QTest::keyClick(list, Qt::Key_Escape);
}

TEST_F(OwnRowsWindow, AReadyBuildIsPutInAndBecomesDrivers) {
  auto* builds = find<QComboBox>("builds");
  builds->setCurrentIndex(builds->findText(QStringLiteral("Revenue by Segments")));
  QTest::mouseClick(find<QPushButton>("insertBuild"), Qt::LeftButton);
  waitFor("not in use yet");
  press(editor(), Qt::Key_Return, Qt::ControlModifier);
  EXPECT_THAT(message(), testing::HasSubstr("In use"));
  EXPECT_LT(builds->findText(QStringLiteral("Revenue by Segments")), 0) << "what is built is not offered again";
  find<QComboBox>("statementBox")->setCurrentIndex(0);
  EXPECT_NE(window_->findChild<OutlookPage*>()->chosen(), QStringLiteral("revenue_growth")) << "it is computed now";
  place(find<LedgerView>("drivers"), QStringLiteral("growth_machines"), 0);
  auto* board = find<PathBoard>("pathBoard");
  board->setFocus();
  const double before = base();
  press(board, Qt::Key_Up);
  EXPECT_GT(base(), before);
  EXPECT_TRUE(bench().now().caseOf().base().drivers.count("growth_machines"));
}

TEST_F(OwnRowsWindow, TheQuickOutlookIsSwitchedToAndBack) {
  const double full = base();
  auto* box = find<QComboBox>("modelBox");
  find<QComboBox>("statementBox")->setCurrentIndex(0);
  box->setFocus();
  press(box, Qt::Key_Home);
  press(box, Qt::Key_Down);
  EXPECT_EQ(bench().now().caseOf().model, "quick");
  EXPECT_NE(base(), full);
  place(find<LedgerView>("drivers"), QStringLiteral("operating_margin"), 0);
  EXPECT_EQ(window_->findChild<OutlookPage*>()->chosen(), QStringLiteral("operating_margin"));
  for (const Qt::Key page : kPageKeys) go(page);  // every page shows what the model has, and no more
  go(Qt::Key_4);
  auto* statements = find<QComboBox>("statementBox");
  statements->setCurrentIndex(statements->findText(QStringLiteral("Free cash flow")));
  EXPECT_EQ(find<LedgerView>("projected")->ledger().ledgerRows().size(), 4u) << "tax, NOPAT, reinvestment, flow";
  box->setFocus();
  press(box, Qt::Key_Home);
  EXPECT_EQ(base(), full);
}

}  // namespace
}  // namespace zl::app
