#include "core/filing/tie.h"

#include <sstream>

namespace zl {
namespace {

struct Amount {
  Decimal number;
  Decimal half;  ///< half a unit of the last filed place; 0 for exact facts
};

std::optional<Amount> amountOf(const Fact& fact) {
  const std::optional<Decimal> number = Decimal::parse(fact.text);
  if (fact.nil || !number) return std::nullopt;
  if (fact.exact) return Amount{*number, Decimal(0)};
  const int place = fact.decimals ? -*fact.decimals : number->lastPlace();
  return Amount{*number, Decimal::halfUnit(place)};
}

std::optional<Amount> amountOf(const LineCell& cell, std::span<const Fact> facts) {
  if (cell.origin == Origin::NoneReported) return Amount{Decimal(0), Decimal(0)};
  if (cell.parts.empty()) return std::nullopt;
  Amount total{Decimal(0), Decimal(0)};
  for (const LineCell::Part& part : cell.parts) {
    const std::optional<Amount> one = amountOf(facts[part.fact]);
    if (!one) return std::nullopt;
    total.number = total.number + one->number * part.weight;
    total.half = total.half + one->half;
  }
  return total;
}

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
  std::istringstream lines{std::string(text)};
  std::string line;
  for (int number = 1; std::getline(lines, line); ++number) {
    line.resize(std::min(line.size(), line.find('#')));
    std::istringstream words(line);
    std::string word;
    if (!(words >> word)) continue;
    const auto bad = [&](const std::string& what) {
      return fail(ErrorKind::BadInput, what, source + ", line " + std::to_string(number),
                  "A tie reads: tie name \"Label\" line = line + line[-1]");
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

std::vector<TieResult> checkTies(const std::vector<Tie>& ties, const StandardStatements& statements,
                                 std::span<const Fact> facts) {
  std::vector<TieResult> results;
  for (size_t t = 0; t < ties.size(); ++t) {
    for (int column = 0; column < static_cast<int>(statements.years().size()); ++column) {
      TieResult result;
      result.tie = t;
      result.column = column;
      Decimal gap(0);
      Decimal tolerance(0);
      const auto add = [&](const TieTerm& term, int sign) {
        const LineCell& cell = statements.at(term.line, term.opening ? column - 1 : column);
        const std::optional<Amount> amount = amountOf(cell, facts);
        if (!amount) {
          if (result.missing.empty()) result.missing = term.line;
          return;
        }
        gap = gap + amount->number * (term.weight * sign);
        tolerance = tolerance + amount->half;
        for (const LineCell::Part& part : cell.parts) result.facts.push_back(part.fact);
      };
      for (const TieTerm& term : ties[t].addends) add(term, 1);
      add(ties[t].total, -1);
      if (result.missing.empty()) {
        result.state = gap.abs() <= tolerance ? TieResult::State::Ties : TieResult::State::Fails;
        result.gap = gap.text();
        result.tolerance = tolerance.text();
      }
      results.push_back(std::move(result));
    }
  }
  return results;
}

}  // namespace zl
