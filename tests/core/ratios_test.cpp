// The ratios of history on a company small enough to work by hand.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "tests/support/model_support.h"

namespace zl {
namespace {

using test::figures;

/// Two years; every line that is not named is filed as nought.
test::SmallModel twoYears() {
  test::SmallModel m = test::companyWith(3, {});
  const auto file = [&](const char* line, double before, double now) { m.filed[line] = figures({before, now}); };
  file("revenue", 800, 1000);
  file("cost_of_sales", 480, 600);
  file("operating_expenses", 160, 200);
  file("depreciation", 40, 50);
  file("acquired_amortisation", 4, 8);
  file("ebit", 120, 150);
  file("interest_expense", 20, 25);
  file("interest_income", 2, 5);
  file("pretax_profit", 102, 130);
  file("tax", 25, 30);
  file("net_income", 77, 100);
  file("minority_income", 0, 10);
  file("cash", 60, 100);
  file("receivables", 100, 140);
  file("inventory", 90, 110);
  file("other_current_assets", 10, 10);
  file("plant", 300, 340);
  file("intangibles", 40, 60);
  file("acquired_intangibles", 20, 40);
  file("goodwill", 50, 90);
  file("total_assets", 650, 850);
  file("payables", 80, 110);
  file("other_current_liabilities", 40, 40);
  file("borrowings_current", 30, 50);
  file("borrowings_long", 170, 210);
  file("lease_liabilities", 20, 20);
  file("total_liabilities", 340, 430);
  file("equity", 310, 400);
  file("minorities", 0, 20);
  file("total_equity", 310, 420);
  file("stock_pay", 4, 6);
  file("operating_cash_flow", 110, 120);
  file("plant_bought", 60, 80);
  file("intangibles_bought", 5, 15);
  file("disposals", 5, 5);
  file("acquisitions", 0, 60);
  file("lease_principal", 6, 8);
  file("dividends", 25, 36);
  file("buybacks", 0, 9);
  file("net_borrowing", 0, 60);
  file("minority_dividends", 0, 2);
  file("net_cash_movement", 10, 40);
  file("shares", 10, 10);
  m.theCase.scenarios[1].inputs["marginal_tax"] = {0.25, {}, {}};
  return m;
}

TEST(Ratios, EveryOneAgreesWithItsDefinitionWorkedByHand) {
  const Evaluation e = twoYears().evaluate();
  struct Worked {
    const char* row;
    double figure;
    const char* how;
  };
  // Operating capital: working capital 80 -> 110, plant 300 -> 340, intangibles 40 -> 60, goodwill
  // 50 -> 90: invested 470 -> 600, average 535; without goodwill and acquired intangibles 400 -> 470.
  for (const Worked& w : std::initializer_list<Worked>{
           {"invested_capital", 600, "110 + 340 + 60 + 90"},
           {"roic", 112.5 / 535, "150 x 0.75 over 535"},
           {"roic_without_goodwill", (112.5 + 8 * 0.75) / 435,
            "amortisation after tax added back, over (400 + 470) / 2"},
           {"roce", 150.0 / 650, "850 less current liabilities of 200"},
           {"return_on_assets", 100.0 / 750, "over (650 + 850) / 2"},
           {"roe", 90.0 / 355, "100 less minorities of 10, over (310 + 400) / 2"},
           {"sales_to_capital", 1000.0 / 535, ""},
           {"incremental_sales_to_capital", 200.0 / 130, "revenue + 200 on capital + 130"},
           {"current_ratio", 360.0 / 200, "cash 100, receivables 140, inventory 110, other 10"},
           {"quick_ratio", 240.0 / 200, ""},
           {"interest_cover", 6, "gross interest of 25, not the net 20"},
           {"ebitda_cover", 8, "EBITDA 200 over 25"},
           {"net_interest", 20, ""},
           {"debt_to_capital", 280.0 / 680, "260 + 20 leases over that and equity of 400"},
           {"net_debt_to_ebitda", 180.0 / 200, "260 + 20 - 100"},
           {"capex", 90, "80 + 15 - 5"},
           {"capex_to_depreciation", 1.8, ""},
           {"simple_fcf", 16, "120 - 90 - 8 - 6"},
           {"fcf_as_filed", 30, "120 - 90"},
           {"fcf_margin", 0.016, ""},
           {"operating_cash_margin", 0.12, ""},
           {"cash_conversion", 0.16, "16 over net income of 100"},
           {"profit_to_cash", 1.2, ""},
           {"accruals_ratio", -20.0 / 750, "100 - 120 over average assets"},
           {"total_payout", 0.5, "36 + 9 over 90"},
           {"dividend_cover", 16.0 / 36, ""},
           {"average_receivable_days", 120.0 / 1000 * 365, ""},
           {"average_inventory_days", 100.0 / 600 * 365, ""},
           {"average_payable_days", 95.0 / 600 * 365, ""},
           {"revenue_per_share", 100, ""},
           {"operating_cash_per_share", 12, ""},
           {"fcf_per_share", 1.6, ""},
           {"book_per_share", 40, ""},
           {"earnings_per_share", 9, ""},
           {"walk_other", 120 - 100 - 50 - 6 + 30, "what no line names: working capital took 30"},
           {"use_dividends", 38, "36 and 2 to minorities"},
           {"use_other", 120 - 90 - 60 - 8 - 38 - 9 + 60 - 40, ""},
           {"cash_generated", 120, ""}}) {
    const Figure figure = e.figure(w.row, 1, 1);
    ASSERT_TRUE(figure.hasValue()) << w.row << ": " << figure.reason();
    EXPECT_NEAR(figure.value(), w.figure, 1e-9) << w.row << ", " << w.how;
  }
  EXPECT_NEAR(e.figure("cash_cycle", 1, 1).value(), (120.0 / 1000 + 100.0 / 600 - 95.0 / 600) * 365, 1e-9);
}

TEST(Ratios, TheOldestYearAndUselessDenominatorsHaveNoFigure) {
  test::SmallModel m = twoYears();
  for (const char* needsOpening : {"roic", "roic_without_goodwill", "roe", "return_on_assets", "accruals_ratio",
                                   "incremental_sales_to_capital", "average_receivable_days", "cash_cycle"}) {
    EXPECT_FALSE(m.evaluate().figure(needsOpening, 0, 1).hasValue()) << needsOpening;
  }
  m.filed["equity"] = figures({-400, -310});
  m.filed["net_income"] = figures({77, -100});
  m.filed["interest_expense"] = figures({20, 0});
  m.filed["dividends"] = figures({25, 0});
  m.filed["revenue"] = figures({800, 0});
  const Evaluation e = m.evaluate();
  for (const auto& [row, reason] : std::initializer_list<std::pair<const char*, const char*>>{
           {"roe", "average equity is not positive"},
           {"cash_conversion", "net income is not positive"},
           {"total_payout", "net income is not positive"},
           {"interest_cover", "no interest"},
           {"dividend_cover", "no dividend"},
           {"ebit_margin", "revenue is not positive"},
           {"average_receivable_days", "revenue is not positive"}}) {
    EXPECT_TRUE(e.figure(row, 1, 1).isNotMeaningful()) << row;
    EXPECT_EQ(e.figure(row, 1, 1).reason(), reason) << row;
  }
}

}  // namespace
}  // namespace zl
