#pragma once
// Rows of the tables beside the projection: what each choice costs, forecasts that have come true,
// the year to date, published sets. Choosing from what services tell, never computing.

#include <vector>

#include "app/grid/ledger_model.h"
#include "services/views/decide.h"
#include "services/views/interim_progress.h"
#include "services/views/published.h"
#include "services/views/roll_forward.h"
#include "services/views/scenario_view.h"

namespace zl::app {

/// Effect, base value at the lower and the upper end, what it stands at and why, of everything undecided; placeholders
/// first.
std::vector<LedgerRow> decideRows(const services::Snapshot& s, const services::DecideNext& next);

/// Chosen, neutral and effect of every choice of base, the two totals first.
std::vector<LedgerRow> cautionRows(const services::Snapshot& s, const services::SumOfCaution& sum);

/// A column per scenario, then actual, gap and the gap as a share.
std::vector<LedgerRow> actualRows(const services::Snapshot& s);

/// To date, a year before, growth, forecast, reached, usual, to come and its growth.
std::vector<LedgerRow> interimRows(const services::Snapshot& s, const services::InterimProgress& progress);

/// Published, now, change, its share, consensus and guidance.
std::vector<LedgerRow> publishedRows(const services::Snapshot& s, const PublishedSet& set);

}  // namespace zl::app
