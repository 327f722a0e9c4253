#include "core/proposal/propose.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/capital/rates.h"
#include "core/history/statistics.h"
#include "core/model/program.h"
#include "core/outlook/evaluation.h"
#include "core/quantity/number_text.h"

namespace zl {
namespace {

using Rule = ProposalRule;
using From = Provenance::From;

std::string percent(double x) {
  return figureText(Figure::of(x), Kind::Ratio) + " %";
}

double median(std::vector<double> figures) {
  std::sort(figures.begin(), figures.end());
  return quantile(figures, 0.5);
}

/// Works through the rules: each reads what is decided and what was proposed before it.
class Proposer {
 public:
  Proposer(const Case& c, const std::vector<Rule>& rules, const ProposalGround& ground)
      : ground_(ground), model_(ground.model), rules_(rules), case_(decidedOnly(c)), horizon_(case_.horizon) {}

  Case run(bool inputsOnly) {
    for (const Rule& rule : rules_) {
      rule_ = &rule;
      if (!inputsOnly || isConstantRule()) apply();
    }
    return std::move(case_);
  }

 private:
  // ---- What rules read

  [[nodiscard]] model::RowId rowOf(const std::string& name) const { return model_.find(name); }
  [[nodiscard]] const std::string& word(const char* setting) const { return rule_->words(setting).front(); }

  /// Whether nothing of history, the market or a path is needed, and the row is an input.
  [[nodiscard]] bool isConstantRule() const {
    using Kind = Rule::Kind;
    const bool constant = rule_->kind == Kind::Level || rule_->kind == Kind::CountryTax ||
                          rule_->kind == Kind::FiledAs || rule_->kind == Kind::Where;
    return constant && std::all_of(rule_->rows.begin(), rule_->rows.end(), [&](const std::string& name) {
             return model_[rowOf(name)].declared == model::Declared::Input;
           });
  }

  [[nodiscard]] Scenario& base() { return case_.scenarios[static_cast<size_t>(case_.indexOf(kBase))]; }

  [[nodiscard]] int baseColumn() const { return static_cast<int>(ground_.years.size()) - 1; }

  /// What is in force for a driver so far, by forecast year.
  [[nodiscard]] std::vector<Figure> pathOf(const std::string& name) const {
    const model::RowId row = rowOf(name);
    return driverFigures(model_[row], case_, case_.base(), ground_.history.at(row, baseColumn()), horizon_).figures;
  }

  [[nodiscard]] Figure inputOf(const std::string& name) const {
    return constantFigure(model_[rowOf(name)], case_, case_.base(), {});
  }

  /// Of a rate by its name, of the book or a placeholder.
  [[nodiscard]] std::optional<std::pair<KnownRate, From>> rateOf(const std::string& name) const {
    if (const auto known = ground_.bookRate(name + " " + ground_.currency)) return std::pair(*known, From::Proposed);
    const std::optional<double> round = ground_.placeholders.rate(ground_.currency, name);
    if (!round) return std::nullopt;
    return std::pair(KnownRate{*round, ground_.placeholders.source()}, From::Placeholder);
  }

  [[nodiscard]] std::string rateName(const char* setting) const {
    std::string name;
    for (const std::string& w : rule_->words(setting)) name += (name.empty() ? "" : " ") + w;
    return name;
  }

  static std::vector<double> lastOf(const std::vector<std::pair<int, double>>& figures, size_t most) {
    std::vector<double> last;
    const size_t from = figures.size() - std::min(most, figures.size());
    for (size_t i = from; i < figures.size(); ++i) last.push_back(figures[i].second);
    return last;
  }

  [[nodiscard]] std::string yearText(int forecastYear) const {
    return std::to_string(ground_.years.back() + forecastYear);
  }

  // ---- What rules write

  [[nodiscard]] bool isDecided(const std::string& name) const {
    return case_.driver(case_.base(), name) != nullptr || case_.input(case_.base(), name) != nullptr;
  }

