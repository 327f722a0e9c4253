#include <charconv>
#include <cmath>
#include <map>
#include <set>

#include "core/period/date.h"
#include "core/quantity/decimal.h"
#include "exchange/workbook/archive.h"
#include "exchange/workbook/cells.h"
#include "exchange/workbook/workbook.h"
#include "exchange/xml/document.h"

namespace zl::exchange {
namespace {

using xml::childNamed;
using xml::localName;

/// "BC12" to row 11, column 54; false where it is no cell of a sheet.
bool cellAt(std::string_view reference, int& row, int& column) {
  std::size_t i = 0;
  int c = 0;
  while (i < reference.size() && i < 4 && reference[i] >= 'A' && reference[i] <= 'Z')
    c = c * 26 + (reference[i++] - 'A' + 1);
  int r = 0;
  const auto [end, code] = std::from_chars(reference.data() + i, reference.data() + reference.size(), r);
  if (i == 0 || code != std::errc() || end != reference.data() + reference.size()) return false;
  if (r < 1 || r > kMostRows || c > kMostColumns) return false;
  row = r - 1;
  column = c - 1;
  return true;
}

/// Whether a number format shows a date: y, d, or m outside quotes, brackets and escapes.
bool isDateFormat(std::string_view format) {
  bool quoted = false;
  bool bracket = false;
  for (std::size_t i = 0; i < format.size(); ++i) {
    const char c = format[i];
    if (c == '"') quoted = !quoted;
    if (c == '\\') ++i;
    if (c == '[') bracket = true;
    if (c == ']') bracket = false;
    if (!quoted && !bracket && (c == 'y' || c == 'Y' || c == 'd' || c == 'D')) return true;
  }
  return false;
}

class XlsxReader {
 public:
  XlsxReader(Archive archive, std::string name, const StopCheck& stopped)
      : archive_(std::move(archive)), name_(std::move(name)), pace_(stopped, name_) {}

  Workbook run() {
    const std::string book = mainPart();
    const std::string folder = book.substr(0, std::min(book.rfind('/'), book.size()));
    readRelations(folder, book);
    const auto workbook = part(book);
    const pugi::xml_node root = workbook->tree.document_element();
    const std::string_view date1904 = childNamed(root, "workbookPr").attribute("date1904").value();
    epoch_ = date1904 == "1" || date1904 == "true" ? makeDate(1904, 1, 1) : makeDate(1899, 12, 30);
    readStrings();
    readStyles();
    const pugi::xml_node sheets = childNamed(root, "sheets");
    const bool someShown =
        std::any_of(sheets.begin(), sheets.end(), [](pugi::xml_node sheet) { return isShown(sheet); });
    for (pugi::xml_node sheet : sheets.children()) {
      const auto target = relations_.find(std::string(xml::attributeNamed(sheet, "id")));
      const std::string title = sheet.attribute("name").value();
      if (target == relations_.end()) stop("the sheet '" + title.substr(0, 80) + "' has no part", book);
      if (someShown && !isShown(sheet)) {
        workbook_.warnings.push_back("the sheet '" + title + "' is hidden and was left out");
        continue;
      }
      if (target->second.find("worksheets/") == std::string::npos) continue;  // charts and dialogs
      readSheet(title, target->second);
    }
    if (emptyFormulas_ > 0) {
      workbook_.warnings.push_back(std::to_string(emptyFormulas_) +
                                   " formulas have no stored value and are empty cells");
    }
    return std::move(workbook_);
  }

 private:
  [[noreturn]] void stop(const std::string& what, const std::string& where,
                         ErrorKind kind = ErrorKind::BadInput) const {
    throw xml::Stop{
        {kind, what, name_ + ", part '" + where + "'", "Save the workbook again, or export its sheets as CSV"}};
  }

  std::unique_ptr<xml::Document> part(const std::string& path) {
    Result<std::string> text = archive_.read(path);
    if (!text) throw xml::Stop{text.error()};
    Result<std::unique_ptr<xml::Document>> document =
        xml::parseHere(std::move(*text), name_ + ", part '" + path + "'", xml::Doctype::Refused);
    if (!document) throw xml::Stop{document.error()};
    return std::move(*document);
  }

  /// The workbook's own part, by the package's relationships.
  std::string mainPart() {
    if (!archive_.has("_rels/.rels")) stop("this archive is no workbook", "_rels/.rels", ErrorKind::WrongKind);
    const auto rels = part("_rels/.rels");
    for (pugi::xml_node r : rels->tree.document_element().children()) {
      const std::string_view type = r.attribute("Type").value();
      if (type.size() >= 15 && type.substr(type.size() - 15) == "/officeDocument") {
        std::string path = resolvePart("", r.attribute("Target").value());
        if (path.empty()) stop("the package's main part lies outside it", "_rels/.rels");
        return path;
      }
    }
    stop("the package names no workbook", "_rels/.rels", ErrorKind::WrongKind);
  }

