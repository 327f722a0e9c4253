#include "core/monitor/projection_monitors.h"

#include <algorithm>
#include <cmath>

#include "core/history/statistics.h"
#include "core/monitor/limits.h"
#include "core/outlook/trace.h"
#include "core/quantity/number_text.h"

namespace zl {
namespace {

using model::Role;

constexpr int kFewestYears = 3;       // of history that a highest figure can be told from
constexpr int kFirstStage = 5;        // years, where the outlook is one stage
constexpr double kSameFigure = 1e-9;  // a level was taken from a statistic

class Projection {
 public:
  Projection(const MonitorView& view, std::vector<Finding>& found)
      : v_(view), e_(view.evaluation), c_(view.evaluation.caseOf()), found_(found) {}

  void run() {
    economy_ = rateAt(v_.rates, "long-run growth " + v_.currency, c_.valuationDate);
    for (int s = 0; s < e_.scenarios(); ++s) {
      about_ = c_.scenarios[static_cast<size_t>(s)].id;
      growth(s);
      for (const model::ViewRow& margin : e_.model().view("margins")) marginAboveHistory(margin.row, s);
      returns(s);
      negativeCash(s);
      shareCount(s);
      dividends(s);
      averages(s);
    }
    about_.clear();
    dividendsFiled();
  }

 private:
  [[nodiscard]] const std::string& name(Role role) const { return e_.model().nameOf(role); }
  [[nodiscard]] const std::string& label(int s) const { return c_.scenarios[static_cast<size_t>(s)].label; }
  [[nodiscard]] int first() const { return e_.layout().historyYears; }
  [[nodiscard]] int last() const { return e_.layout().columns() - 1; }
  [[nodiscard]] std::string year(int column) const {
    return std::to_string(v_.years.back().label() + column - first() + 1) + "E";
  }
  [[nodiscard]] static std::string percent(double x) { return groupedNumber(x * 100, 1) + " %"; }
  void add(const char* monitor, Severity severity, Stop stop, std::string text, const std::string& at, int column) {
    found_.push_back({monitor, severity, stop, std::move(text), at, column});
    found_.back().scenario = about_;
  }

  void growth(int s) {
    if (!economy_) return;
    const int stage = c_.stages.empty() ? kFirstStage : c_.stages.front();
    for (int c = first() + stage; c <= last(); ++c) {
      const Figure g = e_.figure(Role::RevenueGrowth, c, s);
      if (!g.hasValue() || g.value() - economy_->figure <= limitOf(c_, "growth above the economy") + 1e-12) continue;
      int years = 0;
      for (int later = c; later <= last(); ++later) {
        const Figure then = e_.figure(Role::RevenueGrowth, later, s);
        if (then.hasValue() && then.value() > economy_->figure) ++years;
      }
      return add("growth above the economy", Severity::Warning, Stop::Outlook,
                 label(s) + ": revenue still grows by " + percent(g.value()) + " in " + year(c) + ", the economy by " +
                     percent(economy_->figure) + "; " + std::to_string(years) +
                     (years == 1 ? " such year" : " such years") + " after the first stage",
                 name(Role::RevenueGrowth), c);
    }
  }

  void marginAboveHistory(model::RowId index, int s) {
    const model::Row& margins = e_.model()[index];
    if (!margins.projected) return;
    FigureRange history;
    for (int c = 0; c < first(); ++c) history.take(v_.history.at(index, c));
    if (history.count < kFewestYears) return;
    for (int c = first(); c <= last(); ++c) {
      const Figure margin = e_.figure(index, c, s);
      if (!margin.hasValue() || margin.value() - history.high <= limitOf(c_, "margin above any seen") + 1e-9) continue;
      return add("margin above any seen", Severity::Warning, Stop::Outlook,
                 label(s) + ": " + margins.label + " reaches " + percent(margin.value()) + " in " + year(c) +
                     "; the highest of " + std::to_string(history.count) + " filed years is " + percent(history.high),
                 margins.name, c);
    }
  }

  void returns(int s) {
    const Figure end = e_.figure(Role::Roic, last(), s);
    const Figure middle = e_.figure(Role::Roic, first() + (last() - first()) / 2, s);
    const Figure wacc = e_.figure(Role::Wacc, last(), s);
    if (end.hasValue() && middle.hasValue() && wacc.hasValue() && end.value() >= middle.value() &&
        end.value() - wacc.value() > limitOf(c_, "returns do not fade")) {
      add("returns do not fade", Severity::Warning, Stop::Outlook,
          label(s) + ": the return on invested capital is " + percent(end.value()) + " in " + year(last()) +
              ", not lower than halfway (" + percent(middle.value()) + "), against a WACC of " + percent(wacc.value()),
          name(Role::Roic), last());
    }
    const Figure kept = e_.constant(Role::ReturnWeight, s);
    const Figure onNew = e_.constant(Role::ReturnOnNewCapital, s);
    if (!kept.hasValue() || kept.value() <= 0 || !onNew.hasValue() || !wacc.hasValue() || onNew.value() <= wacc.value())
      return;
    add("return above WACC for ever", Severity::Warning, Stop::CashValue,
        label(s) + ": new capital earns " + percent(onNew.value()) + " for ever, WACC is " + percent(wacc.value()) +
            ": an advantage that nobody takes away",
        name(Role::ReturnOnNewCapital), 0);
  }

