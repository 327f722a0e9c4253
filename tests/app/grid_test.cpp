#include <gtest/gtest.h>

#include "app/charts/axis.h"
#include "app/grid/ledger_model.h"

namespace zl::app {
namespace {

TEST(RoundTicks, AreRoundFewAndInside) {
  for (const auto& [low, high] : {std::pair(-0.13, 0.21), {0.0, 1500.0}, {-3e9, -1e9}, {0.0301, 0.0302}}) {
    const std::vector<double> ticks = roundTicks(low, high, 6);
    ASSERT_GE(ticks.size(), 2u);
    EXPECT_LE(ticks.size(), 8u);
    for (double t : ticks) {
      EXPECT_GE(t, low - 1e-9 * std::abs(high));
      EXPECT_LE(t, high + 1e-9 * std::abs(high));
    }
  }
  EXPECT_TRUE(roundTicks(1, 1, 5).empty());
  EXPECT_LE(roundTicks(1e9, 1e9 + 1e-6, 10).size(), 21u) << "far from zero it must end all the same";
  const Scale s{0, 10, 100, 200};
  EXPECT_DOUBLE_EQ(s.figure(s.at(3.7)), 3.7);
}

TEST(LedgerModel, ShowsGapsAndOffersOnlyEditableCells) {
  LedgerModel model;
  LedgerRow row;
  row.label = QStringLiteral("Growth");
  row.kind = Kind::Ratio;
  LedgerCell value, odd, none;
  value.figure = Figure::of(-0.125);
  value.editable = true;
  odd.figure = Figure::notMeaningful("the year before is not positive");
  row.cells = {value, odd, none};
  model.fill({QStringLiteral("a"), QStringLiteral("b"), QStringLiteral("c")}, {row});
  const auto at = [&](int c, int role) { return model.data(model.index(0, c), role); };
  EXPECT_EQ(at(1, Qt::DisplayRole).toString(), QStringLiteral("(12.5)"));
  EXPECT_EQ(at(1, Qt::EditRole).toString(), QStringLiteral("-12.5"));
  EXPECT_EQ(at(2, Qt::DisplayRole).toString(), QStringLiteral("·"));
  EXPECT_EQ(at(2, Qt::ToolTipRole).toString(), QStringLiteral("the year before is not positive"));
  EXPECT_EQ(at(3, Qt::DisplayRole).toString(), QString());
  EXPECT_TRUE(model.flags(model.index(0, 1)) & Qt::ItemIsEditable);
  EXPECT_FALSE(model.flags(model.index(0, 2)) & Qt::ItemIsEditable);
  EXPECT_FALSE(model.setData(model.index(0, 2), QStringLiteral("3"), Qt::EditRole));
}

TEST(LedgerModel, HeadersSayTheUnitOnceAndMarkFlaggedYears) {
  LedgerModel model;
  LedgerRow row;
  LedgerCell figure, words;
  figure.figure = Figure::of(1e6);
  words.words = QStringLiteral("a remark");
  words.left = true;
  row.cells = {figure, words};
  model.setCorner(QStringLiteral("EUR m"));
  model.setFlagged({true, false});
  model.fill({QStringLiteral("2024"), QStringLiteral("remark")}, {row}, true);
  const auto header = [&](int c, int role) { return model.headerData(c, Qt::Horizontal, role); };
  EXPECT_EQ(header(0, Qt::DisplayRole).toString(), QStringLiteral("EUR m"));
  EXPECT_EQ(header(1, Qt::DisplayRole).toString(), QStringLiteral("trend"));
  EXPECT_EQ(header(2, Qt::DisplayRole).toString(), QStringLiteral("2024 ⚑"));
  EXPECT_TRUE(header(3, Qt::TextAlignmentRole).value<Qt::Alignment>() & Qt::AlignLeft);
  EXPECT_TRUE(header(2, Qt::TextAlignmentRole).value<Qt::Alignment>() & Qt::AlignRight);
  EXPECT_EQ(model.plainText(model.index(0, 2)), QStringLiteral("1000000"));
  EXPECT_EQ(model.plainText(model.index(0, 3)), QStringLiteral("a remark"));
}

TEST(LedgerModel, AdjustedAndDoubtedFiguresSaySoInWordsAndMarks) {
  LedgerModel model;
  LedgerRow heading, row;
  heading.heading = true;  // has no cells: it must not decide how a column is aligned
  LedgerCell adjusted, doubted, reason;
  adjusted.figure = doubted.figure = Figure::of(2e6);
  adjusted.adjusted = true;
  doubted.doubted = true;
  reason.words = QStringLiteral("closure");
  reason.left = true;
  row.label = QStringLiteral("EBIT");
  row.cells = {adjusted, doubted, reason};
  model.setTrendTitle(QStringLiteral("scale"));
  model.fill({QStringLiteral("2024"), QStringLiteral("5 yrs"), QStringLiteral("why")}, {heading, row}, true);
  const auto at = [&](int c, int role) { return model.data(model.index(1, c), role).toString(); };
  EXPECT_EQ(model.headerData(1, Qt::Horizontal, Qt::DisplayRole).toString(), QStringLiteral("scale"));
  EXPECT_EQ(at(3, Qt::DisplayRole), QStringLiteral("2.0†"));
  EXPECT_EQ(at(2, Qt::AccessibleTextRole), QStringLiteral("EBIT 2024: 2.0, adjusted"));
  EXPECT_EQ(at(3, Qt::AccessibleTextRole), QStringLiteral("EBIT 5 yrs: 2.0†, doubtful end"));
  EXPECT_EQ(at(2, Qt::DisplayRole), QStringLiteral("2.0")) << "the bar is drawn, the figure stays a figure";
  EXPECT_TRUE(model.readsFromLeft(4));
  EXPECT_FALSE(model.readsFromLeft(2));
}

}  // namespace
}  // namespace zl::app
