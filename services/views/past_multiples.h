#pragma once
// The subject's own multiples in the past, by month: the price then, times the count then, over what had been filed by
// then, as it was first filed. A year is known three months after its end. In: a snapshot whose model has the views
// "past_claims" (claims, then the count of shares), "past_of_price" and "past_of_firm". Out: series with statistics.

#include <chrono>
#include <string>
#include <vector>

#include "services/stages/snapshot.h"

namespace zl::services {

inline constexpr std::chrono::days kUntilFiled{92};  ///< after a year's end, where nobody says when it was filed
inline constexpr std::chrono::days kStaleClose{10};  ///< of a month without any close nothing is said

struct PastMultiple {
  Date on{};       ///< the close it stands on
  int column = 0;  ///< of history: the year that was known
  double multiple = 0;
  bool outlier = false;  ///< beyond 1.5 interquartile ranges outside the quartiles: shown, not counted
  double peers = 0;      ///< the peers' median then, of peersCount of them; none where that is 0
  int peersCount = 0;
};

struct PastSeries {
  std::string label;  ///< "Price to earnings"
  model::RowId row;   ///< what it is of
  bool ofFirm = false;
  std::vector<PastMultiple> points;  ///< ascending by day; months without a meaningful one are left out
  int left = 0;                      ///< months left out
  int count = 0;                     ///< that count
  Figure low, lowerQuartile, median, mean, upperQuartile, high;
  Figure today;       ///< at the valuation date
  Figure percentile;  ///< mid-rank share of the counted ones at or below today's
  Figure peersToday;  ///< the peers' median of the same kind, where their closes are in the book
  Figure gapToday;    ///< today's over it, less one
  Figure usualGap;    ///< the median of that over the months in which it can be told
  int monthsBeside = 0;
};

struct PastMultiples {
  std::vector<PastSeries> series;
  std::string note;  ///< what is not sound, with what to do; empty: nothing
};
PastMultiples pastMultiples(const Snapshot& s);

/// Low, mean and high of a series by calendar year, ascending.
struct PastYear {
  int year = 0, months = 0;
  double low = 0, mean = 0, high = 0;
};
std::vector<PastYear> pastYears(const PastSeries& series);

}  // namespace zl::services
