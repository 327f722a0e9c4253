#include "core/model/roles.h"

#include <algorithm>

#include "core/model/syntax.h"

namespace zl::model {

const std::array<RoleSpec, kRoles>& roleSpecs() {
  constexpr auto kFlow = Timing::Flow;
  constexpr auto kBalance = Timing::Balance;
  constexpr auto kRate = Timing::Rate;
  constexpr auto kConstant = Timing::Constant;
  static const std::array<RoleSpec, kRoles> kSpecs = {{
      {Role::Revenue, "revenue", Kind::Money, kFlow, "growth, margins and shares of revenue"},
      {Role::CostOfSales, "cost_of_sales", Kind::Money, kFlow, "checks of scale and sign"},
      {Role::Ebit, "ebit", Kind::Money, kFlow, "adjustments carried into profit, margins of segments"},
      {Role::PretaxProfit, "pretax_profit", Kind::Money, kFlow, "adjustments carried into profit"},
      {Role::Tax, "tax", Kind::Money, kFlow, "tax on adjustments"},
      {Role::NetIncome, "net_income", Kind::Money, kFlow, "adjustments carried into profit"},
      {Role::OwnersProfit, "owners_profit", Kind::Money, kFlow, "price to earnings, the make-up of profit"},
      {Role::InterestExpense, "interest_expense", Kind::Money, kFlow, "the monitor of net interest used as gross"},
      {Role::Dividends, "dividends", Kind::Money, kFlow, "the dividend yield and the monitor of dividends"},
      {Role::Cash, "cash", Kind::Money, kBalance, "the monitor of negative cash"},
      {Role::BorrowingsLong, "borrowings_long", Kind::Money, kBalance, "the build of debt by tranche"},
      {Role::Revolver, "revolver", Kind::Money, kBalance, "the monitor of a drawn revolver"},
      {Role::Equity, "equity", Kind::Money, kBalance, "price to book, the monitor of negative equity"},
      {Role::TotalAssets, "total_assets", Kind::Money, kBalance, "the size that gaps are measured against"},
      {Role::Shares, "shares", Kind::Shares, kBalance, "figures per share, the monitors of share counts"},
      {Role::BasisEbitda, "basis_ebitda", Kind::Money, kFlow, "enterprise value to EBITDA"},
      {Role::Fcff, "fcff", Kind::Money, kFlow, "the chart of free cash flow, the monitor of a negative base year"},
      {Role::SimpleFreeCash, "simple_free_cash", Kind::Money, kFlow, "the free cash yield, the monitor of dividends"},
      {Role::EarningsPerShare, "earnings_per_share", Kind::PerShare, kFlow, "the make-up of earnings per share"},
      {Role::Nopat, "nopat", Kind::Money, kFlow, "the growth that an exit multiple implies"},
      {Role::Roic, "roic", Kind::Ratio, kRate, "the monitor of returns that do not fade"},
      {Role::CashGenerated, "cash_generated", Kind::Money, kFlow, "the uses of cash"},
      {Role::BalanceGap, "balance_gap", Kind::Money, kBalance, "the check that the balance sheet balances"},
      {Role::CashGap, "cash_gap", Kind::Money, kFlow, "the check of the movement in cash"},
      {Role::FlowGap, "flow_gap", Kind::Money, kFlow, "the reconciliation of free cash flow"},
      {Role::ProfitGap, "profit_gap", Kind::Money, kConstant, "the check of economic profit against cash flows"},
      {Role::RevenueGrowth, "revenue_growth", Kind::Ratio, kRate, "the build of revenue, the monitor of growth"},
      {Role::BorrowingRate, "borrowing_rate", Kind::Ratio, kRate, "the build of debt by tranche"},
      {Role::RiskFree, "risk_free", Kind::Ratio, kRate, "the monitor of growth above the risk-free rate"},
      {Role::Beta, "beta", Kind::Multiple, kRate, "what rivals the beta in force"},
      {Role::UnleveredBeta, "unlevered_beta", Kind::Multiple, kRate, "what rivals the beta without debt"},
      {Role::EquityPremium, "equity_premium", Kind::Ratio, kRate, "what rivals the equity premium"},
      {Role::CountryPremium, "country_premium", Kind::Ratio, kRate, "the country premium by region of sales"},
      {Role::CostOfDebt, "cost_of_debt", Kind::Ratio, kRate, "what rivals the cost of debt"},
      {Role::MarginalTax, "marginal_tax", Kind::Ratio, kConstant, "tax on adjustments"},
      {Role::CostOfEquity, "cost_of_equity", Kind::Ratio, kRate, "the dated target, the implied cost of equity"},
      {Role::YearDebtWeight, "year_debt_weight", Kind::Ratio, kRate, "betas relevered at the subject's weights"},
      {Role::YearEquityWeight, "year_equity_weight", Kind::Ratio, kRate, "betas relevered at the subject's weights"},
      {Role::Wacc, "wacc", Kind::Ratio, kRate, "the chart of the cost of capital, the monitor of returns"},
      {Role::TerminalWacc, "terminal_wacc", Kind::Ratio, kConstant, "monitors of the perpetuity"},
      {Role::TerminalGrowth, "terminal_growth", Kind::Ratio, kConstant, "monitors of the perpetuity"},
      {Role::TerminalRule,
       "terminal_rule",
       Kind::Count,
       kConstant,
       "the growth that an exit multiple implies",
       {"value_driver", "simple_growth"}},
      {Role::TerminalFlow, "terminal_flow", Kind::Money, kConstant, "the monitor of growth above returns"},
      {Role::ReturnWeight, "return_weight", Kind::Ratio, kConstant, "the monitor of returns for ever"},
      {Role::ReturnOnNewCapital, "return_on_new_capital", Kind::Ratio, kConstant, "monitors of the perpetuity"},
      {Role::Perpetuity, "perpetuity", Kind::Money, kConstant, "monitors of the perpetuity"},
      {Role::ExitTerminal, "exit_terminal", Kind::Money, kConstant, "the growth that an exit multiple implies"},
      {Role::TimingShift, "timing_shift", Kind::Ratio, kConstant, "the growth that an exit multiple implies"},
      {Role::ImpliedGrowthSimple, "implied_growth_simple", Kind::Ratio, kConstant,
       "the growth that an exit multiple implies"},
      {Role::Leases, "leases", Kind::Count, kConstant, "the basis of leases", {"rent", "debt"}},
      {Role::StockPay, "stock_pay", Kind::Count, kConstant, "the basis of stock pay", {"added_back", "cost"}},
      {Role::ResearchLife, "research_life", Kind::Count, kConstant, "the basis of research"},
      {Role::MarketEquity, "market_equity", Kind::Money, kConstant, "what the market makes of the company"},
      {Role::EnterpriseValue, "enterprise_value", Kind::Money, kConstant,
       "value where the count of shares is not known"},
      {Role::Claims, "claims", Kind::Money, kConstant, "enterprise value at the market's price"},
      {Role::DilutedShares, "diluted_shares", Kind::Shares, kConstant, "values per share"},
      {Role::ValueBeforeFloor, "value_before_floor", Kind::Quote, kConstant, "value walks and effects on value"},
      {Role::ValuePerShare, "value_per_share", Kind::Quote, kConstant, "the value of a share"},
      {Role::Shortfall, "shortfall", Kind::Quote, kConstant, "the monitor of negative equity value"},
      {Role::Upside, "upside", Kind::Ratio, kConstant, "the sentence of the verdict"},
      {Role::BuyBelow, "buy_below", Kind::Quote, kConstant, "the mark of the price to buy below"},
      {Role::Price, "price", Kind::Quote, kConstant, "the share price"},
      {Role::QuoteRate, "quote_rate", Kind::QuoteRate, kConstant, "values in the listing's unit"},
      {Role::SharesNow, "shares_now", Kind::Shares, kConstant, "the count of shares on record"},
      {Role::PartsEnterpriseValue, "parts_enterprise_value", Kind::Money, kConstant,
       "what the parts are worth together"},
      {Role::Options, "options", Kind::Shares, kConstant, "options on record"},
      {Role::OptionStrike, "option_strike", Kind::Quote, kConstant, "options on record"},
      {Role::UnvestedShares, "unvested_shares", Kind::Shares, kConstant, "unvested shares on record"},
      {Role::ConvertibleShares, "convertible_shares", Kind::Shares, kConstant, "convertibles on record"},
      {Role::ConvertibleFace, "convertible_face", Kind::Money, kConstant, "convertibles on record"},
      {Role::Stub, "stub", Kind::Ratio, kConstant, "the part of the valuation year still to come"},
      {Role::YearsPassed, "years_passed", Kind::Count, kConstant, "years that ended before the valuation date"},
      {Role::BaseFiscalYear, "base_fiscal_year", Kind::Count, kConstant, "fiscal years of the forecast"},
  }};
  return kSpecs;
}

const RoleSpec& specOf(Role role) {
  return roleSpecs()[static_cast<size_t>(role)];
}

const RoleSpec* roleNamed(const std::string& name) {
  const auto& all = roleSpecs();
  const auto found = std::find_if(all.begin(), all.end(), [&](const RoleSpec& spec) { return name == spec.name; });
  return found == all.end() ? nullptr : &*found;
}

}  // namespace zl::model
