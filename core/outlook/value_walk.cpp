#include "core/outlook/value_walk.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>
#include <set>

#include "core/outlook/roll_forward.h"

namespace zl {
namespace {

struct Part {
  enum class Of { Rows, Model, Filed, Horizon, Probabilities } of = Of::Rows;
  std::string label;
  std::vector<std::string> names;   ///< of rows
  std::vector<std::string> labels;  ///< of rows
  bool moves = false;               ///< the ground moves with it: another program or another history
};

/// Whether a history rule of the model reads the row.
bool readByHistory(const model::Model& m, const std::string& name) {
  const std::function<bool(const model::Expr&)> reads = [&](const model::Expr& e) {
    return (e.op == model::Op::Ref && e.name == name) || std::any_of(e.args.begin(), e.args.end(), reads);
  };
  return std::any_of(m.rows.begin(), m.rows.end(),
                     [&](const model::Row& row) { return row.history && reads(*row.history); });
}

class Walker {
 public:
  Walker(const WalkEnd& from, const WalkEnd& to, const WalkPlan& plan, const GroundOf& groundOf)
      : ends_{&from, &to}, plan_(plan), groundOf_(groundOf) {}

  Result<ValueWalk> run() {
    if (Status s = chooseScenarios(); !s) return tl::unexpected(s.error());
    for (int end = 0; end < 2; ++end) {
      Result<Ground> ground = groundOf_(ends_[end]->assumptions, end == 1 && plan_.filedDiffers);
      if (!ground) return tl::unexpected(ground.error());
      grounds_[end] = std::move(*ground);
      grounds_[end].baseYear = ends_[end]->assumptions.baseYear;
      if (!modelOf(end).find(model::Role::ValueBeforeFloor).known()) {
        return fail(ErrorKind::NotFound,
                    std::string("no row of the model means '") + model::specOf(model::Role::ValueBeforeFloor).name +
                        "', which a walk explains",
                    modelOf(end).title);
      }
    }
    findParts();
    if (parts_.size() > static_cast<size_t>(kMostWalkParts)) {
      return fail(
          ErrorKind::BadInput,
          std::to_string(parts_.size()) + " parts differ; a walk splits " + std::to_string(kMostWalkParts) + " at most",
          "value walk", plan_.byRow ? "Walk by group" : "Compare versions that lie closer together");
    }
    values_.assign(size_t{1} << parts_.size(), 0.0);
    if (Status s = valueMixtures(); !s) return tl::unexpected(s.error());
    return summed();
  }

 private:
  const Case& caseOf(int end) const { return ends_[end]->assumptions; }
  const model::Model& modelOf(int end) const { return grounds_[end].compiled->model; }

  Status chooseScenarios() {
    const auto has = [&](int end, const std::string& id) { return caseOf(end).scenario(id) != nullptr; };
    for (int end = 0; end < 2; ++end) {
      for (const Scenario& s : caseOf(end).scenarios) {
        if (!plan_.scenario.empty() && s.id != plan_.scenario) continue;
        if (!has(1 - end, s.id)) {
          return fail(ErrorKind::BadInput, "only one of the two has the scenario '" + s.label + "'", "value walk",
                      "Walk a scenario that both have");
        }
        if (end == 0) scenarios_.push_back(s.id);
      }
    }
    if (plan_.scenario.empty()) return checkProbabilities();
    if (!scenarios_.empty()) return {};
    return fail(ErrorKind::NotFound, "there is no scenario '" + plan_.scenario + "'", "value walk");
  }

  Status checkProbabilities() const {
    for (int end = 0; end < 2; ++end) {
      if (!probabilitiesSumToOne(caseOf(end))) {
        return fail(ErrorKind::BadInput, "the probabilities do not sum to one", end == 0 ? "the first" : "the second",
                    "Correct them, or walk one scenario");
      }
    }
    return {};
  }

  // ---- What differs

  /// Whether what the two ends hold for a row differs in a scenario that counts.
  template <class Same>
  bool differs(bool inBase, const Same& same) const {
    std::vector<std::string> ids = scenarios_;
    if (inBase) ids.emplace_back(kBase);
    return !std::all_of(ids.begin(), ids.end(), same);
  }

  /// Compared by figures on the ground of either end: the same path may mean another thing there.
  bool driverDiffers(const std::string& name) const {
    return differs(false, [&](const std::string& id) {
      return std::all_of(std::begin(grounds_), std::end(grounds_), [&](const Ground& ground) {
        const model::RowId row = ground.compiled->model.find(name);
        return !row.known() || figuresOfEnd(ground, row, 0, id) == figuresOfEnd(ground, row, 1, id);
      });
    });
  }

