#pragma once
// What today's price returns by the exit year at the exit multiple: in all, a year, by what, and for each growth and
// multiple. In: a snapshot whose model has the views "exit_return" and "exit_parts". Out: figures by scenario.

#include "core/valuation/yearly_return.h"
#include "services/stages/snapshot.h"

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

/// The yearly return for growth by itself, the same in every year (rows) and exit multiples (columns) around those of the scenario, each run
/// through the model.
struct ExitGrid {
  std::vector<double> growths, multiples;
  std::vector<std::vector<Figure>> yearly;
};
ExitGrid exitGrid(const Snapshot& s, int scenario);

}  // namespace zl::services
