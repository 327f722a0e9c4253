#pragma once
// A share's price against its own past, in listing units.

#include <vector>

#include "core/capital/rates.h"
#include "core/quantity/figure.h"

namespace zl {

struct PriceSummary {
  Figure last;
  Date lastDate{};
  Figure low52, high52;        ///< closes of the last 365 days
  Date lowDate{}, highDate{};  ///< the last days of these closes
  Figure average200;           ///< mean of the last 200 closes
  Figure drawdown;             ///< last over the running peak, less one
  Figure deepest;              ///< the worst drawdown of all its history
  Figure return1, return5;     ///< price alone over 365 days and five years
  Figure swing;  ///< yearly: standard deviation of the last 365 days' close-to-close returns x root of their count
};

/// As of a date; absent parts where history is too short. `prices` ascending by date.
PriceSummary summarise(const std::vector<PricePoint>& prices, Date asOf);

}  // namespace zl
