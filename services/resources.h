#pragma once
// What ships with the product: the model, the mapping rules, the ties, the demo's files.

#include <memory>
#include <string>
#include <vector>

#include "core/filing/inference.h"
#include "core/filing/labels.h"
#include "core/filing/mapping.h"
#include "core/filing/tie.h"
#include "core/model/syntax.h"
#include "core/outlook/case.h"
#include "core/quantity/error.h"
#include "core/review/quality.h"

namespace zl::services {

struct Resources {
  std::string folder;
  model::Model model;
  std::string modelText, rulesText;  ///< what model and rules were read from
  MappingRules rules;
  std::vector<Tie> ties;
  LabelRules labels;
  PartRules parts;
  std::vector<QualityTest> tests;

  /// Looks in $ZEALOUS_LEDGER_DATA, then where the program was installed, then in its source.
  static Result<std::shared_ptr<const Resources>> load();
  static Result<std::shared_ptr<const Resources>> loadFrom(const std::string& folder);
};

/// The same resources with the analyst's own lines in model and rules: a row in the group "Own
/// lines" each, fed by whatever concepts are put on it; in the forecast a flow or balance keeps its
/// share of revenue. Fails on a name that is no word or is taken, and on a label with quotes.
Result<std::shared_ptr<const Resources>> withOwnLines(const std::shared_ptr<const Resources>& shipped,
                                                      const std::vector<OwnLine>& lines);

/// Reads a file whole; refuses folders, missing files and files over the importer's limit.
Result<std::string> readFile(const std::string& path);
/// Writes through a temporary file beside it, so that a failure leaves the old content.
Status writeFile(const std::string& path, const std::string& content);
std::string fileName(const std::string& path);
/// Files as given, folders replaced by the files in them and below, by name; hidden ones are left
/// out. Fails when a path is not there, or a folder holds over 10,000 files.
Result<std::vector<std::string>> filesOf(const std::vector<std::string>& paths);

}  // namespace zl::services
