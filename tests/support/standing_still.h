#pragma once
// A company that stands still, so that its value is a perpetuity that can be worked out by hand.

#include "tests/support/model_support.h"

namespace zl {

/// Revenue 1,000, EBITDA 250, depreciation 50 = capex, working capital still, no debt, no cash.
/// NOPAT = (250 - 50) * 0.75 = 150 = free cash flow for ever; the rate is 10 %.
class StandingStill : public testing::Test {
 protected:
  void SetUp() override {
    m_ = test::companyWith(5, {{"revenue", 1000},
                               {"cost_of_sales", 500},
                               {"operating_expenses", 250},
                               {"depreciation", 50},
                               {"ebit", 200},
                               {"pretax_profit", 200},
                               {"tax", 50},
                               {"net_income", 150},
                               {"receivables", 100},
                               {"inventory", 50},
                               {"plant", 500},
                               {"total_assets", 650},
                               {"payables", 50},
                               {"total_liabilities", 50},
                               {"equity", 600},
                               {"total_equity", 600},
                               {"operating_cash_flow", 200},
                               {"plant_bought", 50},
                               {"dividends", 150},
                               {"net_cash_movement", 0},
                               {"shares", 10}});
    assume("risk_free", 0.10);
    assume("beta", 0);
    assume("borrowing_rate", 0);
    assume("cost_of_debt", 0);
    assume("cash_yield", 0);
    assume("lease_repayment_rate", 0);
    assume("debt_growth", 0);
    assume("minority_share", 0);
    choose("terminal_growth", 0);
    choose("mid_year", 0);
  }

  void assume(const std::string& row, double level) {
    Path path;
    path.level = level;
    m_.theCase.scenarios[1].drivers[row] = {path, {}};
  }
  void choose(const std::string& row, double figure) { m_.theCase.scenarios[1].inputs[row] = {figure, {}, {}}; }
  static double constant(const Evaluation& e, const char* row) {
    const Figure f = e.constant(row, 1);
    EXPECT_TRUE(f.hasValue()) << row << ": " << f.reason();
    return f.valueOr(0);
  }

  test::SmallModel m_;
};

}  // namespace zl
