#include <algorithm>
#include <map>
#include <string_view>

#include "core/monitor/limits.h"
#include "core/monitor/market_monitors.h"
#include "core/peers/outside_names.h"

namespace zl {
namespace {

/// Days from Monday to Friday after `from` up to `to`.
int weekdaysBetween(Date from, Date to) {
  int days = 0;
  for (Date d = from + std::chrono::days(1); d <= to; d += std::chrono::days(1)) {
    const unsigned day = std::chrono::weekday(d).iso_encoding();
    days += day <= 5 ? 1 : 0;
  }
  return days;
}

void stale(const char* monitor, Stop stop, std::vector<Finding>& found, int age, double limit, const std::string& what,
           const char* unit) {
  if (age <= limit) return;
  found.push_back({monitor, Severity::Warning, stop,
                   what + " is " + std::to_string(age) + " " + unit + " old at the valuation date", "", -1});
}

/// Whether a case of this company may stand on the rate: one named after another currency is that one's. Exchange rates
/// count, whichever they are: a cross rate may go by way of them.
bool mayBeUsed(const std::string& rate, const std::string& currency) {
  if (rate.starts_with(kDealMultiple)) return false;  // a deal of years ago is no old figure of today
  if (rate.starts_with("spot ")) return true;
  constexpr size_t kCode = 3;
  if (rate.size() <= kCode || rate[rate.size() - kCode - 1] != ' ') return true;
  const std::string_view last = std::string_view(rate).substr(rate.size() - kCode);
  const bool code = std::all_of(last.begin(), last.end(), [](char c) { return c >= 'A' && c <= 'Z'; });
  return !code || last == currency;
}

/// One line for all of them, the oldest first.
void staleRates(const MarketView& v, std::vector<Finding>& found) {
  const Case& c = v.limited;
  std::map<std::string, Date> latest;
  for (const MarketRate& rate : v.rates) {
    if (rate.date > c.valuationDate || !mayBeUsed(rate.name, v.currency)) continue;
    Date& at = latest.try_emplace(rate.name, rate.date).first->second;
    at = std::max(at, rate.date);
  }
  std::vector<std::pair<Date, std::string>> old;
  for (const auto& [name, date] : latest) {
    if (daysBetween(date, c.valuationDate) > limitOf(c, "stale rate")) old.emplace_back(date, name);
  }
  if (old.empty()) return;
  std::sort(old.begin(), old.end());
  constexpr size_t kMostNamed = 3;
  std::string names;
  for (size_t i = 0; i < std::min(kMostNamed, old.size()); ++i) {
    names += (i == 0 ? "'" : ", '") + old[i].second + "' (" + dateText(old[i].first) + ")";
  }
  if (old.size() > kMostNamed) names += " and " + std::to_string(old.size() - kMostNamed) + " more";
  const std::string days =
      std::to_string(daysBetween(old.front().first, c.valuationDate)) + " days old at the valuation date";
  found.push_back({"stale rate", Severity::Warning, Stop::Capital,
                   old.size() == 1 ? "The rate " + names + " is " + days
                                   : "Of " + std::to_string(old.size()) + " rates the oldest is " + days + ": " + names,
                   "", -1});
}

}  // namespace

void monitorEvidence(const MarketView& v, std::vector<Finding>& found) {
  const Case& c = v.limited;
  if (const auto last = closeAt(v.prices, c.valuationDate)) {
    constexpr int kLongest = 4000;  // days that are worth counting one by one
    const int days = daysBetween(last->date, c.valuationDate);
    stale("stale price", Stop::Company, found, days > kLongest ? days : weekdaysBetween(last->date, c.valuationDate),
          limitOf(c, "stale price"), "The last price (" + dateText(last->date) + ")", "weekdays");
  }
  const std::vector<Estimate> estimates = latestEstimates(v.estimates, c.valuationDate);
  Date latest{};
  std::string unknown;
  for (const Estimate& e : estimates) {
    latest = std::max(latest, e.date);
    if (!v.model.find(e.item).known() && unknown.find(e.item) == std::string::npos) {
      unknown += (unknown.empty() ? "" : ", ") + e.item;
    }
  }
  if (!estimates.empty()) {
    stale("stale estimates", Stop::Outlook, found, daysBetween(latest, c.valuationDate), limitOf(c, "stale estimates"),
          "The last snapshot of estimates (" + dateText(latest) + ")", "days");
  }
  if (!unknown.empty()) {
    found.push_back({"estimates of unknown items", Severity::Note, Stop::Outlook,
                     "The model has no row for what is estimated: " + unknown, "", -1});
  }
  staleRates(v, found);
}

MarketFindings monitorMarket(const MarketView& view) {
  MarketFindings found;
  monitorEvidence(view, found.evidence);
  monitorPeers(view, found.peers);
  return found;
}

}  // namespace zl
