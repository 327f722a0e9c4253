#include "exchange/content.h"

#include <algorithm>
#include <cctype>
#include <cstdint>

#include "core/table/displayed.h"

namespace zl::exchange {

const char* contentKindText(ContentKind kind) {
  switch (kind) {
    case ContentKind::XbrlInstance:
      return "XBRL 2.1 instance";
    case ContentKind::InlineXbrl:
      return "Inline XBRL document";
    case ContentKind::XbrlJson:
      return "xBRL-JSON report";
    case ContentKind::XbrlCsv:
      return "xBRL-CSV report";
    case ContentKind::XbrlCsvTable:
      return "xBRL-CSV table";
    case ContentKind::Linkbase:
      return "XBRL linkbase";
    case ContentKind::Workbook:
      return "XLSX workbook";
    case ContentKind::OpenSheet:
      return "ODS workbook";
    case ContentKind::WebPage:
      return "tables of a web page";
    case ContentKind::CompanyFacts:
      return "company facts (JSON)";
    case ContentKind::PlainTable:
      return "table of figures";
    case ContentKind::TableChoices:
      return "choices of lines";
    case ContentKind::BookPeer:
      return "book-peer";
    case ContentKind::BookHome:
      return "book-home";
    case ContentKind::TypedFigure:
      return "typed figure";
    case ContentKind::FactTable:
      return "CSV fact table";
    case ContentKind::PriceTable:
      return "CSV price table";
    case ContentKind::PeerTable:
      return "CSV peer table";
    case ContentKind::RateTable:
      return "CSV rate table";
    case ContentKind::EstimateTable:
      return "CSV estimate table";
    case ContentKind::SeriesTable:
      return "CSV series table";
    case ContentKind::CompanyRecord:
      return "company record";
    case ContentKind::CaseText:
      return "case";
  }
  return "";
}

namespace {

bool startsWith(std::string_view text, std::string_view start) {
  return text.substr(0, start.size()) == start;
}

std::string_view withoutMark(std::string_view content) {
  return startsWith(content, "\xEF\xBB\xBF") ? content.substr(3) : content;
}

tl::unexpected<Error> wrongKind(const std::string& name, const std::string& found) {
  return fail(ErrorKind::WrongKind, "this is " + found, name,
              "Give a filed report (XBRL, Inline XBRL, xBRL-JSON, xBRL-CSV), a CSV table in a documented layout, or a "
              "JSON record or case");
}

bool holdsIgnoringCase(std::string_view text, std::string_view wanted) {
  const auto same = [](char a, char b) { return std::tolower(static_cast<unsigned char>(a)) == b; };
  return std::search(text.begin(), text.end(), wanted.begin(), wanted.end(), same) != text.end();
}

bool isWebPage(std::string_view content) {
  const std::string_view head = content.substr(0, 65536);
  return holdsIgnoringCase(head, "<html") || holdsIgnoringCase(head, "<table") ||
         holdsIgnoringCase(head, "<!doctype html");
}

bool hasTable(std::string_view content) {
  return holdsIgnoringCase(content, "<table");
}

Result<ContentKind> recogniseXml(std::string_view content, const std::string& name) {
  // Only the opening of the file is looked at; the reader checks the rest.
  const std::string_view head = content.substr(0, 65536);
  if (head.find("/inlineXBRL\"") != std::string_view::npos || head.find("/inlineXBRL'") != std::string_view::npos) {
    return ContentKind::InlineXbrl;
  }
  if (head.find("linkbase ") != std::string_view::npos && head.find("<xbrl") == std::string_view::npos &&
      head.find(":xbrl ") == std::string_view::npos &&
      head.find("http://www.xbrl.org/2003/linkbase") != std::string_view::npos &&
      head.find("<schema") == std::string_view::npos && head.find(":schema ") == std::string_view::npos) {
    return ContentKind::Linkbase;
  }
  if (head.find("http://www.xbrl.org/2003/instance") != std::string_view::npos &&
      head.find("<schema") == std::string_view::npos && head.find(":schema ") == std::string_view::npos &&
      head.find("<html") == std::string_view::npos) {
    return ContentKind::XbrlInstance;
  }
  if (isWebPage(content)) {
    return hasTable(content) ? Result<ContentKind>(ContentKind::WebPage)
                             : wrongKind(name, "a web page without a table");
  }
  return wrongKind(name, "XML of another kind than an XBRL instance");
}

/// Whether two of the first lines have a figure in a cell behind the first: a title may stand above them alone.
bool hasRowsOfFigures(std::string_view content, char delimiter) {
  constexpr int kLines = 40;
  int rows = 0;
  for (int line = 0; line < kLines && !content.empty() && rows < 2; ++line) {
    const std::size_t newline = content.find('\n');
    std::string_view rest = content.substr(0, newline);
    content.remove_prefix(newline == std::string_view::npos ? content.size() : newline + 1);
    bool figure = false;
    for (std::size_t at = rest.find(delimiter); at != std::string_view::npos && !figure; at = rest.find(delimiter)) {
      rest.remove_prefix(at + 1);
      std::string cell(rest.substr(0, rest.find(delimiter)));
      std::erase(cell, '"');
      figure = displayedNumber(cell, '.').has_value() || displayedNumber(cell, ',').has_value();
    }
    rows += figure ? 1 : 0;
  }
  return rows == 2;
}

Result<ContentKind> recogniseCsv(std::string_view content, const std::string& name) {
  std::string head(content.substr(0, std::min(content.find('\n'), std::size_t{4096})));
  std::erase(head, '"');
  std::erase(head, ' ');
  if (startsWith(head, "concept,")) return ContentKind::FactTable;
  if (startsWith(head, "date,close")) return ContentKind::PriceTable;
  if (startsWith(head, "peer,")) return ContentKind::PeerTable;
  if (startsWith(head, "rate,")) return ContentKind::RateTable;
  if (startsWith(head, "item,year,")) return ContentKind::EstimateTable;
  if (startsWith(head, "series,date,level")) return ContentKind::SeriesTable;
  // A table of figures has cells and figures; the import panel shows how it would be read.
  if (head.find_first_of(",;\t") != std::string::npos &&
      content.find_first_of("0123456789") != std::string_view::npos) {
    return ContentKind::PlainTable;
  }
  if (hasRowsOfFigures(content, ';') || hasRowsOfFigures(content, '\t') || hasRowsOfFigures(content, ',')) {
    return ContentKind::PlainTable;
  }
  return wrongKind(name, "text that is neither a documented CSV layout nor a table of figures");
}

}  // namespace

bool isPackage(std::string_view content) {
  return startsWith(content, "PK\x03\x04") && content.find("xl/worksheets/") == std::string_view::npos &&
         content.substr(0, 200).find("mimetypeapplication/vnd.oasis.opendocument") == std::string_view::npos;
}

Result<ContentKind> recognise(std::string_view content, const std::string& name) {
  content = withoutMark(content);
  const std::size_t first = content.find_first_not_of(" \t\r\n");
  if (first == std::string_view::npos) {
    return fail(ErrorKind::BadInput, "the file is empty", name, "Give a file with content");
  }
  if (content.size() > kLargestFile) {
    return fail(ErrorKind::TooLarge, "the file is larger than 1 GiB", name, "Split it");
  }
  const std::string_view text = content.substr(first);
  if (startsWith(text, "PK\x03\x04")) {
    // The kind is the first entry of an OpenDocument package; other workbooks name their parts.
    const std::string_view head = text.substr(0, 200);
    if (head.find("mimetypeapplication/vnd.oasis.opendocument.spreadsheet") != std::string_view::npos) {
      return ContentKind::OpenSheet;
    }
    if (text.find("xl/worksheets/") != std::string_view::npos) return ContentKind::Workbook;
    return wrongKind(name, "an archive that is no workbook");
  }
  if (startsWith(text, "%PDF")) return wrongKind(name, "a PDF document");
  if (startsWith(text, "SQLite format 3")) return wrongKind(name, "a database, perhaps a book");
  if (text[0] == '<') return recogniseXml(text, name);
  if (startsWith(text, "\xFF\xFE") || startsWith(text, "\xFE\xFF")) {
    // UTF-16 XML is allowed; the XML library converts it.
    const bool xml = content.find('<') != std::string_view::npos;
    return xml ? Result<ContentKind>(ContentKind::XbrlInstance) : wrongKind(name, "text in UTF-16");
  }
  if (text[0] == '{') {
    const std::string_view head = text.substr(0, 4096);
    if (head.find("\"zealous-ledger-company\"") != std::string_view::npos) {
      return ContentKind::CompanyRecord;
    }
    if (head.find("\"zealous-ledger-case\"") != std::string_view::npos) return ContentKind::CaseText;
    // Writers may put documentInfo last.
    if (text.find("/xbrl-json\"") != std::string_view::npos) return ContentKind::XbrlJson;
    if (text.find("/xbrl-csv\"") != std::string_view::npos) return ContentKind::XbrlCsv;
    if (text.find("\"facts\"") != std::string_view::npos && text.find("\"units\"") != std::string_view::npos) {
      return ContentKind::CompanyFacts;
    }
    return wrongKind(name, "JSON that is neither a filed report, a company record nor a case");
  }
  if (text.substr(0, 4096).find('\0') != std::string_view::npos) {
    return wrongKind(name, "binary data");
  }
  return recogniseCsv(text, name);
}

std::string digestOf(std::string_view content) {
  std::uint64_t hash = 14695981039346656037ull;
  for (char c : content) {
    hash ^= static_cast<unsigned char>(c);
    hash *= 1099511628211ull;
  }
  return std::to_string(hash) + "-" + std::to_string(content.size());
}

}  // namespace zl::exchange
