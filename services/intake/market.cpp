#include "services/intake/market.h"

#include <algorithm>
#include <cmath>
#include <utility>

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
         isKind(kind, ContentKind::SeriesTable) || isKind(kind, ContentKind::TypedFigure);
}

bool isShared(const store::StoredDocument& document) {
  return document.company.empty() && isOfMarket(document.document.kind);
}

namespace {

/// Puts a market together: tables, what was fetched and what was typed in the order in which they came.
class Gathering {
 public:
  Gathering(store::Book& book, const Company& record) : book_(book), record_(record) {}

  Status read(const store::StoredDocument& d) {
    const std::string& kind = d.document.kind;
    const Result<std::string> content = book_.content(d.document.id);
    if (!content) return tl::unexpected(content.error());
    if (isKind(kind, ContentKind::PriceTable)) return prices(d, *content);
    if (isKind(kind, ContentKind::TypedFigure)) return typed(d, *content);
    if (isKind(kind, ContentKind::PeerTable)) {
      const auto more = exchange::readPeers(*content, d.document.name);
      if (!more) return tl::unexpected(more.error());
      mergePeers(market_->peers, more->rows);
    } else if (isKind(kind, ContentKind::RateTable)) {
      auto more = exchange::readRates(*content, d.document.name);
      if (!more) return tl::unexpected(more.error());
      market_->rates.merge(std::move(more->rows));
    } else if (isKind(kind, ContentKind::SeriesTable)) {
      auto more = exchange::readSeries(*content, d.document.name);
      if (!more) return tl::unexpected(more.error());
      mergeSeries(market_->series, std::move(more->rows));
    } else {
      // Snapshots of another day add to those there are: the history of a consensus is worth keeping.
      const auto more = exchange::readEstimates(*content, d.document.name);
      if (!more) return tl::unexpected(more.error());
      market_->estimates.insert(market_->estimates.end(), more->rows.begin(), more->rows.end());
    }
    return {};
  }

  void fetched(const store::Observation& o) { place(*market_, o, record_.listing.unit); }
  void noteObservation(const store::Observation& o) {
    market_->lastObservation = std::max(market_->lastObservation, o.id);
  }

  /// Once all rates are known: closes of other listings, where the listing's own say nothing of their day.
  std::shared_ptr<Market> finish() {
    std::vector<PricePoint> converted;
    for (const Foreign& close : foreign_) {
      const Figure rate =
          spot(spotRatesAt(market_->rates, close.point.date), close.of.currency, record_.listing.currency);
      if (!rate.hasValue()) {
        if (std::find(market_->otherUnits.begin(), market_->otherUnits.end(), close.name) == market_->otherUnits.end())
          market_->otherUnits.push_back(close.name);
        continue;
      }
      const Listing& home = record_.listing;
      PricePoint point = close.point;
      point.close *= rate.value() * home.minorPerMajor * home.sharesPerListed /
                     (close.of.minorPerMajor * close.of.sharesPerListed);
      point.typed = false;  // what the listing's own say of the day stands
      point.source += (point.source.empty() ? "" : "; ") + std::string("from the listing in ") + close.of.unit;
      converted.push_back(std::move(point));
    }
    std::stable_sort(converted.begin(), converted.end(),
                     [](const PricePoint& a, const PricePoint& b) { return a.date < b.date; });
    std::vector<PricePoint> own = std::exchange(market_->prices, {});
    mergePrices(market_->prices, converted);
    mergePrices(market_->prices, own);
    return std::move(market_);
  }

 private:
  struct Foreign {
    Listing of;
    PricePoint point;
    std::string name;  ///< of what it came in with
  };

  [[nodiscard]] const Listing* furtherIn(const std::string& unit) const {
    const auto found = std::find_if(record_.furtherListings.begin(), record_.furtherListings.end(),
                                    [&](const Listing& l) { return l.unit == unit; });
    return found == record_.furtherListings.end() ? nullptr : &*found;
  }

  /// Into the listing valued, or kept apart until rates are known, or told of.
  void put(std::vector<PricePoint> closes, const std::string& given, const std::string& name) {
    const std::string& unit = given.empty() ? record_.plainPricesIn : given;
    const std::string told = name + " (" + unit + ")";
    // A listing in the same currency may stand for another number of shares.
    const Listing* other = unit == record_.listing.unit ? nullptr : furtherIn(unit);
    if (other != nullptr) {
      for (PricePoint& p : closes) foreign_.push_back({*other, std::move(p), told});
      return;
    }
    const std::optional<double> factor = intoListing(unit, record_.listing);
    if (!factor) {
      market_->otherUnits.push_back(told);
      return;
    }
    for (PricePoint& p : closes) p.close *= *factor;
    mergePrices(market_->prices, closes);
  }

  Status prices(const store::StoredDocument& d, const std::string& content) {
    Result<exchange::PriceTable> more = exchange::readPrices(content, d.document.name);
    if (!more) return tl::unexpected(more.error());
    for (PricePoint& p : more->closes) p.document = d.document.id;
    put(std::move(more->closes), more->unit, d.document.name);
    return {};
  }

  Status typed(const store::StoredDocument& d, const std::string& content) {
    const Result<exchange::TypedFigure> typed = exchange::typedFigureFrom(content, d.document.name);
    if (!typed) return tl::unexpected(typed.error());
    const std::string source = "typed by " + typed->said.author + " on " + typed->said.at.substr(0, 10) +
                               (typed->said.reason.empty() ? "" : ": " + typed->said.reason);
    if (typed->series == kPriceSeries) {
      put({{typed->at, typed->figure, 0, source, true}}, typed->unit, d.document.name);
    } else {
      place(*market_, typed->series, typed->at, typed->figure, source, true);
    }
    return {};
  }

  store::Book& book_;
  const Company& record_;
  std::shared_ptr<Market> market_ = std::make_shared<Market>();
  std::vector<Foreign> foreign_;
};

}  // namespace

Result<std::shared_ptr<Market>> marketOf(store::Book& book, const std::string& company,
                                         const std::vector<store::StoredDocument>& documents, const Company& record,
                                         const std::string& at, const std::string& sharedAt) {
  const auto counts = [&](const std::string& arrived, bool shared) {
    return (at.empty() || arrived <= at) && (!shared || sharedAt.empty() || arrived <= sharedAt);
  };
  Gathering gathering(book, record);
  Result<std::vector<store::Observation>> fetched = book.observations(company);
  if (!fetched) return tl::unexpected(fetched.error());
  std::stable_sort(fetched->begin(), fetched->end(),
                   [](const store::Observation& a, const store::Observation& b) { return a.fetched < b.fetched; });
  auto next = fetched->begin();
  const auto upTo = [&](const std::string* arrived) {
    for (; next != fetched->end() && (arrived == nullptr || next->fetched < *arrived); ++next) {
      if (counts(next->fetched, next->company.empty())) gathering.fetched(*next);
    }
  };
  for (const bool typed : {false, true}) {
    if (typed) upTo(nullptr);
    for (const store::StoredDocument& d : documents) {
      if (!d.active || isKind(d.document.kind, ContentKind::TypedFigure) != typed) continue;
      if (!isOfMarket(d.document.kind) || !counts(d.document.importedAt, isShared(d))) continue;
      if (!typed) upTo(&d.document.importedAt);
      if (const Status read = gathering.read(d); !read) return tl::unexpected(read.error());
    }
  }
  for (const store::Observation& o : *fetched) gathering.noteObservation(o);
  return gathering.finish();
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
