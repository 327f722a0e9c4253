#include "core/model/checker.h"

#include <array>
#include <optional>
#include <set>

#include "core/model/fault.h"
#include "core/model/lexer.h"

namespace zl::model {
namespace {

/// Powers of money, shares, days and quoted currency. A literal zero fits every dimension.
struct Dimension {
  std::array<int, 4> power{};
  bool anything = false;
  bool fits(const Dimension& other) const { return anything || other.anything || power == other.power; }
  [[nodiscard]] bool plain() const { return anything || power == std::array<int, 4>{}; }
};

Dimension dimensionOf(Kind kind) {
  switch (kind) {
    case Kind::Money:
      return {{1, 0, 0, 0}};
    case Kind::Shares:
      return {{0, 1, 0, 0}};
    case Kind::PerShare:
      return {{1, -1, 0, 0}};
    case Kind::Days:
      return {{0, 0, 1, 0}};
    case Kind::Quote:
      return {{0, -1, 0, 1}};
    case Kind::QuoteRate:
      return {{-1, 0, 0, 1}};
    case Kind::Ratio:
    case Kind::Multiple:
    case Kind::Count:
      break;
  }
  return {};
}

std::string dimensionText(const Dimension& d) {
  for (Kind kind : {Kind::Ratio, Kind::Money, Kind::Shares, Kind::PerShare, Kind::Days, Kind::Quote, Kind::QuoteRate}) {
    if (dimensionOf(kind).power == d.power) return kind == Kind::Ratio ? "ratio" : kindWord(kind);
  }
  constexpr std::array<const char*, 4> kNames{"money", "shares", "days", "quote"};
  std::string text;
  for (size_t i = 0; i < 4; ++i) {
    if (d.power[i] != 0) {
      text += (text.empty() ? "" : " * ") + std::string(kNames[i]) + "^" + std::to_string(d.power[i]);
    }
  }
  return text;
}

class Checker {
 public:
  explicit Checker(Model& model) : model_(model) {}

  void run() {
    std::set<std::string> seen;
    for (const Row& row : model_.rows) {
      row_ = &row;
      if (seen.insert(row.name).second) continue;
      const bool later = row.at.text > model_[model_.find(row.name)].at.text;
      bad(row.at, later ? "the model has this row already; 'amend " + row.name + "' changes its rules"
                        : "this name is used by two rows");
    }
    for (Row& row : model_.rows) {
      row_ = &row;
      checkShape(row);
      checkRule(row.history, true);
      checkRule(row.first, false);
      checkRule(row.forecast, false);
      checkRule(row.value, false);
      checkRule(row.beyond, false);
    }
    checkHistoryCircles();
  }

 private:
  void checkShape(const Row& row) const {
    const bool constant = row.timing == Timing::Constant;
    const bool computed = row.declared == Declared::Row;
    if (computed && constant && !row.value) bad(row.at, "a constant row needs a value rule");
    if (computed && !constant && !row.forecast) bad(row.at, "this row needs a forecast rule");
    if (!computed && (row.forecast || row.first || row.value)) {
      bad(row.at, std::string("a ") + declaredWord(row.declared) + " is assumed or given and has no rule");
    }
    if (row.beyond && row.declared != Declared::Driver)
      bad(row.at, "only a driver says what it is beyond the forecast");
    if (row.declared == Declared::Driver && constant) {
      bad(row.at, "a driver has a path over the years; use input for a single figure");
    }
    if ((row.declared == Declared::Input || row.declared == Declared::Given) && !constant) {
      bad(row.at, std::string("a ") + declaredWord(row.declared) + " has the timing constant");
    }
    if (row.range && row.range->low > row.range->high) {
      bad(row.at, "the range runs from high to low");
    }
    if (constant && (row.historyFiled || row.history)) {
      bad(row.at, "a constant has no history");
    }
    if (row.regular) checkRegular(row);
  }

  void checkRegular(const Row& given) const {
    const RowId part = model_.find(given.regular->part), whole = model_.find(given.regular->whole);
    for (const auto& [row, name] : {std::pair(part, given.regular->part), std::pair(whole, given.regular->whole)}) {
      if (!row.known()) bad(given.at, "there is no row '" + name + "'");
      if (!model_[row].historyFiled && !model_[row].history) bad(given.at, "'" + name + "' has no history");
    }
    if (model_[part].kind != model_[whole].kind)
      bad(given.at, "'" + given.regular->part + "' is no part of '" + given.regular->whole + "': their units differ");
  }

