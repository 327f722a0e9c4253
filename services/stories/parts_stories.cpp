#include "services/stories/parts_stories.h"

#include "core/quantity/number_text.h"

namespace zl::services {

Story partStory(const Snapshot& s, const PartsView& view, size_t part, const std::string& label, const Figure& figure,
                Kind kind) {
  Story story = storyAbout(s, label, figure, kind);
  const int base = s.evaluation->layout().baseColumn();
  if (part < view.sum.parts.size()) {
    const ValuedPart& v = view.sum.parts[part];
    story.lines.push_back("as filed for " + s.periodOf(base) + ", cut by " + view.cut.label + ": revenue " +
                          shownOrWhy(s, v.part.revenue, Kind::Money) + ", profit " +
                          shownOrWhy(s, v.part.profit, Kind::Money));
    if (v.part.choice) {
      const Provenance& said = v.part.choice->said;
      story.lines.push_back(std::string(v.part.choice->of == PartChoice::Of::Ebit ? "profit" : "revenue") + " times " +
                            groupedNumber(v.part.choice->multiple, 2) + ", chosen by " + said.author + " on " +
                            said.at.substr(0, 10) + (said.reason.empty() ? "" : ": " + said.reason));
    }
  } else {
    story.lines.push_back("profit of the parts less that of the whole is what no part bears: " +
                          shownOrWhy(s, view.sum.unallocated, Kind::Money));
    story.lines.push_back("it takes off " + shownOrWhy(s, view.sum.unallocatedValue, Kind::Money));
    reads(s, story, model::Role::Ebit, base);
  }
  story.lines.push_back("the peers' medians: EV to EBIT " + shownOrWhy(s, view.byProfit, Kind::Multiple) +
                        ", EV to sales " + shownOrWhy(s, view.byRevenue, Kind::Multiple));
  return story;
}

}  // namespace zl::services
