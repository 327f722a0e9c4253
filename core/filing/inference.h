#pragma once
// Where a concept that no rule names may belong: by what its filer's linkbases say it is a part
// of, else by its label. A guess with its reason; the analyst's own choice goes before it.

#include <map>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/filing/labels.h"
#include "core/filing/mapping.h"

namespace zl {

/// One arc of a calculation or presentation linkbase (XBRL 2.1, 5.2).
struct ConceptArc {
  std::string parent;
  std::string child;
  int weight = 1;            ///< of a calculation arc, 1 or -1
  bool calculation = false;  ///< else presentation
  friend bool operator==(const ConceptArc&, const ConceptArc&) = default;
};

/// What a filing's linkbases say of its concepts.
struct ConceptNetwork {
  std::vector<ConceptArc> arcs;
  std::map<std::string, std::string> labels;  ///< standard labels, English first
};

/// Totals and headings whose other parts go to one residual line: text of kits/standard/parts,
/// 'concept = line' or 'concept = -line', one a line.
class PartRules {
 public:
  static Result<PartRules> parse(std::string_view text, const std::string& source);
  struct Residual {
    std::string line;
    int weight = 1;
  };
  [[nodiscard]] const Residual* of(const std::string& concept_name) const;
  [[nodiscard]] const std::map<std::string, Residual>& all() const { return residuals_; }

 private:
  std::map<std::string, Residual> residuals_;
};

/// Choices for concepts without segments that neither a rule nor `choices` places:
///  - a calculation (else presentation) parent that stands on a line and is filed itself: the
///    concept is a part of it, set aside and said so;
///  - such a parent that is not filed: the concept goes to its line;
///  - a parent that is a total: the concept goes to the total's residual line;
///  - no parent known: a line whose label its own label is, where nothing else fills that line.
LineChoices inferChoices(std::span<const Fact> facts, const MappingRules& rules, const LineChoices& choices,
                         const ConceptNetwork& network, const PartRules& parts, const LabelRules& labels,
                         const std::string& currency);

}  // namespace zl
