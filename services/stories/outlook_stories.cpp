#include "services/stories/outlook_stories.h"
#include "services/stories/sources.h"
#include "services/views/method_figures.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/quantity/number_text.h"
#include "services/stories/rows.h"

namespace zl::services {
namespace {

/// Filed lines that a history rule reads, with their facts in the statements ahead.
void tellLines(const Snapshot& s, const model::Expr& rule, int column, int depth, std::vector<model::RowId>& seen,
               Story& story) {
  constexpr int kDeepest = 32;
  const model::Model& m = s.evaluation->model();
  for (const model::Cell read : model::cellsRead(m, s.evaluation->layout(), rule, column)) {
    const model::Row& row = m[read.row];
    if (row.isStandardLine() && std::count(seen.begin(), seen.end(), read.row) == 0) {
      seen.push_back(read.row);
      const LineCell& cell = s.filed->ahead->at(row.name, column);
      story.lines.push_back(row.label + ": " + shownOrWhy(s, cell.figure, row.kind));
      for (const LineCell::Part& part : cell.parts) story.lines.push_back("    " + factWords(s, part));
    } else if (!row.historyFiled && row.history && depth < kDeepest && read.column == column) {
      tellLines(s, *row.history, column, depth + 1, seen, story);
    }
  }
}

}  // namespace

Story actualStory(const Snapshot& s, const ForecastAgainstActual& line) {
  Story story = storyAbout(s, line.label + " " + line.period + ", as filed", line.actual, line.kind);
  const model::RowId row = s.evaluation->model().find(line.row);
  if (!row.known() || !s.filed->ahead) return story;
  const int column = line.column;
  if (rowAt(s, row).isStandardLine()) {
    for (const LineCell::Part& part : s.filed->ahead->at(line.row, column).parts)
      story.lines.push_back(factWords(s, part));
  } else if (rowAt(s, row).history) {
    story.lines.push_back("by history's rule " + expressionText(*rowAt(s, row).history) + ", of the year's lines:");
    std::vector<model::RowId> seen;
    tellLines(s, *rowAt(s, row).history, column, 0, seen, story);
  }
  return story;
}

Story gapStory(const Snapshot& s, const ForecastAgainstActual& line, bool share) {
  Story story = actualStory(s, line);
  story.title = line.label + " " + line.period + (share ? ", gap as a share of the forecast" : ", gap");
  story.figure = share ? shownWithUnit(s, line.gapShare, Kind::Ratio) : shownWithUnit(s, line.gap, line.kind);
  story.scenario = baseLane(s);
  story.lines.insert(story.lines.begin(), "as filed, " + shownOrWhy(s, line.actual, line.kind) +
                                              ", less Base's forecast" + (share ? ", over the forecast" : ""));
  reads(s, story, s.evaluation->model().find(line.row), line.column);
  return story;
}

Story interimProgressStory(const Snapshot& s, const InterimLine& line, const std::string& period, InterimFigure which) {
  struct Told {
    const char* words;
    const char* rule;
    const Figure* figure;
    Kind kind;
    bool forecast;    ///< stands on base's forecast
    bool yearBefore;  ///< stands on the whole year before
  };
  const auto told = [&]() -> Told {
    switch (which) {
      case InterimFigure::Growth:
        return {"growth to date",
                "this year to date over the year before to the same date, less one",
                &line.growth,
                Kind::Ratio,
                false,
                false};
      case InterimFigure::Reached:
        return {"reached", "this year to date over Base's forecast of the whole year", &line.reached, Kind::Ratio, true,
                false};
      case InterimFigure::Usual:
        return {"usually reached",
                "the year before to the same date over the whole of it",
                &line.usual,
                Kind::Ratio,
                false,
                true};
      case InterimFigure::Rest:
        return {"to come", "Base's forecast of the whole year less this year to date", &line.rest, line.kind, true,
                false};
      case InterimFigure::RestGrowth:
        break;
    }
    return {"growth to come",
            "what is to come over the rest of the year before, less one",
            &line.restGrowth,
            Kind::Ratio,
            true,
            true};
  }();
  Story story = storyAbout(s, line.label + " " + period + ", " + told.words, *told.figure, told.kind);
  story.scenario = baseLane(s);
  story.lines.emplace_back(told.rule);
  story.lines.push_back("to date: " + shownOrWhy(s, line.actual, line.kind));
  story.lines.push_back("to the same date a year before: " + shownOrWhy(s, line.yearBefore, line.kind));
  const model::RowId row = s.evaluation->model().find(line.row);
  if (told.forecast) reads(s, story, row, s.evaluation->layout().historyYears);
  if (told.yearBefore) reads(s, story, row, s.evaluation->layout().baseColumn());
  return story;
}

Story publishedStory(const Snapshot& s, const PublishedLine& line, const PublishedSet& set, PublishedFigure which) {
  const bool share = which == PublishedFigure::Share;
  const char* words[] = {", as published", ", today", ", change since published", ", change since published"};
  const Figure* figures[] = {&line.old, &line.now, &line.change, &line.share};
  const auto at = static_cast<size_t>(which);
  Story story = storyAbout(s, line.label + (line.period.empty() ? "" : " " + line.period) + words[at], *figures[at],
                           share ? Kind::Ratio : line.kind);
  story.scenario = line.scenario.empty() ? baseLane(s) : std::max(0, s.caseOf().indexOf(line.scenario));
  if (which != PublishedFigure::Now) {
    story.lines.push_back(fmt::format("'{}', published {} by {}, valued at {}", set.name, set.said.at.substr(0, 10),
                                      set.said.author, dateText(set.valuationDate)));
    if (!set.said.reason.empty()) story.lines.push_back(set.said.reason);
  }
  if (which == PublishedFigure::Old) return story;
  if (which != PublishedFigure::Now) {
    story.lines.push_back("today less " + shownWithUnit(s, line.old, line.kind) + " as published" +
                          (share ? ", over what was published" : ""));
  }
  const model::Layout& layout = s.evaluation->layout();
  if (!line.row.empty()) {
    reads(s, story, s.model().find(line.row), layout.baseColumn() + line.year - s.years().back().label());
  } else {
    const model::Role role = line.scenario.empty() ? model::Role::Price : model::Role::ValuePerShare;
    reads(s, story, line.valueRow.empty() ? s.model().find(role) : s.model().find(line.valueRow), 0);
  }
  return story;
}

Story impliedGrowthStory(const Snapshot& s, int scenario) {
  Story story;
  story.title = "Growth the exit multiple implies · " + s.caseOf().scenarios[static_cast<size_t>(scenario)].label;
  story.scenario = scenario;
  for (const double g : impliedGrowthOf(s, scenario))
    story.figure += (story.figure.empty() ? "" : " or ") + groupedNumber(g * 100, 1);
  story.figure = story.figure.empty() ? "none" : story.figure + " %";
  story.lines.emplace_back("every growth rate at which the perpetuity in use gives the exit's terminal value");
  const int last = s.evaluation->layout().columns() - 1;
  reads(s, story, model::Role::ExitTerminal);
  reads(s, story, model::Role::Wacc, last);
  reads(s, story, model::Role::ReturnWeight);
  reads(s, story, model::Role::ReturnOnNewCapital);
  return story;
}

Story probabilityStory(const Snapshot& s, int scenario, const Result<AssumptionHistory>& history) {
  const Scenario& of = s.caseOf().scenarios[static_cast<size_t>(scenario)];
  Story story = storyAbout(s, "Probability of " + of.label, Figure::of(of.probability), Kind::Ratio);
  story.lines.emplace_back("the analyst's own; the probabilities of all scenarios sum to one");
  if (!history) {
    story.lines.push_back(history.error().text());
    return story;
  }
  for (const AssumptionChange& change : history->changes)
    story.lines.push_back(change.at.substr(0, 10) + " " + change.author + ": " + changeText(change));
  if (const std::string untold = untoldText(*history); !untold.empty()) story.lines.push_back(untold);
  if (history->changes.empty() && history->untoldBefore == 0)
    story.lines.emplace_back("as it was brought in; it has not been changed since");
  return story;
}

Story undecidedStory(const Snapshot& s, const Undecided& u, Kind kind, UndecidedFigure which) {
  const model::Row& row = s.model()[u.row];
  const char* what = which == UndecidedFigure::Low    ? ": base value at its lower end"
                     : which == UndecidedFigure::High ? ": base value at its upper end"
                                                      : ": how far base value lies apart";
  const Figure& figure = which == UndecidedFigure::Low ? u.low : which == UndecidedFigure::High ? u.high : u.effect;
  Story story = storyAbout(s, row.label + what, figure, kind);
  story.lines.push_back("Everything else as in base; it is moved by the " + u.apart);
  story.lines.push_back((u.placeholder ? "Placeholder: "
                         : u.proposed  ? "Proposed: "
                                       : "The model's preset: ") +
                        u.words + (u.reason.empty() ? "" : ", " + u.reason));
  story.scenario = baseLane(s);
  reads(s, story, u.row, row.declared == model::Declared::Driver ? s.evaluation->layout().columns() - 1 : 0);
  reads(s, story, model::Role::ValuePerShare);
  return story;
}

Story limitStory(const Snapshot& s, const MonitorLimit& limit, bool preset) {
  const bool own = s.caseOf().limits.count(limit.monitor) > 0;
  Story story = storyAbout(s, std::string(limit.monitor) + (preset ? ", default" : ", limit"),
                           Figure::of(preset ? limit.preset : limitOf(s.caseOf(), limit.monitor)), limit.kind);
  story.lines.push_back(std::string("held against it: ") + limit.measure);
  story.lines.emplace_back(preset ? "in force where no other limit is typed"
                           : own  ? "typed by the analyst in this case"
                                  : "the default; nobody has typed another");
  return story;
}

}  // namespace zl::services
