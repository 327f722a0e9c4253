#pragma once
// What a filing's linkbases say of its concepts.

#include <map>
#include <string>
#include <vector>

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
  /// Own concepts to the wider one that each is anchored to (European reports: the wider-narrower arcs of a definition
  /// linkbase).
  std::map<std::string, std::string> anchors;

  /// Takes in what another linkbase says.
  void join(ConceptNetwork other) {
    arcs.insert(arcs.end(), other.arcs.begin(), other.arcs.end());
    labels.merge(other.labels);
    anchors.merge(other.anchors);
  }
  [[nodiscard]] bool empty() const { return arcs.empty() && labels.empty() && anchors.empty(); }
};

}  // namespace zl
