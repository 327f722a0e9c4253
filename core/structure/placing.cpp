#include "core/structure/placing.h"

#include <algorithm>
#include <map>
#include <set>

namespace zl {
namespace {

/// The total a row is a part of, as far as it says where the row belongs.
struct Home {
  std::string total;                              ///< standard line; empty where nothing is known
  const PartRules::Residual* residual = nullptr;  ///< where parts go that no label places
  int sign = 0;                                   ///< with which the row enters `total`; 0 where only a heading tells
  std::optional<size_t> within;  ///< a row that stands on a line which is no sum: its parts are set aside
  std::optional<size_t> row;     ///< the total's row
};

class Placing {
 public:
  Placing(std::span<const RowToPlace> rows, const SumTree& tree, const PlacingRules& rules,
          const std::set<std::string>& taken)
      : rows_(rows),
        tree_(tree),
        rules_(rules),
        taken_(taken),
        placed_(rows.size()),
        exact_(rows.size()),
        repeatedBy_(rows.size()),
        hosts_(rows.size()),
        tellsOf_(rows.size()),
        notes_(rows.size()),
        headed_(rules.parts.lines()) {
    for (size_t r = 0; r < rows.size(); ++r) {
      if (r > 0 && tree.repeats[r] == r - 1 && tree.parent[r]) repeatedBy_[r - 1] = r;
      exact_[r] = rows[r].line.empty() ? rules.labels.exactly(rows[r].label) : rules.labels.of(rows[r].line);
      if (isTotal(r) && rows[r].total != nullptr) summed_.insert(rows[r].total->line);
      if (rows[r].chosen != nullptr) {
        placed_[r] = {*rows[r].chosen, PlacedRow::By::Choice, true};
        if (!placed_[r].choice.line.empty()) holders_[placed_[r].choice.line] = r;
      } else if (!rows[r].aside.empty()) {
        setAside(r, rows[r].aside);
      }
    }
    findHosts();
  }

  std::vector<PlacedRow> run() {
    placeTotals();
    for (size_t r = 0; r < rows_.size(); ++r) homes_.push_back(homeOf(r));
    chooseShared();
    placeByStart();
    placeByLabel();
    placeByWords();
    placeByWhatTheyBuy();
    placeByLikeness(false);
    placeSums();
    turnRoundWhatIsTakenOff();
    for (size_t r = 0; r < rows_.size(); ++r) homes_[r] = homeOf(r);  // what resembles a line holds its parts too
    placeRest();
    placeTold();
    return std::move(placed_);
  }

 private:
  [[nodiscard]] bool isOpen(size_t r) const { return placed_[r].by == PlacedRow::By::Nothing && rows_[r].told.empty(); }
  [[nodiscard]] bool isFree(const std::string& line) const {
    return taken_.count(line) == 0 && holders_.count(line) == 0;
  }
  [[nodiscard]] const std::string& label(size_t r) const { return rows_[r].label; }
  [[nodiscard]] const std::string& named(size_t r) const { return rows_[r].name; }
  [[nodiscard]] bool isTotal(size_t r) const { return tree_.of(r) != nullptr && !rows_[r].whole; }

  [[nodiscard]] int signIn(size_t part, size_t total) const {
    for (const SumTerm& term : tree_.of(total)->terms) {
      if (term.row == part) return term.sign;
    }
    return 1;
  }

  void place(size_t r, const std::string& line, PlacedRow::By by, std::string reason) {
    placed_[r].choice.line = line;
    placed_[r].choice.reason = std::move(reason);
    placed_[r].by = by;
    holders_.try_emplace(line, r);
  }

  /// Whether a line is another part of what a line is a part of.
  [[nodiscard]] bool isBeside(const std::string& other, const std::string& line) const {
    const std::string total = rules_.lines.totalOf(line);
    return !total.empty() && rules_.lines.weightIn(other, total) && !rules_.lines.weightIn(other, line);
  }

