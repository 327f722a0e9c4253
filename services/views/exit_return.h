#pragma once
// What today's price returns by the exit year at the exit multiple: in all, a year, by what, and for each growth and
// multiple. In: a snapshot whose model has the views "exit_return" and "exit_parts". Out: figures by scenario.

#include "core/valuation/yearly_return.h"
#include "services/stages/snapshot.h"
#include "services/views/past_multiples.h"

namespace zl::services {

struct ExitReturn {
  int years = 0;
  Figure price, toPay, total, yearly;
  ReturnSplit split;
  std::optional<PricePoint> lastAtOrUnder;  ///< when the price to pay was last to be had
};
/// Forecast years until the exit of a scenario; 0 where the model has none.
int exitYear(const Snapshot& s, int scenario);

/// Absent throughout where the model has no such views.
ExitReturn exitReturn(const Snapshot& s, int scenario);

/// What the multiple in the exit year is held against: the own past of the same figure, and what growth, payout and
/// required return then justify.
struct ExitBeside {
  std::string label;            ///< of the own past: "Price to revenue"
  Figure lower, median, upper;  ///< its quartiles; absent where there is no past of that figure
  struct Of {
    Figure overMedian, overJustified;  ///< the multiple over it, less one
    std::string reason;                ///< of the multiple, as the scenario says it
  };
  std::vector<Of> scenarios;
};
ExitBeside exitBeside(const Snapshot& s);
/// The own past of what the exit price is a multiple of; null where there is none.
const PastSeries* pastOfExit(const Snapshot& s, const PastMultiples& past);

/// The yearly return for growth by itself, the same in every year (rows) and exit multiples (columns) around those of
/// the scenario, each run through the model.
struct ExitGrid {
  std::vector<double> growths, multiples;
  std::vector<std::vector<Figure>> yearly;
};
ExitGrid exitGrid(const Snapshot& s, int scenario);

}  // namespace zl::services
