#include "services/stories/outlook_stories.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/quantity/number_text.h"
#include "services/stories/documents.h"
#include "services/stories/history_stories.h"

namespace zl::services {
namespace {

const model::Row& rowAt(const Snapshot& s, int row) {
  return s.evaluation->model().rows[static_cast<size_t>(row)];
}

int baseLane(const Snapshot& s) {
  return std::max(0, s.caseOf().indexOf(kBase));
}

std::string estimateWords(const Snapshot& s, const Estimate& e) {
  const int row = s.evaluation->model().find(e.item);
  const Kind kind = row < 0 ? Kind::Money : rowAt(s, row).kind;
  const auto shown = [&](double x) { return figureText(Figure::of(x), kind); };
  std::string words = fmt::format("{} {}: {}", row < 0 ? e.item : rowAt(s, row).label, e.year,
                                  shownWithUnit(s, Figure::of(e.mean), kind));
  if (e.low && e.high) words += " (" + shown(*e.low) + " to " + shown(*e.high) + ")";
  if (e.count > 0) words += fmt::format(", {} {}", e.count, e.count == 1 ? "analyst" : "analysts");
  return words + ", " + dateText(e.date) + ", " + e.source;
}

}  // namespace

Story estimateStory(const Snapshot& s, int row, int column, EstimateBy by, EstimateEnd end, const Figure& figure) {
  const std::string whose = by == EstimateBy::Company ? "guidance" : "consensus";
  const char* ends[] = {", low", "", ", high"};
  Story story =
      storyAbout(s, rowAt(s, row).label + " " + s.periodOf(column) + ", " + whose + ends[static_cast<int>(end)], figure,
                 rowAt(s, row).kind);
  const Consensus estimates = consensusOf(s, by);
  const std::vector<Estimate> behind = estimates.behind(row, column);
  const bool itself = behind.size() == 1 && behind.front().item == rowAt(s, row).name;
  if (!itself && rowAt(s, row).history) {
    story.lines.push_back("by history's rule " + expressionText(*rowAt(s, row).history) +
                          " over what is estimated, the last actual where a rule looks back:");
  }
  for (const Estimate& e : behind) story.lines.push_back(estimateWords(s, e));
  if (end != EstimateEnd::Mean) story.lines.emplace_back("every estimate at that end at once");
  story.lines.push_back("from " + activeDocuments(s, exchange::ContentKind::EstimateTable));
  return story;
}

Story rateStory(const Snapshot& s, const std::string& name, const Figure& figure, Kind kind,
                const std::string& source) {
  Story story = storyAbout(s, name, figure, kind);
  story.lines.push_back(source);
  story.lines.push_back("the latest at the valuation date; from " +
                        activeDocument(s, exchange::ContentKind::RateTable));
  return story;
}

Story rankStory(const Snapshot& s, int row, int scenario, const Figure& figure) {
  Story story = yearsStory(s, lastYears(s, row, s.evaluation->layout().historyYears, Reading::Adjusted, true),
                           "rank of the last forecast year", figure, Kind::Ratio);
  story.scenario = scenario;
  story.lines.insert(story.lines.begin(),
                     "share of the regular years at or below the choice, those at the choice by half");
  const int last = s.evaluation->layout().columns() - 1;
  story.reads.insert(story.reads.begin(), linkTo(*s.evaluation, s.years(), {row, last}, scenario));
  return story;
}

Story referenceStory(const Snapshot& s, int row, Reference reference, const Figure& figure) {
  const std::string words = referenceWords(reference);
  if (reference == Reference::LastYear) {
    return yearsStory(s, lastYears(s, row, 1), words, figure, rowAt(s, row).kind);
  }
  if (reference == Reference::OwnAverage) {
    constexpr int kMostYears = 10;
    Story story =
        yearsStory(s, lastYears(s, row, kMostYears, Reading::Adjusted, true), words, figure, rowAt(s, row).kind);
    story.lines.insert(story.lines.begin(), "median of the regular years, held within what the driver may be");
    return story;
  }
  const Consensus consensus = consensusOf(s);
  int last = -1;
  const model::Layout& layout = s.evaluation->layout();
  for (int c = layout.historyYears; c < layout.columns(); ++c) {
    if (consensus.spread(row, c).mean.hasValue()) last = c;
  }
  if (last < 0) return storyAbout(s, rowAt(s, row).label + ", " + words, figure, rowAt(s, row).kind);
  const EstimateEnd end = reference == Reference::ConsensusLow    ? EstimateEnd::Low
                          : reference == Reference::ConsensusHigh ? EstimateEnd::High
                                                                  : EstimateEnd::Mean;
  Story story = estimateStory(s, row, last, EstimateBy::Analysts, end, figure);
  story.lines.emplace_back("the last year that is estimated; the path runs on from there as in Base");
  return story;
}

Story referenceValueStory(const Snapshot& s, Reference reference, const Figure& figure) {
  Story story = storyAbout(s, std::string("Value per share, ") + referenceWords(reference), figure, Kind::Quote);
  story.scenario = baseLane(s);
  story.lines.emplace_back(
      "Base with every driver that has a history of its own at the figures of this column; all else is as in Base. "
      "The whole model is valued again. Beside it, Base as it is:");
  reads(s, story, "value_per_share");
  return story;
}

Story neutralStory(const Snapshot& s, const CautionLine& line) {
  const int row = s.evaluation->model().find(line.row);
  if (row < 0) return storyAbout(s, line.label + ", neutral", line.neutral, line.kind);
  if (rowAt(s, row).role == model::Role::Driver) return referenceStory(s, row, Reference::OwnAverage, line.neutral);
  Story story = storyAbout(s, line.label + ", neutral", line.neutral, line.kind);
  story.lines.push_back("the model's preset, " + s.evaluation->model().title);
  return story;
}

Story cautionStory(const Snapshot& s, const CautionLine& line) {
  Story story = storyAbout(s, "Effect of " + line.label, line.effect, Kind::Quote);
  story.scenario = baseLane(s);
  story.lines.push_back("value per share of Base as chosen, less the same with " +
                        shownWithUnit(s, line.neutral, line.kind) + " in place of " +
                        shownWithUnit(s, line.chosen, line.kind) +
                        " and all else as it is: the whole model is valued again, before the floor at zero");
  const int row = s.evaluation->model().find(line.row);
  const bool driver = row >= 0 && rowAt(s, row).role == model::Role::Driver;
  reads(s, story, row, driver ? s.evaluation->layout().columns() - 1 : 0);
  reads(s, story, "raw_value");
  return story;
}

Story cautionTotalStory(const Snapshot& s, bool together, const Figure& figure) {
  Story story =
      storyAbout(s, together ? "All choices together" : "Sum of the choices, each taken alone", figure, Kind::Quote);
  story.scenario = baseLane(s);
  story.lines.emplace_back(together
                               ? "value per share of Base as chosen, less the same with every choice below neutral "
                                 "at once"
                               : "sum of the effects below; it differs from all together by what choices do to "
                                 "one another");
  reads(s, story, "raw_value");
  return story;
}

namespace {

/// Filed lines that a history rule reads, with their facts in the statements ahead.
void tellLines(const Snapshot& s, const model::Expr& rule, int column, int depth, std::vector<int>& seen,
               Story& story) {
  constexpr int kDeepest = 32;
  const model::Model& m = s.evaluation->model();
  for (const model::Cell read : model::cellsRead(m, s.evaluation->layout(), rule, column)) {
    const model::Row& row = m.rows[static_cast<size_t>(read.row)];
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
  const int row = s.evaluation->model().find(line.row);
  if (row < 0 || !s.filed->ahead) return story;
  const int column = line.column;
  if (rowAt(s, row).isStandardLine()) {
    for (const LineCell::Part& part : s.filed->ahead->at(line.row, column).parts)
      story.lines.push_back(factWords(s, part));
  } else if (rowAt(s, row).history) {
    story.lines.push_back("by history's rule " + expressionText(*rowAt(s, row).history) + ", of the year's lines:");
    std::vector<int> seen;
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
  const int row = s.evaluation->model().find(line.row);
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
    reads(s, story, line.row.c_str(), layout.baseColumn() + line.year - s.years().back().label());
  } else {
    reads(s, story, line.scenario.empty() ? "price" : "value_per_share");
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
  reads(s, story, "exit_terminal");
  reads(s, story, "wacc", last);
  reads(s, story, "return_weight");
  reads(s, story, "return_on_new_capital");
  return story;
}

Story walkStepStory(const Snapshot& s, const ValueWalk& walk, size_t step, const std::string& shown) {
  Story story;
  const WalkStep& of = walk.steps[step];
  story.title = of.label + ", effect on value per share";
  story.figure = shown + " " + unitText(Kind::Quote, s.company().currency, s.company().listing.unit);
  story.lines.push_back(fmt::format(
      "its mean effect over all orders in which the {} parts that differ could have been changed, each mixture of the "
      "two ends valued whole ({} of them); before the floor at zero (Shapley 1953)",
      walk.steps.size(), walk.mixtures));
  for (const std::string& row : of.rows) story.lines.push_back("differs: " + row);
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

Story ownEffectStory(const Snapshot& s, const OwnEffect& effect, int scenario, bool change) {
  Story story =
      storyAbout(s, "Value per share, " + effect.scenario + (change ? ", change by the text" : ", with the text"),
                 change ? effect.after - effect.before : effect.after, Kind::Quote);
  story.scenario = scenario;
  story.lines.emplace_back(change
                               ? "the whole model valued with the own rows as they are written, less as it is in use:"
                               : "the whole model valued with the own rows as they are written; in use:");
  reads(s, story, "value_per_share");
  return story;
}

Story versionStory(const Side& side, const BesideLine& line, const std::string& scenario) {
  const Snapshot& s = *side.snapshot;
  const int row = s.evaluation->model().find(line.row);
  const int lane = s.caseOf().indexOf(scenario);
  Story story;
  story.title = line.label + (line.period.empty() ? "" : " " + line.period) + ", in '" + side.name + "'";
  if (row < 0 || lane < 0) {
    story.lines.emplace_back("not in this version");
    return story;
  }
  const model::Layout& layout = s.evaluation->layout();
  const bool constant = rowAt(s, row).timing == model::Timing::Constant;
  const int column = constant              ? 0
                     : line.period.empty() ? layout.columns() - 1
                                           : layout.baseColumn() + std::stoi(line.period) - s.years().back().label();
  if (column < 0 || column >= layout.columns()) {
    story.lines.emplace_back("the year is not in this version");
    return story;
  }
  story.figure = shownWithUnit(s, s.evaluation->figure(row, column, lane), line.kind);
  const std::string told = traceText(s, {row, column}, lane, 1);
  for (size_t from = 0; from < told.size();) {
    const size_t end = std::min(told.find('\n', from), told.size());
    story.lines.push_back(told.substr(from, end - from));
    from = end + 1;
  }
  return story;
}

Story weightedStory(const Side& side, const Figure& figure) {
  const Snapshot& s = *side.snapshot;
  Story story = storyAbout(s, "Value per share, weighted, in '" + side.name + "'", figure, Kind::Quote);
  story.lines.emplace_back("each scenario's value times its probability:");
  for (int i = 0; i < s.evaluation->scenarios(); ++i) {
    const Scenario& scenario = s.caseOf().scenarios[static_cast<size_t>(i)];
    story.lines.push_back("    " + scenario.label + ": " +
                          shownOrWhy(s, s.evaluation->constant("value_per_share", i), Kind::Quote) + " at " +
                          shownWithUnit(s, Figure::of(scenario.probability), Kind::Ratio));
  }
  return story;
}

}  // namespace zl::services
