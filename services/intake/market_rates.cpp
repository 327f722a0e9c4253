#include "services/intake/market_rates.h"

#include <cctype>
#include <cmath>

#include "core/capital/rates.h"
#include "core/quantity/number_text.h"

namespace zl::services {

void RateRows::readSeries() {
  table_.begin(exchange::ContentKind::SeriesTable, "series,date,level,unit,dividend,source");
  const std::string level = table_.has("figure") ? "figure" : "close";
  for (size_t r = table_.firstRow(); r < table_.endRow(); ++r) {
    const std::string name = table_.textAt(r, "series");
    const std::optional<double> figure = table_.numberAt(r, level);
    const SheetCell* cell = table_.cellAt(r, "date");
    if (name.empty() && !figure && cell == nullptr) continue;
    const std::optional<Date> day = table_.dayOf(cell);
    if (name.empty() || !day || !figure || !(*figure > 0)) {
      table_.setAside(r, name.empty() ? "it names no series" : !day ? "it has no day" : "it has no level above nought");
      continue;
    }
    std::string unit = table_.textAt(r, "price_currency");
    if (unit.empty()) unit = table_.textAt(r, "currency");
    const std::optional<double> paid = table_.numberAt(r, "dividend");
    const std::string source = table_.textAt(r, "source");
    table_.line({name, dateText(*day), plainNumber(*figure), unit, paid ? plainNumber(*paid) : "",
                 source.empty() ? table_.hints().source : source});
  }
}

double RateRows::perCentOf(const std::string& is) {
  constexpr double kMostPlainRate = 0.6;
  bool large = table_.columnOf(is)->text.find('%') != std::string::npos;
  for (size_t r = table_.firstRow(); r < table_.endRow() && !large; ++r) {
    const std::optional<WrittenFigure> x = table_.writtenAt(r, is);
    large = x && !x->whole && std::fabs(x->number) > kMostPlainRate;
    if (large) table_.note("'" + table_.columnOf(is)->text + "' is read in per cent");
  }
  return large ? 0.01 : 1;
}

bool RateRows::addRate(size_t row, const std::string& rate, const std::string& is, double factor) {
  const std::optional<WrittenFigure> x = table_.writtenAt(row, is);
  if (!x) return false;
  const std::optional<Date> day =
      table_.has("date") ? table_.dayOf(table_.cellAt(row, "date")) : std::optional(table_.hints().day);
  if (!day) return false;
  const std::string source = table_.textAt(row, "source");
  // Of "4.1" per cent 0.041, not 0.040999999999999995.
  const double figure = x->whole || factor == 1 ? x->number : std::round(x->number * factor * 1e12) / 1e12;
  table_.line({rate, dateText(*day), plainNumber(figure), source.empty() ? table_.hints().source : source});
  return true;
}

void RateRows::readByRegion() {
  const double premium = table_.has("premium") ? perCentOf("premium") : 1;
  const double tax = table_.has("tax") ? perCentOf("tax") : 1;
  for (size_t r = table_.firstRow(); r < table_.endRow(); ++r) {
    const std::string region = table_.textAt(r, "region");
    if (region.empty() || isStatistic(region)) continue;
    const bool paid = table_.has("premium") && addRate(r, std::string(kCountryPremium) + region, "premium", premium);
    const bool taxed = table_.has("tax") && addRate(r, std::string(kCountryTax) + region, "tax", tax);
    if (!paid && !taxed) table_.setAside(r, "it has no figure or no day");
  }
}

std::optional<double> RateRows::lowerEnd(const std::string& text) {
  const size_t digit = text.find_first_of("0123456789");
  if (digit == std::string::npos) return std::nullopt;
  if (text.find('<') < digit || text.find("\u2264") < digit) return 0;
  size_t from = digit;
  if (from > 0 && text[from - 1] == '-' && (from == 1 || text[from - 2] == ' ')) --from;
  size_t to = digit;
  while (to < text.size() && (std::isdigit(static_cast<unsigned char>(text[to])) != 0 || text[to] == '.')) ++to;
  return std::stod(text.substr(from, to - from));
}

void RateRows::readSpreads() {
  const double factor = perCentOf("spread");
  for (size_t r = table_.firstRow(); r < table_.endRow(); ++r) {
    const std::string written = table_.textAt(r, "cover");
    if (written.empty()) continue;
    const std::optional<double> from = lowerEnd(written);
    if (!from || !addRate(r, std::string(kCoverSpread) + plainNumber(*from), "spread", factor))
      table_.setAside(r, "it has no cover from which the spread holds, or no spread");
  }
}

void RateRows::readRates() {
  for (size_t r = table_.firstRow(); r < table_.endRow(); ++r) {
    std::string name = table_.textAt(r, table_.has("rate") ? "rate" : table_.has("name") ? "name" : "series");
    const std::optional<double> figure = table_.numberAt(r, "figure");
    if (name.empty() && !figure) continue;
    const std::optional<Date> day =
        table_.has("date") ? table_.dayOf(table_.cellAt(r, "date")) : std::optional(table_.hints().day);
    if (name.empty() || !figure || !day) {
      table_.setAside(r, name.empty() ? "it names no rate" : !figure ? "it has no figure" : "it has no day");
      continue;
    }
    // "EUR/GBP" is a pair of currencies.
    if (name.size() == 7 && name[3] == '/') name.insert(0, "spot ");
    const std::string source = table_.textAt(r, "source");
    table_.line({name, dateText(*day), plainNumber(*figure), source.empty() ? table_.hints().source : source});
  }
}

}  // namespace zl::services
