#pragma once
// Every figure of every page at full precision, for other programs: rows by year and scenario with the analyst's own,
// single values, statistics and trends of history, quarters and trailing months, the market, peers, values.

#include <string>

#include "services/stages/snapshot.h"
#include "services/text/figure_json.h"

namespace zl::services {

/// One entry a figure: page, table, row, column, scenario (empty where it is of none), unit, figure.
Json figuresJson(const Snapshot& s);
/// The same as CSV; a figure that is none has an empty cell and its reason in the last column.
std::string figuresText(const Snapshot& s);

}  // namespace zl::services
