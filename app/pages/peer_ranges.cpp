#include "app/pages/peer_ranges.h"

#include "app/look/theme.h"
#include "services/stories/peer_stories.h"
#include "services/stories/rows.h"

namespace zl::app {

std::vector<MethodRange> peerRanges(const services::Snapshot& s) {
  std::vector<MethodRange> ranges;
  for (Multiple m : kMultiples) {
    const ImpliedValue& v = s.crossCheck.implied.at(m);
    MethodRange r;
    r.label = QObject::tr("Peers, %1").arg(QString::fromLatin1(multipleLabel(m)));
    if (v.low.hasValue() && v.high.hasValue() && v.median.hasValue()) {
      r.low = v.low.value();
      r.high = v.high.value();
      r.middle = v.median.value();
      const MultipleStatistics& of = s.crossCheck.statistics.at(m);
      const auto told = [m](const char* what, const Figure& multiple, const Figure& figure) {
        return ChartFigure{{}, -1, [=](const services::Snapshot& now) {
                             return services::impliedStory(now, m, what, multiple, figure);
                           }};
      };
      r.lowTold = told("low", of.low, v.low);
      r.middleTold = told("median", of.median, v.median);
      r.highTold = told("high", of.high, v.high);
    } else {
      r.whyNot = text(v.median.reason().empty() ? "no peer counts" : v.median.reason());
    }
    ranges.push_back(std::move(r));
  }
  return ranges;
}

std::optional<RangeMark> rangeMark(const services::Snapshot& s, const char* row) {
  const int base = services::baseLane(s);
  const Figure figure = s.evaluation->constant(row, base);
  if (!figure.hasValue()) return std::nullopt;
  return RangeMark{figure.value(), {model::Cell{s.evaluation->model().find(row), 0}, base, {}}};
}

}  // namespace zl::app
