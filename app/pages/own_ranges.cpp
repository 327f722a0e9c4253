#include "app/pages/own_ranges.h"

#include "app/look/theme.h"
#include "services/stories/peer_stories.h"
#include "services/stories/rows.h"

namespace zl::app {

namespace {

MethodRange rangeOf(const services::Snapshot& s, QString label, model::RowId lowRow, model::RowId middleRow,
                    model::RowId highRow) {
  const int base = services::baseLane(s);
  const auto figure = [&](model::RowId row) {
    return row.known() ? s.evaluation->constant(row, base) : Figure::absent("the model values nothing by it");
  };
  const auto told = [&](model::RowId row) { return ToldFigure{model::Cell{row, 0}, base, {}}; };
  const Figure low = figure(lowRow), middle = figure(middleRow), high = figure(highRow);
  MethodRange r;
  r.label = std::move(label);
  if (const Figure* gap = decidingGap({&low, &middle, &high})) {
    r.whyNot = text(gap->reason());
    return r;
  }
  std::tie(r.low, r.middle, r.high) = std::tuple(low.value(), middle.value(), high.value());
  std::tie(r.lowTold, r.middleTold, r.highTold) = std::tuple(told(lowRow), told(middleRow), told(highRow));
  return r;
}

}  // namespace

std::vector<MethodRange> ownRanges(const services::Snapshot& s) {
  std::vector<MethodRange> ranges;
  for (const model::Method& method : s.model().methods) {
    if (method.low.known()) ranges.push_back(rangeOf(s, text(method.label), method.low, method.value, method.high));
  }
  return ranges;
}

std::vector<MethodRange> othersRanges(const services::Snapshot& s) {
  std::vector<MethodRange> ranges;
  for (const services::OthersValue& of : services::othersValues(s)) {
    MethodRange r;
    r.label = QObject::tr("others: %1").arg(text(of.source));
    r.low = of.low.value_or(of.mean);
    r.middle = of.mean;
    r.high = of.high.value_or(of.mean);
    const auto told = [&](double figure, const char* what) {
      ToldFigure one;
      one.story = [of, figure, what = std::string(what)](const services::Snapshot& shown) {
        return services::othersStory(shown, of, what, Figure::of(figure), Kind::Quote);
      };
      return one;
    };
    r.lowTold = told(r.low, "low");
    r.middleTold = told(of.mean, "value per share");
    r.highTold = told(r.high, "high");
    ranges.push_back(std::move(r));
  }
  return ranges;
}

std::vector<MethodRange> rangesOfMultiples(const services::Snapshot& s, const std::vector<Multiple>& multiples) {
  std::vector<MethodRange> ranges;
  for (const Multiple m : multiples) {
    const auto row = [&](const char* statistic) {
      return s.model().peerRow(model::Declared::Row, multipleName(m), statistic);
    };
    ranges.push_back(rangeOf(s, text(multipleLabel(m)), row("low"), row("median"), row("high")));
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
