#pragma once
// Dated rates and yields of the economy, each with its source.

#include <cstdint>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/peers/peer.h"

namespace zl {

struct MarketRate {
  std::string name;  ///< "risk-free EUR", "equity premium EUR", "spot EUR/GBP"
  Date date{};
  double figure = 0;  ///< a fraction (0.03 = 3 %), or units of the second currency for one of the first
  std::string source;
  bool typed = false;  ///< by the analyst: nothing that is not typed takes its place
};

/// How rates by country, region and interest cover are called in a book: what follows is the country or region, or the
/// cover from which a spread holds.
inline constexpr const char* kCountryPremium = "country premium ";
inline constexpr const char* kCountryTax = "tax ";
inline constexpr const char* kCoverSpread = "spread from cover ";

/// Rates of any number of tables, by name and date.
class MarketRates {
 public:
  MarketRates() = default;
  MarketRates(std::vector<MarketRate> rates) { merge(std::move(rates)); }

  /// Adds a table: of two figures for one name and day the one that came later stands, or the one that was typed.
  void merge(std::vector<MarketRate> later);
  [[nodiscard]] bool empty() const { return byName_.empty(); }
  [[nodiscard]] auto begin() const { return byName_.begin(); }
  [[nodiscard]] auto end() const { return byName_.end(); }

 private:
  std::vector<MarketRate> byName_;  ///< ascending by name, then date; one figure for each
};

/// The latest rate of a name at or before a date; empty when there is none.
std::optional<MarketRate> rateAt(const MarketRates& rates, const std::string& name, Date date);

/// All pairs "spot AAA/BBB" at or before a date: units of BBB for one AAA.
SpotRates spotRatesAt(const MarketRates& rates, Date date);

struct PricePoint {
  Date date;
  double close;               ///< in listing units
  std::int64_t document = 0;  ///< that it came in with; 0: it was fetched
  std::string source = {};    ///< of what was fetched or typed, and when
  bool typed = false;         ///< by the analyst: nothing that is not typed takes its place
};

/// Adds closes to those there are: of two for one day the one that came later stands, or the one that was typed. Both
/// ascending by date.
void mergePrices(std::vector<PricePoint>& prices, const std::vector<PricePoint>& later);
/// The last close at or before a date; `prices` ascending by date.
std::optional<PricePoint> closeAt(const std::vector<PricePoint>& prices, Date date);

}  // namespace zl
