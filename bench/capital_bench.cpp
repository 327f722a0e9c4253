// Beta with rolling windows over ten years of daily closes, and the rivals of every part of the rate.

#include <benchmark/benchmark.h>

#include <cstdlib>
#include <random>

#include "core/capital/beta.h"
#include "services/sessions/demo.h"
#include "services/views/capital_view.h"
#include "tests/support/temporary_folder.h"

namespace zl::bench {
namespace {

void regression(benchmark::State& state) {
  std::mt19937_64 random(5);
  std::normal_distribution<double> step(0.0003, 0.01);
  std::vector<SeriesPoint> share, index;
  double s = 40, i = 1000;
  const Date from = makeDate(2016, 1, 4);
  for (int d = 0; d < 3652; ++d) {
    if (d % 7 > 4) continue;
    const double move = step(random);
    i *= 1 + move;
    s *= 1 + 1.2 * move + step(random);
    index.push_back({from + std::chrono::days(d), i});
    share.push_back({from + std::chrono::days(d), s});
  }
  for (auto _ : state) {
    const PairedReturns paired =
        pairReturns(share, index, {from, from + std::chrono::days(3652), ReturnFrequency::Daily, true});
    Regression fit = regress(paired.pairs);
    std::vector<std::pair<Date, Figure>> rolling = rollingBeta(paired.pairs, 520);
    if (rolling.size() < 1000) std::abort();
    benchmark::DoNotOptimize(fit);
    benchmark::DoNotOptimize(rolling.data());
  }
}
BENCHMARK(regression)->Name("beta, rolling, ten years of days")->Unit(benchmark::kMillisecond);

void rivals(benchmark::State& state) {
  const test::TemporaryFolder folder;
  const auto resources = services::Resources::load();
  const auto desk = services::Desk::ofThisMachine();
  if (!services::makeDemoBook(folder.file("b.zledger"), *resources, desk)) std::abort();
  auto session = services::Session::open(folder.file("b.zledger"), "", *resources, desk);
  if (!session) std::abort();
  for (auto _ : state) benchmark::DoNotOptimize(services::rivalsOf(*(*session)->now(), {}, 1));
}
BENCHMARK(rivals)->Name("rivals of every part of the rate")->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace zl::bench
