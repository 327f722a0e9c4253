// Runs the benchmarks and prints the ratios that docs/performance.md records.
//   build/bin/bench [--benchmark_filter=...]

#include <benchmark/benchmark.h>

#include <cstdio>
#include <map>
#include <string>

namespace {

class Keeper : public benchmark::ConsoleReporter {
 public:
  Keeper() : ConsoleReporter(OO_Tabular) {}
  void ReportRuns(const std::vector<Run>& runs) override {
    for (const Run& run : runs) {
      const std::string name = run.run_name.function_name;
      seconds_[name] = run.real_accumulated_time / static_cast<double>(run.iterations);
    }
    ConsoleReporter::ReportRuns(runs);
  }
  void ratio(const char* what, const char* over, const char* under, double target) const {
    const auto a = seconds_.find(over);
    const auto b = seconds_.find(under);
    if (a == seconds_.end() || b == seconds_.end()) return;
    std::printf("%-58s %6.2f   (target %.1f)\n", what, a->second / b->second, target);
  }
  void time(const char* what, const char* name, double scale, const char* unit, double target) const {
    const auto a = seconds_.find(name);
    if (a == seconds_.end()) return;
    std::printf("%-58s %6.2f %s (target %.0f)\n", what, a->second * scale, unit, target);
  }

 private:
  std::map<std::string, double> seconds_;
};

}  // namespace

int main(int argc, char** argv) {
  benchmark::Initialize(&argc, argv);
  if (benchmark::ReportUnrecognizedArguments(argc, argv)) return 2;
  Keeper keeper;
  benchmark::RunSpecifiedBenchmarks(&keeper);
  std::printf("\n");
  keeper.ratio("one trial, compiled over written by hand", "64 lanes, compiled, one core",
               "64 trials, by hand, one core", 2);
  keeper.ratio("100,000 facts read over bare XML parse", "100,000 facts, read as XBRL", "100,000 facts, bare XML parse",
               2);
  keeper.time("edit to all results", "edit to all results, three scenarios", 1e3, "ms", 1);
  keeper.time("10,000 full trials", "10,000 lanes, compiled, all cores", 1e3, "ms", 60);
}
