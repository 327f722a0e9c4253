#pragma once
// Calendar dates and reporting periods. No clock: today's date is always an argument.

#include <chrono>
#include <optional>
#include <string>
#include <string_view>

namespace zl {

using Date = std::chrono::sys_days;

/// Parses YYYY-MM-DD (the date part of ISO 8601); anything else or an impossible day is empty.
std::optional<Date> parseDate(std::string_view text);
std::string dateText(Date date);
int yearOf(Date date);
/// Whole days from a to b; negative when b is earlier.
int daysBetween(Date a, Date b);
Date makeDate(int year, unsigned month, unsigned day);

/// A flow's period (start..end, both included) or a balance's instant (end of that day).
struct Period {
  std::optional<Date> start;  ///< empty for an instant
  Date end;

  [[nodiscard]] bool isInstant() const { return !start.has_value(); }
  /// Length in days, both ends included; 0 for an instant.
  [[nodiscard]] int days() const { return start ? daysBetween(*start, end) + 1 : 0; }
  /// Twelve months, or 52 or 53 weeks: what counts as a fiscal year's flow.
  [[nodiscard]] bool isFullYear() const;
  [[nodiscard]] std::string text() const;
  friend bool operator==(const Period&, const Period&) = default;
  friend auto operator<=>(const Period&, const Period&) = default;
};

/// Where a valuation date stands between two fiscal year ends.
struct Stub {
  double remaining;  ///< f: share of the first forecast year still to come, 0 < f <= 1
  double elapsed;    ///< s = 1 - f
};

/// f = days(valuation, firstForecastEnd) / days(baseEnd, firstForecastEnd). Empty when the
/// valuation date lies before the base year end or on or after the first forecast year end.
std::optional<Stub> stubFor(Date valuation, Date baseEnd, Date firstForecastEnd);

/// Where a valuation date stands after the last year filed: how many years have ended since, and the part of the year
/// that holds the date.
struct ValuationTime {
  int yearsPassed = 0;
  Stub stub{};
};

/// A year end that is not filed yet may lie between, up to eighteen months after the last filed one. Empty before that
/// year end and later than that: then a filing is missing.
std::optional<ValuationTime> valuationTime(Date valuation, Date baseEnd);

/// The same day `years` later; 29 February becomes 28 February where needed, month ends stay ends.
Date addYears(Date date, int years);

}  // namespace zl
