#pragma once
// Parts of the cost of capital that tables give: spreads by interest cover, country premiums by region, rates of
// another currency.

#include <string>
#include <utility>
#include <vector>

#include "core/capital/rates.h"
#include "core/quantity/figure.h"

namespace zl {

struct Spread {
  double from = 0;    ///< interest cover from which it holds, inclusive
  MarketRate rate{};  ///< as the table has it
};
/// Rows "spread from cover X" at or before a date, the highest cover first; each with its latest figure.
std::vector<Spread> spreadsAt(const MarketRates& rates, Date date);
/// The spread for a cover (EBIT over gross interest): below the last row the last row's. Absent without a table; not
/// meaningful where the cover is not.
struct SpreadFound {
  Figure spread;
  std::string source;
};
SpreadFound spreadFor(const Figure& cover, const std::vector<Spread>& table);

/// Of a region of the sales: what it is called, what it sold, and the premium put on it.
struct RegionPremium {
  std::string region;
  double sales = 0;
  Figure premium;  ///< absent where the table does not have the region
  std::string source;
};
struct CountryPremium {
  Figure premium;                      ///< weighted by sales; absent where no region is in the table
  std::vector<RegionPremium> regions;  ///< as they were given
  int unmapped = 0;                    ///< counted at the mean of those in the table
};
/// Sum of share of sales x premium over regions; a region that the table lacks counts at the mean of the others and is
/// named. Regions are told by their names in plain letters.
CountryPremium countryPremium(const std::vector<std::pair<std::string, double>>& sales, const MarketRates& rates,
                              Date date);

/// A rate of currency a as one of currency b: (1 + r) (1 + i_b) / (1 + i_a) - 1, i the inflation of each. A real rate
/// is one of a currency without inflation.
Figure inCurrency(const Figure& rate, const Figure& inflationA, const Figure& inflationB);

}  // namespace zl