  void readRelations(const std::string& folder, const std::string& book) {
    const std::string path = folder + "/_rels/" + book.substr(book.rfind('/') + 1) + ".rels";
    const auto rels = part(folder == book ? "_rels/" + book + ".rels" : path);
    for (pugi::xml_node r : rels->tree.document_element().children()) {
      if (std::string_view(r.attribute("TargetMode").value()) == "External") continue;  // never followed
      const std::string target = resolvePart(folder == book ? "" : folder, r.attribute("Target").value());
      if (target.empty()) stop("a relationship leaves the package", path);
      relations_[r.attribute("Id").value()] = target;
      const std::string_view type = r.attribute("Type").value();
      if (type.substr(type.rfind('/') + 1) == "sharedStrings") stringsPart_ = target;
      if (type.substr(type.rfind('/') + 1) == "styles") stylesPart_ = target;
    }
  }

  /// All text runs of a string item, without phonetic hints.
  static std::string runs(pugi::xml_node item) {
    std::string text;
    std::string pieces;
    for (pugi::xml_node n : item.children()) {
      const std::string_view local = localName(n.name());
      if (local == "t") text += xml::textOf(n, pieces);
      if (local == "r") text += xml::textOf(childNamed(n, "t"), pieces);
    }
    return text;
  }

  void readStrings() {
    if (stringsPart_.empty()) return;
    const auto strings = part(stringsPart_);
    for (pugi::xml_node item : strings->tree.document_element().children()) {
      if (localName(item.name()) == "si") strings_.push_back(runs(item));
    }
  }

  void readStyles() {
    if (stylesPart_.empty()) return;
    const auto styles = part(stylesPart_);
    const pugi::xml_node root = styles->tree.document_element();
    std::set<int> dates;
    for (int id : {14, 15, 16, 17, 22}) dates.insert(id);  // built-in date formats
    for (pugi::xml_node f : childNamed(root, "numFmts").children()) {
      if (isDateFormat(f.attribute("formatCode").value())) dates.insert(f.attribute("numFmtId").as_int());
    }
    for (pugi::xml_node xf : childNamed(root, "cellXfs").children()) {
      dateStyle_.push_back(dates.count(xf.attribute("numFmtId").as_int()) > 0);
    }
  }

  static bool isShown(pugi::xml_node sheet) {
    const std::string_view state = sheet.attribute("state").value();
    return state.empty() || state == "visible";
  }

  static bool isHidden(pugi::xml_node node) {
    const std::string_view hidden = node.attribute("hidden").value();
    return hidden == "1" || hidden == "true";
  }

  /// First and last of every run of hidden columns, counted from 0.
  static std::vector<std::pair<int, int>> hiddenColumns(pugi::xml_node worksheet) {
    std::vector<std::pair<int, int>> runs;
    for (pugi::xml_node column : childNamed(worksheet, "cols").children()) {
      if (!isHidden(column)) continue;
      runs.emplace_back(column.attribute("min").as_int(1) - 1, column.attribute("max").as_int(1) - 1);
    }
    return runs;
  }

  void readSheet(const std::string& title, const std::string& path) {
    const auto document = part(path);
    const std::vector<std::pair<int, int>> hidden = hiddenColumns(document->tree.document_element());
    int hiddenRows = 0;
    std::set<int> leftOut;
    Sheet sheet;
    sheet.name = title;
    int row = -1;
    for (pugi::xml_node r : childNamed(document->tree.document_element(), "sheetData").children()) {
      if (localName(r.name()) != "row") continue;
      const int given = r.attribute("r").as_int(row + 2) - 1;
      if (given <= row || given >= kMostRows) stop("the rows do not ascend", path);
      row = given;
      if (isHidden(r)) {
        hiddenRows += r.first_child() ? 1 : 0;
        continue;
      }
      int column = -1;
      // Empty rows between are not kept; cells know where they stand.
      sheet.rows.emplace_back();
      // Rows of a table are alike.
      const size_t likely = sheet.rows.size() > 1 ? sheet.rows[sheet.rows.size() - 2].cells.size() : 0;
      sheet.rows.back().cells.reserve(likely);
      sheet.rows.back().columns.reserve(likely);
      for (pugi::xml_node c : r.children()) {
        if (localName(c.name()) != "c") continue;
        int at = row;
        int next = column + 1;
        const CellParts parts = partsOf(c);
        if (!parts.reference.empty() && (!cellAt(parts.reference, at, next) || at != row || next <= column)) {
          stop("'" + std::string(parts.reference.substr(0, 20)) + "' is not the next cell of row " +
                   std::to_string(row + 1),
               path);
        }
        column = next;
        if (std::any_of(hidden.begin(), hidden.end(),
                        [&](const auto& run) { return column >= run.first && column <= run.second; })) {
          leftOut.insert(column);
          continue;
        }
        addCell(sheet, parts, row, column, path);
      }
      if (sheet.rows.back().cells.empty()) sheet.rows.pop_back();
    }
    noteHidden(title, hiddenRows, static_cast<int>(leftOut.size()), workbook_.warnings);
    workbook_.sheets.push_back(std::move(sheet));
  }

