#include "services/stories/story.h"

#include "core/quantity/number_text.h"

namespace zl::services {

std::string shownWithUnit(const Snapshot& s, const Figure& figure, Kind kind) {
  if (!figure.hasValue()) return figure.isNotMeaningful() ? "not meaningful" : "absent";
  const std::string unit = unitText(kind, s.company().currency, s.company().listing.unit);
  return figureText(figure, kind) + (unit.empty() ? "" : " " + unit);
}

std::string shownOrWhy(const Snapshot& s, const Figure& figure, Kind kind) {
  const std::string shown = shownWithUnit(s, figure, kind);
  return figure.hasValue() || figure.reason().empty() ? shown : shown + ": " + figure.reason();
}

Story storyAbout(const Snapshot& s, std::string title, const Figure& figure, Kind kind) {
  Story story;
  story.title = std::move(title);
  story.figure = shownWithUnit(s, figure, kind);
  if (!figure.hasValue() && !figure.reason().empty()) story.lines.push_back(figure.reason());
  return story;
}

void reads(const Snapshot& s, Story& story, model::RowId row, int column) {
  if (!row.known() || column < 0 || column >= s.evaluation->layout().columns()) return;
  if (s.evaluation->model()[row].timing == model::Timing::Constant) column = 0;
  story.reads.push_back(linkTo(*s.evaluation, s.years(), {row, column}, story.scenario));
}

void reads(const Snapshot& s, Story& story, model::Role role, int column) {
  reads(s, story, s.model().find(role), column);
}

}  // namespace zl::services
