#include "core/peers/likeness.h"

#include "core/peers/measures.h"

namespace zl {

const std::vector<LikenessRule>& likenessRules() {
  static const std::vector<LikenessRule> kRules = {{"revenue_growth", "growth", "peer unlike in growth"},
                                                   {"ebit_margin", "margin", "peer unlike in margin"},
                                                   {"roe", "return", "peer unlike in return"},
                                                   {"net_debt_to_ebitda", "leverage", "peer unlike in leverage"}};
  return kRules;
}

std::vector<Figure> distancesOf(const Peer& peer, const MeasureBasis& basis,
                                const std::function<Figure(const char* measure)>& subjects) {
  std::vector<Figure> distances;
  for (const LikenessRule& rule : likenessRules())
    distances.push_back(peerMeasure(peer, rule.measure, basis) - subjects(rule.measure));
  return distances;
}

}  // namespace zl
