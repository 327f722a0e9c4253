// The real window, driven by mouse and keys as a person would: found by object name, no sleeping.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <QApplication>
#include <QCheckBox>
#include <QClipboard>
#include <QComboBox>
#include <QDateEdit>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QSignalSpy>
#include <QSpinBox>
#include <QStatusBar>
#include <QTest>
#include <QTextBrowser>
#include <QToolButton>
#include <algorithm>
#include <filesystem>
#include <fstream>

#include "app/frame/glossary.h"
#include "tests/support/source_folder.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

class Window : public WindowFixture {};

TEST_F(Window, TheWholeJobFromImportToReopening) {
  // Import a file: previewed first, stored when accepted.
  const double before = base();
  std::ofstream(folder_.file("older.csv"))
      << "concept,label,start,end,unit,decimals,value\nrevenue,,2013-01-01,2013-12-31,EUR,-3,398000000\n";
  chosenFiles_ = {text(folder_.file("older.csv"))};
  press(window_.get(), Qt::Key_I, Qt::ControlModifier);
  waitForReading();
  ASSERT_EQ(find<LedgerView>("importPreview")->ledger().rowCount(), 1);
  EXPECT_EQ(bench().now().years().size(), 12u) << "a preview stores nothing";
  QTest::mouseClick(find<QPushButton>("acceptImport"), Qt::LeftButton);
  EXPECT_EQ(bench().now().years().size(), 13u);

  // Drag a point of the base path: the rail moves while the mouse is down.
  go(Qt::Key_4);
  auto* board = find<PathBoard>("pathBoard");
  ASSERT_TRUE(QTest::qWaitFor([&] { return board->width() > 200 && board->pointOf(4).x() > 0; }, kLongest));
  const QString railBefore = railSays();
  const QPoint from = board->pointOf(4).toPoint();
  QTest::mousePress(board, Qt::LeftButton, {}, from);
  QTest::mouseMove(board, from - QPoint(0, 20));
  EXPECT_TRUE(bench().isPreviewing());
  EXPECT_NE(railSays(), railBefore);
  const double during = base();
  EXPECT_GT(during, before);
  EXPECT_DOUBLE_EQ(bench().settled().evaluation->constant("value_per_share", 1).value(), before)
      << "nothing stored yet";
  QTest::mouseRelease(board, Qt::LeftButton, {}, from - QPoint(0, 20));
  EXPECT_FALSE(bench().isPreviewing());
  EXPECT_DOUBLE_EQ(base(), during);

  // Type a year's figure.
  auto* paths = find<LedgerView>("paths");
  paths->setFocus();
  paths->setCurrentIndex(paths->ledger().index(1, 1));
  typeOver(paths, QStringLiteral("4.5"));
  EXPECT_DOUBLE_EQ(bench().now().evaluation->figure("revenue_growth", 13, 1).value(), 0.045);
  const double typed = base();
  EXPECT_GT(typed, during);

  // Follow the value down to a filed fact with Enter, and out again with Backspace.
  auto* inputs = find<QListWidget>("traceInputs");
  bench().focus({bench().now().evaluation->model().find("receivables"), 12}, 1);
  EXPECT_THAT(find<QLabel>("traceSource")->text().toStdString(), testing::HasSubstr("annual-2025.xbrl, line"));
  bench().focus({bench().now().evaluation->model().find("revenue"), 13}, 1);
  inputs->setFocus();
  ASSERT_GT(inputs->count(), 1);
  inputs->setCurrentRow(0);
  press(inputs, Qt::Key_Return);
  EXPECT_EQ(find<QLabel>("traceTitle")->text(), QStringLiteral("Revenue 2025"));
  EXPECT_THAT(find<QLabel>("traceSource")->text().toStdString(),
              testing::HasSubstr("ifrs-full:Revenue = 723703000 EUR"));
  press(inputs, Qt::Key_Backspace);
  EXPECT_THAT(find<QLabel>("traceTitle")->text().toStdString(), testing::HasSubstr("Revenue 2026E"));

  // Undo both edits, reopen, redo one.
  press(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(base(), during);
  press(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(base(), before);
  window_->close();
  start();
  chosenBook_ = path();
  press(window_.get(), Qt::Key_O, Qt::ControlModifier);
  ASSERT_TRUE(bench().isOpen());
  EXPECT_DOUBLE_EQ(base(), before);
  EXPECT_EQ(bench().now().years().size(), 13u);
  find<QAction>("redo")->trigger();
  EXPECT_DOUBLE_EQ(base(), during);
}

TEST_F(Window, EveryPageOpensByKeyAndShowsItsGrids) {
  const std::pair<Qt::Key, const char*> kPages[] = {
      {Qt::Key_2, "documents"}, {Qt::Key_3, "history"}, {Qt::Key_4, "drivers"},         {Qt::Key_5, "rateParts"},
      {Qt::Key_6, "walk"},      {Qt::Key_7, "peers"},   {Qt::Key_9, "verdictScenarios"}};
  for (const auto& [key, grid] : kPages) {
    go(key);
    auto* view = find<LedgerView>(grid);
    EXPECT_TRUE(view->isVisible()) << grid;
    EXPECT_GT(view->ledger().rowCount(), 2) << grid;
  }
  // What a screen reader is told.
  for (QWidget* w : window_->findChildren<QWidget*>()) {
    if (qobject_cast<LedgerView*>(w) == nullptr) continue;
    EXPECT_FALSE(w->accessibleName().isEmpty()) << w->objectName().toStdString();
  }
}

TEST_F(Window, TypedNonsenseIsRefusedAndExplained) {
  go(Qt::Key_4);
  auto* paths = find<LedgerView>("paths");
  const double before = base();
  for (const char* bad : {"abc", "-99", "1.2.3"}) {
    paths->setFocus();
    paths->setCurrentIndex(paths->ledger().index(1, 3));
    typeOver(paths, QString::fromLatin1(bad));
    EXPECT_TRUE(status().startsWith(QStringLiteral("■"))) << bad << ": " << status().toStdString();
    EXPECT_DOUBLE_EQ(base(), before) << bad;
  }
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("'1.2.3' is not a number"));
}

TEST_F(Window, GridsCopyPasteAndSum) {
  go(Qt::Key_4);
  auto* paths = find<LedgerView>("paths");
  paths->setFocus();
  paths->setCurrentIndex(paths->ledger().index(1, 2));
  QApplication::clipboard()->setText(QStringLiteral("3\t4%\t5,5\n"));
  press(paths, Qt::Key_V, Qt::ControlModifier);
  const Evaluation& e = *bench().now().evaluation;
  EXPECT_DOUBLE_EQ(e.figure("revenue_growth", 13, 1).value(), 0.03);
  EXPECT_DOUBLE_EQ(e.figure("revenue_growth", 14, 1).value(), 0.04);
  EXPECT_DOUBLE_EQ(e.figure("revenue_growth", 15, 1).value(), 0.055);
  paths->selectionModel()->select(QItemSelection(paths->ledger().index(1, 2), paths->ledger().index(1, 4)),
                                  QItemSelectionModel::ClearAndSelect);
  press(paths, Qt::Key_C, Qt::ControlModifier);
  EXPECT_EQ(QApplication::clipboard()->text(), QStringLiteral("0.03\t0.04\t0.055\n"));
  EXPECT_THAT(find<QLabel>("selectionSum")->text().toStdString(), testing::HasSubstr("3 cells   sum 12.5"));
  press(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(bench().now().evaluation->figure("revenue_growth", 13, 1).value(), 0.035) << "a paste is one edit";
}

TEST_F(Window, KeysDoWhatTheMouseDoesOnTheBoard) {
  go(Qt::Key_4);
  auto* board = find<PathBoard>("pathBoard");
  board->setFocus();
  press(board, Qt::Key_Right);
  press(board, Qt::Key_Right);
  const double before = bench().now().evaluation->figure("revenue_growth", 14, 1).value();
  press(board, Qt::Key_Up);
  EXPECT_GT(bench().now().evaluation->figure("revenue_growth", 14, 1).value(), before);
  press(board, Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(bench().now().evaluation->figure("revenue_growth", 14, 1).value(), before);
}

TEST_F(Window, ShapesEvidenceAndReasonsAreSetInPlace) {
  go(Qt::Key_4);
  auto* find_ = find<QLineEdit>("find");
  press(window_.get(), Qt::Key_F, Qt::ControlModifier);
  QTest::keyClicks(find_, QStringLiteral("Inventory days, on closing balance"));
  press(find_, Qt::Key_Return);
  auto* shape = find<QComboBox>("shapeBox");
  EXPECT_EQ(shape->currentText(), QStringLiteral("glide"));
  auto* level = find<QLineEdit>("level");
  level->setFocus();
  level->selectAll();
  QTest::keyClicks(level, QStringLiteral("99"));
  press(level, Qt::Key_Return);
  EXPECT_DOUBLE_EQ(*bench().now().caseOf().base().drivers.at("inventory_days").path.level, 99);
  auto* evidence = find<LedgerView>("evidence");
  evidence->setFocus();
  evidence->setCurrentIndex(evidence->ledger().index(6, 2));  // median of 10 years without exceptional ones
  press(evidence, Qt::Key_Return);
  const Assumption& adopted = bench().now().caseOf().base().drivers.at("inventory_days");
  EXPECT_THAT(adopted.said.reason, testing::HasSubstr("median 10 years without exceptional years"));
  EXPECT_EQ(adopted.said.author, "tester");
  auto* reason = find<QLineEdit>("reason");
  reason->setFocus();
  reason->selectAll();
  QTest::keyClicks(reason, QStringLiteral("because"));
  press(reason, Qt::Key_Return);
  EXPECT_EQ(bench().now().caseOf().base().drivers.at("inventory_days").said.reason, "because");
  EXPECT_EQ(shape->currentText(), QStringLiteral("glide")) << "adopting keeps the shape";
}

TEST_F(Window, HistoryFlagsAYearWithItsReason) {
  go(Qt::Key_3);
  auto* year = find<QComboBox>("flagYear");
  year->setCurrentText(QStringLiteral("2021"));
  QTest::mouseClick(find<QPushButton>("flag"), Qt::LeftButton);
  EXPECT_EQ(bench().now().caseOf().exceptional.count(2021), 0u) << "a flag without a reason is refused";
  QTest::keyClicks(find<QLineEdit>("flagReason"), QStringLiteral("boom"));
  QTest::mouseClick(find<QPushButton>("flag"), Qt::LeftButton);
  EXPECT_EQ(bench().now().caseOf().exceptional.at(2021), "boom");
  auto* show = find<QComboBox>("historyShow");
  show->setCurrentIndex(1);
  auto* grid = find<LedgerView>("history");
  const auto& rows = grid->ledger().ledgerRows();
  const auto income =
      std::find_if(rows.begin(), rows.end(), [](const LedgerRow& r) { return r.key == QLatin1String("net_income"); });
  ASSERT_NE(income, rows.end());
  EXPECT_EQ(income->cells[11].figure.reason(), "turned negative") << "no growth rate from profit into loss";
}

TEST_F(Window, PeersGoInAndOutWithAReason) {
  go(Qt::Key_7);
  auto* peers = find<LedgerView>("peers");
  QTest::keyClicks(find<QLineEdit>("peerReason"), QStringLiteral("other trade"));
  const int count = bench().now().crossCheck.statistics.at(Multiple::EvToEbitda).count;
  place(peers, QStringLiteral("sorrelund"), 2);
  EXPECT_THAT(find<QLabel>("peerEffect")->text().toStdString(), testing::HasSubstr("Without it the median would be"));
  press(peers, Qt::Key_Space);
  EXPECT_EQ(bench().now().crossCheck.statistics.at(Multiple::EvToEbitda).count, count - 1);
  EXPECT_EQ(bench().now().caseOf().peers.at("sorrelund/ev-ebitda").reason, "other trade");
  place(peers, QStringLiteral("dunmarrow"), 1);
  press(peers, Qt::Key_Space);
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("cannot count: earnings not positive"));
}

TEST_F(Window, ASetOfThoseThatCountIsKeptAndChosen) {
  go(Qt::Key_7);
  auto* peers = find<LedgerView>("peers");
  find<QComboBox>("multipleGroup")->setCurrentIndex(1);  // of price, trailing
  auto* name = find<QLineEdit>("peerSetName");
  press(name, Qt::Key_Return);
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("A set has a name"));
  QTest::keyClicks(name, QStringLiteral("plain ones"));
  press(name, Qt::Key_Return);
  const auto& sets = bench().settled().caseOf().peerSets;
  ASSERT_EQ(sets.count("plain ones"), 1u);
  EXPECT_TRUE(name->text().isEmpty());
  auto* set = find<QComboBox>("peerSet");
  QTest::keyClick(set, Qt::Key_Down);
  EXPECT_EQ(bench().settled().caseOf().peerSet, "plain ones");
  QTest::keyClick(set, Qt::Key_Up);
  EXPECT_EQ(bench().settled().caseOf().peerSet, "");
  // Another company's sets are offered where it has any.
  set->setCurrentIndex(set->count() - 1);
  Q_EMIT set->activated(set->count() - 1);
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("No other company of this book has a set"));
  EXPECT_EQ(set->currentIndex(), 0);
  EXPECT_TRUE(find<QComboBox>("peerOfBook")->isEnabled()) << "the demo has one";
  // How alike they are stands in place of multiples, and no key takes one out there.
  auto* group = find<QComboBox>("multipleGroup");
  group->setCurrentIndex(group->count() - 1);
  const auto before = bench().settled().caseOf().peers;
  place(peers, QStringLiteral("sorrelund"), 2);
  press(peers, Qt::Key_Space);
  EXPECT_EQ(bench().settled().caseOf().peers, before);
}

