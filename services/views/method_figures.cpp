#include "services/views/method_figures.h"

#include "core/valuation/implied_growth.h"

namespace zl::services {

using model::Role;

std::vector<double> impliedGrowthOf(const Snapshot& s, int scenario) {
  const Evaluation& e = *s.evaluation;
  const auto constant = [&](Role role) { return e.constant(role, scenario); };
  const Figure terminal = constant(Role::ExitTerminal) / constant(Role::TimingShift);
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
