#include "core/peers/peer.h"

#include <chrono>

namespace zl {

const char* multipleId(Multiple m) {
  return m == Multiple::PriceToEarnings ? "price-earnings" : "ev-ebitda";
}

const char* multipleLabel(Multiple m) {
  return m == Multiple::PriceToEarnings ? "Price to earnings" : "EV to EBITDA";
}

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
  return Figure::absent("there is no exchange rate from " + from + " to " + to);
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

Figure enterpriseValue(const Peer& peer, const SpotRates& rates, const MeasureBasis& basis) {
  const Figure leases = basis.leasesAsDebt ? peer.leases : Figure::of(0);
  return marketEquity(peer, rates) + peer.debt + leases + peer.preferred + peer.minorities + peer.pension - peer.cash -
         peer.associates;
}

}  // namespace zl