  /// Operations that a rule is for one year once avg() and total() are written out. Nested they
  /// multiply, and a line of text would cost more than a machine has.
  void checkCost(const Expr& rule) {
    constexpr double kMostOfRule = 20'000;
    constexpr double kMostOfAll = 400'000;
    const double cost = written(rule);
    cost_ += cost;
    if (cost > kMostOfRule) {
      bad(rule.at, "with avg() and total() written out the rule has more than 20,000 operations");
    }
    if (cost_ > kMostOfAll) bad(rule.at, "with this rule the model has more than 400,000 operations a year");
  }

  static double written(const Expr& e) {
    constexpr double kLongestForecast = 15;
    double cost = 1;
    for (const Expr& part : e.args) cost += written(part);
    if (e.op == Op::Average) return 2 * cost;
    return e.op == Op::Total ? kLongestForecast * cost : cost;
  }

  void checkRule(std::optional<Expr>& rule, bool inHistory) {
    if (!rule) return;
    checkCost(*rule);
    inHistory_ = inHistory;
    const Dimension got = dimension(*rule);
    if (!got.fits(dimensionOf(row_->kind))) {
      bad(rule->at, "the rule gives " + dimensionText(got) + ", but the row is " + kindWord(row_->kind));
    }
  }

  Dimension dimension(Expr& e) {
    switch (e.op) {
      case Op::Number: {
        if (e.unit) return dimensionOf(*e.unit);
        Dimension d;
        d.anything = e.number == 0.0;
        return d;
      }
      case Op::Is:
        return option(e);
      case Op::Sum: {
        Dimension d = dimension(e.args.front());
        for (size_t i = 1; i < e.args.size(); ++i) {
          const Dimension term = dimension(e.args[i]);
          if (!d.fits(term)) bad(e.at, dimensionText(d) + " and " + dimensionText(term) + " cannot be added");
          if (d.anything) d = term;
        }
        return d;
      }
      case Op::Counter:
        return {};
      case Op::Ref:
        return reference(e);
      case Op::Negate:
      case Op::Abs:
      case Op::Round:
        return dimension(e.args[0]);
      case Op::Average: {
        if (timing(e.args[0]) != Timing::Balance) {
          bad(e.at, "avg() takes the mean of opening and closing, which only a balance has");
        }
        return dimension(e.args[0]);
      }
      case Op::Total: {
        if (row_->timing != Timing::Constant) {
          bad(e.at, "total() sums over the forecast and belongs in a constant row");
        }
        inTotal_ = true;
        const Dimension d = dimension(e.args[0]);
        inTotal_ = false;
        if (timing(e.args[0]) == Timing::Balance) {
          bad(e.at, "a balance cannot be summed over time");
        }
        return d;
      }
      case Op::Add:
      case Op::Subtract:
      case Op::Min:
      case Op::Max:
      case Op::Known:
        return same(e, 0, 1);
      case Op::Less:
      case Op::LessEqual:
      case Op::Greater:
      case Op::GreaterEqual:
      case Op::Equal:
        same(e, 0, 1);
        return {};
      case Op::And:
      case Op::Or:
        dimension(e.args[0]);
        dimension(e.args[1]);
        return {};
      case Op::If:
        dimension(e.args[0]);
        return same(e, 1, 2);
      case Op::Guard:
        dimension(e.args[0]);
        return dimension(e.args[1]);
      case Op::Multiply:
        return product(e, 1);
      case Op::Divide:
        return product(e, -1);
      case Op::Power: {
        const Dimension base = dimension(e.args[0]);
        const Dimension exponent = dimension(e.args[1]);
        if (!base.plain() || !exponent.plain()) {
          bad(e.at, "only ratios can be raised to a power, and only to a ratio");
        }
        return {};
      }
    }
    return {};
  }

  /// A choice stands on one of its options; compared with a number it would go wrong when options move.
  Dimension option(Expr& e) {
    dimension(e.args[0]);
    const Row& choice = model_[e.args[0].row];
    const int number = choice.option(e.name);
    if (number < 0) {
      std::string names;
      for (const Option& o : choice.options) names += (names.empty() ? ", its options are " : ", ") + o.name;
      bad(e.at, "'" + choice.name + "' has no option '" + e.name + "'" + (names.empty() ? ": it is no choice" : names));
    }
    e.args[1].number = number;
    return {};
  }

