// Reading an XBRL instance of 100,000 facts against the XML library's bare parse of the same text.

#include <benchmark/benchmark.h>

#include <cstdlib>
#include <pugixml.hpp>
#include <string>

#include "exchange/xbrl/instance.h"

namespace zl::bench {
namespace {

const std::string& largeInstance() {
  static const std::string text = [] {
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
    for (int f = 0; f < 100000; ++f) {
      const std::string name = "ifrs-full:Concept" + std::to_string(f % 400);
      s += "<" + name + " contextRef=\"c" + std::to_string(f % 2000) + "\" unitRef=\"EUR\" decimals=\"-3\">" +
           std::to_string(f * 7919LL % 900000) + "000</" + name + ">\n";
    }
    return s + "</xbrli:xbrl>\n";
  }();
  return text;
}

void bareParse(benchmark::State& state) {
  const std::string& text = largeInstance();
  for (auto _ : state) {
    pugi::xml_document xml;
    if (!xml.load_buffer(text.data(), text.size())) std::abort();
    benchmark::DoNotOptimize(xml);
  }
}
BENCHMARK(bareParse)->Name("100,000 facts, bare XML parse")->Unit(benchmark::kMillisecond);

void readInstance(benchmark::State& state) {
  const std::string& text = largeInstance();
  for (auto _ : state) {
    const auto filing = exchange::readXbrlInstance(text, "large");
    if (!filing || filing->facts.size() != 100000) std::abort();
    benchmark::DoNotOptimize(filing->facts.data());
  }
}
BENCHMARK(readInstance)->Name("100,000 facts, read as XBRL")->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace zl::bench
