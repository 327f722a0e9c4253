#include "core/table/sheet.h"

#include <algorithm>

namespace zl {

const SheetCell* SheetRow::at(int column) const {
  const auto found = std::lower_bound(columns.begin(), columns.end(), column);
  if (found == columns.end() || *found != column) return nullptr;
  return &cells[static_cast<size_t>(found - columns.begin())];
}

void Sheet::add(SheetCell cell) {
  if (cell.text.empty()) return;
  columns = std::max(columns, cell.column + 1);
  rows.back().columns.push_back(cell.column);
  rows.back().cells.push_back(std::move(cell));
}

const SheetCell* Sheet::at(int row, int column) const {
  if (row < 0 || row >= static_cast<int>(rows.size())) return nullptr;
  return rows[static_cast<size_t>(row)].at(column);
}

Sheet Sheet::transposed() const {
  Sheet turned;
  turned.name = name;
  turned.rows.resize(static_cast<size_t>(columns));
  turned.columns = static_cast<int>(rows.size());
  for (size_t r = 0; r < rows.size(); ++r) {
    for (size_t i = 0; i < rows[r].cells.size(); ++i) {
      SheetRow& into = turned.rows[static_cast<size_t>(rows[r].columns[i])];
      into.columns.push_back(static_cast<int>(r));
      into.cells.push_back(rows[r].cells[i]);
    }
  }
  return turned;
}

std::string cellPlace(const Sheet& sheet, const SheetCell& cell) {
  std::string letters;
  for (int c = cell.column + 1; c > 0; c = (c - 1) / 26)
    letters.insert(letters.begin(), static_cast<char>('A' + (c - 1) % 26));
  const std::string name = letters + std::to_string(cell.row + 1);
  return sheet.name.empty() ? "cell " + name : "sheet '" + sheet.name + "', cell " + name;
}

}  // namespace zl
