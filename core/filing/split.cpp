#include "core/filing/split.h"

#include <algorithm>
#include <map>

#include "core/quantity/number_text.h"

namespace zl {

double splitFactor(std::span<const ShareSplit> splits, Date date, Date reportsTo) {
  double factor = 1;
  for (const ShareSplit& split : splits) {
    if (date < split.on && reportsTo < split.on) factor *= split.now / split.before;
  }
  return factor;
}

std::vector<Fact> restatedForSplits(std::span<const Fact> facts, std::span<const ShareSplit> splits) {
  if (splits.empty()) return {};
  std::map<std::int64_t, Date> reportsTo;
  for (const Fact& fact : facts) {
    const auto [known, isNew] = reportsTo.emplace(fact.document, fact.period.end);
    if (!isNew) known->second = std::max(known->second, fact.period.end);
  }
  std::vector<Fact> restated(facts.begin(), facts.end());
  for (Fact& fact : restated) {
    const bool counts = fact.unit == "shares";
    if (!counts && !fact.unit.ends_with("/shares")) continue;
    const double factor = splitFactor(splits, fact.period.end, reportsTo.at(fact.document));
    const Figure filed = fact.figure();
    if (factor == 1 || !filed.hasValue()) continue;
    fact.text = plainNumber(counts ? filed.value() * factor : filed.value() / factor);
  }
  return restated;
}

}  // namespace zl
