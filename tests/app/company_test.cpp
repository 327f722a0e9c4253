// The Company page: everything on one screen, by key, and what it says where nothing is known.

#include <gmock/gmock.h>

#include <QComboBox>
#include <QSpinBox>

#include "app/charts/stacked_bars.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

using testing::HasSubstr;

class CompanyByHand : public WindowFixture {};

TEST_F(CompanyByHand, OneScreenSaysWhatTheCompanyIs) {
  go(Qt::Key_1);
  EXPECT_TRUE(find<QWidget>("CompanyPage")->isVisible());
  EXPECT_THAT(find<QLabel>("companyFacts")->text().toStdString(), HasSubstr("one receipt for 2 shares"));
  EXPECT_THAT(find<QWidget>("businessBars")->accessibleDescription().toStdString(),
              HasSubstr("Service and Parts: 2020"));
  EXPECT_THAT(find<QWidget>("priceChart")->accessibleDescription().toStdString(), HasSubstr("Recall of a dosing head"));
  for (const char* chart : {"businessBars", "regionBars", "dueBars", "priceChart"})
    EXPECT_GT(coloursIn(find<QWidget>(chart)->grab().toImage()), 4) << chart;
  auto* key = find<LedgerView>("keyFigures");
  place(key, QStringLiteral("roic"), 0);
  EXPECT_THAT(find<QLabel>("traceTitle")->text().toStdString(), HasSubstr("Return on invested capital 2025"));
  auto* parts = find<LedgerView>("companyParts");
  const auto& rows = parts->ledger().ledgerRows();
  const auto row = [&](const char* label) {
    const auto found =
        std::find_if(rows.begin(), rows.end(), [&](const LedgerRow& r) { return r.label == QLatin1String(label); });
    EXPECT_NE(found, rows.end()) << label;
    return found == rows.end() ? rows.front() : *found;
  };
  EXPECT_NEAR(
      row("Margin change: mix").cells[11].figure.value() + row("Margin change: within parts").cells[11].figure.value(),
      row("Margin change").cells[11].figure.value(), 1e-12);
  EXPECT_EQ(row("Machines installed").unit, QStringLiteral("thousand"));
}

TEST_F(CompanyByHand, TheBasisIsChosenByKeyOrFromTheTable) {
  go(Qt::Key_1);
  const auto chosen = [&](const char* input) {
    const InputChoice* choice = bench().now().caseOf().input(bench().now().caseOf().base(), input);
    return choice == nullptr ? -1 : choice->figure;
  };
  auto* leases = find<QComboBox>("leaseBasis");
  auto* table = find<LedgerView>("oneBasis");
  const auto valuePerShare = [&](size_t column) {
    const auto& rows = table->ledger().ledgerRows();
    const auto row = std::find_if(rows.begin(), rows.end(), [](const LedgerRow& r) { return r.strong; });
    return row == rows.end() ? Figure::absent("no such row") : row->cells.at(column).figure;
  };
  const Figure asRent = valuePerShare(1);
  ASSERT_TRUE(asRent.hasValue());
  leases->setFocus();
  QTest::keyClick(leases, Qt::Key_Up);
  EXPECT_EQ(chosen("leases_as_debt"), 0);
  EXPECT_EQ(valuePerShare(0), asRent) << "as the table said it would be";
  auto* research = find<QSpinBox>("researchBasis");
  research->setFocus();
  QTest::keyClick(research, Qt::Key_Up);
  QTest::keyClick(research, Qt::Key_Up);
  EXPECT_EQ(chosen("research_life"), 2);
  // The fourth figure column is stock pay the other way.
  table->setFocus();
  table->setCurrentIndex(table->model()->index(0, 4));
  QTest::keyClick(table, Qt::Key_Return);
  EXPECT_EQ(chosen("stock_pay_as_cost"), 0);
  EXPECT_EQ(find<QComboBox>("stockPayBasis")->currentIndex(), 0);
}

TEST_F(CompanyByHand, ACompanyWithoutPartsSaysHowToBringThem) {
  StackedBars bars;
  bars.resize(300, 160);
  bars.setContent(QStringLiteral("Revenue by business"), {}, {}, Kind::Money,
                  QStringLiteral("No figures by part are filed"));
  EXPECT_GT(coloursIn(bars.grab().toImage()), 1) << "the reason is written where the bars would be";
  bars.setContent(QStringLiteral("With a loss"), {QStringLiteral("2024"), QStringLiteral("2025")},
                  {{QStringLiteral("a"), {Figure::of(5e6), Figure::of(-3e6)}},
                   {QStringLiteral("b"), {Figure::of(2e6), Figure::absent()}}},
                  Kind::Money, {});
  EXPECT_THAT(bars.accessibleDescription().toStdString(), HasSubstr("a: 2024 5.0, 2025 (3.0)"));
  EXPECT_GT(coloursIn(bars.grab().toImage()), 4);
}

}  // namespace
}  // namespace zl::app
