#pragma once
// What a driver's own history says, beside which the analyst decides.

#include <string>
#include <vector>

#include "core/evidence/estimate.h"
#include "core/history/statistics.h"
#include "core/peers/measures.h"
#include "services/stages/snapshot.h"

namespace zl::services {

struct EvidenceWindow {
  int years = 0;       ///< 3, 5, 10
  Statistics all;      ///< every year with a figure
  Statistics regular;  ///< without the years flagged exceptional
  Figure trend;        ///< change a year of the regular years, by least squares; three of them at least
};

/// A dated figure of the economy that a driver is held against.
struct EconomyFigure {
  std::string name;
  Figure figure;
  std::string source;  ///< date and source
};

struct DriverEvidence {
  std::vector<Figure> history;    ///< one per filed year
  std::vector<bool> exceptional;  ///< what leaves a figure out: its year, and for growth the year before
  std::vector<EvidenceWindow> windows;
  Statistics spread;                         ///< all years that are not exceptional
  Figure percentile;                         ///< of the last forecast year's choice in the regular history
  std::vector<Consensus::Spread> consensus;  ///< by forecast year; absent where nobody estimates it
  std::vector<Consensus::Spread> guidance;   ///< the company's own, likewise
  PeerSpread peers;                          ///< of the peers' last fiscal years
  std::optional<EconomyFigure> economy;
};

DriverEvidence evidenceOf(const Snapshot& s, model::RowId row, int scenario);

/// What analysts' estimates (or the company's guidance) at the valuation date say of the model's
/// rows. The snapshot must outlive it.
Consensus consensusOf(const Snapshot& s, EstimateBy by = EstimateBy::Analysts);

/// Filed years flagged exceptional, one entry per history column.
std::vector<bool> exceptionalColumns(const Snapshot& s);

}  // namespace zl::services