  void proposePath(const std::string& name, Path path, std::string reason, From from = From::Proposed) {
    if (!model_[rowOf(name)].projected || isDecided(name)) return;
    base().drivers[name] = {std::move(path), {std::move(reason), "", "", from}};
  }

  /// A driver holds the figure, an input is it.
  void proposeFigure(const std::string& name, double figure, std::string reason, From from = From::Proposed) {
    const model::Row& row = model_[rowOf(name)];
    if (row.declared == model::Declared::Driver) {
      Path path;
      path.level = figure;
      proposePath(name, path, std::move(reason), from);
      return;
    }
    if (isDecided(name)) return;
    const double held = row.range ? std::clamp(figure, row.range->low, row.range->high) : figure;
    base().inputs[name] = chosenFigure(row, held, {std::move(reason), "", "", from});
  }

  // ---- The kinds of proposal

  /// What each kind does for one of its rows; nothing for those that work on all of them together or on other
  /// scenarios.
  using ForRow = void (Proposer::*)(const std::string& name);
  [[nodiscard]] static ForRow workOf(Rule::Kind kind) {
    using Kind = Rule::Kind;
    static const std::map<Kind, ForRow> kWork{
        {Kind::Level, &Proposer::level},           {Kind::Rate, &Proposer::rate},
        {Kind::LowerRate, &Proposer::lowerRate},   {Kind::CountryTax, &Proposer::countryTax},
        {Kind::Median, &Proposer::regularMedian},  {Kind::Growth, &Proposer::growth},
        {Kind::Margin, &Proposer::margin},         {Kind::Investment, &Proposer::investment},
        {Kind::WithProfit, &Proposer::withProfit}, {Kind::Multiple, &Proposer::multiple},
        {Kind::Unpriced, &Proposer::unpriced},     {Kind::DebtWeight, &Proposer::debtWeight},
        {Kind::FiledAs, &Proposer::filedAs},       {Kind::Where, &Proposer::where}};
    const auto found = kWork.find(kind);
    return found == kWork.end() ? nullptr : found->second;
  }

  void apply() {
    if (rule_->kind == Rule::Kind::Costs) return costs();
    const ForRow work = workOf(rule_->kind);
    if (work == nullptr) return;  // of the other scenarios: scenario_proposals.cpp
    for (const std::string& name : rule_->rows) (this->*work)(name);
  }

  void level(const std::string& name) {
    proposeFigure(name, rule_->number("level", 0), "what is taken until something else is decided");
  }

  void rate(const std::string& name) { proposeRate(name, rateName("rate")); }

  void unpriced(const std::string& name) {
    if (ground_.priced) return;
    proposeFigure(name, model_[rowOf(name)].option(word("unpriced")), "there is no price to weigh by");
  }

  void proposeRate(const std::string& name, const std::string& rate) {
    if (const auto found = rateOf(rate)) {
      proposeFigure(name, found->first.figure,
                    rate + " " + ground_.currency + ", " + percent(found->first.figure) + ", " + found->first.source,
                    found->second);
      return;
    }
    // A rate of a currency that nobody knows is asked for: no preset of another one takes its place.
    if (model_[rowOf(name)].declared == model::Declared::Driver) {
      proposePath(name, Path{},
                  "no " + rate + " of " + ground_.currency + " is known; type it, or bring in a table of rates",
                  From::Placeholder);
    }
  }

  void lowerRate(const std::string& name) {
    const std::string rate = rateName("lower_rate");
    const auto found = rateOf(rate);
    if (!found) return;
    const std::vector<Figure> other = pathOf(word("than"));
    const std::string what =
        rate + " " + ground_.currency + ", " + percent(found->first.figure) + ", " + found->first.source;
    if (other.empty() || !other.back().hasValue() || other.back().value() >= found->first.figure) {
      proposeFigure(name, found->first.figure, what, found->second);
      return;
    }
    proposeFigure(name, other.back().value(),
                  model_[rowOf(word("than"))].label + ", " + percent(other.back().value()) + ", which is below " + what,
                  found->second);
  }

