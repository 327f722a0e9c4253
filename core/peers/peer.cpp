#include "core/peers/peer.h"

#include <algorithm>
#include <charconv>
#include <chrono>
#include <sstream>

#include "core/history/statistics.h"

namespace zl {

std::string peerChoiceKey(const std::string& peer, Multiple m) {
  return peer + "/" + multipleId(m);
}

namespace {

/// Calendar months from one month's end to another's.
int monthsFrom(Date from, Date to) {
  const std::chrono::year_month_day a(from), b(to);
  return (static_cast<int>(b.year()) - static_cast<int>(a.year())) * 12 +
         static_cast<int>(static_cast<unsigned>(b.month())) - static_cast<int>(static_cast<unsigned>(a.month()));
}

}  // namespace

std::vector<MonthsOf> monthsInside(const std::vector<PeerYear>& years, Date target) {
  for (size_t i = 0; i < years.size(); ++i) {
    const int gap = monthsFrom(years[i].end, target);
    if (gap < 0 || gap > 11) continue;
    if (gap == 0) return {{i, 12}};
    return {{i, 12 - gap}, {i + 1, gap}};
  }
  return {};
}

Figure alignedMetric(const std::vector<PeerYear>& years, const std::function<Figure(const PeerYear&)>& metric,
                     Date target) {
  const std::vector<MonthsOf> parts = monthsInside(years, target);
  if (parts.empty()) return Figure::absent("no fiscal year ends in the twelve months compared");
  if (parts.back().year >= years.size()) return Figure::absent("the next fiscal year is not reported yet");
  if (parts.size() == 1) return metric(years[parts[0].year]);
  return metric(years[parts[0].year]) * Figure::of(parts[0].months / 12.0) +
         metric(years[parts[1].year]) * Figure::of(parts[1].months / 12.0);
}

Figure spot(const SpotRates& rates, const std::string& from, const std::string& to) {
  if (from == to) return Figure::of(1);
  if (const auto direct = rates.find({from, to}); direct != rates.end()) {
    return Figure::of(direct->second);
  }
  if (const auto inverse = rates.find({to, from}); inverse != rates.end()) {
    return Figure::of(1) / Figure::of(inverse->second);
  }
  const std::string pivot = crossOf(rates, from, to);
  if (!pivot.empty()) return spot(rates, from, pivot) * spot(rates, pivot, to);
  return Figure::absent("there is no exchange rate from " + from + " to " + to);
}

std::string crossOf(const SpotRates& rates, const std::string& from, const std::string& to) {
  const auto quoted = [&](const std::string& a, const std::string& b) {
    return rates.count({a, b}) > 0 || rates.count({b, a}) > 0;
  };
  if (from == to || quoted(from, to)) return {};
  std::map<std::string, int> pairsOf;
  for (const auto& [pair, figure] : rates) ++pairsOf[pair.first], ++pairsOf[pair.second];
  std::string best;
  for (const auto& [currency, pairs] : pairsOf) {
    if (!quoted(from, currency) || !quoted(currency, to)) continue;
    if (best.empty() || pairs > pairsOf[best]) best = currency;
  }
  return best;
}

namespace {

void takeOver(Figure& figure, const Figure& later) {
  if (!later.isAbsent()) figure = later;
}

void mergeYears(std::vector<PeerYear>& years, const std::vector<PeerYear>& later) {
  for (const PeerYear& from : later) {
    const auto at = std::lower_bound(years.begin(), years.end(), from.end,
                                     [](const PeerYear& year, Date end) { return year.end < end; });
    if (at == years.end() || at->end != from.end) {
      years.insert(at, from);
      continue;
    }
    for (const PeerColumn& column : kPeerColumns) takeOver((*at).*column.figure, from.*column.figure);
    for (const auto& [row, figure] : from.further) takeOver(at->further[row], figure);
  }
}

}  // namespace

void mergePeers(std::vector<Peer>& peers, const std::vector<Peer>& later) {
  for (const Peer& from : later) {
    const auto at = std::find_if(peers.begin(), peers.end(), [&](const Peer& p) { return p.id == from.id; });
    if (at == peers.end()) {
      peers.push_back(from);
      continue;
    }
    Peer merged = from;
    for (Figure Peer::*member : {&Peer::shares, &Peer::debt, &Peer::preferred, &Peer::minorities, &Peer::pension,
                                 &Peer::cash, &Peer::associates, &Peer::leases}) {
      merged.*member = (*at).*member;
      takeOver(merged.*member, from.*member);
    }
    // A price goes with its day and units: it stays whole, or comes whole.
    if (from.price.isAbsent() || from.priceDate < at->priceDate) {
      merged.price = at->price;
      merged.priceDate = at->priceDate;
      merged.priceCurrency = at->priceCurrency;
      merged.minorPerMajor = at->minorPerMajor;
    }
    if (merged.remark.empty()) merged.remark = at->remark;
    if (merged.regions.empty()) merged.regions = at->regions;
    if (merged.businesses.empty()) merged.businesses = at->businesses;
    if (merged.source.empty()) merged.source = at->source;
    merged.years = at->years;
    mergeYears(merged.years, from.years);
    merged.expected = at->expected;
    mergeYears(merged.expected, from.expected);
    *at = std::move(merged);
  }
}

std::optional<RevenueMix> revenueMix(const std::string& text) {
  RevenueMix mix;
  double sum = 0;
  std::istringstream parts(text);
  for (std::string part; std::getline(parts, part, ';');) {
    const size_t name = part.find_first_not_of(' ');
    if (name == std::string::npos) continue;
    size_t end = part.find_last_not_of(" %");
    const size_t begin = end == std::string::npos ? end : part.find_last_of(' ', end);
    if (begin == std::string::npos || begin <= name) return std::nullopt;
    double percent = 0;
    const char *from = part.data() + begin + 1, *to = part.data() + end + 1;
    const auto [read, code] = std::from_chars(from, to, percent);
    if (code != std::errc() || read != to || percent < 0) return std::nullopt;
    end = part.find_last_not_of(' ', begin);
    mix[part.substr(name, end - name + 1)] += percent / 100;
    sum += percent / 100;
  }
  constexpr double kWhole = 1.01;  // shares are told rounded
  return mix.empty() || sum > kWhole ? std::nullopt : std::optional(mix);
}

const std::pair<Date, double>* lastClose(const Peer& peer, Date day) {
  const auto after = std::upper_bound(peer.closes.begin(), peer.closes.end(), day,
                                      [](Date d, const std::pair<Date, double>& close) { return d < close.first; });
  return after == peer.closes.begin() ? nullptr : &*std::prev(after);
}

void priceAt(Peer& peer, Date day) {
  if (peer.closes.empty()) return;
  const auto* close = lastClose(peer, day);
  peer.price = close != nullptr ? Figure::of(close->second)
                                : Figure::absent("its first close, of " + dateText(peer.closes.front().first) +
                                                 ", is after the valuation date");
  peer.priceDate = close != nullptr ? close->first : day;
}

Figure marketEquity(const Peer& peer, const SpotRates& rates) {
  if (peer.price.hasValue() && peer.price.value() <= 0) {
    return Figure::notMeaningful("the price is not positive");
  }
  return peer.price / Figure::of(peer.minorPerMajor) * spot(rates, peer.priceCurrency, peer.currency) * peer.shares;
}

Figure ebitdaOn(const MeasureBasis& basis, const Peer& peer, const PeerYear& year) {
  const auto needed = [](const Figure& figure, const char* what) {
    return figure.isAbsent() ? Figure::absent(std::string("the peer table does not give ") + what) : figure;
  };
  Figure ebitda = year.ebitda;
  if (basis.leasesAsDebt == peer.filesRent) {
    const Figure rent = needed(year.leaseCost, "lease_cost, which the lease basis needs");
    ebitda = peer.filesRent ? ebitda + rent : ebitda - rent;
  }
  if (!basis.stockPayAsCost) ebitda = ebitda + needed(year.stockPay, "stock_pay, which is added back");
  if (!basis.researchAsCost) ebitda = ebitda + needed(year.research, "research, which is capital here");
  return ebitda;
}

Figure ebitOn(const MeasureBasis& basis, const Peer& peer, const PeerYear& year) {
  // The peer table does not say what of EBIT belongs to leases, nor what research would be written off by.
  if (basis.leasesAsDebt == peer.filesRent) return Figure::absent("EBIT is filed on another lease basis");
  if (!basis.researchAsCost) return Figure::absent("what peers' research would be written off by is not known");
  const Figure ebit = year.ebit.isAbsent() ? Figure::absent("the peer table does not give ebit") : year.ebit;
  return basis.stockPayAsCost ? ebit : ebit + year.stockPay;
}

PeerTimeline::PeerTimeline(const Peer& peer, Date target) : peer_(peer) {
  for (const PeerYear& year : peer.years) all_.push_back(&year);
  const size_t filed = all_.size();
  for (const PeerYear& year : peer.expected) {
    if (all_.empty() || year.end > all_.back()->end) all_.push_back(&year);
  }
  for (int ahead = 0; ahead < kTargets; ++ahead) {
    Twelve& twelve = twelve_[static_cast<size_t>(ahead)];
    const size_t known = ahead == 0 ? filed : all_.size();
    const Date end = addYears(target, ahead);
    for (size_t i = 0; i < known && twelve.first == nullptr; ++i) {
      const int gap = monthsFrom(all_[i]->end, end);
      if (gap < 0 || gap > 11) continue;
      twelve.first = all_[i];
      twelve.months = 12 - gap;
      if (gap > 0 && i + 1 < known) twelve.second = all_[i + 1];
    }
  }
}

Figure PeerTimeline::aligned(const MultipleRule& rule, const MeasureBasis& basis) const {
  if (rule.of == MultipleRule::Of::NormalYear) return normal(rule, basis);
  const int ahead = yearsAhead(rule.of);
  static const Figure kNobody = Figure::absent("nobody says what is expected of it");
  if (ahead > 0 && peer_.expected.empty()) return kNobody;
  return over(ahead, [&](const PeerYear& year) { return rule.metric.of(basis, peer_, year); });
}

template <class Metric>
Figure PeerTimeline::over(int ahead, const Metric& metric) const {
  static const Figure kNoYear = Figure::absent("no fiscal year ends in the twelve months compared");
  static const Figure kNoNext = Figure::absent("the next fiscal year is not reported yet");
  const Twelve& twelve = twelve_[static_cast<size_t>(ahead)];
  if (twelve.first == nullptr) return kNoYear;
  if (twelve.months == 12) return metric(*twelve.first);
  if (twelve.second == nullptr) return kNoNext;
  return metric(*twelve.first) * Figure::of(twelve.months / 12.0) +
         metric(*twelve.second) * Figure::of((12 - twelve.months) / 12.0);
}

Figure PeerTimeline::normal(const MultipleRule& rule, const MeasureBasis& basis) const {
  std::vector<Figure> parts, wholes;
  for (std::vector<Figure>* of : {&parts, &wholes}) of->reserve(peer_.years.size());
  for (const PeerYear& year : peer_.years) {
    parts.push_back(rule.metric.of(basis, peer_, year));
    wholes.push_back(year.revenue);
  }
  return regularShare(parts, wholes) * over(0, [](const PeerYear& year) { return year.revenue; });
}

Figure metricOf(const MultipleRule& rule, const Peer& peer, const MeasureBasis& basis, const PeerTimeline& timeline) {
  if (!rule.balance) return timeline.aligned(rule, basis);
  return peer.years.empty() ? Figure::absent("the peer table gives no year")
                            : rule.metric.of(basis, peer, peer.years.back());
}

Figure metricOf(const MultipleRule& rule, const Peer& peer, const MeasureBasis& basis, Date target) {
  return metricOf(rule, peer, basis, PeerTimeline(peer, target));
}

Figure enterpriseValue(const Peer& peer, const SpotRates& rates, const MeasureBasis& basis) {
  return worthOfFirm(peer, marketEquity(peer, rates), basis);
}

Figure worthOfFirm(const Peer& peer, const Figure& equity, const MeasureBasis& basis) {
  const Figure leases = basis.leasesAsDebt ? peer.leases : Figure::of(0);
  return equity + peer.debt + leases + peer.preferred + peer.minorities + peer.pension - peer.cash - peer.associates;
}

}  // namespace zl
