// The frame around the pages: rail, route, trace, sizes, papers, settings.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <QApplication>
#include <QComboBox>
#include <QDropEvent>
#include <QImage>
#include <QListWidget>
#include <QMenu>
#include <QMimeData>
#include <QSettings>
#include <QStatusBar>
#include <QTest>
#include <fstream>

#include "app/frame/value_rail.h"
#include "tests/support/source_folder.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

class Frame : public WindowFixture {};

TEST_F(Frame, FitsTheSizeItIsDesignedForOnEveryPage) {
  for (Qt::Key key : kPageKeys) {
    go(key);
    openTrace();
    QCoreApplication::processEvents();
    EXPECT_LE(window_->minimumSizeHint().width(), 1280) << key;
    EXPECT_LE(window_->minimumSizeHint().height(), 800) << key;
    EXPECT_EQ(window_->size(), QSize(1280, 800)) << "a page must not push the window larger, page " << key - Qt::Key_0;
  }
}

TEST_F(Frame, ALongCompanyNameDoesNotBreakIt) {
  std::string record = test::demoFile("company.json");
  const std::string name = "Vessingholt N.V.";
  record.replace(record.find(name), name.size(), std::string(300, 'W'));
  std::ofstream(folder_.file("company.json")) << record;
  chosenFiles_ = {text(folder_.file("company.json"))};
  press(window_.get(), Qt::Key_I, Qt::ControlModifier);
  waitForReading();
  QTest::mouseClick(find<QPushButton>("acceptImport"), Qt::LeftButton);
  for (Qt::Key key : kPageKeys) {
    go(key);
    QCoreApplication::processEvents();
    EXPECT_EQ(window_->size(), QSize(1280, 800)) << key - Qt::Key_0;
  }
}

TEST_F(Frame, BothPapersPaintAndTellTheScenariosApart) {
  for (ThemeChoice choice : {ThemeChoice::Dark, ThemeChoice::Light}) {
    applyTheme(*qApp, choice);
    const Theme& t = theme();
    EXPECT_EQ(t.dark, choice == ThemeChoice::Dark);
    EXPECT_EQ(t.paper.lightness() < 128, t.dark);
    // Text keeps a contrast of at least 4.5 to 1 on its ground (WCAG 2.1, 1.4.3).
    for (const QColor& ink : {t.ink, t.quiet, t.assumed, t.price, t.worst, t.base, t.best}) {
      EXPECT_GE(contrast(ink, t.paper), 4.5) << ink.name().toStdString() << (t.dark ? " dark" : " light");
    }
    const QImage picture = window_->grab().toImage();
    EXPECT_GT(coloursIn(picture), 20) << "something is drawn";
  }
}

TEST_F(Frame, TheRailFollowsGhostsAndClicks) {
  auto* rail = find<QWidget>("valueRail");
  EXPECT_THAT(railSays().toStdString(), testing::AllOf(testing::HasSubstr("Worst "), testing::HasSubstr("price 742.0"),
                                                       testing::HasSubstr("buy below ")));
  const services::CaseEdit edit =
      services::setInput(bench().settled().caseOf(), bench().now().evaluation->model(), "base", "exit_multiple", 9, {});
  bench().preview(edit);
  EXPECT_TRUE(bench().isPreviewing());
  const QImage during = rail->grab().toImage();
  bench().endPreview();
  EXPECT_FALSE(rail->grab().toImage() == during) << "ghost and change are drawn while something is edited";
  // A click on the price's stem leads to the verdict; on a scenario's mark to the cash value.
  go(Qt::Key_3);
  bool reached = false;
  for (int x = 100; x < rail->width() && !reached; x += 4) {
    QTest::mouseClick(rail, Qt::LeftButton, {}, QPoint(x, rail->height() / 2));
    reached = find<QWidget>("CashvaluePage")->isVisible();
  }
  EXPECT_TRUE(reached);
  EXPECT_THAT(find<QLabel>("traceTitle")->text().toStdString(), testing::HasSubstr("Value per share"));
}

TEST_F(Frame, TheRouteShowsWhatNeedsALookByShapeAndWord) {
  auto* history = find<QAbstractButton>("stop3");
  EXPECT_THAT(history->accessibleDescription().toStdString(), testing::HasSubstr("needs a look, 4 findings"));
  EXPECT_EQ(find<QAbstractButton>("stop2")->accessibleDescription(), QStringLiteral("settled"));
  auto* capital = find<QAbstractButton>("stop5");
  QTest::mouseClick(capital, Qt::LeftButton);
  EXPECT_TRUE(capital->isChecked());
  EXPECT_TRUE(find<QWidget>("CapitalPage")->isVisible());
}

