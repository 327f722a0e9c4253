#include "core/filing/solved.h"

#include <algorithm>
#include <sstream>

#include "core/filing/amount.h"
#include "core/filing/rule_lines.h"

namespace zl {

Result<std::vector<Tie>> parseSolved(std::string_view text, const std::vector<Tie>& ties, const std::string& source) {
  std::vector<Tie> list;
  RuleLines lines(text, source);
  while (lines.next()) {
    std::istringstream words{std::string(lines.line())};
    std::string word;
    if (!(words >> word) || word != "solve") continue;
    const std::string where = lines.where();
    if (!(words >> word)) return fail(ErrorKind::BadInput, "expected the name of a tie after 'solve'", where);
    const auto found = std::find_if(ties.begin(), ties.end(), [&](const Tie& t) { return t.name == word; });
    if (found == ties.end()) return fail(ErrorKind::BadInput, "there is no tie '" + word + "'", where);
    const bool opening =
        std::any_of(found->addends.begin(), found->addends.end(), [](const TieTerm& term) { return term.opening; });
    if (opening) return fail(ErrorKind::BadInput, "'" + word + "' has an opening balance and is not solved", where);
    list.push_back(*found);
  }
  return list;
}

Result<std::vector<CompleteTie>> parseComplete(std::string_view text, const std::vector<Tie>& ties,
                                               const std::string& source) {
  std::vector<CompleteTie> list;
  RuleLines lines(text, source);
  while (lines.next()) {
    std::istringstream words{std::string(lines.line())};
    std::string word;
    if (!(words >> word) || word != "complete") continue;
    if (!(words >> word))
      return fail(ErrorKind::BadInput, "expected the name of a tie after 'complete'", lines.where());
    const auto found = std::find_if(ties.begin(), ties.end(), [&](const Tie& t) { return t.name == word; });
    if (found == ties.end()) return fail(ErrorKind::BadInput, "there is no tie '" + word + "'", lines.where());
    CompleteTie tie{*found, {}};
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

bool complete(const CompleteTie& complete, const std::function<LineCell*(const std::string&)>& cellOf,
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

bool solve(const Tie& tie, const std::function<LineCell*(const std::string&)>& cellOf) {
  std::vector<TieTerm> terms = tie.addends;
  terms.push_back({tie.total.line, -1, false});
  LineCell* missing = nullptr;
  int weight = 0;
  for (const TieTerm& term : terms) {
    LineCell* cell = cellOf(term.line);
    if (cell == nullptr) return false;
    if (cell->origin != Origin::Missing) continue;
    if (missing != nullptr) return false;
    missing = cell;
    weight = term.weight;
  }
  if (missing == nullptr) return false;
  LineCell solved{Figure::of(0.0), Origin::Filed, {}};
  for (const TieTerm& term : terms) {
    const LineCell* cell = cellOf(term.line);
    if (cell == missing) continue;
    const int sign = -weight * term.weight;
    solved.figure = solved.figure + cell->figure * Figure::of(sign);
    for (const LineCell::Part& part : cell->parts) solved.parts.push_back({part.fact, sign * part.weight, part.share});
  }
  if (solved.parts.empty()) return false;
  *missing = std::move(solved);
  return true;
}

}  // namespace zl
