#include "core/structure/sum_tree.h"

#include <algorithm>
#include <array>
#include <boost/container/static_vector.hpp>
#include <cmath>
#include <utility>

namespace zl {
namespace {

constexpr size_t kWidest = 64;         ///< open rows that a sum may reach over
constexpr size_t kWidestChanged = 40;  ///< with one or two rows left out or turned round
constexpr size_t kWidestThree = 10;    ///< with three
constexpr double kAgreeing = 6;        ///< bits that must agree beyond those that choosing takes
constexpr double kNearly = 4;          ///< more of them where a period does not tie
constexpr double kBinary = 1e-12;      ///< what binary sums of decimals leave
constexpr double kYearsMove = 0.15;    ///< how far a further year tells something that the first did not

/// A row of a window that is left out of its sum, or has the other sign.
struct Change {
  size_t at = 0;  ///< position among the open rows
  bool omit = false;
};

/// One sum that was tried: the last open rows from `first` on, all of one sign but for the changes.
struct Trial {
  size_t first = 0;
  int sign = 1;
  boost::container::static_vector<Change, 3> changes;
};

/// The last open rows summed up, in one period.
struct Reach {
  double sum = 0;
  double tolerance = 0;
  bool asked = false;  ///< one of them has a figure
};

struct Verdict {
  bool holds = false;
  double bits = 0;
  std::vector<size_t> broken;
};

/// Whether sums may be found that do not tie in every period.
enum class Breaks { None, May };

class Finder {
 public:
  /// `exact`: what the same rows are without any that breaks; null where that is not known.
  Finder(std::span<const StatementRow> rows, bool backwards, Breaks breaks, const Finder* exact)
      : count_(rows.size()), breaks_(breaks), exact_(exact) {
    for (const StatementRow& row : rows) periods_ = std::max(periods_, row.figures.size());
    for (size_t i = 0; i < count_; ++i) {
      const size_t from = backwards ? count_ - 1 - i : i;
      filedAt_.push_back(from);
      saysTotal_.push_back(rows[from].saysTotal);
      section_.push_back(rows[from].section);
      for (size_t t = 0; t < periods_; ++t) {
        const std::optional<StatementFigure> none;
        const std::optional<StatementFigure>& f = t < rows[from].figures.size() ? rows[from].figures[t] : none;
        figure_.push_back(f.value_or(StatementFigure{}));
        has_.push_back(f.has_value());
      }
    }
    parent_.resize(count_);
    sumOf_.resize(count_);
    repeats_.resize(count_);
  }

  void run() {
    for (size_t r = 0; r < count_; ++r) {
      if (isZero(r)) {
        if (hasAny(r)) open_.push_back(r);
        continue;
      }
      place(r);
    }
    for (size_t r = 0; r < count_; ++r) {
      const bool root = !parent_[r] && !saysTotal_[r] && isDifference(r);
      if (!root) continue;
      const std::vector<SumTerm>& terms = sumOf_[r]->terms;
      // What has parts before it is no total of what comes after: profit before tax, tax, profit.
      const bool before = saysTotal_[terms.front().row] && (terms.size() > 2 || !sumOf_[terms.front().row]);
      if (before) dissolve(r);
    }
    findTotalsBefore();
  }

  [[nodiscard]] bool hasBroken() const { return hasBroken_; }

  /// Totals whose labels say that they are.
  [[nodiscard]] size_t saying() const {
    size_t n = 0;
    for (size_t r = 0; r < count_; ++r) n += sumOf_[r] && saysTotal_[r] ? 1 : 0;
    return n;
  }
  /// Whether a difference was never gone on with: its first may be a total before its parts.
  [[nodiscard]] bool leavesDifferences() const {
    for (size_t r = 0; r < count_; ++r) {
      if (!parent_[r] && isDifference(r)) return true;
    }
    return false;
  }
  [[nodiscard]] size_t claimed() const {
    return static_cast<size_t>(
        std::count_if(parent_.begin(), parent_.end(), [](const auto& p) { return p.has_value(); }));
  }

