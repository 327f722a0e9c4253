#pragma once
// The standard model's arithmetic written by hand, one trial at a time: the yardstick for the
// compiled tape. It must give the same value per share; the benchmark refuses to run when not.

#include <array>

namespace zl::bench {

inline constexpr int kYears = 10;
using Path = std::array<double, kYears>;

/// The drivers in the order of hand_written_model.cpp's names; constants likewise.
struct Trial {
  Path revenue_growth, cost_of_sales_ratio, operating_expense_ratio, exceptional_ratio, tax_rate, capex_ratio,
      intangible_share, new_lease_ratio, depreciation_rate, acquisition_ratio, receivable_days, inventory_days,
      payable_days, other_current_asset_ratio, other_current_liability_ratio, borrowing_rate, cash_yield, debt_growth,
      lease_repayment_rate, minimum_cash_ratio, other_income_ratio, minority_share, payout, buyback_payout,
      stock_pay_ratio, preferred_rate, risk_free, beta, equity_premium, country_premium, country_exposure,
      size_addition, cost_of_debt;
  double marginal_tax, use_target_weights, target_debt_weight, cost_of_preferred, terminal_growth, return_weight,
      terminal_rule, exit_multiple, terminal_choice, mid_year, operating_cash_share, loss_limit, distributions_since;
};

struct Start {  // the base year and the market
  double revenue, cash, receivables, inventory, other_current_assets, plant, right_of_use, intangibles, goodwill,
      associates, other_noncurrent_assets, payables, other_current_liabilities, borrowings_current, borrowings_long,
      lease_liabilities, pension_deficit, other_noncurrent_liabilities, equity, minorities, preferred, tax_losses;
  double price, quote_rate, shares_now, options, option_strike, unvested_shares, convertible_shares, convertible_face,
      stub;
};

/// Value per share of one trial, floored at zero; NaN where it has none.
double valuePerShare(const Start& s, const Trial& t);

}  // namespace zl::bench
