#include "core/monitor/capital_monitors.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/monitor/limits.h"
#include "core/outlook/probe.h"
#include "core/quantity/number_text.h"

namespace zl {
namespace {

using model::Role;

constexpr double kLittle = 0.01;  // of the value: what moves it by less is folded

class CapitalMonitors {
 public:
  CapitalMonitors(const MonitorView& view, std::vector<Finding>& found)
      : v_(view), e_(view.evaluation), c_(view.evaluation.caseOf()), found_(found), lane_(c_.indexOf(kBase)) {}

  void run() {
    profitGap();
    if (lane_ < 0) return;
    weightsAgainstCash();
    dilution();
    debtUnderRiskFree();
    betaBand();
    exitMultiple();
    reinvestment();
    tell();
  }

 private:
  /// What was seen in base, and what the value is with the other choice; without one it is told alone.
  struct Seen {
    Finding finding;
    std::string other;  ///< "with debt less cash"
    Variant variant;
  };

  void profitGap() {
    for (int k = 0; k < e_.scenarios(); ++k) {
      const Figure gap = e_.constant(Role::ProfitGap, k);
      const Figure whole = e_.constant(Role::EnterpriseValue, k);
      constexpr double kTolerance = 1e-8;
      if (!gap.hasValue() || !whole.hasValue() || std::fabs(gap.value()) <= kTolerance * std::fabs(whole.value()))
        continue;
      Finding f = finding("economic profit gap", Severity::Fault, Stop::CashValue,
                          c_.scenarios[static_cast<size_t>(k)].label + ": economic profit and cash flows differ by " +
                              plainNumber(gap.value()),
                          Role::ProfitGap);
      f.scenario = c_.scenarios[static_cast<size_t>(k)].id;
      found_.push_back(std::move(f));
    }
  }

  /// Weights with gross debt while cash would pay a good part of it.
  void weightsAgainstCash() {
    const auto& rows = e_.model().view("weights");
    if (rows.empty() || !e_.model()[rows.front().row].isChoice()) return;
    const model::Row& choice = e_.model()[rows.front().row];
    const Figure stands = e_.constant(rows.front().row, lane_);
    const int gross = choice.option("market"), net = choice.option("net_debt");
    if (!stands.hasValue() || stands.value() != gross || net < 0) return;
    const int base = e_.layout().baseColumn();
    const Figure cash = e_.figure(Role::Cash, base, lane_);
    const Figure weight = e_.figure(Role::YearDebtWeight, e_.layout().historyYears, lane_);
    const Figure equity = e_.constant(Role::MarketEquity, lane_);
    const Figure equityWeight = e_.figure(Role::YearEquityWeight, e_.layout().historyYears, lane_);
    const Figure debt = equity * weight / equityWeight;
    if (!cash.hasValue() || !debt.hasValue() || debt.value() <= 0) return;
    const double share = cash.value() / debt.value();
    if (share <= limitOf(c_, "weights against cash")) return;
    see(finding("weights against cash", Severity::Warning, Stop::Capital,
                "cash is " + groupedNumber(share * 100, 0) + " % of the debt that is weighted gross", rows.front().row),
        "with debt less cash", {{rows.front().row, {Figure::of(net)}}});
  }

  /// A value that lies beyond a strike or a conversion price which the price does not reach, or the other way round.
  void dilution() {
    const auto& rows = e_.model().view("dilution");
    if (rows.empty() || !e_.model()[rows.front().row].isChoice()) return;
    const model::Row& choice = e_.model()[rows.front().row];
    const bool atPrice = e_.constant(rows.front().row, lane_).valueOr(-1) == choice.option("at_price");
    const char* other = atPrice ? "at_value" : "at_price";
    see(finding("dilution beyond the price", Severity::Warning, Stop::CashValue,
                atPrice ? "options and convertibles are tested against the price, and the value is another"
                        : "options and convertibles are tested against the value, and the price is another",
                rows.front().row),
        atPrice ? "tested against the value" : "tested against the price",
        {{rows.front().row, {Figure::of(choice.option(other))}}}, true);
  }

  void debtUnderRiskFree() {
    const int first = e_.layout().historyYears;
    const Figure debt = e_.figure(Role::CostOfDebt, first, lane_);
    const Figure free = e_.figure(Role::RiskFree, first, lane_);
    if (!debt.hasValue() || !free.hasValue() || debt.value() >= free.value()) return;
    if (e_.figure(Role::YearDebtWeight, first, lane_).valueOr(0) <= 0) return;
    see(finding("cost of debt under the risk-free rate", Severity::Warning, Stop::Capital,
                "debt costs " + percent(debt.value()) + ", the risk-free rate is " + percent(free.value()),
                Role::CostOfDebt),
        "at the risk-free rate", {{e_.model().find(Role::CostOfDebt), years(free)}});
  }

  /// A beta that the book's own series do not tell well.
  void betaBand() {
    const model::RowId beta = e_.model().find(Role::Beta);
    const Figure width = v_.beta.high - v_.beta.low;
    const Figure stands = beta.known() ? e_.figure(Role::Beta, e_.layout().historyYears, lane_) : Figure::absent();
    if (!width.hasValue() || !stands.hasValue() || width.value() <= limitOf(c_, "beta's band")) return;
    see(finding("beta's band", Severity::Warning, Stop::Capital,
                "the band of the own regression (" + v_.beta.words + ") runs from " +
                    figureText(v_.beta.low, Kind::Multiple) + " to " + figureText(v_.beta.high, Kind::Multiple) +
                    "; beta in use is " + figureText(stands, Kind::Multiple),
                Role::Beta),
        "at the adjusted " + figureText(v_.beta.adjusted, Kind::Multiple), {{beta, years(v_.beta.adjusted)}});
  }