  /// By the order the rows are filed in.
  [[nodiscard]] SumTree tree() const {
    SumTree tree;
    tree.parent.resize(count_);
    tree.repeats.resize(count_);
    for (size_t r = 0; r < count_; ++r) {
      if (parent_[r]) tree.parent[filedAt_[r]] = filedAt_[*parent_[r]];
      if (repeats_[r]) {
        const auto [earlier, later] = std::minmax(filedAt_[r], filedAt_[*repeats_[r]]);
        tree.repeats[later] = earlier;
      }
      if (!sumOf_[r]) continue;
      FoundSum sum = *sumOf_[r];
      sum.total = filedAt_[r];
      for (SumTerm& term : sum.terms) term.row = filedAt_[term.row];
      if (sum.suspect) sum.suspect = filedAt_[*sum.suspect];
      std::sort(sum.terms.begin(), sum.terms.end(), [](const auto& a, const auto& b) { return a.row < b.row; });
      tree.sums.push_back(std::move(sum));
    }
    std::sort(tree.sums.begin(), tree.sums.end(), [](const auto& a, const auto& b) { return a.total < b.total; });
    return tree;
  }

 private:
  [[nodiscard]] double value(size_t r, size_t t) const { return figure_[r * periods_ + t].value; }
  [[nodiscard]] double half(size_t r, size_t t) const { return figure_[r * periods_ + t].half; }
  [[nodiscard]] bool has(size_t r, size_t t) const { return has_[r * periods_ + t]; }
  [[nodiscard]] bool hasAny(size_t r) const {
    for (size_t t = 0; t < periods_; ++t) {
      if (has(r, t)) return true;
    }
    return false;
  }
  [[nodiscard]] bool isZero(size_t r) const {
    for (size_t t = 0; t < periods_; ++t) {
      if (value(r, t) != 0) return false;
    }
    return true;
  }
  /// Periods in which the row's figure could tell something.
  [[nodiscard]] size_t telling(size_t r) const {
    size_t n = 0;
    for (size_t t = 0; t < periods_; ++t) n += value(r, t) != 0 ? 1 : 0;
    return n;
  }

  /// Sums of the last open rows, by how many and by period: a trial is judged by its changes alone.
  void sumUp() {
    const size_t reach = std::min(kWidest, open_.size());
    reach_.assign((reach + 1) * periods_, {});
    for (size_t wide = 1; wide <= reach; ++wide) {
      const size_t row = open_[open_.size() - wide];
      for (size_t t = 0; t < periods_; ++t) {
        Reach& here = reach_[wide * periods_ + t];
        here = reach_[(wide - 1) * periods_ + t];
        if (!has(row, t)) continue;
        here.sum += value(row, t);
        here.tolerance += half(row, t) + std::abs(value(row, t)) * kBinary;
        here.asked = true;
      }
    }
  }

  void place(size_t r) {
    sumUp();
    const size_t most = telling(r);
    // One period tells nothing by itself; a label must agree.
    const bool single = most < 2;
    const std::optional<size_t> earlier = repeated(r);
    std::optional<Found> found;
    if (!single || saysTotal_[r]) found = plain(r, 0);
    // With its own figures among the terms, the others only cancel one another.
    if (found && earlier && hasTermLike(*found, *earlier)) found.reset();
    if (!found && !single) found = turningOne(r);
    if (!found && !single) found = dissolvingOne(r);
    if (!found && !single && !earlier) found = changed(r, 0);
    if (!found) repeats_[r] = earlier;
    if (!found && !earlier && breaks_ != Breaks::None) {
      const size_t mayBreak = most >= 3 ? most / 3 : most == 2 && saysTotal_[r] ? 1 : 0;
      if (mayBreak > 0) found = plain(r, mayBreak);
      if (!found && mayBreak > 0) found = changed(r, mayBreak);
      if (!found && most >= 2) found = oneFactorOff(r);
      if (found && isContradicted(r, *found)) found.reset();
      hasBroken_ = hasBroken_ || found.has_value();
    }
    if (found) claim(r, *found);
    open_.push_back(r);
  }

  struct Found {
    Trial trial;
    std::vector<size_t> broken;
    std::optional<size_t> suspect;  ///< position among the open rows
  };

