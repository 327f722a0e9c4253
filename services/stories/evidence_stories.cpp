#include "services/stories/evidence_stories.h"

#include <fmt/core.h>

#include "core/quantity/number_text.h"
#include "services/stories/documents.h"
#include "services/stories/history_stories.h"
#include "services/stories/rows.h"
#include "services/views/driver_evidence.h"

namespace zl::services {
namespace {

std::string estimateWords(const Snapshot& s, const Estimate& e) {
  const model::RowId row = s.evaluation->model().find(e.item);
  const Kind kind = !row.known() ? Kind::Money : rowAt(s, row).kind;
  const auto shown = [&](double x) { return figureText(Figure::of(x), kind); };
  std::string words = fmt::format("{} {}: {}", !row.known() ? e.item : rowAt(s, row).label, e.year,
                                  shownWithUnit(s, Figure::of(e.mean), kind));
  if (e.low && e.high) words += " (" + shown(*e.low) + " to " + shown(*e.high) + ")";
  if (e.count > 0) words += fmt::format(", {} {}", e.count, e.count == 1 ? "analyst" : "analysts");
  return words + ", " + dateText(e.date) + ", " + e.source;
}

}  // namespace

Story estimateStory(const Snapshot& s, model::RowId row, int column, EstimateBy by, EstimateEnd end,
                    const Figure& figure) {
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
                        activeDocuments(s, exchange::ContentKind::RateTable));
  return story;
}

Story rankStory(const Snapshot& s, model::RowId row, int scenario, const Figure& figure) {
  Story story = yearsStory(s, lastYears(s, row, s.evaluation->layout().historyYears, Reading::Adjusted, true),
                           "rank of the last forecast year", figure, Kind::Ratio);
  story.scenario = scenario;
  story.lines.insert(story.lines.begin(),
                     "share of the regular years at or below the choice, those at the choice by half");
  const int last = s.evaluation->layout().columns() - 1;
  story.reads.insert(story.reads.begin(), linkTo(*s.evaluation, s.years(), {row, last}, scenario));
  return story;
}

Story referenceStory(const Snapshot& s, model::RowId row, Reference reference, const Figure& figure) {
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
  reads(s, story, model::Role::ValuePerShare);
  return story;
}

Story neutralStory(const Snapshot& s, const CautionLine& line) {
  const model::RowId row = s.evaluation->model().find(line.row);
  if (!row.known()) return storyAbout(s, line.label + ", neutral", line.neutral, line.kind);
  if (rowAt(s, row).declared == model::Declared::Driver)
    return referenceStory(s, row, Reference::OwnAverage, line.neutral);
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
  const model::RowId row = s.evaluation->model().find(line.row);
  const bool driver = row.known() && rowAt(s, row).declared == model::Declared::Driver;
  reads(s, story, row, driver ? s.evaluation->layout().columns() - 1 : 0);
  reads(s, story, model::Role::ValueBeforeFloor);
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
  reads(s, story, model::Role::ValueBeforeFloor);
  return story;
}

}  // namespace zl::services
