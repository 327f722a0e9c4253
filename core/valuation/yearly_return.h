#pragma once
// What a price returns: a year, and by what it comes about.

#include <vector>

#include "core/quantity/figure.h"

namespace zl {

/// r that solves price = sum D_t / (1 + r)^t + last / (1 + r)^years over whole years, D_t paid at the end of year t
/// from 1. Not meaningful where nothing comes back or the price is not positive.
Figure yearlyReturn(const Figure& price, const std::vector<double>& dividends, const Figure& last, int years);

/// Of a total return: what each part adds to it. They add up to the total.
struct ReturnSplit {
  Figure revenue, margin, count, multiple, dividends;
};

/// What makes a price: revenue x margin / count x multiple, now and then. Multiples are price x count over the amount.
struct PriceParts {
  double revenue = 0, amount = 0, count = 0, price = 0;
};
/// By log points of each part, dividends as the rest, scaled to the total return (then + dividends) / now - 1. Not
/// meaningful where a part is not positive.
ReturnSplit splitReturn(const PriceParts& now, const PriceParts& then, double dividends);

}  // namespace zl
