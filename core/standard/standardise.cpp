#include "core/standard/standardise.h"

#include <set>

#include "core/filing/cover_count.h"
#include "core/filing/fact_lines.h"
#include "core/filing/split.h"
#include "core/structure/concept_placing.h"

namespace zl {
namespace {

/// Facts that state no figure of the statements are set aside, unless somebody has chosen otherwise.
void setAsideWhatIsNoFigure(std::span<const Fact> facts, LineChoices& choices) {
  for (const Fact& fact : facts) {
    if (isOfCover(fact.concept_name)) choices.try_emplace(fact.concept_name, LineChoice{"", 1, "of the cover page"});
    if (fact.unit.str().ends_with("/shares")) {
      choices.try_emplace(fact.concept_name, LineChoice{"", 1, "an amount per share"});
    }
  }
}

StandardStatements withFactRows(const StandardStatements& statements, std::span<const Fact> facts,
                                const model::Model& m, const Company& company) {
  std::map<std::string, std::vector<LineCell>> lines;
  std::set<std::string> concepts;
  for (const auto& [name, row] : factRowsOf(m)) {
    const auto& [source, kind] = row;
    lines[name] = source.recorded ? recordedLine(company, statements.years(), source.concept_name)
                                  : factLine(facts, statements.years(), source, kind, company.currency);
    if (!source.recorded && source.axis.empty()) concepts.insert(source.concept_name);
  }
  return lines.empty() ? statements : statements.withLines(std::move(lines), concepts);
}

}  // namespace

FactRows factRowsOf(const model::Model& m) {
  FactRows rows;
  for (const model::Row& row : m.rows) {
    if (row.fact) rows[row.name] = {*row.fact, row.kind};
  }
  return rows;
}

Standard standardise(const FiledEvidence& evidence, const StandardRules& rules, LineChoices given,
                     const FirstFiled& firstFiled) {
  Standard standard;
  const std::string& currency = evidence.company.currency;
  for (const auto& [concept_name, choice] :
       placeConcepts(evidence.facts, rules.rules, given, evidence.network, rules.placing, currency)) {
    given[concept_name] = choice;
  }
  setAsideWhatIsNoFigure(evidence.facts, given);
  standard.choices = std::move(given);
  standard.restated = restatedForSplits(evidence.facts, evidence.company.splits);
  const std::span<const Fact> facts = standard.factsOf(evidence.facts);
  StandardStatements filed = StandardStatements::build(facts, rules.rules, currency, standard.choices, firstFiled);
  for (const MovingBalance& moving : rules.shapes.moving) {
    const auto found = foundByMovement(moving, filed, facts, standard.choices);
    if (!found) continue;
    standard.choices[found->first] = found->second;
    filed = StandardStatements::build(facts, rules.rules, currency, standard.choices, firstFiled);
  }
  standard.statements =
      withFactRows(filed.shaped(rules.shapes, facts, evidence.conceptsLeftOut), facts, rules.model, evidence.company);
  return standard;
}

}  // namespace zl
