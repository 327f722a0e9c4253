#pragma once
// How a sheet of figures is read: where the labels and the years are, what unit the figures are
// in, which line each row is. Guessed here, corrected by the analyst, then turned into facts.

#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "core/filing/labels.h"
#include "core/filing/mapping.h"
#include "core/quantity/error.h"
#include "core/structure/placing.h"
#include "core/table/displayed.h"
#include "core/table/sheet.h"

namespace zl {

struct TableColumn {
  int column = 0;
  std::string heading;
  Date end{};
  int months = 12;
  int weeks = 0;  ///< where the period is counted in weeks
  bool included = true;
  std::string doubt;  ///< why it was left out, or what may be wrong
};

struct TableLine {
  /// Aside: it is counted elsewhere or stands on no line, as its choice's reason says.
  enum class Match { None, Aside, Remembered, Known, Close, Rest };
  int row = 0;
  std::string label;
  std::string concept_name;  ///< "label:" and the label; a number is added where it repeats
  LineChoice choice;
  Match match = Match::None;
  bool balance = false;
  bool shares = false;
  int scale = 0;                ///< power of ten of this row's figures
  std::optional<size_t> total;  ///< the row that it was found to be a part of
};

struct TableReading {
  bool yearsDown = false;  ///< years stand in rows; the sheet is read transposed
  int headerRow = -1;
  int labelColumn = 0;
  char decimalMark = '.';
  std::string currency;
  int scale = 0;
  FiscalEnd fiscal;
  std::vector<TableColumn> columns;
  std::vector<TableLine> lines;
  std::vector<std::string> doubts;  ///< what the analyst should look at first
  int sums = 0;                     ///< totals found among the rows
};

/// What is known before a table is read, and what the analyst has fixed.
struct TableHints {
  std::string currency;             ///< used where the table names none
  std::optional<FiscalEnd> fiscal;  ///< of the company, where headings name only years
  LineChoices remembered;
  std::set<std::string> takenLines;     ///< by other sheets of the same file
  std::set<std::string> takenConcepts;  ///< likewise; a label that repeats gets the sheet's name
  std::optional<std::string> fixedCurrency;
  std::optional<int> fixedScale;
  std::optional<bool> yearsDown;  ///< with headerRow: in the sheet as it is, or transposed
  std::optional<int> headerRow;
  std::optional<int> labelColumn;
};

/// The doubt of a table whose currency nothing tells.
inline constexpr const char* kNoCurrency = "the table names no currency";

/// Reads a sheet's layout. Fails when no row or column names at least one period with figures
/// beneath it, saying what was looked for.
Result<TableReading> guessTable(const Sheet& sheet, const PlacingRules& rules, const TableHints& hints);

/// Puts a row on a line by hand, or sets it aside; its timing and scale follow.
void setLine(TableReading& reading, size_t line, const LineChoice& choice, const LabelRules& labels);

/// Gives a column its period as it was typed: "12 to 2024-12-31", or a heading as tables have them (2024, Q3 2024,
/// 31.12.2024); nothing leaves the column out. Fails on what is no period, with the column as it was.
Status setPeriod(TableReading& reading, size_t column, std::string_view typed);

/// The facts a reading stands for: included columns and all rows with a figure. The text is
/// exact: the shown figure times its scale. A cell that is neither a figure nor says that there is none is passed over
/// and named in `passedOver`: one bad cell stops no sheet. Fails where nothing is left.
Result<std::vector<Fact>> factsOf(const Sheet& sheet, const TableReading& reading,
                                  std::vector<std::string>* passedOver = nullptr);

/// How the name of a cell that was passed over ends.
inline constexpr const char* kNoFigure = "is no figure and was left out";

/// What the reading adds to the remembered choices: its matched rows by concept.
LineChoices choicesOf(const TableReading& reading);

}  // namespace zl
