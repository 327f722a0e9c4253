// The tree of sums of a statement from its figures: 200 rows, 12 periods, four statements of a filing on one sheet, and
// the same with every second row left over, which costs most because each is looked at as a total of what stands above
// it.

#include <benchmark/benchmark.h>

#include <cmath>
#include <cstdlib>
#include <random>

#include "core/structure/sum_tree.h"

namespace zl::bench {
namespace {

constexpr size_t kPeriods = 12;

StatementRow leaf(std::mt19937& random) {
  std::uniform_real_distribution<double> any(-1, 1);
  StatementRow row;
  double x = 50'000 * std::exp(1.5 * any(random));
  for (size_t t = 0; t < kPeriods; ++t) {
    row.figures.emplace_back(StatementFigure{std::round(x), 0.5});
    x *= std::exp(0.2 * any(random));
  }
  return row;
}

/// Sections of seven parts and their total, every fourth total followed by a total of totals.
std::vector<StatementRow> filing(size_t rows, bool halfLeftOver) {
  std::mt19937 random(11);
  std::vector<StatementRow> list;
  std::vector<size_t> totals, parts;
  const auto close = [&](std::vector<size_t>& of) {
    StatementRow total;
    for (size_t t = 0; t < kPeriods; ++t) {
      double sum = 0;
      for (const size_t r : of) sum += list[r].figures[t]->value;
      total.figures.emplace_back(StatementFigure{sum, 0.5});
    }
    of.clear();
    list.push_back(std::move(total));
    return list.size() - 1;
  };
  while (list.size() < rows) {
    if (parts.size() == 7) {
      totals.push_back(close(parts));
      if (totals.size() == 4) close(totals);
    }
    list.push_back(leaf(random));
    if (!halfLeftOver || list.size() % 2 == 0) parts.push_back(list.size() - 1);
  }
  return list;
}

void sums(benchmark::State& state) {
  const std::vector<StatementRow> rows = filing(200, state.range(0) != 0);
  for (auto _ : state) {
    const SumTree tree = findSums(rows);
    if (state.range(0) == 0 && tree.sums.size() < 20) std::abort();
    benchmark::DoNotOptimize(tree);
  }
}
BENCHMARK(sums)
    ->Name("structure of 200 rows by 12 periods (1: half of them in no sum)")
    ->Arg(0)
    ->Arg(1)
    ->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace zl::bench
