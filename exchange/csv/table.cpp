#include "exchange/csv/table.h"

#include <csv.h>

#include <algorithm>
#include <memory>

#include "exchange/content.h"

namespace zl::exchange {
namespace {

constexpr std::size_t kLargestCell = 65536;
constexpr std::size_t kMostColumns = 4096;

struct Collector {
  std::string_view content;
  std::vector<CsvRow> rows;
  CsvRow current;
  std::string fault;
  int line = 1;

  static void onCell(void* text, std::size_t size, void* self) {
    auto& c = *static_cast<Collector*>(self);
    if (!c.fault.empty()) return;
    if (size > kLargestCell) {
      c.fault = "a cell holds " + std::to_string(size) + " bytes; 65,536 is the limit";
    } else if (c.current.cells.size() >= kMostColumns) {
      c.fault = "a row has more than 4,096 columns";
    } else {
      const char* first = static_cast<const char*>(text);
      c.current.cells.emplace_back(first == nullptr ? "" : first, first == nullptr ? 0 : size);
    }
  }

  static void onRow(int, void* self) {
    auto& c = *static_cast<Collector*>(self);
    c.current.line = c.line;
    const bool blank =
        std::all_of(c.current.cells.begin(), c.current.cells.end(), [](const std::string& s) { return s.empty(); });
    if (!blank) c.rows.push_back(std::move(c.current));
    c.current = {};
  }
};

struct FreeParser {
  void operator()(csv_parser* p) const { csv_free(p); }
};

void trim(std::string& s) {
  const std::size_t last = s.find_last_not_of(" \t\r");
  s.resize(last == std::string::npos ? 0 : last + 1);
  s.erase(0, std::min(s.find_first_not_of(" \t"), s.size()));
}

}  // namespace

Result<CsvTable> CsvTable::read(std::string_view content, const std::string& source) {
  if (content.substr(0, 3) == "\xEF\xBB\xBF") content.remove_prefix(3);
  const auto bad = [&](const std::string& what, int line) {
    return fail(ErrorKind::BadInput, what, source + ", line " + std::to_string(line),
                "The layouts are described in docs/formats/csv.md");
  };
  if (const std::size_t at = firstBadUtf8(content); at != std::string_view::npos) {
    const auto line = std::count(content.begin(), content.begin() + static_cast<std::ptrdiff_t>(at), '\n');
    return bad("the text is not UTF-8", static_cast<int>(line) + 1);
  }
  csv_parser raw{};
  if (csv_init(&raw, CSV_STRICT | CSV_STRICT_FINI | CSV_REPALL_NL) != 0) {
    return fail(ErrorKind::Internal, "the CSV reader could not start", source);
  }
  const std::unique_ptr<csv_parser, FreeParser> parser(&raw);
  const std::string_view header = content.substr(0, content.find('\n'));
  if (std::count(header.begin(), header.end(), ';') > std::count(header.begin(), header.end(), ',')) {
    csv_set_delim(parser.get(), ';');
  }
  Collector collector;
  // Fed line by line so that every row and every fault knows its line.
  std::string_view rest = content;
  while (!rest.empty() && collector.fault.empty()) {
    const std::size_t newline = rest.find('\n');
    const std::string_view line = rest.substr(0, newline == std::string_view::npos ? rest.size() : newline + 1);
    const std::size_t read =
        csv_parse(parser.get(), line.data(), line.size(), Collector::onCell, Collector::onRow, &collector);
    if (read != line.size()) return bad("a quotation mark stands inside a cell that is not quoted", collector.line);
    if (!collector.fault.empty()) break;
    ++collector.line;
    rest.remove_prefix(line.size());
  }
  if (collector.fault.empty()) {
    if (csv_fini(parser.get(), Collector::onCell, Collector::onRow, &collector) != 0) {
      return bad("a quoted cell is never closed", collector.line);
    }
  }
  if (!collector.fault.empty()) return bad(collector.fault, collector.line);
  if (collector.rows.empty()) return bad("there is no header row", 1);

  CsvTable table;
  table.source_ = source;
  std::vector<CsvRow>& rows = collector.rows;
  const std::size_t width = rows.front().cells.size();
  for (std::size_t i = 0; i < width; ++i) {
    std::string& name = rows.front().cells[i];
    trim(name);
    if (!name.empty() && !table.columns_.emplace(name, static_cast<int>(i)).second) {
      return bad("two columns are called '" + name + "'", rows.front().line);
    }
  }
  for (std::size_t r = 1; r < rows.size(); ++r) {
    if (rows[r].cells.size() > width) {
      return bad("the row has " + std::to_string(rows[r].cells.size()) + " cells, the header " + std::to_string(width),
                 rows[r].line);
    }
    for (std::string& cell : rows[r].cells) trim(cell);
  }
  rows.erase(rows.begin());
  table.rows_ = std::move(rows);
  return table;
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
