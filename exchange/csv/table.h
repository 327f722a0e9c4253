#pragma once
// CSV text with a header line: cells by the names of their columns.

#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/error.h"
#include "exchange/csv/rows.h"

namespace zl::exchange {

class CsvTable {
 public:
  /// Comma or semicolon separated (judged by the header line), UTF-8. Refuses quoting faults, text
  /// that is not UTF-8, cells over 64 KiB, over 4,096 columns. A row with fewer cells has empty ones.
  static Result<CsvTable> read(std::string_view content, const std::string& source, const StopCheck& stopped = {});

  [[nodiscard]] const std::vector<CsvRow>& rows() const { return rows_; }
  [[nodiscard]] std::vector<std::string> headers() const;  ///< by their letters
  /// Index of a column by its header, -1 when there is none.
  [[nodiscard]] int column(const std::string& header) const;
  /// The cell, trimmed; empty where the column does not exist or the row is short.
  [[nodiscard]] const std::string& cell(const CsvRow& row, const std::string& header) const;
  [[nodiscard]] std::string where(const CsvRow& row) const;
  /// Fails where the row has more cells than the header: nobody knows which is which.
  [[nodiscard]] Status check(const CsvRow& row) const;
  /// Fails with one message naming the first header that is missing.
  [[nodiscard]] Status require(const std::vector<std::string>& headers) const;

 private:
  std::string source_;
  std::map<std::string, int> columns_;
  std::size_t width_ = 0;  ///< of the header
  std::vector<CsvRow> rows_;
};

}  // namespace zl::exchange
