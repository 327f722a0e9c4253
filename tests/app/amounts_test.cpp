// The unit that amounts are shown and typed in: what fits the company, or what was chosen for it.

#include "app/look/amounts.h"

#include <gmock/gmock.h>

#include <QComboBox>

#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

TEST(Amounts, FitTheLargestInSixDigitsAtMost) {
  const std::tuple<double, int, const char*, const char*> kCases[] = {{0.01, 3, "EUR k", "0.0"},
                                                                      {2e5, 3, "EUR k", "200.0"},
                                                                      {999999, 3, "EUR k", "1,000.0"},
                                                                      {1e6, 6, "EUR m", "1.0"},
                                                                      {7.937e8, 6, "EUR m", "793.7"},
                                                                      {9.99e11, 6, "EUR m", "999,000.0"},
                                                                      {1e12, 9, "EUR bn", "1,000.0"},
                                                                      {1e14, 9, "EUR bn", "100,000.0"},
                                                                      {1e15, 9, "EUR bn", "1,000,000.0"},
                                                                      {-3e12, 9, "EUR bn", "(3,000.0)"},
                                                                      {0, 6, "EUR m", "0.0"}};
  for (const auto& [amount, power, unit, shown] : kCases) {
    EXPECT_EQ(fittingPower(amount), power) << amount;
    setAmountPower(power);
    EXPECT_EQ(shownUnitText(Kind::Money, "EUR", "EUR").toStdString(), unit);
    EXPECT_EQ(shownText(Figure::of(amount), Kind::Money).toStdString(), shown);
  }
  setAmountPower(9);
  EXPECT_EQ(*typedShown("1.5", Kind::Money), 1.5e9) << "a bare number is in the shown unit";
  EXPECT_EQ(*typedShown("350m", Kind::Money), 350e6) << "a suffix says what it is";
  EXPECT_EQ(*typedShown("12", Kind::Ratio), 0.12);
  EXPECT_EQ(*typedShown("12", Kind::Shares), 12e6) << "counts stay in millions";
  EXPECT_EQ(*typedShownList("1; 2", Kind::Money), (std::vector<double>{1e9, 2e9}));
  EXPECT_EQ(*typedShownList("1%; 2%", Kind::Ratio), (std::vector<double>{0.01, 0.02}));
  EXPECT_EQ(shownText(Figure::of(0.5), Kind::Ratio), QStringLiteral("50.0"));
  setAmountPower(6);
}

class AmountUnit : public WindowFixture {
 protected:
  QString corner() {
    return find<LedgerView>("keyFigures")->ledger().headerData(0, Qt::Horizontal, Qt::DisplayRole).toString();
  }
  QString revenue() {
    const LedgerModel& ledger = find<LedgerView>("keyFigures")->ledger();
    return ledger.data(ledger.index(0, ledger.firstColumn()), Qt::DisplayRole).toString();
  }
  void choose(int power) {
    auto* unit = find<QComboBox>("amountUnit");
    unit->setCurrentIndex(unit->findData(power));
    Q_EMIT unit->activated(unit->currentIndex());
  }
};

TEST_F(AmountUnit, IsChosenWithOneControlAndKept) {
  go(Qt::Key_1);
  EXPECT_EQ(corner(), QStringLiteral("EUR m"));
  EXPECT_EQ(revenue(), QStringLiteral("723.7"));
  choose(3);
  EXPECT_EQ(corner(), QStringLiteral("EUR k"));
  EXPECT_TRUE(revenue().startsWith(QStringLiteral("723,70"))) << revenue().toStdString();
  window_.reset();
  start();
  ASSERT_TRUE(window_->openBook(path()));
  go(Qt::Key_1);
  EXPECT_EQ(corner(), QStringLiteral("EUR k")) << "of this company, the next time too";
  choose(0);
  EXPECT_EQ(corner(), QStringLiteral("EUR m"));
}

}  // namespace
}  // namespace zl::app