  [[nodiscard]] int signAt(const Trial& trial, size_t at) const {
    for (const Change& change : trial.changes) {
      if (change.at == at) return change.omit ? 0 : -trial.sign;
    }
    return trial.sign;
  }

  /// What is left of the total's figure, and how much of that rounding explains.
  struct Gap {
    double left = 0;
    double tolerance = 0;
    bool asked = false;  ///< the total and a term have a figure
  };
  [[nodiscard]] Gap gapOf(size_t r, const Trial& trial, size_t t) const {
    const Reach& reach = reach_[(open_.size() - trial.first) * periods_ + t];
    Gap gap;
    gap.asked = has(r, t) && reach.asked;
    if (!gap.asked) return gap;
    double sum = trial.sign * reach.sum;
    gap.tolerance = reach.tolerance + half(r, t);
    for (const Change& change : trial.changes) {
      const size_t row = open_[change.at];
      sum -= (change.omit ? 1 : 2) * trial.sign * value(row, t);
      if (change.omit) gap.tolerance -= half(row, t);
    }
    gap.left = value(r, t) - sum;
    return gap;
  }

  [[nodiscard]] Verdict judge(size_t r, const Trial& trial, size_t mayBreak) const {
    Verdict verdict;
    bool first = true;
    for (size_t t = 0; t < periods_; ++t) {
      const Gap gap = gapOf(r, trial, t);
      if (!gap.asked) continue;
      if (std::abs(gap.left) > gap.tolerance) {
        verdict.broken.push_back(t);
        if (verdict.broken.size() > mayBreak) return verdict;
        continue;
      }
      if (value(r, t) == 0) continue;
      verdict.bits += bitsOf(std::abs(value(r, t)) * (first ? 1 : kYearsMove), gap.left, half(r, t));
      first = false;
    }
    verdict.holds = !first && partsOf(trial) >= 2;
    return verdict;
  }

  [[nodiscard]] size_t partsOf(const Trial& trial) const {
    size_t parts = 0;
    for (size_t at = trial.first; at < open_.size(); ++at) {
      parts += signAt(trial, at) != 0 && !isZero(open_[at]) ? 1 : 0;
    }
    return parts;
  }

  [[nodiscard]] static double bitsOf(double scale, double left, double half) {
    const double off = 2 * (std::abs(left) + std::max(half, scale * kBinary));
    return off >= scale ? 0 : std::log2(scale / off);
  }

  [[nodiscard]] double bitsAtMost(size_t r) const {
    double bits = 0;
    for (size_t t = 0; t < periods_; ++t) {
      if (value(r, t) != 0) bits += bitsOf(std::abs(value(r, t)) * (bits == 0 ? 1 : kYearsMove), 0, half(r, t));
    }
    return bits;
  }

  /// What choosing this trial among all of its level takes.
  [[nodiscard]] static double bitsNeeded(size_t level, size_t wide, bool nearly) {
    return kAgreeing + (nearly ? kNearly : 0) +
           static_cast<double>(level) * (std::log2(2.0 * static_cast<double>(wide)) + 1);
  }

  [[nodiscard]] std::optional<Found> accept(size_t r, Trial trial, size_t level, size_t mayBreak) const {
    if (section_[r] && isLeftOfTotal(trial)) return std::nullopt;
    const Verdict verdict = judge(r, trial, mayBreak);
    const size_t wide = open_.size() - trial.first;
    if (!verdict.holds || verdict.bits < bitsNeeded(level, wide, mayBreak > 0)) return std::nullopt;
    Found found{std::move(trial), verdict.broken, std::nullopt};
    if (!found.broken.empty()) found.suspect = mostLikely(r, found);
    return found;
  }

  /// "Total assets, equity, current liabilities": what is left of a total when the others are taken off.
  [[nodiscard]] bool isLeftOfTotal(const Trial& trial) const {
    return trial.sign == -1 && signAt(trial, trial.first) == 1 && saysTotal_[open_[trial.first]];
  }

