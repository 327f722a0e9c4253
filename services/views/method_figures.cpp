#include "services/views/method_figures.h"

#include "core/outlook/probe.h"
#include "core/valuation/implied_growth.h"

namespace zl::services {

using model::Role;

namespace {

/// The model run at each growth: 512 steps from -50 % to the discount rate, each change of sign halved until it is
/// settled.
std::vector<double> impliedByModelYear(const Snapshot& s, int scenario, const Figure& terminal) {
  const Figure wacc = s.evaluation->constant(Role::TerminalWacc, scenario);
  const model::RowId growth = s.model().find(Role::TerminalGrowth), value = s.model().find(Role::Perpetuity);
  if (!terminal.hasValue() || !wacc.hasValue() || !growth.known() || !value.known()) return {};
  constexpr int kSteps = 512;
  constexpr double kLowest = -0.5, kClosest = 1e-4;  // under the discount rate
  Givens givens;
  for (const auto& [row, given] : s.givens) givens[row] = given.figure;
  const auto gaps = [&](const std::vector<double>& rates) {
    std::vector<Variant> variants;
    for (const double g : rates) variants.push_back({{growth, {Figure::of(g)}}});
    std::vector<Figure> figures = probe({*s.evaluation->compiled(), *s.history, s.caseOf(),
                                         s.caseOf().scenarios[static_cast<size_t>(scenario)], givens},
                                        variants, value);
    for (Figure& f : figures) f = f - terminal;
    return figures;
  };
  std::vector<double> rates;
  const double highest = wacc.value() - kClosest;
  for (int k = 0; k <= kSteps; ++k) rates.push_back(kLowest + (highest - kLowest) * k / kSteps);
  const std::vector<Figure> scan = gaps(rates);
  std::vector<double> roots;
  for (size_t k = 1; k < scan.size(); ++k) {
    if (!scan[k - 1].hasValue() || !scan[k].hasValue()) continue;
    const bool below = scan[k - 1].value() < 0;
    if (below == (scan[k].value() < 0)) continue;
    double low = rates[k - 1], high = rates[k];
    for (int halving = 0; halving < 40; ++halving) {
      const double middle = (low + high) / 2;
      const Figure gap = gaps({middle}).front();
      if (!gap.hasValue()) break;
      ((gap.value() < 0) == below ? low : high) = middle;
    }
    roots.push_back((low + high) / 2);
  }
  return roots;
}

}  // namespace

std::vector<double> impliedGrowthOf(const Snapshot& s, int scenario) {
  const Evaluation& e = *s.evaluation;
  const auto constant = [&](Role role) { return e.constant(role, scenario); };
  const Figure terminal = constant(Role::ExitTerminal) / constant(Role::TimingShift);
  if (e.stands(Role::TerminalRule, "model_year", scenario)) return impliedByModelYear(s, scenario, terminal);
  if (e.stands(Role::TerminalRule, "simple_growth", scenario)) {
    const Figure simple = constant(Role::ImpliedGrowthSimple);
    return simple.hasValue() ? std::vector<double>{simple.value()} : std::vector<double>{};
  }
  const Figure nopat = e.figure(Role::Nopat, e.layout().columns() - 1, scenario);
  const Figure wacc = constant(Role::TerminalWacc);
  const Figure onNew = constant(Role::ReturnOnNewCapital);
  if (decidingGap({&terminal, &nopat, &wacc, &onNew}) != nullptr) return {};
  return impliedGrowth(nopat.value(), wacc.value(), onNew.value(), terminal.value());
}

Figure impliedByPeers(const Evaluation& e, Multiple m, const char* statistic, int scenario) {
  const model::RowId row = e.model().peerRow(model::Declared::Row, multipleName(m), statistic);
  return !row.known() ? Figure::absent("the model values nothing by it") : e.constant(row, scenario);
}

}  // namespace zl::services
