#pragma once
// Levels of an index, closes of another company's share: series of the market by name, shared by all companies of a
// book.

#include <string>
#include <vector>

#include "core/period/date.h"

namespace zl {

struct SeriesPoint {
  Date date;
  double level = 0;     ///< of an index in points, of a share in the series' unit; positive
  double dividend = 0;  ///< paid a share, in the same unit, on its first day without it
  std::string source = {};
};

struct MarketSeries {
  std::string name;                 ///< an index's, or a peer's as the table of peers calls it
  std::string unit;                 ///< "EUR", "GBX"; the currency of an index; empty where nobody has said
  std::vector<SeriesPoint> points;  ///< ascending by date
};

/// Adds a table: of two levels for one series and day the one that came later stands. A series whose unit is told later
/// takes it; one in another unit than before begins anew, for levels in two units are no series.
void mergeSeries(std::vector<MarketSeries>& there, std::vector<MarketSeries> later);
/// Null where there is none of that name; letters' case does not count.
const MarketSeries* seriesNamed(const std::vector<MarketSeries>& all, const std::string& name);

}  // namespace zl
