#include "core/filing/held.h"

#include <algorithm>
#include <bit>
#include <sstream>

#include "core/filing/amount.h"
#include "core/filing/named_tie.h"
#include "core/filing/rule_lines.h"

namespace zl {
namespace {

constexpr size_t kMostHeld = 8;  // every set of them is tried

/// What a line brings to its tie in one period.
struct Brought {
  TieTerm term;
  LineCell* cell = nullptr;
  Decimal number;  ///< with the tie's weight
};

}  // namespace

Result<std::vector<HoldingLine>> parseHolding(std::string_view text, const std::vector<Tie>& ties,
                                              const std::string& source) {
  std::vector<HoldingLine> list;
  RuleLines lines(text, source);
  while (lines.next()) {
    std::istringstream words{std::string(lines.line())};
    std::string word, tie, holder, equals;
    if (!(words >> word) || word != "holds") continue;
    const auto bad = [&](const std::string& what) {
      return fail(ErrorKind::BadInput, what, lines.where(), "It reads: holds tie line = line line");
    };
    if (!(words >> tie >> holder >> equals) || equals != "=") return bad("expected a tie, a line of it and '='");
    const Tie* found = tieNamed(ties, tie);
    if (found == nullptr) return bad("there is no tie '" + tie + "'");
    const auto addend = [&](const std::string& name) {
      return std::find_if(found->addends.begin(), found->addends.end(),
                          [&](const TieTerm& term) { return term.line == name && !term.opening; });
    };
    if (addend(holder) == found->addends.end())
      return bad(std::string("'").append(holder).append("' is no addend of '").append(tie).append("'"));
    HoldingLine holding{*found, *addend(holder), {}};
    while (words >> word) {
      const auto term = addend(word);
      if (term == found->addends.end() || word == holder) {
        return bad(std::string("'").append(word).append("' is no other addend of '").append(tie).append("'"));
      }
      holding.held.push_back(*term);
    }
    if (holding.held.empty() || holding.held.size() > kMostHeld) return bad("one to eight lines are held");
    list.push_back(std::move(holding));
  }
  return list;
}

bool takeOutHeld(const HoldingLine& holding, const std::function<LineCell*(const std::string&)>& cellOf,
                 std::span<const Fact> facts) {
  LineCell* holder = cellOf(holding.holder.line);
  const LineCell* total = cellOf(holding.tie.total.line);
  if (holder == nullptr || holder->origin != Origin::Filed || total == nullptr || total->origin != Origin::Filed) {
    return false;
  }
  const std::optional<Amount> whole = amountOf(*total, facts);
  if (!whole) return false;
  Decimal gap = whole->number * -1;
  Decimal tolerance = whole->half;
  std::vector<Brought> held;
  for (const TieTerm& term : holding.tie.addends) {
    LineCell* cell = cellOf(term.line);
    if (term.opening) return false;
    if (cell == nullptr || cell->origin != Origin::Filed) continue;
    const std::optional<Amount> amount = amountOf(*cell, facts);
    if (!amount) return false;
    const Decimal number = amount->number * term.weight;
    gap = gap + number;
    tolerance = tolerance + amount->half;
    const bool named = std::any_of(holding.held.begin(), holding.held.end(),
                                   [&](const TieTerm& other) { return other.line == term.line; });
    if (named && Decimal() < number.abs()) held.push_back({term, cell, number});
  }
  if (gap.abs() <= tolerance) return false;
  unsigned best = 0;
  bool alone = false;
  for (unsigned set = 1; set < 1U << held.size(); ++set) {
    const int lines = std::popcount(set);
    if (best != 0 && lines > std::popcount(best)) continue;
    Decimal left = gap;
    for (size_t i = 0; i < held.size(); ++i) {
      if ((set >> i & 1U) != 0) left = left - held[i].number;
    }
    if (!(left.abs() <= tolerance)) continue;
    alone = best == 0 || lines < std::popcount(best);
    best = set;
  }
  if (!alone) return false;
  for (size_t i = 0; i < held.size(); ++i) {
    if ((best >> i & 1U) == 0) continue;
    const int weight = -held[i].term.weight * holding.holder.weight;
    for (const LineCell::Part& part : held[i].cell->parts) {
      holder->parts.push_back({part.fact, part.weight * weight, part.share});
    }
    holder->figure = holder->figure + held[i].cell->figure * Figure::of(weight);
  }
  return true;
}

}  // namespace zl
