#pragma once
// A sheet of cells as another program laid it out: what a table of figures is read from.

#include <string>
#include <string_view>
#include <vector>

namespace zl {

struct SheetCell {
  enum class Kind { Text, Number, Day };
  int row = 0;     ///< where the cell stands in its file, counted from 0
  int column = 0;  ///< counted from 0
  Kind kind = Kind::Text;
  std::string text;  ///< as shown; a number's plain decimal text; a day as 2024-12-31
};

struct SheetRow {
  std::vector<SheetCell> cells;  ///< by ascending column, empty ones left out

  /// The cell at a column (by position in this layout), nullptr when it is empty.
  [[nodiscard]] const SheetCell* at(int column) const;
  std::vector<int> columns;  ///< position of each cell in this layout, ascending
};

struct Sheet {
  std::string name;  ///< empty where the format has none
  std::vector<SheetRow> rows;
  int columns = 0;

  /// Appends a cell to the last row at its own column; empty text is left out.
  void add(SheetCell cell);
  [[nodiscard]] const SheetCell* at(int row, int column) const;
  /// Rows and columns exchanged; cells keep where they stand in their file.
  [[nodiscard]] Sheet transposed() const;
};

constexpr int kHeaderDepth = 60;  ///< rows of a sheet that are searched for headings

/// "D12", or "sheet 'Income', cell D12" where the sheet has a name.
std::string cellPlace(const Sheet& sheet, const SheetCell& cell);

}  // namespace zl
