#include "core/monitor/first_value_monitors.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/history/statistics.h"
#include "core/monitor/limits.h"
#include "core/outlook/method_spread.h"
#include "core/quantity/number_text.h"

namespace zl {
namespace {

using model::Role;

class FirstValue {
 public:
  FirstValue(const MonitorView& view, std::vector<Finding>& found)
      : v_(view), e_(view.evaluation), c_(view.evaluation.caseOf()), found_(found), lane_(c_.indexOf(kBase)) {}

  void run() {
    methodsApart();
    proposals();
    order();
    farFromPrice();
    farFromPeers();
    yearsPassed();
    if (!v_.others) return;
    for (const OnOtherModel& other : v_.others()) against(other);
  }

 private:
  /// Where base's values lie further apart than the limit: by which flows.
  void against(const OnOtherModel& other) {
    const Figure own = e_.constant(Role::ValueBeforeFloor, lane_);
    const Figure& theirs = other.value;
    if (!own.hasValue() || !theirs.hasValue() || std::max(own.value(), theirs.value()) <= 0) return;
    const double low = std::min(own.value(), theirs.value());
    const double ratio = std::max(own.value(), theirs.value()) / low;
    if (low > 0 && ratio <= limitOf(c_, "models apart")) return;
    // A title says after its colon what the model is made of.
    std::string text = other.title.substr(0, other.title.find(':')) + " values the same company at " + money(theirs) +
                       ", this model at " + money(own);
    if (low > 0) text += ": " + figureText(Figure::of(ratio), Kind::Multiple) + " times apart";
    const std::string flows = flowsApart(other);
    if (!flows.empty()) text += "; " + flows;
    add("models apart", Severity::Warning, Stop::Verdict, std::move(text), e_.model().nameOf(Role::ValuePerShare));
    found_.back().standsOnUndecided = true;
  }