  /// What a total above a line leaves when the others beside it are taken off is that line, read from the other end:
  /// assets less debt is equity, the owners' too, and debt no part of it.
  [[nodiscard]] bool isDifference(size_t total, const std::string& line) const {
    const FoundSum* sum = tree_.of(total);
    if (sum == nullptr) return false;
    std::set<std::string> above;
    for (std::string at = rules_.lines.totalOf(line); !at.empty() && above.insert(at).second;)
      at = rules_.lines.totalOf(at);
    return std::any_of(sum->terms.begin(), sum->terms.end(), [&](const SumTerm& term) {
      return exact_[term.row] != nullptr && above.count(exact_[term.row]->line) > 0;
    });
  }

  /// Whether a total is better left to its parts: of them as many name lines beside its own as parts of it.
  [[nodiscard]] bool partsNameOthers(size_t total, const std::string& line) const {
    const int others = namingOthers(total, line);
    return others > 0 && others >= agreeing(total, line);
  }
  [[nodiscard]] int namingOthers(size_t total, const std::string& line) const {
    const FoundSum* sum = tree_.of(total);
    if (sum == nullptr || isDifference(total, line)) return 0;
    int count = 0;
    for (const SumTerm& term : sum->terms) {
      const LabelRule* rule = exact_[term.row];
      count += rule != nullptr && rule->line != line && isBeside(rule->line, line) ? 1 : 0;
      count += namingOthers(term.row, line);
    }
    return count;
  }

  /// How many of a total's parts, at any depth, name lines that its line is a sum of.
  [[nodiscard]] int agreeing(size_t total, const std::string& line) const {
    const FoundSum* sum = tree_.of(total);
    int count = 0;
    if (sum == nullptr) return 0;
    for (const SumTerm& term : sum->terms) {
      const LabelRule* rule = exact_[term.row];
      count += rule != nullptr && rules_.lines.weightIn(rule->line, line) ? 1 : 0;
      count += agreeing(term.row, line);
    }
    return count;
  }

  /// Whether one row is a part of another, at any depth.
  [[nodiscard]] bool isUnderRow(size_t part, size_t total) const {
    std::optional<size_t> at = tree_.parent[part];
    while (at && *at != total) at = tree_.parent[*at];
    return at.has_value();
  }

  /// Totals first: what they are says what their parts may be.
  void placeTotals() {
    std::map<std::string, size_t> best;
    for (size_t r = 0; r < rows_.size(); ++r) {
      const LabelRule* rule = exact_[r];
      const bool total = isTotal(r) || (rule != nullptr && rules_.lines.isTotal(rule->line));
      if (!isOpen(r) || rule == nullptr || !total || !isFree(rule->line)) continue;
      if (tree_.repeats[r] && exact_[*tree_.repeats[r]] == rule) continue;
      if (partsNameOthers(r, rule->line)) continue;
      const auto [held, first] = best.try_emplace(rule->line, r);
      if (!first && rules_.lines.addends(rule->line) == 0) {
        // Cash from operations and, with interest and tax taken off, from operating activities: the whole of the two.
        if (isUnderRow(held->second, r)) held->second = r;
        continue;
      }
      if (!first && agreeing(r, rule->line) > agreeing(held->second, rule->line)) held->second = r;
    }
    for (const auto& [line, r] : best) place(r, line, PlacedRow::By::Label, "a usual label");
    placeByLikeness(true);
    for (size_t r = 0; r < rows_.size(); ++r) {
      if (!isOpen(r) && placed_[r].by != PlacedRow::By::Choice && isPrintedNegative(r)) {
        placed_[r].choice.weight = -1;
        placed_[r].signKnown = true;
      }
    }
  }