  /// Rows side by side: all added, all subtracted, or all but the first subtracted from it.
  [[nodiscard]] std::optional<Found> plain(size_t r, size_t mayBreak) const {
    const size_t reach = std::min(kWidest, open_.size());
    for (size_t wide = 2; wide <= reach; ++wide) {
      const size_t first = open_.size() - wide;
      for (const Trial& trial : {Trial{first, 1, {}}, Trial{first, -1, {{first, false}}}, Trial{first, -1, {}}}) {
        if (std::optional<Found> found = accept(r, trial, 0, mayBreak)) return found;
      }
    }
    return std::nullopt;
  }

  /// "Revenue 100, products 60, services 40" and "revenue 100, cost 60, gross profit 40" are one to the figures: what
  /// is gone on with tells. Here: the row is a sum with the first of such rows and not with the last.
  [[nodiscard]] std::optional<Found> turningOne(size_t r) {
    for (size_t at = open_.size(); at-- > 0 && open_.size() - at <= kWidestThree;) {
      const size_t last = open_[at];
      if (!isDifference(last)) continue;
      const size_t first = sumOf_[last]->terms.front().row;
      open_[at] = first;
      sumUp();
      std::optional<Found> found = plain(r, 0);
      if (found && found->trial.first <= at) {
        turn(first, last);
        return found;
      }
      open_[at] = last;
      sumUp();
    }
    return std::nullopt;
  }

  /// "Assets, liabilities, capital, reserves": the last is what the first leaves of the others, and no total. Here: the
  /// row is a sum with all of them.
  [[nodiscard]] std::optional<Found> dissolvingOne(size_t r) {
    if (open_.empty() || !isDifference(open_.back())) return std::nullopt;
    const size_t last = open_.back();
    const std::vector<size_t> before = open_;
    open_.pop_back();
    for (const SumTerm& term : sumOf_[last]->terms) open_.push_back(term.row);
    open_.push_back(last);
    sumUp();
    std::optional<Found> found = plain(r, 0);
    if (found) {
      dissolve(last);
      return found;
    }
    open_ = before;
    sumUp();
    return std::nullopt;
  }

  void dissolve(size_t r) {
    for (const SumTerm& term : sumOf_[r]->terms) parent_[term.row].reset();
    sumOf_[r].reset();
  }

  /// First less all others, in every period.
  [[nodiscard]] bool isDifference(size_t r) const {
    if (!sumOf_[r] || !sumOf_[r]->broken.empty() || isZero(sumOf_[r]->terms.front().row)) return false;
    const std::vector<SumTerm>& terms = sumOf_[r]->terms;
    return terms.front().sign == 1 &&
           std::all_of(terms.begin() + 1, terms.end(), [](const SumTerm& term) { return term.sign == -1; });
  }

  /// The first of a difference becomes the total of the others.
  void turn(size_t first, size_t last) {
    FoundSum sum{first, {}, {}, std::nullopt};
    for (const SumTerm& term : sumOf_[last]->terms) {
      if (term.row != first) sum.terms.push_back({term.row, 1});
    }
    sum.terms.push_back({last, 1});
    sumOf_[last].reset();
    parent_[first].reset();
    for (const SumTerm& term : sum.terms) parent_[term.row] = first;
    sumOf_[first] = std::move(sum);
  }

  /// Few changes first, then few rows.
  [[nodiscard]] std::optional<Found> changed(size_t r, size_t mayBreak) const {
    const std::vector<size_t> pivots = pivotsOf(r, mayBreak > 0 ? 2 : 1);
    std::vector<Steps> steps;
    steps.reserve(pivots.size());
    for (const size_t pivot : pivots) steps.push_back(stepsAt(pivot));
    const double most = bitsAtMost(r);
    for (size_t level = 1; level <= 3 && bitsNeeded(level, 2, mayBreak > 0) <= most; ++level) {
      for (const Steps& at : steps) {
        if (std::optional<Found> found = changed(r, level, at, mayBreak)) return found;
      }
    }
    return std::nullopt;
  }

