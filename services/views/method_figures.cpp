#include "services/views/method_figures.h"

#include "core/valuation/implied_growth.h"
#include "services/views/probing.h"

namespace zl::services {

using model::Role;

namespace {

/// The model run at each growth, from -50 % to the discount rate.
std::vector<double> impliedByModelYear(const Snapshot& s, int scenario, const Figure& terminal) {
  const Figure wacc = s.evaluation->constant(Role::TerminalWacc, scenario);
  const model::RowId growth = s.model().find(Role::TerminalGrowth), value = s.model().find(Role::Perpetuity);
  if (!terminal.hasValue() || !wacc.hasValue() || !growth.known() || !value.known()) return {};
  constexpr double kLowest = -0.5, kClosest = 1e-4;  // under the discount rate
  return solveScenario(s, scenario, value, terminal.value(), kLowest, wacc.value() - kClosest, [&](double g) {
    return Variant{{growth, {Figure::of(g)}}};
  });
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
