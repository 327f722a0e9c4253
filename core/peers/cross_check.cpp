#include <algorithm>

#include "core/history/statistics.h"
#include "core/peers/peer.h"

namespace zl {
namespace {

Figure multipleOf(const Figure& worth, const Figure& metric, const MultipleRule& rule) {
  if (const Figure* gap = decidingGap({&worth, &metric})) return *gap;
  if (metric.value() <= 0) return Figure::notMeaningful(rule.what + " not positive");
  if (worth.value() < 0) return Figure::notMeaningful("more net cash than market value");
  return worth / metric;
}

MultipleCell cellOf(Figure multiple, const Subject& subject, const Peer& peer, Multiple m,
                    const std::map<std::string, PeerChoice>& choices) {
  MultipleCell cell;
  cell.multiple = std::move(multiple);
  // No choice can bring these two back in.
  if (!cell.multiple.hasValue()) return cell;
  if (peer.id == subject.id) {
    cell.said = "the subject itself";
    return cell;
  }
  if (subject.members && subject.members->count(peer.id) == 0) {
    cell.said = "not in the set '" + subject.set + "'";
    return cell;
  }
  cell.in = true;
  if (choices.empty()) return cell;
  if (const auto choice = choices.find(peerChoiceKey(peer.id, m)); choice != choices.end()) {
    cell.in = choice->second.in;
    cell.byHand = true;
    cell.said = choice->second.reason;
  }
  return cell;
}

PeerRow rowOf(const Subject& subject, const Peer& peer, const std::vector<const MultipleRule*>& rules,
              const SpotRates& rates, const std::map<std::string, PeerChoice>& choices) {
  PeerRow row;
  row.id = peer.id;
  row.name = peer.name;
  row.remark = peer.remark;
  const PeerTimeline timeline(peer, subject.target);
  row.revenue =
      timeline.aligned(ruleOf(Multiple::PriceToSales), subject.basis) * spot(rates, peer.currency, subject.currency);
  if (row.revenue.hasValue() && subject.revenue.hasValue() && subject.revenue.value() > 0) {
    const double scale = row.revenue.value() / subject.revenue.value();
    row.outOfScale = scale > subject.scaleLimit || scale < 1 / subject.scaleLimit;
  }
  const Figure market = marketEquity(peer, rates), firm = worthOfFirm(peer, market, subject.basis);
  row.cells.reserve(rules.size());
  for (const MultipleRule* rule : rules) {
    const Figure metric = metricOf(*rule, peer, subject.basis, timeline);
    row.cells.emplace_hint(
        row.cells.end(), rule->multiple,
        cellOf(multipleOf(rule->ofFirm ? firm : market, metric, *rule), subject, peer, rule->multiple, choices));
  }
  return row;
}

MultipleStatistics statisticsOf(const std::vector<double>& included) {
  MultipleStatistics s;
  std::vector<Figure> figures;
  double reciprocals = 0;
  for (double x : included) {
    figures.push_back(Figure::of(x));
    if (x > 0) {
      reciprocals += 1 / x;
      ++s.harmonicCount;
    }
  }
  const Statistics d = describe(figures);
  s.count = d.count;
  s.low = d.low;
  s.lowerQuartile = d.lowerQuartile;
  s.median = d.median;
  s.mean = d.mean;
  s.upperQuartile = d.upperQuartile;
  s.high = d.high;
  s.harmonicMean =
      s.harmonicCount > 0 ? Figure::of(s.harmonicCount / reciprocals) : Figure::absent("no positive multiple");
  return s;
}

/// Every row has the same multiples: where one of them stands in each.
size_t placeOf(const std::vector<PeerRow>& rows, Multiple m) {
  return rows.empty() ? 0 : rows.front().cells.index_of(rows.front().cells.find(m));
}

void markOutliers(std::vector<PeerRow>& rows, size_t place, const MultipleStatistics& s) {
  if (s.count < 5) return;
  const double spread = s.upperQuartile.value() - s.lowerQuartile.value();
  const double low = s.lowerQuartile.value() - 1.5 * spread;
  const double high = s.upperQuartile.value() + 1.5 * spread;
  for (PeerRow& row : rows) {
    MultipleCell& cell = row.cells.nth(place)->second;
    cell.outlier = cell.in && (cell.multiple.value() < low || cell.multiple.value() > high);
  }
}

}  // namespace

Figure statisticNamed(const MultipleStatistics& statistics, const std::string& name) {
  if (name == "low") return statistics.low;
  if (name == "median") return statistics.median;
  if (name == "mean") return statistics.mean;
  if (name == "high") return statistics.high;
  return Figure::absent("there is no statistic '" + name + "' of peers");
}

CrossCheck crossCheck(const Subject& subject, const std::vector<Peer>& peers, const SpotRates& rates,
                      const std::map<std::string, PeerChoice>& choices) {
  CrossCheck check;
  check.subject = subject;
  check.multiples = subject.multiples;
  std::vector<const MultipleRule*> rules;
  for (const Multiple m : check.multiples) rules.push_back(&ruleOf(m));
  check.rows.reserve(peers.size());
  for (const Peer& peer : peers) check.rows.push_back(rowOf(subject, peer, rules, rates, choices));
  std::vector<double> included;
  for (const Multiple m : check.multiples) {
    included.clear();
    const size_t place = placeOf(check.rows, m);
    for (const PeerRow& row : check.rows) {
      const MultipleCell& cell = row.cells.nth(place)->second;
      if (cell.in) included.push_back(cell.multiple.value());
    }
    const MultipleStatistics s = statisticsOf(included);
    markOutliers(check.rows, place, s);
    check.statistics[m] = s;
  }
  return check;
}

}  // namespace zl