  void countryTax(const std::string& name) {
    if (rule_->has("filed") && filedTax(name)) return;
    const std::optional<KnownRate> own = ground_.bookRate && !ground_.country.empty()
                                             ? ground_.bookRate(std::string(kCountryTax) + ground_.country)
                                             : std::nullopt;
    if (own) {
      proposeFigure(name, own->figure, percent(own->figure) + " in " + ground_.country + ", " + own->source,
                    From::Proposed);
      return;
    }
    const std::optional<double> tax = ground_.placeholders.tax(ground_.country, ground_.currency);
    if (!tax) return;
    proposeFigure(name, *tax,
                  percent(*tax) + " in " +
                      (ground_.country.empty() ? "the home of " + ground_.currency : ground_.country) + ", " +
                      ground_.placeholders.source(),
                  From::Placeholder);
  }

  /// What the filer reconciles its tax to, where the last year that says so says a rate of 5 % to 50 %.
  bool filedTax(const std::string& name) {
    constexpr double kLow = 0.05, kHigh = 0.5;
    for (int column = baseColumn(); column >= 0; --column) {
      const Figure rate = ground_.history.at(rowOf(word("filed")), column);
      if (!rate.hasValue()) continue;
      if (rate.value() < kLow || rate.value() > kHigh) return false;
      proposeFigure(name, rate.value(),
                    percent(rate.value()) + ", the rate that the filer reconciles its tax to, " +
                        std::to_string(ground_.years[static_cast<size_t>(column)]),
                    From::Proposed);
      return true;
    }
    return false;
  }

  void regularMedian(const std::string& name) {
    std::vector<std::pair<int, double>> history = regularHistory(ground_, rowOf(name));
    std::string outside;
    if (rule_->has("within")) {
      const double low = rule_->number("within", 0, 0);
      const double high = rule_->number("within", 0, 1);
      const auto beyond = [&](const auto& f) { return f.second < low || f.second > high; };
      const auto out = std::erase_if(history, beyond);
      if (out > 0)
        outside = ", " + std::to_string(out) + " beyond " + percent(low) + " to " + percent(high) + " left out";
    }
    if (history.empty()) {
      if (rule_->has("else_rate")) return proposeRate(name, rateName("else_rate"));
      if (rule_->has("else_level")) {
        return proposeFigure(name, rule_->number("else_level", 0), "no regular year tells it", From::Placeholder);
      }
      if (!rule_->has("to")) return;
      const Figure level = inputOf(word("to"));
      if (level.hasValue())
        proposeFigure(name, level.value(), "no regular year tells it: " + model_[rowOf(word("to"))].label);
      return;
    }
    const std::vector<double> last = lastOf(history, static_cast<size_t>(rule_->number("median", 1)));
    double figure = median(last);
    const std::string shown = figureText(Figure::of(figure), model_[rowOf(name)].kind);
    std::string reason = (last.size() == 1 ? "the last regular year, " + std::to_string(yearAt(history.back().first))
                                           : "median of " + std::to_string(last.size()) + " regular years to " +
                                                 std::to_string(yearAt(history.back().first))) +
                         ", " + shown + unitAfter(name) + outside;
    if (rule_->has("less")) {
      const std::vector<Figure> other = pathOf(word("less"));
      const double most = std::max(0.0, 1 - (other.empty() ? 0.0 : other.back().valueOr(0)));
      if (figure > most) {
        figure = most;
        reason += "; held at what " + model_[rowOf(word("less"))].label + " leaves, " + percent(most);
      }
    }
    if (!rule_->has("to")) return proposeFigure(name, figure, reason);
    const Figure level = inputOf(word("to"));
    if (!level.hasValue()) return proposeFigure(name, figure, reason);
    glide(name, figure, level.value(), 0, std::min(horizon_, static_cast<int>(yearsOf("to"))), reason);
  }

  /// The years of "to ROW by YEARS".
  [[nodiscard]] double yearsOf(const char* setting) const { return rule_->number(setting, horizon_, 2); }

