#include <algorithm>
#include <set>

#include "core/quantity/decimal.h"
#include "exchange/workbook/archive.h"
#include "exchange/workbook/cells.h"
#include "exchange/workbook/workbook.h"
#include "exchange/xml/document.h"

namespace zl::exchange {
namespace {

using xml::attributeNamed;
using xml::childNamed;
using xml::localName;

constexpr int kDeepestGroup = 16;
constexpr const char* kPart = "content.xml";

class OdsReader {
 public:
  OdsReader(std::string name, const StopCheck& stopped) : name_(std::move(name)), pace_(stopped, name_) {}

  Workbook run(pugi::xml_node root) {
    readStyles(root);
    const pugi::xml_node sheets = childNamed(childNamed(root, "body"), "spreadsheet");
    if (!sheets) stop("the document is no spreadsheet", ErrorKind::WrongKind);
    const bool someShown =
        std::any_of(sheets.begin(), sheets.end(), [&](pugi::xml_node table) { return isShown(table); });
    for (pugi::xml_node table : sheets.children()) {
      if (localName(table.name()) != "table") continue;
      Sheet sheet;
      sheet.name = attributeNamed(table, "name");
      if (someShown && !isShown(table)) {
        workbook_.warnings.push_back("the sheet '" + sheet.name + "' is hidden and was left out");
        continue;
      }
      row_ = 0;
      hiddenRows_ = 0;
      hiddenColumns_.clear();
      leftOut_.clear();
      readColumns(table);
      readRows(table, sheet, 0);
      noteHidden(sheet.name, hiddenRows_, static_cast<int>(leftOut_.size()), workbook_.warnings);
      workbook_.sheets.push_back(std::move(sheet));
    }
    return std::move(workbook_);
  }

 private:
  [[noreturn]] void stop(const std::string& what, ErrorKind kind = ErrorKind::BadInput) const {
    throw xml::Stop{
        {kind, what, name_ + ", part 'content.xml'", "Save the workbook again, or export its sheets as CSV"}};
  }

  [[nodiscard]] int repeats(pugi::xml_node node, const char* attribute) const {
    const std::string_view text = attributeNamed(node, attribute);
    if (text.empty()) return 1;
    const int n = std::atoi(std::string(text.substr(0, 10)).c_str());
    if (n < 1 || n > kMostRows) stop("'" + std::string(text.substr(0, 20)) + "' is no number of repeats");
    return n;
  }

  /// Styles by which whole tables are not displayed.
  void readStyles(pugi::xml_node root) {
    for (pugi::xml_node style : childNamed(root, "automatic-styles").children()) {
      if (attributeNamed(childNamed(style, "table-properties"), "display") == "false") {
        unshown_.insert(std::string(attributeNamed(style, "name")));
      }
    }
  }

  [[nodiscard]] bool isShown(pugi::xml_node table) const {
    return localName(table.name()) == "table" && unshown_.count(std::string(attributeNamed(table, "style-name"))) == 0;
  }

  static bool isHidden(pugi::xml_node node) {
    const std::string_view visibility = attributeNamed(node, "visibility");
    return visibility == "collapse" || visibility == "filter";
  }

  /// Columns may stand in groups too.
  void readColumns(pugi::xml_node parent, int depth = 0) {
    if (depth == 0) column_ = 0;
    for (pugi::xml_node node : parent.children()) {
      const std::string_view local = localName(node.name());
      if (local == "table-column") {
        const int times = std::min(repeats(node, "number-columns-repeated"), kMostColumns);
        if (isHidden(node)) hiddenColumns_.emplace_back(column_, column_ + times - 1);
        column_ = std::min(column_ + times, kMostColumns);
      } else if (depth < kDeepestGroup &&
                 (local == "table-columns" || local == "table-column-group" || local == "table-header-columns")) {
        readColumns(node, depth + 1);
      }
    }
  }

  [[nodiscard]] bool isHiddenColumn(int column) const {
    return std::any_of(hiddenColumns_.begin(), hiddenColumns_.end(),
                       [&](const auto& run) { return column >= run.first && column <= run.second; });
  }

  /// Rows may stand in groups and header blocks.
  void readRows(pugi::xml_node parent, Sheet& sheet, int depth) {
    if (depth > kDeepestGroup) stop("rows are grouped more than 16 deep");
    for (pugi::xml_node node : parent.children()) {
      const std::string_view local = localName(node.name());
      if (local == "table-row") {
        readRow(node, sheet);
      } else if (local == "table-rows" || local == "table-row-group" || local == "table-header-rows") {
        readRows(node, sheet, depth + 1);
      }
    }
  }