  /// The periods in which the row's figure is written most exactly.
  [[nodiscard]] std::vector<size_t> pivotsOf(size_t r, size_t most) const {
    std::vector<size_t> list;
    for (size_t t = 0; t < periods_; ++t) {
      if (value(r, t) != 0) list.push_back(t);
    }
    std::stable_sort(list.begin(), list.end(),
                     [&](size_t a, size_t b) { return std::abs(value(r, a)) > std::abs(value(r, b)); });
    list.resize(std::min(list.size(), most));
    return list;
  }

  /// What one or two changes take from a sum of positive sign, in one period, by amount.
  struct Step {
    double amount = 0;
    std::array<Change, 2> changes{};
    size_t count = 0;
    [[nodiscard]] size_t earliest() const {
      return count == 1 ? changes[0].at : std::min(changes[0].at, changes[1].at);
    }
  };
  struct Steps {
    size_t pivot = 0;
    std::vector<Step> single, pairs;
  };

  [[nodiscard]] Steps stepsAt(size_t pivot) const {
    Steps steps{pivot, {}, {}};
    const size_t reach = std::min(kWidestChanged, open_.size());
    for (size_t at = open_.size() - reach; at < open_.size(); ++at) {
      const double x = value(open_[at], pivot);
      if (isZero(open_[at])) continue;
      for (const bool omit : {false, true}) steps.single.push_back({-(omit ? 1 : 2) * x, {Change{at, omit}}, 1});
    }
    const size_t narrow = open_.size() - std::min(kWidestThree, open_.size());
    for (size_t a = 0; a < steps.single.size(); ++a) {
      if (steps.single[a].changes[0].at < narrow) continue;
      for (size_t b = a + 1; b < steps.single.size(); ++b) {
        if (steps.single[b].changes[0].at == steps.single[a].changes[0].at) continue;
        steps.pairs.push_back({steps.single[a].amount + steps.single[b].amount,
                               {steps.single[a].changes[0], steps.single[b].changes[0]},
                               2});
      }
    }
    const auto less = [](const Step& a, const Step& b) { return a.amount < b.amount; };
    std::sort(steps.single.begin(), steps.single.end(), less);
    std::sort(steps.pairs.begin(), steps.pairs.end(), less);
    return steps;
  }

  [[nodiscard]] std::optional<Found> changed(size_t r, size_t level, const Steps& steps, size_t mayBreak) const {
    const size_t reach = std::min(level == 3 ? kWidestThree : kWidestChanged, open_.size());
    for (size_t wide = 2; wide <= reach; ++wide) {
      for (const int sign : {1, -1}) {
        const Trial whole{open_.size() - wide, sign, {}};
        const Gap gap = gapOf(r, whole, steps.pivot);
        if (std::optional<Found> found = byChanges(r, whole, level, gap.left * sign, gap.tolerance, steps, mayBreak))
          return found;
      }
    }
    return std::nullopt;
  }

  /// Changes of a window that together make up what is left in the pivot period.
  [[nodiscard]] std::optional<Found> byChanges(size_t r, const Trial& whole, size_t level, double left,
                                               double tolerance, const Steps& steps, size_t mayBreak) const {
    const auto tryAll = [&](const std::vector<Step>& among, double amount, const Change* also) -> std::optional<Found> {
      auto it = std::lower_bound(among.begin(), among.end(), amount - tolerance,
                                 [](const Step& s, double x) { return s.amount < x; });
      for (; it != among.end() && it->amount <= amount + tolerance; ++it) {
        if (it->earliest() < whole.first) continue;
        Trial trial = whole;
        trial.changes.assign(it->changes.begin(), it->changes.begin() + static_cast<std::ptrdiff_t>(it->count));
        if (also != nullptr) {
          // Each set of changes once: the further one comes before the others.
          if (also->at >= it->earliest()) continue;
          trial.changes.push_back(*also);
        }
        if (leavesOutFirst(trial)) continue;
        if (std::optional<Found> found = accept(r, std::move(trial), level, mayBreak)) return found;
      }
      return std::nullopt;
    };
    if (level == 1) return tryAll(steps.single, left, nullptr);
    for (const Step& one : steps.single) {
      if (one.changes[0].at < whole.first) continue;
      const std::vector<Step>& others = level == 2 ? steps.single : steps.pairs;
      if (std::optional<Found> found = tryAll(others, left - one.amount, &one.changes[0])) return found;
    }
    return std::nullopt;
  }

