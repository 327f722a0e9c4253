#pragma once
// Trends of one line or ratio over fiscal years. Every result is a figure or says why it is none.

#include <span>
#include <string>
#include <vector>

#include "core/history/statistics.h"
#include "core/period/date.h"

namespace zl {

/// One line over the years, oldest first; all vectors are of one length.
struct Series {
  std::vector<int> years;  ///< labels of the fiscal years
  std::vector<Figure> figures;
  std::vector<bool> exceptional;           ///< the year (or, for a growth rate, either of its years) is flagged
  std::vector<bool> irregular;             ///< the year before it did not end 52 or 53 weeks or 12 months earlier
  [[nodiscard]] int find(int year) const;  ///< -1 when the year is not there
};

/// Whether a fiscal year ended 52 or 53 weeks or 12 months after the one before.
bool followsByAYear(Date before, Date end);

/// What happened between two year ends.
struct SpanTrend {
  int from = 0, to = 0;
  Figure change;                   ///< last less first
  Figure compound;                 ///< growth a year, compound
  Figure meanGrowth;               ///< mean of the yearly rates, which is another thing
  std::vector<std::string> marks;  ///< why its ends may mislead, one sentence each
};

/// Not meaningful where an end has no value, is not positive (the compound rate), or a year in
/// between is not a whole one. Absent where the years are not there.
SpanTrend spanTrend(const Series& series, int from, int to);

/// Growth over `years` years together: x_t / x_(t-years) - 1, by year; so two years of easy and
/// hard comparison are read as one.
std::vector<Figure> stackedGrowth(const Series& series, int years);

/// Least squares of the logarithms on the years: the growth a year that fits all of them.
struct FittedTrend {
  Figure growth;  ///< e^slope - 1
  Figure fit;     ///< R squared of the logarithms
  int count = 0;
};
/// Over the included years from..to; not meaningful where one is not positive, or under 3 years.
FittedTrend fittedTrend(const Series& series, int from, int to);

/// An end is doubted where it lies under `low` or over `high` times the median of the included
/// years within two years of it.
struct EndLimits {
  double low = 0.75;
  double high = 1.25;
};
/// Why a year is a poor end of a span: flagged, depressed or elevated; empty where it is sound.
std::string endMark(const Series& series, int index, const EndLimits& limits = {});

}  // namespace zl