  /// Of an input or a given. History stands on what the base scenario says, whichever is walked.
  bool constantDiffers(const std::string& name, bool inBase) const {
    return differs(inBase, [&](const std::string& id) {
      Figure f[2];
      for (int end = 0; end < 2; ++end) {
        // A model without the row would hold what the other's preset says.
        const model::Model& m = modelOf(modelOf(end).find(name).known() ? end : 1);
        const model::Row& row = m[m.find(name)];
        f[end] = constantFigure(row, caseOf(end), *caseOf(end).scenario(id), ends_[end]->givens);
      }
      return f[0].hasValue() || f[1].hasValue() ? f[0] == f[1] : true;
    });
  }

  /// Rows that the value reads in either end's model, through any rule; a part of none of them has no effect.
  void findWhatValueReads() {
    for (int end = 0; end < 2; ++end) {
      const model::Model& m = modelOf(end);
      std::vector<model::RowId> open{m.find(model::Role::ValueBeforeFloor)};
      std::vector<bool> seen(m.rows.size(), false);
      const std::function<void(const model::Expr&)> follow = [&](const model::Expr& e) {
        if (e.op == model::Op::Ref) open.push_back(e.row);
        for (const model::Expr& part : e.args) follow(part);
      };
      while (!open.empty()) {
        const size_t at = open.back().at();
        open.pop_back();
        if (seen[at]) continue;
        seen[at] = true;
        const model::Row& row = m.rows[at];
        underValue_.insert(row.name);
        for (const std::optional<model::Expr>* rule :
             {&row.history, &row.first, &row.forecast, &row.value, &row.beyond}) {
          if (*rule) follow(**rule);
        }
      }
    }
  }
  [[nodiscard]] bool standsUnderValue(const std::string& row) const { return underValue_.count(row) > 0; }

  void findParts() {
    findWhatValueReads();
    const model::Model& m = modelOf(1);
    for (const model::Row& row : m.rows) {
      // The base year goes with the filed figures, not by itself.
      if (row.declared == model::Declared::Row || row.name == modelOf(1).nameOf(model::Role::BaseFiscalYear)) continue;
      const bool driver = row.declared == model::Declared::Driver;
      const bool moves = !driver && readByHistory(m, row.name);
      if (driver ? !driverDiffers(row.name) : !constantDiffers(row.name, moves)) continue;
      if (!standsUnderValue(row.name)) continue;
      const std::string& label = plan_.byRow ? row.label : row.group;
      if (plan_.byRow || parts_.empty() || parts_.back().label != label) {
        parts_.push_back({Part::Of::Rows, label, {}, {}, false});
      }
      parts_.back().names.push_back(row.name);
      parts_.back().labels.push_back(row.label);
      parts_.back().moves = parts_.back().moves || moves;
    }
    const Case& a = caseOf(0);
    const Case& b = caseOf(1);
    if (a.model != b.model || ownRowsInUse(a) != ownRowsInUse(b)) {
      std::vector<std::string> what;
      if (a.model != b.model) what.emplace_back("Model");
      if (ownRowsInUse(a) != ownRowsInUse(b)) what.emplace_back("Own rows");
      parts_.push_back({Part::Of::Model, "Model and own rows", {}, std::move(what), true});
    }
    std::vector<std::string> filed;
    if (a.baseYear != b.baseYear) filed.emplace_back("Base year");
    if (plan_.filedDiffers) filed.emplace_back("Documents filed");
    if (a.adjustments != b.adjustments) filed.emplace_back("Adjustments of history");
    if (a.lines != b.lines || a.ownLines != b.ownLines) filed.emplace_back("Lines that concepts stand on");
    if (a.firstFiled != b.firstFiled) filed.emplace_back("Figures as first filed");
    if (!filed.empty())
      parts_.push_back(
          {Part::Of::Filed, "Filed figures", {modelOf(1).nameOf(model::Role::BaseFiscalYear)}, std::move(filed), true});
    if (a.horizon != b.horizon) parts_.push_back({Part::Of::Horizon, "Horizon", {}, {"Forecast years"}, true});
    if (plan_.scenario.empty() && std::any_of(scenarios_.begin(), scenarios_.end(), [&](const std::string& id) {
          return a.scenario(id)->probability != b.scenario(id)->probability;
        })) {
      parts_.push_back({Part::Of::Probabilities, "Probabilities", {}, {"Probabilities"}, false});
    }
  }

  // ---- Mixtures