  /// That window is a narrower one.
  [[nodiscard]] static bool leavesOutFirst(const Trial& trial) {
    return std::any_of(trial.changes.begin(), trial.changes.end(),
                       [&](const Change& c) { return c.omit && c.at == trial.first; });
  }

  /// A sum that ties in no period because one of its rows is off by the same factor in all of them.
  [[nodiscard]] std::optional<Found> oneFactorOff(size_t r) const {
    constexpr size_t kReach = 20;
    constexpr double kBits = 16;
    const double needed = kBits - (saysTotal_[r] ? kAgreeing : 0);
    const size_t pivot = pivotsOf(r, 1).front();
    for (size_t wide = 2; wide <= std::min(kReach, open_.size()); ++wide) {
      const size_t first = open_.size() - wide;
      for (const Trial& trial : {Trial{first, 1, {}}, Trial{first, -1, {{first, false}}}}) {
        std::optional<size_t> at;
        size_t fitting = 0;
        for (size_t i = first; i < open_.size(); ++i) {
          if (!isFactorOf(r, trial, i, pivot, needed)) continue;
          at = i;
          ++fitting;
        }
        // Rows that move in step would all explain it, and so explain nothing.
        if (fitting != 1 || keepProportions(r, first)) continue;
        Found found{trial, {}, at};
        for (size_t t = 0; t < periods_; ++t) {
          const Gap gap = gapOf(r, trial, t);
          if (gap.asked && std::abs(gap.left) > gap.tolerance) found.broken.push_back(t);
        }
        return found;
      }
    }
    return std::nullopt;
  }

  /// Whether two of the rows, or one of them and the total, stand in one proportion in every period: then any of them
  /// is a multiple of another, and that it looks like a faulty sum says nothing.
  [[nodiscard]] bool keepProportions(size_t r, size_t first) const {
    std::vector<size_t> rows(open_.begin() + static_cast<std::ptrdiff_t>(first), open_.end());
    rows.push_back(r);
    for (size_t a = 0; a < rows.size(); ++a) {
      for (size_t b = a + 1; b < rows.size(); ++b) {
        if (inProportion(rows[a], rows[b])) return true;
      }
    }
    return false;
  }

  [[nodiscard]] bool inProportion(size_t a, size_t b) const {
    std::optional<double> ratio;
    int periods = 0;
    for (size_t t = 0; t < periods_; ++t) {
      if (!has(a, t) || !has(b, t) || value(a, t) == 0 || value(b, t) == 0) continue;
      ++periods;
      if (!ratio) ratio = value(b, t) / value(a, t);
      const double rounding = half(b, t) + std::abs(*ratio) * half(a, t);
      if (std::abs(value(b, t) - *ratio * value(a, t)) > 2 * rounding) return false;
    }
    return periods >= 2;
  }

  [[nodiscard]] bool isFactorOf(size_t r, const Trial& trial, size_t at, size_t pivot, double needed) const {
    const size_t row = open_[at];
    if (value(row, pivot) == 0) return false;
    const double factor = gapOf(r, trial, pivot).left / value(row, pivot);
    if (std::abs(factor) < 0.004 || std::abs(factor) > 0.6) return false;
    double bits = 0;
    for (size_t t = 0; t < periods_; ++t) {
      const Gap gap = gapOf(r, trial, t);
      if (!gap.asked || t == pivot) continue;
      const double left = gap.left - factor * value(row, t);
      if (std::abs(left) > gap.tolerance) return false;
      bits += bitsOf(std::abs(value(r, t)) * kYearsMove, left, half(r, t));
    }
    return bits >= needed;
  }

  /// The term whose share of the total, as the other periods have it, comes nearest once it takes the gap. A sign or
  /// a scale that slipped explains a gap exactly and goes before.
  [[nodiscard]] std::optional<size_t> mostLikely(size_t r, const Found& found) const {
    std::optional<size_t> best;
    double most = 0;
    for (size_t at = found.trial.first; at < open_.size(); ++at) {
      if (signAt(found.trial, at) == 0) continue;
      double score = 0;
      for (const size_t t : found.broken) score += fit(r, found, at, t);
      if (!best || score > most) {
        best = at;
        most = score;
      }
    }
    return best;
  }

