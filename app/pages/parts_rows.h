#pragma once
// The company by parts: revenue, margins, what changed the margin, and operating figures on record.

#include <vector>

#include "app/grid/ledger_model.h"
#include "services/views/company_view.h"

namespace zl::app {

/// One column per filed year.
std::vector<LedgerRow> partsRows(const services::Snapshot& s, const std::vector<services::SegmentView>& views);

}  // namespace zl::app