  /// What a cell's element says, read in one walk over its attributes and one over its parts.
  struct CellParts {
    std::string_view reference, type, style, value;
    pugi::xml_node inlineText;
    bool formula = false;
  };

  static CellParts partsOf(pugi::xml_node c) {
    CellParts parts;
    for (pugi::xml_attribute a = c.first_attribute(); a; a = a.next_attribute()) {
      const char* attribute = a.name();
      if (attribute[0] == '\0' || attribute[1] != '\0') continue;  // all three have one letter
      if (attribute[0] == 'r') parts.reference = a.value();
      if (attribute[0] == 't') parts.type = a.value();
      if (attribute[0] == 's') parts.style = a.value();
    }
    for (pugi::xml_node n = c.first_child(); n; n = n.next_sibling()) {
      const std::string_view local = localName(n.name());
      if (local == "v") parts.value = xml::trimmed(n.child_value());
      if (local == "is") parts.inlineText = n;
      if (local == "f") parts.formula = true;
    }
    return parts;
  }

  void addCell(Sheet& sheet, const CellParts& parts, int row, int column, const std::string& path) {
    pace_.step();
    if (column >= kMostColumns || ++cells_ > kMostCells) {
      stop("the workbook has more cells than are read (5,000,000)", path, ErrorKind::TooLarge);
    }
    SheetCell cell;
    cell.row = row;
    cell.column = column;
    if (parts.type == "s") {
      std::size_t index = 0;
      const char* last = parts.value.data() + parts.value.size();
      const auto [end, code] = std::from_chars(parts.value.data(), last, index);
      if (code != std::errc() || index >= strings_.size()) stop("a cell names a text that is not there", path);
      cell.text = strings_[index];
    } else if (parts.type == "inlineStr") {
      cell.text = runs(parts.inlineText);
    } else if (parts.type == "d") {
      cell.kind = SheetCell::Kind::Day;
      cell.text = parts.value.substr(0, 10);
    } else if (parts.type == "str" || parts.type == "e") {
      cell.text = parts.value;
    } else if (parts.type == "b") {
      cell.text = parts.value == "1" ? "TRUE" : "FALSE";
    } else if (!parts.value.empty()) {
      number(parts, cell);
    }
    if (cell.text.empty() && parts.formula) ++emptyFormulas_;
    if (cell.text.size() > kLongestCell) stop("a cell holds over 65,536 bytes", path, ErrorKind::TooLarge);
    if (const std::string_view kept = xml::trimmed(cell.text); kept.size() != cell.text.size()) {
      cell.text = std::string(kept);
    }
    sheet.add(std::move(cell));
  }

  void number(const CellParts& parts, SheetCell& cell) const {
    if (!Decimal::isNumber(parts.value)) {
      cell.text = parts.value;  // no number whatever it says of itself: a text, which a reading names
      return;
    }
    cell.kind = SheetCell::Kind::Number;
    cell.text = typedNumber(parts.value);
    std::size_t style = 0;
    std::from_chars(parts.style.data(), parts.style.data() + parts.style.size(), style);
    if (style >= dateStyle_.size() || !dateStyle_[style]) return;
    const double days = std::strtod(cell.text.c_str(), nullptr);
    if (days < 1 || days > 2'958'465) return;  // the last day of year 9999
    cell.kind = SheetCell::Kind::Day;
    cell.text = dateText(epoch_ + std::chrono::days(static_cast<int>(std::floor(days))));
  }

  Archive archive_;
  std::string name_;
  xml::Pace pace_;
  Workbook workbook_;
  std::map<std::string, std::string> relations_;
  std::string stringsPart_, stylesPart_;
  std::vector<std::string> strings_;
  std::vector<bool> dateStyle_;
  Date epoch_{};
  std::size_t cells_ = 0;
  int emptyFormulas_ = 0;
};

}  // namespace

Result<Workbook> readXlsx(std::string_view content, const std::string& name, const StopCheck& stopped) {
  Result<Archive> archive = Archive::open(content, name);
  if (!archive) return tl::unexpected(archive.error());
  try {
    return XlsxReader(std::move(*archive), name, stopped).run();
  } catch (const xml::Stop& failure) {
    return tl::unexpected(failure.error);
  }
}

}  // namespace zl::exchange
