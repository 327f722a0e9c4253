#include <libxml/HTMLparser.h>

#include <algorithm>
#include <map>
#include <memory>
#include <set>

#include "core/table/displayed.h"
#include "exchange/workbook/workbook.h"

namespace zl::exchange {
namespace {

constexpr int kMostTableColumns = 2000;
constexpr int kWidest = 200;  ///< columns that one cell may span
constexpr int kDeepest = 400;
constexpr size_t kLongestTitle = 160;  ///< longer words before a table are prose
constexpr size_t kMostTitles = 4;

std::string_view nameOf(const xmlNode* node) {
  return node->type == XML_ELEMENT_NODE ? std::string_view(reinterpret_cast<const char*>(node->name)) : "";
}

std::string attribute(const xmlNode* node, const char* name) {
  xmlChar* value = xmlGetProp(const_cast<xmlNode*>(node), reinterpret_cast<const xmlChar*>(name));
  if (value == nullptr) return {};
  std::string text(reinterpret_cast<const char*>(value));
  xmlFree(value);
  return text;
}

bool isHidden(const xmlNode* node) {
  std::string style = attribute(node, "style");
  std::erase(style, ' ');
  return style.find("display:none") != std::string::npos ||
         xmlHasProp(const_cast<xmlNode*>(node), reinterpret_cast<const xmlChar*>("hidden")) != nullptr;
}

/// Words of a cell with single spaces; footnote marks in raised print are left out.
void wordsOf(const xmlNode* node, std::string& out, int depth) {
  for (const xmlNode* child = node->children; child != nullptr && depth < kDeepest; child = child->next) {
    if (child->type == XML_TEXT_NODE) {
      out += reinterpret_cast<const char*>(child->content);
    } else if (child->type == XML_ELEMENT_NODE && nameOf(child) != "script" && nameOf(child) != "style" &&
               nameOf(child) != "sup" && nameOf(child) != "table" && !isHidden(child)) {
      if (nameOf(child) == "br") out += ' ';
      wordsOf(child, out, depth + 1);
    }
    if (out.size() > kLongestCell) return;
  }
}

/// Single spaces, none at the ends.
std::string trimmedText(std::string_view raw) {
  std::string text;
  for (size_t i = 0; i < raw.size(); ++i) {
    const bool hard = raw.substr(i, 2) == "\xC2\xA0";
    const bool space = hard || raw[i] == ' ' || raw[i] == '\t' || raw[i] == '\n' || raw[i] == '\r';
    if (!space) text += raw[i];
    if (space && !text.empty() && text.back() != ' ') text += ' ';
    if (hard) ++i;
  }
  if (!text.empty() && text.back() == ' ') text.pop_back();
  return text;
}

std::string textOf(const xmlNode* node) {
  std::string raw;
  wordsOf(node, raw, 0);
  return trimmedText(raw);
}

bool holdsTable(const xmlNode* node, int depth) {
  for (const xmlNode* child = node->children; child != nullptr && depth < kDeepest; child = child->next) {
    if (child->type == XML_ELEMENT_NODE && (nameOf(child) == "table" || holdsTable(child, depth + 1))) return true;
  }
  return false;
}

/// Elements whose words stand together: a heading, a paragraph, a piece of one.
bool isWords(const xmlNode* node) {
  static const std::set<std::string_view> kNames = {"p",  "h1", "h2",     "h3", "h4", "h5", "h6",   "b",
                                                    "em", "i",  "strong", "u",  "a",  "li", "span", "font"};
  return kNames.count(nameOf(node)) > 0 && !holdsTable(node, 0);
}

struct WebCell {
  int column = 0, span = 1;
  std::string text;
};
using WebRow = std::vector<WebCell>;

class Tables {
 public:
  Tables(const std::string& name, const StopCheck& stopped) : name_(name), stopped_(stopped) {}

  Status walk(const xmlNode* node, int depth) {
    for (const xmlNode* child = node; child != nullptr; child = child->next) {
      if (stopped_()) return fail(ErrorKind::Cancelled, "reading was stopped; nothing is stored", name_);
      if (child->type == XML_TEXT_NODE && rows_.empty())
        noteTitle(trimmedText(reinterpret_cast<const char*>(child->content)));
      if (child->type != XML_ELEMENT_NODE || depth > kDeepest) continue;
      if (isHidden(child)) {
        hidden_ = hidden_ || nameOf(child) == "table" || nameOf(child) == "tr";
        continue;
      }
      if (rows_.empty() && isWords(child)) {
        noteTitle(textOf(child));
      } else if (nameOf(child) == "table") {
        rows_.emplace_back();
        sheetsBefore_.push_back(workbook_.sheets.size());
        if (Status s = walk(child->children, depth + 1); !s) return s;
        finish();
      } else if (nameOf(child) == "tr" && !rows_.empty()) {
        if (Status s = readRow(child); !s) return s;
        if (Status s = walk(child->children, depth + 1); !s) return s;  // a table may lie in a cell
      } else if (nameOf(child) == "caption" && !rows_.empty()) {
        rows_.back().push_back({{0, 1, textOf(child)}});
      } else if (Status s = walk(child->children, depth + 1); !s) {
        return s;
      }
    }
    return {};
  }

