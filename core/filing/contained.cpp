#include "core/filing/contained.h"

#include <algorithm>
#include <cmath>
#include <sstream>

#include "core/filing/amount.h"
#include "core/filing/named_tie.h"
#include "core/filing/rule_lines.h"

namespace zl {
namespace {

/// The gap of a tie, with the weight of one addend left out where it is asked for.
struct Gap {
  Decimal with, without;
  Decimal tolerance;
};

std::optional<Gap> gapOf(const ContainedCost& cost, const std::function<LineCell*(const std::string&)>& cellOf,
                         std::span<const Fact> facts) {
  Gap gap;
  const auto add = [&](const std::string& line, int weight) {
    const LineCell* cell = cellOf(line);
    const std::optional<Amount> amount = cell == nullptr ? std::nullopt : amountOf(*cell, facts);
    if (!amount) return false;
    gap.with = gap.with + amount->number * weight;
    if (line != cost.line) gap.without = gap.without + amount->number * weight;
    gap.tolerance = gap.tolerance + amount->half;
    return true;
  };
  if (!add(cost.tie.total.line, -1)) return std::nullopt;
  for (const TieTerm& term : cost.tie.addends) {
    if (!add(term.line, term.weight)) return std::nullopt;
  }
  return gap;
}

/// A share of an exact figure, in units of its own last place.
Decimal shareOf(const Decimal& whole, double share) {
  const double unit = std::pow(10.0, whole.lastPlace());
  const auto units = static_cast<long long>(std::llround(whole.toDouble() * share / unit));
  return Decimal(units).shifted(whole.lastPlace());
}

}  // namespace

Result<std::vector<ContainedCost>> parseContained(std::string_view text, const std::vector<Tie>& ties,
                                                  const std::string& source) {
  std::vector<ContainedCost> list;
  RuleLines lines(text, source);
  while (lines.next()) {
    std::istringstream words{std::string(lines.line())};
    std::string word, tie, equals;
    if (!(words >> word) || word != "inside") continue;
    ContainedCost cost;
    const auto bad = [&](const std::string& what) {
      return fail(ErrorKind::BadInput, what, lines.where(), "It reads: inside tie line = line + line");
    };
    if (!(words >> tie >> cost.line >> equals) || equals != "=") return bad("expected a tie, a line of it and '='");
    const Tie* found = tieNamed(ties, tie);
    if (found == nullptr) return bad("there is no tie '" + tie + "'");
    cost.tie = *found;
    const auto isAddend = [&](const std::string& name) {
      return std::any_of(cost.tie.addends.begin(), cost.tie.addends.end(),
                         [&](const TieTerm& term) { return term.line == name && !term.opening; });
    };
    if (!isAddend(cost.line)) return bad("'" + cost.line + "' is no addend of '" + tie + "'");
    for (bool wantLine = true; words >> word; wantLine = !wantLine) {
      if (wantLine == (word == "+")) return bad("'" + word + "' is out of place");
      if (!wantLine) continue;
      if (!isAddend(word) || word == cost.line) return bad("'" + word + "' is no other addend of '" + tie + "'");
      cost.hosts.push_back(word);
    }
    if (cost.hosts.empty()) return bad("no line is named that holds it");
    list.push_back(std::move(cost));
  }
  return list;
}

bool takeOut(const ContainedCost& cost, const std::function<LineCell*(const std::string&)>& cellOf,
             std::span<const Fact> facts) {
  const LineCell* inner = cellOf(cost.line);
  if (inner == nullptr || inner->origin != Origin::Filed) return false;
  const std::optional<Gap> gap = gapOf(cost, cellOf, facts);
  if (!gap || gap->with.abs() <= gap->tolerance || !(gap->without.abs() <= gap->tolerance)) return false;
  std::vector<LineCell*> hosts;
  double sum = 0;
  for (const std::string& name : cost.hosts) {
    LineCell* host = cellOf(name);
    if (host == nullptr || host->origin != Origin::Filed || host->figure.valueOr(0) <= 0) continue;
    hosts.push_back(host);
    sum += host->figure.value();
  }
  const double whole = inner->figure.valueOr(0);
  if (whole <= 0 || sum < whole) return false;  // they cannot hold it
  const std::vector<LineCell::Part> parts = inner->parts;
  std::vector<double> shares;
  for (const LineCell* host : hosts) shares.push_back(host->figure.value() / sum);
  for (const LineCell::Part& part : parts) {
    const Decimal number =
        part.share.empty() ? amountOf(facts[part.fact])->number : Decimal::parse(part.share).value_or(Decimal());
    Decimal left = number;
    for (size_t i = 0; i < hosts.size(); ++i) {
      const Decimal share = i + 1 == hosts.size() ? left : shareOf(number, shares[i]);
      left = left - share;
      hosts[i]->parts.push_back({part.fact, -part.weight, share.text()});
      hosts[i]->figure = hosts[i]->figure - Figure::of(part.weight * share.toDouble());
    }
  }
  return true;
}

}  // namespace zl
