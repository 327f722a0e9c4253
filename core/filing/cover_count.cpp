#include "core/filing/cover_count.h"

#include <map>

namespace zl {

bool isOfCover(const std::string& concept_name) {
  return concept_name.starts_with("dei:");
}

std::optional<CoverCount> coverCount(std::span<const Fact> facts) {
  static const std::string kConcept = "dei:EntityCommonStockSharesOutstanding";
  struct Day {
    std::optional<double> whole;
    std::map<std::string, double> classes;  ///< by their members: one that is filed twice counts once
  };
  std::map<Date, Day> days;
  for (const Fact& f : facts) {
    if (f.concept_name != kConcept || !f.figure().hasValue() || f.figure().value() <= 0) continue;
    Day& day = days[f.period.end];
    if (f.segments.empty()) {
      day.whole = f.figure().value();
    } else {
      std::string member;
      for (const Segment& s : f.segments) member += s.axis + "=" + s.member + ";";
      day.classes[member] = f.figure().value();
    }
  }
  if (days.empty()) return std::nullopt;
  const auto& [on, day] = *days.rbegin();
  double sum = 0;
  for (const auto& [member, shares] : day.classes) sum += shares;
  return CoverCount{day.whole.value_or(sum), on};
}

}  // namespace zl
