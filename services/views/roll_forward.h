#pragma once
// A new annual report: what was forecast for its year beside what came, and the case moved on.

#include <string>
#include <vector>

#include "core/outlook/roll_forward.h"
#include "services/sessions/session.h"
#include "services/stages/snapshot.h"
#include "services/text/figure_json.h"

namespace zl::services {

/// One row of a year that was forecast and is now filed.
struct ForecastAgainstActual {
  std::string row;
  std::string label;
  Kind kind = Kind::Money;
  std::string period;            ///< "2026"
  int column = 0;                ///< it has as a forecast
  std::vector<Figure> forecast;  ///< by scenario
  Figure actual;
  Figure gap;       ///< actual less base's forecast
  Figure gapShare;  ///< of base's forecast; for ratios and days the gap itself says it
};

/// Rows of the statements and the ratios that drivers are, for every year filed since the base
/// year; empty where there is none.
std::vector<ForecastAgainstActual> forecastAgainstActual(const Snapshot& s);

/// How many years have been filed since the base year.
int yearsAhead(const Snapshot& s);

/// Moves the case on to the last year filed. The valuation date moves to the day of the last price
/// where that lies in the new first forecast year, else to the new year's end.
CaseEdit rollForward(const Snapshot& s);

/// What the state before is kept as when a case is rolled forward.
std::string nameBeforeRolling(const Snapshot& s);

/// Keeps the state before under its name, then rolls forward. Nothing is changed when either fails.
Status keepAndRollForward(Session& session);

Json forecastAgainstActualJson(const Snapshot& s);
std::string forecastAgainstActualText(const Snapshot& s);

}  // namespace zl::services
