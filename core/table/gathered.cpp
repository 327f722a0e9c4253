#include "core/table/gathered.h"

#include <algorithm>
#include <array>
#include <limits>
#include <map>
#include <optional>
#include <set>
#include <utility>
#include <vector>

#include "core/filing/labels.h"
#include "core/table/displayed.h"

namespace zl {
namespace {

template <size_t N>
bool isOneOf(std::string_view text, const std::array<std::string_view, N>& list) {
  return std::find(list.begin(), list.end(), text) != list.end();
}

/// Whether a text can be no more than the part of a figure that stands before or after its digits.
bool isMarkBefore(std::string_view text) {
  static constexpr std::array<std::string_view, 22> kMarks = {"$",   "€",   "£",    "¥",    "(",   "$(",  "€(", "£(",
                                                              "¥(",  "US$", "USD",  "EUR",  "GBP", "CHF", "C$", "A$",
                                                              "HK$", "JPY", "US$(", "CHF(", "p",   "c"};
  return isOneOf(text, kMarks);
}

bool isMarkAfter(std::string_view text) {
  static constexpr std::array<std::string_view, 8> kMarks = {")", "%", ")%", "p", "€", "EUR", "€)", "x"};
  return isOneOf(text, kMarks);
}

/// "1,234", "(350", "-", "n/a": what a mark may stand beside.
bool looksLikeFigure(std::string_view text) {
  if (saysNothing(text)) return true;
  for (const std::string_view sign : {"(", "-", "+", "\xE2\x88\x92", "\xE2\x80\x93", "$", "€", "£", "¥"}) {
    while (text.substr(0, sign.size()) == sign) text.remove_prefix(sign.size());
  }
  return !text.empty() && (text.front() == '.' || (text.front() >= '0' && text.front() <= '9'));
}

/// A row as it is put together: cells with their positions, and the position of the mark that each took up.
struct JoinedRow {
  SheetRow row;
  std::vector<std::optional<int>> markAt;
};

/// Columns that are headed as those of currencies or units: what stands in them is no part of a figure beside it.
std::set<int> unitColumns(const Sheet& sheet) {
  static const std::array kHeads = {"currency", "reporting currency", "price currency", "price unit", "unit",
                                    "quoted",   "listing currency",   "w\u00E4hrung",   "devise",     "moneda",
                                    "valuta"};
  std::set<int> columns;
  for (size_t r = 0; r < sheet.rows.size() && r < static_cast<size_t>(kHeaderDepth); ++r) {
    for (size_t i = 0; i < sheet.rows[r].cells.size(); ++i) {
      const std::string label = normalisedLabel(sheet.rows[r].cells[i].text);
      if (std::find(kHeads.begin(), kHeads.end(), label) != kHeads.end()) columns.insert(sheet.rows[r].columns[i]);
    }
  }
  return columns;
}

/// A mark in the column of the labels names the table's currency and belongs to no figure: "USD;2025;2024". Nor does
/// one in a column of units.
JoinedRow joined(SheetRow&& given, int labels, const std::set<int>& units) {
  JoinedRow out;
  const auto put = [&](SheetCell&& cell, int at, std::optional<int> mark) {
    out.row.cells.push_back(std::move(cell));
    out.row.columns.push_back(at);
    out.markAt.push_back(mark);
  };
  for (size_t i = 0; i < given.cells.size(); ++i) {
    SheetCell& cell = given.cells[i];
    const bool text = cell.kind == SheetCell::Kind::Text && units.count(given.columns[i]) == 0;
    if (text && given.columns[i] > labels && isMarkBefore(cell.text) && i + 1 < given.cells.size() &&
        given.cells[i + 1].kind != SheetCell::Kind::Day && looksLikeFigure(given.cells[i + 1].text)) {
      SheetCell& figure = given.cells[i + 1];
      const bool opens = cell.text.back() == '(';
      if (figure.kind == SheetCell::Kind::Text || opens) {
        if (figure.text.front() != '(' || !opens) figure.text.insert(0, cell.text);
        figure.kind = SheetCell::Kind::Text;
      }
      put(std::move(figure), given.columns[i + 1], given.columns[i]);
      ++i;
    } else if (text && isMarkAfter(cell.text) && !out.row.cells.empty() &&
               out.row.cells.back().kind == SheetCell::Kind::Text && looksLikeFigure(out.row.cells.back().text)) {
      out.row.cells.back().text += cell.text;
    } else {
      put(std::move(cell), given.columns[i], std::nullopt);
    }
  }
  return out;
}

constexpr size_t kLongestHeading = 80;

bool isHeading(const SheetCell& cell) {
  if (cell.text.size() > kLongestHeading) return false;
  return cell.kind == SheetCell::Kind::Day || periodHeading(cell.text).has_value();
}

/// As many headings as columns of figures that nothing else is written over, elsewhere: each stands over the column of
/// its place in the order. Pages lay figures out in more columns than their headings, and a pasted first row may lack
/// the cell over the labels. Where the headings stand then; empty where they stay.
std::set<int> standOver(SheetRow& headings, std::set<int> figures) {
  std::vector<int> periods;
  for (size_t i = 0; i < headings.cells.size(); ++i) {
    if (isHeading(headings.cells[i])) {
      periods.push_back(headings.columns[i]);
    } else {
      figures.erase(headings.columns[i]);
    }
  }
  if (figures.size() != periods.size()) return {};
  // Where each has its figures before the next heading, it is plain whose they are.
  bool plain = true;
  size_t next = 0;
  for (const int at : figures) {
    plain = plain && periods[next] <= at && (next + 1 == periods.size() || at < periods[next + 1]);
    ++next;
  }
  if (plain) return {};
  std::map<int, SheetCell> row;
  auto over = figures.begin();
  for (size_t i = 0; i < headings.cells.size(); ++i) {
    const int at = isHeading(headings.cells[i]) ? *over++ : headings.columns[i];
    row.emplace(at, std::move(headings.cells[i]));
  }
  headings = {};
  for (auto& [at, cell] : row) {
    headings.columns.push_back(at);
    headings.cells.push_back(std::move(cell));
  }
  return figures;
}

}  // namespace

Sheet gathered(Sheet sheet) {
  int labels = std::numeric_limits<int>::max();
  for (const SheetRow& row : sheet.rows) {
    if (!row.columns.empty()) labels = std::min(labels, row.columns.front());
  }
  const std::set<int> units = unitColumns(sheet);
  std::vector<JoinedRow> rows;
  std::vector<int> headings;
  size_t headingRow = 0;
  for (size_t r = 0; r < sheet.rows.size(); ++r) {
    rows.push_back(joined(std::move(sheet.rows[r]), labels, units));
    if (r >= static_cast<size_t>(kHeaderDepth)) continue;
    const SheetRow& row = rows.back().row;
    std::vector<int> found;
    for (size_t i = 0; i < row.cells.size(); ++i) {
      if (isHeading(row.cells[i])) found.push_back(row.columns[i]);
    }
    // Plain numbers may look like years: the first row with as many as any other it is.
    if (found.size() > headings.size()) {
      headings = std::move(found);
      headingRow = r;
    }
  }
  std::set<int> at(headings.begin(), headings.end());
  // Headings that have figures of their own beneath them keep what stands beside for itself.
  std::set<int> own;
  for (size_t r = headingRow + 1; r < rows.size(); ++r) {
    for (size_t i = 0; i < rows[r].row.cells.size(); ++i) {
      const SheetCell& cell = rows[r].row.cells[i];
      if (cell.kind == SheetCell::Kind::Number || looksLikeFigure(cell.text)) own.insert(rows[r].row.columns[i]);
    }
  }
  if (std::set<int> over = standOver(rows[headingRow].row, own); !over.empty()) at = std::move(over);
  for (size_t r = 0; r < rows.size(); ++r) {
    SheetRow& row = rows[r].row;
    for (size_t i = 0; i < row.cells.size(); ++i) {
      const int before = i == 0 ? -1 : row.columns[i - 1];
      const std::optional<int> mark = rows[r].markAt[i];
      if (r > headingRow && at.count(row.columns[i]) == 0) {
        if (mark && at.count(*mark) > 0) {
          row.columns[i] = *mark;
        } else if (looksLikeFigure(row.cells[i].text)) {
          const auto next = at.upper_bound(row.columns[i]);
          const bool over = next != at.begin() && own.count(*std::prev(next)) == 0 && *std::prev(next) > before;
          if (over) row.columns[i] = *std::prev(next);
        }
      }
    }
    sheet.rows[r] = std::move(row);
  }
  return sheet;
}

}  // namespace zl
