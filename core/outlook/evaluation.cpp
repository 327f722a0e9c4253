#include "core/outlook/evaluation.h"

#include <algorithm>
#include <cmath>

namespace zl {

using model::Cell;

Result<std::shared_ptr<const CompiledModel>> compileModel(const model::Model& m, model::Layout l) {
  Result<model::Program> program = model::compile(m, l);
  if (!program) return tl::unexpected(program.error());
  return std::make_shared<const CompiledModel>(CompiledModel{m, std::move(*program)});
}

std::vector<Figure> driverFigures(const model::Model& m, const model::HistoryTable& history, const Case& c,
                                  const Scenario& s, int row) {
  const model::Row& r = m.rows[static_cast<size_t>(row)];
  const Figure& last = history.at(row, history.layout().baseColumn());
  Path path;
  if (const Assumption* a = c.driver(s, r.name)) {
    path = a->path;
  } else if (r.preset && !(r.preset->last && last.hasValue())) {
    path.level = r.preset->level;
  }
  return figuresOf(path, last, history.layout().forecastYears);
}

namespace {

/// A given or an input of a scenario.
Figure constantOf(const model::Row& row, const Case& c, const Scenario& s, const Givens& givens) {
  if (row.role == model::Role::Given) {
    const auto found = givens.find(row.name);
    return found == givens.end() ? Figure::absent(row.label + " is not known") : found->second;
  }
  if (const InputChoice* choice = c.input(s, row.name)) return Figure::of(choice->figure);
  return row.preset && row.preset->level ? Figure::of(*row.preset->level)
                                         : Figure::absent(row.label + " has not been chosen");
}

}  // namespace

Evaluation::Evaluation(std::shared_ptr<const CompiledModel> compiled,
                       std::shared_ptr<const model::HistoryTable> history, Case c, const Givens& givens)
    : compiled_(std::move(compiled)), history_(std::move(history)), case_(std::move(c)) {
  const model::Program& p = compiled_->program;
  model::LaneInputs lanes(p, scenarios());
  placeInputs();
  for (int s = 0; s < scenarios(); ++s) {
    inputs_.push_back(inputsOf(case_.scenarios[static_cast<size_t>(s)], givens));
    for (size_t i = 0; i < p.inputs.size(); ++i) {
      const Cell cell = p.inputs[i].cell;
      const Figure* figure = input(cell, s);
      lanes.set(i, s, (figure != nullptr ? *figure : history_->at(cell.row, cell.column)).orNaN());
    }
  }
  std::vector<std::uint32_t> outputs(p.firstConstant);
  for (std::uint32_t slot = 0; slot < p.firstConstant; ++slot) outputs[slot] = slot;
  lanes_ = model::evaluate(p, lanes, outputs);
  reasons_.resize(static_cast<size_t>(scenarios()));
  for (int s = 0; s < scenarios(); ++s) explain(s);
}

void Evaluation::placeInputs() {
  std::int32_t next = 0;
  inputAt_.assign(model().rows.size(), -1);
  for (size_t r = 0; r < model().rows.size(); ++r) {
    const model::Role role = model().rows[r].role;
    if (role == model::Role::Row) continue;
    inputAt_[r] = next;
    next += role == model::Role::Driver ? layout().forecastYears : 1;
  }
}

std::vector<Figure> Evaluation::inputsOf(const Scenario& s, const Givens& givens) const {
  std::vector<Figure> figures;
  for (size_t r = 0; r < model().rows.size(); ++r) {
    const model::Row& row = model().rows[r];
    if (row.role == model::Role::Row) continue;
    if (row.role != model::Role::Driver) {
      figures.push_back(constantOf(row, case_, s, givens));
      continue;
    }
    for (Figure& figure : driverFigures(model(), *history_, case_, s, static_cast<int>(r))) {
      figures.push_back(figure.hasValue() ? std::move(figure)
                                          : Figure::absent(row.label + " has no path and no last actual to hold"));
    }
  }
  return figures;
}

const Figure* Evaluation::input(Cell cell, int scenario) const {
  const std::int32_t first = inputAt_[static_cast<size_t>(cell.row)];
  const bool path = model().rows[static_cast<size_t>(cell.row)].role == model::Role::Driver;
  if (first < 0 || (path && !layout().isForecast(cell.column))) return nullptr;
  const int year = path ? cell.column - layout().historyYears : 0;
  return &inputs_[static_cast<size_t>(scenario)][static_cast<size_t>(first + year)];
}

Figure Evaluation::figure(int row, int column, int scenario) const {
  if (model().rows[static_cast<size_t>(row)].timing == model::Timing::Constant) column = 0;
  const Cell cell{row, column};
  if (std::optional<Figure> known = look(cell, scenario)) return *known;
  return Figure::absent();
}

/// The figure of a cell as far as it is known: what was read, filed or computed, or already
/// explained. Empty for a computed cell that has no number and no explanation yet.
std::optional<Figure> Evaluation::look(Cell cell, int scenario) const {
  if (const Figure* known = input(cell, scenario)) return *known;
  const model::Row& row = model().rows[static_cast<size_t>(cell.row)];
  if (row.timing != model::Timing::Constant && !layout().isForecast(cell.column)) {
    return history_->at(cell.row, cell.column);
  }
  const std::int32_t slot = program().slot(cell);
  if (slot < 0) return Figure::absent();
  const double number = lanes_.at(static_cast<size_t>(slot), scenario);
  if (std::isfinite(number)) return Figure::of(number);
  const auto& reasons = reasons_[static_cast<size_t>(scenario)];
  const auto reason = reasons.find(cell);
  return reason == reasons.end() ? std::nullopt : std::optional(reason->second);
}

/// Finds the reason of every cell without a number, in order of evaluation: what a cell stands on
/// is explained before it. In a circular group the first pass takes unknown members as nought, so
/// that the gap that came from outside is found; the next passes carry it round.
void Evaluation::explain(int scenario) {
  auto& reasons = reasons_[static_cast<size_t>(scenario)];
  std::vector<Cell> open;
  for (Cell cell : program().computed) {
    if (!std::isfinite(lanes_.at(static_cast<size_t>(program().slot(cell)), scenario))) open.push_back(cell);
  }
  while (!open.empty()) {
    std::vector<Cell> left;
    for (Cell cell : open) {
      const model::Row& row = model().rows[static_cast<size_t>(cell.row)];
      const model::Expr* rule = model::ruleOf(row, layout(), cell.column);
      Figure figure = model::interpret(model(), layout(), *rule, cell.column,
                                       [&](Cell c) { return look(c, scenario).value_or(Figure::of(0)); });
      if (figure.hasValue()) {
        left.push_back(cell);
      } else {
        reasons.emplace(cell, std::move(figure));
      }
    }
    if (left.size() == open.size()) break;  // no gap from outside: the group itself did not settle
    open = std::move(left);
  }
  for (Cell cell : open) {
    reasons.emplace(cell, Figure::notMeaningful("did not settle: " + unsettledRows(scenario)));
  }
}

std::string Evaluation::unsettledRows(int scenario) const {
  const std::int32_t which = lanes_.unsettled[static_cast<size_t>(scenario)];
  return which < 0 ? std::string() : program().circles[static_cast<size_t>(which)].rows;
}

Figure Evaluation::figure(const std::string& row, int column, int scenario) const {
  const int index = model().find(row);
  if (index < 0) return Figure::absent("the model has no row '" + row + "'");
  return figure(index, column, scenario);
}

Figure Evaluation::constant(const std::string& row, int scenario) const {
  return figure(row, 0, scenario);
}

Figure weightedValue(const Evaluation& e, const std::string& row) {
  double sum = 0;
  for (const Scenario& s : e.caseOf().scenarios) sum += s.probability;
  if (std::fabs(sum - 1) > 1e-9) {
    return Figure::notMeaningful("the probabilities do not sum to one");
  }
  double value = 0;
  for (int i = 0; i < e.scenarios(); ++i) {
    const Scenario& s = e.caseOf().scenarios[static_cast<size_t>(i)];
    const Figure figure = e.constant(row, i);
    if (!figure.hasValue()) {
      return Figure::notMeaningful(s.label + " has no value: " + figure.reason());
    }
    value += s.probability * figure.value();
  }
  return Figure::of(value);
}

}  // namespace zl