  [[nodiscard]] bool second(size_t mask, size_t part) const { return (mask >> part & 1) != 0; }

  [[nodiscard]] bool second(size_t mask, Part::Of of) const {
    for (size_t p = 0; p < parts_.size(); ++p) {
      if (parts_[p].of == of) return second(mask, p);
    }
    return false;
  }

  static Figure lastActual(const Ground& ground, model::RowId row) {
    return ground.history->at(row, ground.history->layout().baseColumn());
  }

  /// The first end's case with the chosen parts of the second.
  [[nodiscard]] Case mixed(size_t mask) const {
    Case c = caseOf(0);
    const Case& other = caseOf(1);
    if (second(mask, Part::Of::Horizon)) c.horizon = other.horizon;
    if (second(mask, Part::Of::Model)) {
      c.model = other.model;
      c.ownRows = other.ownRows;
    }
    if (second(mask, Part::Of::Filed)) {
      c.baseYear = other.baseYear;
      c.adjustments = other.adjustments;
      c.lines = other.lines;
      c.ownLines = other.ownLines;
      c.firstFiled = other.firstFiled;
    }
    for (Scenario& s : c.scenarios) {
      if (s.id != kBase && std::count(scenarios_.begin(), scenarios_.end(), s.id) == 0) continue;
      for (size_t p = 0; p < parts_.size(); ++p) {
        for (const std::string& name : parts_[p].names) place(s, name, second(mask, p) ? 1 : 0);
      }
    }
    return c;
  }

  /// Gives a row in a scenario what one end holds for it. What nobody assumed stays the model's own.
  void place(Scenario& s, const std::string& name, int end) const {
    const Case& from = caseOf(end);
    const Scenario& there = *from.scenario(s.id);
    s.drivers.erase(name);
    s.inputs.erase(name);
    if (const Assumption* a = from.driver(there, name)) {
      s.drivers[name] = *a;
      const model::RowId row = modelOf(end).find(name);
      const bool drives = row.known() && modelOf(end)[row].declared == model::Declared::Driver;
      if (drives && a->path.shape == Shape::Steps)
        s.drivers[name].path = asTyped(name, end, s.id);  // stages may differ
    }
    if (const InputChoice* choice = from.input(there, name)) s.inputs[name] = *choice;
  }

  [[nodiscard]] Path asTyped(const std::string& name, int end, const std::string& id) const {
    Path typed;
    typed.shape = Shape::Typed;
    for (const Figure& f : figuresOfEnd(grounds_[end], modelOf(end).find(name), end, id)) {
      typed.typed.push_back(f.hasValue() ? std::optional(f.value()) : std::nullopt);
    }
    return typed;
  }

  [[nodiscard]] Givens mixedGivens(size_t mask) const {
    Givens givens = ends_[0]->givens;
    for (size_t p = 0; p < parts_.size(); ++p) {
      if (!second(mask, p)) continue;
      for (const std::string& name : parts_[p].names) {
        const auto given = ends_[1]->givens.find(name);
        if (given != ends_[1]->givens.end()) givens[name] = given->second;
      }
    }
    return givens;
  }

  /// Values all mixtures: those that share a ground run as lanes of one program.
  Status valueMixtures() {
    size_t moving = 0;
    for (size_t p = 0; p < parts_.size(); ++p) moving |= parts_[p].moves ? size_t{1} << p : 0;
    std::map<size_t, std::vector<size_t>> byGround;
    for (size_t mask = 0; mask < values_.size(); ++mask) byGround[mask & moving].push_back(mask);
    for (const auto& [key, masks] : byGround) {
      const bool filed = second(key, Part::Of::Filed) && plan_.filedDiffers;
      const Case c = mixed(key);
      Result<Ground> ground = groundOf_(c, filed);
      if (!ground) return tl::unexpected(ground.error());
      ground->baseYear = c.baseYear;
      for (const std::string& id : scenarios_) valueLanes(*ground, masks, id);
    }
    return {};
  }

