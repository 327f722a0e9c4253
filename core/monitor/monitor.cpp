#include <cmath>
#include <functional>
#include <set>

#include "core/history/statistics.h"
#include "core/monitor/capital_monitors.h"
#include "core/monitor/finding.h"
#include "core/monitor/first_value_monitors.h"
#include "core/monitor/history_monitors.h"
#include "core/monitor/limits.h"
#include "core/monitor/projection_monitors.h"
#include "core/monitor/standing_monitors.h"
#include "core/outlook/trace.h"
#include "core/quantity/number_text.h"

namespace zl {
namespace {

using model::Role;

constexpr double kGapTolerance = 1e-6;  // of total assets: rounding of doubles, not of filings

class Monitors {
 public:
  explicit Monitors(const MonitorView& view) : v_(view), e_(view.evaluation) {}

  std::vector<Finding> run() {
    found_ = v_.filings;
    probabilities();
    driversOutsideHistory();
    driversAtTheirLimit();
    resting();
    baseYear();
    monitorHistory(v_, found_);
    monitorProjection(v_, found_);
    add(v_.market.evidence);
    monitorCapital(v_, found_);
    monitorStanding(v_, found_);
    for (int s = 0; s < e_.scenarios(); ++s) {
      const About about(*this, s);
      statements(s);
      terminal(s);
      shortfall(s);
    }
    add(v_.market.peers);
    monitorFirstValue(v_, found_);  // the last: it waits for the other models
    for (Finding& f : found_) {
      auto accepted = e_.caseOf().acknowledged.find(f.key());
      if (accepted == e_.caseOf().acknowledged.end()) accepted = e_.caseOf().acknowledged.find(f.oldKey());
      if (accepted != e_.caseOf().acknowledged.end()) f.acknowledged = accepted->second.reason;
    }
    return std::move(found_);
  }

 private:
  [[nodiscard]] std::string label(int s) const { return e_.caseOf().scenarios[static_cast<size_t>(s)].label; }

  void add(const char* name, Severity severity, Stop stop, std::string text, std::string row = {}, int column = -1) {
    found_.push_back({name, severity, stop, std::move(text), std::move(row), column});
    found_.back().scenario = about_;
  }

  void add(const std::vector<Finding>& made) { found_.insert(found_.end(), made.begin(), made.end()); }

  /// What is said until this goes is about one scenario.
  struct About {
    About(Monitors& monitors, int s) : monitors_(monitors) {
      monitors_.about_ = monitors_.e_.caseOf().scenarios[static_cast<size_t>(s)].id;
    }
    ~About() { monitors_.about_.clear(); }
    About(const About&) = delete;
    About& operator=(const About&) = delete;
    Monitors& monitors_;
  };

  [[nodiscard]] std::string year(int column) const {
    return std::to_string(v_.years.back().label() + column - e_.layout().historyYears + 1) + "E";
  }
  [[nodiscard]] const std::string& name(Role role) const { return e_.model().nameOf(role); }

  void probabilities() {
    if (probabilitiesSumToOne(e_.caseOf())) return;
    add("probabilities not one", Severity::Fault, Stop::Outlook,
        "The scenarios' probabilities sum to " + groupedNumber(probabilitySum(e_.caseOf()) * 100, 1) +
            " %; the weighted value needs 100 %");
  }

  void driversOutsideHistory() {
    constexpr int kFewestYears = 3;
    const model::Layout& layout = e_.layout();
    for (size_t r = 0; r < e_.model().rows.size(); ++r) {
      const model::Row& row = e_.model().rows[r];
      if (row.declared != model::Declared::Driver || !row.history) continue;
      FigureRange s;
      for (int c = 0; c < layout.historyYears; ++c) s.take(v_.history.at(model::RowId(r), c));
      if (s.count < kFewestYears) continue;
      for (int i = 0; i < e_.scenarios(); ++i) {
        if (e_.caseOf().driver(e_.caseOf().scenarios[static_cast<size_t>(i)], row.name) == nullptr) continue;
        const About about(*this, i);
        reportOutside(row, model::RowId(r), s, i);
      }
    }
  }