/// What stands over the figures.
QStringList headersOf(LedgerView& grid) {
  QStringList list;
  for (int c = grid.ledger().firstColumn(); c < grid.ledger().columnCount(); ++c)
    list << grid.ledger().headerData(c, Qt::Horizontal, Qt::DisplayRole).toString();
  return list;
}

TEST_F(Window, MultiplesAreChosenAndOnesOfOnesOwnAdded) {
  go(Qt::Key_7);
  auto* peers = find<LedgerView>("peers");
  const auto columns = [&] { return peers->ledger().columnCount(); };
  const int before = columns();
  QMenu* menu = find<QToolButton>("multiplesShown")->menu();
  const auto pick = [&](const QString& words) {
    Q_EMIT menu->aboutToShow();
    for (QAction* one : menu->actions()) {
      if (one->text() == words) return one->trigger();
    }
    ADD_FAILURE() << "the menu does not offer " << words.toStdString();
  };
  pick(QStringLiteral("EV to NOPAT, normal year"));
  EXPECT_EQ(columns(), before + 1);
  pick(QStringLiteral("Price to earnings"));
  EXPECT_EQ(columns(), before);
  auto* row = find<QComboBox>("ownMultipleRow");
  EXPECT_FALSE(row->isVisible());
  pick(QStringLiteral("add one of your own…"));
  ASSERT_TRUE(row->isVisible());
  row->lineEdit()->setText(QStringLiteral("no such row"));
  find<QPushButton>("ownMultipleAdd")->click();
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("'no such row' is no row"));
  row->lineEdit()->setText(text(bench().now().model()[bench().now().model().find("receivables")].label));
  find<QComboBox>("ownMultipleOver")->setCurrentIndex(1);
  find<QPushButton>("ownMultipleAdd")->click();
  EXPECT_EQ(multipleId(bench().settled().crossCheck.multiples.back()), "ev-receivables");
  EXPECT_FALSE(row->isVisible());
  const Multiple own = bench().settled().crossCheck.multiples.back();
  EXPECT_EQ(bench().settled().crossCheck.statistics.at(own).count, 1) << "a company of the book tells its own";
  // The table of peers takes the figure of the others.
  go(Qt::Key_1);
  turnTo("market");
  auto* tables = find<QComboBox>("marketTable");
  tables->setCurrentIndex(tables->findData(QStringLiteral("peers")));
  auto* market = find<LedgerView>("marketRows");
  EXPECT_TRUE(headersOf(*market).contains(text(bench().now().model()[bench().now().model().find("receivables")].label) +
                                          QStringLiteral(" m")));
  go(Qt::Key_7);
  pick(QStringLiteral("drop %1").arg(text(multipleLabel(own))));
  pick(QStringLiteral("the usual ones and your own"));
  EXPECT_EQ(columns(), before);
  EXPECT_TRUE(bench().settled().caseOf().ownRows.empty());
}

