#include "core/filing/mapping.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <tuple>
#include <unordered_map>

#include "core/filing/tie.h"

namespace zl {
namespace {

constexpr std::ptrdiff_t kMostYears = 40;

/// Money, shares and plain numbers only; another currency is not the company's own figure.
bool isForeign(const std::string& unit, const std::string& currency) {
  if (unit == "shares" || unit == "pure" || unit.empty()) return false;
  return unit != currency && unit != currency + "/shares";
}

struct Key {
  std::string concept_name;
  Period period;
  auto operator<=>(const Key&) const = default;
};

class Builder {
 public:
  Builder(std::span<const Fact> facts, const MappingRules& rules, const LineChoices& choices)
      : facts_(facts), rules_(rules), choices_(choices) {
    for (const auto& [concept_name, choice] : choices) chosenFor_[choice.line].push_back(concept_name);
  }

  [[nodiscard]] bool isMapped(const std::string& concept_name) const {
    const auto choice = choices_.find(concept_name);
    return choice == choices_.end() ? rules_.mentions(concept_name) : !choice->second.line.empty();
  }

  std::map<Key, size_t> chosen;
  std::vector<Disagreement> disagreements;

  void choose(size_t index) {
    const Fact& fact = facts_[index];
    const auto [at, fresh] = chosen.try_emplace({fact.concept_name, fact.period}, index);
    if (fresh) return;
    const Fact& before = facts_[at->second];
    if (before.document == fact.document) {
      if (!agree(before, fact)) disagreements.push_back({at->second, index});
      if (finer(fact, before)) at->second = index;
    } else if (!fact.nil) {
      at->second = index;  // the later document restates the figure
    }
  }

  std::vector<FiscalYear> years() const {
    std::set<Date> ends;
    for (const auto& [key, index] : chosen) {
      if (key.period.isFullYear() && isMapped(key.concept_name)) ends.insert(key.period.end);
    }
    std::vector<FiscalYear> list;
    list.reserve(ends.size());
    for (Date end : ends) list.push_back({end});
    // More years than a horizon can hold beside the forecast: the latest are the ones that matter.
    if (std::ssize(list) > kMostYears) list.erase(list.begin(), list.end() - kMostYears);
    return list;
  }

  LineCell cell(const MappingRule& rule, Date end) const {
    LineCell found;
    for (const std::vector<MappingTerm>& terms : rule.alternatives) {
      found = sum(rule.line, terms, end);
      if (found.origin == Origin::Filed) break;
    }
    addChosen(rule.line, end, found);
    if (found.origin == Origin::Filed) return found;
    if (rule.optional) return LineCell{Figure::of(0.0), Origin::NoneReported, {}};
    return LineCell{Figure::absent("not filed"), Origin::Missing, {}};
  }

  void index() {
    for (const auto& [key, fact] : chosen) {
      // At one year end a concept is either a balance or a full year's flow.
      if (key.period.isInstant() || key.period.isFullYear()) {
        byEnd_[{key.concept_name, key.period.end}] = fact;
      }
    }
  }

 private:
  LineCell sum(const std::string& line, const std::vector<MappingTerm>& terms, Date end) const {
    LineCell cell{Figure::of(0.0), Origin::Filed, {}};
    for (const MappingTerm& term : terms) {
      const auto choice = choices_.find(term.concept_name);
      const bool byChoice = choice != choices_.end();
      const bool moved = byChoice && choice->second.line != line;
      const auto fact = byEnd_.find({term.concept_name, end});
      if (moved || fact == byEnd_.end() || !facts_[fact->second].figure().hasValue()) {
        if (term.optional) continue;
        return {};
      }
      add(fact->second, byChoice ? choice->second.weight : term.weight, cell);
    }
    return cell.parts.empty() ? LineCell{} : cell;
  }

  void add(size_t fact, int weight, LineCell& cell) const {
    cell.figure = cell.figure + facts_[fact].figure() * Figure::of(weight);
    cell.parts.push_back({fact, weight});
  }

  void addChosen(const std::string& line, Date end, LineCell& cell) const {
    const auto concepts = chosenFor_.find(line);
    if (concepts == chosenFor_.end()) return;
    for (const std::string& concept_name : concepts->second) {
      const auto fact = byEnd_.find({concept_name, end});
      if (fact == byEnd_.end() || !facts_[fact->second].figure().hasValue()) continue;
      const bool counted = std::any_of(cell.parts.begin(), cell.parts.end(),
                                       [&](const LineCell::Part& part) { return part.fact == fact->second; });
      if (counted) continue;
      if (cell.origin != Origin::Filed) cell = LineCell{Figure::of(0.0), Origin::Filed, {}};
      add(fact->second, choices_.at(concept_name).weight, cell);
    }
  }

  static bool finer(const Fact& a, const Fact& b) {
    if (a.nil != b.nil) return b.nil;
    if (a.exact != b.exact) return a.exact;
    return a.decimals.value_or(-99) > b.decimals.value_or(-99);
  }

  std::span<const Fact> facts_;
  const MappingRules& rules_;
  const LineChoices& choices_;
  std::map<std::string, std::vector<std::string>> chosenFor_;  ///< line -> concepts
  std::map<std::pair<std::string, Date>, size_t> byEnd_;
};

}  // namespace

StandardStatements StandardStatements::build(std::span<const Fact> facts, const MappingRules& rules,
                                             const std::string& currency, const LineChoices& choices) {
  StandardStatements s;
  Builder builder(facts, rules, choices);
  std::unordered_map<std::string, size_t> unmappedAt;
  for (size_t i = 0; i < facts.size(); ++i) {
    const Fact& fact = facts[i];
    if (!fact.segments.empty()) {
      ++s.segmentFacts_;
      continue;
    }
    if (isForeign(fact.unit, currency)) {
      ++s.otherCurrencyFacts_;
      continue;
    }
    if (!builder.isMapped(fact.concept_name)) {
      const auto [at, fresh] = unmappedAt.try_emplace(fact.concept_name, s.unmapped_.size());
      const auto choice = choices.find(fact.concept_name);
      if (fresh) {
        s.unmapped_.push_back(
            {fact.concept_name, fact.label, 0, i, choice == choices.end() ? std::string() : choice->second.reason});
      }
      ++s.unmapped_[at->second].facts;
      continue;
    }
    builder.choose(i);
  }
  s.years_ = builder.years();
  builder.index();
  for (const MappingRule& rule : rules.rules()) {
    std::vector<LineCell>& cells = s.lines_[rule.line];
    for (const FiscalYear& year : s.years_) cells.push_back(builder.cell(rule, year.end));
  }
  s.disagreements_ = std::move(builder.disagreements);
  return s;
}

const LineCell& StandardStatements::at(const std::string& line, int column) const {
  static const LineCell kMissing;
  const auto found = lines_.find(line);
  if (found == lines_.end() || column < 0 || column >= static_cast<int>(found->second.size())) {
    return kMissing;
  }
  return found->second[static_cast<size_t>(column)];
}

}  // namespace zl
