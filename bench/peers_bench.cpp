// Two hundred peers with every multiple: statistics and what they imply in every scenario; and a peer taken in or out,
// from the key to the painted frame.

#include <benchmark/benchmark.h>

#include <cstdlib>

#include "core/peers/peer.h"

namespace zl::bench {
namespace {

Subject subject() {
  Subject s;
  s.id = "own";
  s.currency = "EUR";
  s.target = makeDate(2025, 12, 31);
  s.revenue = Figure::of(1e9);
  return s;
}

/// Two filed and two expected years each, in three currencies, with year ends in four months.
std::vector<Peer> peers(int count) {
  constexpr const char* kCurrencies[] = {"EUR", "USD", "GBP"};
  std::vector<Peer> all;
  for (int i = 0; i < count; ++i) {
    Peer p;
    p.id = "p" + std::to_string(i);
    p.name = "Peer " + std::to_string(i);
    p.currency = p.priceCurrency = kCurrencies[i % 3];
    p.price = Figure::of(10 + i % 37);
    p.priceDate = makeDate(2026, 4, 30);
    p.shares = Figure::of(1e7 * (1 + i % 11));
    for (Figure Peer::*claim : {&Peer::debt, &Peer::preferred, &Peer::minorities, &Peer::pension, &Peer::cash,
                                &Peer::associates, &Peer::leases})
      p.*claim = Figure::of(1e6 * (i % 13));
    const unsigned month = 3 * (1 + static_cast<unsigned>(i) % 4);
    const unsigned day = month == 3 || month == 12 ? 31 : 30;
    for (int year = 2024; year <= 2027; ++year) {
      const double size = 1e8 * (1 + i % 23) * (1 + 0.04 * (year - 2024));
      PeerYear y{makeDate(year, month, day), Figure::of(size), Figure::of(0.16 * size), Figure::of(0.06 * size)};
      y.ebit = Figure::of(0.1 * size);
      y.interest = Figure::of(0.01 * size);
      y.operatingCashFlow = Figure::of(0.12 * size);
      y.capex = Figure::of(0.05 * size);
      y.equity = Figure::of(0.5 * size);
      y.leaseCost = y.stockPay = y.research = Figure::of(0.01 * size);
      y.nopat = Figure::of(0.075 * size);
      y.intangibles = Figure::of(0.1 * size);
      (year <= 2025 ? p.years : p.expected).push_back(std::move(y));
    }
    all.push_back(std::move(p));
  }
  return all;
}

void everyMultiple(benchmark::State& state) {
  const std::vector<Peer> all = peers(200);
  const SpotRates rates{{{"EUR", "USD"}, 1.13}, {{"EUR", "GBP"}, 0.86}};
  const Subject own = subject();
  for (auto _ : state) {
    const CrossCheck check = crossCheck(own, all, rates, {});
    // Those whose year ends in other months have no twelve filed ones to the subject's end.
    if (check.statistics.at(Multiple::EvToEbitda).count < 50 || check.rows.size() != 200) std::abort();
    benchmark::DoNotOptimize(check);
  }
}
BENCHMARK(everyMultiple)->Name("200 peers, every multiple")->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace zl::bench
