#pragma once
// What ships with the product: the kits, which are folders of texts for one kind of company (model, mapping
// rules, labels, parts, ties, quality tests); and reading and writing files.

#include <memory>
#include <string>
#include <vector>

#include "core/filing/labels.h"
#include "core/filing/mapping.h"
#include "core/filing/shapes.h"
#include "core/filing/tie.h"
#include "core/model/syntax.h"
#include "core/outlook/case.h"
#include "core/proposal/placeholders.h"
#include "core/proposal/proposal_rules.h"
#include "core/quantity/error.h"
#include "core/review/quality.h"
#include "core/standard/standardise.h"
#include "core/structure/placing_rules.h"
#include "services/kits/build_texts.h"

namespace zl::services {

/// A model that ships: its own text upon those of the models it extends.
struct ShippedModel {
  std::string name;
  std::string title;
  std::vector<std::pair<std::string, std::string>> texts;  ///< what it is called in messages, and the text
  BuildTexts builds;                                       ///< rows written for the company at hand
  std::vector<ProposalRule> proposals;                     ///< for drivers that nobody has decided
};

struct Resources {
  std::string folder;
  model::Model model;                ///< the one in use, with the analyst's own lines and rows
  std::vector<ShippedModel> models;  ///< all that ship, the full one first
  std::vector<Error> resting;        ///< model files with a fault: why each is not in use
  std::string rulesText;             ///< what the rules were read from
  MappingRules rules;
  std::vector<Tie> ties;
  StatementShapes shapes;
  LabelRules labels;
  PartRules parts;
  LineTree lines{{}};  ///< of the ties
  std::vector<QualityTest> tests;
  Placeholders placeholders;  ///< where a book has no rates

  /// What tells a filed row its line.
  [[nodiscard]] PlacingRules placing() const { return {labels, lines, parts}; }
  /// What filed facts are put on standard lines with.
  [[nodiscard]] StandardRules standard() const { return {rules, placing(), shapes, model}; }
  /// Of the model in use.
  [[nodiscard]] const BuildTexts& builds() const;
  [[nodiscard]] const std::vector<ProposalRule>& proposals() const;

  /// Looks in $ZEALOUS_LEDGER_DATA, then where the program was installed, then in its source.
  static Result<std::shared_ptr<const Resources>> load();
  static Result<std::shared_ptr<const Resources>> loadFrom(const std::string& folder);
};

/// The same resources with the model that a case uses: the shipped one by name, upon it the
/// analyst's own lines (a row in the group "Own lines" each, fed by whatever concepts are put on it;
/// in the forecast a flow or balance keeps its share of revenue), upon these his own rows. Fails on
/// a model that does not ship, on a line whose name is no word or is taken or whose label has
/// quotes, and on own rows with a fault, saying where.
Result<std::shared_ptr<const Resources>> withOwn(const std::shared_ptr<const Resources>& shipped, const Case& c);

/// The group that own lines stand in.
inline constexpr const char* kOwnLines = "Own lines";

/// What own rows are called in messages.
inline constexpr const char* kOwnRows = "own rows";

/// Which of a model's texts the own rows are; -1 where it has none.
int ownText(const model::Model& m);
/// Whether the own rows declare or amend a row.
bool isOwnRow(const model::Model& m, const model::Row& row);

/// Reads a file whole; refuses folders, missing files and files over the importer's limit.
Result<std::string> readFile(const std::string& path);
/// Writes through a temporary file beside it, so that a failure leaves the old content.
Status writeFile(const std::string& path, const std::string& content);
std::string fileName(const std::string& path);
/// Files as given, folders replaced by the files in them and below, by name; hidden ones are left
/// out. Fails when a path is not there, or a folder holds over 10,000 files.
Result<std::vector<std::string>> filesOf(const std::vector<std::string>& paths);

}  // namespace zl::services
