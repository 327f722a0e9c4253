#include "services/stories/version_stories.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/outlook/trace.h"
#include "core/quantity/number_text.h"
#include "services/stories/rows.h"
#include "services/stories/sources.h"
#include "services/text/figure_json.h"

namespace zl::services {

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

Story ownEffectStory(const Snapshot& s, const OwnEffect& effect, int scenario, bool change) {
  Story story =
      storyAbout(s, "Value per share, " + effect.scenario + (change ? ", change by the text" : ", with the text"),
                 change ? effect.after - effect.before : effect.after, Kind::Quote);
  story.scenario = scenario;
  story.lines.emplace_back(change
                               ? "the whole model valued with the own rows as they are written, less as it is in use:"
                               : "the whole model valued with the own rows as they are written; in use:");
  reads(s, story, model::Role::ValuePerShare);
  return story;
}

Story versionStory(const Side& side, const BesideLine& line, const std::string& scenario) {
  const Snapshot& s = *side.snapshot;
  const model::RowId row = s.evaluation->model().find(line.row);
  const int lane = s.caseOf().indexOf(scenario);
  Story story;
  story.title = line.label + (line.period.empty() ? "" : " " + line.period) + ", in '" + side.name + "'";
  if (!row.known() || lane < 0) {
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
  const TraceStep step = trace(*s.evaluation, s.filed->statements, {row, column}, lane);
  if (!step.formula.empty())
    story.lines.insert(story.lines.end(), {step.formulaInWords, "= " + step.formulaWithValues});
  for (const std::string& from : sourceLines(s, step)) story.lines.push_back(from);
  // Of another version nothing can be walked to: what it stands on is told beside it.
  for (const TraceLink& link : step.inputs) {
    story.lines.push_back(link.label + (link.period.empty() ? "" : " " + link.period) + ": " +
                          (link.option.empty() ? shownWithUnit(s, link.figure, link.kind) : link.option));
  }
  return story;
}

Story weightedStory(const Side& side, model::Role role, const Figure& figure) {
  const Snapshot& s = *side.snapshot;
  Story story = storyAbout(s, "Value per share, weighted, in '" + side.name + "'", figure, Kind::Quote);
  story.lines.emplace_back("each scenario's value times its probability:");
  for (int i = 0; i < s.evaluation->scenarios(); ++i) {
    const Scenario& scenario = s.caseOf().scenarios[static_cast<size_t>(i)];
    story.lines.push_back("    " + scenario.label + ": " + shownOrWhy(s, s.evaluation->constant(role, i), Kind::Quote) +
                          " at " + shownWithUnit(s, Figure::of(scenario.probability), Kind::Ratio));
  }
  return story;
}

}  // namespace zl::services