  void valueLanes(const Ground& ground, const std::vector<size_t>& masks, const std::string& id) {
    const model::Model& m = ground.compiled->model;
    const model::RowId wanted = m.find(model::Role::ValueBeforeFloor);
    const model::Program& program = ground.compiled->partFor(wanted);
    model::LaneInputs inputs(program, static_cast<int>(masks.size()));
    std::map<model::RowId, size_t> partOf;
    for (size_t p = 0; p < parts_.size(); ++p) {
      for (const std::string& name : parts_[p].names) {
        if (const model::RowId row = m.find(name); row.known()) partOf[row] = p;
      }
    }
    std::map<model::RowId, std::vector<Figure>> figures[2];
    const auto figure = [&](model::RowId row, int end, int column) {
      const auto [at, fresh] = figures[end].try_emplace(row);
      if (fresh) at->second = figuresOfEnd(ground, row, end, id);
      const size_t i = at->second.size() == 1 ? 0 : static_cast<size_t>(column - program.layout.historyYears);
      return at->second[i].orNaN();
    };
    for (size_t i = 0; i < program.inputs.size(); ++i) {
      const model::Cell cell = program.inputs[i].cell;
      const model::Row& row = m[cell.row];
      const bool path = row.declared == model::Declared::Driver;
      if (row.declared == model::Declared::Row || (path && !program.layout.isForecast(cell.column))) {
        inputs.setAll(i, ground.history->at(cell.row, cell.column).orNaN());
        continue;
      }
      const auto part = partOf.find(cell.row);
      const double first = figure(cell.row, 0, cell.column);
      if (part == partOf.end()) {
        inputs.setAll(i, first);
        continue;
      }
      const double other = figure(cell.row, 1, cell.column);
      for (size_t lane = 0; lane < masks.size(); ++lane) {
        inputs.set(i, static_cast<int>(lane), second(masks[lane], part->second) ? other : first);
      }
    }
    const auto value = static_cast<std::uint32_t>(program.slot({wanted, 0}));
    const model::LaneResults results = model::evaluate(program, inputs, {{value}});
    for (size_t lane = 0; lane < masks.size(); ++lane) {
      const int end = second(masks[lane], Part::Of::Probabilities) ? 1 : 0;
      const double weight = plan_.scenario.empty() ? caseOf(end).scenario(id)->probability : 1;
      values_[masks[lane]] += weight * results.at(0, static_cast<int>(lane));
    }
  }

  /// What a driver, input or given of one end holds on a ground: a figure a forecast year, or one.
  std::vector<Figure> figuresOfEnd(const Ground& ground, model::RowId row, int end, const std::string& id) const {
    const model::Row& r = ground.compiled->model[row];
    const Scenario& s = *caseOf(end).scenario(id);
    if (r.declared != model::Declared::Driver) return {constantFigure(r, caseOf(end), s, ends_[end]->givens)};
    const int years = ground.history->layout().forecastYears;
    const bool dated = ground.baseYear > 0 && caseOf(end).baseYear > 0;
    const int later = dated ? ground.baseYear - caseOf(end).baseYear : 0;
    if (later == 0) return driverFigures(r, caseOf(end), s, lastActual(ground, row), years).figures;
    // Paths stand by calendar year: they move with the base, or wait for it behind the other's.
    if (later > 0) {
      const Case moved = rolledForward(caseOf(end), later);
      return driverFigures(r, moved, *moved.scenario(id), lastActual(ground, row), years).figures;
    }
    const int ahead = std::min(-later, years);
    std::vector<Figure> figures = figuresOfEnd(ground, row, 1 - end, id);
    if (onlyRolled(r.name, 1 - end, -later, id)) return figures;
    const model::RowId own = modelOf(end).find(r.name);
    const Figure last = !own.known() ? Figure::absent("the model has no such row") : lastActual(grounds_[end], own);
    const std::vector<Figure> then = driverFigures(r, caseOf(end), s, last, years - ahead).figures;
    std::copy(then.begin(), then.end(), figures.begin() + ahead);
    return figures;
  }

  /// Whether the later end holds for a row what the earlier one does, moved on and no more.
  [[nodiscard]] bool onlyRolled(const std::string& name, int earlier, int years, const std::string& id) const {
    const Case moved = rolledForward(caseOf(earlier), years);
    const Case& other = caseOf(1 - earlier);
    for (const std::string& scenario : {id, std::string(kBase)}) {
      const Assumption* a = moved.driver(*moved.scenario(scenario), name);
      const Assumption* b = other.driver(*other.scenario(scenario), name);
      if ((a == nullptr) != (b == nullptr) || (a != nullptr && a->path != b->path)) return false;
    }
    return moved.stages == other.stages;
  }

  // ---- The split

