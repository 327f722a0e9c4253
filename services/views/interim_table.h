#pragma once
// The model's history rows by fiscal quarter: each quarter's own flows, or trailing twelve months.

#include <string>
#include <vector>

#include "services/views/history_figures.h"

namespace zl::services {

enum class Basis { Quarters, Trailing };

struct InterimRow {
  model::RowId row;
  std::vector<Figure> figures;
};

struct InterimTable {
  Basis basis = Basis::Quarters;
  std::vector<std::string> periods;  ///< "Q1 2025", ascending
  std::vector<InterimRow> rows;

  /// A row in a view: growth and change stand against the same quarter a year before (two years for
  /// growth over two), shares stand on the same period's revenue, per-share figures on the mean of the
  /// average counts of its quarters.
  [[nodiscard]] std::vector<Figure> figuresIn(size_t row, HistoryView view, const model::Model& m) const;
};

/// Trailing: every row that history knows, its rules read over the same quarter of successive
/// years. Quarters: rows of money that look at no other period; days, returns and changes over a
/// year mean nothing for one quarter's flow.
InterimTable interimTable(const Snapshot& s, Basis basis);

}  // namespace zl::services
