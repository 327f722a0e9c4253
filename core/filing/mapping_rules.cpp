#include <sstream>

#include "core/filing/mapping.h"

namespace zl {
namespace {

std::string_view trimmed(std::string_view text) {
  const size_t first = text.find_first_not_of(" \t\r");
  if (first == std::string_view::npos) return {};
  return text.substr(first, text.find_last_not_of(" \t\r") - first + 1);
}

bool takeMark(std::string_view& text) {
  if (text.empty() || text.back() != '?') return false;
  text = trimmed(text.substr(0, text.size() - 1));
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
  int number = 0;
  while (!text.empty()) {
    ++number;
    const size_t newline = text.find('\n');
    std::string_view line = text.substr(0, newline);
    text = newline == std::string_view::npos ? std::string_view{} : text.substr(newline + 1);
    line = trimmed(line.substr(0, line.find('#')));
    if (line.empty()) continue;
    const std::string where = source + ", line " + std::to_string(number);
    const size_t equals = line.find('=');
    if (equals == std::string_view::npos) {
      return fail(ErrorKind::BadInput, "a rule reads 'line = concept | concept + concept'", where);
    }
    MappingRule rule;
    std::string_view name = trimmed(line.substr(0, equals));
    rule.optional = takeMark(name);
    rule.line = std::string(name);
    std::string_view rest = line.substr(equals + 1);
    while (true) {
      const size_t bar = rest.find('|');
      std::vector<MappingTerm> terms;
      if (rule.line.empty() || !parseSum(rest.substr(0, bar), terms)) {
        return fail(ErrorKind::BadInput,
                    "'" + std::string(trimmed(rest.substr(0, bar))) + "' is not a concept or a sum of concepts", where);
      }
      for (const MappingTerm& term : terms) rules.lineOf_[term.concept_name] = rule.line;
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

bool MappingRules::mentions(const std::string& concept_name) const {
  return lineOf_.count(concept_name) > 0;
}

}  // namespace zl
