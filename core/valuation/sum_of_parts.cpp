#include "core/valuation/sum_of_parts.h"

#include <algorithm>
#include <cmath>

namespace zl {
namespace {

ValuedPart valued(const Part& part) {
  ValuedPart v;
  v.part = part;
  if (!part.choice) {
    v.metric = v.value = Figure::absent("no multiple is chosen for " + part.label);
    return v;
  }
  const bool ofProfit = part.choice->of == PartChoice::Of::Ebit;
  v.metric = ofProfit ? part.profit : part.revenue;
  if (!v.metric.hasValue()) {
    v.value = v.metric.isAbsent()
                  ? Figure::absent(std::string(ofProfit ? "no profit" : "no revenue") + " is filed of " + part.label)
                  : v.metric;
  } else if (v.metric.value() <= 0) {
    v.value = Figure::notMeaningful((ofProfit ? "the profit of " : "the revenue of ") + part.label +
                                    " is not positive: value it by " + (ofProfit ? "revenue" : "profit"));
  } else {
    v.value = v.metric * Figure::of(part.choice->multiple);
  }
  return v;
}

Figure unallocatedOf(const std::vector<Part>& parts, const Figure& profitOfWhole) {
  Figure sum = Figure::of(0);
  for (const Part& part : parts) sum = sum + part.profit;
  return sum - profitOfWhole;
}

}  // namespace

SumOfParts sumOfParts(const std::vector<Part>& parts, const Figure& profitOfWhole,
                      const std::optional<PartChoice>& unallocated) {
  SumOfParts sum;
  if (parts.empty()) {
    sum.unallocated = sum.unallocatedValue = sum.enterprise = Figure::absent("nothing is filed by part");
    return sum;
  }
  Figure whole = Figure::of(0);
  for (const Part& part : parts) {
    sum.parts.push_back(valued(part));
    whole = whole + sum.parts.back().value;
  }
  for (ValuedPart& v : sum.parts) v.share = v.value / whole;
  sum.unallocated = unallocatedOf(parts, profitOfWhole);
  sum.unallocatedValue = Figure::of(0);
  if (sum.unallocated.hasValue()) {
    const double cost = sum.unallocated.value();
    if (unallocated) {
      sum.unallocatedValue = Figure::of(cost * unallocated->multiple);
    } else if (std::fabs(cost) > kLittleUnallocated * std::fabs(profitOfWhole.value())) {
      sum.unallocatedValue = Figure::absent("no multiple is chosen for the costs of no part");
    }
  }
  sum.enterprise = whole - sum.unallocatedValue;
  return sum;
}

}  // namespace zl