  [[nodiscard]] int yearAt(int column) const { return ground_.years[static_cast<size_t>(column)]; }

  [[nodiscard]] std::string unitAfter(const std::string& name) const {
    const Kind kind = model_[rowOf(name)].kind;
    return kind == Kind::Ratio ? " %" : kind == Kind::Days ? " days" : "";
  }

  void glide(const std::string& name, double start, double level, int from, int to, const std::string& reason) {
    Path path;
    path.shape = Shape::Glide;
    path.start = start;
    path.level = level;
    path.from = from;
    path.to = to;
    const std::string shown = figureText(Figure::of(level), model_[rowOf(name)].kind) + unitAfter(name);
    if (to <= from) {  // a horizon too short to move in
      path = Path{};
      path.level = level;
    }
    proposePath(name, path, reason + "; to " + shown + " by " + yearText(to));
  }

  /// The compound rate between regular year ends, with a span of the last `ends` of them; empty where a flagged year
  /// lies between, or either end is not positive.
  struct Compound {
    double rate;
    int from;
  };
  [[nodiscard]] std::optional<Compound> compound(const std::string& revenue, size_t ends, bool unbroken) const {
    std::vector<std::pair<int, double>> regular;
    for (int column = 0; column <= baseColumn(); ++column) {
      const Figure f = ground_.history.at(rowOf(revenue), column);
      if (!ground_.irregular[static_cast<size_t>(column)] && f.hasValue()) regular.emplace_back(column, f.value());
    }
    if (regular.size() < 2) return std::nullopt;
    const auto& first = regular[regular.size() - std::min(ends, regular.size())];
    const auto& last = regular.back();
    const int years = last.first - first.first;
    if (unbroken && static_cast<size_t>(years) + 1 != std::min(ends, regular.size())) return std::nullopt;
    const Figure rate = compoundGrowth(Figure::of(first.second), Figure::of(last.second), years);
    return rate.hasValue() ? std::optional(Compound{rate.value(), yearAt(first.first)}) : std::nullopt;
  }

  void growth(const std::string& name) {
    const std::string& revenue = word("growth");
    const Figure level = inputOf(word("to"));
    if (!level.hasValue()) return;
    const int to = std::min(horizon_, static_cast<int>(yearsOf("to")));
    std::vector<double> yearly;
    for (const auto& [column, g] : regularHistory(ground_, rowOf(name))) yearly.push_back(g);
    const std::optional<Compound> recent = compound(revenue, static_cast<size_t>(rule_->number("years", 4)), true);
    if (yearly.empty() && !recent) {
      return proposeFigure(name, level.value(), "no two regular years to take growth from: long-run growth",
                           From::Placeholder);
    }
    double rate = yearly.empty() ? recent->rate : median(yearly);
    std::string reason = "median of " + std::to_string(yearly.size()) + " regular years' growth, " + percent(rate);
    if (recent && (yearly.empty() || recent->rate < rate)) {
      rate = recent->rate;
      reason = "compound growth since " + std::to_string(recent->from) + ", " + percent(rate) +
               (yearly.empty() ? "" : ", below the median of " + percent(median(yearly)));
    }
    const auto longest = static_cast<size_t>(rule_->number("longest", 10, 0));
    const auto least = static_cast<size_t>(rule_->number("longest", 5, 1));
    const std::optional<Compound> whole = compound(revenue, longest + 1, false);
    if (whole && static_cast<size_t>(ground_.years.back() - whole->from) >= least && whole->rate > 0) {
      const double cap = rule_->number("cap", 2) * whole->rate;
      if (rate > cap) {
        rate = cap;
        reason += "; held at " + plainNumber(rule_->number("cap", 2)) + " times the compound growth since " +
                  std::to_string(whole->from) + ", " + percent(cap);
      }
    }
    const double held = std::clamp(rate, rule_->number("within", -1, 0), rule_->number("within", 1, 1));
    if (held != rate) reason += "; held at " + percent(held);
    glide(name, held, level.value(), 1, to, reason);
  }

