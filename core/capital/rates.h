#pragma once
// Dated rates and yields of the economy, each with its source.

#include <optional>
#include <string>
#include <vector>

#include "core/peers/peer.h"

namespace zl {

struct MarketRate {
  std::string name;  ///< "risk-free EUR", "equity premium EUR", "spot EUR/GBP"
  Date date{};
  double figure = 0;  ///< a fraction (0.03 = 3 %), or units of the second currency for one of the first
  std::string source;
};

/// The latest rate of a name at or before a date; empty when there is none.
std::optional<MarketRate> rateAt(const std::vector<MarketRate>& rates, const std::string& name, Date date);

/// All pairs "spot AAA/BBB" at or before a date: units of BBB for one AAA.
SpotRates spotRatesAt(const std::vector<MarketRate>& rates, Date date);

struct PricePoint {
  Date date;
  double close;  ///< in listing units
};
/// The last close at or before a date; `prices` ascending by date.
std::optional<PricePoint> closeAt(const std::vector<PricePoint>& prices, Date date);

}  // namespace zl
