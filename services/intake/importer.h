#pragma once
// Files to documents ready to be stored. Reads and judges; stores nothing.

#include <functional>
#include <map>
#include <memory>
#include <string>
#include <vector>

#include "core/capital/rates.h"
#include "core/filing/company.h"
#include "core/standard/repair.h"
#include "core/table/reading.h"
#include "exchange/content.h"
#include "exchange/workbook/workbook.h"
#include "services/kits/resources.h"
#include "store/book.h"

namespace zl::services {

/// How one sheet of a file comes in.
struct SheetReading {
  int sheet = 0;
  bool included = true;
  TableReading reading;
};

struct ImportFile {
  std::string name;
  std::string content;
  std::vector<SheetReading> readings = {};  ///< of a table of figures, as corrected; empty: guessed
  bool found = false;                       ///< came with a folder or package: passed over where it cannot be read
  std::string set = {};                     ///< the folder or package; empty where it was named itself
  std::string note = {};                    ///< what was done to it before it is read
};

/// One file as it would come in.
struct ImportPreview {
  std::string name;
  exchange::ContentKind kind = exchange::ContentKind::FactTable;
  store::Incoming incoming;
  std::vector<std::string> warnings;
  Filer filer;
  std::shared_ptr<const exchange::Workbook> workbook;  ///< of a table of figures
  std::vector<SheetReading> readings;
  LineChoices choices;                                   ///< of a tagged filing's concepts, made while it is looked at
  std::shared_ptr<const ConceptNetwork> network;         ///< of the linkbases that come with it
  std::shared_ptr<const StandardStatements> statements;  ///< of its own figures; null where it is no filing
  std::vector<std::string> failing;                      ///< a line for each tie of them that would fail
  int holding = 0;                                       ///< ties, by year, that would hold
  int notHolding = 0;                                    ///< that would fail
  std::optional<Repair> repair;                          ///< the one change that mends most of those that would fail
  int mapped = 0;                                        ///< facts that map to a standard line
  int unmapped = 0;
  int segments = 0;  ///< facts with segments: kept, set aside
  bool passedOver = false;
  bool found = false;  ///< it came with a folder or package
};

/// What is known when files come in.
struct ImportContext {
  std::string company;                         ///< receives facts, prices and peers
  std::shared_ptr<const Resources> resources;  ///< shared: reading may outlast who asked for it
  std::string now;                             ///< ISO 8601
  TableHints hints;
  std::optional<Company> record = {};                      ///< of the company; empty where the book has none
  std::vector<Peer> peers = {};                            ///< that the book has of the company
  std::map<std::string, std::string> further = {};         ///< what its own multiples are of: rows and their labels
  std::optional<PricePoint> close = {};                    ///< the latest that the book has
  std::shared_ptr<const StandardStatements> present = {};  ///< what the book has of the company; null where nothing
  /// Told before each file.
  std::function<void(size_t done, size_t total, const std::string& name)> progress = {};
  /// Asked between files and every few thousand steps inside one; ends the reading.
  exchange::StopCheck stopped = {};
};

/// Reads files whole, folders and packages (archives of a filing) replaced by what is in them; text in another encoding
/// than UTF-8 is turned into it, and a note says so. Fails on a package with nothing in it that can be read.
Result<std::vector<ImportFile>> readFiles(const std::vector<std::string>& paths);

/// The short name that a company record among files gives; empty where none of them is one. Folders are not looked
/// into.
std::string companyNamedIn(const std::vector<std::string>& paths);

/// Whether a file's kind is read by a guess that the analyst should see first.
bool isGuessed(exchange::ContentKind kind);

/// Reads files of any supported kind. Files given together may belong together: inline documents
/// of one report, an xBRL-CSV description and its tables. One document comes of each file; the
/// first fault in any refuses all.
Result<std::vector<ImportPreview>> preview(const std::vector<ImportFile>& files, const ImportContext& context);

/// Guesses one sheet of a previewed table anew, with what the analyst has fixed; what other sheets
/// have taken is kept from it. On failure the preview is unchanged.
Status guessAgain(ImportPreview& preview, size_t reading, const TableHints& fixed, const ImportContext& context);
/// Takes the facts of a previewed table from its readings as they now stand. On failure, naming
/// the cell, the preview keeps the facts it had.
Status applyReadings(ImportPreview& preview, const ImportContext& context);

/// What a table's digest covers: one table read in two ways gives two documents.
std::string digestOfTable(const std::string& content, const std::vector<Fact>& facts);

/// Whether what was previewed can be stored: amounts in no currency would be taken for the company's.
Status readyToStore(const std::vector<ImportPreview>& previews);

/// Of the facts' amounts; empty where none is in a currency.
std::string mostUsedCurrency(const std::vector<Fact>& facts);

/// A record made from the filings alone, for a company that has none: the most used currency; the name is the filer's
/// own, the id where no filing says. Fails when the facts hold no currency.
Result<Company> derivedRecord(const std::string& id, const std::string& filerName, const std::vector<Fact>& facts);

}  // namespace zl::services