  /// The margin that regular years speak for, with why.
  struct TargetMargin {
    double margin;
    double last;  ///< of the last regular year
    std::string reason;
  };
  /// Whether a loss-maker has become profitable: the last two years or more are above nought, and every one before them
  /// that is looked at was a loss. A median over both says nothing of either.
  static bool hasTurned(const std::vector<std::pair<int, double>>& margins) {
    constexpr size_t kLooked = 10;
    const std::vector<double> looked = lastOf(margins, kLooked);
    size_t profits = 0;
    while (profits < looked.size() && looked[looked.size() - 1 - profits] > 0) ++profits;
    const auto losses = looked.end() - static_cast<std::ptrdiff_t>(profits);
    return profits >= 2 && losses != looked.begin() &&
           std::all_of(looked.begin(), losses, [](double m) { return m <= 0; });
  }

  [[nodiscard]] std::optional<TargetMargin> targetMargin(const std::string& revenue) const {
    const std::vector<std::pair<int, double>> all = shareOfRevenue(ground_, rule_->words("profit"), revenue);
    if (all.empty()) return std::nullopt;
    const size_t n = all.size();
    const auto is = [&](const std::string& how, double m) {
      return TargetMargin{m, all.back().second, how + ", " + percent(m) + " before exceptional items"};
    };
    if (n >= 2 && hasTurned(all)) {
      return is("mean of the last two years, as losses lie behind", (all[n - 2].second + all[n - 1].second) / 2);
    }
    constexpr size_t kShort = 5;
    constexpr size_t kLong = 10;
    std::vector<double> recent = lastOf(all, kShort);
    std::sort(recent.begin(), recent.end());
    const double spread = quantile(recent, 0.75) - quantile(recent, 0.25);
    const double middle = quantile(recent, 0.5);
    if (spread <= std::abs(middle) / 2 && recent.front() >= 0) {
      return is("median margin of " + std::to_string(recent.size()) + " regular years", middle);
    }
    const std::vector<double> longer = lastOf(all, kLong);
    return is("median margin of " + std::to_string(longer.size()) + " regular years, as the margin swings",
              median(longer));
  }

  void margin(const std::string& name) {
    const auto target = targetMargin(word("margin"));
    if (!target) return;
    glide(name, target->last, target->margin, 0, std::min(horizon_, static_cast<int>(rule_->number("over", 3))),
          target->reason);
  }

  /// Depreciation over revenue, by forecast year, as the proposed investment makes it.
  [[nodiscard]] std::vector<double> wearShares(const std::string& revenue) const {
    double assets = 0;
    for (const std::string& row : rule_->words("assets")) {
      assets += ground_.history.at(rowOf(row), baseColumn()).valueOr(0);
    }
    const double sales = ground_.history.at(rowOf(revenue), baseColumn()).valueOr(0);
    double ratio = sales > 0 ? assets / sales : 0;
    const std::vector<Figure> wear = pathOf(word("wear"));
    const std::vector<Figure> growth = pathOf(word("growth"));
    std::vector<double> shares;
    for (size_t t = 0; t < static_cast<size_t>(horizon_); ++t) {
      const double opening = ratio / std::max(0.01, 1 + growth[t].valueOr(0));
      shares.push_back(opening * wear[t].valueOr(0));
      ratio = opening * (1 - wear[t].valueOr(0));
      for (const std::string& row : rule_->words("invested")) ratio += pathOf(row)[t].valueOr(0);
    }
    return shares;
  }