  /// A total of balances with nothing above zero among its parts: "less: liabilities (286)". One that is negative
  /// because of some of its parts is so indeed.
  [[nodiscard]] bool isPrintedNegative(size_t r) const {
    const std::string& line =
        placed_[r].choice.line.empty() && rows_[r].total != nullptr ? rows_[r].total->line : placed_[r].choice.line;
    const LabelRule* rule = rules_.labels.of(line);
    return rule != nullptr && rule->part == StatementPart::Balance && isTotal(r) && partsAreNegative(r);
  }
  [[nodiscard]] bool partsAreNegative(size_t r) const {
    const FoundSum* sum = tree_.of(r);
    if (!rows_[r].negative || sum == nullptr) return rows_[r].negative;
    return std::all_of(sum->terms.begin(), sum->terms.end(),
                       [&](const SumTerm& term) { return partsAreNegative(term.row); });
  }

  /// A label that several lines have is the one whose total the row is a part of; among those the one that stands under
  /// its heading; where nothing tells, the one of the statement that the rows above are of.
  void chooseShared() {
    StatementPart part = StatementPart::Income;
    for (size_t r = 0; r < rows_.size(); ++r) {
      if (const LabelRule* placed = rules_.labels.of(placed_[r].choice.line)) part = placed->part;
      if (!isOpen(r) || !rows_[r].line.empty() || exact_[r] == nullptr) continue;
      int most = -1;
      for (const LabelRule* rule : rules_.labels.allExactly(label(r))) {
        const Fit fit = fitOf(r, *rule);
        const bool beside = isUnder(rows_[r].heading, *rule) || isUnder(homes_[r].residual, *rule);
        const int points = (fit.fits && !fit.elsewhere ? 4 : 0) + (fit.weight ? 4 : 0) + (beside ? 2 : 0) +
                           (rule->part == part ? 1 : 0);
        if (points > most) exact_[r] = rule;
        most = std::max(most, points);
      }
      if (exact_[r] != nullptr && fitOf(r, *exact_[r]).fits) part = exact_[r]->part;
    }
  }
  [[nodiscard]] static bool isUnder(const PartRules::Residual* heading, const LabelRule& rule) {
    return heading != nullptr && heading->beside.count(rule.line) > 0;
  }

  [[nodiscard]] Home homeOf(size_t r) const {
    Home home;
    int sign = 1;
    size_t at = r;
    // The only row of a section: the section's total repeats it and is what the statement sums up.
    if (!tree_.parent[at] && repeatedBy_[at]) at = *repeatedBy_[at];
    while (tree_.parent[at]) {
      const size_t up = *tree_.parent[at];
      sign *= signIn(at, up);
      at = up;
      const std::string& line = placed_[at].choice.line;
      const PartRules::Residual* residual = rows_[at].total;
      if (isDifference(at, line)) return home;
      if (rows_[at].whole || (!line.empty() && !rules_.lines.isTotal(line))) {
        home.within = at;
        home.sign = sign;
        home.total = line;
        return home;
      }
      if (line.empty() && residual == nullptr) continue;
      home.row = at;
      home.sign = sign * placed_[at].choice.weight;
      home.total = line;
      home.residual = residual != nullptr ? residual : rules_.parts.of(line);
      if (line.empty()) {
        home.total = rules_.lines.totalOf(residual->line);
        home.sign *= rules_.lines.weightIn(residual->line, home.total).value_or(1) * residual->weight *
                     (isPrintedNegative(at) ? -1 : 1);
      }
      return home;
    }
    if (const PartRules::Residual* heading = rows_[r].heading) {
      home.total = rules_.lines.totalOf(heading->line);
      home.residual = heading;
    }
    return home;
  }

