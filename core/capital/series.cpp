#include "core/capital/series.h"

#include <algorithm>
#include <cctype>
#include <iterator>

namespace zl {
namespace {

bool sameName(const std::string& a, const std::string& b) {
  return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                    [](unsigned char x, unsigned char y) { return std::tolower(x) == std::tolower(y); });
}

/// Both ascending; of one day the later table's stands.
std::vector<SeriesPoint> merged(const std::vector<SeriesPoint>& before, const std::vector<SeriesPoint>& later) {
  std::vector<SeriesPoint> all;
  std::set_union(later.begin(), later.end(), before.begin(), before.end(), std::back_inserter(all),
                 [](const SeriesPoint& a, const SeriesPoint& b) { return a.date < b.date; });
  return all;
}

}  // namespace

void mergeSeries(std::vector<MarketSeries>& there, std::vector<MarketSeries> later) {
  for (MarketSeries& next : later) {
    const auto same =
        std::find_if(there.begin(), there.end(), [&](const MarketSeries& s) { return sameName(s.name, next.name); });
    if (same == there.end()) {
      there.push_back(std::move(next));
      continue;
    }
    const bool another = !same->unit.empty() && !next.unit.empty() && same->unit != next.unit;
    if (another) same->points.clear();
    if (!next.unit.empty()) same->unit = next.unit;
    same->points = merged(same->points, next.points);
  }
}

const MarketSeries* seriesNamed(const std::vector<MarketSeries>& all, const std::string& name) {
  const auto found =
      std::find_if(all.begin(), all.end(), [&](const MarketSeries& s) { return sameName(s.name, name); });
  return found == all.end() ? nullptr : &*found;
}

}  // namespace zl
