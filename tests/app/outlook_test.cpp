// Outlook's shapes, stages and tables, and findings accepted on Verdict, by mouse and keys.

#include <gmock/gmock.h>

#include <QComboBox>
#include <QListWidget>
#include <QSpinBox>
#include <QToolTip>
#include <fstream>

#include "app/pages/outlook_page.h"
#include "tests/support/next_year.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

class OutlookWindow : public WindowFixture {
 protected:
  void SetUp() override {
    WindowFixture::SetUp();
    go(Qt::Key_4);
  }
  void type(const char* field, const QString& words) {
    auto* edit = find<QLineEdit>(field);
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, words);
    press(edit, Qt::Key_Return);
  }
  void chooseShape(const QString& shape) {
    auto* box = find<QComboBox>("shapeBox");
    box->setCurrentIndex(box->findText(shape));
    Q_EMIT box->activated(box->currentIndex());
  }
  void show(const QString& table) {
    auto* box = find<QComboBox>("statementBox");
    box->setCurrentIndex(box->findText(table));
    ASSERT_EQ(box->currentText(), table);
  }
  const std::vector<LedgerRow>& tableRows() { return find<LedgerView>("outlookTables")->ledger().ledgerRows(); }
  double growth(int year, int scenario = 1) {
    const auto& e = *bench().now().evaluation;
    return e.figure("revenue_growth", e.layout().historyYears + year, scenario).value();
  }
  const Case& theCase() { return bench().now().caseOf(); }
};

TEST_F(OutlookWindow, StagesAndSteps) {
  type("stages", QStringLiteral("3 + 4"));
  EXPECT_EQ(theCase().stages, (std::vector<int>{3, 4, 3})) << "the last stage takes what is left";
  EXPECT_EQ(find<QLineEdit>("stages")->text(), QStringLiteral("3 + 4 + 3"));
  chooseShape(QStringLiteral("steps"));
  type("stepList", QStringLiteral("8; 5; 2"));
  EXPECT_DOUBLE_EQ(growth(0), 0.08);
  EXPECT_DOUBLE_EQ(growth(6), 0.05);
  EXPECT_DOUBLE_EQ(growth(9), 0.02);
  EXPECT_EQ(find<QLineEdit>("reason")->text().isEmpty(), false) << "the reason stays with the driver";
  // A step moves as a whole, by mouse or by key, and stays a step.
  auto* board = find<PathBoard>("pathBoard");
  board->setFocus();
  press(board, Qt::Key_Up);
  EXPECT_EQ(theCase().base().drivers.at("revenue_growth").path.shape, Shape::Steps);
  EXPECT_GT(growth(2), 0.08);
  EXPECT_DOUBLE_EQ(growth(3), 0.05);
  type("stepList", QStringLiteral("8; five"));
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("not a list of numbers"));
  EXPECT_DOUBLE_EQ(growth(9), 0.02);
  type("stages", QStringLiteral("3 + x"));
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("not a number of years"));
  type("stages", QStringLiteral("9 + 9"));
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("18 years together"));
  EXPECT_EQ(theCase().stages, (std::vector<int>{3, 4, 3}));
  find<QSpinBox>("outlookHorizon")->setValue(12);
  EXPECT_EQ(theCase().stages, (std::vector<int>{3, 4, 5}));
  EXPECT_EQ(bench().now().evaluation->layout().forecastYears, 12);
}

TEST_F(OutlookWindow, WorstFollowsBaseByADistance) {
  bench().setScenario(0);
  chooseShape(QStringLiteral("follow"));
  type("distance", QStringLiteral("-2"));
  QTest::mouseClick(find<QCheckBox>("widening"), Qt::LeftButton);
  EXPECT_NEAR(growth(9, 0), growth(9) - 0.02, 1e-12);
  EXPECT_NEAR(growth(4, 0), growth(4) - 0.01, 1e-12);
  bench().setScenario(1);
  chooseShape(QStringLiteral("hold"));
  type("level", QStringLiteral("6"));
  EXPECT_NEAR(growth(9, 0), 0.04, 1e-12) << "moving base moves it";
  chooseShape(QStringLiteral("follow"));
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("base cannot follow itself"));
}