  [[nodiscard]] double fit(size_t r, const Found& found, size_t at, size_t t) const {
    const size_t row = open_[at];
    const Gap gap = gapOf(r, found.trial, t);
    const double filed = value(row, t);
    const double should = filed + signAt(found.trial, at) * gap.left;
    constexpr double kExact = 1e6;
    for (const double slip : {-1.0, 1000.0, 0.001, 10.0, 0.1}) {
      if (filed != 0 && std::abs(should - slip * filed) <= gap.tolerance) return kExact;
    }
    std::vector<double> shares;
    for (size_t other = 0; other < periods_; ++other) {
      const bool held = std::find(found.broken.begin(), found.broken.end(), other) == found.broken.end();
      if (held && has(r, other) && value(r, other) != 0) shares.push_back(value(row, other) / value(r, other));
    }
    if (shares.empty()) return 0;
    std::sort(shares.begin(), shares.end());
    const double usual = shares[shares.size() / 2] * value(r, t);
    double spread = gap.tolerance;
    for (const double share : shares)
      spread += std::abs(share * value(r, t) - usual) / static_cast<double>(shares.size());
    return (std::abs(filed - usual) - std::abs(should - usual)) / spread;
  }

  /// A sum that does not tie is none where its total and one of its terms are, side by side, parts of one that does.
  [[nodiscard]] bool isContradicted(size_t r, const Found& found) const {
    if (exact_ == nullptr || !exact_->parent_[r]) return false;
    for (size_t at = found.trial.first; at < open_.size(); ++at) {
      if (signAt(found.trial, at) != 0 && exact_->parent_[open_[at]] == exact_->parent_[r]) return true;
    }
    return false;
  }

  void claim(size_t r, Found& found) {
    FoundSum sum{r, {}, found.broken, std::nullopt};
    if (found.suspect) sum.suspect = open_[*found.suspect];
    size_t first = found.trial.first;
    while (first > 0 && isZero(open_[first - 1])) --first;  // nothing above it could have them
    for (size_t at = first; at < open_.size(); ++at) {
      const int sign = at < found.trial.first ? 1 : signAt(found.trial, at);
      if (sign == 0) continue;  // told beside the sum ("of which"): no part of a later one either
      sum.terms.push_back({open_[at], sign});
      parent_[open_[at]] = r;
    }
    open_.resize(first);
    sumOf_[r] = std::move(sum);
  }

  [[nodiscard]] bool hasTermLike(const Found& found, size_t row) const {
    for (size_t at = found.trial.first; at < open_.size(); ++at) {
      if (signAt(found.trial, at) == 0) continue;
      bool same = true;
      for (size_t t = 0; same && t < periods_; ++t) same = value(open_[at], t) == value(row, t);
      if (same) return true;
    }
    return false;
  }

  /// An earlier row with the same figures in every period.
  [[nodiscard]] std::optional<size_t> repeated(size_t r) const {
    constexpr double kBits = 8;
    for (size_t q = r; q-- > 0;) {
      double bits = 0;
      size_t both = 0;
      bool same = !isZero(q);
      for (size_t t = 0; same && t < periods_; ++t) {
        if (!has(r, t) || !has(q, t)) continue;
        same = std::abs(value(r, t) - value(q, t)) <= half(r, t) + half(q, t);
        bits += bitsOf(std::abs(value(r, t)) * kYearsMove, value(r, t) - value(q, t), half(r, t));
        both += value(r, t) != 0 ? 1 : 0;
      }
      if (same && both >= 2 && bits >= kBits) return q;
    }
    return std::nullopt;
  }

  [[nodiscard]] size_t rootOf(size_t r) const {
    while (parent_[r]) r = *parent_[r];
    return r;
  }

