#include "core/monitor/limits.h"

#include <cstdlib>
#include <unordered_map>

#include "core/quantity/number_text.h"

namespace zl {
namespace {

constexpr MonitorLimit kLimits[] = {
    {"base year under its median", "base year's figure over the median of its regular years", Kind::Ratio, 0.5, 0, 1},
    {"mean growth is not compound growth", "mean of yearly growth less the compound rate", Kind::Ratio, 0.02, 0, 1},
    {"cash flow not explained", "unexplained part of a filed year's free cash flow over its operating cash flow",
     Kind::Ratio, 0.05, 0, 10},
    {"interest without debt", "interest of the base year over its revenue, while nothing that bears it is filed",
     Kind::Ratio, 0.001, 0, 1},
    {"cyclical base", "projected mean margin over the median of regular years, less one", Kind::Ratio, 0.1, 0, 10},
    {"tax far from marginal", "tax rate of the last forecast year apart from the marginal one", Kind::Ratio, 0.05, 0,
     1},
    {"multiple away from its reason", "a multiple apart from the statistic that its reason names, share of that",
     Kind::Ratio, 0.15, 0, 10},
    {"growth above the economy", "revenue growth after the first stage less the economy's", Kind::Ratio, 0, -0.1, 1},
    {"margin above any seen", "projected margin less the highest of history", Kind::Ratio, 0, -0.5, 1},
    {"returns do not fade", "last year's return on capital less its WACC", Kind::Ratio, 0.05, 0, 2},
    {"share count moves", "change of the share count in a year", Kind::Ratio, 0.05, 0, 1},
    {"dividend above free cash flow", "dividends over simple free cash flow", Kind::Multiple, 1, 0, 100},
    {"terminal share", "share of enterprise value beyond the forecast years", Kind::Ratio, 0.75, 0, 1},
    {"rate close to growth", "WACC less terminal growth", Kind::Ratio, 0.02, 0, 0.2},
    {"beta's band", "width of the band that holds the true beta in 95 of 100 cases", Kind::Multiple, 0.6, 0, 20},
    {"weights against cash", "cash over the debt that is weighted gross", Kind::Ratio, 0.25, 0, 100},
    {"reinvestment against growth", "share of profit put back in the last year apart from what growth for ever takes",
     Kind::Ratio, 0.2, 0, 10},
    {"value far from the price", "base value over the price, or the price over it", Kind::Multiple, 2, 1, 100},
    {"value far from the peers", "base value over what peers' multiples make of it, or that over it", Kind::Multiple, 2,
     1, 100},
    {"models apart", "base value over what another model makes of the same case, or that over it", Kind::Multiple, 1.25,
     1, 100},
    {"few peers", "peers that count for a multiple", Kind::Count, 4, 0, 100},
    {"peer out of scale", "a peer's revenue over the subject's, or that over it", Kind::Multiple, 8, 1, 10000},
    {"peer unlike in growth", "a peer's growth of revenue apart from the subject's", Kind::Ratio, 0.15, 0, 10},
    {"peer unlike in margin", "a peer's EBIT margin apart from the subject's", Kind::Ratio, 0.15, 0, 10},
    {"peer unlike in return", "a peer's return on equity apart from the subject's", Kind::Ratio, 0.2, 0, 10},
    {"peer unlike in regions", "the share of a peer's revenue from other regions", Kind::Ratio, 0.6, 0, 1},
    {"peer unlike in businesses", "the share of a peer's revenue from other businesses", Kind::Ratio, 0.6, 0, 1},
    {"peer unlike in leverage", "a peer's net debt over EBITDA apart from the subject's", Kind::Multiple, 3, 0, 1000},
    {"stale peer price", "days between a peer's price and the valuation date", Kind::Count, 31, 0, 10000},
    {"year ends apart", "months between the last filed year of a peer and the subject's", Kind::Count, 3, 0, 120},
    {"methods apart", "the highest value by the methods over the lowest", Kind::Multiple, 2, 1, 1000},
    {"stale price", "weekdays between the last price and the valuation date", Kind::Count, 5, 0, 1000},
    {"stale estimates", "days between the last estimates and the valuation date", Kind::Count, 120, 0, 10000},
    {"stale rate", "days between a rate and the valuation date", Kind::Count, 120, 0, 10000},
};

}  // namespace

std::span<const MonitorLimit> monitorLimits() {
  return kLimits;
}

const MonitorLimit* monitorLimit(std::string_view monitor) {
  static const std::unordered_map<std::string_view, const MonitorLimit*> kByName = [] {
    std::unordered_map<std::string_view, const MonitorLimit*> limits;
    for (const MonitorLimit& limit : kLimits) limits.emplace(limit.monitor, &limit);
    return limits;
  }();
  const auto found = kByName.find(monitor);
  return found == kByName.end() ? nullptr : found->second;
}

double limitOf(const Case& c, const char* monitor) {
  if (!c.limits.empty()) {
    const auto own = c.limits.find(monitor);
    if (own != c.limits.end()) return own->second;
  }
  const MonitorLimit* limit = monitorLimit(monitor);
  if (limit == nullptr) std::abort();  // a monitor asks for a limit that nobody has declared
  return limit->preset;
}

std::vector<std::string> faultsOfLimits(const Case& c) {
  std::vector<std::string> faults;
  for (const auto& [monitor, figure] : c.limits) {
    const MonitorLimit* limit = monitorLimit(monitor);
    if (limit == nullptr) {
      faults.push_back("there is no monitor '" + monitor + "' with a limit");
    } else if (!(figure >= limit->low && figure <= limit->high)) {
      faults.push_back("the limit of '" + monitor + "' is " + plainNumber(figure) + ", outside the allowed range " +
                       plainNumber(limit->low) + " to " + plainNumber(limit->high));
    }
  }
  return faults;
}

}  // namespace zl
