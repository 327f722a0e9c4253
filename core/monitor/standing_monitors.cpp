#include "core/monitor/standing_monitors.h"

#include <algorithm>
#include <cmath>

#include "core/history/statistics.h"
#include "core/monitor/claimed_statistic.h"
#include "core/monitor/limits.h"
#include "core/quantity/number_text.h"

namespace zl {
namespace {

class Standing {
 public:
  Standing(const MonitorView& view, std::vector<Finding>& found)
      : v_(view), e_(view.evaluation), c_(view.evaluation.caseOf()), found_(found), lane_(c_.indexOf(kBase)) {}

  void run() {
    for (const model::ViewRow& shown : e_.model().view("cycle_lines")) cyclicalBase(shown.row);
    for (const model::ViewRow& shown : e_.model().view("tax_paths")) taxApart(shown.row);
    for (int s = 0; s < e_.scenarios(); ++s) claims(s);
  }

 private:
  [[nodiscard]] int first() const { return e_.layout().historyYears; }
  [[nodiscard]] int last() const { return e_.layout().columns() - 1; }
  [[nodiscard]] static std::string percent(const Figure& f) { return figureText(f, Kind::Ratio) + " %"; }

  /// A margin that swings, stands high in the base year, and is projected to stay above its median.
  void cyclicalBase(model::RowId index) {
    constexpr int kFewestRegularYears = 5;
    constexpr double kSwings = 0.3;  // interquartile range over the median
    const model::Row& row = e_.model()[index];
    if (!row.projected) return;
    std::vector<Figure> past;
    std::vector<bool> flagged;
    for (int c = 0; c < first(); ++c) {
      past.push_back(v_.history.at(index, c));
      flagged.push_back(c_.exceptional.count(v_.years[static_cast<size_t>(c)].label()) > 0);
    }
    const Statistics history = describe(past, flagged);
    const Figure base = past.back();
    if (history.count < kFewestRegularYears || !base.hasValue() || history.median.value() <= 0) return;
    const double median = history.median.value();
    const bool swings = history.upperQuartile.value() - history.lowerQuartile.value() > kSwings * median;
    if (!swings || base.value() < history.upperQuartile.value()) return;
    std::vector<Figure> ahead;
    for (int c = first(); c <= last(); ++c) ahead.push_back(e_.figure(index, c, lane_));
    const Figure mean = describe(ahead).mean;
    if (!mean.hasValue() || mean.value() <= median * (1 + limitOf(c_, "cyclical base"))) return;
    found_.push_back({"cyclical base", Severity::Warning, Stop::Outlook,
                      row.label + " of the base year is " + percent(base) + ", in the upper quarter of " +
                          std::to_string(history.count) + " regular years that swing between " +
                          percent(history.lowerQuartile) + " and " + percent(history.upperQuartile) +
                          "; Base projects " + percent(mean) + " on average, the median is " + percent(history.median),
                      row.name, first()});
  }

  void taxApart(model::RowId index) {
    const model::Row& row = e_.model()[index];
    const Figure rate = e_.figure(index, last(), lane_);
    const Figure marginal = e_.constant(model::Role::MarginalTax, lane_);
    if (!row.projected || !rate.hasValue() || !marginal.hasValue()) return;
    if (std::fabs(rate.value() - marginal.value()) <= limitOf(c_, "tax far from marginal") + 1e-12) return;
    found_.push_back({"tax far from marginal", Severity::Warning, Stop::Outlook,
                      row.label + " is still " + percent(rate) +
                          " in the last forecast year and so for ever; the "
                          "marginal rate is " +
                          percent(marginal),
                      row.name, last()});
  }

  /// "Near the peers' median" is held against that median; "a tenth under it" is not.
  void claims(int s) {
    const Scenario& scenario = c_.scenarios[static_cast<size_t>(s)];
    const auto statistics = v_.peers.statistics.find(Multiple::EvToEbitda);
    if (statistics == v_.peers.statistics.end() || statistics->second.count == 0) return;
    for (const auto& [name, choice] : scenario.inputs) {
      const model::RowId index = e_.model().find(name);
      if (!index.known() || e_.model()[index].kind != Kind::Multiple || choice.said.isProposed()) continue;
      const auto [claimed, words] = claimedStatistic(choice.said.reason, statistics->second);
      const Figure multiple = e_.constant(index, s);
      if (!claimed.hasValue() || !multiple.hasValue() || claimed.value() <= 0) continue;
      const double apart = multiple.value() / claimed.value() - 1;
      if (std::fabs(apart) <= limitOf(c_, "multiple away from its reason")) continue;
      found_.push_back({"multiple away from its reason", Severity::Warning, Stop::Peers,
                        scenario.label + ": " + e_.model()[index].label + " is " +
                            figureText(multiple, Kind::Multiple) + ", its reason says '" + choice.said.reason +
                            "'; the peers' " + words + " is " + figureText(claimed, Kind::Multiple),
                        name, 0});
      found_.back().scenario = scenario.id;
    }
  }

  const MonitorView& v_;
  const Evaluation& e_;
  const Case& c_;
  std::vector<Finding>& found_;
  int lane_;
};

}  // namespace

void monitorStanding(const MonitorView& view, std::vector<Finding>& found) {
  Standing(view, found).run();
}

}  // namespace zl