  void driversAtTheirLimit() {
    for (size_t r = 0; r < e_.model().rows.size(); ++r) {
      const model::Row& row = e_.model().rows[r];
      if (row.declared != model::Declared::Driver) continue;
      for (int s = 0; s < e_.scenarios(); ++s) {
        for (int c = e_.layout().historyYears; c < e_.layout().columns(); ++c) {
          if (!e_.clipped({model::RowId(r), c}, s)) continue;
          const About about(*this, s);
          add("path at its limit", Severity::Warning, Stop::Outlook,
              row.label + " (" + label(s) + ") would leave its range in " + year(c) + " and is held at " +
                  figureText(e_.figure(model::RowId(r), c, s), row.kind),
              row.name, c);
          break;
        }
      }
    }
  }

  /// Assumptions that the model in use has no row for: kept, and of no effect.
  void resting() {
    std::set<std::string> names;
    const auto note = [&](const std::string& row, model::Declared declared) {
      const model::RowId index = e_.model().find(row);
      if (!index.known() || e_.model()[index].declared != declared) names.insert(row);
    };
    for (const Scenario& s : e_.caseOf().scenarios) {
      for (const auto& [row, a] : s.drivers) note(row, model::Declared::Driver);
      for (const auto& [row, choice] : s.inputs) note(row, model::Declared::Input);
    }
    if (names.empty()) return;
    std::string list;
    for (const std::string& name : names) list += (list.empty() ? "" : ", ") + name;
    add("assumptions at rest", Severity::Note, Stop::Outlook,
        "The model in use computes or lacks " + std::to_string(names.size()) +
            " of the rows assumed; what was assumed is kept and moves nothing: " + list);
  }

  void reportOutside(const model::Row& row, model::RowId r, const FigureRange& s, int scenario) {
    for (int c = e_.layout().historyYears; c < e_.layout().columns(); ++c) {
      const Figure x = e_.figure(r, c, scenario);
      if (!x.hasValue() || (x.value() >= s.low && x.value() <= s.high)) continue;
      // What reads the same as an end of history lies at it.
      const std::string shown = figureText(x, row.kind);
      const std::string low = figureText(Figure::of(s.low), row.kind), high = figureText(Figure::of(s.high), row.kind);
      if (shown == low || shown == high) continue;
      const std::string ends = "from " + low + " to " + high;
      add("driver outside history", Severity::Note, Stop::Outlook,
          row.label + " (" + label(scenario) + ") reaches " + shown + " in " + year(c) + "; its history runs " + ends,
          row.name, c);
      return;
    }
  }

  void baseYear() {
    const int base = e_.layout().baseColumn();
    const Figure flow = e_.figure(Role::Fcff, base, 0);
    if (flow.hasValue() && flow.value() <= 0) {
      add("negative base year", Severity::Warning, Stop::History,
          "Free cash flow to the firm of the base year is " + figureText(flow, Kind::Money) +
              " m: a growth rate on it would mean nothing, and the outlook starts from a low",
          name(Role::Fcff), base);
    }
    for (const auto& [flagged, reason] : e_.caseOf().exceptional) {
      add("exceptional year", Severity::Note, Stop::History,
          std::to_string(flagged) + " is flagged exceptional: " + reason);
    }
  }

  void gap(Role role, const char* name, Stop stop, int s) {
    const model::Row* described = e_.model().row(role);
    if (described == nullptr || !described->projected) return;
    const std::string& row = described->name;
    for (int c = e_.layout().historyYears; c < e_.layout().columns(); ++c) {
      const Figure g = e_.figure(role, c, s);
      const Figure size = e_.figure(Role::TotalAssets, c, s);
      if (!g.hasValue()) {
        add(name, Severity::Fault, stop, label(s) + " " + year(c) + " has no figure: " + g.reason(), row, c);
        return;
      }
      if (std::fabs(g.value()) <= kGapTolerance * std::fabs(size.valueOr(0))) continue;
      add(name, Severity::Fault, stop, label(s) + " " + year(c) + ": off by " + plainNumber(g.value()), row, c);
      return;
    }
  }

  /// The first forecast year in which `bad` holds for a row.
  void firstYear(Role row, int s, const std::function<bool(double)>& bad,
                 const std::function<void(int, double)>& report) {
    for (int c = e_.layout().historyYears; c < e_.layout().columns(); ++c) {
      const Figure x = e_.figure(row, c, s);
      if (!x.hasValue() || !bad(x.value())) continue;
      report(c, x.value());
      return;
    }
  }