  void costs() {
    const std::string& revenue = word("costs");
    const auto target = targetMargin(revenue);
    if (!target) return;
    // A cost that is not filed apart lies within the others.
    double known = 0;
    std::map<std::string, double> last;
    for (const std::string& name : rule_->rows) {
      const auto history = regularHistory(ground_, rowOf(name));
      if (!history.empty()) last[name] = history.back().second;
      known += history.empty() ? 0 : last[name];
    }
    const int over = std::min(horizon_, static_cast<int>(rule_->number("over", 3)));
    const std::vector<double> wear = wearShares(revenue);
    const auto from = wear.begin() + (over - 1);
    const double worn = std::accumulate(from, wear.end(), 0.0) / static_cast<double>(wear.end() - from);
    const double aim = 1 - target->margin - worn;
    if (aim <= 0) return;
    const std::string reason = target->reason + ", less " + percent(worn) + " of depreciation";
    for (const std::string& name : rule_->rows) {
      if (known > 0 && last.count(name) > 0) {
        glide(name, last[name], last[name] * aim / known, 0, over, reason);
      } else if (known > 0 || name != rule_->rows.back()) {
        proposeFigure(name, 0, "not filed apart from other costs");
      } else {
        proposeFigure(name, aim, reason + "; no cost is filed by itself");
      }
    }
  }

  void investment(const std::string& name) {
    const std::string& revenue = word("investment");
    const std::vector<double> kept =
        lastOf(regularHistory(ground_, rowOf(name)), static_cast<size_t>(rule_->number("median", 5)));
    const std::vector<std::pair<int, double>> assets = shareOfRevenue(ground_, rule_->words("assets"), revenue);
    const std::vector<Figure> wear = pathOf(word("wear"));
    const std::vector<Figure> growth = pathOf(word("growth"));
    if (assets.empty() || !wear.back().hasValue() || !growth.back().hasValue()) {
      if (kept.empty()) {
        proposeFigure(name, 0, "neither it nor what it buys is filed", From::Placeholder);
      } else {
        proposeFigure(name, median(kept),
                      "median of " + std::to_string(kept.size()) + " regular years, " + percent(median(kept)));
      }
      return;
    }
    const double needed = median(lastOf(assets, static_cast<size_t>(rule_->number("median", 5))));
    const double g = growth.back().value();
    const double level = std::max(0.0, needed * (g + wear.back().value()) / (1 + g));
    const std::string keeps = "keeps its assets at " + percent(needed) + " of revenue";
    if (kept.empty()) return proposeFigure(name, level, keeps);
    glide(
        name, median(kept), level, 0, std::min(horizon_, 10),
        "median of " + std::to_string(kept.size()) + " regular years, " + percent(median(kept)) + ", to what " + keeps);
  }

  void withProfit(const std::string& name) {
    const std::vector<Figure> growth = pathOf(word("growth"));
    double before = 1;
    std::vector<std::vector<Figure>> costs;
    for (const std::string& row : rule_->words("costs")) {
      costs.push_back(pathOf(row));
      before -= ground_.history.at(rowOf(row), baseColumn()).valueOr(0);
    }
    constexpr double kMostAYear = 0.25;
    Path path;
    path.shape = Shape::Typed;
    for (size_t t = 0; t < growth.size(); ++t) {
      double now = 1;
      for (const std::vector<Figure>& cost : costs) {
        if (!cost[t].hasValue()) return;  // the preset holds the debt: no pace is known
        now -= cost[t].value();
      }
      if (!growth[t].hasValue()) return;
      const double pace = growth[t].value();
      const double profit = before > 0 && now > 0 ? (1 + pace) * now / before - 1 : pace;
      path.typed.emplace_back(std::clamp(profit, -kMostAYear, kMostAYear));
      before = now;
    }
    proposePath(name, path, "grows with profit before depreciation, by 25 % a year at most");
  }

  void multiple(const std::string& name) {
    const Figure peers = ground_.peersMedian(word("multiple"));
    if (peers.hasValue() && peers.value() > 0) {
      return proposeFigure(name, peers.value(), "median of the peers that count, " + figureText(peers, Kind::Multiple));
    }
    const Figure implied =
        isDecided(name) ? Figure::absent() : ground_.probe(case_, {Variant{}}, rowOf(word("else"))).front();
    if (!implied.hasValue() || implied.value() <= 0) return;
    proposeFigure(name, implied.value(),
                  "no peer counts: what the perpetuity implies, " + figureText(implied, Kind::Multiple));
  }

