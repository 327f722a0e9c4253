#include "exchange/csv/rows.h"

#include <csv.h>

#include <algorithm>
#include <array>
#include <memory>

#include "core/text/utf8.h"

namespace zl::exchange {
namespace {

constexpr std::size_t kLargestCell = 65536;
constexpr std::size_t kMostColumns = 4096;
constexpr std::size_t kBufferSteps = 4096;
constexpr int kLinesBetween = 4096;  ///< two looks at whether the reading is wanted
constexpr const char* kTooLarge = "a cell holds too many bytes; 65,536 is the limit";

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
      c.fault = kTooLarge;
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

}  // namespace

char delimiterOf(std::string_view content) {
  constexpr int kLines = 20;
  std::array<int, 3> lines{};
  static constexpr std::array<char, 3> kDelimiters = {'\t', ';', ','};
  int seen = 0;
  while (!content.empty() && seen < kLines) {
    const std::size_t newline = content.find('\n');
    const std::string_view line = content.substr(0, newline);
    content.remove_prefix(newline == std::string_view::npos ? content.size() : newline + 1);
    if (line.empty() || line == "\r") continue;
    ++seen;
    for (std::size_t d = 0; d < kDelimiters.size(); ++d)
      lines[d] += line.find(kDelimiters[d]) != std::string_view::npos ? 1 : 0;
  }
  // A figure may hold a comma, hardly ever a tab or a semicolon.
  if (2 * lines[0] >= seen && lines[0] > 0) return '\t';
  if (2 * lines[1] >= seen && lines[1] > 0) return ';';
  return ',';
}

Result<std::vector<CsvRow>> readCsvRows(std::string_view content, char delimiter, const std::string& source,
                                        const StopCheck& stopped) {
  if (content.substr(0, 3) == "\xEF\xBB\xBF") content.remove_prefix(3);
  const auto bad = [&](const std::string& what, int line) {
    return fail(ErrorKind::BadInput, what, source + ", line " + std::to_string(line), "Correct the text there");
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
  csv_set_delim(parser.get(), static_cast<unsigned char>(delimiter));
  csv_set_blk_size(parser.get(), kBufferSteps);
  Collector collector;
  // Fed line by line so that every row and every fault knows its line.
  std::string_view rest = content;
  while (!rest.empty() && collector.fault.empty()) {
    const std::size_t newline = rest.find('\n');
    const std::string_view line = rest.substr(0, newline == std::string_view::npos ? rest.size() : newline + 1);
    // In pieces, so that a cell without end is refused before it is held.
    for (std::size_t at = 0; at < line.size() && collector.fault.empty(); at += kLargestCell) {
      const std::string_view piece = line.substr(at, kLargestCell);
      const std::size_t read =
          csv_parse(parser.get(), piece.data(), piece.size(), Collector::onCell, Collector::onRow, &collector);
      if (read != piece.size()) return bad("a quotation mark stands inside a cell that is not quoted", collector.line);
      if (parser->entry_pos > kLargestCell) collector.fault = kTooLarge;
    }
    if (!collector.fault.empty()) break;
    ++collector.line;
    if (collector.line % kLinesBetween == 0 && stopped()) {
      return fail(ErrorKind::Cancelled, "reading was stopped; nothing is stored", source);
    }
    rest.remove_prefix(line.size());
  }
  if (collector.fault.empty()) {
    if (csv_fini(parser.get(), Collector::onCell, Collector::onRow, &collector) != 0) {
      return bad("a quoted cell is never closed", collector.line);
    }
  }
  if (!collector.fault.empty()) return bad(collector.fault, collector.line);
  return std::move(collector.rows);
}

}  // namespace zl::exchange
