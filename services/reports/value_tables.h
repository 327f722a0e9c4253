#pragma once
// The cost of capital and the value from cash, as the pages of the same names show them: text for reading, CSV and JSON
// at full precision.

#include <string>
#include <vector>

#include "services/stages/own_beta.h"
#include "services/stages/snapshot.h"
#include "services/text/figure_json.h"

namespace zl::services {

/// One figure of a report.
struct ReportFigure {
  std::string table;  ///< "rivals", "rate by year"
  std::string row;    ///< name of the model's row; empty for what is no row
  std::string label;
  std::string period;    ///< "2026E"; empty where it is of no year
  std::string scenario;  ///< empty where it is of none
  Kind kind = Kind::Ratio;
  Figure figure;
  std::string source;  ///< where it is from, where that is not the model
};

/// Rate, weights, rivals of each part, beta and peers' betas, the rate by year; rivals and betas of one scenario.
std::vector<ReportFigure> capitalFigures(const Snapshot& s, const BetaSettings& settings, int scenario);
/// The walk to a share, the years, what lies beyond, the claims, every other way, of all scenarios.
std::vector<ReportFigure> cashFigures(const Snapshot& s);
/// Tables one under the other; years and scenarios side by side.
std::string reportText(const std::vector<ReportFigure>& figures, const Snapshot& s);
std::string reportCsv(const std::vector<ReportFigure>& figures);
Json reportJson(const std::vector<ReportFigure>& figures, const Snapshot& s);

}  // namespace zl::services