TEST_F(Frame, TheTraceWalksAndFollowsEdits) {
  press(window_.get(), Qt::Key_F6);
  const model::Model& m = bench().now().evaluation->model();
  bench().focus({m.find("wacc"), 12}, 1);
  const QString before = find<QLabel>("traceFigure")->text();
  auto* inputs = find<QListWidget>("traceInputs");
  ASSERT_EQ(inputs->count(), 3) << "the choice of a hurdle, the hurdle, the weighted average";
  bench().apply(services::setInput(bench().settled().caseOf(), m, "base", "marginal_tax", 0.35,
                                   bench().saidNow(QStringLiteral("law"))));
  const QString opened = find<QLabel>("traceFigure")->text();
  EXPECT_NE(opened, before) << "the figure shown is the one in force";
  press(window_.get(), Qt::Key_F6);
  bench().apply(services::setInput(bench().settled().caseOf(), m, "base", "marginal_tax", 0.3, {}));
  press(window_.get(), Qt::Key_F6);
  EXPECT_NE(find<QLabel>("traceFigure")->text(), opened) << "what changed while it was folded away is in it";
  bench().apply(services::setInput(bench().settled().caseOf(), m, "base", "marginal_tax", 0.35,
                                   bench().saidNow(QStringLiteral("law"))));
  bench().focus({m.find("marginal_tax"), 0}, 0);
  EXPECT_THAT(find<QLabel>("traceSource")->text().toStdString(),
              testing::HasSubstr("assumed in Base by tester on 2026-05-01: law"));
  bench().focus({m.find("minimum_cash_ratio"), 13}, 1);
  EXPECT_EQ(find<QListWidget>("traceDependents")->count(), 1);
  press(find<QListWidget>("traceDependents"), Qt::Key_Return);
  EXPECT_THAT(find<QLabel>("traceTitle")->text().toStdString(),
              testing::HasSubstr("Revolver drawn in the forecast 2027E"));
}

TEST_F(Frame, TheTraceIsFoldedAwayUntilItIsAskedForOnEachPage) {
  auto* trace = find<QWidget>("trace");
  auto* edge = find<QAbstractButton>("traceEdge");
  go(Qt::Key_6);
  EXPECT_FALSE(trace->isVisible());
  ASSERT_TRUE(edge->isVisible());
  QCoreApplication::processEvents();
  const int before = find<QWidget>("CashvaluePage")->width();
  place(find<LedgerView>("walk"), QStringLiteral("enterprise_value"), 1);
  QTest::mouseClick(edge, Qt::LeftButton);
  EXPECT_THAT(find<QLabel>("traceTitle")->text().toStdString(), testing::StartsWith("Enterprise value"))
      << "what was looked at";
  EXPECT_TRUE(trace->isVisible() && !edge->isVisible());
  QCoreApplication::processEvents();  // the page makes room
  EXPECT_LT(find<QWidget>("CashvaluePage")->width(), before) << "it stands beside the page";
  go(Qt::Key_3);
  EXPECT_FALSE(trace->isVisible()) << "each page has its own";
  press(window_.get(), Qt::Key_F6);
  EXPECT_TRUE(trace->isVisible() && trace->isAncestorOf(QApplication::focusWidget()));
  press(window_.get(), Qt::Key_T, Qt::ControlModifier);
  EXPECT_FALSE(trace->isVisible()) << "it folds away";
  ASSERT_NE(QApplication::focusWidget(), nullptr);
  EXPECT_TRUE(find<QWidget>("HistoryPage")->isAncestorOf(QApplication::focusWidget())) << "keys go on to the page";
  window_->close();
  start();
  ASSERT_TRUE(window_->openBook(path()));
  go(Qt::Key_6);
  EXPECT_TRUE(find<QWidget>("trace")->isVisible()) << "kept for the next time";
}

TEST_F(Frame, SizesAndRecentBooksAreKept) {
  window_->resize(1400, 900);
  window_->close();
  EXPECT_EQ(QSettings().value(QStringLiteral("recent")).toStringList().value(0), path());
  start(false);
  EXPECT_EQ(window_->size(), QSize(1400, 900));
  bool offered = false;
  for (QPushButton* b : window_->findChildren<QPushButton*>()) offered = offered || b->toolTip() == path();
  EXPECT_TRUE(offered) << "the last book is offered at the start";
}

