#include "core/filing/moving.h"

#include <algorithm>
#include <set>
#include <sstream>

#include "core/filing/amount.h"
#include "core/filing/named_tie.h"
#include "core/filing/rule_lines.h"

namespace zl {
namespace {

constexpr int kFewestMovements = 2;  // one may be chance

/// A concept's own figure in a cell; empty where the cell does not hold it as it was filed.
std::optional<Amount> ownAmount(const LineCell& cell, const std::string& concept_name, std::span<const Fact> facts) {
  for (const LineCell::Part& part : cell.parts) {
    if (facts[part.fact].concept_name.str() == concept_name && part.weight == 1 && part.share.empty())
      return amountOf(facts[part.fact]);
  }
  return std::nullopt;
}

class Search {
 public:
  Search(const Tie& tie, const std::string& line, const StandardStatements& statements, std::span<const Fact> facts)
      : tie_(tie), line_(line), statements_(statements), facts_(facts) {}

  [[nodiscard]] std::set<std::string> concepts() const {
    std::set<std::string> names;
    for (int c = 0; c < columns(); ++c) {
      for (const LineCell::Part& part : statements_.at(line_, c).parts)
        names.insert(facts_[part.fact].concept_name.str());
    }
    return names;
  }

  /// Whether it moves as the tie says wherever that can be asked, and by more than nothing often enough.
  [[nodiscard]] bool moves(const std::string& concept_name) const {
    int moved = 0;
    for (int c = 1; c < columns(); ++c) {
      const std::optional<Amount> now = ownAmount(statements_.at(line_, c), concept_name, facts_);
      const std::optional<Amount> before = ownAmount(statements_.at(line_, c - 1), concept_name, facts_);
      const std::optional<Amount> by = movement(c);
      if (!now || !before || !by) continue;
      const Decimal gap = before->number + by->number + now->number * -1;
      const Decimal open = now->half + before->half + by->half;
      if (open < gap.abs()) return false;
      if (open < by->number.abs()) ++moved;
    }
    return moved >= kFewestMovements;
  }

 private:
  [[nodiscard]] int columns() const { return static_cast<int>(statements_.years().size()); }

  [[nodiscard]] std::optional<Amount> movement(int column) const {
    Amount sum{Decimal(), Decimal()};
    for (const TieTerm& term : tie_.addends) {
      if (term.opening) continue;
      const LineCell& cell = statements_.at(term.line, column);
      const std::optional<Amount> amount =
          cell.origin == Origin::Filed ? amountOf(cell, facts_) : std::optional<Amount>();
      if (!amount) return std::nullopt;
      sum.number = sum.number + amount->number * term.weight;
      sum.half = sum.half + amount->half;
    }
    return sum;
  }

  const Tie& tie_;
  const std::string& line_;
  const StandardStatements& statements_;
  std::span<const Fact> facts_;
};

}  // namespace

Result<std::vector<MovingBalance>> parseMoving(std::string_view text, const std::vector<Tie>& ties,
                                               const std::string& source) {
  std::vector<MovingBalance> list;
  RuleLines lines(text, source);
  while (lines.next()) {
    std::istringstream words{std::string(lines.line())};
    std::string word, tie, equals;
    if (!(words >> word) || word != "moves") continue;
    const auto bad = [&](const std::string& what) {
      return fail(ErrorKind::BadInput, what, lines.where(), "It reads: moves tie = line line");
    };
    if (!(words >> tie >> equals) || equals != "=") return bad("expected a tie and '='");
    const Tie* found = tieNamed(ties, tie);
    if (found == nullptr) return bad("there is no tie '" + tie + "'");
    if (std::none_of(found->addends.begin(), found->addends.end(),
                     [&](const TieTerm& term) { return term.opening && term.line == found->total.line; }))
      return bad("'" + tie + "' is no movement of '" + found->total.line + "'");
    MovingBalance moving{*found, {}};
    while (words >> word) moving.lines.push_back(word);
    if (moving.lines.empty()) return bad("expected lines to look on");
    list.push_back(std::move(moving));
  }
  return list;
}

std::optional<std::pair<std::string, LineChoice>> foundByMovement(const MovingBalance& moving,
                                                                  const StandardStatements& statements,
                                                                  std::span<const Fact> facts,
                                                                  const LineChoices& choices) {
  for (int c = 0; c < static_cast<int>(statements.years().size()); ++c) {
    if (statements.at(moving.tie.total.line, c).origin == Origin::Filed) return std::nullopt;
  }
  std::vector<std::string> found;
  for (const std::string& line : moving.lines) {
    const Search search(moving.tie, line, statements, facts);
    for (const std::string& name : search.concepts()) {
      const auto choice = choices.find(name);
      if (choice != choices.end() && choice->second.byHand) continue;
      if (search.moves(name)) found.push_back(name);
    }
  }
  if (found.size() != 1) return std::nullopt;
  return std::pair(found.front(), LineChoice{moving.tie.total.line, 1, "it moves as '" + moving.tie.label + "' says"});
}

}  // namespace zl
