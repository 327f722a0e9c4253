// Reading XBRL instances of 100,000 and of a million facts against the XML library's bare parse of
// the same text, and the memory it takes at its height.

#include <benchmark/benchmark.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cstdlib>
#include <fstream>
#include <map>
#include <pugixml.hpp>
#include <string>

#include "exchange/xbrl/instance.h"

namespace zl::bench {
namespace {

std::string instanceOf(int facts) {
  std::string s =
      "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<xbrli:xbrl xmlns:xbrli=\"http://www.xbrl.org/2003/instance\" "
      "xmlns:iso4217=\"http://www.xbrl.org/2003/iso4217\" "
      "xmlns:ifrs-full=\"https://xbrl.ifrs.org/taxonomy/2021-03-24/ifrs-full\" "
      "xmlns:xbrldi=\"http://xbrl.org/2006/xbrldi\">\n";
  for (int c = 0; c < 2000; ++c) {
    const std::string year = std::to_string(2000 + c % 25);
    s += "<xbrli:context id=\"c" + std::to_string(c) +
         "\"><xbrli:entity><xbrli:identifier scheme=\"https://registry.example\">X</xbrli:identifier>";
    if (c >= 25) {
      s += "<xbrli:segment><xbrldi:explicitMember dimension=\"ifrs-full:SegmentsAxis\">ifrs-full:M" +
           std::to_string(c) + "</xbrldi:explicitMember></xbrli:segment>";
    }
    s += "</xbrli:entity><xbrli:period><xbrli:startDate>" + year + "-01-01</xbrli:startDate><xbrli:endDate>" + year +
         "-12-31</xbrli:endDate></xbrli:period></xbrli:context>\n";
  }
  s += "<xbrli:unit id=\"EUR\"><xbrli:measure>iso4217:EUR</xbrli:measure></xbrli:unit>\n";
  for (int f = 0; f < facts; ++f) {
    const std::string name = "ifrs-full:Concept" + std::to_string(f % 400);
    s += "<" + name + " contextRef=\"c" + std::to_string(f % 2000) + "\" unitRef=\"EUR\" decimals=\"-3\">" +
         std::to_string(f * 7919LL % 900000) + "000</" + name + ">\n";
  }
  return s + "</xbrli:xbrl>\n";
}

const std::string& instance(std::int64_t facts) {
  static std::map<std::int64_t, std::string> made;
  std::string& text = made[facts];
  if (text.empty()) text = instanceOf(static_cast<int>(facts));
  return text;
}

void bareParse(benchmark::State& state) {
  const std::string& text = instance(state.range(0));
  for (auto _ : state) {
    pugi::xml_document xml;
    if (!xml.load_buffer(text.data(), text.size())) std::abort();
    benchmark::DoNotOptimize(xml);
  }
}
BENCHMARK(bareParse)->Name("facts, bare XML parse")->Arg(100000)->Arg(1000000)->Unit(benchmark::kMillisecond);

void readInstance(benchmark::State& state) {
  const std::string& text = instance(state.range(0));
  for (auto _ : state) {
    const auto filing = exchange::readXbrlInstance(text, "large");
    if (!filing || filing->facts.size() != static_cast<size_t>(state.range(0))) std::abort();
    benchmark::DoNotOptimize(filing->facts.data());
  }
}
BENCHMARK(readInstance)->Name("facts, read as XBRL")->Arg(100000)->Arg(1000000)->Unit(benchmark::kMillisecond);

/// A line of /proc/self/status in kibibytes: VmRSS now, VmHWM at its height.
double statusKib(const char* key) {
  std::ifstream status("/proc/self/status");
  std::string word;
  double kib = 0;
  while (status >> word) {
    if (word == key) status >> kib;
  }
  return kib;
}

/// In a process of its own, so that the height is this reading's and no other's.
void memoryOfReading(benchmark::State& state) {
  const std::string& text = instance(state.range(0));
  double height = 0;
  for (auto _ : state) {
    int ends[2];
    if (pipe(ends) != 0) std::abort();
    const pid_t child = fork();
    if (child == 0) {
      const double before = statusKib("VmRSS:");
      const auto filing = exchange::readXbrlInstance(text, "large");
      const double taken = filing ? statusKib("VmHWM:") - before : -1;
      const bool told = write(ends[1], &taken, sizeof taken) == sizeof taken;
      _exit(told ? 0 : 1);
    }
    int status = 0;
    if (waitpid(child, &status, 0) != child || status != 0) std::abort();
    if (read(ends[0], &height, sizeof height) != sizeof height || height < 0) std::abort();
    close(ends[0]);
    close(ends[1]);
  }
  state.counters["times the file"] = height * 1024 / static_cast<double>(text.size());
}
BENCHMARK(memoryOfReading)
    ->Name("memory of reading, over the file")
    ->Arg(1000000)
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace zl::bench
