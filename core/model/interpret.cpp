#include "core/model/interpret.h"

#include <cmath>
#include <cstdlib>

namespace zl::model {
namespace {

class Interpreter {
 public:
  Interpreter(const Model& model, const Layout& layout, const CellReader& read)
      : model_(model), layout_(layout), read_(read) {}

  Figure run(const Expr& e, int column) const {
    switch (e.op) {
      case Op::Number:
        return Figure::of(e.number);
      case Op::Ref:
        return reference(e, column);
      case Op::Negate:
        return -run(e.args[0], column);
      case Op::Abs: {
        const Figure f = run(e.args[0], column);
        return f.hasValue() ? Figure::of(std::fabs(f.value())) : f;
      }
      case Op::Round: {
        const Figure f = run(e.args[0], column);
        return f.hasValue() ? Figure::of(std::round(f.value())) : f;
      }
      case Op::Average:
        return (run(e.args[0], column) + run(e.args[0], column - 1)) * Figure::of(0.5);
      case Op::Total: {
        Figure sum = run(e.args[0], layout_.historyYears);
        for (int c = layout_.historyYears + 1; c < layout_.columns(); ++c) {
          sum = sum + run(e.args[0], c);
        }
        return sum;
      }
      case Op::Sum: {
        Figure sum = run(e.args.front(), column);
        for (size_t i = 1; i < e.args.size(); ++i) sum = sum + run(e.args[i], column);
        return sum;
      }
      case Op::If: {
        Figure condition = run(e.args[0], column);
        if (!condition.hasValue()) return condition;
        return run(e.args[condition.value() == 1.0 ? 1 : 2], column);
      }
      case Op::Guard: {
        Figure condition = run(e.args[0], column);
        if (!condition.hasValue()) return condition;
        if (condition.value() != 1.0) return Figure::notMeaningful(e.reason);
        return run(e.args[1], column);
      }
      case Op::Known: {
        Figure first = run(e.args[0], column);
        return first.hasValue() ? first : run(e.args[1], column);
      }
      default:
        return pair(e.op, run(e.args[0], column), run(e.args[1], column));
    }
  }

 private:
  Figure reference(const Expr& e, int column) const {
    const Cell cell = cellOf(model_, layout_, e, column);
    if (cell.column < 0) {
      return Figure::absent("there is no earlier year of " + model_[e.row].label);
    }
    return read_(cell);
  }

  static Figure pair(Op op, const Figure& a, const Figure& b) {
    switch (op) {
      case Op::Add:
        return a + b;
      case Op::Subtract:
        return a - b;
      case Op::Multiply:
        return a * b;
      case Op::Divide:
        return a / b;
      default:
        break;
    }
    if (const Figure* gap = decidingGap({&a, &b})) return *gap;
    const double x = a.value();
    const double y = b.value();
    switch (op) {
      case Op::Power:
        return Figure::of(power(x, y));
      case Op::Min:
        return Figure::of(x < y ? x : y);
      case Op::Max:
        return Figure::of(x > y ? x : y);
      case Op::Less:
        return Figure::of(x < y ? 1 : 0);
      case Op::LessEqual:
        return Figure::of(x <= y ? 1 : 0);
      case Op::Greater:
        return Figure::of(x > y ? 1 : 0);
      case Op::GreaterEqual:
        return Figure::of(x >= y ? 1 : 0);
      case Op::Equal:
      case Op::Is:
        return Figure::of(x == y ? 1 : 0);
      case Op::And:
        return Figure::of(x * y);
      case Op::Or:
        return Figure::of(x > y ? x : y);
      default:
        std::abort();  // every operation of one or three operands is handled in run()
    }
  }

  const Model& model_;
  const Layout& layout_;
  const CellReader& read_;
};

}  // namespace

Figure interpret(const Model& model, const Layout& layout, const Expr& expr, int column, const CellReader& read) {
  return Interpreter(model, layout, read).run(expr, column);
}

HistoryTable::HistoryTable(const Model& model, Layout layout,
                           const std::function<Figure(const std::string&, int)>& filed,
                           const std::function<Figure(RowId)>& assumed)
    : layout_(layout), figures_(model.rows.size() * static_cast<size_t>(layout.historyYears)) {
  const auto years = static_cast<size_t>(layout.historyYears);
  std::vector<bool> known(figures_.size(), false);
  // Depth-first over rules; the checker has refused rules that lead back to themselves.
  std::function<Figure(Cell)> figure = [&](Cell cell) -> Figure {
    const Row& row = model[cell.row];
    if (row.timing == Timing::Constant) return assumed(cell.row);
    const size_t at = cell.row.at() * years + static_cast<size_t>(cell.column);
    if (known[at]) return figures_[at];
    known[at] = true;
    if (row.historyFiled) {
      figures_[at] = filed(row.name, cell.column);
    } else if (row.history) {
      figures_[at] = interpret(model, layout, *row.history, cell.column, figure);
    }
    return figures_[at];
  };
  // Year by year: a rule that reads the year before finds it known, so that rows leading to one another
  // through all years are never followed at once.
  for (int c = 0; c < layout.historyYears; ++c) {
    for (size_t r = 0; r < model.rows.size(); ++r) {
      if (model.rows[r].timing != Timing::Constant) figure({RowId(r), c});
    }
  }
}

const Figure& HistoryTable::at(RowId row, int column) const {
  return figures_[row.at() * static_cast<size_t>(layout_.historyYears) + static_cast<size_t>(column)];
}

}  // namespace zl::model
