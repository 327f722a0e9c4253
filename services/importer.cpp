#include "services/importer.h"

#include <algorithm>
#include <map>

#include "exchange/csv/tables.h"
#include "exchange/json/company_json.h"
#include "exchange/oim/xbrl_csv.h"
#include "exchange/oim/xbrl_json.h"
#include "exchange/xbrl/inline.h"
#include "exchange/xbrl/instance.h"

namespace zl::services {
namespace {

using exchange::ContentKind;

template <class T>
Status onlyStatus(const Result<T>& result) {
  if (result) return {};
  return tl::unexpected(result.error());
}

/// Tables other than filings are kept as they are and read again when the book opens.
Status checkTable(const ImportFile& file, ContentKind kind, const std::string& company) {
  switch (kind) {
    case ContentKind::PriceTable:
      return onlyStatus(exchange::readPrices(file.content, file.name));
    case ContentKind::PeerTable:
      return onlyStatus(exchange::readPeers(file.content, file.name));
    case ContentKind::RateTable:
      return onlyStatus(exchange::readRates(file.content, file.name));
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
  Batch(const std::vector<ImportFile>& files, std::string company) : files_(files), company_(std::move(company)) {}

  Status read() {
    for (const ImportFile& file : files_) {
      for (std::string& table : exchange::xbrlCsvTables(file.content)) tables_.push_back(std::move(table));
    }
    for (const ImportFile& file : files_) {
      if (std::find(tables_.begin(), tables_.end(), file.name) != tables_.end()) {
        kinds_.push_back(ContentKind::XbrlCsvTable);
        continue;
      }
      const Result<ContentKind> kind = exchange::recognise(file.content, file.name);
      if (!kind) return tl::unexpected(kind.error());
      kinds_.push_back(*kind);
    }
    filings_.resize(files_.size());
    for (size_t i = 0; i < files_.size(); ++i) {
      if (Status s = readOne(i); !s) return s;
    }
    return readInlineSet();
  }

  [[nodiscard]] ContentKind kind(size_t i) const { return kinds_[i]; }
  [[nodiscard]] std::optional<Filing>& filing(size_t i) { return filings_[i]; }

 private:
  Status keep(size_t i, Result<Filing> filing) {
    if (!filing) return tl::unexpected(filing.error());
    filings_[i] = std::move(*filing);
    return {};
  }

  Status readOne(size_t i) {
    const ImportFile& file = files_[i];
    switch (kinds_[i]) {
      case ContentKind::XbrlInstance:
        return keep(i, exchange::readXbrlInstance(file.content, file.name));
      case ContentKind::XbrlJson:
        return keep(i, exchange::readXbrlJson(file.content, file.name));
      case ContentKind::FactTable:
        return keep(i, exchange::readFactTable(file.content, file.name));
      case ContentKind::XbrlCsv: {
        std::vector<exchange::NamedContent> tables;
        for (size_t k = 0; k < files_.size(); ++k) {
          if (kinds_[k] == ContentKind::XbrlCsvTable) tables.push_back({files_[k].name, files_[k].content});
        }
        return keep(i, exchange::readXbrlCsv({file.name, file.content}, tables));
      }
      case ContentKind::InlineXbrl:
      case ContentKind::XbrlCsvTable:
        return {};  // read as a set
      default:
        return checkTable(file, kinds_[i], company_);
    }
  }

  Status readInlineSet() {
    std::vector<exchange::NamedContent> pages;
    std::vector<size_t> of;
    for (size_t i = 0; i < files_.size(); ++i) {
      if (kinds_[i] != ContentKind::InlineXbrl) continue;
      pages.push_back({files_[i].name, files_[i].content});
      of.push_back(i);
    }
    Result<std::vector<Filing>> filings = exchange::readInlineXbrl(pages);
    if (!filings) return tl::unexpected(filings.error());
    size_t facts = 0;
    for (size_t k = 0; k < of.size(); ++k) {
      facts += (*filings)[k].facts.size();
      filings_[of[k]] = std::move((*filings)[k]);
    }
    if (!of.empty() && facts == 0) {
      return fail(ErrorKind::BadInput, "the inline documents hold no numeric facts", pages.front().name);
    }
    return {};
  }

  const std::vector<ImportFile>& files_;
  std::string company_;
  std::vector<std::string> tables_;  ///< file names that descriptions name
  std::vector<ContentKind> kinds_;
  std::vector<std::optional<Filing>> filings_;
};

void countFacts(const std::vector<Fact>& facts, const MappingRules& rules, ImportPreview& p) {
  for (const Fact& fact : facts) {
    if (!fact.segments.empty()) {
      ++p.segments;
    } else if (rules.mentions(fact.concept_name)) {
      ++p.mapped;
    } else {
      ++p.unmapped;
    }
  }
}

}  // namespace

Result<std::vector<ImportPreview>> preview(const std::vector<ImportFile>& files, const std::string& company,
                                           const MappingRules& rules, const std::string& now) {
  Batch batch(files, company);
  if (Status s = batch.read(); !s) return tl::unexpected(s.error());
  std::vector<ImportPreview> previews;
  std::string filer;
  for (size_t i = 0; i < files.size(); ++i) {
    ImportPreview p;
    p.name = files[i].name;
    p.kind = batch.kind(i);
    p.incoming.company = p.kind == ContentKind::RateTable ? "" : company;
    if (std::optional<Filing>& filing = batch.filing(i)) {
      p.warnings = std::move(filing->warnings);
      p.filer = filing->about;
      if (!p.filer.filer.empty() && !filer.empty() && p.filer.filer != filer) {
        p.warnings.push_back("this file is filed by '" + p.filer.filer + "', the ones before it by '" + filer + "'");
      }
      if (filer.empty()) filer = p.filer.filer;
      countFacts(filing->facts, rules, p);
      p.incoming.document = std::move(filing->document);
      p.incoming.facts = std::move(filing->facts);
      if (p.filer.periodEnd && p.incoming.document.periodEnd && *p.filer.periodEnd != *p.incoming.document.periodEnd) {
        p.warnings.push_back("it says that its period ends on " + dateText(*p.filer.periodEnd) +
                             "; its latest full year ends on " + dateText(*p.incoming.document.periodEnd));
      }
    } else {
      p.incoming.document.name = files[i].name;
      p.incoming.document.kind = exchange::contentKindText(p.kind);
    }
    p.incoming.document.digest = exchange::digestOf(files[i].content);
    p.incoming.document.importedAt = now;
    p.incoming.content = files[i].content;
    previews.push_back(std::move(p));
  }
  return previews;
}

Result<Company> derivedRecord(const std::string& id, const std::vector<Fact>& facts, const MappingRules& rules) {
  std::map<std::string, int> uses;
  for (const Fact& f : facts) {
    if (f.unit.size() == 3) ++uses[f.unit];
  }
  if (uses.empty()) {
    return fail(ErrorKind::BadInput, "the facts name no currency", id, "Import a company record first");
  }
  Company c;
  c.id = id;
  c.name = id;
  c.currency = std::max_element(uses.begin(), uses.end(), [](const auto& a, const auto& b) {
                 return a.second < b.second;
               })->first;
  c.listing = {c.currency, c.currency, 1, 1};
  const StandardStatements s = StandardStatements::build(facts, rules, c.currency);
  const int last = static_cast<int>(s.years().size()) - 1;
  const Figure& shares = s.at("shares", last).figure;
  if (!shares.hasValue() || shares.value() <= 0) {
    return fail(ErrorKind::BadInput, "the facts hold no share count for the last year", id,
                "Import a company record (docs/formats/company.md) together with the filings");
  }
  c.shares = shares.value();
  return c;
}

}  // namespace zl::services
