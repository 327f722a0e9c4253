#include "core/review/make_up.h"

#include <algorithm>

#include "core/history/statistics.h"

namespace zl {

MarginChange marginChange(const std::vector<PartYear>& before, const std::vector<PartYear>& now) {
  MarginChange change;
  const auto sums = [](const std::vector<PartYear>& parts) {
    PartYear sum{Figure::of(0), Figure::of(0)};
    for (const PartYear& part : parts) {
      sum.revenue = sum.revenue + part.revenue;
      sum.profit = sum.profit + part.profit;
    }
    return sum;
  };
  const PartYear whole0 = sums(before);
  const PartYear whole1 = sums(now);
  const Figure margin0 = whole0.profit / whole0.revenue;
  change.total = whole1.profit / whole1.revenue - margin0;
  change.mix = change.within = Figure::of(0);
  for (size_t i = 0; i < before.size(); ++i) {
    const Figure share0 = before[i].revenue / whole0.revenue;
    const Figure share1 = now[i].revenue / whole1.revenue;
    const Figure own0 = before[i].profit / before[i].revenue;
    const Figure own1 = now[i].profit / now[i].revenue;
    change.mix = change.mix + (share1 - share0) * (own0 - margin0);
    change.within = change.within + share1 * (own1 - own0);
  }
  return change;
}

std::vector<double> acquiredRevenue(const std::vector<Deal>& deals, const std::vector<FiscalYear>& years) {
  std::vector<double> acquired(years.size(), 0.0);
  for (const Deal& deal : deals) {
    const Date until = addYears(deal.on, 1);
    const double sign = deal.price < 0 ? -1 : 1;
    for (size_t c = 0; c < years.size(); ++c) {
      const Date from = addYears(years[c].end, -1);
      const int days = daysBetween(std::max(from, deal.on), std::min(years[c].end, until));
      if (days > 0) acquired[c] += sign * deal.revenue * days / daysBetween(deal.on, until);
    }
  }
  return acquired;
}

Figure organicGrowth(const Figure& before, const Figure& revenue, double acquired) {
  return growth(before, revenue - Figure::of(acquired));
}

}  // namespace zl