  void filedAs(const std::string& name) {
    constexpr double kMost = 0.5;
    const std::string words = rateName("words");
    if (ground_.shareFiledAs(word("filed_as"), words) <= kMost) return;
    proposeFigure(name, model_[rowOf(name)].option(word("option")),
                  "the filings say '" + words + "' of " + model_[rowOf(word("filed_as"))].label);
  }

  void where(const std::string& name) {
    const model::Row& other = model_[rowOf(word("where"))];
    const int option = other.option(rule_->words("where").back());
    if (option < 0 || inputOf(other.name).valueOr(-1) != option) return;
    proposeFigure(name, model_[rowOf(name)].option(word("option")),
                  other.label + ": " + other.options[static_cast<size_t>(option)].label);
  }

  /// Debt over the firm's own value, which hangs on the weight: a few rounds settle it.
  void debtWeight(const std::string& name) {
    if (ground_.priced || isDecided(name)) return;
    double debt = 0;
    for (const std::string& row : rule_->words("debt_weight")) {
      debt += std::max(0.0, ground_.history.at(rowOf(row), baseColumn()).valueOr(0));
    }
    constexpr double kMost = 0.6;
    constexpr int kRounds = 8;
    double weight = 0.2;
    for (int round = 0; round < kRounds; ++round) {
      const std::vector<Variant> at{{{rowOf(name), {Figure::of(weight)}}}};
      const Figure value = ground_.probe(case_, at, rowOf(word("value"))).front();
      if (!value.hasValue() || value.value() <= 0) break;
      weight = std::min(kMost, debt / value.value());
    }
    proposeFigure(name, weight, "debt over the model's own value of the firm, 60 % at most, as there is no price",
                  From::Placeholder);
  }

  const ProposalGround& ground_;
  const model::Model& model_;
  const std::vector<Rule>& rules_;
  Case case_;
  int horizon_;
  const Rule* rule_ = nullptr;
};

}  // namespace

std::vector<std::pair<int, double>> regularHistory(const ProposalGround& ground, model::RowId row) {
  const bool twoYears = model::comparesYears(ground.model[row]);
  std::vector<std::pair<int, double>> figures;
  for (size_t column = 0; column < ground.years.size(); ++column) {
    const bool before = twoYears && column > 0 && ground.irregular[column - 1];
    const Figure& f = ground.history.at(row, static_cast<int>(column));
    if (!ground.irregular[column] && !before && f.hasValue()) figures.emplace_back(static_cast<int>(column), f.value());
  }
  return figures;
}

std::vector<std::pair<int, double>> shareOfRevenue(const ProposalGround& ground, const std::vector<std::string>& rows,
                                                   const std::string& revenue) {
  std::vector<std::pair<int, double>> shares;
  for (int column = 0; column < static_cast<int>(ground.years.size()); ++column) {
    if (ground.irregular[static_cast<size_t>(column)]) continue;
    const Figure& below = ground.history.at(ground.model.find(revenue), column);
    Figure sum = Figure::of(0);
    for (const std::string& row : rows) sum = sum + ground.history.at(ground.model.find(row), column);
    if (sum.hasValue() && below.hasValue() && below.value() > 0) {
      shares.emplace_back(column, sum.value() / below.value());
    }
  }
  return shares;
}

Case decidedOnly(Case c) {
  for (Scenario& s : c.scenarios) {
    std::erase_if(s.drivers, [](const auto& d) { return d.second.said.isProposed(); });
    std::erase_if(s.inputs, [](const auto& i) { return i.second.said.isProposed(); });
  }
  return c;
}

Case proposed(const Case& c, const std::vector<ProposalRule>& rules, const ProposalGround& ground) {
  return Proposer(c, rules, ground).run(false);
}

Case proposedInputs(const Case& c, const std::vector<ProposalRule>& rules, const ProposalGround& ground) {
  return Proposer(c, rules, ground).run(true);
}

}  // namespace zl