TEST_F(Window, TheExitIsShapedKeptAndSetBesideItsRuns) {
  go(Qt::Key_7);
  turnTo("exit");
  auto* values = find<LedgerView>("exitReturn");
  place(values, QStringLiteral("exit_return_multiple"), 1);
  typeOver(values, QStringLiteral("16"));
  EXPECT_EQ(bench().settled().caseOf().base().drivers.at("exit_return_multiple").path.level, 16);
  const double toPay = base("exit_price_to_pay");
  EXPECT_FALSE(find<LedgerView>("exitRuns")->isVisible()) << "no version is kept";
  QTest::keyClicks(find<QLineEdit>("exitRunName"), QStringLiteral("at sixteen"));
  press(find<QLineEdit>("exitRunName"), Qt::Key_Return);
  place(values, QStringLiteral("exit_return_multiple"), 1);
  typeOver(values, QStringLiteral("10"));
  auto* runs = find<LedgerView>("exitRuns");
  ASSERT_TRUE(runs->isVisibleTo(runs->parentWidget()));
  EXPECT_EQ(headersOf(*runs), QStringList({QStringLiteral("now"), QStringLiteral("at sixteen")}));
  const auto& rows = runs->ledger().ledgerRows();
  const auto line = std::find_if(rows.begin(), rows.end(), [](const LedgerRow& r) {
    return r.label == QLatin1String("Price to pay for the required return");
  });
  ASSERT_NE(line, rows.end());
  EXPECT_DOUBLE_EQ(line->cells[0].figure.value(), base("exit_price_to_pay"));
  EXPECT_DOUBLE_EQ(line->cells[1].figure.value(), toPay);
  // Its path, beside the own past and the peers.
  auto* paths = find<QComboBox>("exitPaths");
  Q_EMIT paths->activated(1);
  auto* drivers = find<LedgerView>("drivers");
  EXPECT_EQ(drivers->ledger().ledgerRows()[static_cast<size_t>(drivers->currentIndex().row())].key,
            QStringLiteral("exit_return_multiple"));
  EXPECT_GT(find<LedgerView>("evidence")->ledger().rowCount(), 3);
}