  Workbook take() {
    if (hidden_) workbook_.warnings.emplace_back("what the page does not display was left out");
    for (size_t i = 0; i < workbook_.sheets.size() && workbook_.sheets.size() > 1; ++i) {
      workbook_.sheets[i].name = "table " + std::to_string(i + 1);
    }
    return std::move(workbook_);
  }

 private:
  Status readRow(const xmlNode* tr) {
    WebRow row;
    int column = 0;
    for (const xmlNode* cell = tr->children; cell != nullptr; cell = cell->next) {
      if (nameOf(cell) != "td" && nameOf(cell) != "th") continue;
      const std::string given = attribute(cell, "colspan");
      const int span = std::clamp(given.empty() ? 1 : std::atoi(given.c_str()), 1, kWidest);
      if (column + span > kMostTableColumns) break;
      if (!isHidden(cell)) row.push_back({column, span, textOf(cell)});
      column += span;
      if (++cells_ > kMostCells) return fail(ErrorKind::TooLarge, "the page has more than 5,000,000 cells", name_);
    }
    rows_.back().push_back(std::move(row));
    return {};
  }

  /// What stands before a table says what its figures are in, and of which year: short words, the last few.
  void noteTitle(std::string words) {
    if (words.empty() || words.size() > kLongestTitle) return;
    titles_.push_back(std::move(words));
    if (titles_.size() > kMostTitles) titles_.erase(titles_.begin());
  }

  void noteTitles(const std::vector<WebRow>& rows) {
    const size_t last = rows.size() - std::min(rows.size(), kMostTitles);
    for (size_t r = last; r < rows.size(); ++r) {
      for (const WebCell& cell : rows[r]) noteTitle(cell.text);
    }
  }

  /// A table's rows become a sheet: figures move under the heading that spans them.
  void finish() {
    const std::vector<WebRow> rows = std::move(rows_.back());
    rows_.pop_back();
    const bool holdsFigures = workbook_.sheets.size() > sheetsBefore_.back();
    sheetsBefore_.pop_back();
    // A table in a cell of another, which lays the page out.
    if (!rows_.empty()) noteTitles(rows_.back());
    std::vector<WebCell> headings;
    for (const WebRow& row : rows) {
      std::vector<WebCell> found;
      std::copy_if(row.begin(), row.end(), std::back_inserter(found),
                   [](const WebCell& c) { return periodHeading(c.text).has_value(); });
      if (found.size() > headings.size() && found.size() > 1) headings = found;
      if (headings.size() > 1) break;
    }
    Sheet sheet;
    size_t figures = 0;
    for (const std::string& title : titles_) {
      sheet.rows.emplace_back();
      sheet.add({0, 0, SheetCell::Kind::Text, title});
    }
    for (size_t r = 0; r < rows.size(); ++r) {
      sheet.rows.emplace_back();
      int last = -1;
      for (const WebCell& cell : rows[r]) {
        if (cell.text.empty()) continue;
        const auto over = std::find_if(headings.begin(), headings.end(), [&](const WebCell& h) {
          return cell.column >= h.column && cell.column < h.column + h.span;
        });
        int column = over == headings.end() ? cell.column : over->column;
        if (column <= last) column = std::max(cell.column, last + 1);
        last = column;
        figures += displayedNumber(cell.text, '.').has_value() ? 1 : 0;
        sheet.add({static_cast<int>(r), column, SheetCell::Kind::Text, cell.text});
      }
    }
    if (figures > 1) {
      workbook_.sheets.push_back(std::move(sheet));
      titles_.clear();
      return;
    }
    if (!holdsFigures) noteTitles(rows);  // only lays words out
  }

  std::string name_;
  const StopCheck& stopped_;
  std::vector<std::vector<WebRow>> rows_;  ///< of the tables that are open, the innermost last
  std::vector<size_t> sheetsBefore_;       ///< by open table: how many sheets there were
  std::vector<std::string> titles_;        ///< since the last table of figures
  Workbook workbook_;
  std::size_t cells_ = 0;
  bool hidden_ = false;
};

}  // namespace

Result<Workbook> readWebTables(std::string_view content, const std::string& name, const StopCheck& stopped) {
  constexpr int kQuiet = HTML_PARSE_RECOVER | HTML_PARSE_NOERROR | HTML_PARSE_NOWARNING | HTML_PARSE_NONET;
  // The text is UTF-8 when it comes here, whatever the page says of itself.
  const std::unique_ptr<xmlDoc, decltype(&xmlFreeDoc)> document(
      htmlReadMemory(content.data(), static_cast<int>(std::min<std::size_t>(content.size(), 1u << 30)), nullptr,
                     "UTF-8", kQuiet),
      xmlFreeDoc);
  if (!document)
    return fail(ErrorKind::BadInput, "the page cannot be read", name, "Save it again, or give a table as CSV");
  Tables tables(name, stopped);
  if (Status s = tables.walk(xmlDocGetRootElement(document.get()), 0); !s) return tl::unexpected(s.error());
  Workbook workbook = tables.take();
  if (workbook.sheets.empty()) {
    return fail(ErrorKind::BadInput, "the page has no table with figures", name,
                "Give the page that shows the statements");
  }
  return workbook;
}

}  // namespace zl::exchange
