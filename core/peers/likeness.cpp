#include "core/peers/likeness.h"

#include <cmath>

#include "core/filing/labels.h"
#include "core/peers/measures.h"

namespace zl {

const std::vector<LikenessRule>& likenessRules() {
  static const std::vector<LikenessRule> kRules = {
      {"revenue_growth", "growth", "peer unlike in growth"},
      {"ebit_margin", "margin", "peer unlike in margin"},
      {"roe", "return", "peer unlike in return"},
      {"net_debt_to_ebitda", "leverage", "peer unlike in leverage"},
      {"", "regions", "peer unlike in regions", &Peer::regions, &Subject::regions},
      {"", "businesses", "peer unlike in businesses", &Peer::businesses, &Subject::businesses}};
  return kRules;
}

Figure mixApart(const RevenueMix& a, const RevenueMix& b) {
  if (a.empty() || b.empty()) return Figure::absent("nobody says where the revenue is from");
  std::map<std::string, double> differences;
  for (const auto& [name, share] : a) differences[normalisedLabel(name)] += share;
  for (const auto& [name, share] : b) differences[normalisedLabel(name)] -= share;
  double sum = 0;
  for (const auto& [name, difference] : differences) sum += std::fabs(difference);
  return Figure::of(sum / 2);
}

std::vector<Figure> distancesOf(const Peer& peer, const Subject& subject,
                                const std::function<Figure(const char* measure)>& subjects) {
  std::vector<Figure> distances;
  for (const LikenessRule& rule : likenessRules()) {
    distances.push_back(rule.mix != nullptr ? mixApart(peer.*rule.mix, subject.*rule.own)
                                            : peerMeasure(peer, rule.measure, subject.basis) - subjects(rule.measure));
  }
  return distances;
}

}  // namespace zl
