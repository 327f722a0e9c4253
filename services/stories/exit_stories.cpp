#include "services/stories/exit_stories.h"

#include "core/quantity/number_text.h"
#include "services/stories/rows.h"

namespace zl::services {

Story exitStory(const Snapshot& s, const std::string& label, const ExitReturn& of, const Figure& figure, int scenario) {
  Story story = storyAbout(s, label, figure, Kind::Ratio);
  story.scenario = scenario;
  story.lines.push_back(
      "from today's price to the exit after " + std::to_string(of.years) +
      " years; a year's return is the rate at which dividends and the exit price are worth the price");
  story.lines.emplace_back(
      "what makes it: log points of revenue, margin, count of shares and multiple, dividends as the rest, scaled to "
      "the "
      "total");
  for (const model::ViewRow& row : s.model().view("exit_parts")) {
    if (s.model()[row.row].timing == model::Timing::Constant) reads(s, story, row.row, 0);
  }
  reads(s, story, model::Role::Price);
  return story;
}

Story exitBesideStory(const Snapshot& s, const std::string& label, const ExitBeside& of, const Figure& figure,
                      Kind kind, int scenario) {
  Story story = storyAbout(s, label, figure, kind);
  story.scenario = scenario;
  if (!of.label.empty())
    story.lines.push_back("own past: " + of.label + ", by month, on Peers, past; outlier months do not count");
  const auto& parts = s.model().view("exit_parts");
  constexpr size_t kMultiple = 2, kJustified = 11;
  if (scenario < 0 || parts.size() <= kJustified) return story;
  if (const std::string& reason = of.scenarios[static_cast<size_t>(scenario)].reason; !reason.empty())
    story.lines.push_back("why the multiple is what it is: " + reason);
  const int year = exitYear(s, scenario);
  const model::Layout& layout = s.evaluation->layout();
  if (year >= 1 && year <= layout.forecastYears) reads(s, story, parts[kMultiple].row, layout.historyYears + year - 1);
  reads(s, story, parts[kJustified].row, 0);
  return story;
}

Story exitGridStory(const Snapshot& s, double growth, double multiple, const Figure& figure) {
  Story story = storyAbout(
      s, "Yearly return at " + groupedNumber(growth * 100, 1) + " % and " + groupedNumber(multiple, 1) + " x", figure,
      Kind::Ratio);
  story.lines.emplace_back("the model run with growth by itself and the exit multiple at these, all else as it is");
  return story;
}

Story exitRunStory(const Snapshot& s, const ExitRunLine& line, size_t side, const std::string& run) {
  Story story = storyAbout(s, line.label + ", " + run, line.figures[side], line.kind);
  story.lines.push_back(run == kNow
                            ? "as the case stands"
                            : "the version '" + run + "', its assumptions with what was in the book for it then");
  if (side == 0 || !line.figures[0].hasValue() || !line.figures[side].hasValue()) return story;
  story.lines.push_back("the present run: " + figureText(line.figures[0], line.kind));
  return story;
}

}  // namespace zl::services
