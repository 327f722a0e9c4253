#include "services/stages/ground.h"

namespace zl::services {

Figure assumedInput(const model::Model& m, const Case& c, model::RowId row) {
  if (!row.known()) return Figure::absent("the model has no such input");
  const model::Row& r = m[row];
  if (const InputChoice* choice = c.input(c.base(), r.name)) return zl::figureOf(r, *choice);
  return r.preset && r.preset->level ? Figure::of(*r.preset->level) : Figure::absent(r.label + " has not been chosen");
}

std::shared_ptr<const ToldHistory> tellHistory(const Resources& resources, const Standardised& filed, const Case& c,
                                               const model::Layout& layout) {
  const model::Model& m = resources.model;
  const StandardStatements& statements = filed.statements;
  const auto assumed = [&](model::RowId row) { return assumedInput(m, c, row); };
  const auto figureOf = [&](const std::string& row, int column) { return statements.at(row, column).figure; };
  auto told = std::make_shared<ToldHistory>();
  told->asFiled = std::make_shared<const model::HistoryTable>(m, layout, figureOf, assumed);
  told->adjusted = told->asFiled;
  if (!c.adjustments.empty()) {
    told->shifts = shiftsOf(c, m, resources.ties, assumedInput(m, c, m.find(model::Role::MarginalTax)));
  }
  if (told->shifts.empty()) return told;
  const auto adjusted = [&](const std::string& row, int column) {
    const auto shift = told->shifts.find({row, statements.years()[static_cast<size_t>(column)].label()});
    const Figure figure = figureOf(row, column);
    return shift == told->shifts.end() ? figure : figure + Figure::of(shift->second.amount);
  };
  told->adjusted = std::make_shared<const model::HistoryTable>(m, layout, adjusted, assumed);
  return told;
}

}  // namespace zl::services
