// Filings by mouse and keys: ties to their facts, facts in their document, facts from line to line.

#include <gmock/gmock.h>

#include <QComboBox>
#include <QPlainTextEdit>
#include <QTextBlock>

#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

using testing::HasSubstr;

class FilingsByHand : public WindowFixture {
 protected:
  void SetUp() override {
    WindowFixture::SetUp();
    go(Qt::Key_2);
  }
  int rowOf(LedgerView* grid, const char* key) {
    const auto& rows = grid->ledger().ledgerRows();
    for (size_t r = 0; r < rows.size(); ++r) {
      if (rows[r].key == QLatin1String(key)) return static_cast<int>(r);
    }
    ADD_FAILURE() << "no row " << key;
    return 0;
  }
  QString markedLine() {
    auto* shown = find<QPlainTextEdit>("documentText");
    return shown->extraSelections().isEmpty() ? QString() : shown->extraSelections().front().cursor.block().text();
  }
};

TEST_F(FilingsByHand, ATieLeadsToItsFactsAndTheirPlaceInTheDocument) {
  auto* ties = find<LedgerView>("ties");
  ties->setFocus();
  ties->setCurrentIndex(ties->ledger().index(0, 1 + 11));
  press(ties, Qt::Key_Return);
  auto* facts = find<QListWidget>("documentFacts");
  ASSERT_TRUE(facts->isVisible());
  EXPECT_EQ(facts->count(), 8) << "revenue, four kinds of cost, depreciation, one-offs and EBIT";
  EXPECT_THAT(markedLine().toStdString(), HasSubstr("<ifrs-full:Revenue contextRef=\"D2025\""));
  press(facts, Qt::Key_Down);
  EXPECT_THAT(markedLine().toStdString(), HasSubstr("ifrs-full:CostOfSales"));
  EXPECT_THAT(find<QLabel>("documentAbout")->text().toStdString(), HasSubstr("stands on Cost of sales"));
  press(facts, Qt::Key_Escape);
  EXPECT_TRUE(ties->hasFocus()) << "back where one came from";
  const int segments = ties->ledger().rowCount() - 1;
  EXPECT_THAT(ties->ledger().ledgerRows()[static_cast<size_t>(segments)].label.toStdString(), HasSubstr("by "));
  ties->setCurrentIndex(ties->ledger().index(segments, 1 + 11));
  press(ties, Qt::Key_Return);
  EXPECT_GE(facts->count(), 3) << "the parts and the whole";
}

TEST_F(FilingsByHand, AFactGoesToAnotherLineByDragAndByKeyAndBack) {
  find<QComboBox>("filingsShow")->setCurrentIndex(2);
  auto* grid = find<LedgerView>("beside");
  ASSERT_TRUE(grid->isVisible());
  const auto figure = [&](const char* line) { return bench().now().evaluation->figure(line, 11, 1).value(); };
  const double other = figure("other_current_assets");
  const double receivables = figure("receivables");
  const int from = rowOf(grid, "ifrs-full:OtherCurrentAssets");
  const int to = rowOf(grid, "receivables");
  grid->scrollTo(grid->ledger().index(to, 0), QAbstractItemView::PositionAtTop);
  const auto at = [&](int row) { return grid->visualRect(grid->ledger().index(row, 0)).center(); };
  ASSERT_TRUE(grid->viewport()->rect().contains(at(to)));
  QTest::mousePress(grid->viewport(), Qt::LeftButton, {}, at(from));
  QTest::mouseMove(grid->viewport(), at(to));
  QTest::mouseRelease(grid->viewport(), Qt::LeftButton, {}, at(to));
  EXPECT_DOUBLE_EQ(figure("receivables"), receivables + other);
  EXPECT_DOUBLE_EQ(figure("other_current_assets"), 0);
  press(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(figure("receivables"), receivables);
  // A line of the analyst's own, made here and typed beside a fact.
  auto* name = find<QLineEdit>("ownLineName");
  name->setFocus();
  QTest::keyClicks(name, QStringLiteral("Backlog"));
  find<QComboBox>("ownLineKind")->setCurrentIndex(1);
  press(name, Qt::Key_Return);
  grid->setFocus();
  grid->setCurrentIndex(grid->ledger().index(rowOf(grid, "vsh:OrderBacklog"), 3));
  typeOver(grid, QStringLiteral("Backlog"));
  EXPECT_GT(figure("own_backlog"), 2e8);
  grid->setCurrentIndex(grid->ledger().index(rowOf(grid, "own_backlog"), 0));
  press(grid, Qt::Key_Return);
  EXPECT_THAT(markedLine().toStdString(), HasSubstr("vsh:OrderBacklog"));
  QTest::mouseClick(find<QPushButton>("documentBack"), Qt::LeftButton);
  go(Qt::Key_3);
  auto* history = find<LedgerView>("history");
  place(history, QStringLiteral("own_backlog"), 11);
  press(history, Qt::Key_Return);  // on the chart board, where it must not be missed when it goes
  go(Qt::Key_2);
  QTest::mouseClick(find<QPushButton>("dropOwnLine"), Qt::LeftButton);
  EXPECT_TRUE(bench().now().caseOf().ownLines.empty());
  go(Qt::Key_3);
  go(Qt::Key_2);
  grid->setCurrentIndex(grid->ledger().index(rowOf(grid, "revenue"), 0));
  QTest::mouseClick(find<QPushButton>("dropOwnLine"), Qt::LeftButton);
  EXPECT_THAT(status().toStdString(), HasSubstr("shipped lines stay"));
}

}  // namespace
}  // namespace zl::app
