#include "services/views/roll_forward.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/number_text.h"
#include "exchange/json/reader.h"
#include "services/text/text_cells.h"

namespace zl::services {
namespace {

/// Filed lines, drivers, and the computed rows that a year is judged by.
bool isJudged(const model::Model& m, const model::Row& row) {
  if (row.timing == model::Timing::Constant || !row.history) return row.historyFiled;
  return row.historyFiled || row.declared == model::Declared::Driver || m.shows("judged", row.name);
}

}  // namespace

int yearsAhead(const Snapshot& s) {
  return s.filed->ahead ? static_cast<int>(s.filed->ahead->years().size() - s.years().size()) : 0;
}

std::vector<ForecastAgainstActual> forecastAgainstActual(const Snapshot& s) {
  std::vector<ForecastAgainstActual> lines;
  const int ahead = yearsAhead(s);
  if (ahead == 0) return lines;
  const Evaluation& e = *s.evaluation;
  const model::Model& m = e.model();
  const StandardStatements& all = *s.filed->ahead;
  const model::HistoryTable actual(
      m, {static_cast<int>(all.years().size()), e.layout().forecastYears},
      [&](const std::string& row, int column) { return all.at(row, column).figure; },
      [&](model::RowId row) { return assumedInput(m, s.caseOf(), row); });
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  for (int year = 0; year < std::min(ahead, e.layout().forecastYears); ++year) {
    const int column = e.layout().historyYears + year;
    for (size_t r = 0; r < m.rows.size(); ++r) {
      const model::Row& row = m.rows[r];
      if (row.declared == model::Declared::Given || row.declared == model::Declared::Input || !isJudged(m, row))
        continue;
      ForecastAgainstActual line;
      line.row = row.name;
      line.label = row.label;
      line.kind = row.kind;
      line.column = column;
      line.period = std::to_string(all.years()[static_cast<size_t>(column)].label());
      for (int i = 0; i < e.scenarios(); ++i) line.forecast.push_back(e.figure(model::RowId(r), column, i));
      line.actual = actual.at(model::RowId(r), column);
      const Figure& expected = line.forecast[static_cast<size_t>(base)];
      if (expected.isAbsent() && line.actual.isAbsent()) continue;
      line.gap = line.actual - expected;
      const bool amount = row.kind == Kind::Money || row.kind == Kind::Shares || row.kind == Kind::PerShare;
      line.gapShare = !amount                   ? Figure::absent("the gap says it")
                      : expected.valueOr(0) > 0 ? line.gap / expected
                      : expected.hasValue()     ? Figure::notMeaningful("the forecast is not positive")
                                                : expected;
      lines.push_back(std::move(line));
    }
  }
  return lines;
}

CaseEdit rollForward(const Snapshot& s) {
  const int ahead = yearsAhead(s);
  if (ahead == 0) return {s.caseOf(), ""};
  Case pinned = s.caseOf();
  pinned.baseYear = s.years().back().label();
  CaseEdit edit{rolledForward(pinned, ahead), ""};
  const Date end = s.filed->ahead->years().back().end;
  edit.label = "Roll forward to " + std::to_string(edit.after.baseYear);
  const auto& prices = s.market->prices;
  const bool dated = !prices.empty() && stubFor(prices.back().date, end, addYears(end, 1)).has_value();
  edit.after.valuationDate = dated ? prices.back().date : end;
  return edit;
}

std::string nameBeforeRolling(const Snapshot& s) {
  return "Before " + std::to_string(s.years().back().label() + yearsAhead(s)) + " was filed";
}

Status keepAndRollForward(Session& session) {
  const std::shared_ptr<const Snapshot> now = session.now();
  if (yearsAhead(*now) == 0) {
    return fail(ErrorKind::NotFound, "no year has been filed since " + std::to_string(now->years().back().label()),
                now->company().name, "Import the new annual report first");
  }
  const CaseEdit edit = rollForward(*now);
  std::string name = nameBeforeRolling(*now);
  for (int n = 2; session.version(name).has_value(); ++n)
    name = nameBeforeRolling(*now) + " (" + std::to_string(n) + ")";
  return session.applyKeeping(edit, name, "kept when rolled forward");
}

Json forecastAgainstActualJson(const Snapshot& s) {
  Json lines = Json::array();
  for (const ForecastAgainstActual& line : forecastAgainstActual(s)) {
    Json forecast = Json::object();
    for (size_t i = 0; i < line.forecast.size(); ++i) {
      forecast[s.caseOf().scenarios[i].id] = figureJson(line.forecast[i]);
    }
    lines.push_back({{"row", line.row},
                     {"label", line.label},
                     {"year", line.period},
                     {"forecast", std::move(forecast)},
                     {"actual", figureJson(line.actual)},
                     {"gap", figureJson(line.gap)}});
  }
  return lines;
}

std::string forecastAgainstActualText(const Snapshot& s) {
  const std::vector<ForecastAgainstActual> lines = forecastAgainstActual(s);
  if (lines.empty()) return "no year has been filed since " + std::to_string(s.years().back().label()) + '\n';
  std::string out = fmt::format("{:<56}{:>6}", "", "year");
  for (const Scenario& scenario : s.caseOf().scenarios) out += fmt::format("{:>12}", scenario.label);
  out += fmt::format("{:>12}{:>12}{:>10}\n", "actual", "gap", "gap, %");
  for (const ForecastAgainstActual& line : lines) {
    const std::string unit = unitText(line.kind, s.company().currency, s.company().listing.unit);
    out += fmt::format("{:<56}{:>6}", line.label + (unit.empty() ? "" : ", " + unit), line.period);
    for (const Figure& f : line.forecast) out += fmt::format("{:>12}", shownOrDash(f, line.kind));
    out += fmt::format("{:>12}{:>12}{:>10}\n", shownOrDash(line.actual, line.kind), shownOrDash(line.gap, line.kind),
                       shownOrDash(line.gapShare, Kind::Ratio));
  }
  return out;
}

}  // namespace zl::services
