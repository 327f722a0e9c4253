#pragma once
// What a file's content is, judged by the content itself; the name only breaks ties.

#include <string>
#include <string_view>

#include "core/quantity/error.h"

namespace zl::exchange {

enum class ContentKind {
  XbrlInstance,
  InlineXbrl,
  XbrlJson,
  XbrlCsv,       ///< the description; its tables are named in it
  XbrlCsvTable,  ///< never recognised by itself: a table that a description names
  Linkbase,
  Workbook,      ///< XLSX
  OpenSheet,     ///< ODS
  WebPage,       ///< HTML with tables
  CompanyFacts,  ///< JSON: a filer's facts by taxonomy and concept, over many filings
  PlainTable,    ///< delimited text in no documented layout
  TableChoices,  ///< what an import panel chose; made here, never recognised
  BookPeer,      ///< that a company of the book is a peer; made here, never recognised
  BookHome,      ///< which company the book opens with; made here, never recognised
  TypedFigure,   ///< a figure of the market that was typed; made here, never recognised
  FactTable,
  PriceTable,
  PeerTable,
  RateTable,
  EstimateTable,
  SeriesTable,  ///< levels of indices, closes of peers' shares
  CompanyRecord,
  CaseText
};

const char* contentKindText(ContentKind kind);

/// Largest file read, in bytes; larger ones are refused before they are loaded.
inline constexpr std::size_t kLargestFile = 1u << 30;

/// An archive of files: a report package, a filing as one download. What is in it is read, not the archive.
bool isPackage(std::string_view content);

Result<ContentKind> recognise(std::string_view content, const std::string& name);

/// 64-bit FNV-1a of the content and its length, as text. Tells the same file given twice; it is no
/// protection against forgery.
std::string digestOf(std::string_view content);

}  // namespace zl::exchange