TEST_F(Window, AnOwnPastMultipleIsAdoptedAsAMethod) {
  go(Qt::Key_7);
  turnTo("past");
  find<QComboBox>("pastAdoptsAs")->setCurrentIndex(1);
  auto* past = find<LedgerView>("pastMultiples");
  past->setCurrentIndex(past->ledger().index(1, past->ledger().firstColumn() + 3));  // of revenue, the median
  press(past, Qt::Key_Return);
  EXPECT_GT(base("past_value"), 0);
  EXPECT_LT(base("past_value_low"), base("past_value"));
  EXPECT_GT(base("past_value_high"), base("past_value"));
}

TEST_F(Window, PartsAreValuedByTypingAndByThePeersMedian) {
  go(Qt::Key_7);
  turnTo("sumOfParts");
  auto* parts = find<LedgerView>("parts");
  const auto words = [&] { return find<QLabel>("partsWords")->text().toStdString(); };
  const int count = parts->ledger().rowCount() - 2;
  ASSERT_GE(count, 2) << "parts, costs of none, the sum";
  for (const auto& [key, part] : bench().settled().caseOf().parts) EXPECT_GT(part.multiple, 0) << key;
  const int multiple = parts->ledger().firstColumn() + 3, median = multiple + 1;
  parts->setCurrentIndex(parts->ledger().index(0, multiple));
  typeOver(parts, QStringLiteral("about ten"));
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("'about ten' is not a number"));
  typeOver(parts, QStringLiteral("9.5"));
  const auto chosen = bench().settled().caseOf().parts;
  EXPECT_TRUE(std::any_of(chosen.begin(), chosen.end(), [](const auto& p) { return p.second.multiple == 9.5; }));
  for (int row = 1; row <= count; ++row) {
    parts->setCurrentIndex(parts->ledger().index(row, median));
    press(parts, Qt::Key_Return);
  }
  EXPECT_EQ(bench().settled().caseOf().parts.size(), static_cast<size_t>(count) + 1);
  EXPECT_THAT(words(), testing::HasSubstr("together"));
  EXPECT_TRUE(bench().now().evaluation->constant("parts_value", 1).hasValue());
}