  /// What the last forecast year's flows are of revenue, here and there, the widest apart first.
  [[nodiscard]] std::string flowsApart(const OnOtherModel& other) const {
    constexpr double kFewest = 0.01;  // of revenue: less than that explains nothing
    constexpr size_t kMostNamed = 2;
    if (other.columns != e_.layout().columns()) return {};
    const int last = other.columns - 1;
    const Figure revenue = e_.figure(Role::Revenue, last, lane_);
    std::vector<std::pair<double, std::string>> apart;
    for (const model::ViewRow& shown : e_.model().view("flow_parts")) {
      const model::Row& row = e_.model()[shown.row];
      const auto same = other.flowShares.find(row.name);
      if (same == other.flowShares.end()) continue;
      const Figure here = e_.figure(shown.row, last, lane_) / revenue;
      const Figure gap = here - same->second;
      if (std::abs(gap.valueOr(0)) < kFewest) continue;
      apart.emplace_back(std::abs(gap.value()), row.label + " " + figureText(here, Kind::Ratio) +
                                                    " % of revenue here, " + figureText(same->second, Kind::Ratio) +
                                                    " % there");
    }
    std::stable_sort(apart.begin(), apart.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    std::string text;
    for (size_t i = 0; i < std::min(kMostNamed, apart.size()); ++i) {
      text += (i == 0 ? "in the last forecast year " : ", ") + apart[i].second;
    }
    return text;
  }

  void add(const char* name, Severity severity, Stop stop, std::string text, const std::string& row = {}) {
    found_.push_back({name, severity, stop, std::move(text), row, row.empty() ? -1 : 0});
  }

  [[nodiscard]] std::string money(const Figure& f) const { return figureText(f, Kind::Quote); }

  /// One line for all of them: decide next lists each.
  void proposals() {
    int proposed = 0;
    std::vector<std::string> placeholders;
    const auto look = [&](const std::string& name, const Provenance& said) {
      const model::RowId row = e_.model().find(name);
      if (!row.known() || !e_.model()[row].projected) return;
      proposed += said.isProposed() ? 1 : 0;
      if (said.from == Provenance::From::Placeholder) placeholders.push_back(e_.model()[row].label);
    };
    for (const auto& [name, a] : c_.base().drivers) look(name, a.said);
    for (const auto& [name, i] : c_.base().inputs) look(name, i.said);
    if (proposed > 0) {
      add("proposed and not decided", Severity::Note, Stop::Outlook,
          std::to_string(proposed) +
              " drivers and choices of Base are proposals that nobody has decided; Decide next ranks them");
    }
    if (placeholders.empty()) return;
    std::string names;
    constexpr size_t kMostNamed = 4;
    for (size_t i = 0; i < std::min(kMostNamed, placeholders.size()); ++i) {
      names += (i == 0 ? "" : ", ") + placeholders[i];
    }
    if (placeholders.size() > kMostNamed) names += " and " + std::to_string(placeholders.size() - kMostNamed) + " more";
    add("placeholders in use", Severity::Warning, Stop::Outlook,
        "The value stands on round placeholder figures: " + names + ". Bring in a table of rates or type them");
  }

  void order() {
    const auto value = [&](const char* id) {
      const int lane = c_.indexOf(id);
      return lane < 0 ? Figure::absent() : e_.constant(Role::ValueBeforeFloor, lane);
    };
    const Figure worst = value(kWorst), base = value(kBase), best = value(kBest);
    const auto out = [&](const char* lowId, const Figure& low, const char* highId, const Figure& high) {
      if (!low.hasValue() || !high.hasValue() || low.value() <= high.value() * (1 + 1e-9) + 1e-9) return;
      add("scenarios out of order", Severity::Warning, Stop::Outlook,
          c_.scenario(lowId)->label + " is worth more than " + c_.scenario(highId)->label + ": " + money(low) +
              " against " + money(high) + ", by " + apartIn(lowId, highId),
          e_.model().nameOf(Role::ValuePerShare));
    };
    out(kWorst, worst, kBase, base);
    out(kBase, base, kBest, best);
  }

  /// The drivers in which two scenarios differ.
  [[nodiscard]] std::string apartIn(const char* a, const char* b) const {
    std::string names;
    for (const model::Row& row : e_.model().rows) {
      if (row.declared != model::Declared::Driver || !row.projected) continue;
      const Assumption* one = c_.driver(*c_.scenario(a), row.name);
      const Assumption* other = c_.driver(*c_.scenario(b), row.name);
      if (one == other || (one != nullptr && other != nullptr && one->path == other->path)) continue;
      names += (names.empty() ? "" : ", ") + row.label;
    }
    return names.empty() ? "inputs alone" : names;
  }

  void farFromPrice() {
    const Figure price = e_.constant(Role::Price, lane_);
    const Figure value = e_.constant(Role::ValuePerShare, lane_);
    if (!price.hasValue() || !value.hasValue() || price.value() <= 0 || !c_.proposes) return;
    const double limit = limitOf(c_, "value far from the price");
    const double ratio = value.value() / price.value();
    if (ratio <= limit && ratio * limit >= 1) return;
    add("value far from the price", Severity::Warning, Stop::Verdict,
        "Base value " + money(value) + " is " + figureText(Figure::of(ratio), Kind::Multiple) + " times the price",
        e_.model().nameOf(Role::ValuePerShare));
    found_.back().standsOnUndecided = true;
  }

  /// The median of what the methods say that are what peers' multiples imply.
  void farFromPeers() {
    const Figure value = e_.constant(Role::ValuePerShare, lane_);
    std::vector<Figure> implied;
    for (const model::Method& method : e_.model().methods) {
      const std::optional<model::PeerTie>& tie = e_.model()[method.value].peers;
      if (!tie || tie->statistic != "median") continue;
      const double implies = e_.orNaN({method.value, 0}, lane_);
      if (implies > 0) implied.push_back(Figure::of(implies));
    }
    const Statistics peers = describe(implied);
    if (peers.count == 0 || !value.hasValue()) return;
    const double limit = limitOf(c_, "value far from the peers");
    const double ratio = value.value() / peers.median.value();
    if (ratio <= limit && ratio * limit >= 1) return;
    add("value far from the peers", Severity::Warning, Stop::Verdict,
        "Base value " + money(value) + " is " + figureText(Figure::of(ratio), Kind::Multiple) + " times " +
            money(peers.median) + ", the median of what the peers' multiples make of it",
        e_.model().nameOf(Role::ValuePerShare));
    found_.back().standsOnUndecided = true;
  }

  void methodsApart() {
    MethodSpread spread = spreadOfMethods(e_, lane_);
    // Where nobody weighs them, those that discount the same company's cash: they are to agree. What peers and rules of
    // thumb say beside them is held against the value by monitors of its own.
    if (!spread.weighted)
      std::erase_if(spread.methods, [](const auto& one) { return one.method->whose == model::Method::Flow::None; });
    if (spread.apart() <= limitOf(c_, "methods apart")) return;
    const MethodSpread::One &low = spread.methods.front(), &high = spread.methods.back();
    add("methods apart", Severity::Warning, Stop::Verdict,
        "Base is worth " + money(Figure::of(low.value)) + " by " + low.method->label + " and " +
            money(Figure::of(high.value)) + " by " + high.method->label + ", " + groupedNumber(spread.apart(), 1) +
            " times apart",
        e_.model()[high.method->value].name);
    found_.back().scenario = kBase;
  }

  void yearsPassed() {
    const Figure passed = e_.constant(Role::YearsPassed, lane_);
    if (!passed.hasValue() || passed.value() < 1) return;
    add("year ended and not filed", Severity::Note, Stop::CashValue,
        "The valuation date " + dateText(c_.valuationDate) + " lies after the end of fiscal " +
            std::to_string(v_.years.back().label() + 1) +
            ", which is not filed: that year is forecast, its cash counts in the claims and it is not discounted");
  }

  const MonitorView& v_;
  const Evaluation& e_;
  const Case& c_;
  std::vector<Finding>& found_;
  int lane_;
};

}  // namespace

void monitorFirstValue(const MonitorView& view, std::vector<Finding>& found) {
  if (view.evaluation.caseOf().indexOf(kBase) < 0) return;
  FirstValue(view, found).run();
}

}  // namespace zl
