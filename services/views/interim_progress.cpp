#include "services/views/interim_progress.h"

#include <fmt/core.h>

#include <algorithm>

#include "exchange/json/reader.h"
#include "services/text/text_cells.h"

namespace zl::services {
namespace {

using model::Expr;
using model::Op;
using model::Row;
using model::Timing;

/// Whether a rule means the same for a part of a year as for the whole: it reads flows alone, of the
/// span or of the same span a year before.
bool readsFlowsAlone(const model::Model& m, const Expr& e) {
  if (e.op == Op::Average || e.op == Op::Total || e.unit) return false;
  if (e.op == Op::Ref) {
    const Row& row = m[e.row];
    if (row.timing == Timing::Constant) return true;
    if (row.timing == Timing::Balance || e.lag > 1) return false;
    return row.historyFiled || (row.history && readsFlowsAlone(m, *row.history));
  }
  return std::all_of(e.args.begin(), e.args.end(), [&](const Expr& part) { return readsFlowsAlone(m, part); });
}

bool isFiledFlow(const Row& row) {
  return row.isStandardLine() && row.timing == Timing::Flow && row.kind == Kind::Money;
}

/// Filed lines, what drivers are, and the computed flows that a year is judged by.
bool isProgressShown(const model::Model& m, const Row& row) {
  if (row.timing == Timing::Balance) return row.isStandardLine() && row.kind == Kind::Money;
  if (isFiledFlow(row)) return true;
  const bool judged = row.declared == model::Declared::Driver || m.shows("interim_judged", row.name);
  return judged && row.history && readsFlowsAlone(m, *row.history);
}

int quarterAt(const InterimStatements& interim, int fiscalYear, int number) {
  const std::vector<FiscalQuarter>& quarters = interim.quarters();
  for (size_t i = 0; i < quarters.size(); ++i) {
    if (quarters[i].fiscalYear == fiscalYear && quarters[i].number == number) return static_cast<int>(i);
  }
  return -1;
}

/// The latest report of a year that is not yet over; -1 where there is none.
int latestOf(const InterimStatements& interim, int fiscalYear) {
  for (int number = 3; number >= 1; --number) {
    if (const int index = quarterAt(interim, fiscalYear, number); index >= 0) return index;
  }
  return -1;
}

Figure shareOf(const Figure& part, const Figure& whole, const char* why) {
  return whole.hasValue() && whole.value() <= 0 ? Figure::notMeaningful(why) : part / whole;
}

Figure growthOf(const Figure& now, const Figure& before, const char* why) {
  if (now.hasValue() && now.value() < 0) return Figure::notMeaningful("turned negative");
  return shareOf(now, before, why) - Figure::of(1);
}

void measureFlow(InterimLine& line, const Figure& wholeYearBefore) {
  line.growth = growthOf(line.actual, line.yearBefore, "the year before is not positive");
  line.reached = shareOf(line.actual, line.forecast, "the forecast is not positive");
  line.usual = shareOf(line.yearBefore, wholeYearBefore, "the year before is not positive");
  line.rest = line.forecast - line.actual;
  line.restGrowth =
      growthOf(line.rest, wholeYearBefore - line.yearBefore, "the rest of the year before is not positive");
}

}  // namespace

InterimProgress interimProgress(const Snapshot& s) {
  InterimProgress progress;
  const InterimStatements& interim = *s.review->interim;
  const int year = s.years().back().label() + 1;
  const int now = latestOf(interim, year);
  if (now < 0) return progress;
  const FiscalQuarter& quarter = interim.quarters()[static_cast<size_t>(now)];
  progress.period = quarter.label();
  const int before = quarterAt(interim, year - 1, quarter.number);
  const model::Model& m = s.evaluation->model();
  // Two columns, the year before to the same date and this year to date: history's own rules over them.
  const model::HistoryTable spans(
      m, {2, 1},
      [&](const std::string& line, int column) {
        const int index = column == 0 ? before : now;
        if (index < 0) return Figure::absent("no report to the same date a year before");
        const Row& row = m[m.find(line)];
        return row.timing == Timing::Balance ? interim.balance(line, index) : interim.yearToDate(line, index);
      },
      [&](model::RowId row) { return assumedInput(m, s.caseOf(), row); });
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  const int first = s.evaluation->layout().historyYears;
  std::vector<InterimLine> ratios, balances;
  for (size_t r = 0; r < m.rows.size(); ++r) {
    const Row& row = m.rows[r];
    if (!isProgressShown(m, row)) continue;
    const auto index = model::RowId(r);
    InterimLine line;
    line.row = row.name;
    line.label = row.label;
    line.kind = row.kind;
    line.actual = spans.at(index, 1);
    line.yearBefore = spans.at(index, 0);
    line.forecast = s.evaluation->figure(index, first, base);
    if (line.actual.isAbsent()) continue;
    if (row.timing == Timing::Balance) {
      balances.push_back(std::move(line));
      continue;
    }
    if (row.kind == Kind::Money) measureFlow(line, s.history->at(index, first - 1));
    (row.kind == Kind::Money ? progress.lines : ratios).push_back(std::move(line));
  }
  for (const auto* further : {&ratios, &balances}) {
    progress.lines.insert(progress.lines.end(), further->begin(), further->end());
  }
  return progress;
}

Json interimProgressJson(const InterimProgress& progress) {
  Json lines = Json::array();
  for (const InterimLine& l : progress.lines) {
    lines.push_back({{"row", l.row},
                     {"label", l.label},
                     {"to_date", figureJson(l.actual)},
                     {"year_before", figureJson(l.yearBefore)},
                     {"growth", figureJson(l.growth)},
                     {"forecast", figureJson(l.forecast)},
                     {"reached", figureJson(l.reached)},
                     {"usual", figureJson(l.usual)},
                     {"rest", figureJson(l.rest)},
                     {"rest_growth", figureJson(l.restGrowth)}});
  }
  return {{"period", progress.period}, {"lines", std::move(lines)}};
}

std::string interimProgressText(const InterimProgress& progress, const Snapshot& s) {
  if (progress.period.empty()) {
    return "no interim report of " + std::to_string(s.years().back().label() + 1) + " has been filed\n";
  }
  std::string out =
      fmt::format("{:<56}{:>12}{:>13}{:>10}{:>12}{:>10}{:>10}{:>12}{:>10}\n", "Year to " + progress.period, "to date",
                  "year before", "growth, %", "forecast", "reached, %", "usual, %", "to come", "growth, %");
  for (const InterimLine& l : progress.lines) {
    const std::string unit = unitText(l.kind, s.company().currency, s.company().listing.unit);
    out += fmt::format(
        "{:<56}{:>12}{:>13}{:>10}{:>12}{:>10}{:>10}{:>12}{:>10}\n", l.label + (unit.empty() ? "" : ", " + unit),
        shownOrDash(l.actual, l.kind), shownOrDash(l.yearBefore, l.kind), shownOrDash(l.growth, Kind::Ratio),
        shownOrDash(l.forecast, l.kind), shownOrDash(l.reached, Kind::Ratio), shownOrDash(l.usual, Kind::Ratio),
        shownOrDash(l.rest, l.kind), shownOrDash(l.restGrowth, Kind::Ratio));
  }
  return out;
}

}  // namespace zl::services
