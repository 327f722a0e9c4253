#pragma once
// The model's history rows by fiscal quarter: each quarter's own flows, or trailing twelve months.

#include <string>
#include <vector>

#include "services/snapshot.h"

namespace zl::services {

enum class Basis { Quarters, Trailing };

struct InterimRow {
  int row = 0;  ///< of the model
  std::vector<Figure> figures;
};

struct InterimTable {
  std::vector<std::string> periods;  ///< "Q1 2025", ascending
  std::vector<InterimRow> rows;

  /// Growth against the same quarter a year before.
  [[nodiscard]] std::vector<Figure> growthOf(size_t row) const;
  /// Share of the same period's revenue; not meaningful where that is not positive.
  [[nodiscard]] std::vector<Figure> shareOfRevenue(size_t row, const model::Model& m) const;
};

/// Trailing: every row that history knows, its rules read over the same quarter of successive
/// years. Quarters: rows of money that look at no other period; days, returns and changes over a
/// year mean nothing for one quarter's flow.
InterimTable interimTable(const Snapshot& s, Basis basis);

}  // namespace zl::services
