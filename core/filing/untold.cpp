#include "core/filing/untold.h"

#include <algorithm>
#include <sstream>

#include "core/filing/amount.h"
#include "core/filing/named_tie.h"
#include "core/filing/rule_lines.h"

namespace zl {
namespace {

/// A total, less what is known of it.
struct Left {
  Decimal number;
  Decimal tolerance;
  LineCell cell{Figure::of(0.0), Origin::Filed, {}};

  void take(const LineCell::Part& part, int weight, const Fact& fact, const Amount& amount) {
    number = weight * part.weight > 0 ? number + amount.number : number - amount.number;
    tolerance = tolerance + amount.half;
    cell.figure = cell.figure + fact.figure() * Figure::of(weight * part.weight);
    cell.parts.push_back({part.fact, weight * part.weight, part.share});
  }
  /// A figure above what rounding leaves.
  [[nodiscard]] bool isMore() const { return tolerance < number; }
};

bool isCurrent(const std::string& concept_name) {
  return concept_name.find("Current") != std::string::npos && concept_name.find("Noncurrent") == std::string::npos;
}

void add(LineCell& to, const LineCell& left) {
  const bool had = to.origin == Origin::Filed;
  to.figure = had ? to.figure + left.figure : left.figure;
  if (!had) to.parts.clear();
  to.parts.insert(to.parts.end(), left.parts.begin(), left.parts.end());
  to.origin = Origin::Filed;
}

}  // namespace

Result<std::vector<UntoldRest>> parseUntold(std::string_view text, const std::vector<Tie>& ties,
                                            const std::string& source) {
  std::vector<UntoldRest> list;
  RuleLines lines(text, source);
  while (lines.next()) {
    std::string line(lines.line());
    if (!line.starts_with("rest ")) continue;
    std::replace(line.begin(), line.end(), ',', ' ');
    std::istringstream words(line);
    std::string word;
    words >> word >> word;
    const Tie* found = tieNamed(ties, word);
    if (found == nullptr) return fail(ErrorKind::BadInput, "there is no tie '" + word + "'", lines.where());
    UntoldRest rest{*found, {}, {}, {}};
    const auto isAddend = [&](const std::string& name) {
      return std::any_of(rest.tie.addends.begin(), rest.tie.addends.end(),
                         [&](const TieTerm& term) { return term.line == name && !term.opening && term.weight > 0; });
    };
    words >> rest.line;
    std::vector<std::string> more;
    while (words >> word) more.push_back(word);
    const auto equals = std::find(more.begin(), more.end(), "=");
    if (!more.empty()) {
      if (more.front() != "current" || equals - more.begin() < 2 || more.end() - equals < 2)
        return fail(ErrorKind::BadInput, "expected 'current', concepts, '=' and lines", lines.where());
      rest.currentTotals.assign(more.begin() + 1, equals);
      rest.currentLines.assign(equals + 1, more.end());
    }
    std::vector<std::string> names = rest.currentLines;
    names.push_back(rest.line);
    for (const std::string& name : names) {
      if (!isAddend(name))
        return fail(ErrorKind::BadInput, "'" + name + "' is no addend of '" + rest.tie.name + "'", lines.where());
    }
    list.push_back(std::move(rest));
  }
  return list;
}

bool fillUntold(const UntoldRest& rest, const std::function<LineCell*(const std::string&)>& cellOf,
                const std::function<const size_t*(const std::string&)>& factOf, std::span<const Fact> facts) {
  const LineCell* total = cellOf(rest.tie.total.line);
  if (total == nullptr || total->origin != Origin::Filed) return false;
  Left whole;
  Left current;
  bool known = true;
  const auto take = [&](Left& left, const LineCell::Part& part, int weight) {
    const std::optional<Amount> amount = amountOf(facts[part.fact]);
    known = known && amount && part.share.empty();
    if (known) left.take(part, weight, facts[part.fact], *amount);
  };
  for (const LineCell::Part& part : total->parts) take(whole, part, 1);
  const size_t* currentTotal = nullptr;
  for (const std::string& concept_name : rest.currentTotals) {
    if (currentTotal == nullptr) currentTotal = factOf(concept_name);
  }
  if (currentTotal != nullptr) take(current, {*currentTotal, 1, {}}, 1);
  for (const TieTerm& term : rest.tie.addends) {
    const LineCell* cell = cellOf(term.line);
    if (cell == nullptr || term.opening) return false;
    if (cell->origin != Origin::Filed) continue;
    const bool currentLine =
        std::find(rest.currentLines.begin(), rest.currentLines.end(), term.line) != rest.currentLines.end();
    for (const LineCell::Part& part : cell->parts) {
      take(whole, part, -term.weight);
      const bool within = currentLine || isCurrent(facts[part.fact].concept_name);
      if (currentTotal != nullptr && within) take(current, part, -term.weight);
    }
  }
  if (!known || !whole.isMore()) return false;
  if (currentTotal == nullptr || !current.isMore()) {
    add(*cellOf(rest.line), whole.cell);
    return true;
  }
  add(*cellOf(rest.currentLines.front()), current.cell);
  // What both leave cancels out: the rest is the whole less the current part.
  if (!(current.number + current.tolerance + whole.tolerance < whole.number)) return true;
  LineCell other = whole.cell;
  other.figure = other.figure - current.cell.figure;
  for (LineCell::Part part : current.cell.parts) {
    part.weight = -part.weight;
    other.parts.push_back(part);
  }
  add(*cellOf(rest.line), other);
  return true;
}

}  // namespace zl
