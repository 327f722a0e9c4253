#include <chrono>
#include <cmath>
#include <cstdio>
#include <sstream>
#include <string>
#include <vector>

#include "core/period/date.h"
#include "demo/generator/writers.h"

namespace demo {
namespace {

struct Close {
  zl::Date day;
  double close;
};

std::vector<Close> closesOf(const std::string& priceTable) {
  std::vector<Close> closes;
  std::istringstream lines(priceTable);
  std::string line;
  std::getline(lines, line);
  while (std::getline(lines, line)) {
    const size_t comma = line.find(',');
    closes.push_back({*zl::parseDate(line.substr(0, comma)), std::stod(line.substr(comma + 1))});
  }
  return closes;
}

/// A peer's share: what it costs now and how it moves with the index of its currency.
struct PeerSeries {
  const char* id;
  const char* unit;
  double price, beta, noise;  ///< noise: standard deviation of a week
};
constexpr PeerSeries kPeers[] = {{"sorrelund", "EUR", 18.4, 1.05, 0.026},
                                 {"brackenfeld", "EUR", 31.2, 0.92, 0.022},
                                 {"ostravelle", "EUR", 22.6, 1.31, 0.031}};

void row(std::ostringstream& out, const char* series, zl::Date day, double level, const char* unit, double dividend) {
  char line[128];
  std::snprintf(line, sizeof line, "%s,%s,%.2f,%s,", series, zl::dateText(day).c_str(), level, unit);
  out << line;
  if (dividend > 0) out << dividend;
  out << ",demo table\n";
}

constexpr const char* kHome = "Northmoor 350";     // of the listing's currency
constexpr const char* kAbroad = "Rhenmark Broad";  // of the peers'

}  // namespace

std::string seriesTable(const std::string& priceTable) {
  Random random(20260501);
  const std::vector<Close> closes = closesOf(priceTable);
  // The index of the listing's currency, daily over three years and a half: made from the share's own moves so that the
  // share has a beta of about 1.15 with a third of its moves explained.
  constexpr double kShareOfMoves = 0.28, kUnexplained = 1.55;
  const zl::Date from = *zl::parseDate("2022-11-01");
  double squares = 0;
  int count = 0;
  for (size_t i = 1; i < closes.size(); ++i) {
    if (closes[i].day < from) continue;
    const double move = closes[i].close / closes[i - 1].close - 1;
    squares += move * move;
    ++count;
  }
  const double swing = std::sqrt(squares / count);
  std::ostringstream out;
  out << "series,date,level,unit,dividend,source\n";
  double level = 1840;
  std::vector<Close> weeks;
  for (size_t i = 1; i < closes.size(); ++i) {
    if (closes[i].day < from) continue;
    const double move = closes[i].close / closes[i - 1].close - 1;
    level *= 1 + kShareOfMoves * move + kShareOfMoves * kUnexplained * swing * random.normal() + 0.0003;
    // One day was a holiday of the index alone, and one level was lost.
    const std::string day = zl::dateText(closes[i].day);
    if (day != "2024-05-27" && day != "2025-03-11") row(out, kHome, closes[i].day, level, "GBP", 0);
    if (std::chrono::weekday(closes[i].day) == std::chrono::Friday) weeks.push_back({closes[i].day, level});
  }
  // Another index and three peers, at the ends of weeks; peers are reckoned back from what they cost now.
  const size_t n = weeks.size();
  std::vector<double> moves(n, 0);
  double broad = 950;
  for (size_t w = 0; w < n; ++w) {
    moves[w] = w == 0 ? 0 : 0.0012 + 0.021 * random.normal();
    broad *= 1 + moves[w];
    row(out, kAbroad, weeks[w].day, broad, "EUR", 0);
  }
  for (const PeerSeries& peer : kPeers) {
    std::vector<double> levels(n);
    levels[n - 1] = peer.price;
    for (size_t w = n - 1; w > 0; --w)
      levels[w - 1] = levels[w] / (1 + peer.beta * moves[w] + peer.noise * random.normal());
    for (size_t w = 0; w < n; ++w) {
      // A dividend each May.
      const std::chrono::year_month_day day(weeks[w].day);
      const bool paid = day.month() == std::chrono::May && static_cast<unsigned>(day.day()) > 7 &&
                        static_cast<unsigned>(day.day()) < 15;
      row(out, peer.id, weeks[w].day, levels[w], peer.unit, paid ? std::round(levels[w] * 2.5) / 100 : 0);
    }
  }
  // What the company itself has paid: once a year, and once from a sale of land; cut in the recall.
  const std::pair<const char*, double> kPaid[] = {{"2019-05-10", 16}, {"2020-05-15", 14}, {"2021-05-14", 18},
                                                  {"2021-11-12", 45}, {"2022-05-13", 20}, {"2023-05-12", 21},
                                                  {"2024-05-10", 14}, {"2025-05-09", 7}};
  for (const auto& [day, paid] : kPaid) {
    const zl::Date on = *zl::parseDate(day);
    for (const Close& c : closes) {
      if (c.day == on) row(out, "vessingholt", on, c.close, "GBX", paid);
    }
  }
  return out.str();
}

}  // namespace demo
