// Reading 40,000 facts as xBRL-JSON against the JSON library's own parse of the same text: what
// nesting, duplicate members and facts cost on top of it.

#include <benchmark/benchmark.h>

#include <cstdlib>
#include <string>

#include "exchange/json/reader.h"
#include "exchange/oim/xbrl_json.h"

namespace zl::bench {
namespace {

constexpr int kFacts = 40'000;

const std::string& report() {
  static const std::string text = [] {
    std::string s =
        "{\"documentInfo\": {\"documentType\": \"https://xbrl.org/2021/xbrl-json\", \"namespaces\": {\"e\": "
        "\"http://e.example\"}}, \"facts\": {\n";
    for (int i = 0; i < kFacts; ++i) {
      s += std::string(i > 0 ? ",\n" : "") + "\"fact-" + std::to_string(i) + "\": {\"value\": \"" +
           std::to_string(i * 7) + "\", \"decimals\": -3, \"dimensions\": {\"concept\": \"e:x" +
           std::to_string(i % 400) +
           "\", \"entity\": \"s:E\", \"period\": \"2024-01-01T00:00:00/2025-01-01T00:00:00\", \"unit\": "
           "\"iso4217:EUR\", \"e:Axis\": \"e:M" +
           std::to_string(i % 300) + "\"}}";
    }
    return s + "}}\n";
  }();
  return text;
}

void bareJson(benchmark::State& state) {
  for (auto _ : state) {
    exchange::Json json = exchange::Json::parse(report());
    benchmark::DoNotOptimize(json);
  }
}
BENCHMARK(bareJson)->Name("40,000 facts, bare JSON parse")->Unit(benchmark::kMillisecond);

void readReport(benchmark::State& state) {
  for (auto _ : state) {
    const auto filing = exchange::readXbrlJson(report(), "large");
    if (!filing || filing->facts.size() != static_cast<size_t>(kFacts)) std::abort();
    benchmark::DoNotOptimize(filing->facts.data());
  }
}
BENCHMARK(readReport)->Name("40,000 facts, read as xBRL-JSON")->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace zl::bench
