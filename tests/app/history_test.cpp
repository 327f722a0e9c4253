// The History page by mouse and keys: views, adjustments in place, windows, the chart board.

#include <gmock/gmock.h>

#include <QClipboard>
#include <QComboBox>
#include <QSvgRenderer>

#include "app/charts/line_board.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

using testing::HasSubstr;

class HistoryByHand : public WindowFixture {
 protected:
  void SetUp() override {
    WindowFixture::SetUp();
    go(Qt::Key_3);
    grid_ = find<LedgerView>("history");
  }
  const LedgerCell& cell(const char* key, int column) {
    for (const LedgerRow& row : grid_->ledger().ledgerRows()) {
      if (row.key == QLatin1String(key)) return row.cells.at(static_cast<size_t>(column));
    }
    ADD_FAILURE() << "no row " << key;
    return grid_->ledger().ledgerRows().at(1).cells.at(0);
  }
  void show(const QString& words) { find<QComboBox>("historyShow")->setCurrentText(words); }
  QString corner(int section) {
    return grid_->ledger().headerData(section, Qt::Horizontal, Qt::DisplayRole).toString();
  }
  LedgerView* grid_ = nullptr;
};

TEST_F(HistoryByHand, AFigureTypedOverAFiledOneWaitsForItsReason) {
  const double filed = cell("exceptional_items", 11).figure.value();
  place(grid_, QStringLiteral("exceptional_items"), 11);
  EXPECT_THAT(find<QLabel>("adjustLabel")->text().toStdString(), HasSubstr("Exceptional items 2025, filed 34.3"));
  typeOver(grid_, QStringLiteral("0"));
  EXPECT_TRUE(bench().now().caseOf().adjustments.empty()) << "nothing is kept without its reason";
  auto* reason = find<QLineEdit>("adjustReason");
  ASSERT_TRUE(reason->hasFocus());
  press(reason, Qt::Key_Return);
  EXPECT_THAT(status().toStdString(), HasSubstr("needs its reason"));
  QTest::keyClicks(reason, QStringLiteral("closure, once only"));
  press(reason, Qt::Key_Return);
  ASSERT_EQ(bench().now().caseOf().adjustments.size(), 1u);
  EXPECT_TRUE(cell("exceptional_items", 11).adjusted);
  EXPECT_TRUE(cell("ebit", 11).adjusted) << "the total moves with its part";
  EXPECT_THAT(cell("ebit", 11).tip.toStdString(), HasSubstr("filed 2.0, adjusted by 34.3"));
  EXPECT_DOUBLE_EQ(cell("exceptional_items", 11).figure.value(), 0);
  find<QComboBox>("historyReading")->setCurrentIndex(1);
  EXPECT_DOUBLE_EQ(cell("exceptional_items", 11).figure.value(), filed);
  EXPECT_FALSE(cell("exceptional_items", 11).editable) << "filed figures are not typed over";
  find<QComboBox>("historyReading")->setCurrentIndex(0);
  place(grid_, QStringLiteral("exceptional_items"), 11);
  QTest::mouseClick(find<QPushButton>("takeBack"), Qt::LeftButton);
  EXPECT_TRUE(bench().now().caseOf().adjustments.empty());
  place(grid_, QStringLiteral("inventory"), 11);
  EXPECT_FALSE(find<QPushButton>("adjust")->isVisible()) << "a balance is not adjusted";
}

TEST_F(HistoryByHand, TrendsDoubtFreakEndsAndKeepWindows) {
  show(QStringLiteral("trends and averages"));
  EXPECT_EQ(corner(2), QStringLiteral("1 yr"));
  EXPECT_TRUE(cell("revenue", 2).doubted) << "the base year is flagged";
  EXPECT_THAT(cell("revenue", 2).tip.toStdString(), HasSubstr("2025 is flagged exceptional"));
  EXPECT_FALSE(cell("net_income", 1).figure.hasValue()) << "no rate into a loss";
  find<QComboBox>("windowFrom")->setCurrentText(QStringLiteral("2016"));
  find<QComboBox>("windowTo")->setCurrentText(QStringLiteral("2021"));
  QTest::mouseClick(find<QPushButton>("keepWindow"), Qt::LeftButton);
  EXPECT_THAT(status().toStdString(), HasSubstr("needs its reason"));
  QTest::keyClicks(find<QLineEdit>("windowReason"), QStringLiteral("before the recall"));
  press(find<QLineEdit>("windowReason"), Qt::Key_Return);
  ASSERT_EQ(bench().now().caseOf().windows.size(), 1u);
  EXPECT_EQ(corner(6), QStringLiteral("2016\u201321"));
  EXPECT_FALSE(cell("revenue", 4).doubted) << "two ordinary years";
  QTest::mouseClick(find<QPushButton>("keepWindow"), Qt::LeftButton);
  EXPECT_TRUE(bench().now().caseOf().windows.empty());
  show(QStringLiteral("uses of cash"));
  EXPECT_EQ(cell("cash_generated", 4).words, QStringLiteral("100.0"));
  show(QStringLiteral("what moved profit"));
  EXPECT_DOUBLE_EQ(
      cell("net_income_common", 11).figure.value(),
      bench().now().history->at(bench().now().evaluation->model().find("net_income_common"), 11).value() -
          bench().now().history->at(bench().now().evaluation->model().find("net_income_common"), 10).value());
}

