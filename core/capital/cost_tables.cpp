#include "core/capital/cost_tables.h"

#include <algorithm>
#include <map>

#include "core/filing/labels.h"
#include "core/quantity/number_text.h"

namespace zl {
namespace {

std::string sourceOf(const MarketRate& rate) {
  return dateText(rate.date) + (rate.source.empty() ? "" : ", " + rate.source);
}

}  // namespace

std::vector<Spread> spreadsAt(const MarketRates& rates, Date date) {
  const std::string beginning = kCoverSpread;
  std::map<double, MarketRate, std::greater<>> latest;
  for (const MarketRate& rate : rates) {  // ascending by date within a name
    if (rate.name.rfind(beginning, 0) != 0 || rate.date > date) continue;
    const std::optional<double> from = typedNumber(rate.name.substr(beginning.size()));
    if (from) latest[*from] = rate;
  }
  std::vector<Spread> table;
  for (const auto& [from, rate] : latest) table.push_back({from, rate});
  return table;
}

SpreadFound spreadFor(const Figure& cover, const std::vector<Spread>& table) {
  if (table.empty()) return {Figure::absent("there is no table of spreads by interest cover"), ""};
  if (!cover.hasValue()) return {cover, ""};
  const auto row = std::find_if(table.begin(), table.end(), [&](const Spread& s) { return cover.value() >= s.from; });
  const Spread& found = row == table.end() ? table.back() : *row;
  return {Figure::of(found.rate.figure), sourceOf(found.rate)};
}

CountryPremium countryPremium(const std::vector<std::pair<std::string, double>>& sales, const MarketRates& rates,
                              Date date) {
  const std::string beginning = kCountryPremium;
  std::map<std::string, MarketRate> table;
  for (const MarketRate& rate : rates) {
    if (rate.name.rfind(beginning, 0) == 0 && rate.date <= date)
      table[normalisedLabel(rate.name.substr(beginning.size()))] = rate;
  }
  CountryPremium found;
  double weighted = 0, mapped = 0;
  for (const auto& [region, sold] : sales) {
    RegionPremium part{region, sold, Figure::absent("the table of premiums lacks '" + region + "'"), ""};
    if (const auto row = table.find(normalisedLabel(region)); row != table.end()) {
      part.premium = Figure::of(row->second.figure);
      part.source = sourceOf(row->second);
      weighted += sold * row->second.figure;
      mapped += sold;
    } else {
      ++found.unmapped;
    }
    found.regions.push_back(std::move(part));
  }
  // What is not in the table counts at the mean of what is, which is the mean itself.
  if (mapped > 0) {
    found.premium = Figure::of(weighted / mapped);
  } else {
    found.premium = Figure::absent(sales.empty() ? "no sales by region are filed"
                                                 : "no region of the sales is in the table of premiums");
  }
  return found;
}

Figure inCurrency(const Figure& rate, const Figure& inflationA, const Figure& inflationB) {
  const Figure one = Figure::of(1);
  return (one + rate) * (one + inflationB) / (one + inflationA) - one;
}

}  // namespace zl
