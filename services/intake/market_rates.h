#pragma once
// Rates in a table of the market: by name, premiums and tax by country or region, spreads by interest cover; and levels
// of series by name and day.

#include <optional>
#include <string>

#include "services/intake/market_reading.h"

namespace zl::services {

inline constexpr const char* kRateHeadings = "rate,date,figure,source";

/// Each adds the lines of its kind to a table that has begun; series begin their own.
class RateRows {
 public:
  explicit RateRows(MarketReading& table) : table_(table) {}
  void readSeries();
  void readByRegion();
  void readSpreads();
  void readRates();

 private:
  /// A rate of the economy as it is written: without a sign a column of figures above a half is in per cent.
  [[nodiscard]] double perCentOf(const std::string& is);
  /// Adds one rate of a row, dated and sourced as the row says. False where the cell holds no figure.
  bool addRate(size_t row, const std::string& rate, const std::string& is, double factor);
  /// "8.5", "> 8.5", "6.5 - 8.5": from its lower end on; "< 0.2" is the lowest row.
  [[nodiscard]] static std::optional<double> lowerEnd(const std::string& text);

  MarketReading& table_;
};

}  // namespace zl::services
