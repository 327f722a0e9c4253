#include "core/peers/peer.h"

#include <algorithm>
#include <chrono>

namespace zl {

std::string peerChoiceKey(const std::string& peer, Multiple m) {
  return peer + "/" + multipleId(m);
}

std::vector<MonthsOf> monthsInside(const std::vector<PeerYear>& years, Date target) {
  using std::chrono::year_month_day;
  const year_month_day t(target);
  for (size_t i = 0; i < years.size(); ++i) {
    const year_month_day end(years[i].end);
    const int gap = (static_cast<int>(t.year()) - static_cast<int>(end.year())) * 12 +
                    static_cast<int>(static_cast<unsigned>(t.month())) -
                    static_cast<int>(static_cast<unsigned>(end.month()));
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
    for (Figure PeerYear::*member :
         {&PeerYear::revenue, &PeerYear::ebitda, &PeerYear::netIncome, &PeerYear::ebit, &PeerYear::interest,
          &PeerYear::operatingCashFlow, &PeerYear::capex, &PeerYear::equity, &PeerYear::leaseCost, &PeerYear::stockPay,
          &PeerYear::research, &PeerYear::nopat, &PeerYear::intangibles, &PeerYear::dividends}) {
      takeOver((*at).*member, from.*member);
    }
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
    if (merged.source.empty()) merged.source = at->source;
    merged.years = at->years;
    mergeYears(merged.years, from.years);
    merged.expected = at->expected;
    mergeYears(merged.expected, from.expected);
    *at = std::move(merged);
  }
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

Figure metricOf(const MultipleRule& rule, const Peer& peer, const MeasureBasis& basis, Date target) {
  const auto metric = [&](const PeerYear& year) { return rule.metric(basis, peer, year); };
  if (rule.balance) {
    return peer.years.empty() ? Figure::absent("the peer table gives no year") : metric(peer.years.back());
  }
  if (rule.ahead == 0) return alignedMetric(peer.years, metric, target);
  if (peer.expected.empty()) return Figure::absent("nobody says what is expected of it");
  std::vector<PeerYear> all = peer.years;
  for (const PeerYear& year : peer.expected) {
    if (all.empty() || year.end > all.back().end) all.push_back(year);
  }
  return alignedMetric(all, metric, addYears(target, rule.ahead));
}

Figure enterpriseValue(const Peer& peer, const SpotRates& rates, const MeasureBasis& basis) {
  const Figure leases = basis.leasesAsDebt ? peer.leases : Figure::of(0);
  return marketEquity(peer, rates) + peer.debt + leases + peer.preferred + peer.minorities + peer.pension - peer.cash -
         peer.associates;
}

}  // namespace zl
