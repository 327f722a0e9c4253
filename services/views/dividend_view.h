#pragma once
// What the share has paid, in the listing's unit: payments, quarters, fiscal years with growth and cover, the yield.
// In: a snapshot whose book has a series of the company's own name with dividends.

#include <string>
#include <vector>

#include "core/capital/dividend_history.h"
#include "services/stages/snapshot.h"

namespace zl::services {

struct DividendYear {
  DividendSum sum;
  Figure cover;  ///< earnings a share over the regular dividends; absent for a year that is not filed
};

struct DividendView {
  std::vector<DividendPayment> payments;
  std::vector<DividendSum> quarters;
  std::vector<DividendYear> years;
  Figure lastYear;  ///< regular, of the twelve months to the valuation date
  Figure yield;     ///< of those over the price
  std::string words;
};
DividendView dividendView(const Snapshot& s);

}  // namespace zl::services
