#include <chrono>
#include <cmath>
#include <cstdio>
#include <sstream>

#include "core/period/date.h"
#include "demo/generator/writers.h"

namespace demo {

std::string companyRecord(const Story& story) {
  std::ostringstream out;
  out << R"({
  "format": "zealous-ledger-company",
  "version": 1,
  "id": "vessingholt",
  "name": "Vessingholt N.V.",
  "description": "Weighing, dosing and sorting machines for mills and food plants, with service and parts",
  "currency": "EUR",
  "listing": {"unit": "GBX", "currency": "GBP", "minor_per_major": 100, "shares_per_listed": 1},
  "shares": )"
      << story.years.back().at("shares") << R"(000,
  "options": 1850000,
  "option_strike": 690,
  "unvested_shares": 320000,
  "convertible_shares": 4200000,
  "convertible_face": 52000000,
  "sector": "Machinery",
  "control": "A family foundation holds 31 % of the votes and two of seven seats on the board",
  "further_listings": [{"unit": "USD", "currency": "USD", "minor_per_major": 1, "shares_per_listed": 2}],
  "events": [
    {"on": "2019-05-14", "what": "Shares bought back, eleven hundred thousand of them", "line": "shares"},
    {"on": "2020-09-01", "what": "Investment programme: two assembly halls, a new sorter line", "line": "capex"},
    {"on": "2021-04-12", "what": "Optical sorting business bought", "line": "acquisitions"},
    {"on": "2023-03-08", "what": "Revenue of 2022 restated for its timing", "line": "revenue"},
    {"on": "2024-06-20", "what": "Recall of a dosing head: rework, orders lost", "line": "exceptional_items"},
    {"on": "2025-09-02", "what": "Northern plant closed and written down", "line": "exceptional_items"}
  ],
  "debt_due": [
    {"year": 2026, "amount": 44000000, "floating": true, "what": "bank lines"},
    {"year": 2027, "amount": 18000000, "floating": true, "what": "term loan"},
    {"year": 2028, "amount": 52000000, "floating": false, "what": "convertible"},
    {"year": 2030, "amount": 100000000, "floating": false, "what": "private placement"},
    {"year": 2032, "amount": 34000000, "floating": false, "what": "private placement"}
  ],
  "deals": [
    {"on": "2021-04-12", "what": "Optical sorting business", "price": 18400000, "goodwill": 18400000,
     "revenue": 14200000, "profit": 1150000}
  ],
  "operating_figures": [
    {"name": "Machines installed", "unit": "thousand", "years": [
      {"year": 2020, "figure": 21.4}, {"year": 2021, "figure": 23.1}, {"year": 2022, "figure": 25.2},
      {"year": 2023, "figure": 27.0}, {"year": 2024, "figure": 28.1}, {"year": 2025, "figure": 28.9}]},
    {"name": "Market for mill machinery", "unit": "EUR bn", "years": [
      {"year": 2020, "figure": 7.9}, {"year": 2021, "figure": 8.6}, {"year": 2022, "figure": 9.4},
      {"year": 2023, "figure": 9.7}, {"year": 2024, "figure": 9.5}, {"year": 2025, "figure": 9.6}]}
  ]
}
)";
  return out.str();
}

std::string priceTable(Random& random) {
  // A bridge of noise between the story's turning points, in pence.
  struct Point {
    const char* date;
    double price;
  };
  constexpr Point kPoints[] = {{"2014-05-02", 412},  {"2016-06-01", 505},  {"2018-09-03", 690}, {"2020-03-20", 470},
                               {"2021-11-15", 1240}, {"2022-10-03", 1130}, {"2023-12-01", 985}, {"2024-07-15", 640},
                               {"2025-08-01", 655},  {"2026-04-30", 742}};
  std::ostringstream out;
  out << "date,close\n";
  constexpr size_t kLegs = std::size(kPoints) - 1;
  double noise = 0;
  for (size_t leg = 0; leg < kLegs; ++leg) {
    const zl::Date from = *zl::parseDate(kPoints[leg].date);
    const zl::Date to = *zl::parseDate(kPoints[leg + 1].date);
    const double days = zl::daysBetween(from, to);
    for (zl::Date d = from; d < to || (leg + 1 == kLegs && d == to); d += std::chrono::days(1)) {
      const std::chrono::weekday day(d);
      if (day == std::chrono::Saturday || day == std::chrono::Sunday) continue;
      const double share = zl::daysBetween(from, d) / days;
      noise = 0.97 * noise + 0.011 * random.normal();
      const double trend = std::log(kPoints[leg].price) * (1 - share) + std::log(kPoints[leg + 1].price) * share;
      const bool last = d == to;
      char line[64];
      std::snprintf(line, sizeof line, "%s,%.1f\n", zl::dateText(d).c_str(), std::exp(trend + (last ? 0 : noise)));
      out << line;
    }
  }
  return out.str();
}

