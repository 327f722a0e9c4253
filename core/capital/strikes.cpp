#include "core/capital/strikes.h"

#include <algorithm>

#include "core/filing/minor_unit.h"

namespace zl {

Figure strikeInListing(const Company& company, const OptionTranche& tranche, const SpotRates& spots) {
  const Listing& home = company.listing;
  if (const std::optional<double> factor = intoListing(tranche.unit, home))
    return Figure::of(tranche.strike) * Figure::of(*factor);
  const auto further = std::find_if(company.furtherListings.begin(), company.furtherListings.end(),
                                    [&](const Listing& l) { return l.unit == tranche.unit; });
  const std::optional<Listing> in =
      further != company.furtherListings.end() ? std::optional(*further) : listingOfUnit(tranche.unit);
  if (!in)
    return Figure::absent("'" + tranche.unit + "', in which options have their strike, is no unit of a currency");
  const Figure rate = spot(spots, in->currency, home.currency);
  if (!rate.hasValue()) {
    return Figure::absent("the options' strike is in " + tranche.unit + ": give the rate 'spot " + in->currency + "/" +
                          home.currency + "'");
  }
  return Figure::of(tranche.strike / in->minorPerMajor * home.minorPerMajor) * rate;
}

}  // namespace zl
