#include "app/pages/own_ranges.h"

#include "app/look/theme.h"
#include "services/stories/rows.h"

namespace zl::app {

std::vector<MethodRange> ownRanges(const services::Snapshot& s) {
  std::vector<MethodRange> ranges;
  const int base = services::baseLane(s);
  for (const model::Method& method : s.model().methods) {
    if (!method.low.known()) continue;
    const Figure low = s.evaluation->constant(method.low, base);
    const Figure middle = s.evaluation->constant(method.value, base);
    const Figure high = s.evaluation->constant(method.high, base);
    const auto told = [&](model::RowId row) { return ToldFigure{model::Cell{row, 0}, base, {}}; };
    MethodRange r;
    r.label = text(method.label);
    if (const Figure* gap = decidingGap({&low, &middle, &high})) {
      r.whyNot = text(gap->reason());
    } else {
      std::tie(r.low, r.middle, r.high) = std::tuple(low.value(), middle.value(), high.value());
      std::tie(r.lowTold, r.middleTold, r.highTold) =
          std::tuple(told(method.low), told(method.value), told(method.high));
    }
    ranges.push_back(std::move(r));
  }
  return ranges;
}

std::optional<RangeMark> rangeMark(const services::Snapshot& s, model::Role role) {
  const int base = services::baseLane(s);
  const Figure figure = s.evaluation->constant(role, base);
  if (!figure.hasValue()) return std::nullopt;
  return RangeMark{figure.value(), {model::Cell{s.model().find(role), 0}, base, {}}};
}

}  // namespace zl::app
