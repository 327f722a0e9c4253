#pragma once
// Peers in a table of the market: a row for each, its figures of one fiscal year or of several side by side.

#include <optional>
#include <set>
#include <string>
#include <tuple>
#include <vector>

#include "services/intake/market_reading.h"

namespace zl::services {

class PeerRows {
 public:
  explicit PeerRows(MarketReading& table) : table_(table) {}
  /// Begins the table and adds a line for every year of every peer.
  void readPeers();

 private:
  /// "2026E", "2026 e": a year that is not filed yet.
  static bool isExpected(std::string year);
  /// The fiscal years that headings of figures name, by time; before them one of no name, unless one of them is filed,
  /// to which figures without a year belong.
  [[nodiscard]] std::vector<std::optional<PeriodHeading>> findYears();
  /// Whether a year is expected: marked so, or not over on the day of the table.
  [[nodiscard]] bool isAhead(const PeriodHeading& year, Date ends) const;
  static unsigned monthOf(Date day);
  [[nodiscard]] bool holdsAny(size_t row, const std::vector<std::string>& amounts) const;
  void tellWhatWasTaken(bool yearsNamed);
  /// One year of one peer.
  void readPeer(size_t r, const std::string& name, const std::vector<std::string>& amounts);
  /// Counts of shares: as their heading says, else in the unit of the amounts where they are as small.
  [[nodiscard]] double sharesScale() const;

  MarketReading& table_;
  bool claimsAssumed_ = false;
  bool scaleTold_ = false;
  std::string assumed_;                                 ///< the currency, where neither table nor peer says one
  std::set<std::tuple<std::string, Date, bool>> seen_;  ///< peer, year's end, expected
};

}  // namespace zl::services
