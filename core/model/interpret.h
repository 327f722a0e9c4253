#pragma once
// Evaluates one expression with full value-or-reason arithmetic. Serves history, traces and the
// explanation of every figure that has no value; the tape of program.h is the fast form of it.

#include <functional>

#include "core/model/program.h"
#include "core/quantity/figure.h"

namespace zl::model {

/// Gives the figure of a cell; asked only for cells with column >= 0.
using CellReader = std::function<Figure(Cell)>;

Figure interpret(const Model& model, const Layout& layout, const Expr& expr, int column, const CellReader& read);

/// All history cells of the model: filed figures as given, the rest by their history rules.
class HistoryTable {
 public:
  /// filed(row name, column) for rows with `history filed`; assumed(row) for inputs and givens
  /// that history rules read.
  HistoryTable(const Model& model, Layout layout, const std::function<Figure(const std::string&, int)>& filed,
               const std::function<Figure(RowId)>& assumed);
  [[nodiscard]] const Figure& at(RowId row, int column) const;
  [[nodiscard]] const Layout& layout() const { return layout_; }

 private:
  Layout layout_;
  std::vector<Figure> figures_;
};

}  // namespace zl::model
