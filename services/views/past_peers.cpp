#include "services/views/past_peers.h"

#include <algorithm>
#include <map>

#include "core/capital/rates.h"
#include "core/history/statistics.h"
#include "services/stages/own_beta.h"

namespace zl::services {
namespace {

/// A peer's price on a day, in listing units; absent where no close lies within ten days before it.
class PricesOf {
 public:
  PricesOf(const Snapshot& s, const Peer& peer) : peer_(peer) {
    if (!peer.closes.empty()) return;
    series_ = seriesOf(s, peer.id, peer.name);
    const Figure then = series_ == nullptr ? Figure::absent() : levelAt(peer.priceDate);
    if (then.hasValue() && peer.price.hasValue()) unit_ = peer.price / then;
  }
  [[nodiscard]] bool any() const { return !peer_.closes.empty() || unit_.hasValue(); }
  [[nodiscard]] Figure at(Date day) const {
    if (series_ != nullptr) return levelAt(day) * unit_;
    const auto& closes = peer_.closes;
    return lastBefore(closes, day, [](const auto& close) { return std::pair(close.first, close.second); });
  }

 private:
  template <class List, class Told>
  static Figure lastBefore(const List& list, Date day, const Told& told) {
    const auto after =
        std::partition_point(list.begin(), list.end(), [&](const auto& p) { return told(p).first <= day; });
    if (after == list.begin()) return Figure::absent("no close as early");
    const auto [on, level] = told(*std::prev(after));
    return day - on > kStaleClose ? Figure::absent("no close of those days") : Figure::of(level);
  }
  [[nodiscard]] Figure levelAt(Date day) const {
    return lastBefore(series_->points, day, [](const SeriesPoint& p) { return std::pair(p.date, p.level); });
  }

  const Peer& peer_;
  const MarketSeries* series_ = nullptr;
  Figure unit_ = Figure::absent();  ///< listing units of one point of the series
};

struct Counted {
  const Peer* peer;
  PricesOf prices;
};

/// Of one peer at a day; absent where it cannot be told.
Figure multipleAt(const Counted& of, const MultipleRule& rule, const MeasureBasis& basis, Date day,
                  const SpotRates& then, const SpotRates& today) {
  const Peer& peer = *of.peer;
  const auto known = std::find_if(peer.years.rbegin(), peer.years.rend(),
                                  [&](const PeerYear& y) { return y.end + kUntilFiled <= day; });
  if (known == peer.years.rend()) return Figure::absent("no year of it was filed");
  Figure rate = spot(then, peer.priceCurrency, peer.currency);
  if (!rate.hasValue()) rate = spot(today, peer.priceCurrency, peer.currency);
  const Figure equity = of.prices.at(day) / Figure::of(peer.minorPerMajor) * rate * peer.shares;
  const Figure worth = rule.ofFirm ? worthOfFirm(peer, equity, basis) : equity;
  const Figure metric = rule.metric.of(basis, peer, *known);
  if (!worth.hasValue() || !metric.hasValue() || metric.value() <= 0 || worth.value() < 0)
    return Figure::notMeaningful("nothing that can be compared");
  return worth / metric;
}

}  // namespace

void setBesidePeers(const Snapshot& s, PastMultiples& past) {
  const MeasureBasis basis = basisOf(s.model(), s.caseOf());
  const SpotRates today = spotRatesAt(s.market->rates, s.caseOf().valuationDate);
  std::map<Date, SpotRates> rates;  // the series share their months
  for (PastSeries& series : past.series) {
    series.peersToday = series.usualGap = series.gapToday =
        Figure::absent("no close of a peer that counts is in the book");
    const std::optional<Multiple> multiple = trailingMultipleOf(s.model(), s.model()[series.row].name, series.ofFirm);
    if (!multiple) continue;
    std::vector<Counted> counted;
    for (const PeerRow& row : s.crossCheck.rows) {
      const auto peer =
          std::find_if(s.market->peers.begin(), s.market->peers.end(), [&](const Peer& p) { return p.id == row.id; });
      if (peer == s.market->peers.end() || !row.cells.at(*multiple).in) continue;
      PricesOf prices(s, *peer);
      if (prices.any()) counted.push_back({&*peer, std::move(prices)});
    }
    if (counted.empty()) continue;
    const auto medianAt = [&](Date day) {
      const auto [then, fresh] = rates.try_emplace(day);
      if (fresh) then->second = spotRatesAt(s.market->rates, day);
      std::vector<Figure> all;
      for (const Counted& of : counted)
        all.push_back(multipleAt(of, ruleOf(*multiple), basis, day, then->second, today));
      return describe(all);
    };
    std::vector<Figure> gaps;
    for (PastMultiple& point : series.points) {
      const Statistics d = medianAt(point.on);
      point.peersCount = d.count;
      if (d.count == 0) continue;
      point.peers = d.median.value();
      if (!point.outlier && point.peers > 0) gaps.push_back(Figure::of(point.multiple / point.peers - 1));
    }
    series.monthsBeside = static_cast<int>(gaps.size());
    series.usualGap = gaps.empty() ? Figure::absent("in no month are both known") : describe(gaps).median;
    const Statistics now = medianAt(s.caseOf().valuationDate);
    series.peersToday = now.count > 0 ? now.median : Figure::absent("no peer that counts has a close of these days");
    series.gapToday = series.today / series.peersToday - Figure::of(1);
  }
}

}  // namespace zl::services
