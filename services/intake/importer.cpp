#include "services/intake/importer.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/quantity/number_text.h"
#include "core/text/utf8.h"
#include "exchange/csv/tables.h"
#include "exchange/json/company_json.h"
#include "exchange/oim/company_facts.h"
#include "exchange/oim/xbrl_csv.h"
#include "exchange/oim/xbrl_json.h"
#include "exchange/workbook/archive.h"
#include "exchange/xbrl/inline.h"
#include "exchange/xbrl/instance.h"
#include "exchange/xbrl/linkbase.h"
#include "services/intake/judged.h"
#include "services/intake/market_tables.h"
#include "services/intake/price_units.h"
#include "services/intake/shared_currency.h"

namespace zl::services {
namespace {

using exchange::ContentKind;

constexpr size_t kLargestMarketTable = 4u << 20;  // larger files are filings

/// What is told of a table beside its rows.
template <class T>
Status takeWarnings(const Result<T>& table, std::vector<std::string>& warnings) {
  if (!table) return tl::unexpected(table.error());
  warnings.insert(warnings.end(), table->warnings.begin(), table->warnings.end());
  return {};
}

/// Shared by all companies of a book.
bool isOfEconomy(ContentKind kind) {
  return kind == ContentKind::RateTable || kind == ContentKind::SeriesTable;
}

/// Tables other than filings are kept as they are and read again when the book opens.
Status checkTable(const ImportFile& file, ContentKind kind, const std::string& company,
                  std::vector<std::string>& warnings) {
  switch (kind) {
    case ContentKind::PriceTable:
      return takeWarnings(exchange::readPrices(file.content, file.name), warnings);
    case ContentKind::PeerTable:
      return takeWarnings(exchange::readPeers(file.content, file.name), warnings);
    case ContentKind::RateTable:
      return takeWarnings(exchange::readRates(file.content, file.name), warnings);
    case ContentKind::SeriesTable:
      return takeWarnings(exchange::readSeries(file.content, file.name), warnings);
    case ContentKind::EstimateTable:
      return takeWarnings(exchange::readEstimates(file.content, file.name), warnings);
    case ContentKind::CompanyRecord: {
      const Result<exchange::Json> json = exchange::parseJson(file.content, file.name);
      if (!json) return tl::unexpected(json.error());
      const Result<Company> record = exchange::companyFromJson(*json, file.name);
      if (!record) return tl::unexpected(record.error());
      if (record->id != company) {
        return fail(ErrorKind::BadInput, "the record is of '" + record->id + "', not of '" + company + "'", file.name,
                    "Name the company that the record belongs to");
      }
      return {};
    }
    default:
      return fail(ErrorKind::WrongKind, "a case is applied, not imported", file.name,
                  "Use 'zledger apply' or open it on the Outlook page");
  }
}

/// Files of one import, recognised, with what was read of those that are filings.
class Batch {
 public:
  Batch(const std::vector<ImportFile>& files, const ImportContext& context) : files_(files), context_(context) {}

  Status read() {
    if (Status s = recogniseAll(); !s) return s;
    filings_.resize(files_.size());
    warnings_.resize(files_.size());
    for (size_t i = 0; i < files_.size(); ++i) {
      if (context_.progress) context_.progress(i, files_.size(), files_[i].name);
      if (context_.stopped()) {
        return fail(ErrorKind::Cancelled, "reading was stopped; nothing is stored", files_[i].name);
      }
      if (!kinds_[i]) continue;
      if (Status s = orPassOver(i, readOne(i)); !s) return s;
    }
    std::set<std::string> sets;
    for (const ImportFile& file : files_) sets.insert(file.set);
    for (const std::string& set : sets) {
      if (Status s = readInlineSet(set); !s) return s;
    }
    if (firstFault_ && std::none_of(kinds_.begin(), kinds_.end(), [](const auto& kind) { return kind.has_value(); })) {
      return tl::unexpected(*firstFault_);
    }
    return {};
  }

  /// Nothing for a file that is passed over, whose reason is told.
  [[nodiscard]] std::optional<ContentKind> kind(size_t i) const { return kinds_[i]; }
  [[nodiscard]] const std::string& reason(size_t i) const { return reasons_[i]; }
  [[nodiscard]] std::optional<Filing>& filing(size_t i) { return filings_[i]; }
  [[nodiscard]] const std::vector<std::string>& warnings(size_t i) const { return warnings_[i]; }
  [[nodiscard]] std::shared_ptr<const ConceptNetwork> network() const { return network_; }

