#include "services/views/probing.h"

namespace zl::services {

std::vector<Figure> probeScenario(const Snapshot& s, int scenario, const std::vector<Variant>& variants,
                                  model::RowId wanted) {
  return probe(*s.evaluation, scenario, variants, wanted);
}

std::vector<double> solveScenario(const Snapshot& s, int scenario, model::RowId wanted, double target, double low,
                                  double high, const std::function<Variant(double)>& at) {
  constexpr int kSteps = 512;
  constexpr int kHalvings = 40;
  std::vector<double> places;
  std::vector<Variant> variants;
  for (int k = 0; k <= kSteps; ++k) {
    places.push_back(low + (high - low) * k / kSteps);
    variants.push_back(at(places.back()));
  }
  const std::vector<Figure> scan = probeScenario(s, scenario, variants, wanted);
  std::vector<double> roots;
  for (size_t k = 1; k < scan.size(); ++k) {
    if (!scan[k - 1].hasValue() || !scan[k].hasValue()) continue;  // never across what has no value
    const bool below = scan[k - 1].value() < target;
    if (below == (scan[k].value() < target)) continue;
    double from = places[k - 1], to = places[k];
    for (int halving = 0; halving < kHalvings; ++halving) {
      const double middle = (from + to) / 2;
      const Figure there = probeScenario(s, scenario, {at(middle)}, wanted).front();
      if (!there.hasValue()) break;
      ((there.value() < target) == below ? from : to) = middle;
    }
    roots.push_back((from + to) / 2);
  }
  return roots;
}

}  // namespace zl::services
