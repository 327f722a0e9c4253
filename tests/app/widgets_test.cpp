// Grid and charts by themselves, driven by mouse and keys.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <QApplication>
#include <QClipboard>
#include <QHeaderView>
#include <QImage>
#include <QLineEdit>
#include <QScrollBar>
#include <QSignalSpy>
#include <QTest>
#include <cmath>
#include <set>

#include "app/charts/flow_bars.h"
#include "app/charts/path_board.h"
#include "app/charts/range_chart.h"
#include "app/charts/rate_stack.h"
#include "app/charts/ticks.h"
#include "app/charts/walk_chart.h"
#include "app/grid/ledger_view.h"
#include "app/look/tabular.h"
#include "app/look/theme.h"

namespace zl::app {
namespace {

std::vector<Figure> figures(const std::vector<double>& numbers) {
  std::vector<Figure> list;
  for (double x : numbers) list.push_back(std::isnan(x) ? Figure::absent() : Figure::of(x));
  return list;
}

LedgerRow row(const char* label, const std::vector<double>& numbers, Kind kind = Kind::Ratio, bool editable = true) {
  LedgerRow r;
  r.label = QString::fromLatin1(label);
  r.kind = kind;
  r.key = r.label;
  int column = 0;
  for (const Figure& f : figures(numbers)) {
    LedgerCell cell;
    cell.figure = f;
    cell.editable = editable;
    cell.source = model::Cell{model::RowId(7), column++};
    r.cells.push_back(cell);
  }
  return r;
}

class Grid : public testing::Test {
 protected:
  void SetUp() override {
    view_.ledger().fill({QStringLiteral("a"), QStringLiteral("b"), QStringLiteral("c")},
                        {row("first", {0.01, 0.02, 0.03}), row("second", {0.04, std::nan(""), 0.06}),
                         row("fixed", {1e6, 2e6, 3e6}, Kind::Money, false)});
    view_.resize(500, 200);
    view_.show();
    view_.activateWindow();
    ASSERT_TRUE(QTest::qWaitForWindowActive(&view_));
    view_.setFocus();
    place(0, 1);
  }

  void place(int r, int column) { view_.setCurrentIndex(view_.ledger().index(r, column)); }
  void key(Qt::Key k, Qt::KeyboardModifiers m = Qt::NoModifier) { QTest::keyClick(&view_, k, m); }
  QLineEdit* editor() { return qobject_cast<QLineEdit*>(QApplication::focusWidget()); }
  std::pair<int, int> at() { return {view_.currentIndex().row(), view_.currentIndex().column()}; }

