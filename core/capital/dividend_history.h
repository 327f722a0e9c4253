#pragma once
// What a share has paid, payment by payment: specials apart, by quarter and by fiscal year.

#include <vector>

#include "core/capital/series.h"
#include "core/quantity/figure.h"

namespace zl {

struct DividendPayment {
  Date on;            ///< the first day without it
  double amount = 0;  ///< a share, in the series' unit
  bool special = false;
};

struct DividendSum {
  int year = 0;     ///< calendar year of a quarter; the year that a fiscal year ends in
  int quarter = 0;  ///< 1 to 4 by the calendar; 0: a fiscal year
  double regular = 0, special = 0;
  int payments = 0;
  Figure growth;  ///< of the regular ones over the fiscal year before; absent for a quarter
};

/// A payment of more than this times the median of all is special, where there are four or more; so is one whose source
/// says so.
inline constexpr double kSpecialTimes = 2;

/// The payments of a series up to a day, the earliest first.
std::vector<DividendPayment> paymentsOf(const std::vector<SeriesPoint>& points, Date upTo);
/// By calendar quarter with a payment, and by fiscal year that ends with a month (1 to 12), the earliest first.
std::vector<DividendSum> byQuarter(const std::vector<DividendPayment>& payments);
std::vector<DividendSum> byFiscalYear(const std::vector<DividendPayment>& payments, unsigned endMonth);
/// The regular payments of the year to a day.
Figure lastTwelveMonths(const std::vector<DividendPayment>& payments, Date to);

}  // namespace zl
