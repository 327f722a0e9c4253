#include "core/filing/inference.h"

#include <algorithm>
#include <cctype>
#include <set>

#include "core/filing/rule_lines.h"

namespace zl {
namespace {

constexpr int kHighest = 12;  ///< parents of parents looked at; statements are six or seven deep

/// "x:OtherGainsNet" to "Other Gains Net".
std::string wordsOfName(const std::string& concept_name) {
  std::string words;
  for (const char c : concept_name.substr(concept_name.find(':') + 1)) {
    if (std::isupper(static_cast<unsigned char>(c)) != 0 && !words.empty()) words += ' ';
    words += c;
  }
  return words;
}

class Inference {
 public:
  Inference(std::span<const Fact> facts, const MappingRules& rules, const LineChoices& choices,
            const ConceptNetwork& network, const PartRules& parts)
      : rules_(rules), choices_(choices), parts_(parts) {
    for (const Fact& fact : facts) {
      if (fact.segments.empty() && !fact.nil) filed_.insert(fact.concept_name);
    }
    for (const ConceptArc& arc : network.arcs) {
      (arc.calculation ? calculation_ : presentation_).emplace(arc.child, &arc);
    }
  }

  [[nodiscard]] std::optional<LineChoice> byParent(const std::string& concept_name) const {
    if (auto choice = climb(concept_name, calculation_, "calculation")) return choice;
    return climb(concept_name, presentation_, "presentation");
  }

 private:
  using Arcs = std::multimap<std::string, const ConceptArc*>;

  [[nodiscard]] std::optional<LineChoice> climb(const std::string& concept_name, const Arcs& arcs,
                                                const std::string& how) const {
    const std::string inLinkbase = " in its " + how + " linkbase";
    std::string child = concept_name;
    int weight = 1;
    for (int height = 0; height < kHighest; ++height) {
      const auto arc = arcs.find(child);
      if (arc == arcs.end()) return std::nullopt;
      const std::string& parent = arc->second->parent;
      weight *= arc->second->weight;
      const auto partOf = [&parent](const std::string& rest) {
        return std::string("a part of ").append(parent).append(rest);
      };
      if (const PartRules::Residual* residual = parts_.of(parent)) {
        return LineChoice{residual->line, weight * residual->weight, partOf(inLinkbase)};
      }
      if (const std::string line = lineOf(rules_, choices_, parent); !line.empty()) {
        if (filed_.count(parent) > 0)
          return LineChoice{"", 1, partOf(std::string(", which stands on ").append(line).append(" already"))};
        return LineChoice{line, weight, partOf(std::string(", which is not filed,").append(inLinkbase))};
      }
      if (filed_.count(parent) > 0) return LineChoice{"", 1, partOf(", which is filed and placed by itself")};
      child = parent;
    }
    return std::nullopt;
  }

  const MappingRules& rules_;
  const LineChoices& choices_;
  const PartRules& parts_;
  std::set<std::string> filed_;
  Arcs calculation_, presentation_;
};

}  // namespace

Result<PartRules> PartRules::parse(std::string_view text, const std::string& source) {
  PartRules parts;
  RuleLines lines(text, source);
  while (lines.next()) {
    const std::string_view line = lines.line();
    const size_t equals = line.find('=');
    std::string_view name = trimmedRule(line.substr(0, equals));
    std::string_view to = equals == std::string_view::npos ? std::string_view{} : trimmedRule(line.substr(equals + 1));
    Residual residual;
    if (!to.empty() && to[0] == '-') {
      residual.weight = -1;
      to = trimmedRule(to.substr(1));
    }
    if (name.empty() || to.empty()) {
      return fail(ErrorKind::BadInput, "a rule reads 'concept = line' or 'concept = -line'", lines.where());
    }
    residual.line = std::string(to);
    parts.residuals_[std::string(name)] = residual;
  }
  return parts;
}

const PartRules::Residual* PartRules::of(const std::string& concept_name) const {
  const auto found = residuals_.find(concept_name);
  return found == residuals_.end() ? nullptr : &found->second;
}

LineChoices inferChoices(std::span<const Fact> facts, const MappingRules& rules, const LineChoices& choices,
                         const ConceptNetwork& network, const PartRules& parts, const LabelRules& labels,
                         const std::string& currency) {
  LineChoices inferred;
  const StandardStatements plain = StandardStatements::build(facts, rules, currency, choices);
  if (plain.unmapped().empty()) return inferred;
  const Inference inference(facts, rules, choices, network, parts);
  const auto isFilled = [&](const std::string& line) {
    for (int c = 0; c < static_cast<int>(plain.years().size()); ++c) {
      if (plain.at(line, c).origin == Origin::Filed) return true;
    }
    return false;
  };
  for (const UnmappedConcept& unmapped : plain.unmapped()) {
    const std::string& name = unmapped.concept_name;
    // A table's label was matched when it was read; what was set aside stays so.
    if (choices.count(name) > 0 || name.compare(0, 6, "label:") == 0) continue;
    if (std::optional<LineChoice> choice = inference.byParent(name)) {
      inferred[name] = std::move(*choice);
      continue;
    }
    const auto label = network.labels.find(name);
    const std::string words = label != network.labels.end() ? label->second
                              : unmapped.label.empty()      ? wordsOfName(name)
                                                            : unmapped.label;
    const LabelRule* rule = labels.exactly(words);
    if (rule != nullptr && !isFilled(rule->line)) {
      inferred[name] = LineChoice{rule->line, 1, "its label '" + words + "' is a usual one"};
    }
  }
  return inferred;
}

}  // namespace zl