TEST_F(OutlookWindow, SeveralDriversAreShapedAtOnce) {
  auto* drivers = find<LedgerView>("drivers");
  place(drivers, QStringLiteral("revenue_growth"), 0);
  press(drivers, Qt::Key_Down, Qt::ShiftModifier);
  ASSERT_EQ(drivers->selectionModel()->selectedRows().size(), 2);
  const QString before = bench().undoLabel();
  chooseShape(QStringLiteral("recovery"));
  EXPECT_EQ(bench().undoLabel(), QStringLiteral("Shape 2 drivers: recovery (Base)"));
  for (const char* driver : {"revenue_growth", "cost_of_sales_ratio"}) {
    EXPECT_EQ(theCase().base().drivers.at(driver).path.shape, Shape::Recovery) << driver;
  }
  press(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(bench().undoLabel(), before);
}

TEST_F(OutlookWindow, ConsensusIsAdoptedForItsYearsAndTheOwnViewRunsOn) {
  auto* evidence = find<LedgerView>("evidence");
  const double fourth = growth(3);
  place(evidence, QStringLiteral("consensus"), 0);
  press(evidence, Qt::Key_Return);
  EXPECT_NEAR(growth(0), 728.0 / 723.703 - 1, 1e-12);
  EXPECT_NEAR(growth(1), 761.0 / 728 - 1, 1e-12);
  EXPECT_DOUBLE_EQ(growth(3), fourth) << "only three years are estimated";
  EXPECT_THAT(theCase().base().drivers.at("revenue_growth").said.reason,
              testing::StartsWith("Adopted: consensus for 3 years"));
  place(evidence, QStringLiteral("economy"), 0);
  press(evidence, Qt::Key_Return);
  EXPECT_DOUBLE_EQ(growth(9), 0.025);
  place(evidence, QStringLiteral("trend"), 1);
  press(evidence, Qt::Key_Return);
  EXPECT_DOUBLE_EQ(growth(9), 0.025) << "a change a year is no level to adopt";
}

TEST_F(OutlookWindow, ScenariosSideBySide) {
  show(QStringLiteral("Scenarios side by side"));
  const size_t differing = tableRows().size();
  EXPECT_EQ(tableRows()[0].label, QStringLiteral("Value per share"));
  EXPECT_EQ(tableRows()[0].cells.size(), 8u) << "three scenarios, five references";
  QTest::mouseClick(find<QCheckBox>("differencesOnly"), Qt::LeftButton);
  EXPECT_GT(tableRows().size(), differing);

  auto* grid = find<LedgerView>("outlookTables");
  place(grid, QStringLiteral("tax_rate"), 2);
  typeOver(grid, QStringLiteral("19"));
  EXPECT_DOUBLE_EQ(bench().now().evaluation->figure("tax_rate", 12, 2).value(), 0.19);
  EXPECT_NE(bench().now().evaluation->figure("tax_rate", 12, 1).value(), 0.19);

  type("newScenario", QStringLiteral("Long recall"));
  ASSERT_EQ(theCase().scenarios.size(), 4u);
  EXPECT_EQ(find<LedgerView>("paths")->ledger().rowCount(), 4);
  find<QComboBox>("scenarioTo")->setCurrentIndex(3);
  EXPECT_FALSE(find<QPushButton>("removeScenario")->isEnabled()) << "best is one of the three";
  Q_EMIT find<QComboBox>("scenarioTo")->activated(3);
  EXPECT_TRUE(find<QPushButton>("removeScenario")->isEnabled());
  QTest::keyClicks(find<QLineEdit>("newScenario"), QStringLiteral("Longer recall"));
  QTest::mouseClick(find<QPushButton>("renameScenario"), Qt::LeftButton);
  EXPECT_EQ(theCase().scenarios[3].label, "Longer recall");
  EXPECT_EQ(find<QComboBox>("scenarioBox")->itemText(3), QStringLiteral("Longer recall"));
  QTest::mouseClick(find<QPushButton>("removeScenario"), Qt::LeftButton);
  EXPECT_EQ(theCase().scenarios.size(), 3u);
  // From worst to best, by the buttons.
  find<QComboBox>("scenarioTo")->setCurrentIndex(2);
  QTest::mouseClick(find<QPushButton>("copyScenario"), Qt::LeftButton);
  EXPECT_EQ(theCase().scenarios[2].drivers, theCase().scenarios[0].drivers);

  show(QStringLiteral("Sum of caution"));
  EXPECT_EQ(tableRows()[0].label, QStringLiteral("All together"));
  EXPECT_GT(tableRows().size(), 5u);
}

TEST_F(OutlookWindow, ANewYearIsComparedAndRolledForward) {
  show(QStringLiteral("Forecast against actual"));
  EXPECT_FALSE(find<QPushButton>("rollForward")->isVisible());
  std::ofstream(folder_.file("annual-2026.csv")) << test::nextYear(bench().now(), 0.9);
  chosenFiles_ = {text(folder_.file("annual-2026.csv"))};
  press(window_.get(), Qt::Key_I, Qt::ControlModifier);
  waitForReading();
  QTest::mouseClick(find<QPushButton>("acceptImport"), Qt::LeftButton);
  EXPECT_EQ(bench().now().years().size(), 12u);
  go(Qt::Key_4);
  ASSERT_GT(tableRows().size(), 20u);
  const auto revenue = std::find_if(tableRows().begin(), tableRows().end(),
                                    [](const LedgerRow& r) { return r.label == QStringLiteral("Revenue"); });
  ASSERT_NE(revenue, tableRows().end());
  EXPECT_EQ(*revenue->cells.back().words, QStringLiteral("(10.0)"));
  QTest::mouseClick(find<QPushButton>("rollForward"), Qt::LeftButton);
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("kept as 'Before 2026 was filed'"));
  EXPECT_EQ(bench().now().years().size(), 13u);
  EXPECT_FALSE(find<QPushButton>("rollForward")->isVisible());
}

