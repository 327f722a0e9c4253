#include "exchange/csv/rows.h"
#include "exchange/workbook/unquoted.h"
#include "exchange/workbook/workbook.h"

namespace zl::exchange {

Result<Workbook> readDelimited(std::string_view content, const std::string& name, const StopCheck& stopped) {
  const char delimiter = delimiterOf(content);
  Result<std::vector<CsvRow>> rows = readCsvRows(content, delimiter, name, stopped);
  if (!rows) return tl::unexpected(rows.error());
  for (CsvRow& row : *rows) {
    for (std::string& text : row.cells) {
      const std::size_t first = text.find_first_not_of(" \t\r\n");
      text = first == std::string::npos ? "" : text.substr(first, text.find_last_not_of(" \t\r\n") - first + 1);
    }
  }
  Workbook workbook;
  if (delimiter == ',') workbook.warnings = joinUnquoted(*rows);
  Sheet sheet;
  for (CsvRow& row : *rows) {
    sheet.rows.emplace_back();
    for (std::size_t c = 0; c < row.cells.size(); ++c) {
      if (row.cells[c].empty()) continue;
      SheetCell cell;
      cell.row = row.line - 1;
      cell.column = static_cast<int>(c);
      cell.text = std::move(row.cells[c]);
      sheet.add(std::move(cell));
    }
  }
  if (sheet.rows.empty()) return fail(ErrorKind::BadInput, "the table is empty", name);
  workbook.sheets.push_back(std::move(sheet));
  return workbook;
}

}  // namespace zl::exchange
