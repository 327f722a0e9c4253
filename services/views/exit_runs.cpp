#include "services/views/exit_runs.h"

namespace zl::services {
namespace {

/// Of the view of the exit return the figure of a row by name, in the exit year where it has years.
Figure shownFigure(const Snapshot& s, model::RowId row, int year, int scenario) {
  const Evaluation& e = *s.evaluation;
  if (s.model()[row].timing == model::Timing::Constant) return e.constant(row, scenario);
  if (year < 1 || year > e.layout().forecastYears) return Figure::absent("the exit year lies beyond the forecast");
  return e.figure(row, e.layout().historyYears + year - 1, scenario);
}

}  // namespace

std::vector<ExitRunLine> exitRuns(const std::vector<Side>& sides, const std::string& scenario) {
  std::vector<ExitRunLine> lines;
  if (sides.empty()) return lines;
  // The first side says which lines there are: the view of its model, less its choices, which words tell.
  for (const model::ViewRow& shown : sides.front().snapshot->model().view("exit_return")) {
    const model::Row& row = sides.front().snapshot->model()[shown.row];
    if (row.isChoice()) continue;
    ExitRunLine line{row.label, row.kind, {}};
    for (const Side& side : sides) {
      const Snapshot& s = *side.snapshot;
      const model::RowId there = s.model().find(row.name);
      const int lane = s.caseOf().indexOf(scenario);
      line.figures.push_back(lane < 0        ? Figure::absent("it has no scenario '" + scenario + "'")
                             : there.known() ? shownFigure(s, there, exitYear(s, lane), lane)
                                             : Figure::absent("its model has no such row"));
    }
    lines.push_back(std::move(line));
  }
  ExitRunLine yearly{"Return from today's price, a year", Kind::Ratio, {}};
  for (const Side& side : sides) {
    const int lane = side.snapshot->caseOf().indexOf(scenario);
    yearly.figures.push_back(lane < 0 ? Figure::absent("it has no scenario '" + scenario + "'")
                                      : exitReturn(*side.snapshot, lane).yearly);
  }
  lines.push_back(std::move(yearly));
  return lines;
}

}  // namespace zl::services
