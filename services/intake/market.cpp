#include "services/intake/market.h"

#include <algorithm>
#include <cmath>

#include "core/filing/minor_unit.h"
#include "core/text/utf8.h"
#include "exchange/content.h"
#include "exchange/csv/tables.h"

namespace zl::services {
namespace {

using exchange::ContentKind;

bool isKind(const std::string& kind, ContentKind wanted) {
  return kind == exchange::contentKindText(wanted);
}

void place(Market& market, const std::string& series, Date at, double figure, const std::string& source, bool typed) {
  if (series == kPriceSeries) {
    mergePrices(market.prices, {{at, figure, 0, source, typed}});
  } else {
    market.rates.merge({{series, at, figure, source, typed}});
  }
}

void place(Market& market, const store::Observation& o, const std::string& unit) {
  market.lastObservation = std::max(market.lastObservation, o.id);
  // A listing may have come to be quoted in another unit since: what it was fetched in says so.
  if (!faultOfFigure(o.series, o.figure, o.unit, unit).empty()) return;
  place(market, o.series, o.at, o.figure, "fetched " + o.fetched.substr(0, 16) + " from " + o.source, false);
}

}  // namespace

Market::Market() = default;
Market::Market(const Market&) = default;
Market::Market(Market&&) noexcept = default;
Market& Market::operator=(const Market&) = default;
Market& Market::operator=(Market&&) noexcept = default;
Market::~Market() = default;

bool isOfMarket(const std::string& kind) {
  return isKind(kind, ContentKind::PriceTable) || isKind(kind, ContentKind::RateTable) ||
         isKind(kind, ContentKind::PeerTable) || isKind(kind, ContentKind::EstimateTable) ||
         isKind(kind, ContentKind::TypedFigure);
}

bool isShared(const store::StoredDocument& document) {
  return document.company.empty() && isOfMarket(document.document.kind);
}

Result<bool> readMarketDocument(store::Book& book, const store::StoredDocument& d, const Listing& listing,
                                Market& market) {
  const std::string& kind = d.document.kind;
  if (!isOfMarket(kind)) return false;
  const Result<std::string> content = book.content(d.document.id);
  if (!content) return tl::unexpected(content.error());
  if (isKind(kind, ContentKind::PriceTable)) {
    Result<exchange::PriceTable> more = exchange::readPrices(*content, d.document.name);
    if (!more) return tl::unexpected(more.error());
    // The record may have come to name another listing since it was brought in.
    const std::optional<double> factor = intoListing(more->unit, listing);
    if (!factor) {
      market.otherUnits.push_back(d.document.name + " (" + more->unit + ")");
      return true;
    }
    for (PricePoint& p : more->closes) {
      p.document = d.document.id;
      p.close *= *factor;
    }
    mergePrices(market.prices, more->closes);
  } else if (isKind(kind, ContentKind::PeerTable)) {
    const auto more = exchange::readPeers(*content, d.document.name);
    if (!more) return tl::unexpected(more.error());
    mergePeers(market.peers, more->rows);
  } else if (isKind(kind, ContentKind::RateTable)) {
    auto more = exchange::readRates(*content, d.document.name);
    if (!more) return tl::unexpected(more.error());
    market.rates.merge(std::move(more->rows));
  } else if (isKind(kind, ContentKind::EstimateTable)) {
    // Snapshots of another day add to those there are: the history of a consensus is worth keeping.
    const auto more = exchange::readEstimates(*content, d.document.name);
    if (!more) return tl::unexpected(more.error());
    market.estimates.insert(market.estimates.end(), more->rows.begin(), more->rows.end());
  } else {
    const Result<exchange::TypedFigure> typed = exchange::typedFigureFrom(*content, d.document.name);
    if (!typed) return tl::unexpected(typed.error());
    // Another listing may have come to be the one valued since.
    const std::optional<double> factor =
        typed->series == kPriceSeries ? intoListing(typed->unit, listing) : std::optional(1.0);
    if (!factor) {
      market.otherUnits.push_back(d.document.name + " (" + typed->unit + ")");
      return true;
    }
    place(market, typed->series, typed->at, typed->figure * *factor,
          "typed by " + typed->said.author + " on " + typed->said.at.substr(0, 10) +
              (typed->said.reason.empty() ? "" : ": " + typed->said.reason),
          true);
  }
  return true;
}

Result<std::shared_ptr<Market>> marketOf(store::Book& book, const std::string& company,
                                         const std::vector<store::StoredDocument>& documents, const Listing& listing,
                                         const std::string& at, const std::string& sharedAt) {
  const auto counts = [&](const std::string& arrived, bool shared) {
    return (at.empty() || arrived <= at) && (!shared || sharedAt.empty() || arrived <= sharedAt);
  };
  auto market = std::make_shared<Market>();
  Result<std::vector<store::Observation>> fetched = book.observations(company);
  if (!fetched) return tl::unexpected(fetched.error());
  std::stable_sort(fetched->begin(), fetched->end(),
                   [](const store::Observation& a, const store::Observation& b) { return a.fetched < b.fetched; });
  auto next = fetched->begin();
  const auto upTo = [&](const std::string* arrived) {
    for (; next != fetched->end() && (arrived == nullptr || next->fetched < *arrived); ++next) {
      if (counts(next->fetched, next->company.empty())) place(*market, *next, listing.unit);
    }
  };
  for (const bool typed : {false, true}) {
    if (typed) upTo(nullptr);
    for (const store::StoredDocument& d : documents) {
      if (!d.active || isKind(d.document.kind, ContentKind::TypedFigure) != typed) continue;
      if (!isOfMarket(d.document.kind) || !counts(d.document.importedAt, isShared(d))) continue;
      if (!typed) upTo(&d.document.importedAt);
      const Result<bool> read = readMarketDocument(book, d, listing, *market);
      if (!read) return tl::unexpected(read.error());
    }
  }
  for (const store::Observation& o : *fetched) market->lastObservation = std::max(market->lastObservation, o.id);
  return market;
}

std::shared_ptr<const Market> withObservations(const Market& market, const std::vector<store::Observation>& fresh,
                                               const std::string& unit) {
  auto next = std::make_shared<Market>(market);
  const bool shared = std::any_of(fresh.begin(), fresh.end(), [](const auto& o) { return o.company.empty(); });
  if (shared && !next->before) next->before = std::make_shared<const Market>(market);
  for (const store::Observation& o : fresh) place(*next, o, unit);
  return next;
}

std::string faultOfFigure(const std::string& series, double figure, const std::string& unit,
                          const std::string& listingUnit) {
  constexpr size_t kLongestName = 100;
  if (series.empty() || series.size() > kLongestName || harmless(series) != series || !isUtf8(series))
    return "the name of the series must be 1 to 100 characters of plain text";
  if (!std::isfinite(figure)) return "the figure is no number";
  if (series == kPriceSeries) {
    if (unit != listingUnit) return "the price is in '" + unit + "', the listing in '" + listingUnit + "'";
    if (figure <= 0) return "a price must be above nought";
  } else if (series.rfind("spot ", 0) == 0 && figure <= 0) {
    return "an exchange rate must be above nought";
  }
  return {};
}

}  // namespace zl::services
