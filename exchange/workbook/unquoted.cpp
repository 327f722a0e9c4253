#include "exchange/workbook/unquoted.h"

#include <algorithm>
#include <cctype>
#include <map>
#include <optional>
#include <string>
#include <utility>

#include "core/table/displayed.h"
#include "core/table/sheet.h"
#include "exchange/workbook/parted_figures.h"

namespace zl::exchange {
namespace {

using Cells = std::vector<std::string>;

/// How a table is laid out: cells of a full row, and those before its figures.
struct Layout {
  size_t headings = 0;  ///< the row of the periods
  size_t width = 0;
  size_t words = 0;  ///< where known
  bool periods = false;
};

size_t filled(const Cells& cells) {
  size_t count = cells.size();
  while (count > 0 && cells[count - 1].empty()) --count;
  return count;
}

bool readsAsWords(const std::string& cell) {
  return !displayedNumber(cell, '.') && !saysNothing(cell) &&
         std::any_of(cell.begin(), cell.end(), [](unsigned char c) { return std::isalpha(c) != 0 || c > 0x7f; });
}

size_t leadingWords(const Cells& cells) {
  return static_cast<size_t>(std::find_if_not(cells.begin(), cells.end(), readsAsWords) - cells.begin());
}

/// Of rows that are as wide as they should be: the cells before their figures; 0 where no row tells.
size_t wordsOfMost(const std::vector<CsvRow>& rows, size_t width) {
  std::map<size_t, size_t> counts;
  for (const CsvRow& row : rows) {
    const size_t words = leadingWords(row.cells);
    if (filled(row.cells) == width && words > 0 && words < width) ++counts[words];
  }
  const auto most =
      std::max_element(counts.begin(), counts.end(), [](const auto& a, const auto& b) { return a.second < b.second; });
  return most == counts.end() ? 0 : most->first;
}

/// Where no other row is as wide as the headings, the comma before them is one of a title: "Harl Ltd, USD m,2025,2024".
Layout headedBy(const std::vector<CsvRow>& rows, Layout layout) {
  const bool alone = std::none_of(rows.begin() + static_cast<std::ptrdiff_t>(layout.headings) + 1, rows.end(),
                                  [&](const CsvRow& row) { return filled(row.cells) == layout.width; });
  if (alone) layout = {layout.headings, layout.width - (layout.words - 1), 1, true};
  return layout;
}

Layout layoutOf(const std::vector<CsvRow>& rows) {
  std::map<size_t, size_t> counts;
  size_t headings = 0;  // of the first row that is nothing but words
  for (size_t r = 0; r < rows.size(); ++r) {
    const Cells& cells = rows[r].cells;
    const size_t width = filled(cells);
    if (width > 1) ++counts[width];
    if (r >= static_cast<size_t>(kHeaderDepth)) continue;
    const auto end = cells.begin() + static_cast<std::ptrdiff_t>(width);
    if (headings == 0 && width >= 3 && std::all_of(cells.begin(), end, readsAsWords)) headings = width;
    size_t periods = 0, first = 0;
    for (size_t c = width; c-- > 0;) {
      if (!periodHeading(cells[c])) continue;
      ++periods;
      first = c;
    }
    if (periods >= 2 && first > 0) return headedBy(rows, {r, width, first, true});
  }
  if (headings > 0) return {0, headings, wordsOfMost(rows, headings), false};
  const auto most =
      std::max_element(counts.begin(), counts.end(), [](const auto& a, const auto& b) { return a.second < b.second; });
  return most == counts.end() ? Layout{} : Layout{0, most->first, wordsOfMost(rows, most->first), false};
}

void join(Cells& cells, size_t from, size_t count, const char* between) {
  std::string all = cells[from];
  for (size_t c = from + 1; c < from + count; ++c) all += between + cells[c];
  cells[from] = std::move(all);
  cells.erase(cells.begin() + static_cast<std::ptrdiff_t>(from + 1),
              cells.begin() + static_cast<std::ptrdiff_t>(from + count));
}

bool joinLabel(Cells& cells, const Layout& layout) {
  const size_t width = filled(cells);
  if (width <= layout.width) return false;
  const size_t words = leadingWords(cells);
  size_t extra = width - layout.width;
  // Figures are parted, too: the label is what leaves one cell to each column of words.
  const bool heading = layout.periods && words < width && periodHeading(cells[words]);
  if (layout.periods && !heading && extra >= words) extra = words > layout.words ? words - layout.words : 0;
  if (extra == 0 || extra >= words) return false;
  join(cells, 0, extra + 1, ", ");
  return true;
}

/// Whether a row has a figure, or nothing, in each column and no cell more.
bool isFull(const Cells& cells, const Layout& layout) {
  if (filled(cells) != layout.width) return false;
  return std::all_of(cells.begin() + static_cast<std::ptrdiff_t>(layout.words),
                     cells.begin() + static_cast<std::ptrdiff_t>(layout.width),
                     [](const std::string& cell) { return isFigureOrPiece(cell); });
}

/// Of rows that are too long, the sizes of their figures; empty sizes where no way is plain. Rows that cannot be read
/// so stay as they are. Where no row is as long as it should be, nothing, unless all can be read so, most plainly, and
/// enough to tell: else the table has columns without a heading.
std::map<size_t, std::vector<size_t>> figuresOf(const std::vector<CsvRow>& rows, size_t from, const Layout& layout) {
  constexpr size_t kFewest = 3;
  std::map<size_t, std::vector<size_t>> read;
  size_t sure = 0, longest = 0;
  bool full = false, others = false;
  const size_t figures = layout.width - layout.words;
  for (size_t r = from; r < rows.size(); ++r) {
    const size_t width = filled(rows[r].cells);
    full = full || isFull(rows[r].cells, layout);
    if (width <= layout.width) continue;
    Cells cells(rows[r].cells.begin(), rows[r].cells.begin() + static_cast<std::ptrdiff_t>(width));
    const bool pieces =
        std::all_of(cells.begin() + static_cast<std::ptrdiff_t>(layout.words), cells.end(), isFigureOrPiece);
    const std::optional<PartedFigures> ways =
        pieces ? std::optional<PartedFigures>(std::in_place, cells, layout.words, figures) : std::nullopt;
    if (!ways || !ways->any()) {
      others = true;
      continue;
    }
    std::optional<std::vector<size_t>> sizes = ways->plain();
    sure += sizes ? 1 : 0;
    longest = std::max(longest, width);
    read[r] = std::move(sizes).value_or(std::vector<size_t>());
  }
  const bool column = figures > 1 && longest == layout.width + 1;
  if (!full && (others || column || read.size() < kFewest || 2 * sure < read.size())) read.clear();
  return read;
}

/// Whether cells that are too many, beyond those of a longer label, may go on with the figure before them.
bool mayHoldThousands(const Cells& cells, const Layout& layout) {
  size_t width = filled(cells);
  while (width > layout.width && readsAsWords(cells[width - 1])) --width;  // a remark
  if (width <= layout.width) return false;
  const size_t words = leadingWords(cells);
  size_t extra = width - layout.width;
  if (layout.words > 0) {
    extra -= std::min(extra, words > layout.words ? words - layout.words : 0);
  } else {
    extra = std::max<size_t>(1, extra - std::min(extra, words > 0 ? words - 1 : 0));
  }
  size_t going = 0;
  for (size_t c = layout.words + 1; c < width; ++c) going += goesOn(cells[c - 1], cells[c]) ? 1 : 0;
  return extra > 0 && going >= extra;
}

}  // namespace

std::vector<std::string> joinUnquoted(std::vector<CsvRow>& rows) {
  std::vector<std::string> told;
  const Layout layout = layoutOf(rows);
  if (layout.width < 2) return told;
  const auto tell = [&](const std::vector<const CsvRow*>& which, const std::string& what) {
    if (which.empty()) return;
    const std::string more = which.size() > 1 ? " and " + std::to_string(which.size() - 1) + " more" : "";
    told.push_back("line " + std::to_string(which.front()->line) + " ('" + which.front()->cells.front() + "')" + more +
                   ": commas stand outside quotation marks; " + what);
  };
  std::vector<const CsvRow*> labels, figures, unsure;
  const auto leaveUnread = [&](CsvRow& row) {
    row.cells.resize(filled(row.cells));
    join(row.cells, 1, row.cells.size() - 1, " , ");
    unsure.push_back(&row);
  };
  for (CsvRow& row : rows) {
    if (!layout.periods && mayHoldThousands(row.cells, layout)) {
      leaveUnread(row);
    } else if (joinLabel(row.cells, layout)) {
      labels.push_back(&row);
    }
  }
  if (layout.periods) {
    for (const auto& [r, sizes] : figuresOf(rows, layout.headings + 1, layout)) {
      if (sizes.empty()) {
        leaveUnread(rows[r]);
        continue;
      }
      for (size_t i = 0; i < sizes.size(); ++i) join(rows[r].cells, layout.words + i, sizes[i], ",");
      figures.push_back(&rows[r]);
    }
  }
  tell(labels, "what they part is read as one label");
  tell(figures, "they are read as parting thousands");
  tell(unsure, "its figures can be parted in several ways and are not read: put them in quotation marks");
  return told;
}

}  // namespace zl::exchange
