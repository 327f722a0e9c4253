#include "services/intake/price_units.h"

#include <cmath>
#include <cstdlib>

#include "core/filing/minor_unit.h"
#include "exchange/csv/tables.h"
#include "exchange/json/company_json.h"

namespace zl::services {
namespace {

using exchange::ContentKind;

constexpr double kMinorDecades = 2;  ///< pence to pounds
constexpr double kSpread = 0.2;      ///< of a decade: a price moves by less in the time
constexpr int kLongest = 370;        ///< days between the two closes

std::optional<Listing> listingOf(const std::vector<ImportPreview>& previews, const ImportContext& context) {
  std::optional<Listing> listing;
  if (context.record) listing = context.record->listing;
  for (const ImportPreview& p : previews) {
    if (p.passedOver || p.kind != ContentKind::CompanyRecord) continue;
    const Result<exchange::Json> json = exchange::parseJson(p.incoming.content, p.name);
    const Result<Company> record = json ? exchange::companyFromJson(*json, p.name) : tl::unexpected(json.error());
    if (record) listing = record->listing;
  }
  return listing;
}

/// What keeps a table's closes from being the listing's.
std::optional<Error> faultOf(const exchange::PriceTable& table, const std::optional<Listing>& listing,
                             const std::string& name) {
  const bool own = listing && intoListing(table.unit, *listing);
  if (own || table.unit.empty()) return std::nullopt;
  if (!listingOfUnit(table.unit)) {
    return Error{ErrorKind::BadInput, "'" + table.unit + "' is no unit that prices are quoted in", name,
                 "Write the currency (EUR) or its quoted part (GBX)"};
  }
  if (!listing) return std::nullopt;
  return Error{ErrorKind::Conflict, "the closes are in " + table.unit + ", the listing is in " + listing->unit, name,
               "Bring in the closes of the listing, or first a record that names the listing they are of"};
}

/// A table that does not say its unit, beside a close of the book.
void doubtUnit(const exchange::PriceTable& table, const Listing& listing, const ImportContext& context,
               ImportPreview& p) {
  p.warnings.push_back("it does not say what its closes are in: taken to be " + listing.unit + ", as the listing");
  if (!context.close) return;
  const std::optional<PricePoint> near = closeAt(table.closes, context.close->date);
  const PricePoint& close = near ? *near : table.closes.front();
  if (std::abs(daysBetween(close.date, context.close->date)) > kLongest) return;
  const double decades = std::log10(close.close / context.close->close);
  if (std::abs(std::abs(decades) - kMinorDecades) > kSpread) return;
  p.warnings.push_back("another unit? its closes are about 100 times" + std::string(decades > 0 ? "" : " less than") +
                       " those of the book: a column 'unit' says what they are in");
}

}  // namespace

Status holdPrices(std::vector<ImportPreview>& previews, const ImportContext& context) {
  const std::optional<Listing> listing = listingOf(previews, context);
  for (ImportPreview& p : previews) {
    if (p.passedOver || p.kind != ContentKind::PriceTable) continue;
    const Result<exchange::PriceTable> table = exchange::readPrices(p.incoming.content, p.name);
    if (!table) return tl::unexpected(table.error());
    if (const std::optional<Error> fault = faultOf(*table, listing, p.name)) {
      if (!p.found) return tl::unexpected(*fault);
      p.passedOver = true;
      p.warnings.push_back("passed over: " + fault->what);
    } else if (table->unit.empty() && listing) {
      doubtUnit(*table, *listing, context, p);
    }
  }
  return {};
}

}  // namespace zl::services
