#include "services/one_basis.h"

#include <fmt/format.h>

#include "core/quantity/number_text.h"
#include "exchange/json/reader.h"
#include "services/edits.h"
#include "services/text_cells.h"

namespace zl::services {
namespace {

/// What research is written off over when it is looked at as capital for the first time.
constexpr double kUsualResearchLife = 5;

std::vector<BasisSwitch> switchesOf(const Snapshot& s) {
  const model::Model& m = s.evaluation->model();
  const auto chosen = [&](const char* input) { return assumedInput(m, s.caseOf(), m.find(input)).value(); };
  const double leases = chosen("leases_as_debt");
  const double pay = chosen("stock_pay_as_cost");
  const double research = chosen("research_life");
  return {{"leases_as_debt", leases, leases == 1 ? 0.0 : 1.0, leases == 1 ? "leases as rent" : "leases as debt"},
          {"stock_pay_as_cost", pay, pay == 1 ? 0.0 : 1.0, pay == 1 ? "stock pay added back" : "stock pay a cost"},
          {"research_life", research, research > 0 ? 0.0 : kUsualResearchLife,
           research > 0 ? std::string("research a cost of its year")
                        : fmt::format("research over {:.0f} years", kUsualResearchLife)}};
}

struct MeasureRow {
  const char* row;
  bool baseYear;
};
constexpr MeasureRow kMeasures[] = {{"basis_ebitda", true},
                                    {"basis_ebit", true},
                                    {"nopat", true},
                                    {"fcff", true},
                                    {"simple_fcf", true},
                                    {"invested_capital", true},
                                    {"roic", true},
                                    {"net_debt", true},
                                    {"net_debt_to_ebitda", true},
                                    {"enterprise_value", false},
                                    {"net_debt_dated", false},
                                    {"value_per_share", false},
                                    {"value_growth", false},
                                    {"value_exit", false}};

Figure measured(const Evaluation& e, const MeasureRow& measure, int scenario) {
  return e.figure(measure.row, e.layout().baseColumn(), scenario);
}

std::string whenOf(const Snapshot& s, const BasisMeasure& measure) {
  return measure.baseYear ? s.periodOf(s.evaluation->layout().baseColumn()) : dateText(s.caseOf().valuationDate);
}

}  // namespace

BasisView basisView(const Snapshot& s, int scenario) {
  BasisView view;
  view.switches = switchesOf(s);
  const model::Model& m = s.evaluation->model();
  for (const MeasureRow& measure : kMeasures) {
    const model::Row& row = m.rows[static_cast<size_t>(m.find(measure.row))];
    view.measures.push_back(
        {row.label, row.name, row.kind, measure.baseYear, measured(*s.evaluation, measure, scenario), {}});
  }
  const auto peersMedian = [](const CrossCheck& check) { return check.implied.at(Multiple::EvToEbitda).median; };
  view.measures.push_back(
      {"Value per share by peers' EV to EBITDA, median", "", Kind::Quote, false, peersMedian(s.crossCheck), {}});
  for (const BasisSwitch& choice : view.switches) {
    Case turned = s.caseOf();
    // The scenarios' own choices would hide the switch.
    for (Scenario& each : turned.scenarios) each.inputs.erase(choice.input);
    turned = setInput(turned, m, kBase, choice.input, choice.other, {}).after;
    const Result<Evaluated> other = s.evaluator->evaluate(s.evidence, turned, Standing::StoodBefore);
    const Figure peers = other ? peersMedian(crossCheckOf(*other)) : Figure();
    for (size_t i = 0; i < view.measures.size(); ++i) {
      BasisMeasure& measure = view.measures[i];
      if (!other) {
        measure.other.push_back(Figure::absent(other.error().what));
      } else if (i < std::size(kMeasures)) {
        measure.other.push_back(measured(*other->evaluation, kMeasures[i], scenario));
      } else {
        measure.other.push_back(peers);
      }
    }
  }
  return view;
}

Json basisJson(const Snapshot& s, int scenario) {
  const BasisView view = basisView(s, scenario);
  Json list = Json::array();
  for (const BasisMeasure& measure : view.measures) {
    Json others = Json::object();
    for (size_t i = 0; i < view.switches.size(); ++i)
      others[view.switches[i].otherWords] = figureJson(measure.other[i]);
    list.push_back({{"measure", measure.label},
                    {"row", measure.row},
                    {"at", whenOf(s, measure)},
                    {"now", figureJson(measure.now)},
                    {"otherwise", std::move(others)}});
  }
  return list;
}

std::string basisText(const Snapshot& s, int scenario) {
  const BasisView view = basisView(s, scenario);
  std::string out = "measure,row,at,now";
  for (const BasisSwitch& choice : view.switches) out += "," + choice.otherWords;
  out += '\n';
  const auto cell = [](const Figure& f) { return f.hasValue() ? plainNumber(f.value()) : std::string("nm"); };
  for (const BasisMeasure& measure : view.measures) {
    out += csvCell(measure.label) + "," + measure.row + "," + whenOf(s, measure) + "," + cell(measure.now);
    for (const Figure& other : measure.other) out += "," + cell(other);
    out += '\n';
  }
  return out;
}

}  // namespace zl::services
