#pragma once
// An interim report of the year that is forecast: how far the year has come, against the year
// before at the same date, and what is left for the forecast to come true.

#include <string>
#include <vector>

#include "services/stages/snapshot.h"
#include "services/text/figure_json.h"

namespace zl::services {

/// A row from the year's start to the report's end. Balances stand as of its end and have no rest.
struct InterimLine {
  std::string row;
  std::string label;
  Kind kind = Kind::Money;
  Figure actual;      ///< this year to date
  Figure yearBefore;  ///< to the same date a year before
  Figure growth;      ///< actual over the year before, less one; flows of money alone
  Figure forecast;    ///< base's for the whole year
  Figure reached;     ///< actual over the forecast
  Figure usual;       ///< what the year before had reached of its whole at this date
  Figure rest;        ///< forecast less actual: what is left to come
  Figure restGrowth;  ///< the rest over the rest of the year before, less one
};

struct InterimProgress {
  std::string period;  ///< "Q2 2026"; empty: no interim report of the year that is forecast first
  std::vector<InterimLine> lines;
};

/// The latest interim report of the first forecast year: filed flows and what history rules make of
/// flows alone, amounts before ratios, then balances. A line that no interim report has is left out.
InterimProgress interimProgress(const Snapshot& s);

Json interimProgressJson(const InterimProgress& progress);
std::string interimProgressText(const InterimProgress& progress, const Snapshot& s);

}  // namespace zl::services
