#pragma once
// Sheets of cells from workbooks and plain tables.

#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/error.h"
#include "core/table/sheet.h"
#include "exchange/content.h"
#include "exchange/stop_check.h"

namespace zl::exchange {

struct Workbook {
  std::vector<Sheet> sheets;
  std::vector<std::string> warnings;
};

/// What is read of one workbook at most; larger ones are refused.
inline constexpr std::size_t kMostCells = 5'000'000;
inline constexpr std::size_t kLongestCell = 65'536;

/// Office Open XML workbooks (ISO/IEC 29500, "XLSX"): stored values only; formulas are not
/// evaluated, and a formula without a stored value is an empty cell and a warning. Dates are told
/// by the cell's number format. What is hidden (sheets, rows, columns) is left out with a warning; a
/// workbook that hides all its sheets is read as if it hid none.
Result<Workbook> readXlsx(std::string_view content, const std::string& name, const StopCheck& stopped = {});

/// OpenDocument spreadsheets (ISO/IEC 26300, "ODS"): stored values only; what is hidden is left out likewise.
Result<Workbook> readOds(std::string_view content, const std::string& name, const StopCheck& stopped = {});

/// Tables of a saved web page (HTML), one sheet each, what lies within another table apart. Figures stand under the
/// heading that spans them. Rows, columns and tables that are not displayed are left out with a warning. No script is
/// run and nothing is fetched.
Result<Workbook> readWebTables(std::string_view content, const std::string& name, const StopCheck& stopped = {});

/// Comma, semicolon or tab separated text, UTF-8: CSV files and cells pasted from other programs.
/// Every cell is text.
Result<Workbook> readDelimited(std::string_view content, const std::string& name, const StopCheck& stopped = {});

/// The tables of a file of any of these kinds, with currency signs and brackets that have cells of their own at their
/// figures (core/table/gathered.h). Other kinds are read as delimited text.
Result<Workbook> readTables(std::string_view content, ContentKind kind, const std::string& name,
                            const StopCheck& stopped = {});

}  // namespace zl::exchange
