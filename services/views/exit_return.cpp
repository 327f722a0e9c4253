#include "services/views/exit_return.h"

#include <algorithm>
#include <cmath>

#include "services/views/cash_view.h"
#include "services/views/probing.h"

namespace zl::services {
namespace {

/// Rows of the view "exit_parts", in its order.
struct Parts {
  model::RowId year, growth, multiple, by, price, toPay, total, amount, revenue, count, dividends, justified;
};

std::optional<Parts> partsOf(const model::Model& m) {
  const auto& rows = m.view("exit_parts");
  constexpr size_t kRows = 12;
  if (rows.size() != kRows) return std::nullopt;
  return Parts{rows[0].row, rows[1].row, rows[2].row, rows[3].row, rows[4].row,  rows[5].row,
               rows[6].row, rows[7].row, rows[8].row, rows[9].row, rows[10].row, rows[11].row};
}

/// The first dividend until the exit that has no figure; null where all have one.
std::optional<Figure> gapOfDividends(const Snapshot& s, const Parts& parts, int years, int scenario) {
  const Evaluation& e = *s.evaluation;
  for (int t = 0; t < std::min(years, e.layout().forecastYears); ++t) {
    const Figure paid = e.figure(parts.dividends, e.layout().historyYears + t, scenario);
    if (!paid.hasValue()) return paid;
  }
  return std::nullopt;
}

/// Each has a figure, see gapOfDividends().
std::vector<double> dividendsOf(const Snapshot& s, const Parts& parts, int years, int scenario) {
  const Evaluation& e = *s.evaluation;
  std::vector<double> paid;
  for (int t = 0; t < std::min(years, e.layout().forecastYears); ++t)
    paid.push_back(e.figure(parts.dividends, e.layout().historyYears + t, scenario).value());
  return paid;
}

ReturnSplit splitOf(const Snapshot& s, const Parts& parts, const ExitReturn& of, int scenario) {
  const Evaluation& e = *s.evaluation;
  const Figure price = s.given(model::Role::Price).figure;
  const int base = e.layout().baseColumn(), then = e.layout().historyYears + of.years - 1;
  if (of.years < 1 || then >= e.layout().columns() || !of.price.hasValue() || !price.hasValue())
    return splitReturn({}, {}, 0);
  double paid = 0;
  for (const double d : dividendsOf(s, parts, of.years, scenario)) paid += d;
  const PriceParts now{e.figure(parts.revenue, base, scenario).valueOr(0),
                       e.figure(parts.amount, base, scenario).valueOr(0), 1, price.value()};
  const PriceParts later{e.figure(parts.revenue, then, scenario).valueOr(0),
                         e.figure(parts.amount, then, scenario).valueOr(0),
                         e.figure(parts.count, then, scenario).valueOr(0), of.price.value()};
  return splitReturn(now, later, paid);
}

}  // namespace

int exitYear(const Snapshot& s, int scenario) {
  const std::optional<Parts> parts = partsOf(s.model());
  return !parts ? 0 : static_cast<int>(std::lround(s.evaluation->constant(parts->year, scenario).valueOr(0)));
}

ExitReturn exitReturn(const Snapshot& s, int scenario) {
  ExitReturn r;
  const std::optional<Parts> parts = partsOf(s.model());
  if (!parts) return r;
  const Evaluation& e = *s.evaluation;
  r.years = exitYear(s, scenario);
  r.price = e.constant(parts->price, scenario);
  r.toPay = e.constant(parts->toPay, scenario);
  r.total = e.constant(parts->total, scenario);
  if (const std::optional<Figure> gap = gapOfDividends(s, *parts, r.years, scenario)) {
    r.yearly = *gap;
    r.split = {*gap, *gap, *gap, *gap, *gap};
    return r;
  }
  r.yearly =
      yearlyReturn(s.given(model::Role::Price).figure, dividendsOf(s, *parts, r.years, scenario), r.price, r.years);
  r.split = splitOf(s, *parts, r, scenario);
  if (r.toPay.hasValue()) r.lastAtOrUnder = lastAtOrUnder(s, r.toPay.value());
  return r;
}

const PastSeries* pastOfExit(const Snapshot& s, const PastMultiples& past) {
  const std::optional<Parts> parts = partsOf(s.model());
  if (!parts) return nullptr;
  const int base = s.evaluation->layout().baseColumn();
  const Figure& of = s.history->at(parts->amount, base);
  // Which of them the choices of the exit say: the one of the same figure.
  const auto found = std::find_if(past.series.begin(), past.series.end(), [&](const PastSeries& one) {
    const Figure& figure = s.history->at(one.row, base);
    return figure.hasValue() && of.hasValue() && figure.value() == of.value();
  });
  return found == past.series.end() ? nullptr : &*found;
}

ExitBeside exitBeside(const Snapshot& s) {
  ExitBeside beside;
  const std::optional<Parts> parts = partsOf(s.model());
  if (!parts) return beside;
  const PastMultiples past = pastMultiples(s);
  const PastSeries* own = pastOfExit(s, past);
  beside.lower = beside.median = beside.upper = Figure::absent("there is no own past of that figure");
  if (own != nullptr) {
    beside.label = own->label;
    beside.lower = own->lowerQuartile;
    beside.median = own->median;
    beside.upper = own->upperQuartile;
  }
  const Evaluation& e = *s.evaluation;
  const std::string& multiple = s.model()[parts->multiple].name;
  for (int k = 0; k < e.scenarios(); ++k) {
    const int year = exitYear(s, k);
    const Figure at = year < 1 || year > e.layout().forecastYears
                          ? Figure::absent("the exit year lies beyond the forecast")
                          : e.figure(parts->multiple, e.layout().historyYears + year - 1, k);
    const Assumption* said = s.caseOf().driver(s.caseOf().scenarios[static_cast<size_t>(k)], multiple);
    const Figure one = Figure::of(1);
    beside.scenarios.push_back({at / beside.median - one, at / e.constant(parts->justified, k) - one,
                                said == nullptr ? std::string() : said->said.reason});
  }
  return beside;
}

ExitGrid exitGrid(const Snapshot& s, int scenario) {
  ExitGrid grid;
  const std::optional<Parts> parts = partsOf(s.model());
  if (!parts) return grid;
  const Evaluation& e = *s.evaluation;
  const int years = exitYear(s, scenario);
  const int forecast = e.layout().forecastYears;
  if (years < 1 || years > forecast) return grid;
  const int then = e.layout().historyYears + years - 1;
  const double growth = e.figure(parts->growth, then, scenario).valueOr(0);
  const double multiple = e.figure(parts->multiple, then, scenario).valueOr(0);
  const int byItself = s.model()[parts->by].option("by_itself");
  if (byItself < 0 || multiple <= 0 || gapOfDividends(s, *parts, years, scenario)) return grid;
  constexpr double kGrowthStep = 0.02;
  constexpr double kMultiples[] = {0.7, 0.85, 1, 1.15, 1.3};
  const auto held = [&](double level) { return std::vector<Figure>(static_cast<size_t>(forecast), Figure::of(level)); };
  std::vector<Variant> variants;
  for (int g = -2; g <= 2; ++g) grid.growths.push_back(growth + g * kGrowthStep);
  for (const double times : kMultiples) grid.multiples.push_back(multiple * times);
  for (const double g : grid.growths) {
    for (const double m : grid.multiples)
      variants.push_back({{parts->by, {Figure::of(byItself)}}, {parts->growth, held(g)}, {parts->multiple, held(m)}});
  }
  const std::vector<Figure> prices = probeScenario(s, scenario, variants, parts->price);
  const std::vector<double> paid = dividendsOf(s, *parts, years, scenario);
  for (size_t g = 0; g < grid.growths.size(); ++g) {
    grid.yearly.emplace_back();
    for (size_t m = 0; m < grid.multiples.size(); ++m)
      grid.yearly.back().push_back(
          yearlyReturn(s.given(model::Role::Price).figure, paid, prices[g * grid.multiples.size() + m], years));
  }
  return grid;
}

}  // namespace zl::services