  Result<ValueWalk> summed() const {
    ValueWalk walk;
    walk.mixtures = values_.size();
    for (const Part& part : parts_) walk.steps.push_back({part.label, part.labels, 0});
    for (int end = 0; end < 2; ++end) {
      const size_t mask = end == 0 ? 0 : values_.size() - 1;
      Figure& value = end == 0 ? walk.from : walk.to;
      value = Figure::of(values_[mask]);
      if (value.hasValue()) continue;
      const Result<std::string> gap = gapOf(mask);
      if (!gap) return tl::unexpected(gap.error());
      value = Figure::notMeaningful(*gap);
      walk.gap = *gap;
    }
    const auto hole = std::find_if(values_.begin(), values_.end(), [](double v) { return !std::isfinite(v); });
    if (hole == values_.end()) {
      split(walk);
    } else if (walk.gap.empty()) {
      Result<std::string> gap = gapOf(static_cast<size_t>(hole - values_.begin()));
      if (!gap) return tl::unexpected(gap.error());
      walk.gap = std::move(*gap);
    }
    return walk;
  }

  void split(ValueWalk& walk) const {
    const size_t n = parts_.size();
    // |S|! (n - |S| - 1)! / n! by the size of S: one over n times the ways to choose it.
    std::vector<double> weight(n, 1.0 / static_cast<double>(std::max<size_t>(n, 1)));
    for (size_t size = 1; size < n; ++size) {
      weight[size] = weight[size - 1] * static_cast<double>(size) / static_cast<double>(n - size);
    }
    for (size_t p = 0; p < n; ++p) {
      const size_t bit = size_t{1} << p;
      for (size_t mask = 0; mask < values_.size(); ++mask) {
        if ((mask & bit) != 0) continue;
        const auto size = static_cast<size_t>(__builtin_popcountll(mask));
        walk.steps[p].effect += weight[size] * (values_[mask | bit] - values_[mask]);
      }
    }
  }

  /// In words: which mixture has no value, and why.
  Result<std::string> gapOf(size_t mask) const {
    std::string from;
    for (size_t p = 0; p < parts_.size(); ++p) {
      if (second(mask, p)) from += (from.empty() ? "" : ", ") + parts_[p].label;
    }
    const Case c = mixed(mask);
    const Result<Ground> ground = groundOf_(c, second(mask, Part::Of::Filed) && plan_.filedDiffers);
    if (!ground) return tl::unexpected(ground.error());
    const Evaluation e(ground->compiled, ground->history, c, mixedGivens(mask));
    std::string why;
    for (const std::string& id : scenarios_) {
      const Figure value = e.constant(model::Role::ValueBeforeFloor, c.indexOf(id));
      if (value.hasValue()) continue;
      why = c.scenario(id)->label + ": " + value.reason();
      break;
    }
    const std::string where = mask == 0                    ? "the first has no value"
                              : mask + 1 == values_.size() ? "the second has no value"
                                                           : "the first with the second's " + from + " has no value";
    return where + " (" + why + ")";
  }

  const WalkEnd* ends_[2];
  const WalkPlan& plan_;
  const GroundOf& groundOf_;
  Ground grounds_[2];
  std::vector<std::string> scenarios_;
  std::set<std::string> underValue_;  ///< rows that the value reads
  std::vector<Part> parts_;
  std::vector<double> values_;  ///< raw value per share by mixture: a bit a part, set where it is the second's
};

}  // namespace

Result<ValueWalk> walkValue(const WalkEnd& from, const WalkEnd& to, const WalkPlan& plan, const GroundOf& groundOf) {
  return Walker(from, to, plan, groundOf).run();
}

std::vector<double> effectsThatAddUp(const ValueWalk& walk, int decimals) {
  const double unit = std::pow(10.0, decimals);
  const size_t n = walk.steps.size();
  std::vector<double> whole(n);
  for (size_t i = 0; i < n; ++i) whole[i] = std::round(walk.steps[i].effect * unit);
  if (!walk.from.hasValue() || !walk.to.hasValue() || n == 0) return std::vector<double>(n, 0.0);
  const double total = std::round(walk.to.value() * unit) - std::round(walk.from.value() * unit);
  double left = total - std::accumulate(whole.begin(), whole.end(), 0.0);
  std::vector<size_t> order(n);
  std::iota(order.begin(), order.end(), size_t{0});
  const auto lost = [&](size_t i) { return (walk.steps[i].effect * unit - whole[i]) * (left > 0 ? 1 : -1); };
  std::stable_sort(order.begin(), order.end(), [&](size_t a, size_t b) { return lost(a) > lost(b); });
  for (size_t i = 0; left != 0; i = (i + 1) % n) {
    whole[order[i]] += left > 0 ? 1 : -1;
    left += left > 0 ? -1 : 1;
  }
  for (double& x : whole) x = x / unit + 0.0;  // no negative zero
  return whole;
}

}  // namespace zl
