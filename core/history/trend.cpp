#include "core/history/trend.h"

#include <algorithm>
#include <cmath>
#include <cstdlib>

#include "core/quantity/number_text.h"

namespace zl {
namespace {

constexpr int kReach = 2;  ///< years on either side that an end is held against

Figure growthAt(const Series& s, size_t i) {
  if (s.irregular[i]) return Figure::notMeaningful("the fiscal year was changed");
  return growth(s.figures[i - 1], s.figures[i]);
}

}  // namespace

bool followsByAYear(Date before, Date end) {
  const int days = daysBetween(before, end);
  return days >= 363 && days <= 372;
}

int Series::find(int year) const {
  const auto found = std::find(years.begin(), years.end(), year);
  return found == years.end() ? -1 : static_cast<int>(found - years.begin());
}

std::string endMark(const Series& s, int index, const EndLimits& limits) {
  const auto at = static_cast<size_t>(index);
  const std::string year = std::to_string(s.years[at]);
  if (s.exceptional[at]) return year + " is flagged exceptional";
  if (!s.figures[at].hasValue()) return {};
  std::vector<Figure> near;
  std::vector<bool> out;
  for (int i = std::max(0, index - kReach); i <= index + kReach && i < static_cast<int>(s.years.size()); ++i) {
    if (i == index) continue;
    near.push_back(s.figures[static_cast<size_t>(i)]);
    out.push_back(s.exceptional[static_cast<size_t>(i)]);
  }
  const Statistics around = describe(near, out);
  if (around.count < 2 || !(around.median.value() > 0)) return {};
  const double ratio = s.figures[at].value() / around.median.value();
  if (ratio >= limits.low && ratio <= limits.high) return {};
  return year + (ratio < limits.low ? " is depressed: " : " is elevated: ") + groupedNumber(ratio * 100, 0, false) +
         " % of the median of the years around it";
}

SpanTrend spanTrend(const Series& s, int from, int to) {
  SpanTrend t;
  t.from = from;
  t.to = to;
  const int first = s.find(from);
  const int last = s.find(to);
  if (first < 0 || last < 0 || last <= first) {
    t.change = t.compound = t.meanGrowth =
        Figure::absent("no figures from " + std::to_string(from) + " to " + std::to_string(to));
    return t;
  }
  const Figure& start = s.figures[static_cast<size_t>(first)];
  const Figure& end = s.figures[static_cast<size_t>(last)];
  t.change = end - start;
  t.compound = compoundGrowth(start, end, to - from);
  std::vector<Figure> yearly;
  for (int i = first + 1; i <= last; ++i) {
    yearly.push_back(growthAt(s, static_cast<size_t>(i)));
    if (s.irregular[static_cast<size_t>(i)] && t.compound.hasValue()) {
      t.compound = Figure::notMeaningful("a period in between is not a whole year");
    }
  }
  t.meanGrowth = describe(yearly).mean;
  for (const int index : {first, last}) {
    if (std::string mark = endMark(s, index); !mark.empty()) t.marks.push_back(std::move(mark));
  }
  return t;
}

std::vector<Figure> stackedGrowth(const Series& s, int years) {
  std::vector<Figure> list;
  list.reserve(s.figures.size());
  for (size_t i = 0; i < s.figures.size(); ++i) {
    if (i < static_cast<size_t>(years)) {
      list.push_back(Figure::absent("there is no year to compare with"));
      continue;
    }
    const auto from = static_cast<std::ptrdiff_t>(i) - years + 1;
    const bool broken =
        std::any_of(s.irregular.begin() + from, s.irregular.begin() + static_cast<std::ptrdiff_t>(i) + 1,
                    [](bool irregular) { return irregular; });
    list.push_back(broken ? Figure::notMeaningful("a period in between is not a whole year")
                          : growth(s.figures[i - static_cast<size_t>(years)], s.figures[i]));
  }
  return list;
}

FittedTrend fittedTrend(const Series& s, int from, int to) {
  FittedTrend fitted;
  std::vector<std::pair<double, double>> logarithms;
  for (size_t i = 0; i < s.years.size(); ++i) {
    if (s.years[i] < from || s.years[i] > to || s.exceptional[i] || !s.figures[i].hasValue()) continue;
    if (s.figures[i].value() <= 0) {
      fitted.growth = fitted.fit = Figure::notMeaningful(std::to_string(s.years[i]) + " is not positive");
      return fitted;
    }
    logarithms.emplace_back(s.years[i], std::log(s.figures[i].value()));
  }
  const LineFit line = fitLine(logarithms);
  fitted.count = line.count;
  fitted.growth = line.slope.hasValue() ? Figure::of(std::exp(line.slope.value()) - 1) : line.slope;
  fitted.fit = line.fit;
  return fitted;
}

}  // namespace zl
