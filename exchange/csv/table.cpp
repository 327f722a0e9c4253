#include "exchange/csv/table.h"

#include <algorithm>

namespace zl::exchange {
namespace {

void trim(std::string& s) {
  const std::size_t last = s.find_last_not_of(" \t\r");
  s.resize(last == std::string::npos ? 0 : last + 1);
  s.erase(0, std::min(s.find_first_not_of(" \t"), s.size()));
}

}  // namespace

Result<CsvTable> CsvTable::read(std::string_view content, const std::string& source, const StopCheck& stopped) {
  const auto bad = [&](const std::string& what, int line) {
    return fail(ErrorKind::BadInput, what, source + ", line " + std::to_string(line),
                "The layouts are described in docs/formats/csv.md");
  };
  const std::string_view header = content.substr(0, content.find('\n'));
  const bool semicolons = std::count(header.begin(), header.end(), ';') > std::count(header.begin(), header.end(), ',');
  Result<std::vector<CsvRow>> read = readCsvRows(content, semicolons ? ';' : ',', source, stopped);
  if (!read) return tl::unexpected(read.error());
  if (read->empty()) return bad("there is no header row", 1);

  CsvTable table;
  table.source_ = source;
  std::vector<CsvRow>& rows = *read;
  const std::size_t width = rows.front().cells.size();
  for (std::size_t i = 0; i < width; ++i) {
    std::string& name = rows.front().cells[i];
    trim(name);
    if (!name.empty() && !table.columns_.emplace(name, static_cast<int>(i)).second) {
      return bad("two columns are called '" + name + "'", rows.front().line);
    }
  }
  for (std::size_t r = 1; r < rows.size(); ++r) {
    for (std::string& cell : rows[r].cells) trim(cell);
  }
  rows.erase(rows.begin());
  table.width_ = width;
  table.rows_ = std::move(rows);
  return table;
}

Status CsvTable::check(const CsvRow& row) const {
  if (row.cells.size() <= width_) return {};
  return fail(ErrorKind::BadInput,
              "the row has " + std::to_string(row.cells.size()) + " cells, the header " + std::to_string(width_),
              where(row));
}

std::vector<std::string> CsvTable::headers() const {
  std::vector<std::string> all;
  for (const auto& [header, column] : columns_) all.push_back(header);
  return all;
}

int CsvTable::column(const std::string& header) const {
  const auto found = columns_.find(header);
  return found == columns_.end() ? -1 : found->second;
}

const std::string& CsvTable::cell(const CsvRow& row, const std::string& header) const {
  static const std::string kEmpty;
  const int index = column(header);
  if (index < 0 || index >= static_cast<int>(row.cells.size())) return kEmpty;
  return row.cells[static_cast<std::size_t>(index)];
}

std::string CsvTable::where(const CsvRow& row) const {
  return source_ + ", line " + std::to_string(row.line);
}

Status CsvTable::require(const std::vector<std::string>& headers) const {
  for (const std::string& header : headers) {
    if (column(header) < 0) {
      return fail(ErrorKind::BadInput, "the column '" + header + "' is missing", source_ + ", line 1",
                  "The layouts are described in docs/formats/csv.md");
    }
  }
  return {};
}

}  // namespace zl::exchange