TEST_F(OutlookWindow, GuidanceIsAdoptedAndAFigureHoldsInPlaceOfAShapeWithoutLevel) {
  auto* evidence = find<LedgerView>("evidence");
  place(evidence, QStringLiteral("guidance"), 0);
  press(evidence, Qt::Key_Return);
  EXPECT_NEAR(growth(0), 725.0 / 723.703 - 1, 1e-12);
  EXPECT_THAT(theCase().base().drivers.at("revenue_growth").said.reason,
              testing::StartsWith("Adopted: guidance for 1 year"));
  chooseShape(QStringLiteral("steps"));
  place(evidence, QStringLiteral("economy"), 0);
  press(evidence, Qt::Key_Return);
  EXPECT_DOUBLE_EQ(growth(0), 0.025);
}

TEST_F(OutlookWindow, EstimatesAreFrozenAndHeldAgainstToday) {
  show(QStringLiteral("Published estimates"));
  EXPECT_THAT(find<QLabel>("tableWords")->text().toStdString(), testing::HasSubstr("Nothing is published yet"));
  QTest::mouseClick(find<QPushButton>("publish"), Qt::LeftButton);
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("a name first"));
  type("publishName", QStringLiteral("Spring"));
  ASSERT_EQ(theCase().published.size(), 1u);
  EXPECT_THAT(find<QLabel>("tableWords")->text().toStdString(), testing::HasSubstr("by tester, valued at 2026-04-30"));
  ASSERT_GT(tableRows().size(), 40u);
  const auto base = std::find_if(tableRows().begin(), tableRows().end(),
                                 [](const LedgerRow& r) { return r.label == QStringLiteral("Value per share, Base"); });
  ASSERT_NE(base, tableRows().end());
  EXPECT_EQ(base->cells[2].figure.value(), 0);
  auto* grid = find<LedgerView>("outlookTables");
  grid->setFocus();
  grid->setCurrentIndex(grid->ledger().index(1, grid->ledger().firstColumn()));
  EXPECT_THAT(find<QLabel>("traceSource")->text().toStdString(), testing::HasSubstr("by tester, valued at 2026-04-30"));
  // Moved by key, the figures of today follow and the frozen ones stay.
  const double frozen = base->cells[0].figure.value();
  auto* board = find<PathBoard>("pathBoard");
  board->setFocus();
  press(board, Qt::Key_Up);
  EXPECT_EQ(tableRows()[1].cells[0].figure.value(), frozen);
  EXPECT_GT(tableRows()[1].cells[2].figure.value(), 0);
  QTest::mouseClick(find<QPushButton>("withdraw"), Qt::LeftButton);
  EXPECT_TRUE(theCase().published.empty());
  EXPECT_FALSE(find<QPushButton>("withdraw")->isEnabled());
}