  void statements(int s) {
    gap(Role::BalanceGap, "balance sheet gap", Stop::Outlook, s);
    gap(Role::CashGap, "cash movement gap", Stop::Outlook, s);
    gap(Role::FlowGap, "free cash flow gap", Stop::CashValue, s);
    if (!e_.settled(s)) {
      add("circular interest not settled", Severity::Fault, Stop::Outlook,
          label(s) + ": no figure satisfies these rows together: " + e_.unsettledRows(s));
    }
    firstYear(
        Role::Revolver, s, [](double x) { return x > 0; },
        [&](int c, double x) {
          add("revolver drawn", Severity::Warning, Stop::Outlook,
              label(s) + " draws a revolver of " + groupedNumber(x / 1e6, 1) + " m in " + year(c), name(Role::Revolver),
              c);
        });
    firstYear(
        Role::Equity, s, [](double x) { return x < 0; },
        [&](int c, double x) {
          add("negative equity", Severity::Warning, Stop::Outlook,
              label(s) + ": shareholders' equity is " + groupedNumber(x / 1e6, 1) + " m in " + year(c),
              name(Role::Equity), c);
        });
  }

  void terminal(int s) {
    const Figure wacc = e_.constant(Role::TerminalWacc, s);
    const Figure g = e_.constant(Role::TerminalGrowth, s);
    if (wacc.hasValue() && g.hasValue()) {
      const double spread = wacc.value() - g.value();
      if (spread < 1e-9) {
        add("discount rate does not exceed growth", Severity::Fault, Stop::CashValue,
            label(s) + ": WACC " + groupedNumber(wacc.value() * 100, 2) + " %, growth " +
                groupedNumber(g.value() * 100, 2) + " %: the perpetuity has no value",
            name(Role::Perpetuity));
      } else if (spread < limitOf(e_.caseOf(), "rate close to growth")) {
        add("rate close to growth", Severity::Warning, Stop::CashValue,
            label(s) + ": WACC exceeds growth by only " + groupedNumber(spread * 100, 2) + " points",
            name(Role::Perpetuity));
      }
      const Figure free = e_.figure(Role::RiskFree, e_.layout().columns() - 1, s);
      if (free.hasValue() && g.value() > free.value()) {
        add("growth above the risk-free rate", Severity::Warning, Stop::CashValue,
            label(s) + ": terminal growth " + groupedNumber(g.value() * 100, 2) + " % exceeds the risk-free rate " +
                groupedNumber(free.value() * 100, 2) + " %",
            name(Role::TerminalGrowth));
      }
      const Figure onNew = e_.constant(Role::ReturnOnNewCapital, s);
      if (onNew.hasValue() && g.value() > onNew.value()) {
        add("growth above the return on new capital", Severity::Warning, Stop::CashValue,
            label(s) + ": terminal growth exceeds the return on new capital, so reinvestment exceeds profit",
            name(Role::TerminalFlow));
      }
    }
    const model::Method* leading = e_.leadingMethod(s);
    if (leading == nullptr || !leading->share.known()) return;
    const Figure share = e_.constant(leading->share, s);
    if (share.hasValue() && share.value() > limitOf(e_.caseOf(), "terminal share")) {
      add("terminal share", Severity::Warning, Stop::CashValue,
          label(s) + ": " + groupedNumber(share.value() * 100, 0) +
              " % of enterprise value lies beyond the forecast years",
          e_.model()[leading->share].name);
    }
  }

  void shortfall(int s) {
    const Figure shortfall = e_.constant(Role::Shortfall, s);
    if (shortfall.hasValue() && shortfall.value() > 0) {
      add("negative equity value", Severity::Warning, Stop::CashValue,
          label(s) + ": claims exceed enterprise value by " + figureText(shortfall, Kind::Quote) +
              " a share; the shareholder's value is shown as nought",
          name(Role::Shortfall));
    }
  }

  const MonitorView& v_;
  const Evaluation& e_;
  std::vector<Finding> found_;
  std::string about_;  ///< id of the scenario that is looked at; empty: none by itself
};

/// The figures of a text, in order: what is left of it when its words go.
std::string figuresIn(const std::string& text) {
  std::string figures;
  bool inside = false;
  for (const char c : text) {
    const bool digit = c >= '0' && c <= '9';
    const bool part = digit || (inside && (c == '.' || c == ','));
    if (digit && !inside && !figures.empty()) figures += ' ';
    if (part) figures += c;
    inside = part;
  }
  return figures;
}

}  // namespace

std::string Finding::key() const {
  if (row.empty()) return oldKey();  // about a document, a concept, a year: its words are all there is to tell it by
  return monitor + "/" + row + "/" + scenario + "/" + figuresIn(text);
}

std::vector<Finding> monitor(const MonitorView& view) {
  return Monitors(view).run();
}

}  // namespace zl