  /// Rows without parts whose parts follow them: "Revenue 100; products 60; services 40".
  void findTotalsBefore() {
    constexpr double kMore = 2;
    for (size_t r = 0; r < count_; ++r) {
      if (sumOf_[r] || isZero(r) || telling(r) < 2) continue;
      open_.clear();
      std::optional<Found> best;
      for (size_t next = r + 1; next < count_ && open_.size() < kWidest; ++next) {
        if (!hasAny(next)) continue;
        if (parent_[next] || next == rootOf(r)) break;
        open_.push_back(next);
        if (open_.size() < 2) continue;
        sumUp();
        const Trial trial{0, 1, {}};
        const Verdict verdict = judge(r, trial, 0);
        if (verdict.holds && verdict.bits >= kAgreeing + kMore) {
          best = Found{trial, {}, std::nullopt};
          break;
        }
      }
      if (best) claim(r, *best);
    }
  }

  size_t count_;
  Breaks breaks_;
  const Finder* exact_;
  bool hasBroken_ = false;
  size_t periods_ = 0;
  std::vector<size_t> filedAt_;  ///< by the order they are gone through in
  std::vector<bool> saysTotal_;
  std::vector<bool> section_;
  std::vector<StatementFigure> figure_;
  std::vector<bool> has_;
  std::vector<std::optional<size_t>> parent_, repeats_;
  std::vector<std::optional<FoundSum>> sumOf_;
  std::vector<size_t> open_;  ///< rows that are no part of a sum yet
  std::vector<Reach> reach_;
};

/// A total that is itself wrong breaks its own sum and the one above by the same amount: then it is the suspect of
/// both.
void suspectTotals(std::span<const StatementRow> rows, SumTree& tree) {
  const auto gap = [&](const FoundSum& sum, size_t t) {
    const auto at = [&](size_t r) {
      return t < rows[r].figures.size() && rows[r].figures[t] ? rows[r].figures[t]->value : 0;
    };
    double left = at(sum.total);
    for (const SumTerm& term : sum.terms) left -= term.sign * at(term.row);
    return left;
  };
  for (FoundSum& below : tree.sums) {
    if (below.broken.empty() || !tree.parent[below.total]) continue;
    for (FoundSum& above : tree.sums) {
      if (above.total != *tree.parent[below.total] || above.broken != below.broken) continue;
      const auto as = std::find_if(above.terms.begin(), above.terms.end(),
                                   [&](const SumTerm& term) { return term.row == below.total; });
      const bool same = std::all_of(below.broken.begin(), below.broken.end(), [&](size_t t) {
        const double off = gap(below, t);
        return std::abs(gap(above, t) + as->sign * off) <= 0.05 * std::abs(off);
      });
      if (same) below.suspect = above.suspect = below.total;
    }
  }
}

}  // namespace

const FoundSum* SumTree::of(size_t total) const {
  const auto it = std::lower_bound(sums.begin(), sums.end(), total,
                                   [](const FoundSum& sum, size_t row) { return sum.total < row; });
  return it != sums.end() && it->total == total ? &*it : nullptr;
}

namespace {

/// One that breaks may only look like one: it is held against what ties throughout.
Finder foundIn(std::span<const StatementRow> rows, bool backwards) {
  Finder found(rows, backwards, Breaks::May, nullptr);
  found.run();
  if (!found.hasBroken()) return found;
  Finder exact(rows, backwards, Breaks::None, nullptr);
  exact.run();
  Finder held(rows, backwards, Breaks::May, &exact);
  held.run();
  return held;
}

}  // namespace

SumTree findSums(std::span<const StatementRow> rows) {
  const Finder down = foundIn(rows, false);
  SumTree tree = down.tree();
  if (2 * down.claimed() < rows.size() || down.leavesDifferences()) {  // totals may stand before their parts throughout
    const Finder up = foundIn(rows, true);
    // Read upwards every sum is one too, of another row ("revenue is cost and gross profit"), so that totals before
    // their parts are believed by labels only, or where downwards most is left.
    if (up.saying() > down.saying() || 2 * up.claimed() > 3 * down.claimed()) tree = up.tree();
  }
  suspectTotals(rows, tree);
  return tree;
}

}  // namespace zl
