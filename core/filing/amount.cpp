#include "core/filing/amount.h"

namespace zl {

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
    std::optional<Amount> one = amountOf(facts[part.fact]);
    if (!one) return std::nullopt;
    // A share is exact: what its fact leaves open is counted where the whole of it stands.
    if (!part.share.empty()) one = Amount{Decimal::parse(part.share).value_or(Decimal()), Decimal(0)};
    total.number = total.number + one->number * part.weight;
    total.half = total.half + one->half;
  }
  return total;
}

}  // namespace zl
