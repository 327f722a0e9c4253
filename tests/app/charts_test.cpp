// Charts on content that is odd: nothing, one point, losses, gaps, long names; light and dark.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <QImage>
#include <set>

#include "app/charts/line_board.h"
#include "app/charts/price_chart.h"
#include "app/charts/stacked_bars.h"
#include "app/look/theme.h"
#include "tests/support/pictures.h"

namespace zl::app {
namespace {

using testing::HasSubstr;

/// Pixels that differ from the paper: how much is drawn.
int drawn(QWidget& widget) {
  const QImage picture = widget.grab().toImage();
  int count = 0;
  for (int y = 0; y < picture.height(); ++y) {
    for (int x = 0; x < picture.width(); ++x) count += picture.pixelColor(x, y) == theme().paper ? 0 : 1;
  }
  return count;
}

std::vector<Figure> figuresOf(std::initializer_list<double> numbers) {
  std::vector<Figure> list;
  for (const double x : numbers) list.push_back(std::isnan(x) ? Figure::absent("gap") : Figure::of(x));
  return list;
}

const double kGap = std::nan("");

LineBoardContent years(std::vector<BoardLine> lines) {
  LineBoardContent c;
  for (size_t i = 0; i < lines.front().figures.size(); ++i) c.periods << QString::number(2020 + static_cast<int>(i));
  c.exceptional.assign(lines.front().figures.size(), false);
  c.lines = std::move(lines);
  return c;
}

BoardLine line(const char* label, const char* unit, Kind kind, std::initializer_list<double> numbers) {
  return {QString::fromLatin1(label), QString::fromLatin1(label), QString::fromLatin1(unit), kind, figuresOf(numbers)};
}

class Boards : public testing::Test {
 protected:
  void SetUp() override { board_.resize(640, 220); }
  int show(LineBoardContent content) {
    board_.setContent(std::move(content));
    return drawn(board_);
  }
  LineBoard board_;
};

TEST_F(Boards, DrawOddSeriesWithoutLosingThem) {
  const int full = show(years({line("Revenue", "EUR m", Kind::Money, {1e8, 2e8, 3e8, 4e8})}));
  EXPECT_GT(full, 500);
  // A gap joins nothing across itself; a single figure is still a mark; losses go below the nought line.
  EXPECT_LT(show(years({line("Revenue", "EUR m", Kind::Money, {1e8, kGap, kGap, 4e8})})), full);
  EXPECT_GT(show(years({line("Revenue", "EUR m", Kind::Money, {kGap, 2e8, kGap, kGap})})), 200);
  EXPECT_GT(show(years({line("Result", "EUR m", Kind::Money, {-1e8, 2e8, -3e8, 4e8})})), 500);
  EXPECT_GT(show(years({line("Flat", "%", Kind::Ratio, {0.1, 0.1, 0.1, 0.1})})), 300);
  EXPECT_GT(show(years({line("None", "%", Kind::Ratio, {kGap, kGap, kGap, kGap})})), 50) << "its name stands";
}

TEST_F(Boards, GiveTheSecondUnitItsOwnAxisAndHatchFlaggedYears) {
  LineBoardContent c = years({line("Revenue", "EUR m", Kind::Money, {1e8, 2e8, 3e8}),
                              line("Margin", "%", Kind::Ratio, {0.1, 0.11, 0.09}),
                              line("A line with a name much longer than the board could ever hold beside two others",
                                   "EUR m", Kind::Money, {2e8, 1e8, 2e8})});
  const int plain = show(c);
  c.exceptional[1] = true;
  c.events.push_back({2, QStringLiteral("recall")});
  c.events.push_back({99, QStringLiteral("outside the years")});
  EXPECT_GT(show(c), plain + 300) << "hatching and the event's mark";
  EXPECT_THAT(board_.toolTip().toStdString(), HasSubstr("2022: recall"));
}

TEST_F(Boards, AgainstEachOtherNamesEveryYearOrSaysWhyNot) {
  LineBoardContent c = years({line("Capex", "%", Kind::Ratio, {0.04, 0.05, 0.08, 0.09}),
                              line("Return", "%", Kind::Ratio, {0.1, 0.12, 0.16, 0.05})});
  c.against = true;
  const int one = show(c);
  c.split = 2;
  EXPECT_NE(show(c), one) << "the later regime has marks of its own";
  c.lines[1].figures = figuresOf({kGap, kGap, kGap, kGap});
  EXPECT_GT(show(c), 100) << "no year has both: that is written, not an empty square";
  c.lines.pop_back();
  EXPECT_GT(show(c), 300) << "one line alone is drawn over time";
}

TEST_F(Boards, LeaveAsFiguresWithGapsEmptyAndCommasQuoted) {
  board_.setContent(years({line("Costs, total", "EUR m", Kind::Money, {1.5e6, kGap, -2e6})}));
  EXPECT_EQ(board_.figuresAsCsv().toStdString(), "line,unit,2020,2021,2022\n\"Costs, total\",EUR m,1.5,,-2\n");
  EXPECT_EQ(board_.picture().width(), 1920) << "twice the size, for print";
}

TEST(Charts, AreReadableOnBothPapers) {
  auto& application = *qobject_cast<QApplication*>(QCoreApplication::instance());
  for (const ThemeChoice choice : {ThemeChoice::Dark, ThemeChoice::Light}) {
    applyTheme(application, choice);
    StackedBars bars;
    bars.resize(300, 180);
    bars.setContent(
        QStringLiteral("Parts"), {QStringLiteral("2024"), QStringLiteral("2025")},
        {{QStringLiteral("a part with a very long name indeed, longer than the chart"), figuresOf({5e6, 6e6})},
         {QStringLiteral("b"), figuresOf({kGap, -2e6})}},
        Kind::Money, {});
    EXPECT_GT(coloursIn(bars.grab().toImage()), 4);
    PriceChart prices;
    prices.resize(300, 160);
    prices.setContent({}, {}, QStringLiteral("GBX"));
    const int empty = drawn(prices);
    EXPECT_GT(empty, 100) << "says what belongs there";
    std::vector<PricePoint> closes;
    for (int day = 0; day < 900; ++day)
      closes.push_back({makeDate(2023, 1, 1) + std::chrono::days(day), 500.0 + day % 70});
    prices.setContent(
        closes, {{makeDate(2024, 1, 5), QStringLiteral("recall")}, {makeDate(1999, 1, 1), QStringLiteral("before")}},
        QStringLiteral("GBX"));
    EXPECT_GT(drawn(prices), empty);
    EXPECT_THAT(prices.accessibleDescription().toStdString(), HasSubstr("2024-01-05  recall"));
  }
}

}  // namespace
}  // namespace zl::app
