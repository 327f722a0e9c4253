#include "services/importer.h"

#include <algorithm>
#include <map>

#include "exchange/csv/tables.h"
#include "exchange/json/company_json.h"
#include "exchange/xbrl/instance.h"

namespace zl::services {
namespace {

using exchange::ContentKind;

Result<Filing> readFiling(const ImportFile& file, ContentKind kind) {
  return kind == ContentKind::XbrlInstance ? exchange::readXbrlInstance(file.content, file.name)
                                           : exchange::readFactTable(file.content, file.name);
}

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

}  // namespace

Result<ImportPreview> preview(const ImportFile& file, const std::string& company, const MappingRules& rules,
                              const std::string& now) {
  const Result<ContentKind> kind = exchange::recognise(file.content, file.name);
  if (!kind) return tl::unexpected(kind.error());
  ImportPreview p;
  p.name = file.name;
  p.kind = *kind;
  p.incoming.company = *kind == ContentKind::RateTable ? "" : company;
  if (*kind == ContentKind::XbrlInstance || *kind == ContentKind::FactTable) {
    Result<Filing> filing = readFiling(file, *kind);
    if (!filing) return tl::unexpected(filing.error());
    p.warnings = std::move(filing->warnings);
    for (const Fact& fact : filing->facts) {
      if (!fact.segments.empty()) {
        ++p.segments;
      } else if (rules.mentions(fact.concept_name)) {
        ++p.mapped;
      } else {
        ++p.unmapped;
      }
    }
    p.incoming.document = std::move(filing->document);
    p.incoming.facts = std::move(filing->facts);
  } else {
    if (Status s = checkTable(file, *kind, company); !s) return tl::unexpected(s.error());
    p.incoming.document.name = file.name;
    p.incoming.document.kind = exchange::contentKindText(*kind);
  }
  p.incoming.document.digest = exchange::digestOf(file.content);
  p.incoming.document.importedAt = now;
  p.incoming.content = file.content;
  return p;
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