  /// Whether a row may stand on a rule's line for all that its total says; the weight then.
  struct Fit {
    bool fits = true;
    bool elsewhere = false;  ///< in another statement than its own, which it may
    std::optional<int> weight;
  };
  [[nodiscard]] Fit fitOf(size_t r, const LabelRule& rule) const {
    const Home& home = homes_[r];
    if (home.total.empty()) return {};
    if (const std::optional<int> weight = rules_.lines.weightIn(rule.line, home.total)) {
      return {true, false, home.sign == 0 ? std::nullopt : std::optional(*weight * home.sign)};
    }
    const LabelRule* total = rules_.labels.of(home.total);
    const std::optional<int> plain =
        home.sign == 0 ? std::nullopt : std::optional(rule.outflow ? -home.sign : home.sign);
    // Lines that enter no total are told beside the others of their statement.
    if (rules_.lines.totalOf(rule.line).empty() && !rules_.lines.isTotal(rule.line)) {
      return {total == nullptr || total->part == rule.part, false, plain};
    }
    return {rule.anywhere, true, home.sign == 0 ? std::nullopt : std::optional(home.sign)};
  }

  void give(size_t r, const LabelRule& rule, const Fit& fit, PlacedRow::By by, std::string reason) {
    place(r, rule.line, by, std::move(reason));
    if (!fit.weight || rows_[r].zero) return;
    placed_[r].choice.weight = *fit.weight;
    placed_[r].signKnown = true;
  }

  /// Rows whose label is a line's: one a line, or several parts of one total that stand side by side.
  void placeByLabel() {
    for (const int round : {0, 1, 2}) {  // parts of known totals, rows by themselves, rows of other statements
      for (size_t r = 0; r < rows_.size(); ++r) {
        const LabelRule* rule = exact_[r];
        if (!isOpen(r) || rule == nullptr) continue;
        if (taken_.count(rule->line) > 0) {
          setAside(r, "another sheet has " + rule->line + " already");
          continue;
        }
        if (isTotal(r) && partsNameOthers(r, rule->line)) continue;
        const Fit fit = fitOf(r, *rule);
        const int own = fit.elsewhere ? 2 : fit.weight ? 0 : 1;
        if (!fit.fits || own != round) continue;
        if (const auto held = holders_.find(rule->line);
            held != holders_.end() && !standBeside(r, held->second) && !standApart(r, held->second, *rule)) {
          notes_[r] = "an earlier row is " + rule->line + " already";
          continue;
        }
        give(r, *rule, fit, PlacedRow::By::Label,
             fit.elsewhere ? "a usual label; from another statement, its own has no such row" : "a usual label");
      }
    }
    // A total placed by its label takes its sign from the one above.
    for (size_t r = 0; r < rows_.size(); ++r) {
      if (placed_[r].by != PlacedRow::By::Label || placed_[r].signKnown || homes_[r].sign == 0 || rows_[r].zero)
        continue;
      const std::optional<int> weight = rules_.lines.weightIn(placed_[r].choice.line, homes_[r].total);
      if (!weight) continue;
      placed_[r].choice.weight = *weight * homes_[r].sign;
      placed_[r].signKnown = true;
    }
  }

  [[nodiscard]] bool standBeside(size_t r, size_t holder) const {
    return tree_.parent[r].has_value() && tree_.parent[r] == tree_.parent[holder] && !tree_.repeats[r] &&
           placed_[holder].by != PlacedRow::By::Likeness && !rules_.lines.isTotal(placed_[holder].choice.line);
  }

  /// Parts of known totals whose words tell the line: several may, as debt is drawn and repaid in many rows.
  void placeByWords() {
    for (size_t r = 0; r < rows_.size(); ++r) {
      if (!isOpen(r) || !rows_[r].filed || rows_[r].total != nullptr || exact_[r] != nullptr || isTotal(r) ||
          tree_.repeats[r]) {
        continue;
      }
      const LabelRule* rule = rules_.labels.byWords(label(r));
      if (rule == nullptr || taken_.count(rule->line) > 0) continue;
      const Fit fit = fitOf(r, *rule);
      if (!fit.fits || fit.elsewhere || !fit.weight || homes_[r].within) continue;
      give(r, *rule, fit, PlacedRow::By::Likeness, "words of such rows");
    }
  }

