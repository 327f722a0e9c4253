#include "tests/services/stranger_economy.h"

#include <algorithm>
#include <cmath>
#include <random>

namespace zl::test {
namespace {

constexpr double kPi = 3.14159265358979;
constexpr int kFuture = 40;

/// What the firm is, for ever.
struct Nature {
  double revenue, early, late, halfLife;  ///< first year's revenue; growth now and in the end
  double margin, wobble;                  ///< EBIT over revenue
  double salesCost;                       ///< share of cash costs that is cost of sales
  double assets, wear;                    ///< plant over revenue; depreciation over opening plant
  double receivable, stock, payable, other, owed;
  double tax, debtRate, debtShare, payout, wacc, lease, currentDebt, staff;
};

class Draw {
 public:
  explicit Draw(std::uint64_t seed) : random_(seed * 7919 + 17) {}
  double between(double low, double high) { return std::uniform_real_distribution<double>(low, high)(random_); }
  double noise(double deviation) {
    // Twelve uniform draws: the same on every standard library, unlike its normal distribution.
    double sum = -6;
    for (int i = 0; i < 12; ++i) sum += between(0, 1);
    return sum * deviation;
  }

 private:
  std::mt19937_64 random_;
};

Nature natureOf(Trade trade, Draw& draw, bool leased) {
  Nature n{};
  n.revenue = std::exp(draw.between(std::log(3000), std::log(60000)));
  n.late = draw.between(0.015, 0.03);
  n.early = draw.between(-0.01, 0.11);
  n.halfLife = draw.between(2, 5);
  n.margin = draw.between(0.07, 0.22);
  n.wobble = draw.between(0.03, 0.12);
  if (trade == Trade::Turned) {
    n.early = draw.between(0.08, 0.18);
    n.margin = draw.between(0.08, 0.14);
  }
  if (trade == Trade::Cyclical) n.early = n.late + draw.between(-0.005, 0.01);
  n.salesCost = draw.between(0.55, 0.8);
  n.assets = draw.between(0.2, 0.6);
  n.wear = draw.between(0.08, 0.15);
  n.receivable = draw.between(0.1, 0.18);
  n.stock = draw.between(0.08, 0.18);
  n.payable = draw.between(0.08, 0.14);
  n.other = draw.between(0.01, 0.03);
  n.owed = draw.between(0.03, 0.07);
  n.tax = draw.between(0.22, 0.28);
  n.debtRate = draw.between(0.035, 0.06);
  n.debtShare = trade == Trade::Cyclical ? draw.between(0.02, 0.05) : draw.between(0.05, 0.25);
  n.payout = draw.between(0.2, 0.6);
  n.wacc = draw.between(0.07, 0.09);
  n.lease = leased ? draw.between(0.03, 0.08) : 0;
  return n;
}

/// Growth and margin of a year; `t` counts from the last one filed, which is 0.
struct Tide {
  double growth, margin;
};

class Firm {
 public:
  Firm(Trade trade, Draw& draw, const Nature& n) : trade_(trade), draw_(draw), n_(n) {
    if (trade == Trade::Cyclical) swing_ = draw.between(0.08, 0.16);
    if (trade == Trade::Cyclical) length_ = draw.between(6, 9);
    if (trade == Trade::Turned) turn_ = draw.between(0, 1) < 0.5 ? 3 : 4;
  }

  Tide at(int t, bool noisy) {
    const double calm = noisy ? 0 : 1;
    double growth = n_.late + (n_.early - n_.late) * (t <= 0 ? 1 : std::pow(0.5, t / n_.halfLife));
    double margin = n_.margin * (1 + (calm > 0 ? 0 : draw_.noise(n_.wobble)));
    if (noisy) growth += draw_.noise(0.015);
    if (trade_ == Trade::Cyclical) {
      growth += level(t) / level(t - 1) - 1;
      margin += n_.margin * 1.5 * (level(t) - 1);
    }
    if (trade_ == Trade::Turned && t <= -turn_) margin = -n_.margin * 0.35 * (-turn_ - t + 1);
    if (trade_ == Trade::Turned && t <= -turn_) margin = std::max(margin, -0.25);
    if (trade_ == Trade::Turned && t > -turn_ && t <= 0) {
      margin *= 0.7 + 0.3 * static_cast<double>(t + turn_) / turn_;
    }
    return {growth, margin};
  }

 private:
  /// Revenue over its trend: 1 + swing at the last filed year.
  [[nodiscard]] double level(int t) const { return 1 + swing_ * std::cos(2 * kPi * t / length_); }