std::string peerTable() {
  // Five invented companies: one far larger, one with net cash, one making losses, one whose
  // profit holds a disposal gain, one plain.
  return R"(peer,name,currency,price,price_currency,minor_per_major,price_date,shares,debt,leases,preferred,minorities,pension,cash,associates,year_end,revenue,ebitda,net_income,remark
sorrelund,Sorrelund Process AB,EUR,18.4,EUR,1,2026-04-30,44000000,162000000,21000000,0,3000000,9000000,58000000,0,2024-12-31,588000000,87000000,36500000,"Plain peer of like size; dosing lines for flour and feed"
sorrelund,Sorrelund Process AB,EUR,18.4,EUR,1,2026-04-30,44000000,162000000,21000000,0,3000000,9000000,58000000,0,2025-12-31,611000000,92000000,39200000,
brackenfeld,Brackenfeld Feeders AG,EUR,31.2,EUR,1,2026-04-30,21500000,118000000,14000000,0,0,12000000,41000000,6000000,2024-12-31,402000000,61000000,24800000,"Net income of 2025 holds a gain from selling a site"
brackenfeld,Brackenfeld Feeders AG,EUR,31.2,EUR,1,2026-04-30,21500000,118000000,14000000,0,0,12000000,41000000,6000000,2025-12-31,418000000,64500000,53400000,
dunmarrow,Dunmarrow Scales plc,GBP,143,GBP,100,2026-04-30,88000000,74000000,9000000,0,0,0,12000000,0,2025-03-31,236000000,13200000,-6100000,"Makes losses; price in pence; year ends in March"
dunmarrow,Dunmarrow Scales plc,GBP,143,GBP,100,2026-04-30,88000000,74000000,9000000,0,0,0,12000000,0,2026-03-31,229000000,11800000,-9400000,
quillhaven,Quillhaven Automation Inc.,USD,96.5,USD,1,2026-04-30,212000000,5400000000,310000000,0,45000000,120000000,1900000000,0,2025-09-30,11200000000,2150000000,1090000000,"Far larger; year ends in September"
quillhaven,Quillhaven Automation Inc.,USD,96.5,USD,1,2026-04-30,212000000,5400000000,310000000,0,45000000,120000000,1900000000,0,2026-09-30,11750000000,2280000000,1160000000,
hoshinogi,Hoshinogi Keiryo K.K.,JPY,2870,JPY,1,2026-04-30,36000000,2100000000,900000000,0,0,0,31500000000,0,2025-03-31,61800000000,7900000000,4700000000,"Net cash; year ends in March"
hoshinogi,Hoshinogi Keiryo K.K.,JPY,2870,JPY,1,2026-04-30,36000000,2100000000,900000000,0,0,0,31500000000,0,2026-03-31,64300000000,8400000000,5050000000,
)";
}

std::string rateTable() {
  return R"(rate,date,figure,source
spot EUR/GBP,2025-12-31,0.8640,demo table
spot EUR/GBP,2026-04-30,0.8580,demo table
spot EUR/USD,2025-12-31,1.1200,demo table
spot EUR/USD,2026-04-30,1.1350,demo table
spot EUR/JPY,2025-12-31,168.00,demo table
spot EUR/JPY,2026-04-30,171.50,demo table
risk-free EUR,2024-12-31,0.0242,demo table; ten years
risk-free EUR,2025-12-31,0.0271,demo table; ten years
risk-free EUR,2026-04-30,0.0280,demo table; ten years
equity premium EUR,2025-12-31,0.0510,demo table; forward
equity premium EUR,2026-04-30,0.0500,demo table; forward
country premium of sales,2026-04-30,0.0120,demo table
high-grade corporate yield EUR,2026-04-30,0.0365,demo table
long-run growth EUR,2026-04-30,0.0250,demo table; nominal
inflation EUR,2026-04-30,0.0200,demo table
)";
}

}  // namespace demo