TEST_F(Window, WhyTheMultipleDiffersFollowsTheOneChosen) {
  go(Qt::Key_7);
  turnTo("why");
  EXPECT_THAT(find<QLabel>("whyWords")->text().toStdString(), testing::HasSubstr("not explained"));
  EXPECT_EQ(find<LedgerView>("whyGrounds")->ledger().rowCount(), 7);
  auto* fitted = find<QComboBox>("multipleFitted");
  const QString before = find<QLabel>("fitWords")->text();
  fitted->setCurrentIndex(fitted->findText(QStringLiteral("EV to sales")));
  EXPECT_NE(find<QLabel>("fitWords")->text(), before);
}

TEST_F(Window, CapitalCashValueAndVerdictEditInPlace) {
  go(Qt::Key_5);
  const double wacc = base("terminal_wacc");
  place(find<LedgerView>("rateParts"), QStringLiteral("beta"), 1);
  typeOver(find<LedgerView>("rateParts"), QStringLiteral("1.5"));
  EXPECT_GT(base("terminal_wacc"), wacc);
  go(Qt::Key_6);
  turnTo("beyond");
  place(find<LedgerView>("terminal"), QStringLiteral("terminal_choice"), 1);
  typeOver(find<LedgerView>("terminal"), QStringLiteral("half"));
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("There are: growth, multiple"));
  typeOver(find<LedgerView>("terminal"), QStringLiteral("mult"));
  EXPECT_DOUBLE_EQ(base(), base("value_exit"));
  EXPECT_EQ(find<LedgerView>("terminal")->currentIndex().data().toString(), QStringLiteral("multiple"));
  // The same from the list that Enter opens.
  press(find<LedgerView>("terminal"), Qt::Key_Return);
  auto* choices = find<QMenu>("choices");
  ASSERT_EQ(choices->actions().size(), 2);
  EXPECT_TRUE(choices->actions()[1]->isChecked()) << "what stands is ticked";
  choices->actions()[0]->trigger();
  choices->close();
  EXPECT_EQ(find<LedgerView>("terminal")->currentIndex().data().toString(), QStringLiteral("growth"));
  bench().undo();
  go(Qt::Key_9);
  place(find<LedgerView>("verdictScenarios"), QStringLiteral("probability"), 0);
  typeOver(find<LedgerView>("verdictScenarios"), QStringLiteral("40"));
  EXPECT_THAT(find<QLabel>("verdictSentence")->text().toStdString(),
              testing::HasSubstr("the probabilities do not sum to one"));
}

