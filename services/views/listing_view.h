#pragma once
// What a figure per share in the listing valued is in another of the company's listings.

#include <string>
#include <vector>

#include "services/stages/snapshot.h"

namespace zl::services {

/// Of the listing valued: its unit per security. Absent where no rate connects the currencies on the valuation date.
Figure inListing(const Snapshot& s, const Figure& valued, const Listing& other);

/// Units of another listing's currency for one of the listing valued, on the valuation date.
Figure rateTo(const Snapshot& s, const Listing& other);

/// A listing with the price and the value of each scenario, in its own unit per security; the one valued comes first.
struct ListingLine {
  Listing listing;
  Figure price;
  std::vector<Figure> values;  ///< by scenario
};
std::vector<ListingLine> listingLines(const Snapshot& s);

/// Where a record that is typed contradicts what is filed: counts of shares a thousand times apart, another currency
/// than any filed, another end of fiscal years. In words, both figures in them; empty where nothing does.
std::string contradictionOf(const Company& after, const Snapshot& s);

}  // namespace zl::services
