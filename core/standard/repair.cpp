#include "core/standard/repair.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/filing/amount.h"

namespace zl {
namespace {

constexpr size_t kMostTried = 60;   ///< statements are made anew for each
constexpr size_t kFewestYears = 2;  ///< in which a row must be what a tie lacks

/// A row as it was filed: its concept, and its figure by fiscal year.
struct FiledRow {
  std::string label;
  bool balance = false;
  std::map<int, Amount> amounts;  ///< by column
};

using FiledRows = std::map<std::string, FiledRow>;

FiledRows rowsOf(const StandardStatements& now, std::span<const Fact> facts) {
  FiledRows rows;
  for (const Fact& fact : facts) {
    const bool annual = fact.period.isInstant() || fact.period.isFullYear();
    if (!fact.segments.empty() || !annual || fact.unit.size() != 3) continue;
    const auto year = std::find_if(now.years().begin(), now.years().end(),
                                   [&](const FiscalYear& y) { return y.end == fact.period.end; });
    const std::optional<Amount> amount = amountOf(fact);
    if (year == now.years().end() || !amount || amount->number == Decimal(0)) continue;
    FiledRow& row = rows[fact.concept_name];
    row.label = fact.label;
    row.balance = fact.period.isInstant();
    row.amounts.insert_or_assign(static_cast<int>(year - now.years().begin()), *amount);
  }
  return rows;
}

/// A tie that fails, or that lines which are not filed keep from being judged.
struct OpenTie {
  const Tie* tie;
  std::vector<const TieResult*> years;
  std::set<std::string> missing;
};

/// +1 or -1 where the gap is `times` the row's figure, of that sign, in every year in which the tie fails; else 0. What
/// rounding alone may be, an amount per share beside millions, explains nothing.
int explains(const FiledRow& row, const OpenTie& open, int times) {
  for (const int sign : {1, -1}) {
    const bool all = std::all_of(open.years.begin(), open.years.end(), [&](const TieResult* year) {
      const auto amount = row.amounts.find(year->column);
      const std::optional<Decimal> gap = Decimal::parse(year->gap);
      const std::optional<Decimal> allowed = Decimal::parse(year->tolerance);
      if (amount == row.amounts.end() || !gap || !allowed) return false;
      if ((amount->second.number * times).abs() <= *allowed) return false;
      const Decimal rest = *gap - amount->second.number * (sign * times);
      return rest.abs() <= *allowed + amount->second.half * times;
    });
    if (all) return sign;
  }
  return 0;
}

/// A change to be tried.
struct Trial {
  std::string concept_name;
  LineChoice choice;
  double likeness = 0;  ///< of the label to the line
};

class Repairing {
 public:
  Repairing(const std::vector<Tie>& ties, const StandardStatements& now, std::span<const Fact> facts,
            const LineChoices& choices, const PlacingRules& placing)
      : ties_(ties), now_(now), facts_(facts), choices_(choices), placing_(placing), rows_(rowsOf(now, facts)) {
    for (const Tie& tie : ties) {
      for (const TieTerm& term : tie.addends) noteLine(term.line);
      noteLine(tie.total.line);
    }
  }

  std::optional<Repair> best(const Restate& restate) {
    const std::vector<TieResult> before = checkTies(ties_, now_, facts_);
    const int failingNow = count(before, TieResult::State::Fails);
    const int holdingNow = count(before, TieResult::State::Ties);
    collect(before);
    std::optional<Repair> best;
    for (size_t i = 0; i < std::min(trials_.size(), kMostTried); ++i) {
      LineChoices changed = choices_;
      changed[trials_[i].concept_name] = trials_[i].choice;
      const StandardStatements then = restate(changed);
      if (then.years().size() != now_.years().size()) continue;
      const std::vector<TieResult> after = checkTies(ties_, then, facts_);
      if (breaksOne(before, after)) continue;
      const int failing = count(after, TieResult::State::Fails);
      const int mended = count(after, TieResult::State::Ties) - holdingNow;
      // A row set aside may leave nothing to tie: no mending.
      if (mended <= (best ? best->mended : 0) || failing > (best ? best->failing : failingNow)) continue;
      const Trial& trial = trials_[i];
      best = Repair{trial.concept_name,
                    rows_.at(trial.concept_name).label,
                    trial.choice,
                    standsOn(trial.concept_name),
                    mended,
                    failing};
    }
    return best;
  }

 private:
  /// Which concepts a line is made of, with what sign.
  void noteLine(const std::string& line) {
    for (int c = 0; c < static_cast<int>(now_.years().size()); ++c) {
      for (const LineCell::Part& part : now_.at(line, c).parts) {
        if (part.share.empty()) on_[facts_[part.fact].concept_name.str()] = {line, part.weight};
      }
    }
  }

  [[nodiscard]] std::string standsOn(const std::string& concept_name) const {
    const auto on = on_.find(concept_name);
    return on == on_.end() ? std::string() : on->second.first;
  }

  static int count(const std::vector<TieResult>& results, TieResult::State state) {
    return static_cast<int>(
        std::count_if(results.begin(), results.end(), [&](const TieResult& r) { return r.state == state; }));
  }