TEST_F(Window, ValuationDateAndHorizonAreSetOnCashValue) {
  go(Qt::Key_6);
  auto* date = find<QDateEdit>("valuationDate");
  EXPECT_EQ(date->date(), QDate(2026, 4, 30));
  const double before = base();
  date->setDate(QDate(2026, 7, 31));
  EXPECT_EQ(dateText(bench().now().caseOf().valuationDate), "2026-07-31");
  EXPECT_GT(base(), before) << "the same flows lie a quarter nearer";
  date->setDate(QDate(2027, 7, 31));
  EXPECT_THAT(bench().now().evaluation->constant("value_per_share", 1).reason(),
              testing::HasSubstr("more than 18 months after"));
  press(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(date->date(), QDate(2026, 7, 31)) << "undo shows in the field";
  auto* years = find<QSpinBox>("horizon");
  years->setValue(5);
  EXPECT_EQ(bench().now().evaluation->layout().forecastYears, 5);
  turnTo("years");
  EXPECT_EQ(find<LedgerView>("flows")->ledger().columnCount(), 11) << "five filed years and five projected ones";
  for (Qt::Key key : kPageKeys) go(key);
  EXPECT_EQ(find<LedgerView>("paths")->ledger().columnCount(), 6) << "every page follows the horizon";
}

TEST_F(Window, FindingsLeadToTheirPlace) {
  go(Qt::Key_9);
  turnTo("findings");
  auto* findings = find<QListWidget>("findings");
  ASSERT_GT(findings->count(), 0);
  findings->setFocus();
  findings->setCurrentRow(0);
  press(findings, Qt::Key_Return);
  EXPECT_TRUE(find<QWidget>("HistoryPage")->isVisible());
  EXPECT_EQ(find<QLabel>("traceTitle")->text(), QStringLiteral("Free cash flow to the firm 2025"));
}

TEST_F(Window, ATableIsShownAsItWouldBeReadCorrectedAndRemembered) {
  std::ofstream(folder_.file("income.csv"))
      << "Figures in EUR thousand;;\n;31.12.2013;31.12.2012\nNet sales;398.000,0;370.000,0\n"
         "Cost of goods sold;(230.000,0);(220.000,0)\nSundry gains;1.000,0;-\n";
  chosenFiles_ = {text(folder_.file("income.csv"))};
  press(window_.get(), Qt::Key_I, Qt::ControlModifier);
  waitForReading();
  auto* table = find<LedgerView>("importReading");
  ASSERT_EQ(table->ledger().rowCount(), 4) << "periods, then three lines";
  const auto shown = [&](int row, int column) { return table->ledger().index(row, column).data().toString(); };
  EXPECT_EQ(shown(1, 1), QStringLiteral("Revenue"));
  EXPECT_EQ(shown(2, 1), QStringLiteral("\u2212 Cost of sales"));
  EXPECT_EQ(shown(1, 4), QStringLiteral("398.0"));
  EXPECT_EQ(shown(3, 1), QString());
  // A figure typed in the wrong scale is a thousand times too small: corrected before it comes in.
  auto* scale = find<QComboBox>("importScale");
  EXPECT_EQ(scale->currentData().toInt(), 3);
  scale->setFocus();
  press(scale, Qt::Key_Down);
  EXPECT_EQ(shown(1, 4), QStringLiteral("398,000"));
  press(scale, Qt::Key_Up);
  EXPECT_EQ(shown(1, 4), QStringLiteral("398.0"));
  // The line of a row, typed; what no line is called is refused beside it.
  table->setFocus();
  table->setCurrentIndex(table->ledger().index(3, 1));
  typeOver(table, QStringLiteral("nonsense"));
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("There is no standard line 'nonsense'"));
  typeOver(table, QStringLiteral("Other non-operating income"));
  EXPECT_EQ(shown(3, 1), QStringLiteral("Other non-operating income"));
  // The second column is left out.
  table->setCurrentIndex(table->ledger().index(0, 5));
  typeOver(table, QStringLiteral(" "));
  EXPECT_EQ(bench().now().years().size(), 12u) << "nothing is stored yet";
  QTest::mouseClick(find<QPushButton>("acceptImport"), Qt::LeftButton);
  ASSERT_EQ(bench().now().years().size(), 13u);
  EXPECT_DOUBLE_EQ(bench().now().evaluation->figure("revenue", 0, 1).value(), 398e6);
  EXPECT_DOUBLE_EQ(bench().now().evaluation->figure("cost_of_sales", 0, 1).value(), 230e6);
  EXPECT_DOUBLE_EQ(bench().now().evaluation->figure("other_income", 0, 1).value(), 1e6);

  // Cells pasted from another program: the choice made before is remembered.
  QApplication::clipboard()->setText(QStringLiteral("EUR m\t2011\nNet sales\t350.5\nSundry gains\t0.5\n"));
  QTest::mouseClick(find<QPushButton>("pasteCells"), Qt::LeftButton);
  waitForReading();
  EXPECT_EQ(shown(2, 1), QStringLiteral("Other non-operating income"));
  QTest::mouseClick(find<QPushButton>("cancelImport"), Qt::LeftButton);
  press(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(bench().now().years().size(), 12u);
}

TEST_F(Window, ARowAtFaultIsMendedByAKeyBeforeTheTableComesIn) {
  std::ofstream(folder_.file("kilns.csv"))
      << "EUR thousand;2013;2012\nNet sales;812,4;770,1\nCost of goods sold;(489,3);(471,2)\n"
         "Operating expenses;(201,5);(195,8)\nDepreciation;(31,2);(30,1)\nKiln refunds;4,1;3,9\nOperating "
         "profit;94,5;76,9\n";
  chosenFiles_ = {text(folder_.file("kilns.csv"))};
  press(window_.get(), Qt::Key_I, Qt::ControlModifier);
  waitForReading();
  auto* mend = find<QPushButton>("importMend");
  EXPECT_FALSE(mend->isVisible()) << "all ties hold";
  auto* table = find<LedgerView>("importReading");
  const auto line = [&] { return table->ledger().index(5, 1).data().toString(); };
  const QString right = line();
  table->setFocus();
  table->setCurrentIndex(table->ledger().index(5, 1));
  typeOver(table, QStringLiteral("Operating expenses"));
  ASSERT_TRUE(mend->isVisible());
  EXPECT_THAT(find<QLabel>("importDoubts")->text().toStdString(),
              testing::HasSubstr("EBIT from its parts would fail in 2012, 2013"));
  EXPECT_THAT(find<QLabel>("importMending")->text().toStdString(), testing::HasSubstr("'Kiln refunds' turned round"));
  press(table, Qt::Key_M, Qt::AltModifier);
  EXPECT_TRUE(QTest::qWaitFor([&] { return !mend->isVisible(); }, kLongest))
      << "a button pressed by its key is shown pressed first";
  EXPECT_EQ(line(), right);
}

TEST_F(Window, ARestatedLineIsUsedAsFirstFiledAndBack) {
  go(Qt::Key_2);
  auto* show = find<QComboBox>("filingsShow");
  show->setFocus();
  press(show, Qt::Key_Down);
  auto* grid = find<LedgerView>("restated");
  ASSERT_TRUE(grid->isVisible());
  const auto revenue = [&] { return bench().now().evaluation->figure("revenue", 8, 1).value(); };  // 2022
  const double last = revenue();
  place(grid, QStringLiteral("revenue"), 0);
  const double change =
      grid->ledger().ledgerRows()[static_cast<size_t>(grid->currentIndex().row())].cells[3].figure.value();
  press(grid, Qt::Key_Return);
  EXPECT_DOUBLE_EQ(revenue(), last - change);
  press(grid, Qt::Key_Return);
  EXPECT_DOUBLE_EQ(revenue(), last);
  QTest::mouseClick(find<QCheckBox>("firstFiled"), Qt::LeftButton, {}, QPoint(8, 8));
  EXPECT_DOUBLE_EQ(revenue(), last - change);
  press(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(revenue(), last);
}

TEST_F(Window, HistoryShowsQuartersAndTwelveMonths) {
  go(Qt::Key_3);
  auto* basis = find<QComboBox>("historyBasis");
  auto* show = find<QComboBox>("historyShow");
  auto* grid = find<LedgerView>("history");
  const auto cellOf = [&](const char* key, int column) {
    for (const LedgerRow& row : grid->ledger().ledgerRows()) {
      if (row.key == QLatin1String(key)) return row.cells.at(static_cast<size_t>(column)).figure;
    }
    return Figure::absent("no such row");
  };
  basis->setFocus();
  press(basis, Qt::Key_Down);
  EXPECT_EQ(grid->ledger().headerData(5, Qt::Horizontal, Qt::DisplayRole).toString(), QStringLiteral("Q1 23"));
  EXPECT_DOUBLE_EQ(cellOf("revenue", 3).value(), 174615000) << "as the first quarter's report has it";
  EXPECT_FALSE(cellOf("revenue", 0).hasValue()) << "a half-year is not two quarters";
  EXPECT_FALSE(cellOf("roic", 3).hasValue());
  show->setFocus();
  press(show, Qt::Key_Down);
  EXPECT_NEAR(cellOf("revenue", 7).value(), 164138.0 / 174615 - 1, 1e-9) << "growth on the quarter a year before";
  press(show, Qt::Key_Up);
  basis->setFocus();
  press(basis, Qt::Key_Down);
  EXPECT_DOUBLE_EQ(cellOf("revenue", 14).value(), bench().now().evaluation->figure("revenue", 11, 1).value());
  press(basis, Qt::Key_Up);
  press(basis, Qt::Key_Up);
  EXPECT_EQ(grid->ledger().headerData(2, Qt::Horizontal, Qt::DisplayRole).toString(), QStringLiteral("2014"));
}

TEST_F(Window, ReadingCanBeStoppedAndAnEmptyClipboardIsSaid) {
  go(Qt::Key_2);
  QApplication::clipboard()->clear();
  QTest::mouseClick(find<QPushButton>("pasteCells"), Qt::LeftButton);
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("The clipboard holds no cells"));
  // A folder with reports enough to be stopped in.
  std::filesystem::create_directory(folder_.file("many"));
  for (int i = 0; i < 40; ++i) {
    std::ofstream(folder_.file("many/" + std::to_string(i) + ".xbrl")) << test::demoFile("filings/annual-2025.xbrl");
  }
  auto* panel = find<QWidget>("FilingsPage")->findChild<ImportPanel*>();
  window_->offer({text(folder_.file("many"))});
  EXPECT_TRUE(panel->isReading());
  auto* leave = find<QPushButton>("cancelImport");
  EXPECT_EQ(leave->text(), QStringLiteral("&Stop"));
  QTest::mouseClick(leave, Qt::LeftButton);
  EXPECT_FALSE(panel->isReading());
  EXPECT_FALSE(panel->isVisible());
  // What was stopped shows nothing later, and the next reading is its own.
  std::ofstream(folder_.file("one.csv")) << "EUR m;2013\nNet sales;5,5\n";
  window_->offer({text(folder_.file("one.csv"))});
  waitForReading();
  EXPECT_EQ(find<LedgerView>("importPreview")->ledger().rowCount(), 1);
  EXPECT_TRUE(find<LedgerView>("importReading")->isVisible());
  EXPECT_FALSE(find<LedgerView>("ties")->isVisible()) << "a table gets the room";
  QTest::mouseClick(find<QPushButton>("cancelImport"), Qt::LeftButton);
  EXPECT_TRUE(find<LedgerView>("ties")->isVisible());
}

TEST_F(Window, AConceptIsPutOnALineByTyping) {
  go(Qt::Key_2);
  auto* grid = find<LedgerView>("unmapped");
  place(grid, QStringLiteral("vsh:OrderBacklog"), 0);
  const double before = bench().now().evaluation->figure("receivables", 11, 1).value();
  typeOver(grid, QStringLiteral("Nothing of the kind"));
  EXPECT_TRUE(status().startsWith(QStringLiteral("■")));
  typeOver(grid, QStringLiteral("Trade receivables"));
  EXPECT_GT(bench().now().evaluation->figure("receivables", 11, 1).value(), before);
  EXPECT_THAT(find<QLabel>("tiesTitle")->text().toStdString(), testing::HasSubstr("fail"))
      << "the balance sheet now breaks";
  press(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(bench().now().evaluation->figure("receivables", 11, 1).value(), before);
}

TEST_F(Window, BadFilesLeaveEverythingAsItWas) {
  std::ofstream(folder_.file("bad.xbrl")) << "<xbrl xmlns=\"http://www.xbrl.org/2003/instance\"><context";
  std::ofstream(folder_.file("note.txt")) << "dear diary";
  for (const char* name : {"bad.xbrl", "note.txt", "missing.csv"}) {
    chosenFiles_ = {text(folder_.file(name))};
    press(window_.get(), Qt::Key_I, Qt::ControlModifier);
    waitForReading();
    EXPECT_TRUE(status().startsWith(QStringLiteral("■"))) << name;
    EXPECT_FALSE(find<QPushButton>("acceptImport")->isVisible()) << name;
  }
  chosenBook_ = text(folder_.file("note.txt"));
  press(window_.get(), Qt::Key_O, Qt::ControlModifier);
  EXPECT_TRUE(bench().isOpen()) << "what was open stays open";
  EXPECT_EQ(bench().path(), path());
}

TEST_F(Window, WithoutABookThereAreThreeWaysIn) {
  start();
  EXPECT_TRUE(find<QWidget>("startPanel")->isVisible());
  EXPECT_FALSE(find<QAction>("importAction")->isEnabled());
  for (const char* way : {"openDemo", "startCompany", "openBook"}) EXPECT_TRUE(find<QPushButton>(way)->isVisible());
  chosenFiles_ = {text(test::sourceFolder() + "/demo/filings/annual-2024.xbrl"),
                  text(test::sourceFolder() + "/demo/filings/annual-2025.xbrl")};
  chosenBook_ = text(folder_.file("new.zledger"));
  QTest::mouseClick(find<QPushButton>("startCompany"), Qt::LeftButton);
  waitForReading();
  EXPECT_EQ(find<LedgerView>("first.importPreview")->ledger().rowCount(), 2);
  EXPECT_FALSE(std::filesystem::exists(folder_.file("new.zledger"))) << "nothing is stored before it is accepted";
  QTest::mouseClick(find<QPushButton>("first.cancelImport"), Qt::LeftButton);
  EXPECT_TRUE(find<QWidget>("startPanel")->isVisible());
  QTest::mouseClick(find<QPushButton>("startCompany"), Qt::LeftButton);
  waitForReading();
  QTest::mouseClick(find<QPushButton>("first.acceptImport"), Qt::LeftButton);
  ASSERT_TRUE(bench().isOpen()) << status().toStdString();
  EXPECT_EQ(bench().now().years().size(), 3u);
  EXPECT_TRUE(find<QWidget>("FilingsPage")->isVisible());
  EXPECT_THAT(railSays().toStdString(), testing::Not(testing::HasSubstr("price"))) << "no price is known";
}

TEST_F(Window, CasesAndNotesAndTheGlossary) {
  chosenCase_ = text(folder_.file("case.json"));
  for (QAction* action : window_->findChildren<QAction*>()) {
    if (action->text().contains(QStringLiteral("Export case"))) action->trigger();
  }
  EXPECT_TRUE(std::filesystem::exists(folder_.file("case.json")));
  auto* note = find<QLineEdit>("traceNote");
  note->setFocus();
  QTest::keyClicks(note, QStringLiteral("check with filing"));
  press(note, Qt::Key_Return);
  EXPECT_EQ(bench().now().caseOf().notes.at("value_per_share"), "check with filing");
  find<QAction>("glossary")->trigger();
  auto* filter = find<QLineEdit>("glossaryFilter");
  QTest::keyClicks(filter, QStringLiteral("treasury"));
  EXPECT_THAT(find<QTextBrowser>("glossaryText")->toPlainText().toStdString(), testing::HasSubstr("Diluted shares"));
  filter->clear();
  QTest::keyClicks(filter, QStringLiteral("first twelve months"));
  EXPECT_THAT(find<QTextBrowser>("glossaryText")->toPlainText().toStdString(), testing::HasSubstr("Organic growth"))
      << "words of the pages that are no row of the model";
  window_->findChild<Glossary*>()->close();
  QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
  find<QAction>("keys")->trigger();
  EXPECT_THAT(find<QTextBrowser>("glossaryText")->toPlainText().toStdString(),
              testing::AllOf(testing::HasSubstr("Page Up"), testing::HasSubstr("Shift+F6")));
}

}  // namespace
}  // namespace zl::app
