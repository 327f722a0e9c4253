#include "core/outlook/evaluation.h"

#include <algorithm>
#include <cmath>

#include "core/model/slice.h"

namespace zl {

using model::Cell;

Result<std::shared_ptr<const CompiledModel>> compileModel(const model::Model& m, model::Layout l) {
  Result<model::Program> program = model::compile(m, l);
  if (!program) return tl::unexpected(program.error());
  return std::make_shared<const CompiledModel>(m, std::move(*program));
}

const model::Program& CompiledModel::partFor(const std::vector<Cell>& cells,
                                             const std::set<model::RowId>& moved) const {
  const std::lock_guard<std::mutex> lock(guard_);
  const Part part{cells, moved};
  auto found = parts_.find(part);
  if (found == parts_.end()) {
    found =
        parts_.emplace(part, moved.empty() ? model::sliceFor(program, cells) : model::sliceFor(program, cells, moved))
            .first;
  }
  return found->second;
}

Path pathInForce(const model::Row& driver, const Case& c, const Scenario& s, const Figure& lastActual) {
  if (const Assumption* a = c.driver(s, driver.name)) return a->path;
  Path path;
  if (driver.preset && !(driver.preset->last && lastActual.hasValue())) path.level = driver.preset->level;
  return path;
}

DriverFigures driverFigures(const model::Row& driver, const Case& c, const Scenario& s, const Figure& lastActual,
                            int years) {
  const Path path = pathInForce(driver, c, s, lastActual);
  // A driver without history starts where the model would have it.
  const bool moves = path.shape != Shape::Hold;  // a level that nobody knows is held by none
  const bool preset = moves && !lastActual.hasValue() && driver.preset && driver.preset->level;
  PathGround ground{preset ? Figure::of(*driver.preset->level) : lastActual, years, c.stages, {}};
  if (path.shape == Shape::Follow && s.id != kBase) {
    ground.base = driverFigures(driver, c, c.base(), lastActual, years).figures;
  }
  DriverFigures result{figuresOf(path, ground), std::vector<bool>(static_cast<size_t>(years), false)};
  if (!driver.range) return result;
  for (size_t t = 0; t < result.figures.size(); ++t) {
    Figure& x = result.figures[t];
    if (!x.hasValue() || (x.value() >= driver.range->low && x.value() <= driver.range->high)) continue;
    x = Figure::of(std::clamp(x.value(), driver.range->low, driver.range->high));
    result.clipped[t] = true;
  }
  return result;
}

namespace {

Figure givenFigure(const model::Row& row, const Givens& givens) {
  const auto found = givens.find(row.name);
  return found == givens.end() ? Figure::absent(row.label + " is not known") : found->second;
}

Figure inputFigure(const model::Row& row, const Case& c, const Scenario& s) {
  if (const InputChoice* choice = c.input(s, row.name)) return figureOf(row, *choice);
  return row.preset && row.preset->level ? Figure::of(*row.preset->level)
                                         : Figure::absent(row.label + " has not been chosen");
}

}  // namespace

Figure constantFigure(const model::Row& row, const Case& c, const Scenario& s, const Givens& givens) {
  return row.declared == model::Declared::Given ? givenFigure(row, givens) : inputFigure(row, c, s);
}

Evaluation::Evaluation(std::shared_ptr<const CompiledModel> compiled,
                       std::shared_ptr<const model::HistoryTable> history, Case c, const Givens& givens)
    : compiled_(std::move(compiled)), history_(std::move(history)), case_(std::move(c)) {
  const model::Program& p = compiled_->program;
  model::LaneInputs lanes(p, scenarios());
  placeInputs(givens);
  for (int s = 0; s < scenarios(); ++s) inputs_.push_back(inputsOf(case_.scenarios[static_cast<size_t>(s)]));
  for (size_t i = 0; scenarios() > 0 && i < p.inputs.size(); ++i) {
    const Cell cell = p.inputs[i].cell;
    const Figure* figure = input(cell, 0);
    if (figure == nullptr || model()[cell.row].declared == model::Declared::Given) {
      lanes.setAll(i, (figure != nullptr ? *figure : history_->at(cell.row, cell.column)).orNaN());
      continue;
    }
    for (int s = 0; s < scenarios(); ++s) lanes.set(i, s, input(cell, s)->orNaN());
  }
  std::vector<std::uint32_t> outputs(p.firstConstant);
  for (std::uint32_t slot = 0; slot < p.firstConstant; ++slot) outputs[slot] = slot;
  lanes_ = model::evaluate(p, lanes, outputs);
  for (int s = 0; s < scenarios(); ++s) reasons_.push_back(std::make_unique<Reasons>());
}

void Evaluation::placeInputs(const Givens& givens) {
  std::int32_t next = 0;
  inputAt_.assign(model().rows.size(), -1);
  for (size_t r = 0; r < model().rows.size(); ++r) {
    const model::Row& row = model().rows[r];
    if (row.declared == model::Declared::Row) continue;
    if (row.declared == model::Declared::Given) {
      inputAt_[r] = static_cast<std::int32_t>(givens_.size());
      givens_.push_back(givenFigure(row, givens));
      continue;
    }
    inputAt_[r] = next;
    next += row.declared == model::Declared::Driver ? layout().forecastYears : 1;
  }
  inputCells_ = static_cast<size_t>(next);
}

std::vector<Figure> Evaluation::inputsOf(const Scenario& s) {
  std::vector<Figure> figures;
  figures.reserve(inputCells_);
  std::set<Cell>& clipped = clipped_.emplace_back();
  for (size_t r = 0; r < model().rows.size(); ++r) {
    const model::Row& row = model().rows[r];
    if (row.declared == model::Declared::Row || row.declared == model::Declared::Given) continue;
    if (row.declared == model::Declared::Input) {
      figures.push_back(inputFigure(row, case_, s));
      continue;
    }
    DriverFigures path =
        driverFigures(row, case_, s, history_->at(model::RowId(r), layout().baseColumn()), layout().forecastYears);
    for (size_t t = 0; t < path.figures.size(); ++t) {
      Figure& figure = path.figures[t];
      if (path.clipped[t]) clipped.insert({model::RowId(r), layout().historyYears + static_cast<int>(t)});
      figures.push_back(figure.hasValue() ? std::move(figure)
                                          : Figure::absent(row.label + " has no path and no last actual to hold"));
    }
  }
  return figures;
}

const Figure* Evaluation::input(Cell cell, int scenario) const {
  const std::int32_t first = inputAt_[cell.row.at()];
  const bool path = model()[cell.row].declared == model::Declared::Driver;
  // Of the year beyond a driver has a figure only where the model computes one.
  if (first >= 0 && model()[cell.row].declared == model::Declared::Given) return &givens_[static_cast<size_t>(first)];
  if (first < 0 || (path && (!layout().isForecast(cell.column) || cell.column >= layout().columns()))) return nullptr;
  const auto year = static_cast<size_t>(path ? cell.column - layout().historyYears : 0);
  return &inputs_[static_cast<size_t>(scenario)][static_cast<size_t>(first) + year];
}

bool Evaluation::clipped(Cell cell, int scenario) const {
  return clipped_[static_cast<size_t>(scenario)].count(cell) > 0;
}

Figure Evaluation::figure(model::RowId row, int column, int scenario) const {
  if (!row.known()) return Figure::absent("the model has no such row");
  if (model()[row].timing == model::Timing::Constant) column = 0;
  const Cell cell{row, column};
  if (std::optional<Figure> known = number(cell, scenario)) return *known;
  const std::map<Cell, Figure>& reasons = reasonsOf(scenario);
  const auto reason = reasons.find(cell);
  return reason == reasons.end() ? Figure::absent() : reason->second;
}

double Evaluation::orNaN(Cell cell, int scenario) const {
  if (!cell.row.known()) return std::nan("");
  if (model()[cell.row].timing == model::Timing::Constant) cell.column = 0;
  const std::optional<Figure> known = number(cell, scenario);
  return known ? known->orNaN() : std::nan("");
}

/// What was read or filed, or was computed and is a number. Empty for a computed cell without one.
std::optional<Figure> Evaluation::number(Cell cell, int scenario) const {
  if (const Figure* known = input(cell, scenario)) return *known;
  const model::Row& row = model()[cell.row];
  if (row.timing != model::Timing::Constant && !layout().isForecast(cell.column)) {
    return history_->at(cell.row, cell.column);
  }
  const std::int32_t slot = program().slot(cell);
  if (slot < 0) return Figure::absent();
  const double computed = lanes_.at(static_cast<size_t>(slot), scenario);
  return std::isfinite(computed) ? std::optional(Figure::of(computed)) : std::nullopt;
}

const std::map<Cell, Figure>& Evaluation::reasonsOf(int scenario) const {
  Reasons& reasons = *reasons_[static_cast<size_t>(scenario)];
  std::call_once(reasons.once, [&] { reasons.of = explain(scenario); });
  return reasons.of;
}

/// Finds the reason of every cell without a number, in order of evaluation: what a cell stands on
/// is explained before it. In a circular group the first pass takes unknown members as nought, so
/// that the gap that came from outside is found; the next passes carry it round.
std::map<Cell, Figure> Evaluation::explain(int scenario) const {
  std::map<Cell, Figure> reasons;
  const auto look = [&](Cell cell) {
    if (std::optional<Figure> known = number(cell, scenario)) return *known;
    const auto reason = reasons.find(cell);
    return reason == reasons.end() ? Figure::of(0) : reason->second;
  };
  std::vector<Cell> open;
  for (Cell cell : program().computed) {
    if (!std::isfinite(lanes_.at(static_cast<size_t>(program().slot(cell)), scenario))) open.push_back(cell);
  }
  while (!open.empty()) {
    std::vector<Cell> left;
    for (Cell cell : open) {
      const model::Row& row = model()[cell.row];
      const model::Expr* rule = model::ruleOf(row, layout(), cell.column);
      Figure figure = model::interpret(model(), layout(), *rule, cell.column, look);
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
  return reasons;
}

std::string Evaluation::unsettledRows(int scenario) const {
  const std::int32_t which = lanes_.unsettled[static_cast<size_t>(scenario)];
  return which < 0 ? std::string() : program().circles[static_cast<size_t>(which)].rows;
}

Figure Evaluation::figure(const std::string& row, int column, int scenario) const {
  const model::RowId index = model().find(row);
  if (!index.known()) return Figure::absent("the model has no row '" + row + "'");
  return figure(index, column, scenario);
}

Figure Evaluation::figure(model::Role role, int column, int scenario) const {
  const model::RowId row = model().find(role);
  if (!row.known()) return Figure::absent(std::string("no row of the model means '") + model::specOf(role).name + "'");
  return figure(row, column, scenario);
}

bool Evaluation::stands(model::Role choice, const char* option, int scenario) const {
  const model::Row* row = model().row(choice);
  return row != nullptr && constant(choice, scenario).valueOr(-1) == row->option(option);
}

const model::Method* Evaluation::leadingMethod(int scenario) const {
  const auto& methods = model().methods;
  const auto leads = std::find_if(methods.begin(), methods.end(), [&](const model::Method& m) {
    return m.choice.known() && constant(m.choice, scenario).valueOr(-1) == m.option;
  });
  return leads == methods.end() ? nullptr : &*leads;
}

Figure weightedValue(const Evaluation& e, model::Role role) {
  const model::RowId row = e.model().find(role);
  return !row.known() ? e.constant(role, 0) : weightedValue(e, row);
}

Figure weightedValue(const Evaluation& e, model::RowId row) {
  if (!probabilitiesSumToOne(e.caseOf())) return Figure::notMeaningful("the probabilities do not sum to one");
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
