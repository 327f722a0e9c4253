#pragma once
// Findings in the order in which they matter: by severity, then by the value that the figure they are about moves.

#include <string>
#include <vector>

#include "core/monitor/finding.h"
#include "services/edits/edits.h"
#include "services/stages/snapshot.h"

namespace zl::services {

struct RankedFinding {
  size_t finding = 0;         ///< in Snapshot::findings
  std::vector<size_t> alike;  ///< the same monitor and row in other scenarios
  Figure share;               ///< what its driver or input moves, of base's value; absent where it is about neither
  [[nodiscard]] bool hasShare() const { return share.hasValue(); }
};

struct RankedFindings {
  std::vector<RankedFinding> shown;   ///< faults, warnings, notes; acknowledged ones last
  std::vector<RankedFinding> folded;  ///< open ones, no faults, about figures that move less than a hundredth of value
};

RankedFindings rankedFindings(const Snapshot& s);

/// Accepts a finding and those that stand in its line as one edit.
CaseEdit acknowledgeLine(const RankedFinding& ranked, const Snapshot& s, const Provenance& said);

/// The finding's text, with the other scenarios it is about.
std::string textOf(const RankedFinding& ranked, const Snapshot& s);
/// One line for what is folded: how many, of which monitors; empty where there is none.
std::string foldedText(const RankedFindings& ranked, const Snapshot& s);

}  // namespace zl::services
