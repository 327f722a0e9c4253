#pragma once
// A share's beta from returns against an index's: ordinary least squares with its error; unlevered and relevered.
// Sources: Sharpe 1964; Blume 1975 (adjusted); Hamada 1972 (unlevering); docs/bibliography.md.

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/capital/series.h"
#include "core/quantity/figure.h"

namespace zl {

enum class ReturnFrequency { Daily, Weekly, Monthly };

struct ReturnPair {
  Date on{};         ///< the later of the two days
  double index = 0;  ///< simple return
  double share = 0;
};

/// Returns over spans that both series know the ends of.
struct PairedReturns {
  std::vector<ReturnPair> pairs;  ///< ascending by day
  int broken = 0;                 ///< spans left out because one or the other says nothing in between
  int unmatched = 0;              ///< days that only one of the two has
};

struct ReturnWindow {
  Date from{}, to{};  ///< both days included
  ReturnFrequency frequency = ReturnFrequency::Weekly;
  bool total = true;  ///< dividends added where they are known, in both alike
};

/// Simple returns between adjacent days (last days of weeks, of months) that both series have. A span longer than the
/// frequency allows (ten days, a week or a month without any common day) is broken and left out.
PairedReturns pairReturns(const std::vector<SeriesPoint>& share, const std::vector<SeriesPoint>& index,
                          const ReturnWindow& window);

struct Regression {
  int n = 0;
  Figure beta, alpha, standardError, rSquared;
  Figure low, high;  ///< of the band that holds the true beta in 95 of 100 cases, by Student's t with n - 2
  Figure adjusted;   ///< 2/3 beta + 1/3
};

/// Not meaningful with fewer than three pairs or where the index did not move.
Regression regress(const std::vector<ReturnPair>& pairs);

/// Beta over the latest `length` pairs up to each; from the first pair that has as many before it. Time linear in
/// pairs.
std::vector<std::pair<Date, Figure>> rollingBeta(const std::vector<ReturnPair>& pairs, int length);

/// What unlevers a beta: one rule for all companies.
struct Leverage {
  Figure taxRate = Figure::of(0);  ///< marginal, a fraction
  double debtBeta = 0;             ///< 0: Hamada's plain form
  bool cashless = false;           ///< beta of operations: over 1 - cash / (debt + equity)
};
/// D, E and cash in one currency. Not meaningful where E is not positive or cash is as much as D + E.
Figure unlevered(const Figure& beta, const Figure& debt, const Figure& equity, const Figure& cash,
                 const Leverage& rule);
/// The inverse at a debt to equity: beta_U (1 + (1 - t) D/E), or with a beta of debt.
Figure relevered(const Figure& unleveredBeta, const Figure& debtToEquity, const Leverage& rule);

}  // namespace zl
