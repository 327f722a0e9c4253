// Runs the benchmarks and prints the ratios that docs/performance.md records.
//   build/bin/bench [--benchmark_filter=...]

#include <benchmark/benchmark.h>

#include <QApplication>
#include <cstdio>
#include <map>
#include <string>

#include "app/look/theme.h"
#include "bench/first_paint.h"

namespace {

class Keeper : public benchmark::ConsoleReporter {
 public:
  Keeper() : ConsoleReporter(OO_Tabular) {}
  void ReportRuns(const std::vector<Run>& runs) override {
    for (const Run& run : runs) {
      const std::string name = run.run_name.function_name;
      const std::string full = run.run_name.args.empty() ? name : name + "/" + run.run_name.args;
      for (const auto& [counter, value] : run.counters) counters_[full + " " + counter] = value;
      seconds_[full] = run.real_accumulated_time / static_cast<double>(run.iterations);
    }
    ConsoleReporter::ReportRuns(runs);
  }
  void ratio(const char* what, const char* over, const char* under, double target) const {
    const auto a = seconds_.find(over);
    const auto b = seconds_.find(under);
    if (a == seconds_.end() || b == seconds_.end()) return;
    std::printf("%-58s %6.2f   (target %.1f)\n", what, a->second / b->second, target);
  }
  void counter(const char* what, const char* name, double target) const {
    const auto a = counters_.find(name);
    if (a != counters_.end()) std::printf("%-58s %6.2f   (target %.1f)\n", what, a->second, target);
  }
  void time(const char* what, const char* name, double scale, const char* unit, double target) const {
    const auto a = seconds_.find(name);
    if (a == seconds_.end()) return;
    std::printf("%-58s %6.2f %s (target %.0f)\n", what, a->second * scale, unit, target);
  }

 private:
  std::map<std::string, double> seconds_;
  std::map<std::string, double> counters_;
};

}  // namespace

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication application(argc, argv);
  zl::app::applyTheme(application, zl::app::ThemeChoice::Light);
  if (argc == 3 && std::string(argv[1]) == zl::bench::kFirstPaint) return zl::bench::paintOnce(argv[2]);
  benchmark::Initialize(&argc, argv);
  if (benchmark::ReportUnrecognizedArguments(argc, argv)) return 2;
  Keeper keeper;
  benchmark::RunSpecifiedBenchmarks(&keeper);
  std::printf("\n");
  keeper.ratio("one trial, compiled over written by hand", "64 lanes, compiled, one core",
               "64 trials, by hand, one core", 2);
  keeper.ratio("100,000 facts read over bare XML parse", "facts, read as XBRL/100000", "facts, bare XML parse/100000",
               2);
  keeper.ratio("1,000,000 facts read over bare XML parse", "facts, read as XBRL/1000000",
               "facts, bare XML parse/1000000", 2);
  keeper.counter("1,000,000 facts, memory at its height over the file",
                 "memory of reading, over the file/1000000 times the file", 3);
  keeper.ratio("workbook of 100,000 cells over unpacking and parsing it", "100,000 cells, read as a sheet",
               "100,000 cells, unpacked and parsed", 2);
  keeper.time("edit to all figures", "edit to all figures, three scenarios", 1e3, "ms", 1);
  keeper.time("edit to all figures and findings", "edit to all figures and findings", 1e3, "ms", 1);
  keeper.time("a new price, all figures", "a new price, all figures", 1e3, "ms", 2);
  keeper.time("edit, 330 rows and 15 years", "edit, 330 rows and 15 years", 1e3, "ms", 1);
  keeper.time("History, 15 years and 60 quarters, all it shows", "History of 15 years and 60 quarters", 1e3, "ms", 100);
  keeper.time("drag, from move to painted frame", "drag, from move to painted frame", 1e3, "ms", 16);
  keeper.time("drag, 40 filed and 15 projected years", "drag, 40 filed and 15 projected years", 1e3, "ms", 16);
  keeper.time("layout of the window", "layout of the window", 1e3, "ms", 4);
  keeper.time("start to the first picture", "start to the first picture", 1e3, "ms", 500);
  keeper.counter("memory of that, MB", "start to the first picture MB", 150);
  keeper.time("beta with rolling windows, ten years of days", "beta, rolling, ten years of days", 1e3, "ms", 5);
  keeper.time("200 peers, every multiple, statistics", "200 peers, every multiple", 1e3, "ms", 2);
  keeper.time("a peer in or out, to the painted frame", "a peer in or out, to the painted frame", 1e3, "ms", 16);
  keeper.time("value walk over 12 parts", "value walk over 12 parts", 1e3, "ms", 50);
  keeper.time("undo among 10,000 entries", "undo among 10,000 entries", 1e3, "ms", 20);
  keeper.time("10,000 full trials", "10,000 lanes, compiled, all cores", 1e3, "ms", 60);
}
