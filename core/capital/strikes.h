#pragma once
// Exercise prices in another unit than the listing's.

#include "core/filing/company.h"
#include "core/peers/peer.h"
#include "core/quantity/figure.h"

namespace zl {

/// The strike of an ordinary share in the listing's unit, by the exchange rate; absent where the rate is not known or
/// the unit is of no currency, saying what to give.
Figure strikeInListing(const Company& company, const OptionTranche& tranche, const SpotRates& spots);

}  // namespace zl
