#include "core/monitor/history_monitors.h"

#include <cmath>

#include "core/history/trend.h"
#include "core/model/shown.h"
#include "core/monitor/limits.h"
#include "core/quantity/number_text.h"

namespace zl {
namespace {

constexpr int kLongYears = 10;

Series seriesOf(const MonitorView& v, model::RowId row) {
  Series s;
  for (size_t c = 0; c < v.years.size(); ++c) {
    s.years.push_back(v.years[c].label());
    s.figures.push_back(v.history.at(row, static_cast<int>(c)));
    s.exceptional.push_back(v.evaluation.caseOf().exceptional.count(v.years[c].label()) > 0);
    s.irregular.push_back(c > 0 && !followsByAYear(v.years[c - 1].end, v.years[c].end));
  }
  return s;
}

}  // namespace

void monitorHistory(const MonitorView& v, std::vector<Finding>& found) {
  const model::Model& m = v.evaluation.model();
  const int base = v.evaluation.layout().baseColumn();
  for (const model::ViewRow& shown : m.view("base_year_lines")) {
    const model::RowId row = shown.row;
    const std::string& name = m[row].name;
    const std::string& label = m[row].label;
    const Series s = seriesOf(v, row);
    const Statistics regular = describe(s.figures, s.exceptional);
    const Figure& last = s.figures.back();
    if (last.hasValue() && regular.count >= 3 && regular.median.value() > 0 &&
        last.value() < limitOf(v.evaluation.caseOf(), "base year under its median") * regular.median.value()) {
      found.push_back({"base year under its median", Severity::Warning, Stop::History,
                       label + " of the base year is " + figureText(last, Kind::Money) + " m, the median of " +
                           std::to_string(regular.count) + " regular years " + figureText(regular.median, Kind::Money) +
                           " m: what is projected from it starts from a low",
                       name, base});
    }
    const SpanTrend t = spanTrend(s, std::max(s.years.front(), s.years.back() - kLongYears), s.years.back());
    if (t.compound.hasValue() && t.meanGrowth.hasValue() &&
        std::fabs(t.meanGrowth.value() - t.compound.value()) >
            limitOf(v.evaluation.caseOf(), "mean growth is not compound growth")) {
      found.push_back({"mean growth is not compound growth", Severity::Note, Stop::History,
                       label + ": the mean of the yearly rates is " + figureText(t.meanGrowth, Kind::Ratio) +
                           " %, it grew by " + figureText(t.compound, Kind::Ratio) + " % a year",
                       name, base});
    }
  }
  for (const HistoryWindow& w : v.evaluation.caseOf().windows) {
    for (const int year : {w.from, w.to}) {
      const auto filed =
          std::find_if(v.years.begin(), v.years.end(), [&](const FiscalYear& y) { return y.label() == year; });
      if (filed == v.years.end() || v.evaluation.caseOf().exceptional.count(year) == 0) continue;
      const int at = static_cast<int>(filed - v.years.begin());
      found.push_back({"window ends in an exceptional year", Severity::Warning, Stop::History,
                       "The window " + std::to_string(w.from) + " to " + std::to_string(w.to) + " stands on " +
                           std::to_string(year) + ", which is flagged exceptional",
                       "", at});
    }
  }
  for (const model::Role role : {model::Role::Leases, model::Role::StockPay, model::Role::ResearchLife}) {
    const model::Row* input = m.row(role);
    if (input == nullptr) continue;
    const std::string& name = input->name;
    const InputChoice* choice = v.evaluation.caseOf().input(v.evaluation.caseOf().base(), name);
    if (choice == nullptr) continue;
    const Figure figure = figureOf(*input, *choice);
    if (input->preset && input->preset->level == figure.valueOr(std::nan(""))) continue;
    found.push_back({"another basis in use", Severity::Note, Stop::Company,
                     input->label + ": " + model::shownText(*input, figure) +
                         " is chosen; profit, capital, free cash flow and peers' EBITDA stand on that basis",
                     name, -1});
  }
  for (const auto& [cell, adjustment] : v.evaluation.caseOf().adjustments) {
    found.push_back({"adjusted figure in use", Severity::Note, Stop::History,
                     m[m.find(cell.first)].label + " " + std::to_string(cell.second) + " is adjusted by " +
                         figureText(Figure::of(adjustment.amount), Kind::Money) +
                         " m: " + (adjustment.said.reason.empty() ? "no reason given" : adjustment.said.reason),
                     cell.first, -1});
  }
}

}  // namespace zl
