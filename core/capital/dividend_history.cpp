#include "core/capital/dividend_history.h"

#include <algorithm>
#include <cctype>
#include <chrono>
#include <map>
#include <string_view>

#include "core/history/statistics.h"

namespace zl {
namespace {

bool saysSpecial(const std::string& source) {
  std::string folded = source;
  for (char& c : folded) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  constexpr std::string_view kSaid = "special";
  return folded.find(kSaid) != std::string::npos;
}

unsigned monthOf(Date day) {
  return static_cast<unsigned>(std::chrono::year_month_day(day).month());
}

void add(DividendSum& sum, const DividendPayment& payment) {
  (payment.special ? sum.special : sum.regular) += payment.amount;
  ++sum.payments;
}

}  // namespace

std::vector<DividendPayment> paymentsOf(const std::vector<SeriesPoint>& points, Date upTo) {
  std::vector<DividendPayment> payments;
  std::vector<Figure> amounts;
  for (const SeriesPoint& p : points) {
    if (p.dividend <= 0 || p.date > upTo) continue;
    payments.push_back({p.date, p.dividend, saysSpecial(p.source)});
    amounts.push_back(Figure::of(p.dividend));
  }
  constexpr size_t kEnough = 4;
  if (payments.size() < kEnough) return payments;
  const double usual = describe(amounts).median.value();
  for (DividendPayment& payment : payments) payment.special = payment.special || payment.amount > kSpecialTimes * usual;
  return payments;
}

std::vector<DividendSum> byQuarter(const std::vector<DividendPayment>& payments) {
  std::map<std::pair<int, int>, DividendSum> sums;
  for (const DividendPayment& payment : payments) {
    const int quarter = (static_cast<int>(monthOf(payment.on)) + 2) / 3;
    DividendSum& sum = sums[{yearOf(payment.on), quarter}];
    sum.year = yearOf(payment.on);
    sum.quarter = quarter;
    sum.growth = Figure::absent("of years alone");
    add(sum, payment);
  }
  std::vector<DividendSum> list;
  for (const auto& [when, sum] : sums) list.push_back(sum);
  return list;
}

std::vector<DividendSum> byFiscalYear(const std::vector<DividendPayment>& payments, unsigned endMonth) {
  std::vector<DividendSum> years;
  for (const DividendPayment& payment : payments) {
    const int year = yearOf(payment.on) + (monthOf(payment.on) > endMonth ? 1 : 0);
    // A year without a payment stands with nought, or growth would leap over it.
    while (years.empty() || years.back().year < year) {
      DividendSum next;
      next.year = years.empty() ? year : years.back().year + 1;
      years.push_back(next);
    }
    add(years.back(), payment);
  }
  for (size_t i = 0; i < years.size(); ++i) {
    years[i].growth = i == 0 ? Figure::absent("there is no year before")
                             : growth(Figure::of(years[i - 1].regular), Figure::of(years[i].regular));
  }
  return years;
}

Figure lastTwelveMonths(const std::vector<DividendPayment>& payments, Date to) {
  if (payments.empty()) return Figure::absent("no payment is known");
  const Date from = addYears(to, -1);
  double sum = 0;
  for (const DividendPayment& payment : payments) {
    if (!payment.special && payment.on > from && payment.on <= to) sum += payment.amount;
  }
  return Figure::of(sum);
}

}  // namespace zl