TEST_F(Frame, FilesCanBeDroppedOnFilings) {
  go(Qt::Key_2);
  auto* page = find<QWidget>("FilingsPage");
  std::ofstream(folder_.file("older.csv"))
      << "concept,label,start,end,unit,decimals,value\nrevenue,,2013-01-01,2013-12-31,EUR,-3,398000000\n";
  QMimeData files;
  files.setUrls({QUrl::fromLocalFile(text(folder_.file("older.csv")))});
  QDragEnterEvent enter(QPoint(50, 200), Qt::CopyAction, &files, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(page, &enter);
  EXPECT_TRUE(enter.isAccepted());
  QDropEvent drop(QPointF(50, 200), Qt::CopyAction, &files, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(page, &drop);
  waitForReading();
  EXPECT_TRUE(find<QPushButton>("acceptImport")->isVisible());
  QTest::mouseClick(find<QPushButton>("cancelImport"), Qt::LeftButton);
  EXPECT_FALSE(find<QPushButton>("acceptImport")->isVisible());
  EXPECT_EQ(bench().now().years().size(), 12u) << "left out means left out";
}

TEST_F(Frame, FindReachesPagesLinesAndDrivers) {
  auto* box = find<QLineEdit>("find");
  model::Cell focused;
  QObject::connect(&bench(), &Workbench::focused, window_.get(), [&](const model::Cell& cell, int) { focused = cell; });
  const auto look = [&](const char* words) {
    box->setFocus();
    box->setText(QString::fromLatin1(words));
    press(box, Qt::Key_Return);
  };
  look("Peers");
  EXPECT_TRUE(find<QWidget>("PeersPage")->isVisible());
  look("Return on invested capital");
  EXPECT_EQ(find<QLabel>("traceTitle")->text(), QStringLiteral("Return on invested capital 2025"));
  look("Beta");
  EXPECT_TRUE(find<QWidget>("OutlookPage")->isVisible());
  EXPECT_THAT(find<QWidget>("pathBoard")->accessibleName().toStdString(), testing::HasSubstr("Beta"));
  // Two rows are called so, and each is reached.
  look("Acquisitions, among Uses of cash");
  EXPECT_EQ(bench().now().evaluation->model()[focused.row].name, "use_acquisitions");
  look("Acquisitions, among Cash flow statement");
  EXPECT_EQ(bench().now().evaluation->model()[focused.row].name, "acquisitions");
  look("no such thing");
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("Nothing here is called"));
}

TEST_F(Frame, UndoAndRedoNameWhatTheyDo) {
  auto* undo = find<QAction>("undo");
  auto* redo = find<QAction>("redo");
  EXPECT_THAT(undo->text().toStdString(), testing::HasSubstr("Apply case.json"));
  EXPECT_FALSE(redo->isEnabled());
  undo->trigger();
  EXPECT_THAT(redo->text().toStdString(), testing::HasSubstr("Apply case.json"));
  for (int i = 0; i < 2; ++i) undo->trigger();  // what the book opens with, and the peer of the book
  EXPECT_FALSE(undo->isEnabled()) << "the import that made the company stays";
  for (Qt::Key key : kPageKeys) go(key);  // an almost empty case shows on every page
  for (int i = 0; i < 3; ++i) redo->trigger();
  EXPECT_FALSE(redo->isEnabled());
}

TEST_F(Frame, ABookWithOneReportAndNothingElseShowsReasonsEverywhere) {
  chosenFiles_ = {text(test::sourceFolder() + "/demo/filings/annual-2014.csv")};
  chosenBook_ = text(folder_.file("small.zledger"));
  start(false);
  QTest::mouseClick(find<QPushButton>("startCompany"), Qt::LeftButton);
  waitForReading();
  QTest::mouseClick(find<QPushButton>("first.acceptImport"), Qt::LeftButton);
  ASSERT_TRUE(bench().isOpen()) << status().toStdString();
  for (Qt::Key key : kPageKeys) {
    go(key);
    QCoreApplication::processEvents();
    EXPECT_GT(coloursIn(window_->grab().toImage()), 8);
  }
  EXPECT_THAT(find<QLabel>("verdictSentence")->text().toStdString(),
              testing::HasSubstr("No base value against a price yet"));
}

}  // namespace
}  // namespace zl::app
