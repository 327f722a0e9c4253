#pragma once
// Files to documents ready to be stored. Reads and judges; stores nothing.

#include <string>
#include <vector>

#include "core/filing/company.h"
#include "exchange/content.h"
#include "services/resources.h"
#include "store/book.h"

namespace zl::services {

struct ImportFile {
  std::string name;
  std::string content;
};

/// One file as it would come in.
struct ImportPreview {
  std::string name;
  exchange::ContentKind kind = exchange::ContentKind::FactTable;
  store::Incoming incoming;
  std::vector<std::string> warnings;
  Filer filer;
  int mapped = 0;  ///< facts that map to a standard line
  int unmapped = 0;
  int segments = 0;  ///< facts with segments: kept, set aside
};

/// Reads files of any supported kind. Files given together may belong together: inline documents
/// of one report, an xBRL-CSV description and its tables. `company` receives facts, prices and
/// peers. One document comes of each file; the first fault in any refuses all.
Result<std::vector<ImportPreview>> preview(const std::vector<ImportFile>& files, const std::string& company,
                                           const MappingRules& rules, const std::string& now);

/// A record made from the filings alone, for a company that has none: the most used currency and
/// the last filed share count. Fails when the facts hold neither.
Result<Company> derivedRecord(const std::string& id, const std::vector<Fact>& facts, const MappingRules& rules);

}  // namespace zl::services
