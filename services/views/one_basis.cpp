#include "services/views/one_basis.h"

#include <fmt/format.h>

#include "core/quantity/number_text.h"
#include "exchange/json/reader.h"
#include "services/edits/edits.h"
#include "services/text/text_cells.h"

namespace zl::services {
namespace {

/// What research is written off over when it is looked at as capital for the first time.
constexpr double kUsualResearchLife = 5;

/// A choice and its other option; research as capital, or not.
std::vector<BasisSwitch> switchesOf(const Snapshot& s) {
  const model::Model& m = s.model();
  std::vector<BasisSwitch> switches;
  for (const model::Role role : {model::Role::Leases, model::Role::StockPay, model::Role::ResearchLife}) {
    const model::Row* row = m.row(role);
    if (row == nullptr) continue;
    const double chosen = assumedInput(m, s.caseOf(), m.find(role)).valueOr(0);
    const double usual = row->isChoice() ? 1.0 : kUsualResearchLife;
    const double other = chosen > 0 ? 0.0 : usual;
    const std::string words = row->isChoice() ? model::optionLabel(*row, other)
                              : other > 0     ? fmt::format("over {:.0f} years", other)
                                              : std::string("a cost of its year");
    switches.push_back(
        {role, row->name, chosen, other, (row->isChoice() ? row->label : std::string("Research")) + ": " + words});
  }
  return switches;
}

std::string whenOf(const Snapshot& s, const BasisMeasure& measure) {
  return measure.baseYear ? s.periodOf(s.evaluation->layout().baseColumn()) : dateText(s.caseOf().valuationDate);
}

}  // namespace

BasisView basisView(const Snapshot& s, int scenario) {
  BasisView view;
  view.switches = switchesOf(s);
  const model::Model& m = s.evaluation->model();
  const int base = s.evaluation->layout().baseColumn();
  std::vector<model::RowId> rows;
  for (const char* name : {"basis_year", "basis_value"}) {
    for (const model::ViewRow& shown : m.view(name)) {
      const model::Row& row = m[shown.row];
      const bool yearly = row.timing != model::Timing::Constant;
      view.measures.push_back(
          {row.label, row.name, row.kind, yearly, s.evaluation->figure(shown.row, base, scenario), {}});
      rows.push_back(shown.row);
    }
  }
  for (const BasisSwitch& choice : view.switches) {
    Case turned = s.caseOf();
    // The scenarios' own choices would hide the switch.
    for (Scenario& each : turned.scenarios) each.inputs.erase(choice.input);
    turned = setInput(turned, m, kBase, choice.input, choice.other, {}).after;
    const Result<Evaluated> other = s.evaluator->evaluate(s.sources(), turned, Standing::StoodBefore);
    for (size_t i = 0; i < view.measures.size(); ++i) {
      view.measures[i].other.push_back(other ? other->evaluation->figure(rows[i], base, scenario)
                                             : Figure::absent(other.error().what));
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
