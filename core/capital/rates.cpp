#include "core/capital/rates.h"

#include <algorithm>
#include <iterator>
#include <tuple>

namespace zl {

namespace {

bool isPair(const std::string& name) {
  return name.size() == 12 && name.compare(0, 5, "spot ") == 0 && name[8] == '/';
}

/// Keeps the last of entries that are the same by `less`, or the last that was typed; they come ordered by it.
template <class T, class Less>
void keepLast(std::vector<T>& ordered, const Less& less) {
  size_t kept = 0;
  for (size_t i = 0; i < ordered.size(); ++i) {
    if (i + 1 < ordered.size() && !less(ordered[i], ordered[i + 1])) {
      if (ordered[i].typed && !ordered[i + 1].typed) ordered[i + 1] = std::move(ordered[i]);
      continue;
    }
    if (kept != i) ordered[kept] = std::move(ordered[i]);
    ++kept;
  }
  ordered.resize(kept);
}

}  // namespace

void MarketRates::merge(std::vector<MarketRate> later) {
  const auto less = [](const MarketRate& a, const MarketRate& b) {
    return std::tie(a.name, a.date) < std::tie(b.name, b.date);
  };
  byName_.insert(byName_.end(), std::make_move_iterator(later.begin()), std::make_move_iterator(later.end()));
  std::stable_sort(byName_.begin(), byName_.end(), less);
  keepLast(byName_, less);
}

std::optional<MarketRate> rateAt(const MarketRates& rates, const std::string& name, Date date) {
  const auto after =
      std::upper_bound(rates.begin(), rates.end(), std::tie(name, date),
                       [](const auto& key, const MarketRate& r) { return key < std::tie(r.name, r.date); });
  if (after == rates.begin() || std::prev(after)->name != name) return std::nullopt;
  return *std::prev(after);
}

SpotRates spotRatesAt(const MarketRates& rates, Date date) {
  SpotRates found;
  for (const MarketRate& r : rates) {  // ascending by date within a name: the last one stays
    if (r.date <= date && isPair(r.name)) found[{r.name.substr(5, 3), r.name.substr(9, 3)}] = r.figure;
  }
  return found;
}

void mergePrices(std::vector<PricePoint>& prices, const std::vector<PricePoint>& later) {
  const auto less = [](const PricePoint& a, const PricePoint& b) { return a.date < b.date; };
  const auto there = static_cast<std::ptrdiff_t>(prices.size());
  prices.insert(prices.end(), later.begin(), later.end());
  std::inplace_merge(prices.begin(), prices.begin() + there, prices.end(), less);
  keepLast(prices, less);
}

std::optional<PricePoint> closeAt(const std::vector<PricePoint>& prices, Date date) {
  const auto after =
      std::upper_bound(prices.begin(), prices.end(), date, [](Date d, const PricePoint& p) { return d < p.date; });
  if (after == prices.begin()) return std::nullopt;
  return *std::prev(after);
}

}  // namespace zl
