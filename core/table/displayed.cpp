#include "core/table/displayed.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <sstream>

#include "core/table/calendar_words.h"

namespace zl {
namespace {

bool isDigit(char c) {
  return c >= '0' && c <= '9';
}

/// The letter without its accent, of UTF-8 "À" to "ÿ": empty for "×", "÷" and whatever lies elsewhere.
std::string_view plainLetter(std::string_view text) {
  static const std::array<std::string_view, 64> kLetters = {
      "a", "a", "a", "a", "a", "a", "ae", "c", "e",  "e",  "e", "e", "i", "i", "i", "i", "d",  "n", "o",  "o", "o", "o",
      "o", "",  "o", "u", "u", "u", "u",  "y", "th", "ss", "a", "a", "a", "a", "a", "a", "ae", "c", "e",  "e", "e", "e",
      "i", "i", "i", "i", "d", "n", "o",  "o", "o",  "o",  "o", "",  "o", "u", "u", "u", "u",  "y", "th", "y"};
  if (text.size() < 2 || text[0] != '\xC3') return {};
  const unsigned place = static_cast<unsigned char>(text[1]) - 0x80U;
  return place < kLetters.size() ? kLetters[place] : std::string_view{};
}

/// What currencies are called, by their codes and by words that mean one alone.
constexpr auto kCurrencies = std::to_array<std::pair<std::string_view, std::string_view>>(
    {{"eur", "EUR"},      {"euro", "EUR"},  {"euros", "EUR"},   {"gbp", "GBP"},  {"pound", "GBP"},   {"pounds", "GBP"},
     {"sterling", "GBP"}, {"usd", "USD"},   {"dollars", "USD"}, {"jpy", "JPY"},  {"yen", "JPY"},     {"chf", "CHF"},
     {"francs", "CHF"},   {"sek", "SEK"},   {"kronor", "SEK"},  {"nok", "NOK"},  {"dkk", "DKK"},     {"pln", "PLN"},
     {"czk", "CZK"},      {"huf", "HUF"},   {"ron", "RON"},     {"cad", "CAD"},  {"aud", "AUD"},     {"nzd", "NZD"},
     {"cny", "CNY"},      {"rmb", "CNY"},   {"yuan", "CNY"},    {"inr", "INR"},  {"rupees", "INR"},  {"rs", "INR"},
     {"brl", "BRL"},      {"reais", "BRL"}, {"zar", "ZAR"},     {"rand", "ZAR"}, {"krw", "KRW"},     {"won", "KRW"},
     {"hkd", "HKD"},      {"sgd", "SGD"},   {"twd", "TWD"},     {"mxn", "MXN"},  {"thb", "THB"},     {"baht", "THB"},
     {"idr", "IDR"},      {"myr", "MYR"},   {"php", "PHP"},     {"ils", "ILS"},  {"clp", "CLP"},     {"isk", "ISK"},
     {"aed", "AED"},      {"sar", "SAR"},   {"vnd", "VND"},     {"try", "TRY"},  {"renminbi", "CNY"}});

/// Whose dollar a sign means, or whose real or peso, by the letters right before it, which it takes the place of: "A$",
/// "HK$", "R$"; of the United States where none are.
void nameDollar(std::string& plain) {
  static constexpr auto kPrefixes = std::to_array<std::pair<std::string_view, std::string_view>>({{"us", "usd"},
                                                                                                  {"a", "aud"},
                                                                                                  {"au", "aud"},
                                                                                                  {"c", "cad"},
                                                                                                  {"ca", "cad"},
                                                                                                  {"cdn", "cad"},
                                                                                                  {"nz", "nzd"},
                                                                                                  {"hk", "hkd"},
                                                                                                  {"nt", "twd"},
                                                                                                  {"s", "sgd"},
                                                                                                  {"r", "brl"},
                                                                                                  {"mx", "mxn"},
                                                                                                  {"clp", "clp"}});
  size_t first = plain.size();
  while (first > 0 && std::isalpha(static_cast<unsigned char>(plain[first - 1])) != 0) --first;
  const std::string letters = plain.substr(first);
  const auto* const whose =
      std::find_if(kPrefixes.begin(), kPrefixes.end(), [&](const auto& p) { return p.first == letters; });
  if (whose != kPrefixes.end()) plain.erase(first);
  plain += ' ';
  plain += whose == kPrefixes.end() ? std::string_view("usd") : whose->second;
  plain += ' ';
}

/// Lower case, with every sign outside ASCII that tables use brought to a plain one and letters without accents.
std::string plainText(std::string_view text) {
  static constexpr auto kSigns = std::to_array<std::pair<std::string_view, std::string_view>>(
      {{"\xC2\xA0", " "},         {"\xE2\x80\xAF", " "},     {"\xE2\x80\x89", " "},
       {"\xE2\x88\x92", "-"},     {"\xE2\x80\x93", "-"},     {"\xE2\x80\x94", "-"},
       {"\xE2\x96\xB2", "-"},     {"\xE2\x96\xB3", "-"},     {"\xEF\xBC\x8D", "-"},
       {"\xE2\x80\x99", "'"},     {"\xE2\x80\x98", "'"},     {"\xC2\xB4", "'"},
       {"\xE2\x82\xAC", " eur "}, {"\xC2\xA3", " gbp "},     {"\xC2\xA5", " jpy "},
       {"\xE2\x82\xB9", " inr "}, {"\xE2\x82\xA9", " krw "}, {"\xE2\x82\xAA", " ils "},
       {"\xE2\x82\xAB", " vnd "}, {"\xE2\x82\xBA", " try "}, {"\t", " "}});
  std::string plain;
  while (!text.empty()) {
    const auto* const sign = std::find_if(kSigns.begin(), kSigns.end(),
                                          [&](const auto& s) { return text.substr(0, s.first.size()) == s.first; });
    if (sign != kSigns.end()) {
      plain += sign->second;
      text.remove_prefix(sign->first.size());
    } else if (text[0] == '$') {
      nameDollar(plain);
      text.remove_prefix(1);
    } else if (const std::string_view letter = plainLetter(text); !letter.empty()) {
      plain += letter;
      text.remove_prefix(2);
    } else {
      plain += static_cast<char>(std::tolower(static_cast<unsigned char>(text[0])));
      text.remove_prefix(1);
    }
  }
  const size_t first = plain.find_first_not_of(" \r\n");
  if (first == std::string::npos) return {};
  return plain.substr(first, plain.find_last_not_of(" \r\n") - first + 1);
}

/// Runs of letters and runs of digits; everything else only separates.
struct Run {
  std::string text;
  bool digits = false;
  char before = ' ';  ///< the character just before the run
};

std::vector<Run> runsOf(const std::string& text) {
  std::vector<Run> runs;
  char before = ' ';
  for (const char c : text) {
    const bool digit = isDigit(c);
    const bool letter = c >= 'a' && c <= 'z';
    if (digit || letter) {
      const bool goesOn =
          !runs.empty() && runs.back().digits == digit && (isDigit(before) || (before >= 'a' && before <= 'z'));
      if (!goesOn) runs.push_back({"", digit, before});
      runs.back().text += c;
    }
    before = c;
  }
  return runs;
}

void cut(std::string& text, std::string_view word) {
  for (size_t at = text.find(word); at != std::string::npos; at = text.find(word)) text.erase(at, word.size());
}

std::string stripped(const std::string& text) {
  const size_t first = text.find_first_not_of(' ');
  if (first == std::string::npos) return {};
  return text.substr(first, text.find_last_not_of(' ') - first + 1);
}

/// Whether the digits between commas are parted as in India: pairs, and three at the end.
bool partedInPairs(std::string_view whole) {
  const size_t first = whole.find(',');
  if (first == std::string_view::npos || first < 1 || first > 2) return false;
  size_t group = 0;
  for (const char c : whole.substr(first + 1)) {
    if (isDigit(c)) {
      ++group;
    } else if (c == ',' && group == 2) {
      group = 0;
    } else {
      return false;
    }
  }
  return group == 3;
}

/// Digits in groups of three between separators, or in pairs before the last three, and at most one decimal part.
std::string groupedDigits(std::string_view text, char mark) {
  const std::string_view separators = mark == '.' ? ", '" : ". '";
  const bool pairs = mark == '.' && partedInPairs(text.substr(0, text.find('.')));
  std::string plain;
  size_t group = 0;
  bool grouped = false;
  for (size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (isDigit(c)) {
      plain += c;
      ++group;
    } else if (c == mark) {
      if (grouped && group != 3) return {};
      const std::string_view places = text.substr(i + 1);
      if (!std::all_of(places.begin(), places.end(), isDigit) || (plain.empty() && places.empty())) return {};
      if (plain.empty()) plain = "0";
      return places.empty() ? plain : plain + "." + std::string(places);
    } else if (separators.find(c) != std::string_view::npos && !plain.empty() &&
               (grouped ? group == (pairs ? 2U : 3U) : group <= 3)) {
      grouped = true;
      group = 0;
    } else {
      return {};
    }
  }
  return grouped && group != 3 ? std::string() : plain;
}

/// The months of the part that a letter stands for: Q and T (trimestre) a quarter, H and S (semestre) a half; else 0.
int partLetter(std::string_view letter) {
  if (letter == "q" || letter == "t") return 3;
  return letter == "h" || letter == "s" ? 6 : 0;
}

std::optional<int> yearOfRun(const Run& run, bool shortAllowed) {
  if (!run.digits) return std::nullopt;
  if (run.text.size() == 4) {
    const int year = std::stoi(run.text);
    return year >= 1950 && year <= 2100 ? std::optional(year) : std::nullopt;
  }
  if (shortAllowed && run.text.size() == 2) return 2000 + std::stoi(run.text);
  return std::nullopt;
}

std::optional<Date> dayIn(int year, int month, int day) {
  if (month < 1 || month > 12 || day < 1 || day > 31) return std::nullopt;
  char iso[16];
  std::snprintf(iso, sizeof iso, "%04d-%02d-%02d", year % 10000, month, day);
  return parseDate(iso);
}

/// Three numbers as a date: 2024-12-31, 31.12.2024, 12/31/2024. Where both orders are days, the
/// one that ends a month is meant: accounts end with months.
std::optional<Date> numericDate(const std::vector<Run>& runs) {
  if (runs.size() != 3 || !runs[0].digits || !runs[1].digits || !runs[2].digits) return std::nullopt;
  if (runs[0].text.size() > 4 || runs[1].text.size() > 2 || runs[2].text.size() > 4) return std::nullopt;
  const int a = std::stoi(runs[0].text);
  const int b = std::stoi(runs[1].text);
  const int c = std::stoi(runs[2].text);
  if (runs[0].text.size() == 4) return dayIn(a, b, c);
  const int year = runs[2].text.size() == 2 ? 2000 + c : c;
  if (runs[2].text.size() == 3) return std::nullopt;
  const std::optional<Date> dayFirst = dayIn(year, b, a);
  const std::optional<Date> monthFirst = dayIn(year, a, b);
  if (!dayFirst || !monthFirst) return dayFirst ? dayFirst : monthFirst;
  return *monthFirst == lastOfMonth(year, static_cast<unsigned>(a)) ? monthFirst : dayFirst;
}

}  // namespace

Date lastOfMonth(int year, unsigned month) {
  return Date{std::chrono::year(year) / std::chrono::month(month) / std::chrono::last};
}

std::optional<DisplayedNumber> displayedNumber(std::string_view text, char decimalMark) {
  DisplayedNumber number;
  std::string s = plainText(text);
  for (const auto& [word, code] : kCurrencies) {
    if (word.size() == code.size()) cut(s, word);
  }
  s = stripped(s);
  bool negative = false;
  if (s.size() > 2 && s.front() == '(' && s.back() == ')') {
    negative = true;
    s = stripped(s.substr(1, s.size() - 2));
  }
  if (!s.empty() && s.back() == '%') {
    number.percent = true;
    s = stripped(s.substr(0, s.size() - 1));
  }
  if (s.size() > 1 && (s.front() == '-' || s.front() == '+') && !negative) {
    negative = s.front() == '-';
    s = stripped(s.substr(1));
  } else if (s.size() > 1 && s.back() == '-' && !negative) {
    negative = true;
    s = stripped(s.substr(0, s.size() - 1));
  }
  number.plain = groupedDigits(s, decimalMark);
  if (number.plain.empty()) return std::nullopt;
  if (negative) number.plain.insert(number.plain.begin(), '-');
  return number;
}

bool saysNothing(std::string_view text) {
  static const std::array<const char*, 11> kNothing = {"-",    "--",  "n/a", "na", "n.a.", "nm",
                                                       "n.m.", "nil", ".",   "*",  "..."};
  const std::string s = plainText(text);
  return s.empty() || std::find(kNothing.begin(), kNothing.end(), s) != kNothing.end();
}

namespace {

/// Whether the dots of a table part thousands where each of its figures could be read either way: every dot stands
/// before three digits and after no lone nought, and no figure of four digits or more goes without one.
bool dotsGroup(const std::vector<std::string>& texts) {
  constexpr int kEnough = 3;
  int dotted = 0;
  for (const std::string& text : texts) {
    const std::optional<DisplayedNumber> grouped = displayedNumber(text, ',');
    if (!grouped) continue;
    const bool dot = text.find('.') != std::string::npos;
    const std::string& plain = grouped->plain;
    const std::string digits = plain.substr(plain.find_first_not_of('-'));
    if (dot && digits.front() == '0') return false;
    const bool year = digits.size() == 4 && digits >= "1950" && digits <= "2100";
    if (!dot && digits.size() > 3 && !year && text.find(' ') == std::string::npos) return false;
    dotted += dot ? 1 : 0;
  }
  return dotted >= kEnough;
}

}  // namespace

char decimalMarkOf(const std::vector<std::string>& texts) {
  int dots = 0;
  int commas = 0;
  for (const std::string& text : texts) {
    const bool dot = displayedNumber(text, '.').has_value();
    const bool comma = displayedNumber(text, ',').has_value();
    dots += dot && !comma ? 1 : 0;
    commas += comma && !dot ? 1 : 0;
  }
  if (commas != dots) return commas > dots ? ',' : '.';
  return dotsGroup(texts) ? ',' : '.';
}

namespace {

/// "12/2023", and of a fiscal year "FY3/2024", "FY3/24": the month with which it ends. "FY23/24" is a year of two.
std::optional<std::pair<unsigned, int>> monthOfYear(const Run& month, const Run& year, bool fiscal) {
  const bool whole = year.text.size() == 4;
  if (!year.digits || year.before != '/' || month.text.size() > 2 || !(whole || (fiscal && year.text.size() == 2)))
    return std::nullopt;
  const int ends = std::stoi(month.text);
  const std::optional<int> named = yearOfRun(year, fiscal);
  if (!named || ends < 1 || ends > 12 || (!whole && (ends + 1) % 100 == *named % 100)) return std::nullopt;
  return std::pair(static_cast<unsigned>(ends), *named);
}

std::optional<PeriodHeading> oneDateHeading(std::string_view text) {
  const std::string plain = plainText(text);
  if (plain.empty() || plain.size() > 80 || plain.find('%') != std::string::npos) return std::nullopt;
  const std::vector<Run> runs = runsOf(plain);
  PeriodHeading heading;
  if (const std::optional<Date> day = numericDate(runs)) {
    heading.end = day;
    heading.year = yearOf(*day);
    return heading;
  }
  std::optional<unsigned> month;
  std::optional<int> day;
  std::optional<int> number;  // 3 in 3Q, 9 in 9M
  const bool longYear =
      std::any_of(runs.begin(), runs.end(), [](const Run& run) { return yearOfRun(run, false).has_value(); });
  for (size_t i = 0; i < runs.size(); ++i) {
    const Run& run = runs[i];
    const std::string last = i == 0 ? std::string() : runs[i - 1].text;
    // "1st half", "1er trimestre": the letters of an ordinal are passed over.
    const size_t behind = i + 1 < runs.size() && isOrdinalEnding(runs[i + 1].text) ? i + 2 : i + 1;
    const std::string next = behind < runs.size() ? runs[behind].text : std::string();
    if (run.digits && run.before == '(' && heading.year > 0) continue;  // a footnote
    // "FY18 (Mar 2018)": the year by its short name beside its long one.
    if (run.digits && longYear && run.text.size() == 2 && (last == "fy" || last == "cy")) continue;
    if (run.digits && namesWeeks(next) && run.text.size() <= 2) {
      heading.weeks = std::stoi(run.text);
      heading.months = (heading.weeks + 1) / 13 * 3;
      continue;
    }
    if (run.digits && (i == 0 || last == "fy") && heading.year == 0 && i + 1 < runs.size()) {
      if (const std::optional<std::pair<unsigned, int>> ends = monthOfYear(run, runs[i + 1], last == "fy")) {
        month = ends->first;
        heading.year = ends->second;
        ++i;
        continue;
      }
    }
    // "three months", "first half", "1. Quartal", "6 mois".
    if (const std::optional<int> span = spanNamed(next); span && (!run.digits || run.text.size() <= 2)) {
      const std::optional<int> count = run.digits ? std::optional(std::stoi(run.text)) : numberNamed(run.text);
      if (count && *span == 1) number = count;
      if (count && *span > 1) {
        heading.part = *count;
        heading.months = *span;
      }
      if (count) continue;
    }
    if (run.digits) {
      const bool afterName = last == "fy" || last == "cy" || partLetter(last) > 0 || last == "m" ||
                             monthNamed(last).has_value() || run.before == '\'' || heading.part > 0;
      const bool partNext =
          i + 1 < runs.size() && run.text.size() == 1 && (partLetter(runs[i + 1].text) > 0 || runs[i + 1].text == "m");
      if (partLetter(last) > 0 && run.text.size() == 1 && heading.part == 0) {
        heading.part = std::stoi(run.text);
        heading.months = partLetter(last);
      } else if (partNext) {
        number = std::stoi(run.text.substr(0, 2));
      } else if (heading.year > 0 && run.text.size() == 2 && (run.before == '/' || run.before == '-') &&
                 std::stoi(run.text) == (heading.year + 1) % 100) {
        // 2023/24 and 2023-24 end in 2024; of "2023-12" nobody knows it
        heading.year = heading.year / 100 * 100 + std::stoi(run.text) + (heading.year % 100 == 99 ? 100 : 0);
      } else if (heading.year > 0 && !month && run.before == '/' && run.text.size() <= 2) {
        month = static_cast<unsigned>(std::stoi(run.text));  // FY2024/3
        if (*month < 1 || *month > 12) return std::nullopt;
      } else if (const std::optional<int> year = yearOfRun(run, afterName && !longYear); year && heading.year == 0) {
        heading.year = *year;
      } else if (!day && run.text.size() <= 2) {
        day = std::stoi(run.text);
      } else {
        return std::nullopt;
      }
      continue;
    }
    if (const std::optional<unsigned> named = monthNamed(run.text); named && !month) {
      month = named;
    } else if (namesForecast(run.text)) {
      heading.forecast = true;
    } else if (const int months = partLetter(run.text); months > 0) {
      if (number) {
        heading.part = *number;
        heading.months = months;
        number.reset();
      }
    } else if (const std::optional<int> span = spanNamed(run.text); span || run.text == "m") {
      if (number) heading.months = *number;
      if (!number && span.value_or(1) > 1 && heading.part == 0)
        heading.months = *span;  // "Quarter ended 31 March 2024"
      number.reset();
    } else if (isOrdinalEnding(run.text)) {
      if (i == 0 || !runs[i - 1].digits) return std::nullopt;
    } else if (!fillsHeading(run.text) && !namesWeeks(run.text)) {
      return std::nullopt;
    }
  }
  if (heading.year == 0) return std::nullopt;
  if (heading.months < 1 || heading.months > 12 || heading.part < 0 || heading.part * heading.months > 12)
    return std::nullopt;
  if (month && day) {
    heading.end = dayIn(heading.year, static_cast<int>(*month), *day);
    if (!heading.end) return std::nullopt;
  } else if (month) {
    heading.end = lastOfMonth(heading.year, *month);
  } else if (day) {
    return std::nullopt;
  }
  return heading;
}

/// "April 1, 2024 - March 31, 2025", also in brackets behind a name of the year: a period by its first and last day.
std::optional<PeriodHeading> rangeHeading(std::string_view text) {
  constexpr size_t kLongest = 120;
  constexpr double kMonth = 365.25 / 12;
  if (text.size() > kLongest) return std::nullopt;
  for (const std::string_view between : {" - ", " \xE2\x80\x93 ", " \xE2\x80\x94 ", " to ", " through ", " bis ",
                                         " au ", " al ", " tot ", " till ", "~"}) {
    const size_t at = text.find(between);
    if (at == std::string_view::npos) continue;
    std::string_view from = text.substr(0, at);
    std::string_view to = text.substr(at + between.size());
    if (const size_t open = from.rfind('('); open != std::string_view::npos) from = from.substr(open + 1);
    to = to.substr(0, to.find(')'));
    // A first day needs a day and a year.
    const auto digits = std::count_if(from.begin(), from.end(), [](char c) { return c >= '0' && c <= '9'; });
    const std::optional<PeriodHeading> first = digits >= 5 ? oneDateHeading(from) : std::nullopt;
    std::optional<PeriodHeading> last = oneDateHeading(to);
    if (!first || !first->end || !last || !last->end || *last->end <= *first->end) continue;
    const long months = std::lround((daysBetween(*first->end, *last->end) + 1) / kMonth);
    if (months < 1 || months > 12) continue;
    last->months = static_cast<int>(months);
    last->part = 0;
    return last;
  }
  return std::nullopt;
}

/// "2025 £m" to "2025": words that name a currency or a scale go. The same where there is none.
std::string withoutUnits(std::string_view text) {
  std::istringstream words{std::string(text)};
  std::string kept;
  for (std::string word; words >> word;) {
    const bool figures = std::any_of(word.begin(), word.end(), [](char c) { return c >= '1' && c <= '9'; });
    const UnitHeading unit = figures ? UnitHeading{} : unitHeading(word);
    if (unit.currency.empty() && !unit.scale) kept += (kept.empty() ? "" : " ") + word;
  }
  return kept;
}

}  // namespace

std::optional<PeriodHeading> periodHeading(std::string_view text) {
  std::optional<PeriodHeading> heading = oneDateHeading(text);
  if (!heading) heading = rangeHeading(text);
  constexpr size_t kLongest = 80;
  if (heading || text.size() > kLongest) return heading;
  const std::string bare = withoutUnits(text);
  return bare.size() < text.size() ? oneDateHeading(bare) : std::nullopt;
}

Date PeriodHeading::endIn(FiscalEnd fiscal) const {
  if (end) return *end;
  // Months of the fiscal year still to come when the period ends.
  const int left = part > 0 ? 12 - part * months : 12 - months;
  int month = static_cast<int>(fiscal.month) - left;
  int y = year;
  if (month < 1) {
    month += 12;
    --y;
  }
  return lastOfMonth(y, static_cast<unsigned>(month));
}

UnitHeading unitHeading(std::string_view text) {
  static constexpr auto kScales = std::to_array<std::pair<std::string_view, int>>(
      {{"thousand", 3}, {"thousands", 3}, {"k", 3},         {"tsd", 3},        {"tausend", 3},   {"milliers", 3},
       {"miles", 3},    {"duizend", 3},   {"duizenden", 3}, {"migliaia", 3},   {"milhares", 3},  {"tusen", 3},
       {"tusental", 3}, {"tusind", 3},    {"tkr", 3},       {"tys", 3},        {"lakh", 5},      {"lakhs", 5},
       {"lac", 5},      {"lacs", 5},      {"million", 6},   {"millions", 6},   {"m", 6},         {"mn", 6},
       {"mm", 6},       {"mio", 6},       {"mil", 6},       {"mln", 6},        {"mkr", 6},       {"millionen", 6},
       {"millones", 6}, {"miljoen", 6},   {"milioni", 6},   {"milhoes", 6},    {"miljoner", 6},  {"millioner", 6},
       {"crore", 7},    {"crores", 7},    {"cr", 7},        {"billion", 9},    {"billions", 9},  {"bn", 9},
       {"mrd", 9},      {"mld", 9},       {"mia", 9},       {"milliarden", 9}, {"milliards", 9}, {"miljard", 9},
       {"miliardi", 9}, {"bilhoes", 9},   {"miljarder", 9}, {"milliarder", 9}});
  UnitHeading unit;
  const std::string plain = plainText(text);
  if (plain.size() > 200) return unit;
  bool said = false;             // "m" alone may be anything; "in m" or "EUR m" is a unit
  int noughts = 0, written = 0;  // powers of ten that stand as figures
  for (const Run& run : runsOf(plain)) {
    for (const auto& [word, code] : kCurrencies) {
      if (unit.currency.empty() && run.text == word) unit.currency = code;
    }
    // TEUR, kCHF, MSEK; EURm, USDbn: a currency's code with its scale before or after it.
    if (unit.currency.empty()) {
      for (const auto& [code, currency] : kCurrencies) {
        const std::string_view name = code;
        const std::string_view word = run.text;
        if (name.size() != 3 || word.size() < 4 || word.size() > 5) continue;
        std::string_view scale;
        if (word.starts_with(name)) scale = word.substr(3);
        if (word.ends_with(name)) scale = word.substr(0, word.size() - 3);
        const int tens = scale == "t" || scale == "k" ? 3 : scale == "m" || scale == "mn" ? 6 : scale == "bn" ? 9 : 0;
        if (tens == 0) continue;
        unit.currency = currency;
        if (!unit.scale) unit.scale = tens;
      }
    }
    for (const auto& [word, scale] : kScales) {
      if (unit.scale || run.text != word || (!said && unit.currency.empty() && run.text.size() <= 3)) continue;
      unit.scale = word == "mil" && unit.currency == "BRL" ? 3 : scale;  // Portuguese for a thousand
    }
    if (run.text == "000") {  // of "EUR 000", "EUR 1,000" and, with another one after it, "EUR 1 000 000"
      noughts += 3;
    } else if (run.text == "1000" || run.text == "1000000") {
      written = run.text == "1000" ? 3 : 6;
    }
    if (run.text == "in" || run.text == "figures" || run.text == "amounts") said = true;
  }
  if (!unit.scale && noughts > 0) unit.scale = noughts;
  // Beside a currency it is a unit; alone it may be any figure.
  if (!unit.scale && written > 0 && !unit.currency.empty()) unit.scale = written;
  return unit;
}

}  // namespace zl