TEST_F(OutlookWindow, AnInterimReportStandsAgainstItsYear) {
  show(QStringLiteral("Interim report against forecast"));
  EXPECT_TRUE(tableRows().empty());
  EXPECT_THAT(find<QLabel>("tableWords")->text().toStdString(), testing::HasSubstr("No interim report of 2026E"));
  std::ofstream(folder_.file("q1.csv")) << "concept,label,start,end,unit,decimals,value\n"
                                           "revenue,,2026-01-01,2026-03-31,EUR,-3,170000000\n";
  chosenFiles_ = {text(folder_.file("q1.csv"))};
  press(window_.get(), Qt::Key_I, Qt::ControlModifier);
  waitForReading();
  QTest::mouseClick(find<QPushButton>("acceptImport"), Qt::LeftButton);
  go(Qt::Key_4);
  ASSERT_FALSE(tableRows().empty());
  const auto revenue = std::find_if(tableRows().begin(), tableRows().end(),
                                    [](const LedgerRow& r) { return r.label == QStringLiteral("Revenue"); });
  ASSERT_NE(revenue, tableRows().end());
  EXPECT_EQ(revenue->cells[0].figure.value(), 170e6);
  EXPECT_THAT(find<QLabel>("tableWords")->text().toStdString(), testing::HasSubstr("Year to Q1 2026"));
  // The figure is traced to its fact, the forecast beside it to the model.
  auto* grid = find<LedgerView>("outlookTables");
  openTrace();
  const auto at = static_cast<int>(revenue - tableRows().begin());
  grid->setFocus();
  grid->setCurrentIndex(grid->ledger().index(at, grid->ledger().firstColumn()));
  EXPECT_EQ(find<QLabel>("traceTitle")->text(), QStringLiteral("Revenue Q1 2026, the year to date"));
  EXPECT_THAT(find<QLabel>("traceSource")->text().toStdString(), testing::HasSubstr("revenue = 170000000 EUR for"));
  EXPECT_FALSE(find<QWidget>("traceInputs")->isVisible());
  press(grid, Qt::Key_Right);
  press(grid, Qt::Key_Right);
  press(grid, Qt::Key_Right);
  EXPECT_EQ(find<QLabel>("traceTitle")->text(), QStringLiteral("Revenue 2026E · Base"));
  EXPECT_TRUE(find<QWidget>("traceInputs")->isVisible());
}

TEST_F(OutlookWindow, TheTraceTellsHowAnAssumptionCameAbout) {
  openTrace();
  auto* board = find<PathBoard>("pathBoard");
  board->setFocus();
  press(board, Qt::Key_Up);
  bench().focus({bench().now().evaluation->model().find("revenue_growth"), 13}, 1);
  auto* show = find<QPushButton>("traceShowJournal");
  ASSERT_TRUE(show->isVisible());
  EXPECT_FALSE(find<QLabel>("traceJournal")->isVisible()) << "read only when asked for";
  QTest::mouseClick(show, Qt::LeftButton);
  EXPECT_THAT(find<QLabel>("traceJournal")->text().toStdString(),
              testing::MatchesRegex("2026-05-01 tester: typed 1.0, 3.5(.|\n)* -> typed .*"));
  bench().focus({bench().now().evaluation->model().find("revenue"), 3}, 1);
  EXPECT_FALSE(show->isVisible()) << "a filed figure was assumed by nobody";
}

TEST_F(OutlookWindow, VersionsFindingsAndActionsAreFoundByName) {
  ASSERT_TRUE(bench().keepVersion(QStringLiteral("Before the summer"), {}));
  auto* field = find<QLineEdit>("find");
  const auto look = [&](const QString& words) {
    press(window_.get(), Qt::Key_F, Qt::ControlModifier);
    field->clear();
    QTest::keyClicks(field, words);
    press(field, Qt::Key_Return);
  };
  look(QStringLiteral("before the sum"));
  EXPECT_TRUE(find<LedgerView>("versions")->isVisible());
  look(QStringLiteral("Finding: Best: revenue still grows"));
  EXPECT_EQ(window_->findChild<OutlookPage*>()->chosen(), QStringLiteral("revenue_growth"));
  EXPECT_TRUE(window_->findChild<OutlookPage*>()->isVisible()) << "the finding's own stop";
  look(QStringLiteral("Do: Own rows"));
  EXPECT_TRUE(find<QWidget>("ownRowsText")->isVisible());
  look(QStringLiteral("vessing"));
  EXPECT_EQ(find<QAbstractButton>("stop1")->isChecked(), true) << "the company by its name";
  look(QStringLiteral("no such thing at all"));
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("Nothing here is called"));
}

