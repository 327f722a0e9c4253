#include <algorithm>

#include "core/history/statistics.h"
#include "core/peers/peer.h"

namespace zl {
namespace {

Figure ratioOf(const Figure& numerator, const Figure& metric, const char* whyNot) {
  if (const Figure* gap = decidingGap({&numerator, &metric})) return *gap;
  if (metric.value() <= 0) return Figure::notMeaningful(whyNot);
  if (numerator.value() < 0) return Figure::notMeaningful("more net cash than market value");
  return numerator / metric;
}

Figure multipleOf(const Subject& subject, const Peer& peer, Multiple m, const SpotRates& rates) {
  const MultipleRule& rule = ruleOf(m);
  const Figure worth = rule.ofFirm ? enterpriseValue(peer, rates, subject.basis) : marketEquity(peer, rates);
  return ratioOf(worth, metricOf(rule, peer, subject.basis, subject.target),
                 (std::string(rule.what) + " not positive").c_str());
}

MultipleCell cellOf(const Subject& subject, const Peer& peer, Multiple m, const SpotRates& rates,
                    const std::map<std::string, PeerChoice>& choices) {
  MultipleCell cell;
  cell.multiple = multipleOf(subject, peer, m, rates);
  // No choice can bring these two back in.
  if (peer.id == subject.id) {
    cell.reason = "the subject itself";
    return cell;
  }
  if (!cell.multiple.hasValue()) {
    cell.reason = cell.multiple.reason();
    return cell;
  }
  if (subject.members && subject.members->count(peer.id) == 0) {
    cell.reason = "not in the set '" + subject.set + "'";
    return cell;
  }
  cell.in = true;
  if (const auto choice = choices.find(peerChoiceKey(peer.id, m)); choice != choices.end()) {
    cell.in = choice->second.in;
    cell.byHand = true;
    cell.reason = choice->second.reason;
  }
  return cell;
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

void markOutliers(std::vector<PeerRow>& rows, Multiple m, const MultipleStatistics& s) {
  if (s.count < 5) return;
  const double spread = s.upperQuartile.value() - s.lowerQuartile.value();
  const double low = s.lowerQuartile.value() - 1.5 * spread;
  const double high = s.upperQuartile.value() + 1.5 * spread;
  for (PeerRow& row : rows) {
    MultipleCell& cell = row.cells.at(m);
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
  for (const Peer& peer : peers) {
    PeerRow row;
    row.id = peer.id;
    row.name = peer.name;
    row.remark = peer.remark;
    row.revenue =
        alignedMetric(peer.years, &PeerYear::revenue, subject.target) * spot(rates, peer.currency, subject.currency);
    if (row.revenue.hasValue() && subject.revenue.hasValue() && subject.revenue.value() > 0) {
      const double scale = row.revenue.value() / subject.revenue.value();
      row.outOfScale = scale > subject.scaleLimit || scale < 1 / subject.scaleLimit;
    }
    for (const MultipleRule& rule : multipleRules())
      row.cells[rule.multiple] = cellOf(subject, peer, rule.multiple, rates, choices);
    check.rows.push_back(std::move(row));
  }
  for (const MultipleRule& rule : multipleRules()) {
    const Multiple m = rule.multiple;
    std::vector<double> included;
    for (const PeerRow& row : check.rows) {
      if (row.cells.at(m).in) included.push_back(row.cells.at(m).multiple.value());
    }
    const MultipleStatistics s = statisticsOf(included);
    markOutliers(check.rows, m, s);
    check.statistics[m] = s;
  }
  return check;
}

}  // namespace zl
