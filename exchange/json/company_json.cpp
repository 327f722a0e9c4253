#include "exchange/json/company_json.h"

namespace zl::exchange {
namespace {

Company companyOf(const Json& json, const std::string& source) {
  ObjectReader r(json, source);
  if (r.text("format") != "zealous-ledger-company") r.fault("this is not a company record");
  if (r.whole("version") != 1) r.fault("this program reads version 1 of the record");
  Company c;
  c.id = r.text("id");
  c.name = r.text("name");
  c.description = r.optionalText("description");
  c.currency = r.text("currency");
  if (c.id.empty() || c.id.find_first_of(" /\\\t\n") != std::string::npos) {
    r.fault("'id' must be a short name without spaces or slashes");
  }
  if (c.currency.size() != 3) r.fault("'currency' must be a code of three letters");
  const Json* listing = r.member("listing");
  if (listing == nullptr) r.fault("'listing' is missing");
  ObjectReader l(*listing, source + "/listing");
  c.listing = {l.text("unit"), l.text("currency"), l.number("minor_per_major"), l.numberOr("shares_per_listed", 1)};
  if (!(c.listing.minorPerMajor > 0) || !(c.listing.sharesPerListed > 0)) {
    l.fault("'minor_per_major' and 'shares_per_listed' must be positive");
  }
  l.finish();
  c.shares = r.number("shares");
  if (!(c.shares > 0)) r.fault("'shares' must be positive");
  const auto count = [&](const char* key) {
    const double x = r.numberOr(key, 0);
    if (x < 0) r.fault(std::string("'") + key + "' must not be negative");
    return x;
  };
  c.options = count("options");
  c.optionStrike = count("option_strike");
  c.unvestedShares = count("unvested_shares");
  c.convertibleShares = count("convertible_shares");
  c.convertibleFace = count("convertible_face");
  r.finish();
  return c;
}

}  // namespace

Json toJson(const Company& c) {
  return {{"format", "zealous-ledger-company"},
          {"version", 1},
          {"id", c.id},
          {"name", c.name},
          {"description", c.description},
          {"currency", c.currency},
          {"listing",
           {{"unit", c.listing.unit},
            {"currency", c.listing.currency},
            {"minor_per_major", c.listing.minorPerMajor},
            {"shares_per_listed", c.listing.sharesPerListed}}},
          {"shares", c.shares},
          {"options", c.options},
          {"option_strike", c.optionStrike},
          {"unvested_shares", c.unvestedShares},
          {"convertible_shares", c.convertibleShares},
          {"convertible_face", c.convertibleFace}};
}

Result<Company> companyFromJson(const Json& json, const std::string& source) {
  try {
    return companyOf(json, source);
  } catch (const JsonFault& fault) {
    return tl::unexpected(fault.error);
  }
}

}  // namespace zl::exchange
