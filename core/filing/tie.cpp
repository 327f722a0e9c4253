#include "core/filing/tie.h"

#include <algorithm>
#include <sstream>

#include "core/filing/amount.h"
#include "core/filing/rule_lines.h"

namespace zl {
namespace {

bool parseTerm(std::string word, int weight, TieTerm& term) {
  term.weight = weight;
  const size_t bracket = word.find('[');
  if (bracket != std::string::npos) {
    if (word.substr(bracket) != "[-1]") return false;
    term.opening = true;
    word.resize(bracket);
  }
  term.line = word;
  return !word.empty();
}

}  // namespace

bool agree(const Fact& a, const Fact& b) {
  if (a.nil || b.nil) return a.nil == b.nil;
  if (a.text == b.text) return true;  // whatever either is exact to, and by far the most
  const std::optional<Amount> x = amountOf(a);
  const std::optional<Amount> y = amountOf(b);
  if (!x || !y) return false;
  return (x->number - y->number).abs() <= x->half + y->half;
}

std::optional<FiledSum> filedSum(std::span<const size_t> parts, size_t whole, std::span<const Fact> facts) {
  const std::optional<Amount> total = amountOf(facts[whole]);
  if (!total) return std::nullopt;
  Decimal gap = Decimal(0) - total->number;
  Decimal tolerance = total->half;
  for (const size_t part : parts) {
    const std::optional<Amount> one = amountOf(facts[part]);
    if (!one) return std::nullopt;
    gap = gap + one->number;
    tolerance = tolerance + one->half;
  }
  return FiledSum{gap.abs() <= tolerance, gap.text(), tolerance.text()};
}

Result<std::vector<Tie>> parseTies(std::string_view text, const std::string& source) {
  std::vector<Tie> ties;
  RuleLines lines(text, source);
  while (lines.next()) {
    std::istringstream words{std::string(lines.line())};
    std::string word;
    if (!(words >> word) || word == "inside" || word == "solve" || word == "complete" || word == "rest" ||
        word == "sums" || word == "holds" || word == "moves")
      continue;  // core/filing/shapes
    const auto bad = [&](const std::string& what) {
      return fail(ErrorKind::BadInput, what, lines.where(), "A tie reads: tie name \"Label\" line = line + line[-1]");
    };
    Tie tie;
    char quote = 0;
    tie.roll = word == "roll";
    if ((word != "tie" && !tie.roll) || !(words >> tie.name >> quote) || quote != '"') {
      return bad("expected a tie with a name and a label");
    }
    std::getline(words, tie.label, '"');
    std::string equals;
    if (!(words >> word >> equals) || equals != "=" || !parseTerm(word, 1, tie.total)) {
      return bad("expected 'line =' after the label");
    }
    int weight = 1;
    bool wantTerm = true;
    while (words >> word) {
      if (word == "+" || word == "-") {
        weight = word == "+" ? 1 : -1;
        wantTerm = true;
        continue;
      }
      TieTerm term;
      if (!wantTerm || !parseTerm(word, weight, term)) return bad("'" + word + "' is out of place");
      tie.addends.push_back(term);
      wantTerm = false;
    }
    if (wantTerm) return bad("the sum is not complete");
    ties.push_back(std::move(tie));
  }
  return ties;
}

namespace {

/// The parts of a cell that one concept filed.
LineCell onlyOf(const LineCell& cell, const std::string& concept_name, std::span<const Fact> facts) {
  LineCell part = cell;
  std::erase_if(part.parts, [&](const LineCell::Part& p) { return facts[p.fact].concept_name.str() != concept_name; });
  return part;
}

/// One tie in one year; where a concept is named, with its part alone of the balance that moves.
TieResult judge(const Tie& tie, int column, const StandardStatements& statements, std::span<const Fact> facts,
                const std::string& concept_name = {}) {
  TieResult result;
  result.column = column;
  Decimal gap(0);
  Decimal tolerance(0);
  const auto add = [&](const TieTerm& term, int sign) {
    LineCell cell = statements.at(term.line, term.opening ? column - 1 : column);
    if (!concept_name.empty() && term.line == tie.total.line) cell = onlyOf(cell, concept_name, facts);
    const std::optional<Amount> amount = amountOf(cell, facts);
    if (!amount) {
      result.missing.push_back(term.line);
      return;
    }
    gap = gap + amount->number * (term.weight * sign);
    tolerance = tolerance + amount->half;
    for (const LineCell::Part& part : cell.parts) result.facts.push_back(part.fact);
  };
  for (const TieTerm& term : tie.addends) add(term, 1);
  add(tie.total, -1);
  result.gap = gap.text();
  result.tolerance = tolerance.text();
  if (!result.missing.empty()) return result;
  result.state = gap.abs() <= tolerance ? TieResult::State::Ties : TieResult::State::Fails;
  return result;
}

/// A movement may be that of one part of the balance: cash flow statements end with cash, and the line holds short-term
/// investments too.
TieResult judgeParts(const Tie& tie, int column, const StandardStatements& statements, std::span<const Fact> facts) {
  TieResult whole = judge(tie, column, statements, facts);
  const bool moves = !tie.roll && std::any_of(tie.addends.begin(), tie.addends.end(), [&](const TieTerm& term) {
    return term.opening && term.line == tie.total.line;
  });
  const std::vector<LineCell::Part>& parts = statements.at(tie.total.line, column).parts;
  if (whole.state != TieResult::State::Fails || !moves || parts.size() < 2) return whole;
  for (const LineCell::Part& part : parts) {
    TieResult one = judge(tie, column, statements, facts, facts[part.fact].concept_name.str());
    if (one.state == TieResult::State::Ties) return one;
  }
  return whole;
}

}  // namespace

std::vector<TieResult> checkTies(const std::vector<Tie>& ties, const StandardStatements& statements,
                                 std::span<const Fact> facts) {
  std::vector<TieResult> results;
  for (size_t t = 0; t < ties.size(); ++t) {
    for (int column = 0; column < static_cast<int>(statements.years().size()); ++column) {
      results.push_back(judgeParts(ties[t], column, statements, facts));
      results.back().tie = t;
    }
  }
  return results;
}

}  // namespace zl