  void readRow(pugi::xml_node node, Sheet& sheet) {
    const int times = repeats(node, "number-rows-repeated");
    if (isHidden(node)) {
      hiddenRows_ = std::min(hiddenRows_ + times, kMostRows);
      row_ = std::min(row_ + times, 2 * kMostRows);
      return;
    }
    sheet.rows.emplace_back();
    int column = 0;
    for (pugi::xml_node c : node.children()) {
      pace_.step();
      const std::string_view local = localName(c.name());
      if (local != "table-cell" && local != "covered-table-cell") continue;
      const int copies = repeats(c, "number-columns-repeated");
      SheetCell cell = cellOf(c);
      if (!cell.text.empty()) {
        if (column + copies > kMostColumns) stop("a row has more than 16,384 columns", ErrorKind::TooLarge);
        for (int k = 0; k < copies; ++k) {
          if (isHiddenColumn(column + k)) {
            leftOut_.insert(column + k);
            continue;
          }
          cell.row = row_;
          cell.column = column + k;
          count();
          sheet.add(cell);
        }
      }
      column = std::min(column + copies, kMostColumns + 1);
    }
    row_ += times;
    if (row_ > 2 * kMostRows) stop("the sheet has more than 1,048,576 rows", ErrorKind::TooLarge);
    if (sheet.rows.back().cells.empty()) {
      sheet.rows.pop_back();
      return;
    }
    for (int k = 1; k < times; ++k) {
      SheetRow copy = sheet.rows.back();
      for (SheetCell& cell : copy.cells) {
        ++cell.row;
        count();
      }
      sheet.rows.push_back(std::move(copy));
    }
  }

  void count() {
    if (++cells_ > kMostCells) stop("the workbook has more cells than are read (5,000,000)", ErrorKind::TooLarge);
  }

  SheetCell cellOf(pugi::xml_node c) const {
    SheetCell cell;
    const std::string_view type = attributeNamed(c, "value-type");
    if (type == "float" || type == "currency" || type == "percentage") {
      cell.kind = SheetCell::Kind::Number;
      cell.text = attributeNamed(c, "value");
      if (Decimal::isNumber(cell.text)) {
        cell.text = typedNumber(cell.text);
      } else {
        cell.kind = SheetCell::Kind::Text;  // no number whatever it says of itself: a text, which a reading names
      }
    } else if (type == "date") {
      cell.kind = SheetCell::Kind::Day;
      cell.text = attributeNamed(c, "date-value").substr(0, 10);
    } else {
      for (pugi::xml_node p : c.children()) {
        if (localName(p.name()) == "p") cell.text += (cell.text.empty() ? "" : " ") + textOf(p);
      }
    }
    if (cell.text.size() > kLongestCell) stop("a cell holds over 65,536 bytes", ErrorKind::TooLarge);
    cell.text = std::string(xml::trimmed(cell.text));
    return cell;
  }

  /// A paragraph's text through its spans and links.
  static std::string textOf(pugi::xml_node paragraph) {
    std::string text;
    struct Walker : pugi::xml_tree_walker {
      std::string* into = nullptr;
      bool for_each(pugi::xml_node& node) override {
        if (node.type() == pugi::node_pcdata || node.type() == pugi::node_cdata) *into += node.value();
        return into->size() <= kLongestCell;
      }
    } walker;
    walker.into = &text;
    paragraph.traverse(walker);
    return text;
  }

  std::string name_;
  xml::Pace pace_;
  Workbook workbook_;
  std::set<std::string> unshown_;                   ///< styles of tables
  std::vector<std::pair<int, int>> hiddenColumns_;  ///< first and last, of the sheet being read
  std::set<int> leftOut_;                           ///< hidden columns that hold something
  int row_ = 0, column_ = 0, hiddenRows_ = 0;
  std::size_t cells_ = 0;
};

}  // namespace

Result<Workbook> readOds(std::string_view content, const std::string& name, const StopCheck& stopped) {
  Result<Archive> archive = Archive::open(content, name);
  if (!archive) return tl::unexpected(archive.error());
  const Result<std::string> text = archive->read(kPart);
  if (!text) return tl::unexpected(text.error());
  const Result<std::unique_ptr<xml::Document>> document =
      xml::parse(*text, name + ", part 'content.xml'", xml::Doctype::Refused);
  if (!document) return tl::unexpected(document.error());
  try {
    return OdsReader(name, stopped).run((*document)->tree.document_element());
  } catch (const xml::Stop& failure) {
    return tl::unexpected(failure.error);
  }
}

}  // namespace zl::exchange
