// Opening History for fifteen years and sixty quarters: the years, the quarters and the trends that
// the page shows, made from the snapshot as the page makes them.

#include <benchmark/benchmark.h>

#include <cstdlib>
#include <string>

#include "app/pages/history_rows.h"
#include "services/sessions/session.h"
#include "tests/support/temporary_folder.h"

namespace zl::bench {
namespace {

/// Every standard line the shipped rules know by its own name, for each quarter and year.
std::string filedQuarters(const services::Resources& resources) {
  std::string csv = "concept,label,start,end,unit,decimals,value\n";
  const auto fact = [&](const std::string& line, const std::string& start, const std::string& end, const char* unit,
                        double value) {
    csv += line + ",," + start + "," + end + "," + unit + ",0," + std::to_string(static_cast<long long>(value)) + "\n";
  };
  constexpr const char* kStarts[] = {"-01-01", "-04-01", "-07-01", "-10-01"};
  constexpr const char* kEnds[] = {"-03-31", "-06-30", "-09-30", "-12-31"};
  for (int year = 2011; year <= 2025; ++year) {
    const std::string y = std::to_string(year);
    for (const model::Row& row : resources.model.rows) {
      if (!row.historyFiled) continue;
      const bool balance = row.timing == model::Timing::Balance;
      const double size = 1e6 * (10 + static_cast<double>(row.name.size()) + year - 2011);
      const char* unit = row.kind == Kind::Shares ? "shares" : "EUR";
      for (int q = 0; q < 4; ++q)
        fact(row.name, balance ? "" : y + kStarts[q], y + kEnds[q], unit, size / (balance ? 1 : 4));
      if (!balance) fact(row.name, y + "-01-01", y + "-12-31", unit, size);
    }
  }
  return csv;
}

std::unique_ptr<services::Session> open() {
  const auto resources = services::Resources::load();
  if (!resources) std::abort();
  const services::Desk desk{"bench", [] { return std::string("2026-01-10T00:00:00Z"); },
                            [] { return makeDate(2026, 1, 10); }};
  const test::TemporaryFolder folder;
  const std::string book = folder.file("bench.zledger");
  const auto imported =
      services::Session::import(book, "x", {{"quarters.csv", filedQuarters(**resources)}}, *resources, desk);
  if (!imported) std::abort();
  auto session = services::Session::open(book, "", *resources, desk);
  if (!session) std::abort();
  return std::move(*session);
}

void historyPage(benchmark::State& state) {
  static const std::unique_ptr<services::Session> session = open();
  const services::Snapshot& s = *session->now();
  if (s.years().size() != 15) std::abort();
  for (auto _ : state) {
    const auto years = app::historyGrid(s, app::HistoryShow::Amounts, services::Reading::Adjusted, 1);
    const auto quarters = app::interimGrid(s, app::HistoryShow::Amounts, services::Basis::Quarters, 1);
    const auto trends = app::historyGrid(s, app::HistoryShow::Trends, services::Reading::Adjusted, 1);
    if (quarters.headers.size() != 20 || years.rows.empty() || trends.rows.empty()) std::abort();
  }
}
BENCHMARK(historyPage)->Name("History of 15 years and 60 quarters")->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace zl::bench
