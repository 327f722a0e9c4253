#pragma once
// What a driver's own history says, beside which the analyst decides.

#include <string>
#include <vector>

#include "core/history/statistics.h"
#include "services/snapshot.h"

namespace zl::services {

struct EvidenceWindow {
  int years = 0;       ///< 3, 5, 10
  Statistics all;      ///< every year with a figure
  Statistics regular;  ///< without the years flagged exceptional
};

struct DriverEvidence {
  std::vector<Figure> history;    ///< one per filed year
  std::vector<bool> exceptional;  ///< what leaves a figure out: its year, and for growth the year before
  std::vector<EvidenceWindow> windows;
  Statistics spread;  ///< all years that are not exceptional
  Figure percentile;  ///< of the last forecast year's choice in the regular history
};

DriverEvidence evidenceOf(const Snapshot& s, int row, int scenario);

/// Filed years flagged exceptional, one entry per history column.
std::vector<bool> exceptionalColumns(const Snapshot& s);

}  // namespace zl::services