TEST_F(HistoryByHand, RowsGoOnTheBoardAndTheBoardGoesOut) {
  auto* board = find<LineBoard>("lineBoard");
  ASSERT_EQ(board->content().lines.size(), 2u);
  QTest::mouseClick(find<QPushButton>("boardClear"), Qt::LeftButton);
  EXPECT_TRUE(board->content().lines.empty());
  EXPECT_GT(coloursIn(board->grab().toImage()), 1) << "an empty board says what belongs there";
  for (const char* key : {"roic", "receivables", "interest_cover"}) {
    place(grid_, QString::fromLatin1(key), 5);
    press(grid_, Qt::Key_Return);
  }
  ASSERT_EQ(board->content().lines.size(), 2u) << "a third unit has no axis";
  EXPECT_THAT(status().toStdString(), HasSubstr("two units"));
  find<QComboBox>("boardMode")->setCurrentIndex(1);
  find<QComboBox>("boardSplit")->setCurrentText(QStringLiteral("from 2020"));
  EXPECT_EQ(board->content().split, 6);
  QTest::mouseClick(find<QPushButton>("boardCopy"), Qt::LeftButton);
  EXPECT_GT(coloursIn(QApplication::clipboard()->image()), 5);
  for (const char* name : {"chart.svg", "chart.png", "chart.csv"}) {
    chosenChart_ = text(folder_.file(name));
    QTest::mouseClick(find<QPushButton>("boardSave"), Qt::LeftButton);
    EXPECT_THAT(status().toStdString(), HasSubstr("Saved the chart"));
  }
  EXPECT_TRUE(QSvgRenderer(text(folder_.file("chart.svg"))).isValid());
  EXPECT_GT(coloursIn(QImage(text(folder_.file("chart.png")))), 5);
  const std::string csv = *services::readFile(folder_.file("chart.csv"));
  EXPECT_THAT(csv, HasSubstr("line,unit,2014,"));
  EXPECT_THAT(csv, HasSubstr("Trade receivables,EUR m,65.468,")) << "full precision, in the unit shown";
  for (const char* refused : {"chart.gif", "no/such/folder/chart.svg"}) {
    chosenChart_ = text(folder_.file(refused));
    QTest::mouseClick(find<QPushButton>("boardSave"), Qt::LeftButton);
    EXPECT_THAT(status().toStdString(), testing::AnyOf(HasSubstr("ends in none"), HasSubstr("cannot be written")));
  }
}

TEST_F(HistoryByHand, QualityTestsAreEditedInPlace) {
  show(QStringLiteral("quality review"));
  const auto rowOf = [&](const QString& label) {
    const auto& rows = grid_->ledger().ledgerRows();
    for (size_t r = 0; r < rows.size(); ++r) {
      if (rows[r].label == label) return static_cast<int>(r);
    }
    ADD_FAILURE() << "no test " << label.toStdString();
    return 1;
  };
  const int cover = rowOf(QStringLiteral("EBIT over gross interest"));
  const auto stands = [&] { return *grid_->ledger().ledgerRows()[static_cast<size_t>(cover)].cells[3].words; };
  EXPECT_EQ(stands(), QStringLiteral("look"));
  ASSERT_TRUE(grid_->ledger().ledgerRows()[static_cast<size_t>(cover)].scale.has_value());
  grid_->setFocus();
  grid_->setCurrentIndex(grid_->ledger().index(cover, 2 + 2));
  typeOver(grid_, QStringLiteral("0.1"));
  EXPECT_EQ(stands(), QStringLiteral("holds"));
  EXPECT_DOUBLE_EQ(*bench().now().caseOf().tests.at("cover").threshold, 0.1);
  typeOver(grid_, QStringLiteral("wide"));
  EXPECT_THAT(status().toStdString(), HasSubstr("not a number"));
  grid_->setCurrentIndex(grid_->ledger().index(cover, 2 + 9));
  typeOver(grid_, QStringLiteral("closure year"));
  EXPECT_EQ(stands(), QStringLiteral("exempt"));
  press(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  press(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(bench().now().caseOf().tests.empty());
  EXPECT_EQ(stands(), QStringLiteral("look"));
}

}  // namespace
}  // namespace zl::app
