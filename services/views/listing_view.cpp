#include "services/views/listing_view.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/number_text.h"

namespace zl::services {

using model::Role;

Figure rateTo(const Snapshot& s, const Listing& other) {
  return spot(spotRatesAt(s.market->rates, s.caseOf().valuationDate), s.company().listing.currency, other.currency);
}

Figure inListing(const Snapshot& s, const Figure& valued, const Listing& other) {
  const Listing& home = s.company().listing;
  const Figure perShare = valued / Figure::of(home.minorPerMajor * home.sharesPerListed);
  return perShare * rateTo(s, other) * Figure::of(other.minorPerMajor * other.sharesPerListed);
}

std::vector<ListingLine> listingLines(const Snapshot& s) {
  std::vector<Listing> listings = {s.company().listing};
  listings.insert(listings.end(), s.company().furtherListings.begin(), s.company().furtherListings.end());
  std::vector<ListingLine> lines;
  for (size_t i = 0; i < listings.size(); ++i) {
    const auto there = [&](const Figure& valued) { return i == 0 ? valued : inListing(s, valued, listings[i]); };
    ListingLine line{listings[i], there(s.given(Role::Price).figure), {}};
    for (int k = 0; k < s.evaluation->scenarios(); ++k)
      line.values.push_back(there(s.evaluation->constant(Role::ValuePerShare, k)));
    lines.push_back(std::move(line));
  }
  return lines;
}

namespace {

/// A year's end moves within a week where years are of 52 or 53 weeks.
bool endsElsewhere(const std::string& monthDay, Date filed) {
  constexpr int kNear = 8;
  const int year = yearOf(filed);
  for (const int other : {year - 1, year, year + 1}) {
    // 29 February is the last day of the month in years that have none.
    std::optional<Date> day = parseDate(std::to_string(other) + "-" + monthDay);
    if (!day) day = parseDate(std::to_string(other) + "-02-28");
    if (day && std::abs(daysBetween(*day, filed)) < kNear) return false;
  }
  return true;
}

}  // namespace

std::string contradictionOf(const Company& after, const Snapshot& s) {
  constexpr double kFar = 30;  // nobody issues that many in a year; a slip of thousands is a thousand
  const Company& before = s.company();
  if (after.currency != before.currency) {
    const bool filed = std::any_of(s.evidence->facts.begin(), s.evidence->facts.end(),
                                   [&](const Fact& f) { return f.unit.str() == after.currency; });
    if (!filed) return "the record would be in " + after.currency + ", and what is filed is in " + before.currency;
  }
  const std::string& ends = after.fiscalYearEnd;
  if (!ends.empty() && ends != before.fiscalYearEnd && !s.years().empty() && endsElsewhere(ends, s.years().back().end))
    return "the record would end fiscal years on " + ends + ", and the last filed one ends on " +
           dateText(s.years().back().end);
  const model::RowId row = s.model().find(Role::Shares);
  Figure filed = row.known() ? s.asFiled->at(row, static_cast<int>(s.years().size()) - 1) : Figure::absent("");
  if (s.evidence->cover) filed = Figure::of(s.evidence->cover->shares);
  if (after.shares == before.shares || !(after.shares > 0) || !filed.hasValue() || !(filed.value() > 0)) return {};
  const double times = after.shares / filed.value();
  if (times < kFar && times > 1 / kFar) return {};
  return "the record would say " + groupedNumber(after.shares, 0) + " shares, and " + groupedNumber(filed.value(), 0) +
         " are filed";
}

}  // namespace zl::services
