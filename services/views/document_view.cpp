#include "services/views/document_view.h"

#include <algorithm>
#include <charconv>
#include <string_view>

#include "exchange/content.h"
#include "exchange/workbook/workbook.h"

namespace zl::services {
namespace {

/// The number behind a word: "line 12" -> 12; -1 when it is not there.
int numberAfter(const std::string& place, std::string_view word) {
  const size_t at = place.find(word);
  if (at == std::string::npos) return -1;
  int number = -1;
  const char* from = place.data() + at + word.size();
  std::from_chars(from, place.data() + place.size(), number);
  return number;
}

/// What stands between quotes behind a word: "fact 'f7'" -> f7.
std::string quotedAfter(const std::string& place, std::string_view word) {
  const size_t at = place.find(word);
  if (at == std::string::npos) return {};
  const size_t from = at + word.size();
  const size_t to = place.find('\'', from);
  return to == std::string::npos ? std::string() : place.substr(from, to - from);
}

std::vector<std::string> linesOf(std::string_view text) {
  std::vector<std::string> lines;
  while (!text.empty()) {
    const size_t end = text.find('\n');
    std::string_view line = text.substr(0, end);
    if (!line.empty() && line.back() == '\r') line.remove_suffix(1);
    lines.emplace_back(line.substr(0, 4000));  // a document without line ends is one line
    text = end == std::string_view::npos ? std::string_view{} : text.substr(end + 1);
  }
  return lines;
}

DocumentView around(std::vector<std::string> lines, int marked) {
  DocumentView view;
  const int count = static_cast<int>(lines.size());
  if (marked >= count) marked = -1;
  const int from = std::clamp(marked - kMostLinesShown / 2, 0, std::max(0, count - kMostLinesShown));
  const int to = std::min(count, from + kMostLinesShown);
  view.firstLine = from + 1;
  view.marked = marked < 0 ? -1 : marked - from;
  view.left_out = count - (to - from);
  view.lines.assign(std::make_move_iterator(lines.begin() + from), std::make_move_iterator(lines.begin() + to));
  return view;
}

DocumentView viewOfWorkbook(const exchange::Workbook& book, const std::string& place) {
  std::vector<std::string> lines;
  int marked = -1;
  for (const Sheet& sheet : book.sheets) {
    if (!sheet.name.empty()) lines.push_back("[" + sheet.name + "]");
    for (const SheetRow& row : sheet.rows) {
      std::string line;
      for (const SheetCell& cell : row.cells) {
        if (cellPlace(sheet, cell) == place) marked = static_cast<int>(lines.size());
        line += (line.empty() ? "" : "\t") + cell.text;
      }
      lines.push_back(std::move(line));
    }
  }
  return around(std::move(lines), marked);
}

}  // namespace

Result<DocumentView> viewDocument(const std::string& content, const std::string& name, const std::string& place) {
  const Result<exchange::ContentKind> kind = exchange::recognise(content, name);
  if (!kind) return tl::unexpected(kind.error());
  using Kind = exchange::ContentKind;
  if (*kind == Kind::Workbook || *kind == Kind::OpenSheet || *kind == Kind::WebPage ||
      (*kind == Kind::PlainTable && place.find("line ") == std::string::npos)) {
    const Result<exchange::Workbook> book = exchange::readTables(content, *kind, name);
    if (!book) return tl::unexpected(book.error());
    return viewOfWorkbook(*book, place);
  }
  std::vector<std::string> lines = linesOf(content);
  int marked = numberAfter(place, "line ") - 1;
  if (const std::string id = quotedAfter(place, "fact '"); marked < 0 && !id.empty()) {
    const std::string key = "\"" + id + "\"";
    const auto found = std::find_if(lines.begin(), lines.end(),
                                    [&](const std::string& line) { return line.find(key) != std::string::npos; });
    if (found != lines.end()) marked = static_cast<int>(found - lines.begin());
  }
  return around(std::move(lines), marked);
}

}  // namespace zl::services
