// Worst and best: base's own path, apart from it by the quartiles of regular history.

#include <algorithm>

#include "core/history/statistics.h"
#include "core/outlook/evaluation.h"
#include "core/proposal/propose.h"
#include "core/quantity/number_text.h"

namespace zl {
namespace {

using From = Provenance::From;

constexpr size_t kShortHistory = 3;     // figures; quartiles of fewer say nothing
constexpr double kShortDistance = 0.1;  // of the last figure, in place of them

/// One driver's two ways to lie apart from base.
struct Apart {
  model::RowId row;
  std::vector<Figure> paths[2];  ///< by forecast year: at the lower quartile, at the upper
  std::string why[2];
};

/// Distances of the quartiles from the median: what a lower quartile of growth or margin does to the driver, an upper.
struct Distances {
  double down = 0, up = 0;
  std::string of;
};

std::optional<Distances> distancesOf(const ProposalRule& rule, const ProposalGround& ground, model::RowId driver) {
  const bool margin = rule.has("profit");
  std::vector<double> figures;
  const std::vector<std::pair<int, double>> history =
      margin ? shareOfRevenue(ground, rule.words("profit"), rule.words("apart").front())
             : regularHistory(ground, driver);
  figures.reserve(history.size());
  for (const auto& [column, figure] : history) figures.push_back(figure);
  if (figures.empty()) return std::nullopt;
  const double last = figures.back();
  std::sort(figures.begin(), figures.end());
  Distances d;
  if (figures.size() < kShortHistory) {
    d.up = std::abs(last) * kShortDistance;
    d.down = -d.up;
    d.of = "a tenth of the last figure, as history is short";
  } else {
    const double middle = quantile(figures, 0.5);
    d.down = quantile(figures, 0.25) - middle;
    d.up = quantile(figures, 0.75) - middle;
    d.of = "the quartiles of " + std::to_string(figures.size()) + " regular years";
  }
  // A margin moves by costs: what lowers it raises them.
  if (margin) d = {-d.down, -d.up, d.of};
  return d;
}

std::vector<Apart> apartOf(const Case& c, const std::vector<ProposalRule>& rules, const ProposalGround& ground) {
  std::vector<Apart> all;
  for (const ProposalRule& rule : rules) {
    if (rule.kind != ProposalRule::Kind::Apart) continue;
    for (const std::string& name : rule.rows) {
      const model::RowId row = ground.model.find(name);
      const model::Row& driver = ground.model[row];
      const std::optional<Distances> distances = distancesOf(rule, ground, row);
      if (!driver.projected || !distances) continue;
      const Figure last = ground.history.at(row, static_cast<int>(ground.years.size()) - 1);
      const std::vector<Figure> base = driverFigures(driver, c, c.base(), last, c.horizon).figures;
      Apart apart;
      apart.row = row;
      for (int way = 0; way < 2; ++way) {
        const double distance = way == 0 ? distances->down : distances->up;
        for (size_t t = 0; t < base.size(); ++t) {
          const double left = rule.has("fading") ? 1 - static_cast<double>(t) / static_cast<double>(base.size()) : 1.0;
          Figure f = base[t] + Figure::of(distance * left);
          if (driver.range && f.hasValue()) {
            f = Figure::of(std::clamp(f.value(), driver.range->low, driver.range->high));
          }
          apart.paths[way].push_back(std::move(f));
        }
        apart.why[way] = "apart from base by " + figureText(Figure::of(distance), driver.kind) + " points, by " +
                         distances->of + (rule.has("fading") ? ", less from year to year" : "");
      }
      all.push_back(std::move(apart));
    }
  }
  return all;
}

Path typedPath(const std::vector<Figure>& figures) {
  Path path;
  path.shape = Shape::Typed;
  for (const Figure& f : figures) path.typed.push_back(f.hasValue() ? std::optional(f.value()) : std::nullopt);
  return path;
}

}  // namespace

Case proposedScenarios(const Case& c, const std::vector<ProposalRule>& rules, const ProposalGround& ground) {
  Case filled = c;
  const std::vector<Apart> all = apartOf(c, rules, ground);
  // Where shares are not counted, the firm's value orders as well.
  model::RowId value = ground.model.find(model::Role::ValueBeforeFloor);
  if (!ground.probe(c, {Variant{}}, value).front().hasValue()) value = ground.model.find(model::Role::EnterpriseValue);
  // What each way of each driver does to base's value by itself.
  std::vector<Variant> single{Variant{}};
  for (const Apart& a : all) {
    for (const std::vector<Figure>& path : a.paths) single.push_back({{a.row, path}});
  }
  const std::vector<Figure> values = ground.probe(c, single, value);
  const Figure& base = values.front();
  for (const bool worst : {true, false}) {
    const int at = filled.indexOf(worst ? kWorst : kBest);
    if (at < 0) continue;
    const auto lowers = [&](const Figure& a, const Figure& b) {
      return worst ? a.value() < b.value() : a.value() > b.value();
    };
    struct Chosen {
      const Apart* apart;
      int way;
      Figure value;
    };
    std::vector<Chosen> chosen;
    for (size_t i = 0; i < all.size(); ++i) {
      const Figure& down = values[1 + 2 * i];
      const Figure& up = values[2 + 2 * i];
      int way = worst ? 0 : 1;
      if (base.hasValue() && down.hasValue() && up.hasValue()) {
        way = lowers(down, up) ? 0 : 1;
        if (!lowers(way == 0 ? down : up, base)) continue;
      }
      chosen.push_back({&all[i], way, values[1 + 2 * i + static_cast<size_t>(way)]});
    }
    // Two that each move the value the right way may not do so together: then the stronger one stands alone.
    Variant together;
    for (const Chosen& one : chosen) together[one.apart->row] = one.apart->paths[one.way];
    const Figure both = ground.probe(c, {together}, value).front();
    if (chosen.size() > 1 && base.hasValue() && both.hasValue() && !lowers(both, base)) {
      const auto strongest = std::min_element(
          chosen.begin(), chosen.end(), [&](const Chosen& a, const Chosen& b) { return lowers(a.value, b.value); });
      chosen = {*strongest};
    }
    Scenario& scenario = filled.scenarios[static_cast<size_t>(at)];
    for (const Chosen& one : chosen) {
      const std::string& name = ground.model[one.apart->row].name;
      if (scenario.drivers.count(name) > 0) continue;  // decided
      scenario.drivers[name] = {typedPath(one.apart->paths[one.way]),
                                {one.apart->why[one.way], "", "", From::Proposed}};
    }
  }
  return filled;
}

}  // namespace zl
