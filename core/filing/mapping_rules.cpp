#include <sstream>

#include "core/filing/mapping.h"
#include "core/filing/rule_lines.h"

namespace zl {
namespace {

bool takeMark(std::string_view& text) {
  if (text.empty() || text.back() != '?') return false;
  text = trimmedRule(text.substr(0, text.size() - 1));
  return true;
}

bool parseSum(std::string_view text, std::vector<MappingTerm>& terms) {
  std::istringstream words{std::string(text)};
  std::string word;
  int weight = 1;
  bool wantTerm = true;
  while (words >> word) {
    if (word == "+" || word == "-") {
      if (wantTerm && !terms.empty()) return false;
      weight = word == "+" ? 1 : -1;
      wantTerm = true;
      continue;
    }
    if (!wantTerm) return false;
    std::string_view name = word;
    const bool optional = takeMark(name);
    if (name.empty()) return false;
    terms.push_back({std::string(name), weight, optional});
    weight = 1;
    wantTerm = false;
  }
  return !terms.empty() && !wantTerm;
}

}  // namespace

Result<MappingRules> MappingRules::parse(std::string_view text, const std::string& source) {
  MappingRules rules;
  RuleLines lines(text, source);
  while (lines.next()) {
    const std::string_view line = lines.line();
    const std::string where = lines.where();
    const size_t equals = line.find('=');
    if (equals == std::string_view::npos) {
      return fail(ErrorKind::BadInput, "a rule reads 'line = concept | concept + concept'", where);
    }
    MappingRule rule;
    std::string_view name = trimmedRule(line.substr(0, equals));
    if (constexpr std::string_view kPart = "part "; name.substr(0, kPart.size()) == kPart) {
      rule.part = true;
      name = trimmedRule(name.substr(kPart.size()));
    }
    rule.optional = takeMark(name);
    rule.line = std::string(name);
    std::string_view rest = line.substr(equals + 1);
    while (true) {
      const size_t bar = rest.find('|');
      std::vector<MappingTerm> terms;
      if (rule.line.empty() || !parseSum(rest.substr(0, bar), terms)) {
        return fail(ErrorKind::BadInput,
                    "'" + std::string(trimmedRule(rest.substr(0, bar))) + "' is not a concept or a sum of concepts",
                    where);
      }
      for (const MappingTerm& term : terms) {
        if (rule.part) {
          rules.lineOf_.try_emplace(term.concept_name, rule.line);
        } else {
          rules.lineOf_[term.concept_name] = rule.line;
        }
      }
      rule.alternatives.push_back(std::move(terms));
      if (bar == std::string_view::npos) break;
      rest = rest.substr(bar + 1);
    }
    rules.rules_.push_back(std::move(rule));
  }
  return rules;
}

std::string MappingRules::lineOf(const std::string& concept_name) const {
  const auto found = lineOf_.find(concept_name);
  return found == lineOf_.end() ? std::string() : found->second;
}

std::string lineOf(const MappingRules& rules, const LineChoices& choices, const std::string& concept_name) {
  const auto choice = choices.find(concept_name);
  return choice == choices.end() ? rules.lineOf(concept_name) : choice->second.line;
}

bool MappingRules::mentions(const std::string& concept_name) const {
  return lineOf_.count(concept_name) > 0;
}

}  // namespace zl
