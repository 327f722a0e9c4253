#include "core/quantity/decimal.h"
#include "exchange/workbook/archive.h"
#include "exchange/workbook/workbook.h"
#include "exchange/xml/document.h"

namespace zl::exchange {
namespace {

using xml::attributeNamed;
using xml::childNamed;
using xml::localName;

constexpr int kMostColumns = 16'384;
constexpr int kMostRows = 1'048'576;
constexpr int kDeepestGroup = 16;
constexpr const char* kPart = "content.xml";

class OdsReader {
 public:
  OdsReader(std::string name, const StopCheck& stopped) : name_(std::move(name)), pace_(stopped, name_) {}

  Workbook run(pugi::xml_node root) {
    const pugi::xml_node sheets = childNamed(childNamed(root, "body"), "spreadsheet");
    if (!sheets) stop("the document is no spreadsheet", ErrorKind::WrongKind);
    for (pugi::xml_node table : sheets.children()) {
      if (localName(table.name()) != "table") continue;
      Sheet sheet;
      sheet.name = attributeNamed(table, "name");
      row_ = 0;
      readRows(table, sheet, 0);
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
      if (!Decimal::isNumber(cell.text)) stop("'" + cell.text.substr(0, 40) + "' is not a number");
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
  int row_ = 0;
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