  /// An exit multiple of EBITDA outside of what any peer that counts is at.
  void exitMultiple() {
    const auto& rows = e_.model().view("exit");
    constexpr size_t kRows = 2;
    if (rows.size() < kRows || e_.leadingMethod(lane_) == nullptr) return;
    const model::Row& metric = e_.model()[rows[0].row];
    const Figure multiple = e_.constant(rows[1].row, lane_);
    const auto peers = v_.peers.statistics.find(Multiple::EvToEbitda);
    if (peers == v_.peers.statistics.end() || peers->second.count == 0 || !multiple.hasValue()) return;
    if (e_.constant(rows[0].row, lane_).valueOr(-1) != metric.option("ebitda")) return;
    const MultipleStatistics& of = peers->second;
    if (!of.low.hasValue() || (multiple.value() >= of.low.value() && multiple.value() <= of.high.value())) return;
    see(finding("exit multiple away from its evidence", Severity::Warning, Stop::CashValue,
                "the exit multiple of " + figureText(multiple, Kind::Multiple) + " lies outside the peers' " +
                    figureText(of.low, Kind::Multiple) + " to " + figureText(of.high, Kind::Multiple),
                rows[1].row),
        "at the peers' median", {{rows[1].row, {of.median}}});
  }

  /// What simple growth leaves to grow on: the flow for ever must pay for the capital that growth needs.
  void reinvestment() {
    if (!e_.stands(Role::TerminalRule, "simple_growth", lane_)) return;
    const int last = e_.layout().columns() - 1;
    const Figure growth = e_.constant(Role::TerminalGrowth, lane_);
    const Figure onNew = e_.constant(Role::ReturnOnNewCapital, lane_);
    const Figure kept = Figure::of(1) - e_.figure(Role::Fcff, last, lane_) / e_.figure(Role::Nopat, last, lane_);
    const Figure needed = growth / onNew;
    if (!kept.hasValue() || !needed.hasValue()) return;
    if (std::fabs(kept.value() - needed.value()) <= limitOf(c_, "reinvestment against growth")) return;
    const model::RowId rule = e_.model().find(Role::TerminalRule);
    see(finding("reinvestment against growth", Severity::Warning, Stop::CashValue,
                "the last year puts back " + percent(kept.value()) +
                    " of its profit, and growth for ever at the return on new "
                    "capital takes " +
                    percent(needed.value()),
                Role::TerminalRule),
        "by the value driver", {{rule, {Figure::of(e_.model()[rule].option("value_driver"))}}});
  }

  void see(Finding finding, std::string other, Variant variant, bool onlyIfMoved = false) {
    finding.scenario = kBase;
    seen_.push_back({std::move(finding), std::move(other), std::move(variant)});
    if (onlyIfMoved) movedOnly_.push_back(seen_.size() - 1);
  }

  /// Each with the value under its other choice, what moves it most first; the little ones in one line.
  void tell() {
    if (seen_.empty()) return;
    std::vector<Variant> variants{Variant{}};
    for (const Seen& s : seen_) variants.push_back(s.variant);
    if (!e_.model().find(Role::ValueBeforeFloor).known()) return;
    const std::vector<Figure> values = probeReached(e_, lane_, variants, e_.model().find(Role::ValueBeforeFloor));
    const Figure now = values.front();
    std::vector<std::pair<double, size_t>> order;
    for (size_t i = 0; i < seen_.size(); ++i) {
      const Figure other = values[i + 1];
      const double moves = now.hasValue() && other.hasValue() && now.value() != 0
                               ? std::fabs(other.value() - now.value()) / std::fabs(now.value())
                               : 1;
      const bool only = std::find(movedOnly_.begin(), movedOnly_.end(), i) != movedOnly_.end();
      if (only && (moves <= kLittle / 10 || !other.hasValue() || !now.hasValue())) continue;
      if (other.hasValue())
        seen_[i].finding.text += "; " + seen_[i].other + " the value would be " + figureText(other, Kind::Quote) +
                                 " instead of " + figureText(now, Kind::Quote);
      order.emplace_back(moves, i);
    }
    std::stable_sort(order.begin(), order.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    std::string folded;
    for (const auto& [moves, i] : order) {
      if (moves >= kLittle) {
        found_.push_back(std::move(seen_[i].finding));
      } else {
        folded += (folded.empty() ? "" : ", ") + seen_[i].finding.monitor;
      }
    }
    if (folded.empty()) return;
    Finding note = finding("choices that move little", Severity::Note, Stop::Capital,
                           "under 1 % of base's value each: " + folded, Role::ValuePerShare);
    note.scenario = kBase;
    found_.push_back(std::move(note));
  }

  [[nodiscard]] std::vector<Figure> years(const Figure& figure) const {
    return std::vector<Figure>(static_cast<size_t>(c_.horizon), figure);
  }
  static std::string percent(double x) { return figureText(Figure::of(x), Kind::Ratio) + " %"; }
  Finding finding(const char* monitor, Severity severity, Stop stop, std::string text, Role role) const {
    return {monitor, severity, stop, std::move(text), e_.model().nameOf(role)};
  }
  Finding finding(const char* monitor, Severity severity, Stop stop, std::string text, model::RowId row) const {
    return {monitor, severity, stop, std::move(text), e_.model()[row].name};
  }

  const MonitorView& v_;
  const Evaluation& e_;
  const Case& c_;
  std::vector<Finding>& found_;
  int lane_;
  std::vector<Seen> seen_;
  std::vector<size_t> movedOnly_;  ///< what is no finding unless it moves the value
};

}  // namespace

void monitorCapital(const MonitorView& view, std::vector<Finding>& found) {
  CapitalMonitors(view, found).run();
}

}  // namespace zl