  Dimension reference(Expr& e) {
    e.row = model_.find(e.name);
    if (!e.row.known()) bad(e.at, "there is no row '" + e.name + "'");
    const Row& target = model_[e.row];
    const bool here = row_->timing == Timing::Constant;
    const bool there = target.timing == Timing::Constant;
    if (there && (e.lag > 0 || e.anchor != Anchor::Here)) {
      bad(e.at, "'" + e.name + "' is a constant and has no years");
    }
    if (here && !there && e.anchor == Anchor::Here && !inTotal_) {
      bad(e.at, "'" + e.name +
                    "' has a figure per year; say which: base(), opening_year(), "
                    "final() or total()");
    }
    if (inHistory_ && !there) {
      if (e.anchor == Anchor::First || e.anchor == Anchor::Second || e.anchor == Anchor::Third ||
          e.anchor == Anchor::Final || e.anchor == Anchor::Beyond) {
        bad(e.at, "history cannot look into the forecast");
      }
      if (!target.historyFiled && !target.history) {
        bad(e.at, "'" + e.name + "' has no history rule");
      }
    }
    if (inHistory_ && target.regular) bad(e.at, "history cannot read '" + e.name + "', which is a mean of it");
    if (inHistory_ && there && target.declared == Declared::Row) {
      bad(e.at, "history may read inputs and givens, not the computed constant '" + e.name + "'");
    }
    if (e.anchor == Anchor::Beyond && row_->timing != Timing::Constant)
      bad(e.at, "beyond() looks at the year after the forecast and belongs in a constant row");
    if (e.anchor == Anchor::Base && !target.historyFiled && !target.history) {
      bad(e.at, "'" + e.name + "' has no history rule, so it has no base year");
    }
    return dimensionOf(target.kind);
  }

  Dimension same(Expr& e, size_t first, size_t second) {
    const Dimension a = dimension(e.args[first]);
    const Dimension b = dimension(e.args[second]);
    if (!a.fits(b)) {
      bad(e.at, dimensionText(a) + " and " + dimensionText(b) + " cannot be added or compared");
    }
    return a.anything ? b : a;
  }

  Dimension product(Expr& e, int direction) {
    const Dimension a = dimension(e.args[0]);
    const Dimension b = dimension(e.args[1]);
    Dimension d;
    for (size_t i = 0; i < d.power.size(); ++i) d.power[i] = a.power[i] + direction * b.power[i];
    return d;
  }

  /// What an expression is in time: a difference of balances is a flow, their sum a balance.
  Timing timing(const Expr& e) {
    switch (e.op) {
      case Op::Ref: {
        const RowId index = model_.find(e.name);
        if (!index.known()) bad(e.at, "there is no row '" + e.name + "'");
        return model_[index].timing;
      }
      case Op::Number:
        return Timing::Constant;
      case Op::Subtract: {
        const Timing a = timing(e.args[0]);
        const Timing b = timing(e.args[1]);
        return a == Timing::Balance && b == Timing::Balance ? Timing::Flow : a;
      }
      case Op::If:
      case Op::Guard:
        return timing(e.args.back());
      default: {
        Timing found = Timing::Constant;
        for (const Expr& part : e.args) {
          const Timing t = timing(part);
          if (t == Timing::Flow) return Timing::Flow;
          if (t == Timing::Balance) found = Timing::Balance;
        }
        return found;
      }
    }
  }

  void checkHistoryCircles() {
    std::vector<int> state(model_.rows.size(), 0);
    for (size_t i = 0; i < model_.rows.size(); ++i) visitHistory(i, state);
  }

  void visitHistory(size_t index, std::vector<int>& state) {
    if (state[index] == 2) return;
    row_ = &model_.rows[index];
    if (state[index] == 1) bad(row_->at, "its history rule leads back to itself in the same year");
    state[index] = 1;
    if (row_->history) visitRefs(*row_->history, state);
    state[index] = 2;
  }

  void visitRefs(const Expr& e, std::vector<int>& state) {
    if (e.op == Op::Ref && e.lag == 0 && e.anchor == Anchor::Here) {
      visitHistory(e.row.at(), state);
    }
    for (const Expr& part : e.args) visitRefs(part, state);
  }

  [[noreturn]] void bad(Position at, const std::string& what) const {
    throw Fault{Error{ErrorKind::BadInput,
                      "row '" + row_->name + "': " + what,
                      placeText(model_.sources[static_cast<size_t>(at.text)], at),
                      {}}};
  }

  Model& model_;
  const Row* row_ = nullptr;
  double cost_ = 0;
  bool inHistory_ = false;
  bool inTotal_ = false;
};

}  // namespace

Status checkModel(Model& model) {
  try {
    Checker(model).run();
    return {};
  } catch (const Fault& fault) {
    return tl::unexpected(fault.error);
  }
}

}  // namespace zl::model