  static bool breaksOne(const std::vector<TieResult>& before, const std::vector<TieResult>& after) {
    for (size_t i = 0; i < before.size(); ++i) {
      if (before[i].state == TieResult::State::Ties && after[i].state == TieResult::State::Fails) return true;
    }
    return false;
  }

  void collect(const std::vector<TieResult>& results) {
    std::map<size_t, OpenTie> opened;
    for (const TieResult& result : results) {
      if (result.state == TieResult::State::Ties) continue;
      OpenTie& tie = opened.try_emplace(result.tie, OpenTie{&ties_[result.tie], {}, {}}).first->second;
      tie.years.push_back(&result);
      tie.missing.insert(result.missing.begin(), result.missing.end());
    }
    for (const auto& [at, tie] : opened) {
      // One year's figure may be a missing line by chance.
      if (!tie.missing.empty() && tie.years.size() < kFewestYears) continue;
      for (const auto& [concept_name, row] : rows_) {
        if (const int sign = explains(row, tie, 1); sign != 0) moveInto(tie, concept_name, row, sign);
        if (explains(row, tie, 2) != 0) turnRound(tie, concept_name);
      }
    }
    // Set aside is what is left when no line is better.
    std::stable_sort(trials_.begin(), trials_.end(), [](const Trial& a, const Trial& b) {
      const bool asideA = a.choice.line.empty();
      const bool asideB = b.choice.line.empty();
      return asideA != asideB ? asideB : a.likeness > b.likeness;
    });
  }

  /// The tie lacks the row, or counts what it should not.
  void moveInto(const OpenTie& open, const std::string& concept_name, const FiledRow& row, int sign) {
    const std::string stands = standsOn(concept_name);
    const bool counted = std::any_of(open.tie->addends.begin(), open.tie->addends.end(),
                                     [&](const TieTerm& term) { return term.line == stands; }) ||
                         stands == open.tie->total.line;
    if (counted) {
      const bool known = std::any_of(trials_.begin(), trials_.end(), [&](const Trial& t) {
        return t.concept_name == concept_name && t.choice.line.empty();
      });
      if (known) return;
      trials_.push_back({concept_name, {"", 1, "counted elsewhere, as the ties show"}, 0});
      return moveOut(concept_name, row, stands);
    }
    const PartRules::Residual* rest = placing_.parts.of(open.tie->total.line);
    const std::string& total = open.tie->total.line;
    if (open.missing.count(total) > 0)
      trials_.push_back({concept_name, {total, sign, "as the ties ask for"}, kResidual});
    for (const TieTerm& term : open.tie->addends) {
      if (!open.missing.empty() && open.missing.count(term.line) == 0) continue;
      if (term.opening || placing_.lines.isTotal(term.line) || !fits(term.line, row)) continue;
      const bool residual = rest != nullptr && rest->line == term.line;
      trials_.push_back({concept_name,
                         {term.line, -sign * term.weight, "as the ties ask for"},
                         residual ? kResidual : likeness(row.label, term.line)});
    }
  }

  /// Where a row may belong that a tie should not count: what it is called like.
  void moveOut(const std::string& concept_name, const FiledRow& row, const std::string& stands) {
    for (const LabelRules::Near& near : placing_.labels.near(row.label)) {
      if (near.rule->line == stands || placing_.lines.isTotal(near.rule->line) || !fits(near.rule->line, row)) continue;
      for (const int weight : {1, -1})
        trials_.push_back({concept_name, {near.rule->line, weight, "as the ties ask for"}, near.likeness});
    }
  }

  void turnRound(const OpenTie& open, const std::string& concept_name) {
    const auto on = on_.find(concept_name);
    if (on == on_.end()) return;
    const bool counted = std::any_of(open.tie->addends.begin(), open.tie->addends.end(),
                                     [&](const TieTerm& term) { return term.line == on->second.first; });
    if (!counted) return;
    trials_.push_back({concept_name, {on->second.first, -on->second.second, "turned round, as the ties ask for"}, 1});
  }

  /// A balance is no flow; a line without figures may be either.
  [[nodiscard]] bool fits(const std::string& line, const FiledRow& row) const {
    for (int c = 0; c < static_cast<int>(now_.years().size()); ++c) {
      for (const LineCell::Part& part : now_.at(line, c).parts) {
        return facts_[part.fact].period.isInstant() == row.balance;
      }
    }
    return true;
  }

  [[nodiscard]] double likeness(const std::string& label, const std::string& line) const {
    for (const LabelRules::Near& near : placing_.labels.near(label)) {
      if (near.rule->line == line) return near.likeness;
    }
    return 0;
  }

  static constexpr double kResidual = 0.5;  ///< before a line that the label does not resemble

  const std::vector<Tie>& ties_;
  const StandardStatements& now_;
  std::span<const Fact> facts_;
  const LineChoices& choices_;
  const PlacingRules& placing_;
  FiledRows rows_;
  std::map<std::string, std::pair<std::string, int>> on_;  ///< line and sign by concept
  std::vector<Trial> trials_;
};

}  // namespace

std::optional<Repair> bestRepair(const std::vector<Tie>& ties, const StandardStatements& now,
                                 std::span<const Fact> facts, const LineChoices& choices, const PlacingRules& placing,
                                 const Restate& restate) {
  return Repairing(ties, now, facts, choices, placing).best(restate);
}

}  // namespace zl
