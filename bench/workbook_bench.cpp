// Reading a workbook of 100,000 cells against unpacking its sheet and parsing the XML, which the
// libraries must do in any case.

#include <benchmark/benchmark.h>

#include <cstdlib>
#include <pugixml.hpp>
#include <string>

#include "exchange/workbook/archive.h"
#include "exchange/workbook/workbook.h"
#include "tests/support/archive_maker.h"

namespace zl::bench {
namespace {

constexpr int kRows = 5000, kColumns = 20;

const std::string& largeWorkbook() {
  static const std::string bytes = [] {
    test::XlsxParts parts;
    for (int row = 1; row <= kRows; ++row) {
      parts.sheetData += "<row r=\"" + std::to_string(row) + "\">";
      for (int column = 0; column < kColumns; ++column) {
        const std::string place = std::string(1, static_cast<char>('A' + column)) + std::to_string(row);
        parts.sheetData +=
            column == 0 ? "<c r=\"" + place + "\" t=\"inlineStr\"><is><t>Line " + std::to_string(row) + "</t></is></c>"
                        : "<c r=\"" + place + "\"><v>" + std::to_string(row * 7919 % 900000) + ".25</v></c>";
      }
      parts.sheetData += "</row>";
    }
    return parts.bytes();
  }();
  return bytes;
}

void bareSheet(benchmark::State& state) {
  const std::string& bytes = largeWorkbook();
  for (auto _ : state) {
    auto archive = exchange::Archive::open(bytes, "large");
    if (!archive) std::abort();
    const auto sheet = archive->read("xl/worksheets/sheet1.xml");
    pugi::xml_document xml;
    if (!sheet || !xml.load_buffer(sheet->data(), sheet->size())) std::abort();
    benchmark::DoNotOptimize(xml);
  }
}
BENCHMARK(bareSheet)->Name("100,000 cells, unpacked and parsed")->Unit(benchmark::kMillisecond);

void readSheet(benchmark::State& state) {
  const std::string& bytes = largeWorkbook();
  for (auto _ : state) {
    const auto book = exchange::readXlsx(bytes, "large");
    if (!book || book->sheets.front().rows.size() != kRows) std::abort();
    benchmark::DoNotOptimize(book->sheets.data());
  }
}
BENCHMARK(readSheet)->Name("100,000 cells, read as a sheet")->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace zl::bench