  LedgerView view_;
};

TEST_F(Grid, ArrowsAndTabMove) {
  key(Qt::Key_Right);
  EXPECT_EQ(at(), std::pair(0, 2));
  key(Qt::Key_Down);
  EXPECT_EQ(at(), std::pair(1, 2));
  key(Qt::Key_Tab);
  EXPECT_EQ(at(), std::pair(1, 3));
  key(Qt::Key_Tab);
  EXPECT_EQ(at(), std::pair(2, 0)) << "Tab goes on in the next row";
  key(Qt::Key_Backtab, Qt::ShiftModifier);
  EXPECT_EQ(at(), std::pair(1, 3));
}

TEST_F(Grid, TypingReplacesF2EditsEscapeLeaves) {
  QSignalSpy typed(&view_.ledger(), &LedgerModel::typed);
  QTest::keyClicks(&view_, QStringLiteral("7"));
  ASSERT_NE(editor(), nullptr);
  EXPECT_EQ(editor()->text(), QStringLiteral("7")) << "typing replaces";
  QTest::keyClick(editor(), Qt::Key_Escape);
  EXPECT_EQ(typed.count(), 0);
  view_.setFocus();
  key(Qt::Key_F2);
  ASSERT_NE(editor(), nullptr);
  EXPECT_EQ(editor()->text(), QStringLiteral("1")) << "F2 shows what is there, in the shown unit";
  QTest::keyClicks(editor(), QStringLiteral("2.5"));
  QTest::keyClick(editor(), Qt::Key_Return);
  QCoreApplication::processEvents();
  ASSERT_EQ(typed.count(), 1);
  EXPECT_EQ(typed[0][0].toInt(), 0);
  EXPECT_EQ(typed[0][1].toInt(), 0);
}

TEST_F(Grid, CellsThatAreNotEditableActivateInstead) {
  QSignalSpy activated(&view_, &LedgerView::rowActivated);
  place(2, 2);
  QTest::keyClicks(&view_, QStringLiteral("7"));
  EXPECT_EQ(editor(), nullptr);
  key(Qt::Key_Return);
  key(Qt::Key_Space);
  ASSERT_EQ(activated.count(), 2);
  EXPECT_EQ(activated[0][0].toInt(), 2);
  EXPECT_EQ(activated[0][1].toInt(), 1);
}

TEST_F(Grid, FocusTellsTheTraceWhichCell) {
  QSignalSpy focused(&view_, &LedgerView::cellFocused);
  key(Qt::Key_Right);
  ASSERT_EQ(focused.count(), 1);
  EXPECT_EQ(focused[0][0].value<model::Cell>().column, 1);
}

TEST_F(Grid, CopyKeepsTheShapeAndGapsStayEmpty) {
  view_.selectAll();
  key(Qt::Key_C, Qt::ControlModifier);
  EXPECT_EQ(QApplication::clipboard()->text(),
            QStringLiteral("first\t0.01\t0.02\t0.03\nsecond\t0.04\t\t0.06\nfixed\t1000000\t2000000\t3000000\n"));
}

TEST_F(Grid, PasteHandsOverTabSeparatedCells) {
  QSignalSpy pasted(&view_, &LedgerView::pasted);
  QApplication::clipboard()->setText(QStringLiteral("1\t2\r\n3\t4\r\n"));
  key(Qt::Key_V, Qt::ControlModifier);
  ASSERT_EQ(pasted.count(), 1);
  const auto cells = pasted[0][2].value<QList<QStringList>>();
  ASSERT_EQ(cells.size(), 2);
  EXPECT_EQ(cells[1][0], QStringLiteral("3"));
  QApplication::clipboard()->setText(QStringLiteral("  \n"));
  key(Qt::Key_V, Qt::ControlModifier);
  EXPECT_EQ(pasted.count(), 1) << "nothing to paste";
}

TEST_F(Grid, SumsOneUnitAndNeverMixes) {
  QSignalSpy summed(&view_, &LedgerView::selectionSummed);
  const auto select = [&](int r1, int c1, int r2, int c2) {
    view_.selectionModel()->select(QItemSelection(view_.ledger().index(r1, c1), view_.ledger().index(r2, c2)),
                                   QItemSelectionModel::ClearAndSelect);
    return summed.last()[0].toString();
  };
  EXPECT_EQ(select(0, 1, 1, 3), QStringLiteral("5 cells   sum 16.0   mean 3.2"))
      << "the gap is left out and not counted";
  EXPECT_EQ(select(0, 1, 2, 3), QString()) << "money and ratios have no sum";
  EXPECT_EQ(select(0, 1, 0, 1), QString());
}

TEST_F(Grid, RefillingKeepsThePlace) {
  place(1, 3);
  view_.ledger().fill({QStringLiteral("a"), QStringLiteral("b"), QStringLiteral("c")},
                      {row("first", {9, 9, 9}), row("second", {9, 9, 9}), row("fixed", {9, 9, 9})});
  EXPECT_EQ(at(), std::pair(1, 3));
}

TEST_F(Grid, FiguresShareTheWidthThereIs) {
  view_.setWidths(200);
  for (const int width : {301, 900}) {
    view_.resize(width, 200);
    QCoreApplication::processEvents();
    EXPECT_LE(view_.horizontalHeader()->length(), view_.viewport()->width()) << "no sideways scrolling";
  }
  EXPECT_GT(view_.columnWidth(1), 200) << "a wide window is used";
  view_.showAll();
  EXPECT_GE(view_.height(), 3 * view_.rowHeight(0));
}

/// Figures of 10^14 in a window for a few of them.
TEST_F(Grid, WideFiguresScrollBeneathTheLabelsAndAreNeverCut) {
  QStringList headers;
  std::vector<double> figures;
  for (int year = 2020; year < 2030; ++year) {
    headers << QString::number(year);
    figures.push_back(-1.234567e14 - year);
  }
  view_.setWidths(60);
  view_.ledger().fill(
      headers, {row("A label of a length that statements have", figures, Kind::Money), row("b", figures, Kind::Money)});
  view_.resize(420, 200);
  QCoreApplication::processEvents();
  const QFontMetricsF metrics(view_.font());
  for (int c = 1; c <= 10; ++c) {
    const QString shown = view_.ledger().index(0, c).data().toString();
    EXPECT_EQ(shown, QStringLiteral("(123,456,700)")) << "five digits before the point leave no decimals";
    EXPECT_GE(view_.columnWidth(c), tabularWidth(view_.font(), shown) + 8);
  }
  const int label = view_.columnWidth(0);
  EXPECT_LE(label, 420 * 0.4);
  place(0, 10);
  EXPECT_GT(view_.horizontalScrollBar()->value(), 0);
  EXPECT_EQ(view_.visualRect(view_.ledger().index(0, 0)).left(), 0) << "the labels stay";
  EXPECT_EQ(view_.indexAt({5, view_.rowHeight(0) / 2}).column(), 0);
  for (int c = 9; c >= 1; --c) {
    key(Qt::Key_Left);
    EXPECT_EQ(at(), std::pair(0, c));
    const QRect cell = view_.visualRect(view_.currentIndex());
    EXPECT_GE(cell.left(), label) << "none is beneath the labels while it is looked at";
    EXPECT_LE(cell.right(), view_.viewport()->width());
  }
}

TEST_F(Grid, DecimalsAreThoseOfTheLargestAmount) {
  for (const auto& [largest, shown] : {std::pair(48685e6, "48,685"),
                                       {412.3e6, "412.3"},
                                       {8.26e6, "8.3"},
                                       {0.0418e6, "0.042"},
                                       {42, "0.000042"},
                                       {0.0, "0.0"}}) {
    view_.ledger().fill({QStringLiteral("a")},
                        {row("one", {largest}, Kind::Money), row("two", {largest / 1000}, Kind::Money)});
    EXPECT_EQ(view_.ledger().index(0, 1).data().toString(), QString::fromLatin1(shown));
  }
}

TEST(AxisTicks, SayWhatTheyStandForInAnyUnit) {
  for (const auto& [high, first, last] :
       {std::tuple(42'000.0, "0.00", "0.04"), {9.3e9, "0", "8,000"}, {3.1e14, "0", "300,000,000"}, {4.2e6, "0", "4"}}) {
    const Ticks ticks = ticksOf(0, high, 5, 1e6, QFont());
    EXPECT_EQ(ticks.words.first(), QString::fromLatin1(first));
    EXPECT_EQ(ticks.words.last(), QString::fromLatin1(last));
    EXPECT_EQ(std::set<QString>(ticks.words.begin(), ticks.words.end()).size(), ticks.at.size()) << "no two read alike";
    EXPECT_GE(ticks.width, tabularWidth(QFont(), ticks.words.last()));
  }
}

class Board : public testing::Test {
 protected:
  void SetUp() override {
    board_.resize(700, 260);
    board_.setContent(content(1));
    board_.show();
    board_.activateWindow();
    ASSERT_TRUE(QTest::qWaitForWindowActive(&board_));
    board_.setFocus();
  }

  static BoardContent content(int chosen) {
    BoardContent c;
    c.title = QStringLiteral("Margin");
    c.kind = Kind::Ratio;
    c.history = figures({0.10, 0.12, std::nan(""), 0.11});
    c.exceptional = {false, false, false, true};
    c.spread = describe(c.history);
    for (int i = 0; i < 9; ++i) c.periods << QString::number(2020 + i);
    c.paths = {
        {QStringLiteral("worst"), QStringLiteral("Worst"), figures({0.05, 0.05, 0.05, 0.05, 0.05}), {}, {}, false},
        {QStringLiteral("base"), QStringLiteral("Base"), figures({0.11, 0.12, 0.13, 0.14, 0.15}), {}, {}, false}};
    c.chosen = chosen;
    c.low = 0;
    c.high = 0.16;
    return c;
  }

  PathBoard board_;
};

TEST_F(Board, DraggingReportsEveryMoveAndTheDrop) {
  QSignalSpy moves(&board_, &PathBoard::dragging);
  QSignalSpy drops(&board_, &PathBoard::dropped);
  const QPoint from = board_.pointOf(2).toPoint();
  QTest::mousePress(&board_, Qt::LeftButton, {}, from);
  QTest::mouseMove(&board_, from + QPoint(0, 15));
  QTest::mouseMove(&board_, from + QPoint(0, 30));
  QTest::mouseRelease(&board_, Qt::LeftButton, {}, from + QPoint(0, 30));
  ASSERT_EQ(moves.count(), 2);
  EXPECT_EQ(moves[0][0].toInt(), 2);
  EXPECT_LT(moves[1][1].toDouble(), moves[0][1].toDouble()) << "down is less";
  ASSERT_EQ(drops.count(), 1);
  EXPECT_DOUBLE_EQ(drops[0][1].toDouble(), moves[1][1].toDouble());
}

TEST_F(Board, APathIsClippedAtItsBoundsVisibly) {
  QSignalSpy moves(&board_, &PathBoard::dragging);
  const QPoint from = board_.pointOf(4).toPoint();
  QTest::mousePress(&board_, Qt::LeftButton, {}, from);
  QTest::mouseMove(&board_, QPoint(from.x(), -400));
  EXPECT_DOUBLE_EQ(moves.last()[1].toDouble(), 0.16);
  QTest::mouseMove(&board_, QPoint(from.x(), 4000));
  EXPECT_DOUBLE_EQ(moves.last()[1].toDouble(), 0.0);
}

TEST_F(Board, EscapeTakesADragBack) {
  QSignalSpy cancelled(&board_, &PathBoard::cancelled);
  QSignalSpy drops(&board_, &PathBoard::dropped);
  const QPoint from = board_.pointOf(2).toPoint();
  QTest::mousePress(&board_, Qt::LeftButton, {}, from);
  QTest::mouseMove(&board_, from + QPoint(0, 20));
  QTest::keyClick(&board_, Qt::Key_Escape);
  QTest::mouseRelease(&board_, Qt::LeftButton, {}, from + QPoint(0, 20));
  EXPECT_EQ(cancelled.count(), 1);
  EXPECT_EQ(drops.count(), 0);
}

TEST_F(Board, AnotherPathIsChosenByItsPoint) {
  board_.setContent(content(0));
  const QPoint worst = board_.pointOf(3).toPoint();
  board_.setContent(content(1));
  QSignalSpy chosen(&board_, &PathBoard::pathChosen);
  QTest::mousePress(&board_, Qt::LeftButton, {}, worst);
  ASSERT_EQ(chosen.count(), 1);
  EXPECT_EQ(chosen[0][0].toInt(), 0);
  QTest::mouseRelease(&board_, Qt::LeftButton, {}, worst);
}

TEST_F(Board, KeysWalkAndNudge) {
  QSignalSpy drops(&board_, &PathBoard::dropped);
  QTest::keyClick(&board_, Qt::Key_Right);
  QTest::keyClick(&board_, Qt::Key_Up);
  ASSERT_EQ(drops.count(), 1);
  EXPECT_EQ(drops[0][0].toInt(), 1);
  EXPECT_GT(drops[0][1].toDouble(), 0.12);
  QTest::keyClick(&board_, Qt::Key_PageDown);
  EXPECT_LT(drops[1][1].toDouble(), 0.12 - (drops[0][1].toDouble() - 0.12) * 3) << "a page is a larger step";
  const auto grip = [&](qsizetype i) { return drops[i][2].value<Grip>(); };
  EXPECT_EQ(grip(1), Grip::Year);
  QTest::keyClick(&board_, Qt::Key_Up, Qt::ShiftModifier);
  EXPECT_EQ(grip(2), Grip::Stage);
  QTest::keyClick(&board_, Qt::Key_Up, Qt::ControlModifier);
  EXPECT_EQ(grip(3), Grip::Level);
  EXPECT_EQ(drops[3][0].toInt(), 4) << "the long-run level is the last year's";
  for (int i = 0; i < 20; ++i) QTest::keyClick(&board_, Qt::Key_Right);
  QTest::keyClick(&board_, Qt::Key_Up);
  EXPECT_EQ(drops.last()[0].toInt(), 4) << "the last year is the last";
}

TEST_F(Board, TheLongRunLevelHasAHandle) {
  QSignalSpy drops(&board_, &PathBoard::dropped);
  const QPoint handle = board_.levelHandle().toPoint();
  EXPECT_GT(handle.x(), board_.pointOf(4).x());
  QTest::mousePress(&board_, Qt::LeftButton, {}, handle);
  QTest::mouseMove(&board_, handle - QPoint(0, 15));
  QTest::mouseRelease(&board_, Qt::LeftButton, {}, handle - QPoint(0, 15));
  ASSERT_EQ(drops.count(), 1);
  EXPECT_EQ(drops[0][2].value<Grip>(), Grip::Level);
}

TEST_F(Board, WithoutFiguresItStillPaints) {
  BoardContent empty;
  empty.title = QStringLiteral("Nothing");
  empty.periods = {QStringLiteral("2025"), QStringLiteral("2026E")};
  empty.history = {Figure::absent()};
  empty.paths = {{QStringLiteral("base"), QStringLiteral("Base"), {Figure::notMeaningful("odd")}, {}, {}, false}};
  empty.chosen = 0;
  board_.setContent(empty);
  EXPECT_FALSE(board_.grab().toImage().isNull());
  QTest::mouseClick(&board_, Qt::LeftButton, {}, QPoint(300, 100));
}

/// How much of a picture is not the ground.
int inked(QWidget& widget) {
  const QImage picture = widget.grab().toImage();
  int count = 0;
  for (int y = 0; y < picture.height(); ++y) {
    for (int x = 0; x < picture.width(); ++x) count += picture.pixelColor(x, y) != theme().paper ? 1 : 0;
  }
  return count;
}

TEST(Charts, AWalkSaysItsStepsAndWhyThereAreNone) {
  WalkChart chart;
  WalkContent content;
  content.fromLabel = QStringLiteral("Before");
  content.toLabel = QStringLiteral("After");
  content.from = -20;
  content.to = 110;
  content.fromFigure = QStringLiteral("-20.00");
  content.toFigure = QStringLiteral("110.00");
  content.unit = QStringLiteral("GBX");
  content.bars = {{QStringLiteral("Growth"), 150, QStringLiteral("+150.00"), QStringLiteral("Revenue growth")},
                  {QStringLiteral("Rate"), -20, QStringLiteral("-20.00"), QStringLiteral("Beta")}};
  chart.setContent(content);
  chart.resize(700, chart.sizeHint().height());
  EXPECT_EQ(chart.accessibleDescription(), QStringLiteral("Before -20.00; Growth +150.00; Rate -20.00; After 110.00"));
  const int tall = chart.sizeHint().height();
  const int drawn = inked(chart);
  EXPECT_GT(drawn, 2000);
  content.gap = QStringLiteral("the first has no value");
  chart.setContent(content);
  EXPECT_EQ(chart.accessibleDescription(), content.gap);
  EXPECT_LT(chart.sizeHint().height(), tall);
  EXPECT_LT(inked(chart), drawn / 2);
}

TEST(Charts, DrawWhatTheyAreGivenAndTakeGaps) {
  FlowBars bars;
  bars.resize(600, 200);
  bars.setContent({QStringLiteral("2025"), QStringLiteral("2026E")}, {Figure::of(-5e6)},
                  {{QStringLiteral("base"), QStringLiteral("Base"), {Figure::absent()}}}, QStringLiteral("EUR m"));
  const int without = inked(bars);
  bars.setContent({QStringLiteral("2025"), QStringLiteral("2026E")}, {Figure::of(-5e6)},
                  {{QStringLiteral("base"), QStringLiteral("Base"), {Figure::of(9e6)}}}, QStringLiteral("EUR m"));
  EXPECT_GT(inked(bars), without + 500) << "the bar that has a figure is drawn";

  RateStack stack;
  stack.resize(600, 120);
  stack.setBars({});
  const int empty = inked(stack);
  stack.setBars({{QStringLiteral("base"),
                  QStringLiteral("Base"),
                  {{QStringLiteral("risk-free"), 0.03}, {QStringLiteral("premium"), 0.05}},
                  0.08}});
  EXPECT_GT(inked(stack), empty + 500);

  RangeChart ranges;
  ranges.resize(700, 160);
  ranges.setContent({{QStringLiteral("None"), 0, 0, std::nullopt, QStringLiteral("no peer counts"), false}},
                    std::nullopt, std::nullopt, QStringLiteral("GBX"));
  EXPECT_EQ(inked(ranges), 0) << "with neither price nor value there is no axis to draw";
  ranges.setContent({{QStringLiteral("One"), 500, 900, 700.0, {}, true},
                     {QStringLiteral("None"), 0, 0, std::nullopt, QStringLiteral("no peer counts"), false}},
                    RangeMark{742.0}, RangeMark{600.0}, QStringLiteral("GBX"));
  EXPECT_GT(inked(ranges), 2000);
  EXPECT_EQ(ranges.accessibleDescription(), QStringLiteral("One: 500.0 to 900.0; None: no peer counts"))
      << "whole where a narrow window cuts it";
}

TEST(Look, TabularDigitsHaveOneWidth) {
  const QFont font = QApplication::font();
  EXPECT_DOUBLE_EQ(tabularWidth(font, QStringLiteral("1111")), tabularWidth(font, QStringLiteral("8888")));
  EXPECT_EQ(counted(1, QStringLiteral("file"), QStringLiteral("files")), QStringLiteral("1 file"));
  EXPECT_EQ(counted(3, QStringLiteral("file"), QStringLiteral("files")), QStringLiteral("3 files"));
}

}  // namespace
}  // namespace zl::app
