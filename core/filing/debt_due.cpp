#include "core/filing/debt_due.h"

#include <algorithm>
#include <map>
#include <optional>
#include <string_view>

namespace zl {
namespace {

struct Due {
  std::string_view name;  ///< a concept (US GAAP), or a member of the maturity axis (IFRS)
  int years;              ///< after the balance sheet's
};

constexpr std::string_view kPrefix = "us-gaap:LongTermDebtMaturitiesRepaymentsOfPrincipal";
constexpr Due kConcepts[] = {{"InNextTwelveMonths", 1}, {"InYearTwo", 2},  {"InYearThree", 3},
                             {"InYearFour", 4},         {"InYearFive", 5}, {"AfterYearFive", 6}};

constexpr std::string_view kBorrowings = "ifrs-full:Borrowings";
constexpr std::string_view kMaturity = "ifrs-full:MaturityAxis";
constexpr Due kMembers[] = {{"ifrs-full:NotLaterThanOneYearMember", 1},
                            {"ifrs-full:LaterThanOneYearAndNotLaterThanTwoYearsMember", 2},
                            {"ifrs-full:LaterThanTwoYearsAndNotLaterThanThreeYearsMember", 3},
                            {"ifrs-full:LaterThanThreeYearsAndNotLaterThanFourYearsMember", 4},
                            {"ifrs-full:LaterThanFourYearsAndNotLaterThanFiveYearsMember", 5},
                            {"ifrs-full:LaterThanFiveYearsMember", 6}};

/// How many years on the fact's amount falls due; empty where it says nothing of that.
std::optional<int> yearsOn(const Fact& fact) {
  const std::string& name = fact.concept_name.str();
  if (fact.segments.empty() && name.starts_with(kPrefix)) {
    const auto found = std::find_if(std::begin(kConcepts), std::end(kConcepts),
                                    [&](const Due& due) { return name.substr(kPrefix.size()) == due.name; });
    if (found != std::end(kConcepts)) return found->years;
  }
  if (name == kBorrowings && fact.segments.size() == 1 && fact.segments.begin()->axis == kMaturity) {
    const auto found = std::find_if(std::begin(kMembers), std::end(kMembers),
                                    [&](const Due& due) { return fact.segments.begin()->member == due.name; });
    if (found != std::end(kMembers)) return found->years;
  }
  return std::nullopt;
}

}  // namespace

std::vector<DebtDue> filedDebtDue(std::span<const Fact> facts, const std::string& currency) {
  std::map<Date, std::map<int, double>> balances;  // a later document's figure takes the place of an earlier one's
  for (const Fact& fact : facts) {
    if (!fact.period.isInstant() || fact.unit != currency || !fact.figure().hasValue()) continue;
    if (const std::optional<int> years = yearsOn(fact)) balances[fact.period.end][*years] = fact.figure().value();
  }
  std::vector<DebtDue> list;
  if (balances.empty()) return list;
  const auto& [on, amounts] = *balances.rbegin();
  for (const auto& [years, amount] : amounts) {
    if (amount <= 0) continue;
    DebtDue due;
    due.year = yearOf(on) + years;
    due.amount = amount;
    due.what = "as filed on " + dateText(on);
    list.push_back(std::move(due));
  }
  return list;
}

}  // namespace zl
