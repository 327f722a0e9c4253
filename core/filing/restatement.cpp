#include "core/filing/restatement.h"

#include <algorithm>
#include <map>
#include <tuple>

#include "core/filing/tie.h"

namespace zl {

std::vector<Restatement> restatements(std::span<const Fact> facts) {
  std::map<std::tuple<std::string, Period, std::string>, std::pair<size_t, size_t>> ends;
  for (size_t i = 0; i < facts.size(); ++i) {
    const Fact& f = facts[i];
    if (!f.segments.empty() || f.nil) continue;
    const auto [at, fresh] = ends.try_emplace({f.concept_name, f.period, f.unit}, i, i);
    // Within one document the first of two figures stands; disagreements there are no restatement.
    if (!fresh && facts[at->second.second].document != f.document) at->second.second = i;
  }
  std::vector<Restatement> list;
  for (const auto& [key, pair] : ends) {
    const auto [first, last] = pair;
    if (facts[first].document == facts[last].document || agree(facts[first], facts[last])) continue;
    const std::optional<Decimal> before = Decimal::parse(facts[first].text);
    const std::optional<Decimal> after = Decimal::parse(facts[last].text);
    if (before && after) list.push_back({first, last, (*after - *before).text()});
  }
  std::stable_sort(list.begin(), list.end(), [&](const Restatement& a, const Restatement& b) {
    return facts[a.first].period.end > facts[b.first].period.end;
  });
  return list;
}

}  // namespace zl
