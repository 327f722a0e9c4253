#include "core/filing/line_builder.h"

#include <algorithm>

#include "core/filing/tie.h"

namespace zl {
namespace {

bool finer(const Fact& a, const Fact& b) {
  if (a.nil != b.nil) return b.nil;
  if (a.exact != b.exact) return a.exact;
  return a.decimals.value_or(-99) > b.decimals.value_or(-99);
}

}  // namespace

bool isForeignUnit(const std::string& unit, const std::string& currency) {
  if (unit == "shares" || unit == "pure" || unit.empty()) return false;
  return unit != currency && unit != currency + "/shares";
}

LineBuilder::LineBuilder(std::span<const Fact> facts, const MappingRules& rules, const LineChoices& choices,
                         const FirstFiled& firstFiled)
    : facts_(facts), rules_(rules), choices_(choices), firstFiled_(firstFiled) {
  for (const auto& [concept_name, choice] : choices) {
    chosenFor_[choice.line].push_back(concept_name);
    if (!choice.outOf.empty() && !choice.line.empty()) heldBy_[choice.outOf].push_back(concept_name);
  }
}

bool LineBuilder::isMapped(const std::string& concept_name) const {
  return !lineOf(rules_, choices_, concept_name).empty();
}

void LineBuilder::choose(size_t index) {
  const Fact& fact = facts_[index];
  const auto [at, fresh] = chosen_.try_emplace({fact.concept_name, fact.period}, index);
  if (fresh) return;
  const Fact& before = facts_[at->second];
  if (before.document == fact.document) {
    if (!agree(before, fact)) disagreements_.push_back({at->second, index});
    if (finer(fact, before)) at->second = index;
  } else if (!fact.nil) {
    // The later document restates the figure.
    const bool keepFirst =
        !firstFiled_.empty() && !before.nil &&
        (firstFiled_.count(kEveryLine) > 0 || firstFiled_.count(lineOf(rules_, choices_, fact.concept_name)) > 0);
    if (!keepFirst) at->second = index;
  }
}

LineCell LineBuilder::cell(const MappingRule& rule, const FactOf& factOf) const {
  LineCell found;
  for (const std::vector<MappingTerm>& terms : rule.alternatives) {
    found = sum(rule, terms, factOf);
    if (found.origin == Origin::Filed) break;
  }
  addChosen(rule.line, factOf, found);
  if (found.origin == Origin::Filed) {
    takeOutHeld(rule.line, factOf, found);
    return found;
  }
  if (rule.optional) return LineCell{Figure::of(0.0), Origin::NoneReported, {}};
  std::string line = rule.line;
  std::replace(line.begin(), line.end(), '_', ' ');
  return LineCell{Figure::absent(line + " is not filed"), Origin::Missing, {}};
}

LineCell LineBuilder::sum(const MappingRule& rule, const std::vector<MappingTerm>& terms, const FactOf& factOf) const {
  LineCell cell{Figure::of(0.0), Origin::Filed, {}};
  for (const MappingTerm& term : terms) {
    const auto choice = choices_.find(term.concept_name);
    const bool byChoice = choice != choices_.end();
    // Where the whole stands is no matter to a part of it, unless the concept has been set aside.
    const bool moved = byChoice && choice->second.line != rule.line && (!rule.part || choice->second.line.empty());
    const size_t* fact = factOf(term.concept_name);
    if (moved || fact == nullptr || !facts_[*fact].figure().hasValue()) {
      if (term.optional) continue;
      return {};
    }
    add(*fact, byChoice ? choice->second.weight : term.weight, cell);
  }
  return cell.parts.empty() ? LineCell{} : cell;
}

void LineBuilder::takeOutHeld(const std::string& line, const FactOf& factOf, LineCell& cell) const {
  const auto concepts = heldBy_.find(line);
  if (concepts == heldBy_.end()) return;
  for (const std::string& concept_name : concepts->second) {
    const size_t* fact = factOf(concept_name);
    if (fact == nullptr || !facts_[*fact].figure().hasValue()) continue;
    const LineChoice& choice = choices_.at(concept_name);
    add(*fact, choice.outOfSign * choice.weight, cell);
  }
}

void LineBuilder::add(size_t fact, int weight, LineCell& cell) const {
  cell.figure = cell.figure + facts_[fact].figure() * Figure::of(weight);
  cell.parts.push_back({fact, weight});
}

void LineBuilder::addChosen(const std::string& line, const FactOf& factOf, LineCell& cell) const {
  const auto concepts = chosenFor_.find(line);
  if (concepts == chosenFor_.end()) return;
  for (const std::string& concept_name : concepts->second) {
    const size_t* fact = factOf(concept_name);
    if (fact == nullptr || !facts_[*fact].figure().hasValue()) continue;
    const bool counted = std::any_of(cell.parts.begin(), cell.parts.end(),
                                     [&](const LineCell::Part& part) { return part.fact == *fact; });
    if (counted) continue;
    if (cell.origin != Origin::Filed) cell = LineCell{Figure::of(0.0), Origin::Filed, {}};
    add(*fact, choices_.at(concept_name).weight, cell);
  }
}

}  // namespace zl