 private:
  /// What a description names is its table, whatever its content looks like by itself.
  Status recogniseAll() {
    std::vector<Result<ContentKind>> alone;
    std::vector<std::string> tables;
    for (const ImportFile& file : files_) {
      alone.push_back(exchange::recognise(file.content, file.name));
      if (!alone.back() || *alone.back() != ContentKind::XbrlCsv) continue;
      for (std::string& table : exchange::xbrlCsvTables(file.content)) tables.push_back(std::move(table));
    }
    for (size_t i = 0; i < files_.size(); ++i) {
      const bool named = std::find(tables.begin(), tables.end(), files_[i].name) != tables.end();
      if (!named && !alone[i] && !files_[i].found) return tl::unexpected(alone[i].error());
      reasons_.push_back(named || alone[i] ? std::string() : alone[i].error().what);
      if (named) {
        kinds_.emplace_back(ContentKind::XbrlCsvTable);
      } else {
        kinds_.push_back(alone[i] ? std::optional(*alone[i]) : std::nullopt);
      }
    }
    passOverBesides();
    return {};
  }

  /// Pages and tables that come with a tagged report show the same figures, or others that are none of its statements.
  void passOverBesides() {
    static const std::set<ContentKind> kTagged = {ContentKind::InlineXbrl, ContentKind::XbrlInstance,
                                                  ContentKind::XbrlJson, ContentKind::XbrlCsv};
    std::map<std::string, std::string> reports;
    for (size_t i = 0; i < files_.size(); ++i) {
      if (kinds_[i] && kTagged.count(*kinds_[i]) > 0) reports.emplace(files_[i].set, files_[i].name);
    }
    for (size_t i = 0; i < files_.size(); ++i) {
      const auto report = reports.find(files_[i].set);
      if (!files_[i].found || report == reports.end() || !kinds_[i] || !isGuessed(*kinds_[i])) continue;
      kinds_[i].reset();
      reasons_[i] = "the tagged report " + report->second + " came with it";
    }
  }

  /// What came with others and cannot be read stops none of them; what was named itself is refused.
  Status orPassOver(size_t i, Status read) {
    if (read || !files_[i].found || read.error().kind == ErrorKind::Cancelled) return read;
    if (!firstFault_) firstFault_ = read.error();
    kinds_[i].reset();
    reasons_[i] = read.error().what;
    return {};
  }

  Status keep(size_t i, Result<Filing> filing) {
    if (!filing) return tl::unexpected(filing.error());
    filings_[i] = std::move(*filing);
    return {};
  }

  Status readOne(size_t i) {
    const ImportFile& file = files_[i];
    switch (*kinds_[i]) {
      case ContentKind::XbrlInstance:
        return keep(i, exchange::readXbrlInstance(file.content, file.name, context_.stopped));
      case ContentKind::XbrlJson:
        return keep(i, exchange::readXbrlJson(file.content, file.name, context_.stopped));
      case ContentKind::CompanyFacts:
        return keep(i, exchange::readCompanyFacts(file.content, file.name, context_.stopped));
      case ContentKind::FactTable:
        return keep(i, exchange::readFactTable(file.content, file.name, context_.stopped));
      case ContentKind::XbrlCsv: {
        std::vector<exchange::NamedContent> tables;
        for (size_t k = 0; k < files_.size(); ++k) {
          if (kinds_[k] == ContentKind::XbrlCsvTable) tables.push_back({files_[k].name, files_[k].content});
        }
        return keep(i, exchange::readXbrlCsv({file.name, file.content}, tables, context_.stopped));
      }
      case ContentKind::Linkbase:
        return addToNetwork(exchange::readLinkbase(file.content, file.name));
      case ContentKind::InlineXbrl:
      case ContentKind::XbrlCsvTable:
      case ContentKind::Workbook:
      case ContentKind::OpenSheet:
      case ContentKind::WebPage:
      case ContentKind::PlainTable:
        return {};  // read as a set, or with the analyst's reading
      default:
        return checkTable(file, *kinds_[i], context_.company, warnings_[i]);
    }
  }

  /// What the linkbases of one import say is said of all its filings, as it is once they are in a book.
  Status addToNetwork(Result<ConceptNetwork> network) {
    if (!network) return tl::unexpected(network.error());
    network_->join(std::move(*network));
    return {};
  }

