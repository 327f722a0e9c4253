#include "core/filing/solved.h"

#include <algorithm>
#include <sstream>

#include "core/filing/amount.h"
#include "core/filing/named_tie.h"
#include "core/filing/rule_lines.h"

namespace zl {
namespace {

/// Adds a cell's figure and facts to another's.
void addTo(LineCell& to, const LineCell& cell, int sign) {
  to.figure = to.figure + cell.figure * Figure::of(sign);
  for (const LineCell::Part& part : cell.parts) to.parts.push_back({part.fact, sign * part.weight, part.share});
}

}  // namespace

Result<std::vector<TieWithLines>> parseSolved(std::string_view text, const std::vector<Tie>& ties,
                                              const std::string& source) {
  std::vector<TieWithLines> list;
  RuleLines lines(text, source);
  while (lines.next()) {
    std::istringstream words{std::string(lines.line())};
    std::string word;
    if (!(words >> word) || word != "solve") continue;
    const std::string where = lines.where();
    if (!(words >> word)) return fail(ErrorKind::BadInput, "expected the name of a tie after 'solve'", where);
    const Tie* found = tieNamed(ties, word);
    if (found == nullptr) return fail(ErrorKind::BadInput, "there is no tie '" + word + "'", where);
    const bool opening =
        std::any_of(found->addends.begin(), found->addends.end(), [](const TieTerm& term) { return term.opening; });
    if (opening) return fail(ErrorKind::BadInput, "'" + word + "' has an opening balance and is not solved", where);
    TieWithLines tie{*found, {}};
    while (words >> word) {
      const bool ofTie = found->total.line == word || std::any_of(found->addends.begin(), found->addends.end(),
                                                                  [&](const TieTerm& t) { return t.line == word; });
      if (!ofTie) return fail(ErrorKind::BadInput, "'" + word + "' is no line of '" + found->name + "'", where);
      tie.lines.insert(word);
    }
    list.push_back(std::move(tie));
  }
  return list;
}

Result<std::vector<TieWithLines>> parseComplete(std::string_view text, const std::vector<Tie>& ties,
                                                const std::string& source) {
  std::vector<TieWithLines> list;
  RuleLines lines(text, source);
  while (lines.next()) {
    std::istringstream words{std::string(lines.line())};
    std::string word;
    if (!(words >> word) || word != "complete") continue;
    if (!(words >> word))
      return fail(ErrorKind::BadInput, "expected the name of a tie after 'complete'", lines.where());
    const Tie* found = tieNamed(ties, word);
    if (found == nullptr) return fail(ErrorKind::BadInput, "there is no tie '" + word + "'", lines.where());
    TieWithLines tie{*found, {}};
    while (words >> word) {
      const bool addend = std::any_of(found->addends.begin(), found->addends.end(),
                                      [&](const TieTerm& term) { return term.line == word && !term.opening; });
      if (!addend) {
        return fail(ErrorKind::BadInput, "'" + word + "' is no addend of '" + found->name + "'", lines.where());
      }
      tie.lines.insert(word);
    }
    list.push_back(std::move(tie));
  }
  return list;
}

bool complete(const TieWithLines& complete, const std::function<LineCell*(const std::string&)>& cellOf,
              std::span<const Fact> facts) {
  const LineCell* total = cellOf(complete.tie.total.line);
  if (total == nullptr || total->origin != Origin::Filed) return false;
  const std::optional<Amount> whole = amountOf(*total, facts);
  if (!whole) return false;
  Decimal left = whole->number;
  Decimal tolerance = whole->half;
  std::vector<LineCell*> none;
  bool filed = false;
  for (const TieTerm& term : complete.tie.addends) {
    LineCell* cell = cellOf(term.line);
    if (cell == nullptr || term.opening) return false;
    if (cell->origin == Origin::Missing) {
      const bool may = complete.lines.empty() || complete.lines.count(term.line) > 0;
      if (may) none.push_back(cell);
      continue;
    }
    const std::optional<Amount> amount = amountOf(*cell, facts);
    if (!amount) return false;
    filed = filed || cell->origin == Origin::Filed;
    left = term.weight > 0 ? left - amount->number : left + amount->number;
    tolerance = tolerance + amount->half;
  }
  if (!filed || none.empty() || tolerance < left.abs()) return false;
  for (LineCell* cell : none) *cell = {Figure::of(0.0), Origin::NoneReported, {}};
  return true;
}

bool solve(const TieWithLines& solved, const std::function<LineCell*(const std::string&)>& cellOf) {
  std::vector<TieTerm> terms = solved.tie.addends;
  terms.push_back({solved.tie.total.line, -1, false});
  LineCell* missing = nullptr;
  int weight = 0;
  for (const TieTerm& term : terms) {
    LineCell* cell = cellOf(term.line);
    if (cell == nullptr) return false;
    if (cell->origin != Origin::Missing) continue;
    if (missing != nullptr || (!solved.lines.empty() && solved.lines.count(term.line) == 0)) return false;
    missing = cell;
    weight = term.weight;
  }
  if (missing == nullptr) return false;
  LineCell found{Figure::of(0.0), Origin::Filed, {}};
  for (const TieTerm& term : terms) {
    const LineCell* cell = cellOf(term.line);
    if (cell == missing) continue;
    addTo(found, *cell, -weight * term.weight);
  }
  if (found.parts.empty()) return false;
  *missing = std::move(found);
  return true;
}

Result<std::vector<SummedBalance>> parseSums(std::string_view text, const std::vector<Tie>& ties,
                                             const std::string& source) {
  std::vector<SummedBalance> list;
  RuleLines lines(text, source);
  while (lines.next()) {
    std::istringstream words{std::string(lines.line())};
    std::string word;
    if (!(words >> word) || word != "sums") continue;
    std::vector<Tie> named;
    while (words >> word) {
      const Tie* found = tieNamed(ties, word);
      if (found == nullptr) return fail(ErrorKind::BadInput, "there is no tie '" + word + "'", lines.where());
      named.push_back(*found);
    }
    constexpr size_t kNamed = 3;
    const bool balance = named.size() == kNamed && named[0].total.line == named[1].total.line &&
                         std::any_of(named[0].addends.begin(), named[0].addends.end(),
                                     [&](const TieTerm& term) { return term.line == named[2].total.line; });
    if (!balance) {
      return fail(ErrorKind::BadInput, "such a line reads 'sums balance total-of-it addend-of-it', three ties",
                  lines.where());
    }
    list.push_back({named[0], named[1], named[2]});
  }
  return list;
}

namespace {

/// A total as the sum of its filed lines.
struct Sum {
  LineCell cell{Figure::of(0.0), Origin::Filed, {}};
  std::vector<LineCell*> none;  ///< lines that are not filed
  bool known = true;
};

Sum sumOf(const Tie& tie, const std::function<LineCell*(const std::string&)>& cellOf) {
  Sum sum;
  for (const TieTerm& term : tie.addends) {
    LineCell* cell = cellOf(term.line);
    if (cell == nullptr || term.opening) return {{}, {}, false};
    if (cell->origin == Origin::Missing) {
      sum.none.push_back(cell);
    } else {
      addTo(sum.cell, *cell, term.weight);
    }
  }
  sum.known = !sum.cell.parts.empty();
  return sum;
}

}  // namespace

bool sumUp(const SummedBalance& b, const std::function<LineCell*(const std::string&)>& cellOf,
           std::span<const Fact> facts) {
  LineCell* total = cellOf(b.first.total.line);
  LineCell* other = cellOf(b.second.total.line);
  const auto missing = [](const LineCell* cell) { return cell != nullptr && cell->origin == Origin::Missing; };
  if (!missing(total) || !missing(other)) return false;
  Sum first = sumOf(b.first, cellOf);
  Sum second = sumOf(b.second, cellOf);
  if (!first.known || !second.known) return false;
  const std::optional<Amount> whole = amountOf(first.cell, facts);
  if (!whole) return false;
  Decimal left = whole->number;
  Decimal tolerance = whole->half;
  for (const TieTerm& term : b.balance.addends) {
    const LineCell* cell = term.line == b.second.total.line ? &second.cell : cellOf(term.line);
    const std::optional<Amount> amount =
        cell == nullptr || cell->origin != Origin::Filed ? std::nullopt : amountOf(*cell, facts);
    if (!amount) return false;
    left = left - amount->number * term.weight;
    tolerance = tolerance + amount->half;
  }
  if (tolerance < left.abs()) return false;
  for (Sum* sum : {&first, &second}) {
    for (LineCell* cell : sum->none) *cell = {Figure::of(0.0), Origin::NoneReported, {}};
  }
  *total = std::move(first.cell);
  *other = std::move(second.cell);
  return true;
}

}  // namespace zl
