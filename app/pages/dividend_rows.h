#pragma once
// What the share has paid, by fiscal year.

#include "app/grid/ledger_view.h"
#include "services/stages/snapshot.h"

namespace zl::app {

/// Paid a share, specials apart, growth and cover; false where nothing is known to be paid. The payments themselves are
/// told of behind each figure.
bool fillPayments(const services::Snapshot& s, LedgerView& grid);

}  // namespace zl::app
