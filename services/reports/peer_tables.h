#pragma once
// What peers and the ways to value that rest on them say, as the page of the same name shows it.

#include "services/reports/value_tables.h"

namespace zl::services {

/// Every multiple of every peer with why it counts or not, statistics, the subject's own and its place, implied values.
std::vector<ReportFigure> multipleFigures(const Snapshot& s);
/// The subject's ratios beside the peers', multiples that growth, payout and return justify, why the subject's is
/// another than the peers', and multiples fitted across them.
std::vector<ReportFigure> ratioFigures(const Snapshot& s);
/// The own past multiples: statistics, and every month of each.
std::vector<ReportFigure> pastFigures(const Snapshot& s);
/// The return to the exit multiple with what makes it; dividends, the growth multiple, yields and excess return on
/// book, of all scenarios.
std::vector<ReportFigure> exitFigures(const Snapshot& s);
std::vector<ReportFigure> dividendFigures(const Snapshot& s);
/// Each part of the company with its figure, multiple and worth; what they come to.
std::vector<ReportFigure> partsFigures(const Snapshot& s);

}  // namespace zl::services