  /// Two rows of one label under different totals, where a line holds both: lease liabilities, current and not.
  [[nodiscard]] bool standApart(size_t r, size_t holder, const LabelRule& rule) const {
    return exact_[holder] == &rule && rules_.labels.allExactly(label(r)).size() == 1 && headed_.count(rule.line) == 0 &&
           homes_[r].row && homes_[holder].row && homes_[r].row != homes_[holder].row &&
           homes_[r].total == homes_[holder].total && placed_[holder].by == PlacedRow::By::Label && !tree_.repeats[r] &&
           !rules_.lines.isTotal(rule.line);
  }

  /// Of all pairs of a row and a line that resemble each other the likest first.
  void placeByLikeness(bool totals) {
    struct Pair {
      size_t row;
      LabelRules::Near near;
    };
    std::vector<Pair> pairs;
    for (size_t r = 0; r < rows_.size(); ++r) {
      const bool total = isTotal(r);
      if (!isOpen(r) || !rows_[r].filed || rows_[r].total != nullptr || exact_[r] != nullptr || tree_.repeats[r] ||
          (totals && !total))
        continue;
      for (LabelRules::Near& near : rules_.labels.near(label(r))) {
        // A total resembles a total; its parts must not say otherwise.
        if (total && (!rules_.lines.isTotal(near.rule->line) && totals)) continue;
        if (total && partsNameOthers(r, near.rule->line)) continue;
        pairs.push_back({r, std::move(near)});
      }
    }
    std::stable_sort(pairs.begin(), pairs.end(),
                     [](const Pair& a, const Pair& b) { return a.near.likeness > b.near.likeness; });
    for (const Pair& pair : pairs) {
      if (!isOpen(pair.row) || !isFree(pair.near.rule->line)) continue;
      const Fit fit = totals ? Fit{} : fitOf(pair.row, *pair.near.rule);
      if (!fit.fits || fit.elsewhere) continue;
      give(pair.row, *pair.near.rule, fit, PlacedRow::By::Likeness, "close to '" + pair.near.synonym + "'");
    }
  }

  /// A total that no label tells stands on the line that its parts sum up to, where most parts of that line are among
  /// them and none stands elsewhere.
  void placeSums() {
    for (size_t r = 0; r < rows_.size(); ++r) {
      const FoundSum* sum = tree_.of(r);
      if (!isOpen(r) || !isTotal(r) || sum == nullptr || !rows_[r].filed || rows_[r].total != nullptr) continue;
      std::string line;
      size_t parts = 0;
      size_t totals = 0;
      bool whole = true;
      for (const SumTerm& term : sum->terms) {
        // A known total among the parts (current assets) is so many parts of the same.
        const bool subtotal = placed_[term.row].choice.line.empty() && rows_[term.row].total != nullptr;
        const std::string total =
            rules_.lines.totalOf(subtotal ? rows_[term.row].total->line : placed_[term.row].choice.line);
        if (line.empty()) line = total;
        whole = whole && !total.empty() && total == line;
        totals += subtotal ? 1 : 0;
        ++parts;
      }
      const bool ofTotals = totals == parts && parts > 1;
      if (!whole || !isFree(line) || (!ofTotals && 2 * parts <= rules_.lines.addends(line))) continue;
      const auto elsewhere = [&](size_t other) {
        return rules_.lines.totalOf(placed_[other].choice.line) == line && !isUnderRow(other, r);
      };
      bool alone = true;
      for (size_t other = 0; alone && other < rows_.size(); ++other) alone = !elsewhere(other);
      if (alone) place(r, line, PlacedRow::By::Likeness, "the sum of its parts, which is " + line);
    }
  }

