#pragma once
// Scenarios side by side, the reference cases beside them, and what each prudent choice costs.

#include <string>
#include <vector>

#include "services/stages/snapshot.h"
#include "services/text/figure_json.h"

namespace zl::services {

/// A read-only lane beside the analyst's: drivers with a history of their own hold one figure of
/// it, or take the years that analysts estimate from them and run on as in base; everything else is
/// as in base. Low and high are the ends of every estimate at once, not the worst and the best.
enum class Reference { LastYear, OwnAverage, ConsensusLow, ConsensusMean, ConsensusHigh };
const char* referenceWords(Reference reference);
inline constexpr Reference kReferences[] = {Reference::LastYear, Reference::OwnAverage, Reference::ConsensusLow,
                                            Reference::ConsensusMean, Reference::ConsensusHigh};

/// What a driver holds in a reference case: its last actual, the median of its regular years (ten
/// at most), or what the estimates' ends say of the last year that is estimated. No value where
/// there is none.
Figure referenceFigure(const Snapshot& s, model::RowId row, Reference reference);

/// Value per share of a reference case, in listing units.
Result<Figure> referenceValue(const Snapshot& s, Reference reference);

struct ScenarioCell {
  std::string words;  ///< how the path runs; empty for an input
  Figure figure;      ///< in the last forecast year
  bool own = false;   ///< the scenario says so itself
  std::string reason;
};

struct ScenarioLine {
  std::string row;
  std::string label;
  std::string group;
  Kind kind = Kind::Ratio;
  bool driver = true;
  bool differs = false;             ///< some scenario says something else than base
  std::vector<ScenarioCell> cells;  ///< by scenario
  std::vector<Figure> references;   ///< in the order of kReferences
};

/// All drivers and inputs; those that no scenario decides on hold the model's preset.
std::vector<ScenarioLine> scenarioLines(const Snapshot& s);

/// One choice of base against a neutral one: the median of the driver's regular years, or the
/// model's preset of an input.
struct CautionLine {
  std::string row;
  std::string label;
  Kind kind = Kind::Ratio;
  Figure chosen;  ///< in the last forecast year
  Figure neutral;
  Figure effect;  ///< value per share as chosen less value with this choice neutral, listing units
};

struct SumOfCaution {
  std::vector<CautionLine> lines;  ///< largest cost first
  Figure alone;                    ///< sum of the effects, each taken alone
  Figure together;                 ///< value as chosen less value with all choices neutral
};

/// Of the base scenario, on the value before the floor at zero.
Result<SumOfCaution> sumOfCaution(const Snapshot& s);

Json scenariosJson(const Snapshot& s);
std::string scenariosText(const Snapshot& s);
std::string cautionText(const SumOfCaution& sum, const Snapshot& s);
Json cautionJson(const SumOfCaution& sum);

}  // namespace zl::services
