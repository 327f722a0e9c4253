#include "core/filing/minor_unit.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/decimal.h"

namespace zl {
namespace {

constexpr std::string_view kPerShare = "/shares";

// Codes in use for quotation; ISO 4217 itself names none.
const std::vector<MinorUnit> kQuoted{{"GBX", "GBP", 2}, {"GBp", "GBP", 2}, {"ZAC", "ZAR", 2},
                                     {"ZAc", "ZAR", 2}, {"ILA", "ILS", 2}, {"USX", "USD", 2}};

const MinorUnit* quoted(const std::string& unit) {
  const auto found = std::find_if(kQuoted.begin(), kQuoted.end(), [&](const MinorUnit& u) { return u.unit == unit; });
  return found == kQuoted.end() ? nullptr : &*found;
}

}  // namespace

std::optional<double> intoListing(const std::string& unit, const Listing& listing) {
  if (unit.empty() || unit == listing.unit) return 1;
  if (unit == listing.currency) return listing.minorPerMajor;
  const MinorUnit* minor = quoted(unit);
  if (minor == nullptr || minor->currency != listing.currency) return std::nullopt;
  return listing.minorPerMajor / std::pow(10.0, minor->places);
}

std::optional<Listing> listingOfUnit(const std::string& unit) {
  if (const MinorUnit* minor = quoted(unit)) return Listing{unit, minor->currency, std::pow(10.0, minor->places), 1};
  const bool code =
      unit.size() == 3 && std::all_of(unit.begin(), unit.end(), [](char c) { return c >= 'A' && c <= 'Z'; });
  return code ? std::optional(Listing{unit, unit, 1, 1}) : std::nullopt;
}

std::vector<MinorUnit> minorUnits(const Company& company) {
  std::vector<MinorUnit> units = kQuoted;
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