  /// A total without a known label among the parts of a known one, told by the figures that it starts from: the profit
  /// of the income statement, or what is called so.
  void placeByStart() {
    bool found = false;
    for (const auto& [line, starts] : rules_.parts.starts()) {
      const LabelRule* rule = rules_.labels.of(line);
      for (size_t r = 0; rule != nullptr && r < rows_.size() && isFree(line); ++r) {
        if (!isOpen(r) || !isTotal(r) || exact_[r] != nullptr || rows_[r].total != nullptr) continue;
        const Fit fit = fitOf(r, *rule);
        if (!fit.fits || !fit.weight || fit.elsewhere || !startsFrom(r, starts)) continue;
        give(r, *rule, fit, PlacedRow::By::Likeness, "a total that starts from them");
        found = true;
      }
    }
    for (size_t r = 0; found && r < rows_.size(); ++r) homes_[r] = homeOf(r);
  }
  [[nodiscard]] bool startsFrom(size_t total, const std::set<std::string>& lines) const {
    const auto is = [&](size_t r) { return exact_[r] != nullptr && lines.count(exact_[r]->line) > 0; };
    const std::vector<SumTerm>& terms = tree_.of(total)->terms;
    return std::any_of(terms.begin(), terms.end(), [&](const SumTerm& term) {
      return is(term.row) || (tree_.repeats[term.row] && is(*tree_.repeats[term.row]));
    });
  }

  /// Outflows whose label holds a usual label of what they buy.
  void placeByWhatTheyBuy() {
    for (const auto& [line, bought] : rules_.parts.called()) {
      const LabelRule* rule = rules_.labels.of(line);
      const LabelRule* named = rules_.labels.of(bought);
      for (size_t r = 0; rule != nullptr && named != nullptr && taken_.count(line) == 0 && r < rows_.size(); ++r) {
        if (!isOpen(r) || !rows_[r].filed || exact_[r] != nullptr || isTotal(r) || tree_.repeats[r]) continue;
        const Fit fit = fitOf(r, *rule);
        const bool outflow = rows_[r].negative ? homes_[r].sign > 0 : homes_[r].sign < 0;
        if (!fit.fits || !fit.weight || fit.elsewhere || homes_[r].within || !outflow) continue;
        if (holdsLabelOf(r, *named)) give(r, *rule, fit, PlacedRow::By::Likeness, "an outflow for what is called so");
      }
    }
  }
  [[nodiscard]] bool holdsLabelOf(size_t r, const LabelRule& rule) const {
    constexpr size_t kFewestLetters = 8;  // shorter words are parts of too many
    const std::string whole = " " + normalisedLabel(label(r)) + " ";
    return std::any_of(rule.synonyms.begin(), rule.synonyms.end(), [&](const std::string& synonym) {
      return synonym.size() >= kFewestLetters && whole.find(" " + synonym + " ") != std::string::npos;
    });
  }

  /// A total of both sides of the balance, net assets, takes liabilities off: what is printed negative among lines of
  /// the other side is so because of that.
  void turnRoundWhatIsTakenOff() {
    for (size_t r = 0; r < rows_.size(); ++r) {
      const LabelRule* rule = rules_.labels.of(placed_[r].choice.line);
      const bool told = placed_[r].by == PlacedRow::By::Choice || placed_[r].signKnown;
      if (told || rule == nullptr || rule->part != StatementPart::Balance || !rows_[r].negative || !tree_.parent[r])
        continue;
      const std::string own = rules_.lines.totalOf(rule->line);
      bool others = false;
      for (size_t other = 0; !others && other < rows_.size(); ++other) {
        const std::string total = rules_.lines.totalOf(placed_[other].choice.line);
        others = other != r && !total.empty() && total != own && isUnderRow(other, *tree_.parent[r]);
      }
      if (own.empty() || !others) continue;
      placed_[r].choice.weight = -1;
      placed_[r].signKnown = true;
    }
  }

  /// The residual line of the side that the nearest row beside it stands on, under a total that no line is: deferred
  /// tax below debt and payables.
  [[nodiscard]] const PartRules::Residual* besides(size_t r) const {
    for (const int step : {-1, 1}) {
      for (auto at = static_cast<std::ptrdiff_t>(r) + step; at >= 0 && at < std::ssize(rows_); at += step) {
        const auto other = static_cast<size_t>(at);
        if (tree_.parent[other] != tree_.parent[r]) continue;
        const std::string total = rules_.lines.totalOf(placed_[other].choice.line);
        if (!total.empty()) return rules_.parts.of(total);
      }
    }
    return nullptr;
  }