  Trade trade_;
  Draw& draw_;
  Nature n_;
  double swing_ = 0, length_ = 8;
  int turn_ = 0;
};

long whole(double x) {
  return std::lround(x);
}

/// No two years have the very same proportions.
Nature thatYear(const Nature& nature, Draw& draw) {
  Nature n = nature;
  for (double Nature::*ratio : {&Nature::receivable, &Nature::stock, &Nature::payable, &Nature::other, &Nature::owed,
                                &Nature::debtShare, &Nature::debtRate, &Nature::tax, &Nature::payout, &Nature::lease}) {
    n.*ratio *= 1 + draw.noise(0.04);
  }
  n.assets *= 1 + draw.noise(0.01);
  n.salesCost *= 1 + draw.noise(0.008);
  n.staff = draw.between(0.55, 0.7);
  n.currentDebt = draw.between(0.08, 0.25);
  return n;
}

/// A year after the one before; the first has an opening of its own.
EconomyYear yearAfter(const EconomyYear& before, double revenue, double margin, const Nature& n, bool first) {
  EconomyYear y;
  y.revenue = whole(revenue);
  y.depreciation =
      first ? whole(n.assets * revenue * n.wear / 1.03) : whole(static_cast<double>(before.plant) * n.wear);
  const double costs = revenue * (1 - margin) - static_cast<double>(y.depreciation);
  y.costOfSales = whole(costs * n.salesCost);
  y.overhead = whole(costs * (1 - n.salesCost));
  y.staff = whole(static_cast<double>(y.overhead) * n.staff);
  y.ebit = y.revenue - y.costOfSales - y.overhead - y.depreciation;
  y.receivables = whole(n.receivable * revenue);
  y.inventory = whole(n.stock * static_cast<double>(y.costOfSales));
  y.otherCurrent = whole(n.other * revenue);
  y.payables = whole(n.payable * static_cast<double>(y.costOfSales));
  y.otherOwed = whole(n.owed * revenue);
  y.plant = whole(n.assets * revenue);
  y.goodwill = first ? whole(0.1 * revenue) : before.goodwill;
  y.rightOfUse = y.leases = whole(n.lease * revenue);
  y.rent = whole(n.lease * revenue * 0.25);
  const long debt = whole(n.debtShare * revenue);
  const long debtBefore = first ? debt : before.debtCurrent + before.debtLong;
  y.interest = whole(n.debtRate * static_cast<double>(debt + debtBefore) / 2);
  y.interestIncome = first ? 0 : whole(0.01 * static_cast<double>(before.cash));
  y.pretax = y.ebit - y.interest + y.interestIncome;
  y.tax = whole(std::max(0.0, n.tax * static_cast<double>(y.pretax)));
  y.net = y.pretax - y.tax;
  y.dividends = whole(std::max(0.0, n.payout * static_cast<double>(y.net)));
  const long capital = y.receivables + y.inventory + y.otherCurrent - y.payables - y.otherOwed;
  const long capitalBefore =
      first ? capital
            : before.receivables + before.inventory + before.otherCurrent - before.payables - before.otherOwed;
  y.operatingFlow = y.net + y.depreciation - (capital - capitalBefore);
  y.capex = first ? y.depreciation : y.plant - before.plant + y.depreciation;
  long borrowed = first ? 0 : debt - debtBefore;
  const long opening = first ? whole(0.1 * revenue) : before.cash;
  const long least = whole(0.04 * revenue);
  const auto movement = [&] { return y.operatingFlow - y.capex + borrowed - y.dividends; };
  if (opening + movement() < least) borrowed += least - (opening + movement());
  y.borrowed = borrowed;
  y.movement = movement();
  y.cash = opening + y.movement;
  const long owed = debtBefore + borrowed;
  y.debtCurrent = whole(n.currentDebt * static_cast<double>(owed));
  y.debtLong = owed - y.debtCurrent;
  y.equity = y.assets() - y.owed();
  y.shares = first ? std::max(50L, whole(revenue / 40)) : before.shares;
  return y;
}

/// Discounted in the middle of each year, with a perpetuity after the fortieth.
double firmValue(Firm& firm, const EconomyYear& last, const Nature& n) {
  double value = 0;
  double revenue = static_cast<double>(last.revenue);
  double plant = static_cast<double>(last.plant);
  const auto capitalOf = [&](double sales, double costs) {
    return sales * (n.receivable + n.other - n.owed) + costs * n.salesCost * (n.stock - n.payable);
  };
  double capital =
      static_cast<double>(last.receivables + last.inventory + last.otherCurrent - last.payables - last.otherOwed);
  double flow = 0;
  for (int t = 1; t <= kFuture; ++t) {
    const Tide tide = firm.at(t, false);
    revenue *= 1 + tide.growth;
    const double depreciation = plant * n.wear;
    const double ebit = revenue * tide.margin;
    const double next = capitalOf(revenue, revenue - ebit - depreciation);
    flow = ebit * (1 - n.tax) + depreciation - (n.assets * revenue - plant + depreciation) - (next - capital);
    plant = n.assets * revenue;
    capital = next;
    value += flow / std::pow(1 + n.wacc, t - 0.5);
  }
  return value + flow * (1 + n.late) / (n.wacc - n.late) / std::pow(1 + n.wacc, kFuture - 0.5);
}

}  // namespace

Economy drawEconomy(Trade trade, std::uint64_t seed, int years, bool leased) {
  Draw draw(seed);
  const Nature n = natureOf(trade, draw, leased);
  Firm firm(trade, draw, n);
  Economy economy;
  economy.wacc = n.wacc;
  double revenue = n.revenue;
  for (int i = 0; i < years; ++i) {
    const Tide tide = firm.at(i - years + 1, true);
    if (i > 0) revenue *= 1 + tide.growth;
    economy.years.push_back(
        yearAfter(i == 0 ? EconomyYear{} : economy.years.back(), revenue, tide.margin, thatYear(n, draw), i == 0));
  }
  const EconomyYear& last = economy.years.back();
  const double claims = static_cast<double>(last.debtCurrent + last.debtLong - last.cash);
  economy.valuePerShare = (firmValue(firm, last, n) - claims) / static_cast<double>(last.shares);
  return economy;
}

}  // namespace zl::test
