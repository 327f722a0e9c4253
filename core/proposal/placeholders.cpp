#include "core/proposal/placeholders.h"

#include <charconv>
#include <sstream>

#include "core/filing/rule_lines.h"

namespace zl {
namespace {

constexpr const char* kTax = "tax";
constexpr const char* kSpot = "spot";

/// "3%" or "1.1" at the end of `text`, and the words before it.
std::optional<std::pair<std::string, double>> namedFigure(std::string_view text) {
  text = trimmedRule(text);
  const size_t space = text.find_last_of(" \t");
  if (space == std::string_view::npos) return std::nullopt;
  std::string number(text.substr(space + 1));
  const bool percent = number.ends_with('%');
  if (percent) number.pop_back();
  double figure = 0;
  const auto [end, code] = std::from_chars(number.data(), number.data() + number.size(), figure);
  if (code != std::errc() || end != number.data() + number.size()) return std::nullopt;
  return std::pair(std::string(trimmedRule(text.substr(0, space))), percent ? figure / 100 : figure);
}

}  // namespace

Result<Placeholders> Placeholders::parse(std::string_view text, const std::string& source) {
  Placeholders table;
  RuleLines lines(text, source);
  while (lines.next()) {
    std::istringstream words{std::string(lines.line())};
    std::string what;
    std::string code;
    words >> what >> code;
    std::string rest;
    std::getline(words, rest);
    if (what == "as_of") {
      const std::optional<Date> day = parseDate(code);
      if (!day) return fail(ErrorKind::BadInput, "expected a day, as_of 2026-01-01", lines.where());
      table.asOf_ = *day;
      continue;
    }
    const bool currency = what == "currency" && code.size() == 3;
    const bool country = what == "country" && code.size() == 2;
    if (!currency && !country) {
      return fail(ErrorKind::BadInput, "expected as_of, currency and three letters, or country and two", lines.where());
    }
    std::istringstream parts(rest);
    for (std::string part; std::getline(parts, part, ',');) {
      const auto figure = namedFigure(part);
      if (!figure || (country && figure->first != kTax) || (figure->first == kSpot && figure->second <= 0)) {
        return fail(ErrorKind::BadInput, "'" + std::string(trimmedRule(part)) + "' is no rate", lines.where(),
                    country ? "Write tax 25%" : "Write risk-free 3%");
      }
      if (currency) {
        table.currencies_[code][figure->first] = figure->second;
      } else {
        table.taxes_[code] = figure->second;
      }
    }
  }
  if (table.asOf_ == Date{}) {
    return fail(ErrorKind::BadInput, "the table does not say of when it is", source, "Add a line as_of 2026-01-01");
  }
  return table;
}

std::optional<double> Placeholders::rate(const std::string& currency, const std::string& name) const {
  const auto rates = currencies_.find(currency);
  if (rates == currencies_.end()) return std::nullopt;
  const auto found = rates->second.find(name);
  return found == rates->second.end() ? std::nullopt : std::optional(found->second);
}

std::optional<double> Placeholders::tax(const std::string& country, const std::string& currency) const {
  const auto found = taxes_.find(country);
  return found != taxes_.end() ? std::optional(found->second) : rate(currency, kTax);
}

Figure Placeholders::spot(const std::string& from, const std::string& to) const {
  if (from == to) return Figure::of(1);
  for (const std::string& currency : {from, to}) {
    if (!rate(currency, kSpot)) return Figure::absent("no spot rate of " + currency + " is known");
  }
  return Figure::of(*rate(from, kSpot) / *rate(to, kSpot));
}

std::string Placeholders::source() const {
  return "placeholder of " + dateText(asOf_) + ", a round figure";
}

}  // namespace zl