  /// What is left: parts of a total join its residual line, everything else is set aside with the reason.
  void placeRest() {
    for (size_t r = 0; r < rows_.size(); ++r) {
      if (isOpen(r)) placeRest(r);
    }
  }

  void placeRest(size_t r) {
    const Home& home = homes_[r];
    // What is called like a total and has no parts of its own is a part itself.
    const bool leaf = tree_.of(r) == nullptr && (tree_.parent[r].has_value() || tellsOf_[r]);
    if (isTotal(r) || (rows_[r].total != nullptr && !leaf)) return setAside(r, "a total; its parts are placed");
    if (tree_.repeats[r]) return setAside(r, "the figures of " + named(*tree_.repeats[r]));
    if (rows_[r].total != nullptr && !home.within) return placeAsItsOwnRest(r);
    if (home.within) {
      const std::string part = "a part of " + named(*home.within);
      if (!rows_[*home.within].filed) return placeAsRest(r, home.total, home.sign, part + ", which is not filed");
      if (home.total.empty()) return setAside(r, part + ", which is filed and placed by itself");
      return setAside(r, part + ", which stands on " + home.total + " already");
    }
    if (!home.total.empty() && taken_.count(home.total) > 0) {
      return setAside(r, "another sheet has " + home.total + " already");
    }
    if (home.row && home.residual == nullptr) {
      return setAside(r, "a part of " + named(*home.row) + ", which stands by itself");
    }
    if (home.row) {
      const int weight = rules_.lines.weightIn(home.residual->line, home.total).value_or(1) * home.sign;
      return placeAsRest(r, home.residual->line, weight, "the rest of " + named(*home.row));
    }
    if (home.residual != nullptr && summed_.count(home.residual->line) == 0) {
      return placeAsRest(r, home.residual->line, home.residual->weight, "under " + rows_[r].headingName);
    }
    const PartRules::Residual* beside = home.total.empty() && tree_.parent[r] ? besides(r) : nullptr;
    const LabelRule* rule = beside == nullptr ? nullptr : rules_.labels.of(beside->line);
    if (rule != nullptr && rule->part == StatementPart::Balance && rows_[r].filed) {
      return placeAsRest(r, beside->line, rows_[r].negative ? -beside->weight : beside->weight, "beside such parts");
    }
    placed_[r].choice.reason = notes_[r].empty() ? "no line has a label like this" : notes_[r];
  }

  /// "Creditors: amounts falling due within one year (2,330)" without its parts: the rest of itself. Balances are
  /// printed negative where they are taken off others.
  void placeAsItsOwnRest(size_t r) {
    const PartRules::Residual& own = *rows_[r].total;
    const LabelRule* rule = rules_.labels.of(own.line);
    const bool balance = rule != nullptr && rule->part == StatementPart::Balance;
    const std::optional<int> inHome =
        homes_[r].total.empty() ? std::nullopt : rules_.lines.weightIn(own.line, homes_[r].total);
    int weight = own.weight;
    if (balance) {
      weight = rows_[r].negative ? -1 : 1;
    } else if (inHome) {
      weight = *inHome * homes_[r].sign;
    }
    placeAsRest(r, own.line, weight, "not parted");
  }

  /// The row above that each row tells of. One that is named like what it tells is the rest of itself then: "financial
  /// result, of which interest".
  void findHosts() {
    for (size_t r = 1; r < rows_.size(); ++r) {
      if (rows_[r].told.empty()) continue;
      const size_t host = rows_[r - 1].told.empty() ? r - 1 : hosts_[r - 1].value_or(r - 1);
      if (!rows_[host].told.empty()) continue;
      hosts_[r] = host;
      tellsOf_[host] = true;
      const LabelRule* named = rules_.labels.exactly(rows_[r].told);
      if (named != nullptr && exact_[host] == named && rows_[host].total != nullptr) exact_[host] = nullptr;
    }
  }

