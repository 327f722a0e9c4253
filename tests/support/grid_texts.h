#pragma once
// Texts within a ledger: what leaves its cell, lies over another or is a cut label, by the device that records what is
// drawn.

#include <set>
#include <string>

#include "app/grid/ledger_view.h"

namespace zl::app {

/// Adds what is at fault in any row of a grid that is not scrolled sideways; how many texts there are. With a stretch,
/// each label is taken as so many times as wide as it was drawn. Labels that end in an ellipsis are faults only if
/// `labelsWhole`.
int gridFaults(LedgerView& grid, const std::string& where, std::set<std::string>& faults, bool labelsWhole,
               double stretch = 1);

}  // namespace zl::app
