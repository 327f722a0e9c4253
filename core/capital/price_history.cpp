#include "core/capital/price_history.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace zl {
namespace {

constexpr int kYearOfDays = 365;
constexpr size_t kLongAverage = 200;
constexpr size_t kFewestReturns = 20;

Figure returnSince(const std::vector<PricePoint>& prices, const PricePoint& last, Date from) {
  if (prices.front().date > from) return Figure::absent("prices do not reach back that far");
  const std::optional<PricePoint> then = closeAt(prices, from);
  return Figure::of(last.close) / Figure::of(then->close) - Figure::of(1);
}

Figure yearlySwing(const std::vector<PricePoint>& prices, Date last) {
  std::vector<double> returns;
  for (size_t i = 1; i < prices.size(); ++i) {
    if (daysBetween(prices[i - 1].date, last) > kYearOfDays) continue;
    returns.push_back(prices[i].close / prices[i - 1].close - 1);
  }
  if (returns.size() < kFewestReturns) return Figure::absent("fewer than 20 closes in the year");
  const auto n = static_cast<double>(returns.size());
  const double mean = std::accumulate(returns.begin(), returns.end(), 0.0) / n;
  double squares = 0;
  for (const double r : returns) squares += (r - mean) * (r - mean);
  return Figure::of(std::sqrt(squares / (n - 1) * n));
}

}  // namespace

PriceSummary summarise(const std::vector<PricePoint>& prices, Date asOf) {
  PriceSummary s;
  std::vector<PricePoint> past;
  std::copy_if(prices.begin(), prices.end(), std::back_inserter(past),
               [&](const PricePoint& p) { return p.date <= asOf; });
  if (past.empty()) {
    const Figure none = Figure::absent("no price on or before the valuation date");
    s.last = s.low52 = s.high52 = s.average200 = s.drawdown = s.deepest = s.return1 = s.return5 = s.swing = none;
    return s;
  }
  const PricePoint& last = past.back();
  s.last = Figure::of(last.close);
  s.lastDate = last.date;
  double low = last.close, high = last.close, peak = past.front().close, deepest = 0, sum = 0;
  for (const PricePoint& p : past) {
    peak = std::max(peak, p.close);
    deepest = std::min(deepest, p.close / peak - 1);
    if (daysBetween(p.date, last.date) > kYearOfDays) continue;
    if (p.close <= low) low = p.close, s.lowDate = p.date;
    if (p.close >= high) high = p.close, s.highDate = p.date;
  }
  s.low52 = Figure::of(low);
  s.high52 = Figure::of(high);
  s.drawdown = Figure::of(last.close / peak - 1);
  s.deepest = Figure::of(deepest);
  s.swing = yearlySwing(past, last.date);
  for (size_t i = past.size() - std::min(kLongAverage, past.size()); i < past.size(); ++i) sum += past[i].close;
  s.average200 = past.size() < kLongAverage ? Figure::absent("fewer than 200 closes")
                                            : Figure::of(sum / static_cast<double>(kLongAverage));
  s.return1 = returnSince(past, last, last.date - std::chrono::days(kYearOfDays));
  s.return5 = returnSince(past, last, addYears(last.date, -5));
  return s;
}

}  // namespace zl
