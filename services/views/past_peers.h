#pragma once
// The peers' own multiples at the days of the subject's past ones: what of its past was the market's, and what its own.

#include "services/views/past_multiples.h"

namespace zl::services {

/// Fills PastSeries::peers and what is made of it, from the peers that count for the trailing multiple of the same
/// kind: the close then, of the book's own companies or of a series by the peer's name, times the count of today, over
/// the fiscal year that had been filed by then; claims of the last balance sheet. A series moves the price of the
/// peer's table back from its day.
void setBesidePeers(const Snapshot& s, PastMultiples& past);

}  // namespace zl::services