  /// Once everything else stands: a told row on the line that its label names, taken out of the line of its host where
  /// both are parts of one total.
  void placeTold() {
    for (size_t r = 0; r < rows_.size(); ++r) {
      if (!rows_[r].told.empty() && placed_[r].by == PlacedRow::By::Nothing) placeTold(r);
    }
  }

  void placeTold(size_t r) {
    const std::string of = hosts_[r] ? "told of " + named(*hosts_[r]) : "told of a row that is not there";
    const std::string held = hosts_[r] ? placed_[*hosts_[r]].choice.line : std::string();
    const LabelRule* heldRule = rules_.labels.of(held);
    const LabelRule* best = nullptr;
    int most = 0;
    bool apart = false;
    std::vector<const LabelRule*> rules = rules_.labels.allExactly(label(r));
    for (const LabelRule* rule : rules_.labels.allExactly(rows_[r].told)) rules.push_back(rule);
    for (const LabelRule* rule : rules) {
      if (heldRule == nullptr || !isFree(rule->line) || rule->line == held) continue;
      const bool part = rules_.lines.weightIn(rule->line, held).has_value();
      const bool beside = isBeside(rule->line, held) && tree_.of(*hosts_[r]) == nullptr;
      const bool headed = rows_[*hosts_[r]].total != nullptr && isUnder(rows_[*hosts_[r]].total, *rule);
      const bool otherwise = rule->anywhere || rules_.lines.totalOf(rule->line).empty();
      const int points = part || beside ? 2 + (headed ? 1 : 0) : otherwise ? 1 : 0;
      if (points <= most) continue;
      most = points;
      best = rule;
      apart = beside && !part;
    }
    if (best == nullptr) return setAside(r, of + ", which counts whole");
    place(r, best->line, PlacedRow::By::Label, of);
    if (heldRule->part != best->part) placed_[r].signKnown = true;  // added back: it is printed as it is
    if (!apart) return;
    const std::string total = rules_.lines.totalOf(held);
    LineChoice& choice = placed_[r].choice;
    choice.outOf = held;
    // Both are parts of that total, or they would not stand beside one another.
    choice.outOfSign = -rules_.lines.weightIn(best->line, total).value() * rules_.lines.weightIn(held, total).value();
  }

  void setAside(size_t r, std::string reason) {
    placed_[r].by = PlacedRow::By::Aside;
    placed_[r].choice.reason = std::move(reason);
  }

  void placeAsRest(size_t r, const std::string& line, int weight, std::string reason) {
    place(r, line, PlacedRow::By::Residual, std::move(reason));
    placed_[r].choice.weight = weight;
    placed_[r].signKnown = true;
  }

  std::span<const RowToPlace> rows_;
  const SumTree& tree_;
  const PlacingRules& rules_;
  const std::set<std::string>& taken_;
  std::vector<PlacedRow> placed_;
  std::vector<const LabelRule*> exact_;
  std::vector<Home> homes_;
  std::vector<std::optional<size_t>> repeatedBy_;  ///< the next row, with its figures, that is a part of a total
  std::vector<std::optional<size_t>> hosts_;       ///< of a told row: the row that it tells of
  std::vector<bool> tellsOf_;                      ///< whether rows tell of it
  std::vector<std::string> notes_;                 ///< why a row's label was not believed
  std::set<std::string> headed_;                   ///< lines that a heading or total says are under it
  std::set<std::string> summed_;                   ///< residual lines of totals whose parts are known
  std::map<std::string, size_t> holders_;          ///< of a line: the first row on it
};

}  // namespace

std::vector<PlacedRow> placeRows(std::span<const RowToPlace> rows, const SumTree& tree, const PlacingRules& rules,
                                 const std::set<std::string>& taken) {
  return Placing(rows, tree, rules, taken).run();
}

}  // namespace zl
