#include "core/capital/rates.h"

#include <algorithm>

namespace zl {

std::optional<MarketRate> rateAt(const std::vector<MarketRate>& rates, const std::string& name, Date date) {
  const MarketRate* best = nullptr;
  for (const MarketRate& r : rates) {
    if (r.name == name && r.date <= date && (best == nullptr || r.date > best->date)) best = &r;
  }
  return best == nullptr ? std::nullopt : std::optional(*best);
}

SpotRates spotRatesAt(const std::vector<MarketRate>& rates, Date date) {
  SpotRates found;
  for (const MarketRate& r : rates) {
    if (r.name.size() != 12 || r.name.compare(0, 5, "spot ") != 0 || r.name[8] != '/') continue;
    if (const std::optional<MarketRate> latest = rateAt(rates, r.name, date)) {
      found[{r.name.substr(5, 3), r.name.substr(9, 3)}] = latest->figure;
    }
  }
  return found;
}

std::optional<PricePoint> closeAt(const std::vector<PricePoint>& prices, Date date) {
  const auto after =
      std::upper_bound(prices.begin(), prices.end(), date, [](Date d, const PricePoint& p) { return d < p.date; });
  if (after == prices.begin()) return std::nullopt;
  return *std::prev(after);
}

}  // namespace zl
