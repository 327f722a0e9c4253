#pragma once
// Facts filed in pence or cents: minor units are units with a factor, read as their currency.

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/filing/company.h"
#include "core/filing/fact.h"

namespace zl {

struct MinorUnit {
  std::string unit;      ///< "GBX"
  std::string currency;  ///< ISO 4217, "GBP"
  int places = 2;        ///< decimal places between the two: 100 to 1
};

/// The usual minor units of quotation, and those of the company's own listings where their factor
/// is a power of ten.
std::vector<MinorUnit> minorUnits(const Company& company);

/// What a figure in `unit` is multiplied by to be in the unit of a listing: 1 for the listing's own (or none given),
/// 100 for pounds where pence are quoted. Empty where the unit is of another currency.
std::optional<double> intoListing(const std::string& unit, const Listing& listing);

/// The listing whose closes are in a unit: "GBX" is pence of GBP, "EUR" is EUR. Empty for what is no unit of a
/// currency.
std::optional<Listing> listingOfUnit(const std::string& unit);

/// What a fact said before it was read in its currency.
struct FiledInMinor {
  std::string text;
  std::string unit;
};

/// Rewrites facts in a minor unit, or in it per share, into its currency: the decimal point moves,
/// no digit is lost. Returns what they said, by index.
std::map<size_t, FiledInMinor> readInCurrency(std::vector<Fact>& facts, const std::vector<MinorUnit>& units);

}  // namespace zl
