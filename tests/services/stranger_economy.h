#pragma once
// Invented companies whose future is known: a firm's economics drawn from a seed, its history with noise, and what its
// flows of forty years are worth. Nothing here is shared with the product: no rule, no rate, no constant of the first
// outlook is known to it (docs/testing.md, "Strangers").

#include <cstdint>
#include <vector>

namespace zl::test {

/// What kind of firm it is; how it writes its statements is another matter.
enum class Trade {
  Steady,    ///< growth that fades, a margin that wobbles
  Turned,    ///< losses for years, profit for three or four
  Cyclical,  ///< at the peak of its cycle, more cash than debt
};

/// One year in units as printed. Every total is the sum of its rounded parts, so that statements tie to the unit.
struct EconomyYear {
  long revenue = 0, costOfSales = 0, overhead = 0, depreciation = 0, ebit = 0;  ///< costs before depreciation
  long interest = 0, interestIncome = 0, pretax = 0, tax = 0, net = 0;
  long cash = 0, receivables = 0, inventory = 0, otherCurrent = 0, plant = 0, rightOfUse = 0, goodwill = 0;
  long payables = 0, otherOwed = 0, debtCurrent = 0, debtLong = 0, leases = 0, equity = 0;
  long operatingFlow = 0, capex = 0, borrowed = 0, dividends = 0, movement = 0;
  long rent = 0;    ///< of operating leases, within overhead
  long staff = 0;   ///< within overhead
  long shares = 0;  ///< in units as printed
  [[nodiscard]] long currentAssets() const { return cash + receivables + inventory + otherCurrent; }
  [[nodiscard]] long assets() const { return currentAssets() + plant + rightOfUse + goodwill; }
  [[nodiscard]] long currentOwed() const { return payables + otherOwed + debtCurrent; }
  [[nodiscard]] long owed() const { return currentOwed() + debtLong + leases; }
};

struct Economy {
  std::vector<EconomyYear> years;  ///< oldest first
  double valuePerShare = 0;        ///< at the last year's end, in units as printed per share
  double wacc = 0;
};

/// The same seed gives the same firm. `leased`: it rents, and its statements have operating leases.
Economy drawEconomy(Trade trade, std::uint64_t seed, int years, bool leased);

}  // namespace zl::test
