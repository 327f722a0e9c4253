#include "services/views/method_figures.h"

#include "core/outlook/method_spread.h"
#include "core/quantity/number_text.h"
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

Figure impliedEnterprise(const Evaluation& e, Multiple m, const char* statistic, int scenario) {
  const Figure share = impliedByPeers(e, m, statistic, scenario);
  if (share.hasValue() && share.value() <= 0) return Figure::notMeaningful("nothing is left for shareholders");
  return share / e.constant(Role::QuoteRate, scenario) * e.constant(Role::DilutedShares, scenario) +
         e.constant(Role::Claims, scenario);
}

std::string methodSpreadWords(const Snapshot& s, int scenario) {
  const MethodSpread spread = spreadOfMethods(*s.evaluation, scenario);
  const std::string& label = s.caseOf().scenarios[static_cast<size_t>(scenario)].label;
  const std::string which = spread.weighted ? "weighted " : "";
  if (spread.methods.empty()) return label + ": no way to value has a value over nought.";
  const auto told = [](const MethodSpread::One& one) {
    return figureText(Figure::of(one.value), Kind::Quote) + " by " + one.method->label;
  };
  if (spread.methods.size() == 1)
    return label + ": one " + which + "way has a value, " + told(spread.methods.front()) + ".";
  return label + ": " + std::to_string(spread.methods.size()) + " " + which + "ways to value, from " +
         told(spread.methods.front()) + " to " + told(spread.methods.back()) + ", " + groupedNumber(spread.apart(), 1) +
         " times apart.";
}

}  // namespace zl::services
