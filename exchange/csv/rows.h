#pragma once
// Delimited text (RFC 4180) to rows of cells, within stated bounds.

#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/error.h"
#include "exchange/stop_check.h"

namespace zl::exchange {

struct CsvRow {
  int line = 0;  ///< line of the file on which the row ends, for messages
  std::vector<std::string> cells;
};

/// Comma, semicolon or tab, by what most of the first lines hold.
char delimiterOf(std::string_view content);

/// Rows that are not blank. Refuses quoting faults, text that is not UTF-8, cells over 64 KiB and
/// rows over 4,096 columns, with the line.
Result<std::vector<CsvRow>> readCsvRows(std::string_view content, char delimiter, const std::string& source,
                                        const StopCheck& stopped = {});

}  // namespace zl::exchange