  void negativeCash(int s) {
    for (int c = first(); c <= last(); ++c) {
      const Figure cash = e_.figure(Role::Cash, c, s);
      if (!cash.hasValue() || cash.value() >= 0) continue;
      return add("negative cash", Severity::Fault, Stop::Outlook,
                 label(s) + ": cash is " + figureText(cash, Kind::Money) + " m in " + year(c), name(Role::Cash), c);
    }
  }

  void shareCount(int s) {
    for (int c = first(); c <= last(); ++c) {
      const Figure before = e_.figure(Role::Shares, c - 1, s);
      const Figure now = e_.figure(Role::Shares, c, s);
      if (!before.hasValue() || !now.hasValue() || before.value() <= 0) continue;
      const double change = now.value() / before.value() - 1;
      if (std::fabs(change) <= limitOf(c_, "share count moves")) continue;
      return add("share count moves", Severity::Warning, Stop::Outlook,
                 label(s) + ": the share count changes by " + percent(change) + " in " + year(c), name(Role::Shares),
                 c);
    }
  }

  /// Whether dividends exceed what is free to pay them with; false where either has no figure.
  [[nodiscard]] bool overpaid(const Figure& dividends, const Figure& free) const {
    return dividends.hasValue() && free.hasValue() && dividends.value() > 0 &&
           dividends.value() > limitOf(c_, "dividend above free cash flow") * std::max(0.0, free.value());
  }

  void dividends(int s) {
    int years = 0, at = -1;
    for (int c = first(); c <= last(); ++c) {
      if (!overpaid(e_.figure(Role::Dividends, c, s), e_.figure(Role::SimpleFreeCash, c, s))) continue;
      if (at < 0) at = c;
      ++years;
    }
    if (years == 0) return;
    add("dividend above free cash flow", Severity::Warning, Stop::Outlook,
        label(s) + ": dividends exceed simple free cash flow in " + std::to_string(years) +
            (years == 1 ? " year, " : " years, first in ") + year(at),
        name(Role::Dividends), at);
  }

  void dividendsFiled() {
    const int base = first() - 1;
    const Figure paid = e_.figure(Role::Dividends, base, 0);
    const Figure free = e_.figure(Role::SimpleFreeCash, base, 0);
    if (!overpaid(paid, free)) return;
    add("dividend above free cash flow", Severity::Warning, Stop::History,
        "Dividends of the base year are " + figureText(paid, Kind::Money) + " m, simple free cash flow " +
            figureText(free, Kind::Money) + " m",
        name(Role::Dividends), base);
  }

  /// A level that is the mean or median of a span of years with a flagged one in it, and not the
  /// same without it.
  void averages(int s) {
    for (const auto& [name, assumption] : c_.scenarios[static_cast<size_t>(s)].drivers) {
      const model::RowId driver = e_.model().find(name);
      if (!driver.known() || !assumption.path.level) continue;
      if (e_.model()[driver].declared != model::Declared::Driver) continue;
      for (const int span : {3, 5, 10}) {
        if (averageWithFlagged(driver, span, *assumption.path.level, s)) break;
      }
    }
  }

  bool averageWithFlagged(model::RowId driver, int span, double level, int s) {
    std::vector<Figure> past;
    std::vector<bool> out;
    std::string flagged;
    past.reserve(static_cast<size_t>(span));
    out.reserve(static_cast<size_t>(span));
    for (int c = std::max(0, first() - span); c < first(); ++c) {
      const int label = v_.years[static_cast<size_t>(c)].label();
      past.push_back(v_.history.at(driver, c));
      out.push_back(c_.exceptional.count(label) > 0);
      if (out.back()) flagged += (flagged.empty() ? "" : ", ") + std::to_string(label);
    }
    if (flagged.empty()) return false;
    const Statistics all = describe(past);
    const Statistics regular = describe(past, out);
    const auto is = [&](const Figure& statistic) {
      return statistic.hasValue() && std::fabs(statistic.value() - level) < kSameFigure;
    };
    const bool mean = is(all.mean) && !is(regular.mean);
    const bool median = is(all.median) && !is(regular.median);
    if (!mean && !median) return false;
    const model::Row& row = e_.model()[driver];
    add("exceptional year inside an average", Severity::Warning, Stop::Outlook,
        row.label + " (" + label(s) + ") is the " + (mean ? "mean" : "median") + " of " + std::to_string(span) +
            " years with " + flagged + " in it; without, it is " +
            figureText(mean ? regular.mean : regular.median, row.kind),
        row.name, first());
    return true;
  }

  const MonitorView& v_;
  const Evaluation& e_;
  const Case& c_;
  std::vector<Finding>& found_;
  std::string about_;                  ///< id of the scenario that is looked at
  std::optional<MarketRate> economy_;  ///< long-run growth in the reporting currency
};

}  // namespace

void monitorProjection(const MonitorView& view, std::vector<Finding>& found) {
  Projection(view, found).run();
}

}  // namespace zl
