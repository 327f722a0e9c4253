#include "core/period/date.h"

#include <array>

namespace zl {
namespace chr = std::chrono;

Date makeDate(int year, unsigned month, unsigned day) {
  return chr::sys_days(chr::year(year) / chr::month(month) / chr::day(day));
}

std::optional<Date> parseDate(std::string_view text) {
  if (text.size() != 10 || text[4] != '-' || text[7] != '-') return std::nullopt;
  std::array<int, 3> part{};
  size_t index = 0;
  for (size_t i = 0; i < text.size(); ++i) {
    if (i == 4 || i == 7) {
      ++index;
      continue;
    }
    if (text[i] < '0' || text[i] > '9') return std::nullopt;
    part[index] = part[index] * 10 + (text[i] - '0');
  }
  const chr::year_month_day ymd{chr::year{part[0]}, chr::month{static_cast<unsigned>(part[1])},
                                chr::day{static_cast<unsigned>(part[2])}};
  if (!ymd.ok() || part[0] < 1) return std::nullopt;
  return chr::sys_days(ymd);
}

std::string dateText(Date date) {
  const chr::year_month_day ymd(date);
  const auto padded = [](int number, size_t width) {
    std::string digits = std::to_string(number);
    return std::string(digits.size() < width ? width - digits.size() : 0, '0') + digits;
  };
  return padded(static_cast<int>(ymd.year()), 4) + "-" +
         padded(static_cast<int>(static_cast<unsigned>(ymd.month())), 2) + "-" +
         padded(static_cast<int>(static_cast<unsigned>(ymd.day())), 2);
}

int yearOf(Date date) {
  return static_cast<int>(chr::year_month_day(date).year());
}

int daysBetween(Date a, Date b) {
  return static_cast<int>((b - a).count());
}

bool Period::isFullYear() const {
  // 52 or 53 weeks, or twelve months; filers who date such years by the end of the month are a few days off.
  constexpr int kShortest = 360;
  constexpr int kLongest = 373;
  const int n = days();
  return n >= kShortest && n <= kLongest;
}

std::string Period::text() const {
  return start ? dateText(*start) + "/" + dateText(end) : dateText(end);
}

std::optional<Stub> stubFor(Date valuation, Date baseEnd, Date firstForecastEnd) {
  if (valuation < baseEnd || valuation >= firstForecastEnd) return std::nullopt;
  const double whole = daysBetween(baseEnd, firstForecastEnd);
  const double remaining = daysBetween(valuation, firstForecastEnd) / whole;
  return Stub{remaining, 1.0 - remaining};
}

std::optional<ValuationTime> valuationTime(Date valuation, Date baseEnd) {
  constexpr int kMostDays = 549;  // eighteen months
  if (daysBetween(baseEnd, valuation) > kMostDays) return std::nullopt;
  for (int passed = 0; passed < 2; ++passed) {
    const std::optional<Stub> stub = stubFor(valuation, addYears(baseEnd, passed), addYears(baseEnd, passed + 1));
    if (stub) return ValuationTime{passed, *stub};
  }
  return std::nullopt;
}

Date addYears(Date date, int years) {
  const chr::year_month_day ymd(date);
  const chr::year year = ymd.year() + chr::years(years);
  const chr::year_month_day_last monthEnd(ymd.year(), chr::month_day_last(ymd.month()));
  const chr::year_month_day same(year, ymd.month(), ymd.day());
  if (monthEnd.day() == ymd.day() || !same.ok()) {
    return chr::sys_days(chr::year_month_day_last(year, chr::month_day_last(ymd.month())));
  }
  return chr::sys_days(same);
}

}  // namespace zl
