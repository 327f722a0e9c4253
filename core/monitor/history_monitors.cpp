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

/// Growth between regular years: their yearly rates, and the compound rate from the first to the last of them.
struct RegularGrowth {
  int from = 0, to = 0;
  Figure compound = Figure::absent("fewer than two regular years");
  Statistics rates;
};

RegularGrowth regularGrowth(const Series& s) {
  RegularGrowth t;
  std::vector<Figure> rates;
  const std::vector<Figure> yearly = stackedGrowth(s, 1);
  for (size_t i = 0; i < s.years.size(); ++i) {
    if (s.exceptional[i] || s.years[i] < s.years.back() - kLongYears) continue;
    if (t.from == 0) {
      t.from = s.years[i];
    } else if (!s.exceptional[i - 1]) {
      rates.push_back(yearly[i]);
    }
    t.to = s.years[i];
  }
  if (t.to > t.from) t.compound = spanTrend(s, t.from, t.to).compound;
  t.rates = describe(rates);
  return t;
}

/// Debt that stands among other liabilities is taken off no value.
void interestWithoutDebt(const MonitorView& v, std::vector<Finding>& found) {
  const model::Model& m = v.evaluation.model();
  const std::vector<model::ViewRow>& bearing = m.view("interest_bearing");
  const int base = v.evaluation.layout().baseColumn();
  const Figure interest = v.evaluation.figure(model::Role::InterestExpense, base, 0);
  const Figure revenue = v.evaluation.figure(model::Role::Revenue, base, 0);
  if (bearing.empty() || interest.valueOr(0) <= 0) return;
  for (const model::ViewRow& shown : bearing) {
    for (const int column : {base - 1, base}) {
      if (column >= 0 && v.history.at(shown.row, column).valueOr(0) != 0) return;
    }
  }
  const Figure share = interest / revenue;
  if (share.hasValue() && share.value() <= limitOf(v.evaluation.caseOf(), "interest without debt")) return;
  found.push_back(
      {"interest without debt", Severity::Warning, Stop::Filings,
       "Interest of " + figureText(interest, Kind::Money) +
           " m is filed and nothing that bears it: where debt stands among other liabilities it is not taken "
           "off the value; put its row on borrowings",
       m.nameOf(model::Role::InterestExpense), base});
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
    const RegularGrowth t = regularGrowth(s);
    if (t.compound.hasValue() && t.rates.mean.hasValue() &&
        std::fabs(t.rates.mean.value() - t.compound.value()) >
            limitOf(v.evaluation.caseOf(), "mean growth is not compound growth")) {
      found.push_back({"mean growth is not compound growth", Severity::Note, Stop::History,
                       label + ": the mean of " + std::to_string(t.rates.count) + " regular yearly rates is " +
                           figureText(t.rates.mean, Kind::Ratio) + " %, from " + std::to_string(t.from) + " to " +
                           std::to_string(t.to) + " it grew by " + figureText(t.compound, Kind::Ratio) + " % a year",
                       name, base});
    }
  }
  for (const model::ViewRow& shown : m.view("explained_shares")) {
    const Series s = seriesOf(v, shown.row);
    std::string years;
    for (size_t c = 0; c < s.years.size(); ++c) {
      if (s.figures[c].valueOr(0) <= limitOf(v.evaluation.caseOf(), "cash flow not explained")) continue;
      years += (years.empty() ? "" : ", ") + std::to_string(s.years[c]) + " (" + figureText(s.figures[c], Kind::Ratio) +
               " %)";
    }
    if (years.empty()) continue;
    found.push_back({"cash flow not explained", Severity::Note, Stop::History,
                     m[shown.row].label + ": " + years +
                         "; non-cash costs, provisions or working capital that was bought stand behind it",
                     m[shown.row].name, -1});
  }
  interestWithoutDebt(v, found);
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
