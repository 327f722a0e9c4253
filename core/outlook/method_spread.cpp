#include "core/outlook/method_spread.h"

#include <algorithm>

namespace zl {
namespace {

/// The input that stands before a method's value in the view of weights; nought without one.
double weightOf(const Evaluation& e, const model::Method& method, int scenario) {
  const std::vector<model::ViewRow>& blend = e.model().view("blend");
  const auto at = std::find_if(blend.begin(), blend.end(), [&](const auto& of) { return of.row == method.value; });
  if (at == blend.end() || at == blend.begin()) return 0;
  const model::RowId weight = std::prev(at)->row;
  return e.model()[weight].declared == model::Declared::Input ? e.constant(weight, scenario).valueOr(0) : 0;
}

}  // namespace

MethodSpread spreadOfMethods(const Evaluation& e, int scenario) {
  MethodSpread spread;
  for (const model::Method& method : e.model().methods) {
    const double value = e.orNaN({method.value, 0}, scenario);
    if (!(value > 0)) continue;
    spread.methods.push_back({&method, value, weightOf(e, method, scenario)});
  }
  const auto weighted = std::count_if(spread.methods.begin(), spread.methods.end(),
                                      [](const MethodSpread::One& one) { return one.weight > 0; });
  spread.weighted = weighted >= 2;
  if (spread.weighted) std::erase_if(spread.methods, [](const MethodSpread::One& one) { return one.weight <= 0; });
  std::stable_sort(spread.methods.begin(), spread.methods.end(),
                   [](const MethodSpread::One& a, const MethodSpread::One& b) { return a.value < b.value; });
  return spread;
}

}  // namespace zl
