#pragma once
// The parts of the cost of capital with what rivals each: figure, date, source and what the value would be. One of them
// is adopted as an edit.

#include <string>
#include <vector>

#include "core/capital/cost_tables.h"
#include "services/edits/edits.h"
#include "services/stages/own_beta.h"

namespace zl::services {

/// A figure that could stand in a part's place.
struct Rival {
  std::string label;  ///< "own regression, adjusted"
  Figure figure;
  std::string source;   ///< date and where it is from, or how it was reckoned
  Figure value;         ///< per share of the scenario with it, before the floor
  bool stands = false;  ///< it is what counts now
};

struct PartRivals {
  model::RowId row;           ///< the driver
  std::vector<Rival> rivals;  ///< what stands comes first; those with a figure before those without
};

/// Of every driver of the rate that something rivals, in the order of the model.
std::vector<PartRivals> rivalsOf(const Snapshot& s, const BetaSettings& settings, int scenario);

/// Holds the rival's figure over all years; its source is the reason.
CaseEdit adopt(const Snapshot& s, model::RowId row, const Rival& rival, int scenario, Provenance said);

/// What every method gives without a hurdle, with it for equity and for the firm.
struct HurdleValues {
  std::vector<std::string> methods;
  std::vector<std::vector<Figure>> values;  ///< by method: none, equity, firm; per share
};
HurdleValues valuesAtHurdle(const Snapshot& s, int scenario);

/// The country premium that the table of regions and the filed sales by region give.
CountryPremium premiumOfSales(const Snapshot& s);

/// Average rate of the borrowings on record whose rate is known, by amount; absent where there are none.
Figure rateOfTranches(const Snapshot& s);

/// The cost of equity at which the flows to shareholders are worth the price: every one within 0 to 50 %.
std::vector<double> impliedCostOfEquity(const Snapshot& s, int scenario);

}  // namespace zl::services
