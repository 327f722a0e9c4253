#include "core/quantity/number_text.h"

#include <algorithm>
#include <atomic>
#include <charconv>
#include <cmath>

namespace zl {
namespace {

// Written by the window's thread; others may write figures at the same time.
std::atomic<NumberStyle::Marks> shownMarks = NumberStyle::Marks::CommaPoint;
std::atomic<bool> shownParentheses = true;

struct Typed {
  double number;
  bool hasUnit;  ///< a suffix told the scale
};

std::string stripped(std::string_view text) {
  std::string out;
  for (size_t i = 0; i < text.size(); ++i) {
    const auto c = static_cast<unsigned char>(text[i]);
    if (text.substr(i, 3) == "\xE2\x88\x92") {  // the true minus sign
      out += '-';
      i += 2;
    } else if (text.substr(i, 2) == "\xC2\xA0" || text.substr(i, 3) == "\xE2\x80\xAF") {
      i += c == 0xC2 ? 1 : 2;  // no-break spaces group digits
    } else if (c != ' ' && c != '\t') {
      out += static_cast<char>(c);
    }
  }
  return out;
}

/// Turns grouping and decimal marks into plain digits with a point; empty when ambiguous junk.
std::string normalised(const std::string& digits) {
  const size_t points = static_cast<size_t>(std::count(digits.begin(), digits.end(), '.'));
  const size_t commas = static_cast<size_t>(std::count(digits.begin(), digits.end(), ','));
  char decimal = 0;
  if (points > 0 && commas > 0) {
    decimal = digits.rfind('.') > digits.rfind(',') ? '.' : ',';
  } else if (points == 1) {
    decimal = '.';
  } else if (commas == 1) {
    const size_t after = digits.size() - digits.find(',') - 1;
    // 1,250 groups thousands, but where the comma is the decimal mark; 0,125 cannot.
    const bool groups = numberStyle().marks != NumberStyle::Marks::SpaceComma;
    decimal = groups && after == 3 && digits.find(',') > 0 && digits[0] != '0' ? 0 : ',';
  }
  if ((decimal == '.' && points > 1) || (decimal == ',' && commas > 1)) return {};
  std::string plain;
  size_t sinceGroup = 0;
  bool grouped = false;
  bool fraction = false;
  for (char c : digits) {
    if (c == decimal) {
      if (grouped && sinceGroup != 3) return {};
      fraction = true;
      plain += '.';
    } else if (c == '.' || c == ',' || c == '\'') {
      if (fraction || plain.empty() || (grouped && sinceGroup != 3) || sinceGroup > 3) return {};
      grouped = true;
      sinceGroup = 0;
    } else if (c >= '0' && c <= '9') {
      plain += c;
      ++sinceGroup;
    } else {
      return {};
    }
  }
  if (grouped && !fraction && sinceGroup != 3) return {};
  return plain;
}

std::optional<Typed> readTyped(std::string_view original) {
  std::string text = stripped(original);
  bool negative = false;
  if (text.size() > 2 && text.front() == '(' && text.back() == ')') {
    negative = true;
    text = text.substr(1, text.size() - 2);
  }
  if (!text.empty() && (text[0] == '-' || text[0] == '+')) {
    if (negative) return std::nullopt;
    negative = text[0] == '-';
    text.erase(0, 1);
  }
  const char* power = "";  // as digits, so that 4.1% is the nearest number to 0.041
  bool hasUnit = false;
  const struct {
    const char* suffix;
    const char* power;
  } kSuffixes[] = {{"%", "e-2"}, {"bn", "e9"}, {"b", "e9"}, {"m", "e6"}, {"k", "e3"}, {"x", ""}};
  for (const auto& s : kSuffixes) {
    const std::string_view suffix = s.suffix;
    if (text.size() > suffix.size() && text.compare(text.size() - suffix.size(), suffix.size(), suffix) == 0) {
      power = s.power;
      hasUnit = true;
      text.resize(text.size() - suffix.size());
      break;
    }
  }
  std::string plain = normalised(text);
  if (plain.empty() || plain == ".") return std::nullopt;
  plain += power;
  double number = 0;
  const auto [end, code] = std::from_chars(plain.data(), plain.data() + plain.size(), number);
  if (code != std::errc() || end != plain.data() + plain.size()) return std::nullopt;
  return Typed{negative ? -number : number, hasUnit};
}

}  // namespace

std::string plainNumber(double x) {
  char buffer[64];
  const double size = std::fabs(x);
  const bool plain = x == 0 || (size >= 1e-6 && size < 1e16);
  const auto end = plain ? std::to_chars(buffer, buffer + sizeof buffer, x, std::chars_format::fixed)
                         : std::to_chars(buffer, buffer + sizeof buffer, x);
  return std::string(buffer, end.ptr);
}

void setNumberStyle(NumberStyle style) {
  shownMarks = style.marks;
  shownParentheses = style.parentheses;
}

NumberStyle numberStyle() {
  return {shownMarks, shownParentheses};
}

std::string groupedNumber(double x, int decimals, bool parentheses) {
  char buffer[400];
  const auto end = std::to_chars(buffer, buffer + sizeof buffer, std::fabs(x), std::chars_format::fixed, decimals).ptr;
  std::string text(buffer, end);
  const bool zero = text.find_first_not_of("0.") == std::string::npos;
  const size_t whole = std::min(text.find('.'), text.size());
  const NumberStyle style = numberStyle();
  if (style.marks == NumberStyle::Marks::SpaceComma && whole < text.size()) text[whole] = ',';
  const char* group = style.marks == NumberStyle::Marks::CommaPoint ? "," : "\xE2\x80\xAF";  // narrow, never broken at
  for (size_t i = whole; i > 3; i -= 3) text.insert(i - 3, group);
  if (x >= 0 || zero) return text;
  return parentheses && style.parentheses ? "(" + text + ")" : "\xE2\x88\x92" + text;
}

double shownScale(Kind kind) {
  switch (kind) {
    case Kind::Money:
    case Kind::Shares:
      return 1e6;
    case Kind::Ratio:
      return 0.01;
    default:
      return 1;
  }
}

int amountDecimals(double largest) {
  const double millions = std::fabs(largest) / shownScale(Kind::Money);
  if (!std::isfinite(millions) || millions == 0) return 1;
  return millions >= 1e4 ? 0 : millions >= 1 ? 1 : millions >= 0.001 ? 3 : 6;
}

std::string figureText(const Figure& figure, Kind kind, int amountDecimals) {
  const bool amount = kind == Kind::Money || kind == Kind::Shares;
  if (!amount || !figure.hasValue()) return figureText(figure, kind);
  return groupedNumber(figure.value() / shownScale(kind), amountDecimals);
}

std::string figureText(const Figure& figure, Kind kind) {
  if (figure.isNotMeaningful()) return "\xC2\xB7";
  if (figure.isAbsent()) return {};
  const double x = figure.value() / shownScale(kind);
  switch (kind) {
    case Kind::Money:
    case Kind::Shares:
    case Kind::Ratio:
      return groupedNumber(x, 1);
    case Kind::PerShare:
    case Kind::Multiple:
      return groupedNumber(x, 2);
    case Kind::Days:
      return groupedNumber(x, 0);
    case Kind::Quote:
      return groupedNumber(x, std::fabs(x) < 100 ? 2 : 1);
    case Kind::Count:
      return groupedNumber(x, x == std::floor(x) ? 0 : 4);
    case Kind::QuoteRate:
      return groupedNumber(x, 4);
  }
  return {};
}

std::string unitText(Kind kind, const std::string& currency, const std::string& listing) {
  switch (kind) {
    case Kind::Money:
      return currency + " m";
    case Kind::Shares:
      return "m shares";
    case Kind::Ratio:
      return "%";
    case Kind::PerShare:
      return currency;
    case Kind::Multiple:
      return "\xC3\x97";
    case Kind::Days:
      return "days";
    case Kind::Quote:
      return listing;
    case Kind::Count:
      return {};
    case Kind::QuoteRate:
      return listing + "/" + currency;
  }
  return {};
}

std::optional<double> typedNumber(std::string_view text) {
  const std::optional<Typed> typed = readTyped(text);
  return typed ? std::optional(typed->number) : std::nullopt;
}

std::optional<double> typedFigure(std::string_view text, Kind kind) {
  const std::optional<Typed> typed = readTyped(text);
  if (!typed) return std::nullopt;
  return typed->hasUnit ? typed->number : typed->number * shownScale(kind);
}

std::optional<std::vector<double>> typedFigures(std::string_view text, Kind kind) {
  const std::string_view mark = text.find(';') != std::string_view::npos    ? ";"
                                : text.find(", ") != std::string_view::npos ? ", "
                                                                            : " ";
  std::vector<double> list;
  while (!text.empty()) {
    const size_t end = std::min(text.find(mark), text.size());
    const std::string_view piece = text.substr(0, end);
    text.remove_prefix(std::min(text.size(), end + mark.size()));
    if (piece.find_first_not_of(' ') == std::string_view::npos) continue;
    const std::optional<double> figure = typedFigure(piece, kind);
    if (!figure) return std::nullopt;
    list.push_back(*figure);
  }
  return list;
}

}  // namespace zl
