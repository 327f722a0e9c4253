#include "core/model/program.h"

#include <algorithm>

namespace zl::model {

const Expr* ruleOf(const Row& row, const Layout& layout, int column) {
  if (column == layout.columns() && row.declared == Declared::Driver) return row.beyond ? &*row.beyond : nullptr;
  if (row.declared != Declared::Row && layout.isForecast(column)) return nullptr;
  if (row.timing == Timing::Constant) return row.value ? &*row.value : nullptr;
  if (!layout.isForecast(column)) return row.history ? &*row.history : nullptr;
  if (column == layout.historyYears && row.first) return &*row.first;
  return row.forecast ? &*row.forecast : nullptr;
}

namespace {

/// Beyond the last year a driver holds what it had there, but where it says otherwise.
Cell held(const Model& model, const Layout& layout, Cell cell) {
  const Row& row = model[cell.row];
  const bool holds = cell.column == layout.columns() && row.declared == Declared::Driver && !row.beyond;
  return holds ? Cell{cell.row, cell.column - 1} : cell;
}

}  // namespace

Cell cellOf(const Model& model, const Layout& layout, const Expr& ref, int column) {
  if (model[ref.row].timing == Timing::Constant) return {ref.row, 0};
  switch (ref.anchor) {
    case Anchor::Base:
      return {ref.row, layout.baseColumn()};
    case Anchor::First:
      return {ref.row, layout.historyYears};
    case Anchor::Second:  // of a forecast of one year there is none
      return {ref.row, layout.forecastYears > 1 ? layout.historyYears + 1 : -1};
    case Anchor::Third:
      return {ref.row, layout.forecastYears > 2 ? layout.historyYears + 2 : -1};
    case Anchor::Final:
      return {ref.row, layout.columns() - 1};
    case Anchor::Beyond:
      return held(model, layout, {ref.row, layout.columns()});
    case Anchor::Here:
      break;
  }
  const int at = column - ref.lag;
  return held(model, layout, {ref.row, at < 0 ? -1 : at});
}

namespace {

bool asksForAChoice(const Expr& e) {
  return e.op == Op::Is || std::any_of(e.args.begin(), e.args.end(), asksForAChoice);
}

/// `always`: without what stands behind a choice.
void collect(const Model& model, const Layout& layout, const Expr& e, int column, std::vector<Cell>& cells,
             bool always) {
  if (always && e.op == Op::If && asksForAChoice(e.args[0]))
    return collect(model, layout, e.args[0], column, cells, always);
  if (e.op == Op::Ref) {
    const Cell cell = cellOf(model, layout, e, column);
    if (cell.column >= 0) cells.push_back(cell);
    return;
  }
  if (e.op == Op::Total) {
    for (int c = layout.historyYears; c < layout.columns(); ++c) {
      collect(model, layout, e.args[0], c, cells, always);
    }
    return;
  }
  if (e.op == Op::Average) collect(model, layout, e.args[0], column - 1, cells, always);
  for (const Expr& part : e.args) collect(model, layout, part, column, cells, always);
}

bool reads(const Expr& e, RowId row, bool before) {
  if (e.op == Op::Ref) return e.row == row && e.anchor == Anchor::Here && (e.lag > 0) == before;
  return std::any_of(e.args.begin(), e.args.end(), [&](const Expr& part) { return reads(part, row, before); });
}

bool setsYearsAgainst(const Expr& e) {
  const bool compares = e.op == Op::Divide || e.op == Op::Subtract;
  if (compares && e.args[1].op == Op::Ref && reads(e.args[1], e.args[1].row, true) &&
      reads(e.args[0], e.args[1].row, false)) {
    return true;
  }
  return std::any_of(e.args.begin(), e.args.end(), setsYearsAgainst);
}

}  // namespace

bool comparesYears(const Row& row) {
  return row.timing == Timing::Rate && row.history && setsYearsAgainst(*row.history);
}

std::vector<Cell> cellsRead(const Model& model, const Layout& layout, const Expr& expr, int column) {
  std::vector<Cell> cells;
  collect(model, layout, expr, column, cells, false);
  return cells;
}

std::vector<Cell> cellsAlwaysRead(const Model& model, const Layout& layout, const Expr& expr, int column) {
  std::vector<Cell> cells;
  collect(model, layout, expr, column, cells, true);
  return cells;
}

}  // namespace zl::model
