#include "core/filing/minor_unit.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/decimal.h"

namespace zl {
namespace {

constexpr std::string_view kPerShare = "/shares";

}  // namespace

std::vector<MinorUnit> minorUnits(const Company& company) {
  // Codes in use for quotation; ISO 4217 itself names none.
  std::vector<MinorUnit> units{{"GBX", "GBP", 2}, {"GBp", "GBP", 2}, {"ZAC", "ZAR", 2},
                               {"ZAc", "ZAR", 2}, {"ILA", "ILS", 2}, {"USX", "USD", 2}};
  std::vector<Listing> listings = company.furtherListings;
  listings.push_back(company.listing);
  for (const Listing& listing : listings) {
    const double places = listing.minorPerMajor > 0 ? std::log10(listing.minorPerMajor) : 0;
    if (listing.unit == listing.currency || places < 1 || places != std::round(places)) continue;
    std::erase_if(units, [&](const MinorUnit& u) { return u.unit == listing.unit; });
    units.push_back({listing.unit, listing.currency, static_cast<int>(places)});
  }
  return units;
}

std::map<size_t, FiledInMinor> readInCurrency(std::vector<Fact>& facts, const std::vector<MinorUnit>& units) {
  std::map<size_t, FiledInMinor> said;
  for (size_t i = 0; i < facts.size(); ++i) {
    Fact& fact = facts[i];
    for (const MinorUnit& minor : units) {
      const bool perShare = fact.unit.size() == minor.unit.size() + kPerShare.size() && fact.unit.ends_with(kPerShare);
      if (!fact.unit.starts_with(minor.unit) || (!perShare && fact.unit != minor.unit)) continue;
      const std::optional<Decimal> number = fact.nil ? std::nullopt : Decimal::parse(fact.text);
      if (!number && !fact.nil) break;  // a figure no reader could have taken stays as it is
      said[i] = {fact.text, fact.unit};
      if (number) fact.text = number->shifted(-minor.places).text();
      if (fact.decimals) *fact.decimals += minor.places;
      fact.unit = perShare ? minor.currency + std::string(kPerShare) : minor.currency;
      break;
    }
  }
  return said;
}

}  // namespace zl