TEST_F(OutlookWindow, ARefusalStandsBesideTheCellItIsAbout) {
  auto* paths = find<LedgerView>("paths");
  const double before = growth(2);
  paths->setFocus();
  paths->setCurrentIndex(paths->ledger().index(1, 2 + paths->ledger().firstColumn()));
  typeOver(paths, QStringLiteral("-250"));
  EXPECT_EQ(growth(2), before);
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("outside the allowed range -0.9 to 3"));
  EXPECT_TRUE(QTest::qWaitFor([] { return QToolTip::isVisible(); }, kLongest));
  EXPECT_THAT(QToolTip::text().toStdString(), testing::HasSubstr("outside the allowed range"));
  QToolTip::hideText();
}

TEST_F(OutlookWindow, LimitsOfMonitorsAreTypedAndTakenBack) {
  go(Qt::Key_9);
  turnTo("limits");
  auto* grid = find<LedgerView>("monitorLimits");
  place(grid, QStringLiteral("growth above the economy"), 0);
  typeOver(grid, QStringLiteral("20"));
  EXPECT_DOUBLE_EQ(theCase().limits.at("growth above the economy"), 0.2);
  place(grid, QStringLiteral("growth above the economy"), 0);
  typeOver(grid, QStringLiteral("900"));
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("outside the allowed range"));
  place(grid, QStringLiteral("growth above the economy"), 0);
  typeOver(grid, QStringLiteral(" "));
  EXPECT_TRUE(theCase().limits.empty()) << "an empty cell takes the default again";
}

TEST_F(OutlookWindow, AFindingIsAcceptedWithAReason) {
  go(Qt::Key_9);
  turnTo("findings");
  auto* list = find<QListWidget>("findings");
  auto* why = find<QLineEdit>("acknowledgeReason");
  const QString title = find<QWidget>("stop3")->accessibleDescription();
  list->setCurrentRow(0);
  ASSERT_TRUE(list->currentItem()->text().contains(QStringLiteral("Free cash flow to the firm of the base year")));
  EXPECT_FALSE(find<QPushButton>("acknowledge")->isEnabled()) << "a reason is asked for";
  why->setFocus();
  QTest::keyClicks(why, QStringLiteral("the recall is over"));
  press(why, Qt::Key_Return);
  EXPECT_EQ(theCase().acknowledged.size(), 1u);
  const QString last = list->item(list->count() - 1)->text();
  EXPECT_TRUE(last.startsWith(QStringLiteral("✓"))) << last.toStdString();
  EXPECT_TRUE(last.contains(QStringLiteral("the recall is over")));
  EXPECT_NE(find<QWidget>("stop3")->accessibleDescription(), title) << "the route counts one less";
  list->setCurrentRow(list->count() - 1);
  QTest::mouseClick(find<QPushButton>("acknowledge"), Qt::LeftButton);
  EXPECT_TRUE(theCase().acknowledged.empty());
}

TEST_F(OutlookWindow, AYearStandsInOneLineOnTheBoardInThePathsAndInTheStatements) {
  for (const int width : {1280, 1920}) {
    window_->resize(width, 800);
    go(Qt::Key_4);
    // Beside the trace the figures of ten years scroll at 1280.
    if (!find<QAbstractButton>("traceEdge")->isVisible()) press(window_.get(), Qt::Key_T, Qt::ControlModifier);
    QCoreApplication::processEvents();
    auto* board = find<PathBoard>("pathBoard");
    auto* paths = find<LedgerView>("paths");
    auto* statements = find<LedgerView>("projected");
    // Both tables' figures end at the right edge of their columns; the board's points stand above the headings'
    // middles.
    const auto rightOf = [](LedgerView* table, int fromLast) {
      const int column = table->ledger().columnCount() - 1 - fromLast;
      const int right = table->columnViewportPosition(column) + table->columnWidth(column);
      return table->viewport()->mapToGlobal(QPoint(right, 0)).x();
    };
    const int years = bench().now().caseOf().horizon;
    for (int back = 0; back < years; ++back) {
      EXPECT_EQ(rightOf(paths, back), rightOf(statements, back)) << width << ", " << back << " before the last";
      const double point = board->mapToGlobal(board->pointOf(years - 1 - back)).x();
      EXPECT_LT(point, rightOf(paths, back));
      EXPECT_GT(point, rightOf(paths, back) - paths->columnWidth(paths->ledger().columnCount() - 1 - back));
    }
  }
}

}  // namespace
}  // namespace zl::app
