#pragma once
// What calendars and headings of periods are called in the languages that statements come in: English, German, French,
// Spanish, Italian, Dutch, Swedish, Danish, Norwegian, Portuguese. Words are lower case and without accents
// ("fevrier", "marz").

#include <optional>
#include <string_view>

namespace zl {

/// 1 to 12 for a month's name or usual short form.
std::optional<unsigned> monthNamed(std::string_view word);
/// "three", "erstes", "neuf": 1 to 12.
std::optional<int> numberNamed(std::string_view word);
/// 1 for months, 3 for quarters, 6 for halves of a year.
std::optional<int> spanNamed(std::string_view word);
bool namesWeeks(std::string_view word);
bool namesForecast(std::string_view word);
/// The letters of "31st", "1er".
bool isOrdinalEnding(std::string_view word);
/// A word that may stand in a period's heading and says nothing of the period.
bool fillsHeading(std::string_view word);

}  // namespace zl
