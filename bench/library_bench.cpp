// What all companies of a book are worth, cold: a book of ten, a hundred and a thousand.

#include <benchmark/benchmark.h>

#include <cstdlib>
#include <map>

#include "bench/many_companies.h"
#include "services/library/library.h"
#include "tests/support/temporary_folder.h"

namespace zl::bench {
namespace {

std::string libraryOf(int count) {
  static const test::TemporaryFolder folder;
  static std::map<int, std::string> made;
  std::string& path = made[count];
  if (path.empty()) {
    path = folder.file(std::to_string(count) + ".zledger");
    if (!makeLibrary(path, count)) std::abort();
  }
  return path;
}

void values(benchmark::State& state) {
  const auto count = static_cast<int>(state.range(0));
  const std::string path = libraryOf(count);
  const auto resources = services::Resources::load();
  for (auto _ : state) {
    auto book = store::Book::open(path);
    const auto evaluator = services::CaseEvaluator::upon(*resources);
    const auto list = services::valuesOf(*book, *evaluator, makeDate(2026, 5, 1));
    if (!list || list->size() != static_cast<size_t>(count) || !list->back().fault.empty()) std::abort();
  }
}
BENCHMARK(values)
    ->Name("values of all companies of a book")
    ->Arg(10)
    ->Arg(100)
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();
BENCHMARK(values)
    ->Name("values of all companies of a large book")
    ->Arg(1000)
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime()
    ->Iterations(1);

}  // namespace
}  // namespace zl::bench
