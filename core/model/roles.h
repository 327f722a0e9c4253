#pragma once
// What the program itself asks of a model: the price, free cash flow, the value of a share. A model's text
// says which of its rows each one is (`means`), the parser resolves it once, and the code asks by role, never
// by a row's name. A model that lacks a role has nothing to say where the role is asked for, and says so.

#include <array>
#include <cstdint>
#include <string>

#include "core/quantity/kind.h"

namespace zl::model {

enum class Timing;

enum class Role : std::uint8_t {
  // Statements
  Revenue,
  CostOfSales,
  Ebit,
  PretaxProfit,
  Tax,
  NetIncome,
  OwnersProfit,
  InterestExpense,
  Dividends,
  Cash,
  BorrowingsLong,
  Revolver,
  Equity,
  TotalAssets,
  Shares,
  // Measures
  BasisEbitda,
  Fcff,
  SimpleFreeCash,
  EarningsPerShare,
  Nopat,
  Roic,
  CashGenerated,
  // What must be nought
  BalanceGap,
  CashGap,
  FlowGap,
  ProfitGap,
  // Drivers
  RevenueGrowth,
  BorrowingRate,
  RiskFree,
  Beta,
  UnleveredBeta,
  EquityPremium,
  CountryPremium,
  CostOfDebt,
  // Cost of capital and what lies beyond the forecast
  MarginalTax,
  CostOfEquity,
  YearDebtWeight,
  YearEquityWeight,
  Wacc,
  TerminalWacc,
  TerminalGrowth,
  TerminalRule,
  TerminalFlow,
  ReturnWeight,
  ReturnOnNewCapital,
  Perpetuity,
  ExitTerminal,
  TimingShift,
  ImpliedGrowthSimple,
  // One basis
  Leases,
  StockPay,
  ResearchLife,
  // From the firm to a share
  MarketEquity,
  EnterpriseValue,
  Claims,
  DilutedShares,
  ValueBeforeFloor,
  ValuePerShare,
  Shortfall,
  Upside,
  BuyBelow,
  // Given by the market, the record and the calendar
  Price,
  QuoteRate,
  SharesNow,
  PartsEnterpriseValue,
  Options,
  OptionStrike,
  UnvestedShares,
  ConvertibleShares,
  ConvertibleFace,
  Stub,
  YearsPassed,
  BaseFiscalYear,
};

inline constexpr size_t kRoles = static_cast<size_t>(Role::BaseFiscalYear) + 1;
inline constexpr size_t kMostRoles = 80;  ///< what the program may ask for by itself; everything else is a view
static_assert(kRoles <= kMostRoles);

/// A role as model text names it, what a row must be to play it, and what rests in a model without it.
struct RoleSpec {
  Role role;
  const char* name;
  Kind kind;
  Timing timing;
  const char* feature;  ///< "interest cover rests"
  /// Options that the program tells apart, in order; none for a role that is no choice.
  std::array<const char*, 2> options = {nullptr, nullptr};
};

/// In the order of Role.
const std::array<RoleSpec, kRoles>& roleSpecs();
const RoleSpec& specOf(Role role);
/// Null where no role is called so.
const RoleSpec* roleNamed(const std::string& name);

}  // namespace zl::model
