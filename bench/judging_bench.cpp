// A table of ten years' statements read, put on standard lines and judged before it is stored; and the same with one
// figure in every year wrong, which costs most: every row is tried on every line, and none mends it.

#include <benchmark/benchmark.h>

#include <cstdlib>
#include <fstream>
#include <sstream>

#include "services/intake/judged.h"
#include "tests/support/source_folder.h"

namespace zl::bench {
namespace {

std::string statements() {
  std::ifstream file(test::sourceFolder() + "/tests/corpus/strangers/us-by-function.csv");
  std::stringstream text;
  text << file.rdbuf();
  return text.str();
}

/// The row of receivables set down as if each year's figure were 9 millions.
std::string oneRowWrong(std::string text) {
  const size_t row = text.find("Accounts receivable");
  const size_t figures = row == std::string::npos ? row : text.find(';', row);
  if (figures == std::string::npos) std::abort();
  const size_t end = text.find('\n', figures);
  std::string nines;
  for (size_t i = figures; i < end; ++i) nines += text[i] == ';' ? ";9" : "";
  return text.replace(figures, end - figures, nines);
}

void judged(benchmark::State& state) {
  const auto resources = services::Resources::load();
  if (!resources) std::abort();
  const bool wrong = state.range(0) != 0;
  const std::string text = wrong ? oneRowWrong(statements()) : statements();
  const services::ImportContext context{"us", *resources, "2026-03-01T00:00:00Z", {}};
  for (auto _ : state) {
    const auto previews = services::preview({{"us-by-function.csv", text}}, context);
    if (!previews || previews->front().holding == 0 || (previews->front().notHolding > 0) != wrong) std::abort();
    benchmark::DoNotOptimize(previews->front());
  }
}
BENCHMARK(judged)
    ->Name("ten years' statements read and judged (1: with a row wrong)")
    ->Arg(0)
    ->Arg(1)
    ->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace zl::bench
