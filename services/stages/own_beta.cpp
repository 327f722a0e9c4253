#include "services/stages/own_beta.h"

#include <algorithm>

#include "core/filing/labels.h"
#include "core/filing/minor_unit.h"
#include "core/history/statistics.h"
#include "core/quantity/number_text.h"

namespace zl::services {

const MarketSeries* seriesOf(const Snapshot& s, const std::string& id, const std::string& name) {
  const MarketSeries* found = seriesNamed(s.market->series, id);
  return found != nullptr ? found : seriesNamed(s.market->series, name);
}

namespace {

using model::Role;

constexpr int kFewPairs = 24;
constexpr double kWideBand = 0.6;

/// Closes of the listing with the dividends that a series of the company's own name adds.
std::vector<SeriesPoint> subjectsCloses(const Snapshot& s) {
  std::vector<SeriesPoint> closes;
  for (const PricePoint& p : s.market->prices) closes.push_back({p.date, p.close, 0, p.source});
  const MarketSeries* own = seriesOf(s, s.company().id, s.company().name);
  if (own == nullptr) return closes;
  for (const SeriesPoint& p : own->points) {
    const auto at = std::lower_bound(closes.begin(), closes.end(), p.date,
                                     [](const SeriesPoint& c, Date day) { return c.date < day; });
    if (at != closes.end() && at->date == p.date) {
      at->dividend = p.dividend;
    } else {
      closes.insert(at, p);
    }
  }
  return closes;
}

/// "GBX" to GBP: what a level's unit is a part of.
std::string currencyOf(const std::string& unit) {
  const std::optional<Listing> listing = listingOfUnit(unit);
  return listing ? listing->currency : unit;
}

/// The index in the share's currency by the rates of its days: the last one at most a week old. Days without one are
/// left out.
std::vector<SeriesPoint> inCurrencyOf(const std::string& to, const MarketSeries& index, const MarketRates& rates,
                                      int& without) {
  const std::string from = currencyOf(index.unit);
  if (from.empty() || from == to) return index.points;
  constexpr int kOldest = 7;  // days
  std::vector<std::pair<Date, double>> quotes;
  for (const MarketRate& r : rates) {
    if (r.name == "spot " + from + "/" + to) quotes.emplace_back(r.date, r.figure);
    if (r.name == "spot " + to + "/" + from && r.figure > 0) quotes.emplace_back(r.date, 1 / r.figure);
  }
  std::sort(quotes.begin(), quotes.end());
  std::vector<SeriesPoint> converted;
  for (const SeriesPoint& p : index.points) {
    const auto after = std::upper_bound(quotes.begin(), quotes.end(), p.date,
                                        [](Date day, const auto& quote) { return day < quote.first; });
    if (after == quotes.begin() || daysBetween(std::prev(after)->first, p.date) > kOldest) {
      ++without;
      continue;
    }
    const double rate = std::prev(after)->second;
    converted.push_back({p.date, p.level * rate, p.dividend * rate, p.source});
  }
  return converted;
}

const char* frequencyWord(ReturnFrequency frequency) {
  return frequency == ReturnFrequency::Daily ? "daily" : frequency == ReturnFrequency::Weekly ? "weekly" : "monthly";
}

/// An index in a currency, else the first; empty where there is none.
std::string indexIn(const Snapshot& s, const std::string& currency) {
  const std::vector<std::string> indices = indicesOf(s);
  const auto same = std::find_if(indices.begin(), indices.end(), [&](const std::string& name) {
    return currencyOf(seriesNamed(s.market->series, name)->unit) == currency;
  });
  return same != indices.end() ? *same : indices.empty() ? "" : indices.front();
}

void judge(const OwnBeta& own, const BetaSettings& settings, int without, std::vector<std::string>& notes) {
  const auto note = [&](std::string text) { notes.push_back(std::move(text)); };
  if (without > 0) {
    note(std::to_string(without) +
         " days of the index have no exchange rate within a week and are left out: give 'spot' rates by day");
  }
  if (own.returns.broken > 0) note(std::to_string(own.returns.broken) + " gaps: no return is taken across them");
  if (own.returns.pairs.empty()) return note("the two series have no days in common within the window");
  if (own.fit.n < kFewPairs)
    note("only " + std::to_string(own.fit.n) + " pairs of returns; under " + std::to_string(kFewPairs) +
         " a beta says little");
  if (!own.fit.beta.hasValue()) return note(own.fit.beta.reason());
  if (own.fit.high.value() - own.fit.low.value() > kWideBand) {
    note("the band from " + groupedNumber(own.fit.low.value(), 2) + " to " + groupedNumber(own.fit.high.value(), 2) +
         " is wider than 0.6" + (settings.frequency == ReturnFrequency::Monthly ? ": try weekly returns" : ""));
  }
}

/// A beta of a share's closes against the settings' index.
OwnBeta betaOf(const Snapshot& s, const std::vector<SeriesPoint>& closes, const std::string& currency,
               const BetaSettings& settings) {
  OwnBeta own;
  own.to = s.caseOf().valuationDate;
  own.from = addYears(own.to, -settings.years);
  const auto none = [&](const std::string& why) {
    own.fit = regress({});
    for (Figure* f :
         {&own.fit.beta, &own.fit.adjusted, &own.fit.standardError, &own.fit.rSquared, &own.fit.low, &own.fit.high})
      *f = Figure::absent(why);
    own.notes.push_back(why);
    return own;
  };
  const std::string name = !settings.index.empty() ? settings.index : indexIn(s, currency);
  const MarketSeries* index = seriesNamed(s.market->series, name);
  if (index == nullptr) {
    return none(name.empty() ? "there is no index in the book: paste its levels on Company"
                             : "the book has no series called '" + name + "'");
  }
  own.index = index->name;
  own.indexUnit = index->unit;
  if (closes.size() < 2) return none("there are no closes of the share");
  int without = 0;
  const std::vector<SeriesPoint> levels = inCurrencyOf(currency, *index, s.market->rates, without);
  if (index->unit.empty()) own.notes.push_back("the index names no currency; " + currency + " is taken");
  own.returns = pairReturns(closes, levels, {own.from, own.to, settings.frequency, settings.total});
  own.fit = regress(own.returns.pairs);
  own.rolling = rollingBeta(own.returns.pairs, std::max(kFewPairs, own.fit.n / 2));
  judge(own, settings, without, own.notes);
  return own;
}

/// The peer's marginal tax by the country that the record gives it; the subject's else.
std::pair<Figure, std::string> taxOf(const Snapshot& s, const Peer& peer) {
  for (const PeerIdentity& identity : s.company().peerIdentities) {
    if (identity.peer != peer.id && identity.peer != peer.name) continue;
    const auto rate = rateAt(s.market->rates, kCountryTax + identity.country, s.caseOf().valuationDate);
    if (rate) return {Figure::of(rate->figure), identity.country + ", " + dateText(rate->date)};
  }
  const Figure own = s.evaluation->constant(Role::MarginalTax, std::max(0, s.caseOf().indexOf(kBase)));
  return {own, "the subject's: the peer's country or its tax is not known"};
}

}  // namespace

std::string betaWords(const BetaSettings& settings, const std::string& index, Date to) {
  return std::string(frequencyWord(settings.frequency)) + ", " + std::to_string(settings.years) +
         (settings.years == 1 ? " year" : " years") + " to " + dateText(to) + ", " + index +
         (settings.total ? ", with dividends where known" : ", price alone");
}

std::vector<std::string> indicesOf(const Snapshot& s) {
  std::vector<std::string> names;
  for (const MarketSeries& series : s.market->series) {
    const auto is = [&](const std::string& name) { return normalisedLabel(series.name) == normalisedLabel(name); };
    const bool peers = std::any_of(s.market->peers.begin(), s.market->peers.end(),
                                   [&](const Peer& p) { return is(p.id) || is(p.name); });
    if (!peers && !is(s.company().id) && !is(s.company().name)) names.push_back(series.name);
  }
  return names;
}

OwnBeta ownBeta(const Snapshot& s, const BetaSettings& settings) {
  return betaOf(s, subjectsCloses(s), s.company().listing.currency, settings);
}

PeerBetas peerBetas(const Snapshot& s, const BetaSettings& settings, int scenario) {
  PeerBetas all;
  std::vector<Figure> unleveredBetas;
  for (const Peer& peer : s.market->peers) {
    PeerBeta b;
    b.id = peer.id;
    b.name = peer.name;
    std::vector<SeriesPoint> closes;
    for (const auto& [date, close] : peer.closes) closes.push_back({date, close});
    const MarketSeries* series = seriesOf(s, peer.id, peer.name);
    if (series != nullptr || !closes.empty()) {
      const std::string currency =
          currencyOf(series == nullptr || series->unit.empty() ? peer.priceCurrency : series->unit);
      BetaSettings local = settings;
      const MarketSeries* index = seriesNamed(s.market->series, settings.index);
      if (index == nullptr || currencyOf(index->unit) != currency) local.index = indexIn(s, currency);
      const OwnBeta own = betaOf(s, series == nullptr ? closes : series->points, currency, local);
      b.beta = own.fit.beta;
      b.how = std::string(frequencyWord(settings.frequency)) + ", " + own.index + ", n " + std::to_string(own.fit.n);
    }
    for (const std::string& name : {peer.id, peer.name}) {
      const auto typed = rateAt(s.market->rates, "beta " + name, s.caseOf().valuationDate);
      if (!typed || b.beta.hasValue()) continue;
      b.beta = Figure::of(typed->figure);
      b.how = dateText(typed->date) + ", " + typed->source;
    }
    if (b.how.empty()) b.beta = Figure::absent("no series of its closes, and no rate called 'beta " + peer.name + "'");
    const Figure equity =
        peer.price * peer.shares / Figure::of(peer.minorPerMajor) *
        spot(spotRatesAt(s.market->rates, s.caseOf().valuationDate), peer.priceCurrency, peer.currency);
    const Figure debt = peer.debt + (peer.leases.hasValue() ? peer.leases : Figure::of(0));
    b.debtToEquity = debt / equity;
    std::tie(b.taxRate, b.taxSource) = taxOf(s, peer);
    b.unlevered = unlevered(b.beta, debt, equity, peer.cash, {b.taxRate});
    if (b.unlevered.hasValue()) unleveredBetas.push_back(b.unlevered);
    all.peers.push_back(std::move(b));
  }
  const Statistics spread = describe(unleveredBetas);
  all.count = spread.count;
  all.median = spread.count > 0 ? spread.median : Figure::absent("no peer has a beta");
  const int first = s.evaluation->layout().historyYears;
  all.debtToEquity = s.evaluation->figure(Role::YearDebtWeight, first, scenario) /
                     s.evaluation->figure(Role::YearEquityWeight, first, scenario);
  all.relevered = relevered(all.median, all.debtToEquity, {s.evaluation->constant(Role::MarginalTax, scenario)});
  return all;
}

}  // namespace zl::services