  Status readInlineSet(const std::string& set) {
    std::vector<exchange::NamedContent> pages;
    std::vector<size_t> of;
    for (size_t i = 0; i < files_.size(); ++i) {
      if (kinds_[i] != ContentKind::InlineXbrl || files_[i].set != set) continue;
      pages.push_back({files_[i].name, files_[i].content});
      of.push_back(i);
    }
    const auto refuse = [&](const Error& fault) -> Status {
      for (const size_t i : of) {
        if (Status s = orPassOver(i, tl::unexpected(fault)); !s) return s;
      }
      return {};
    };
    Result<std::vector<Filing>> filings = exchange::readInlineXbrl(pages, context_.stopped);
    if (!filings) return refuse(filings.error());
    size_t facts = 0;
    for (size_t k = 0; k < of.size(); ++k) {
      facts += (*filings)[k].facts.size();
      filings_[of[k]] = std::move((*filings)[k]);
    }
    if (!of.empty() && facts == 0) {
      return refuse({ErrorKind::BadInput, "the inline documents hold no numeric facts", pages.front().name, {}});
    }
    return {};
  }

  const std::vector<ImportFile>& files_;
  const ImportContext& context_;
  std::vector<std::optional<ContentKind>> kinds_;
  std::vector<std::string> reasons_;
  std::vector<std::optional<Filing>> filings_;
  std::vector<std::vector<std::string>> warnings_;  ///< of tables that are no filing
  std::shared_ptr<ConceptNetwork> network_ = std::make_shared<ConceptNetwork>();
  std::optional<Error> firstFault_;  ///< of what was passed over
};

void countFacts(const std::vector<Fact>& facts, const MappingRules& rules, const LineChoices& choices,
                ImportPreview& p) {
  for (const Fact& fact : facts) {
    if (!fact.segments.empty()) {
      ++p.segments;
    } else if (!lineOf(rules, choices, fact.concept_name).empty()) {
      ++p.mapped;
    } else {
      ++p.unmapped;
    }
  }
}

/// What one sheet has taken, another sheet of the same file does not guess again.
void takeFrom(const TableReading& reading, TableHints& hints) {
  for (const TableLine& line : reading.lines) {
    hints.takenLines.insert(line.choice.line);
    hints.takenConcepts.insert(line.concept_name);
  }
}

/// Every sheet that names years; what one sheet has taken the next does not guess again.
Status guessSheets(const exchange::Workbook& workbook, const ImportContext& context, ImportPreview& p) {
  TableHints hints = context.hints;
  Error last{ErrorKind::BadInput, "the workbook has no sheets", p.name, "Give one with a table of figures"};
  for (size_t i = 0; i < workbook.sheets.size(); ++i) {
    Result<TableReading> reading = guessTable(workbook.sheets[i], context.resources->placing(), hints);
    if (!reading) {
      last = reading.error();
      last.where = p.name + (last.where == "table" ? "" : ", " + last.where);
      p.warnings.push_back("sheet '" + workbook.sheets[i].name + "' was not read: " + last.what);
      continue;
    }
    takeFrom(*reading, hints);
    p.readings.push_back({static_cast<int>(i), true, std::move(*reading)});
  }
  if (p.readings.empty()) return tl::unexpected(last);
  return {};
}

std::string digestOf(const ImportPreview& p) {
  return p.readings.empty() ? exchange::digestOf(p.incoming.content)
                            : digestOfTable(p.incoming.content, p.incoming.facts);
}

Status openTable(const ImportFile& file, const ImportContext& context, ImportPreview& p) {
  Result<exchange::Workbook> workbook = exchange::readTables(file.content, p.kind, file.name, context.stopped);
  if (!workbook) return tl::unexpected(workbook.error());
  p.warnings.insert(p.warnings.end(), workbook->warnings.begin(), workbook->warnings.end());
  p.workbook = std::make_shared<const exchange::Workbook>(std::move(*workbook));
  p.readings = file.readings;
  if (p.readings.empty()) {
    if (Status s = guessSheets(*p.workbook, context, p); !s) return s;
  }
  return applyReadings(p, context);
}

}  // namespace

std::string digestOfTable(const std::string& content, const std::vector<Fact>& facts) {
  std::string digested = content;
  for (const Fact& f : facts) digested += f.concept_name + f.period.text() + f.unit + f.text;
  return exchange::digestOf(digested);
}

namespace {

/// Files of a package, those that describe it left out. What is no filing among them is passed over later, with a note.
Status unpack(const std::string& package, const std::string& content, std::vector<ImportFile>& files) {
  Result<exchange::Archive> archive = exchange::Archive::open(content, package);
  if (!archive) return tl::unexpected(archive.error());
  const size_t before = files.size();
  bool readable = false;
  for (const std::string& entry : archive->names()) {
    const std::string name = fileName(entry);
    const bool described = entry.starts_with("META-INF/") || entry.find("/META-INF/") != std::string::npos;
    if (described || entry.starts_with("__MACOSX") || name.starts_with(".")) continue;
    Result<std::string> text = archive->read(entry);
    if (!text) return tl::unexpected(text.error());
    readable = readable || exchange::recognise(*text, name).has_value();
    files.push_back({name, std::move(*text)});
    files.back().found = true;
    files.back().set = package;
    files.back().note = "from " + package;
  }
  if (readable) return {};
  files.resize(before);
  return fail(ErrorKind::NotFound, "the package holds no report that can be read", package,
              "Give a report package, or a zip of one filing");
}

/// Text that is neither marked up nor UTF-8: UTF-16 by its mark, else the usual encoding of files without one.
void makeUtf8(ImportFile& file) {
  std::string& text = file.content;
  const size_t first = text.find_first_not_of(" \t\r\n");
  if (first == std::string::npos || text.starts_with("PK\x03\x04") || text.starts_with("%PDF")) return;
  const auto say = [&](const char* encoding) {
    file.note += (file.note.empty() ? "" : "; ") + std::string("read as ") + encoding;
  };
  if (isUtf16(text)) {
    std::string converted = fromUtf16(text);
    // The XML library tells the encoding of XML itself, and its declaration would contradict another.
    if (converted.starts_with("<?xml")) return;
    text = std::move(converted);
    return say("UTF-16");
  }
  const bool xml = text.compare(first, 5, "<?xml") == 0;
  if (xml || isUtf8(text) || text.substr(0, 4096).find('\0') != std::string::npos) return;
  text = fromWindows1252(text);
  say("Windows-1252, as it is not UTF-8");
}

}  // namespace

Result<std::vector<ImportFile>> readFiles(const std::vector<std::string>& paths) {
  const Result<std::vector<std::string>> found = filesOf(paths);
  if (!found) return tl::unexpected(found.error());
  std::vector<ImportFile> files;
  for (const std::string& path : *found) {
    Result<std::string> content = readFile(path);
    if (!content) return tl::unexpected(content.error());
    const bool inFolder = std::find(paths.begin(), paths.end(), path) == paths.end();
    if (exchange::isPackage(*content)) {
      if (Status s = unpack(fileName(path), *content, files); !s) return tl::unexpected(s.error());
      continue;
    }
    files.push_back({fileName(path), std::move(*content)});
    files.back().found = inFolder;
    if (inFolder) files.back().set = path.substr(0, path.find_last_of('/'));
  }
  for (ImportFile& file : files) makeUtf8(file);
  return files;
}

std::string companyNamedIn(const std::vector<std::string>& paths) {
  for (const std::string& path : paths) {
    if (!path.ends_with(".json")) continue;
    const Result<std::string> content = readFile(path);
    if (!content || exchange::recognise(*content, path) != ContentKind::CompanyRecord) continue;
    const Result<exchange::Json> json = exchange::parseJson(*content, path);
    if (!json) continue;  // told when it is read
    if (const Result<Company> company = exchange::companyFromJson(*json, path)) return company->id;
  }
  return {};
}

bool isGuessed(ContentKind kind) {
  return kind == ContentKind::Workbook || kind == ContentKind::OpenSheet || kind == ContentKind::WebPage ||
         kind == ContentKind::PlainTable;
}

Status guessAgain(ImportPreview& p, size_t reading, const TableHints& fixed, const ImportContext& context) {
  TableHints hints = fixed;
  for (size_t i = 0; i < p.readings.size(); ++i) {
    if (i != reading && p.readings[i].included) takeFrom(p.readings[i].reading, hints);
  }
  const auto sheet = static_cast<size_t>(p.readings.at(reading).sheet);
  Result<TableReading> again = guessTable(p.workbook->sheets.at(sheet), context.resources->placing(), hints);
  if (!again) return tl::unexpected(again.error());
  // Periods belong to the headings; under the same row they stay as corrected.
  const TableReading& before = p.readings[reading].reading;
  if (again->headerRow == before.headerRow && again->yearsDown == before.yearsDown) again->columns = before.columns;
  std::swap(p.readings[reading].reading, *again);
  Status applied = applyReadings(p, context);
  if (!applied) std::swap(p.readings[reading].reading, *again);
  return applied;
}

Status readyToStore(const std::vector<ImportPreview>& previews) {
  for (const ImportPreview& p : previews) {
    const bool unnamed = !p.readings.empty() && std::any_of(p.incoming.facts.begin(), p.incoming.facts.end(),
                                                            [](const Fact& f) { return f.unit.empty(); });
    if (unnamed) return fail(ErrorKind::BadInput, kNoCurrency, p.name, "Say which one its figures are in");
  }
  return {};
}

std::string mostUsedCurrency(const std::vector<Fact>& facts) {
  std::map<std::string, int> uses;
  for (const Fact& f : facts) {
    if (f.unit.size() == 3) ++uses[f.unit];
  }
  const auto most =
      std::max_element(uses.begin(), uses.end(), [](const auto& a, const auto& b) { return a.second < b.second; });
  return most == uses.end() ? std::string() : most->first;
}

Status applyReadings(ImportPreview& p, const ImportContext& context) {
  std::vector<Fact> facts;
  Document document = p.incoming.document;
  document.periodEnd.reset();
  LineChoices choices = context.hints.remembered;
  std::vector<std::string> unread;
  for (const SheetReading& s : p.readings) {
    if (!s.included) continue;
    std::vector<std::string> passedOver;
    Result<std::vector<Fact>> read =
        factsOf(p.workbook->sheets.at(static_cast<size_t>(s.sheet)), s.reading, &passedOver);
    for (std::string& cell : passedOver) unread.push_back(std::move(cell));
    if (!read) {
      Error error = read.error();
      error.where = p.name + ", " + error.where;
      return tl::unexpected(error);
    }
    for (Fact& fact : *read) {
      noteYear(document, fact.period);
      facts.push_back(std::move(fact));
    }
    for (const auto& [concept_name, choice] : choicesOf(s.reading)) choices[concept_name] = choice;
  }
  if (facts.empty()) {
    return fail(ErrorKind::BadInput, "no sheet of it is to come in", p.name, "Bring in a sheet, or leave the file out");
  }
  std::erase_if(p.warnings, [](const std::string& w) { return w.ends_with(kNoFigure); });
  for (std::string& cell : unread) p.warnings.push_back(std::move(cell));
  p.mapped = p.unmapped = p.segments = 0;
  countFacts(facts, context.resources->rules, choices, p);
  p.incoming.facts = std::move(facts);
  p.incoming.document = std::move(document);
  p.incoming.document.digest = digestOf(p);
  judgeImport(p, choices, *context.resources);
  holdScale(p, context);
  return {};
}

namespace {

/// What a table of the market that does not say is taken to mean.
MarketHints marketHints(const ImportContext& context, const std::string& name) {
  MarketHints hints;
  hints.currency = context.record ? context.record->currency : context.hints.currency;
  hints.day = parseDate(context.now.substr(0, 10)).value_or(Date{});
  hints.source = name;
  hints.peers = &context.peers;
  hints.further = context.further;
  if (context.present && !context.present->years().empty()) {
    hints.yearEnd = context.present->years().back().end;
  } else {
    hints.yearEnd = lastOfMonth(yearOf(hints.day) - 1, 12);
  }
  return hints;
}

/// Tables of the market in layouts of their own are put into the documented one; other files, and other sheets of a
/// workbook, stay as they are.
Result<std::vector<ImportFile>> withMarketTables(const std::vector<ImportFile>& given, const ImportContext& context) {
  std::vector<ImportFile> files;
  for (const ImportFile& file : given) {
    const Result<ContentKind> kind = exchange::recognise(file.content, file.name);
    Result<exchange::Workbook> workbook = exchange::Workbook();
    if (kind && isGuessed(*kind) && file.readings.empty() && file.content.size() <= kLargestMarketTable) {
      workbook = exchange::readTables(file.content, *kind, file.name, context.stopped);
    }
    std::vector<ImportFile> tables;
    for (size_t i = 0; workbook && i < workbook->sheets.size(); ++i) {
      const Sheet& sheet = workbook->sheets[i];
      std::optional<MarketTable> table =
          marketTableOf(sheet, marketHints(context, file.name), context.resources->labels, context.resources->model);
      if (!table) continue;
      if (table->csv.empty() && workbook->sheets.size() == 1) {
        return fail(
            ErrorKind::BadInput, "no row of the table can be used: " + table->notes.front(), file.name,
            "A price needs a day and a figure above nought, a peer a name and figures, a rate a name and a figure");
      }
      if (table->csv.empty()) continue;
      ImportFile read{file.name, std::move(table->csv)};
      if (workbook->sheets.size() > 1) read.name += ", " + sheet.name;
      read.found = file.found;
      read.set = file.set;
      read.note = file.note;
      for (const std::string& note : table->notes) read.note += (read.note.empty() ? "" : "; ") + note;
      tables.push_back(std::move(read));
    }
    const bool all = workbook && tables.size() == workbook->sheets.size();
    if (tables.empty() || !all) files.push_back(file);
    for (ImportFile& table : tables) files.push_back(std::move(table));
  }
  return files;
}

}  // namespace

Result<std::vector<ImportPreview>> preview(const std::vector<ImportFile>& given, const ImportContext& context) {
  const Result<std::vector<ImportFile>> read = withMarketTables(given, context);
  if (!read) return tl::unexpected(read.error());
  const std::vector<ImportFile>& files = *read;
  Batch batch(files, context);
  if (Status s = batch.read(); !s) return tl::unexpected(s.error());
  std::vector<ImportPreview> previews;
  std::string filer;
  for (size_t i = 0; i < files.size(); ++i) {
    ImportPreview p;
    p.name = files[i].name;
    p.found = files[i].found;
    if (!files[i].note.empty()) p.warnings.push_back(files[i].note);
    if (!batch.kind(i)) {
      p.passedOver = true;
      p.warnings.push_back("passed over: " + batch.reason(i));
      previews.push_back(std::move(p));
      continue;
    }
    p.kind = *batch.kind(i);
    p.incoming.company = isOfEconomy(p.kind) ? "" : context.company;
    p.incoming.content = files[i].content;
    p.warnings.insert(p.warnings.end(), batch.warnings(i).begin(), batch.warnings(i).end());
    if (std::optional<Filing>& filing = batch.filing(i)) {
      p.warnings.insert(p.warnings.end(), filing->warnings.begin(), filing->warnings.end());
      p.filer = filing->about;
      if (!p.filer.filer.empty() && !filer.empty() && p.filer.filer != filer) {
        p.warnings.push_back("this file is filed by '" + p.filer.filer + "', the ones before it by '" + filer + "'");
      }
      if (filer.empty()) filer = p.filer.filer;
      countFacts(filing->facts, context.resources->rules, context.hints.remembered, p);
      p.incoming.document = std::move(filing->document);
      p.incoming.facts = std::move(filing->facts);
      p.network = batch.network();
      judgeImport(p, context.hints.remembered, *context.resources);
      if (p.filer.periodEnd && p.incoming.document.periodEnd && *p.filer.periodEnd != *p.incoming.document.periodEnd) {
        p.warnings.push_back("it says that its period ends on " + dateText(*p.filer.periodEnd) +
                             "; its latest full year ends on " + dateText(*p.incoming.document.periodEnd));
      }
      // A correction goes after what it corrects, however little it holds.
      std::optional<Date>& ends = p.incoming.document.periodEnd;
      if (p.filer.periodEnd && ends && *ends < *p.filer.periodEnd) ends = p.filer.periodEnd;
    } else {
      p.incoming.document.name = files[i].name;
      p.incoming.document.kind = exchange::contentKindText(p.kind);
      if (isGuessed(p.kind)) {
        if (Status s = openTable(files[i], context, p); !s) {
          if (!files[i].found || s.error().kind == ErrorKind::Cancelled) return tl::unexpected(s.error());
          p.passedOver = true;
          p.warnings = {"passed over: " + s.error().what};
          previews.push_back(std::move(p));
          continue;
        }
      }
    }
    if (!isGuessed(p.kind)) p.incoming.document.digest = digestOf(p);  // a table's follows its readings
    p.incoming.document.importedAt = context.now;
    previews.push_back(std::move(p));
  }
  if (Status s = shareCurrency(previews, context); !s) return tl::unexpected(s.error());
  holdScales(previews, context);
  if (Status s = holdPrices(previews, context); !s) return tl::unexpected(s.error());
  return previews;
}

Result<Company> derivedRecord(const std::string& id, const std::string& filerName, const std::vector<Fact>& facts) {
  const std::string currency = mostUsedCurrency(facts);
  if (currency.empty()) {
    return fail(ErrorKind::BadInput, "the facts name no currency", id, "Import a company record first");
  }
  Company c;
  c.id = id;
  c.name = filerName.empty() ? id : filerName;
  c.currency = currency;
  c.listing = {c.currency, c.currency, 1, 1};
  return c;
}

}  // namespace zl::services
