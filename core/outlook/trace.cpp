#include "core/outlook/trace.h"

#include <algorithm>

#include "core/model/expression_words.h"
#include "core/quantity/number_text.h"

namespace zl {

using model::Cell;
using model::Declared;
using model::Timing;

std::string periodText(const Evaluation& e, const std::vector<FiscalYear>& years, Cell cell) {
  if (e.model()[cell.row].timing == Timing::Constant) return {};
  const int filed = e.layout().historyYears;
  if (cell.column < filed) {
    return std::to_string(years[static_cast<size_t>(cell.column)].label());
  }
  return std::to_string(years.back().label() + cell.column - filed + 1) + "E";
}

namespace {

class Tracer {
 public:
  Tracer(const Evaluation& e, const StandardStatements& statements, int scenario)
      : e_(e), statements_(statements), scenario_(scenario) {}

  TraceStep step(Cell cell) const {
    const model::Row& row = rowOf(cell);
    TraceStep step;
    step.self = link(cell);
    step.help = row.help;
    const bool history = row.timing != Timing::Constant && !e_.layout().isForecast(cell.column);
    if (history && row.historyFiled) {
      filed(row, cell, step);
    } else if (!history && row.declared != Declared::Row) {
      assumed(row, step);
    } else if (const model::Expr* rule = model::ruleOf(row, e_.layout(), cell.column)) {
      derived(*rule, cell, step);
    } else {
      step.source = TraceStep::Source::NotFiled;
    }
    dependents(cell, step);
    return step;
  }

 private:
  [[nodiscard]] const model::Row& rowOf(Cell cell) const { return e_.model()[cell.row]; }

  [[nodiscard]] TraceLink link(Cell cell) const { return linkTo(e_, statements_.years(), cell, scenario_); }

  void filed(const model::Row& row, Cell cell, TraceStep& step) const {
    const LineCell& line = statements_.at(row.name, cell.column);
    step.facts = line.parts;
    step.source = line.origin == Origin::Filed          ? TraceStep::Source::Filed
                  : line.origin == Origin::NoneReported ? TraceStep::Source::NoneReported
                                                        : TraceStep::Source::NotFiled;
  }

  void assumed(const model::Row& row, TraceStep& step) const {
    if (row.declared == Declared::Given) {
      step.source = TraceStep::Source::Given;
      return;
    }
    const Case& c = e_.caseOf();
    const Scenario& s = c.scenarios[static_cast<size_t>(scenario_)];
    if (row.declared == Declared::Driver) {
      step.assumption = c.driver(s, row.name);
      step.inheritedFrom = s.drivers.count(row.name) > 0 ? s.label : c.base().label;
    } else {
      step.choice = c.input(s, row.name);
      step.inheritedFrom = s.inputs.count(row.name) > 0 ? s.label : c.base().label;
    }
    const bool said = step.assumption != nullptr || step.choice != nullptr;
    step.source = said ? TraceStep::Source::Assumed : TraceStep::Source::Preset;
    // A path that starts from the last actual stands on it.
    if (row.declared == Declared::Driver && row.history) {
      step.inputs.push_back(link({step.self.cell.row, e_.layout().baseColumn()}));
    }
  }

  void derived(const model::Expr& rule, Cell cell, TraceStep& step) const {
    step.formula = expressionText(rule);
    step.formulaInWords = expressionWords(rule, e_.model());
    step.formulaWithValues = withValues(rule, cell.column);
    for (Cell read : model::cellsRead(e_.model(), e_.layout(), rule, cell.column)) {
      const bool seen =
          std::any_of(step.inputs.begin(), step.inputs.end(), [&](const TraceLink& l) { return l.cell == read; });
      if (!seen) step.inputs.push_back(link(read));
    }
  }

  std::string withValues(model::Expr rule, int column) const {
    substitute(rule, column);
    return expressionText(rule);
  }

  void substitute(model::Expr& e, int column) const {
    if (e.op == model::Op::Average) {
      // Show both ends of an average rather than avg() of one figure.
      model::Expr opening = e.args[0];
      model::Expr closing = std::move(e.args[0]);
      substitute(opening, column - 1);
      substitute(closing, column);
      e.args.clear();
      e.args.push_back(std::move(opening));
      e.args.push_back(std::move(closing));
      return;
    }
    if (e.op == model::Op::Ref) {
      const Cell cell = model::cellOf(e_.model(), e_.layout(), e, column);
      const Figure figure = cell.column < 0 ? Figure::absent() : e_.figure(cell.row, cell.column, scenario_);
      const model::Kind kind = e_.model()[e.row].kind;
      std::string text = figureText(figure, kind);
      if (text.empty()) text = "absent";
      if (kind == model::Kind::Ratio && figure.hasValue()) text += "%";
      e.name = std::move(text);
      e.lag = 0;
      e.anchor = model::Anchor::Here;
      return;
    }
    // A sum over years or terms, and a choice, read better by name.
    if (e.op == model::Op::Total || e.op == model::Op::Sum || e.op == model::Op::Is) return;
    for (model::Expr& part : e.args) substitute(part, column);
  }

  /// Whether an expression names a row at all: told without laying out what it reads.
  [[nodiscard]] static bool speaksOf(const model::Expr& e, model::RowId row) {
    if (e.row == row) return true;
    return std::any_of(e.args.begin(), e.args.end(), [&](const model::Expr& part) { return speaksOf(part, row); });
  }

  void addIfRead(Cell cell, Cell other, TraceStep& step) const {
    const model::Expr* rule = model::ruleOf(rowOf(other), e_.layout(), other.column);
    if (rule == nullptr || !speaksOf(*rule, cell.row)) return;
    const std::vector<Cell> reads = model::cellsRead(e_.model(), e_.layout(), *rule, other.column);
    if (std::find(reads.begin(), reads.end(), cell) != reads.end()) step.dependents.push_back(link(other));
  }

  void dependents(Cell cell, TraceStep& step) const {
    const model::Row& row = rowOf(cell);
    const bool constant = row.timing == Timing::Constant;
    // History is no part of the program. Its rules read history and what is assumed or given.
    if (constant ? row.declared != Declared::Row : !e_.layout().isForecast(cell.column)) {
      for (int column = constant ? 0 : cell.column; column < e_.layout().historyYears; ++column) {
        for (size_t r = 0; r < e_.model().rows.size(); ++r) {
          const model::Row& other = e_.model().rows[r];
          if (other.timing == Timing::Constant || other.historyFiled || !other.history) continue;
          addIfRead(cell, {model::RowId(r), column}, step);
        }
      }
    }
    // A driver's path may start from the last actual, as its own step says.
    if (row.declared == Declared::Driver && row.history && cell.column == e_.layout().baseColumn()) {
      for (int column = e_.layout().historyYears; column < e_.layout().columns(); ++column)
        step.dependents.push_back(link({cell.row, column}));
    }
    for (Cell other : e_.program().computed) addIfRead(cell, other, step);
  }

  const Evaluation& e_;
  const StandardStatements& statements_;
  int scenario_;
};

}  // namespace

TraceLink linkTo(const Evaluation& e, const std::vector<FiscalYear>& years, Cell cell, int scenario) {
  const model::Row& row = e.model()[cell.row];
  const Figure figure = e.figure(cell.row, cell.column, scenario);
  return {cell, row.label, periodText(e, years, cell), figure, row.kind, optionLabel(row, figure.valueOr(-1))};
}

TraceStep trace(const Evaluation& e, const StandardStatements& statements, Cell cell, int scenario) {
  return Tracer(e, statements, scenario).step(cell);
}

}  // namespace zl
