#pragma once
// Figures, units and periods as people write them in tables.

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/period/date.h"

namespace zl {

struct DisplayedNumber {
  std::string plain;     ///< decimal text, negative with '-'
  bool percent = false;  ///< written with a per cent sign; `plain` is the number before it
};

/// Reads 1,234.5, (350), 350-, 1 250, 1,10,250, 12.5 % with the given decimal mark ('.' or ','); a currency
/// sign before or after is passed over. Empty where the text is not one number.
std::optional<DisplayedNumber> displayedNumber(std::string_view text, char decimalMark);
/// Dashes, n/a, nm and the like: a cell that says there is no figure.
bool saysNothing(std::string_view text);
/// The decimal mark that reads more of the texts. Where every figure can be read either way, dots that always stand
/// before three digits part thousands; else '.'.
char decimalMarkOf(const std::vector<std::string>& texts);

struct FiscalEnd {
  unsigned month = 12;  ///< the month with whose last day fiscal years end
};

/// What stands above a column of figures.
struct PeriodHeading {
  int year = 0;             ///< fiscal year, 0 where `end` says it all
  std::optional<Date> end;  ///< where a date or a month is written
  int months = 12;          ///< length of the period: 12, 6 or 3, or what "9M" says
  int weeks = 0;            ///< where the period is counted in weeks: 52, 53, 26 ...
  int part = 0;             ///< which quarter or half; 0: the year, or from its start
  bool forecast = false;    ///< marked as an estimate

  /// The day on which the period ends, in a company whose fiscal years end so.
  [[nodiscard]] Date endIn(FiscalEnd fiscal) const;
};

/// Reads 2024, FY24, 2023/24, 2023-24, 31 Dec 2024, 31.12.2024, 12/31/2024, Dec-24, Q3 2024, 3Q24, H1 24,
/// 9M 2024, 52 weeks ended 1 February 2025, three months ended 31 March 2024 (unaudited), 12/2023, 2025E and the like;
/// empty on anything else ("Note", "Change", "%").
std::optional<PeriodHeading> periodHeading(std::string_view text);

/// Currency and power of ten from "EUR m", "in thousands of pounds", "£'000", "$ million".
struct UnitHeading {
  std::string currency;      ///< ISO 4217; empty where none is named
  std::optional<int> scale;  ///< a power of ten: 3, 6, 9, of lakhs 5, of crores 7; empty where none is named
};
UnitHeading unitHeading(std::string_view text);

Date lastOfMonth(int year, unsigned month);

}  // namespace zl
