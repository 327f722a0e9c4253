#include "core/filing/mapping.h"

#include <algorithm>
#include <set>
#include <unordered_map>

#include "core/filing/line_builder.h"
#include "core/filing/shapes.h"

namespace zl {
namespace {

constexpr std::ptrdiff_t kMostYears = 40;

/// "USD" or "USD/shares": the form of ISO 4217 codes.
bool namesCurrency(const std::string& unit) {
  constexpr size_t kCode = 3;
  const bool perShare = unit.ends_with("/shares");
  if (unit.size() != kCode + (perShare ? std::string_view("/shares").size() : 0)) return false;
  return std::all_of(unit.begin(), unit.begin() + kCode, [](char c) { return c >= 'A' && c <= 'Z'; });
}

std::vector<FiscalYear> yearsOf(const LineBuilder& builder) {
  std::set<Date> ends;
  for (const auto& [key, index] : builder.chosen()) {
    if (key.period.isFullYear() && builder.isMapped(key.concept_name)) ends.insert(key.period.end);
  }
  std::vector<FiscalYear> list;
  list.reserve(ends.size());
  for (Date end : ends) list.push_back({end});
  // More years than a horizon can hold beside the forecast: the latest are the ones that matter.
  if (std::ssize(list) > kMostYears) list.erase(list.begin(), list.end() - kMostYears);
  return list;
}

/// At one year end a concept is either a balance or a full year's flow.
std::map<std::pair<std::string, Date>, size_t> annualFacts(const LineBuilder& builder) {
  std::map<std::pair<std::string, Date>, size_t> facts;
  for (const auto& [key, fact] : builder.chosen()) {
    if (key.period.isInstant() || key.period.isFullYear()) facts[{key.concept_name, key.period.end}] = fact;
  }
  return facts;
}

/// A report has three years of flows and two balances: of a year whose balance sheet is not filed nobody knows that a
/// line was none. The same for flows.
void forgetUnfiled(std::map<std::string, std::vector<LineCell>>& lines, size_t years, std::span<const Fact> facts) {
  const auto isBalance = [&](const LineCell& cell) { return facts[cell.parts.front().fact].period.isInstant(); };
  const auto isFiled = [](const LineCell& cell) { return cell.origin == Origin::Filed && !cell.parts.empty(); };
  std::vector<bool> balances(years, false);
  std::vector<bool> flows(years, false);
  for (const auto& [line, cells] : lines) {
    for (size_t c = 0; c < years; ++c) {
      // A count on the cover or beside the result is no statement.
      if (!isFiled(cells[c]) || !namesCurrency(facts[cells[c].parts.front().fact].unit)) continue;
      (isBalance(cells[c]) ? balances : flows)[c] = true;
    }
  }
  for (auto& [line, cells] : lines) {
    const auto filed = std::find_if(cells.begin(), cells.end(), isFiled);
    if (filed == cells.end()) continue;
    const std::vector<bool>& stated = isBalance(*filed) ? balances : flows;
    for (size_t c = 0; c < years; ++c) {
      if (cells[c].origin == Origin::NoneReported && !stated[c])
        cells[c] = {Figure::absent("its statement of this year is not filed"), Origin::Missing, {}};
    }
  }
}

}  // namespace

StandardStatements StandardStatements::build(std::span<const Fact> facts, const MappingRules& rules,
                                             const std::string& currency, const LineChoices& choices,
                                             const FirstFiled& firstFiled) {
  StandardStatements s;
  LineBuilder builder(facts, rules, choices, firstFiled);
  std::unordered_map<std::string, size_t> unmappedAt;
  for (size_t i = 0; i < facts.size(); ++i) {
    const Fact& fact = facts[i];
    if (!fact.segments.empty()) {
      ++s.segmentFacts_;
      continue;
    }
    const bool foreign = isForeignUnit(fact.unit, currency);
    if (foreign && namesCurrency(fact.unit)) {
      ++s.otherCurrencyFacts_;
      continue;
    }
    // Hours, tonnes, seats: figures with a unit of their own stand on no line of money or shares.
    if (foreign || !builder.isMapped(fact.concept_name)) {
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
  s.years_ = yearsOf(builder);
  const std::map<std::pair<std::string, Date>, size_t> annual = annualFacts(builder);
  for (const MappingRule& rule : rules.rules()) {
    std::vector<LineCell>& cells = s.lines_[rule.line];
    for (const FiscalYear& year : s.years_) {
      cells.push_back(builder.cell(rule, [&](const std::string& concept_name) {
        const auto fact = annual.find({concept_name, year.end});
        return fact == annual.end() ? nullptr : &fact->second;
      }));
    }
  }
  forgetUnfiled(s.lines_, s.years_.size(), facts);
  s.disagreements_ = std::move(builder.disagreements());
  return s;
}

StandardStatements StandardStatements::withLines(std::map<std::string, std::vector<LineCell>> lines,
                                                 const std::set<std::string>& concepts) const {
  StandardStatements s = *this;
  s.lines_.merge(std::move(lines));
  std::erase_if(s.unmapped_, [&](const UnmappedConcept& u) { return concepts.count(u.concept_name) > 0; });
  return s;
}

StandardStatements StandardStatements::shaped(const StatementShapes& shapes, std::span<const Fact> facts,
                                              bool conceptsLeftOut) const {
  StandardStatements s = *this;
  std::map<std::pair<Date, std::string>, size_t> balances;
  for (size_t i = 0; conceptsLeftOut && i < facts.size(); ++i) {
    if (facts[i].segments.empty() && facts[i].period.isInstant())
      balances[{facts[i].period.end, facts[i].concept_name}] = i;
  }
  for (size_t c = 0; c < s.years_.size(); ++c) {
    const auto cellOf = [&](const std::string& line) {
      const auto found = s.lines_.find(line);
      return found == s.lines_.end() ? nullptr : &found->second[c];
    };
    const auto factOf = [&](const std::string& concept_name) {
      const auto found = balances.find({s.years_[c].end, concept_name});
      return found == balances.end() ? nullptr : &found->second;
    };
    if (conceptsLeftOut) {
      shapes.apply(cellOf, facts, factOf);
    } else {
      shapes.apply(cellOf, facts);
    }
  }
  return s;
}

StandardStatements StandardStatements::upTo(int label) const {
  StandardStatements s = *this;
  std::erase_if(s.years_, [&](const FiscalYear& year) { return year.label() > label; });
  for (auto& [line, cells] : s.lines_) cells.resize(s.years_.size());
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
