#pragma once
// Who holds the company, and what its own people bought and sold, as rows of a grid.

#include <QStringList>
#include <vector>

#include "app/grid/ledger_model.h"
#include "services/stages/snapshot.h"

namespace zl::app {

/// Headers belong to `ownerRows`; prices are in the listing's unit.
QStringList ownerHeaders(const services::Snapshot& s);
/// Holders by size, then trades, the latest first; empty where the record has neither.
std::vector<LedgerRow> ownerRows(const services::Snapshot& s);

}  // namespace zl::app
