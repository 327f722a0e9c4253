#include "exchange/xbrl/transformations.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <map>
#include <vector>

namespace zl::exchange {
namespace {

enum class NumberRule { Zero, Dot, Comma, DotOnly, CommaOnly, Units, Words };

/// Every registry has spelled the rules anew; what they do is the same.
const std::map<std::string, NumberRule, std::less<>>& numberRules() {
  static const std::map<std::string, NumberRule, std::less<>> kRules = {
      {"fixed-zero", NumberRule::Zero},
      {"fixedzero", NumberRule::Zero},
      {"zerodash", NumberRule::Zero},
      {"numdash", NumberRule::Zero},
      {"num-dot-decimal", NumberRule::Dot},
      {"num-dot-decimal-apos", NumberRule::Dot},
      {"num-dot-decimal-in", NumberRule::Dot},
      {"numdotdecimal", NumberRule::Dot},
      {"numdotdecimalin", NumberRule::Dot},
      {"numcommadot", NumberRule::Dot},
      {"numspacedot", NumberRule::Dot},
      {"numcomma", NumberRule::CommaOnly},
      {"num-comma-decimal", NumberRule::Comma},
      {"num-comma-decimal-apos", NumberRule::Comma},
      {"numcommadecimal", NumberRule::Comma},
      {"numdotcomma", NumberRule::Comma},
      {"numspacecomma", NumberRule::Comma},
      {"num-unit-decimal", NumberRule::Units},
      {"num-unit-decimal-apos", NumberRule::Units},
      {"num-unit-decimal-in", NumberRule::Units},
      {"numunitdecimal", NumberRule::Units},
      {"numunitdecimalin", NumberRule::Units},
      {"numwordsen", NumberRule::Words},
      {"num-word-en", NumberRule::Words},
  };
  return kRules;
}

bool isDigit(char c) {
  return c >= '0' && c <= '9';
}

/// Spaces of any width become one plain space; apostrophes of either shape the plain one.
std::string plainMarks(std::string_view text) {
  static const std::array<std::pair<std::string_view, char>, 7> kMarks = {{{"\xC2\xA0", ' '},
                                                                           {"\xE2\x80\xAF", ' '},
                                                                           {"\xE2\x80\x89", ' '},
                                                                           {"&nbsp;", ' '},
                                                                           {"&#160;", ' '},
                                                                           {"\xE2\x80\x99", '\''},
                                                                           {"\xEF\xBC\x87", '\''}}};
  std::string plain;
  while (!text.empty()) {
    const auto* const mark = std::find_if(kMarks.begin(), kMarks.end(),
                                          [&](const auto& m) { return text.substr(0, m.first.size()) == m.first; });
    if (mark != kMarks.end()) {
      plain += mark->second;
      text.remove_prefix(mark->first.size());
    } else {
      plain += text[0] == '\t' || text[0] == '\r' || text[0] == '\n' ? ' ' : text[0];
      text.remove_prefix(1);
    }
  }
  const size_t first = plain.find_first_not_of(' ');
  if (first == std::string::npos) return {};
  return plain.substr(first, plain.find_last_not_of(' ') - first + 1);
}

/// Digits with separators and at most one decimal mark; empty where the text is anything else.
std::string digits(std::string_view text, std::string_view separators, char mark) {
  std::string plain;
  bool pointSeen = false;
  for (size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (isDigit(c)) {
      plain += c;
    } else if (c == mark && !pointSeen) {
      pointSeen = true;
      if (plain.empty()) plain = "0";
      plain += '.';
    } else if (separators.find(c) == std::string_view::npos || pointSeen || plain.empty() || i + 1 == text.size()) {
      return {};
    }
  }
  if (!plain.empty() && plain.back() == '.') plain.pop_back();
  return plain;
}

/// "5 euros 12 cents" is 5.12: the first number, then the second as two places.
std::string unitsAndParts(std::string_view text) {
  std::vector<std::string> numbers;
  for (size_t i = 0; i < text.size();) {
    if (!isDigit(text[i])) {
      ++i;
      continue;
    }
    std::string number;
    while (i < text.size() && (isDigit(text[i]) || (std::string_view(",. '").find(text[i]) != std::string_view::npos &&
                                                    i + 1 < text.size() && isDigit(text[i + 1])))) {
      if (isDigit(text[i])) number += text[i];
      ++i;
    }
    numbers.push_back(std::move(number));
  }
  if (numbers.size() != 2 || numbers[1].size() > 2) return {};
  return numbers[0] + "." + (numbers[1].size() == 1 ? "0" : "") + numbers[1];
}

std::vector<std::string> words(std::string_view text) {
  std::vector<std::string> list;
  std::string word;
  for (const char c : text) {
    if (std::isalnum(static_cast<unsigned char>(c)) != 0) {
      word += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    } else if (!word.empty()) {
      list.push_back(std::move(word));
      word.clear();
    }
  }
  if (!word.empty()) list.push_back(std::move(word));
  return list;
}

/// English number words up to the trillions; "no" and "none" are zero.
std::string numberWords(std::string_view text) {
  static const std::map<std::string, long long> kSmall = {
      {"no", 0},       {"none", 0},     {"nil", 0},        {"zero", 0},      {"one", 1},       {"two", 2},
      {"three", 3},    {"four", 4},     {"five", 5},       {"six", 6},       {"seven", 7},     {"eight", 8},
      {"nine", 9},     {"ten", 10},     {"eleven", 11},    {"twelve", 12},   {"thirteen", 13}, {"fourteen", 14},
      {"fifteen", 15}, {"sixteen", 16}, {"seventeen", 17}, {"eighteen", 18}, {"nineteen", 19}, {"twenty", 20},
      {"thirty", 30},  {"forty", 40},   {"fifty", 50},     {"sixty", 60},    {"seventy", 70},  {"eighty", 80},
      {"ninety", 90}};
  static const std::map<std::string, long long> kLarge = {
      {"thousand", 1000}, {"million", 1000000}, {"billion", 1000000000}, {"trillion", 1000000000000}};
  long long total = 0;
  long long group = 0;
  bool any = false;
  for (const std::string& word : words(text)) {
    if (word == "and" && any) continue;
    if (const auto small = kSmall.find(word); small != kSmall.end()) {
      group += small->second;
    } else if (word == "hundred") {
      group = (any ? group : 1) * 100;
    } else if (const auto large = kLarge.find(word); large != kLarge.end() && total < 1000000000000000) {
      total += (any ? group : 1) * large->second;
      group = 0;
    } else {
      return {};
    }
    any = true;
    if (group > 999) return {};
  }
  return any ? std::to_string(total + group) : std::string();
}

std::string byRule(NumberRule rule, const std::string& text) {
  switch (rule) {
    case NumberRule::Zero:
      return "0";
    case NumberRule::Dot:
      return digits(text, ", '", '.');
    case NumberRule::Comma:
      return digits(text, ". '", ',');
    case NumberRule::DotOnly:
      return digits(text, "", '.');
    case NumberRule::CommaOnly:
      return digits(text, "", ',');
    case NumberRule::Units:
      return unitsAndParts(text);
    case NumberRule::Words:
      return numberWords(text);
  }
  return {};
}

std::optional<int> monthNamed(const std::string& word) {
  static const std::array<const char*, 12> kMonths = {"jan", "feb", "mar", "apr", "may", "jun",
                                                      "jul", "aug", "sep", "oct", "nov", "dec"};
  for (size_t m = 0; m < kMonths.size(); ++m) {
    if (word.size() >= 3 && word.substr(0, 3) == kMonths[m]) return static_cast<int>(m) + 1;
  }
  return std::nullopt;
}

std::optional<int> smallNumber(std::string word) {
  for (const char* ending : {"st", "nd", "rd", "th"}) {
    if (word.size() > 2 && word.compare(word.size() - 2, 2, ending) == 0) word.resize(word.size() - 2);
  }
  if (word.empty() || word.size() > 4 || !std::all_of(word.begin(), word.end(), isDigit)) return std::nullopt;
  return std::stoi(word);
}

}  // namespace

Result<std::string> transformNumber(std::string_view format, std::string_view displayed) {
  const std::string text = plainMarks(displayed);
  NumberRule rule = NumberRule::DotOnly;
  if (!format.empty()) {
    const auto known = numberRules().find(format);
    if (known == numberRules().end()) {
      return fail(ErrorKind::Unsupported, "the number format '" + std::string(format.substr(0, 60)) + "' is not known");
    }
    rule = known->second;
  }
  std::string plain = byRule(rule, text);
  if (plain.empty()) {
    return fail(ErrorKind::BadInput, "'" + text.substr(0, 40) + "' is not a number" +
                                         (format.empty() ? "" : " of the format " + std::string(format)));
  }
  return plain;
}

std::optional<Date> transformDate(std::string_view format, std::string_view displayed) {
  const std::string text = plainMarks(displayed);
  if (format.empty()) return parseDate(text);
  const std::vector<std::string> parts = words(text);
  std::vector<int> numbers;
  std::optional<int> month;
  for (const std::string& part : parts) {
    if (const std::optional<int> n = smallNumber(part)) {
      numbers.push_back(*n);
    } else if (const std::optional<int> named = monthNamed(part); named && !month) {
      month = named;
    } else {
      return std::nullopt;
    }
  }
  // The order of day, month and year is in the rule's name.
  std::string order;
  for (const auto& [word, letter] :
       std::initializer_list<std::pair<const char*, char>>{{"year", 'y'}, {"month", 'm'}, {"day", 'd'}}) {
    if (format.find(word) != std::string_view::npos) order += letter;
  }
  std::sort(order.begin(), order.end(), [&](char a, char b) {
    const auto at = [&](char c) { return format.find(c == 'y' ? "year" : c == 'm' ? "month" : "day"); };
    return at(a) < at(b);
  });
  if (order.empty()) {  // the older registries: dateslasheu, datedotus, datelongus ...
    if (format.find("eu") != std::string_view::npos || format.find("uk") != std::string_view::npos) order = "dmy";
    if (format.find("us") != std::string_view::npos) order = "mdy";
  }
  if (order.size() != 3) return std::nullopt;
  if (month) std::erase(order, 'm');
  if (numbers.size() != order.size()) return std::nullopt;
  int year = 0;
  int day = 0;
  for (size_t i = 0; i < order.size(); ++i) {
    if (order[i] == 'y') year = numbers[i] < 100 ? 2000 + numbers[i] : numbers[i];
    if (order[i] == 'd') day = numbers[i];
    if (order[i] == 'm') month = numbers[i];
  }
  char iso[32];
  std::snprintf(iso, sizeof iso, "%04d-%02d-%02d", year, month.value_or(0), day);
  return parseDate(iso);
}

std::string scaledText(const std::string& plain, int scale) {
  if (scale == 0) return plain;
  const size_t point = std::min(plain.find('.'), plain.size());
  std::string whole = plain.substr(0, point);
  std::string part = point < plain.size() ? plain.substr(point + 1) : std::string();
  for (int i = 0; i < scale; ++i) {
    whole += part.empty() ? '0' : part.front();
    if (!part.empty()) part.erase(0, 1);
  }
  for (int i = 0; i > scale; --i) {
    part.insert(part.begin(), whole.empty() ? '0' : whole.back());
    if (!whole.empty()) whole.pop_back();
  }
  whole.erase(0, std::min(whole.find_first_not_of('0'), whole.size()));
  if (whole.empty()) whole = "0";
  return part.empty() ? whole : whole + "." + part;
}

}  // namespace zl::exchange
