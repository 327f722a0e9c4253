// Writes the demo's files:  demo-generator FOLDER [SEED]
// The same seed gives the same bytes. See docs/demo.md for the story.

#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>

#include "demo/generator/writers.h"

namespace {

void write(const std::filesystem::path& path, const std::string& text) {
  std::filesystem::create_directories(path.parent_path());
  std::ofstream out(path, std::ios::binary);
  if (!(out << text)) {
    std::fprintf(stderr, "cannot write %s\n", path.c_str());
    std::exit(1);
  }
}

}  // namespace

int main(int argc, char** argv) {
  if (argc < 2) {
    std::fprintf(stderr, "usage: demo-generator FOLDER [SEED]\n");
    return 2;
  }
  const std::filesystem::path folder = argv[1];
  demo::Random random(argc > 2 ? std::strtoull(argv[2], nullptr, 10) : 20260430);
  const demo::Story story = demo::simulate();
  for (size_t i = 0; i < story.years.size(); ++i) {
    const long long number = story.years[i].at("year");
    const demo::Year& year = number == 2022 ? story.restated2022AsFirstFiled : story.years[i];
    const demo::Year* before = i > 0 ? &story.years[i - 1] : nullptr;
    const std::string name = "annual-" + std::to_string(number);
    if (number >= 2020) {
      write(folder / "filings" / (name + ".xbrl"), demo::xbrlReport(year, before));
    } else {
      write(folder / "filings" / (name + ".csv"), demo::csvReport(year, before));
    }
  }
  const size_t last = story.years.size() - 1;
  write(folder / "filings" / "interim-2022-h1.csv",
        demo::csvHalfYear(story.restated2022AsFirstFiled, story.years[last - 4]));
  for (int quarter = 0; quarter < 3; ++quarter) {
    const std::string number = std::to_string(quarter + 1);
    write(folder / "filings" / ("interim-2023-q" + number + ".json"),
          demo::xbrlJsonInterim(story.years[last - 2], story.years[last - 3], quarter));
    write(folder / "filings" / ("interim-2024-q" + number + ".xhtml"),
          demo::inlineInterim(story.years[last - 1], story.years[last - 2], quarter));
  }
  write(folder / "filings" / "interim-2025.xlsx", demo::workbookInterims(story.years[last], story.years[last - 1]));
  write(folder / "faults" / "wrong-date.csv", demo::wrongDateFault(story));
  write(folder / "faults" / "scale-slip.csv", demo::scaleSlipFault(story));
  write(folder / "faults" / "duplicate.csv", demo::duplicateFault(story));
  write(folder / "faults" / "parts.json", demo::partsFault(story));
  write(folder / "faults" / "currency.csv", demo::currencyFault(story));
  write(folder / "company.json", demo::companyRecord(story));
  const std::string prices = demo::priceTable(random);
  write(folder / "prices.csv", prices);
  const std::string series = demo::seriesTable(prices);
  write(folder / "series.csv", series);
  write(folder / "companion" / "record.json", demo::companionRecord());
  write(folder / "companion" / "statements.csv", demo::companionStatements());
  write(folder / "companion" / "prices.csv", demo::companionPrices(series));
  write(folder / "companion" / "estimates.csv", demo::companionEstimates());
  write(folder / "peers.csv", demo::peerTable());
  write(folder / "rates.csv", demo::rateTable());
  write(folder / "estimates.csv", demo::estimateTable());
  write(folder / "case.json", demo::caseText());
}
