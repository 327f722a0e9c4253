#pragma once
// From what was filed to standard statements: the one way, for books, previews of imports and tests. Each step once:
// what the analyst and earlier imports chose, what the filing's own structure places, what states no figure of the
// statements, splits, lines, shapes, rows that read facts by themselves.

#include <map>
#include <span>
#include <string>
#include <utility>
#include <vector>

#include "core/filing/company.h"
#include "core/filing/concept_network.h"
#include "core/filing/mapping.h"
#include "core/filing/shapes.h"
#include "core/model/syntax.h"
#include "core/structure/placing_rules.h"

namespace zl {

/// What a company has filed and is on record; does not own it.
struct FiledEvidence {
  std::span<const Fact> facts;    ///< ordered by document, earliest first; minor units read in their currency
  const ConceptNetwork& network;  ///< of the linkbases given
  const Company& company;         ///< its currency, splits and operating figures
  bool conceptsLeftOut = false;   ///< the source holds the concepts of public taxonomies alone
};

/// Texts of a kit and its model; does not own them.
struct StandardRules {
  const MappingRules& rules;
  PlacingRules placing;
  const StatementShapes& shapes;
  const model::Model& model;
};

struct Standard {
  LineChoices choices;         ///< all that are in force: as given, and where the filing's structure puts the rest
  std::vector<Fact> restated;  ///< the same facts in today's shares; empty where no split restates any
  StandardStatements statements;

  /// The facts that the statements' cells name: restated ones where there are any.
  [[nodiscard]] std::span<const Fact> factsOf(std::span<const Fact> filed) const {
    return restated.empty() ? filed : std::span<const Fact>(restated);
  }
};

/// `given` are the choices of analyst and imports, which go before everything.
Standard standardise(const FiledEvidence& evidence, const StandardRules& rules, LineChoices given,
                     const FirstFiled& firstFiled = {});

/// Rows of a model that read filed facts by themselves.
using FactRows = std::map<std::string, std::pair<model::FactSource, Kind>>;
FactRows factRowsOf(const model::Model& m);

}  // namespace zl
