#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <list>
#include <sstream>
#include <string_view>
#include <tuple>
#include <vector>

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
  "option_tranches": [
    {"count": 900000, "strike": 980, "unit": "GBX", "expiry": "2031-06-30", "what": "granted in 2021"},
    {"count": 450000, "strike": 640, "unit": "GBX", "expiry": "2025-12-31", "what": "granted in 2016, expired"}
  ],
  "holders": [
    {"holder": "Vessing family foundation", "shares": 14500000, "on": "2026-03-31", "source": "annual report 2025"},
    {"holder": "Tolmark pension trust", "shares": 5140000, "on": "2026-02-12", "source": "notice"},
    {"holder": "Quayle and Orme funds", "shares": 3260000, "on": "2025-11-20", "source": "notice"}
  ],
  "insider_trades": [
    {"on": "2025-09-08", "who": "R. Halvorsen, chief executive", "shares": 25000, "price": 618, "source": "notice"},
    {"on": "2025-11-24", "who": "M. Tesch, board", "shares": 8000, "price": 655, "source": "notice"},
    {"on": "2026-03-20", "who": "I. Brandt, finance", "shares": -12000, "price": 731, "source": "notice"}
  ],
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
    {"year": 2026, "amount": 44000000, "floating": true, "what": "bank lines", "rate": 0.052},
    {"year": 2027, "amount": 18000000, "floating": true, "what": "term loan", "rate": 0.049},
    {"year": 2028, "amount": 52000000, "floating": false, "what": "convertible", "rate": 0.0175},
    {"year": 2030, "amount": 100000000, "floating": false, "what": "private placement", "rate": 0.036},
    {"year": 2032, "amount": 34000000, "floating": false, "what": "private placement", "rate": 0.041}
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

namespace {

struct PeerFigures {
  const char* end;
  double revenue, ebitda, netIncome;  ///< millions
};

/// An invented company. Money in millions of its reporting currency, shares in millions.
struct PeerStory {
  const char *id, *name, *currency;
  double price;
  const char* priceCurrency;
  double minorPerMajor, shares;
  double debt, leases, minorities, pension, cash, associates;
  const char* leasesFiled;
  double wear, capex, equity, stockPay, research;  ///< shares of revenue; equity over revenue
  const char* remark;
  std::vector<PeerFigures> years;
};

const std::vector<PeerStory>& peerStories() {
  static const std::vector<PeerStory> kStories = {
      {"sorrelund",
       "Sorrelund Process AB",
       "EUR",
       18.4,
       "EUR",
       1,
       44,
       162,
       21,
       3,
       9,
       58,
       0,
       "debt",
       0.046,
       0.048,
       0.58,
       0.004,
       0.034,
       "Plain peer of like size; dosing lines for flour and feed",
       {{"2023-12-31", 561, 82, 34.1}, {"2024-12-31", 588, 87, 36.5}, {"2025-12-31", 611, 92, 39.2}}},
      {"brackenfeld",
       "Brackenfeld Feeders AG",
       "EUR",
       31.2,
       "EUR",
       1,
       21.5,
       118,
       14,
       0,
       12,
       41,
       6,
       "debt",
       0.049,
       0.052,
       0.61,
       0.003,
       0.038,
       "Net income of 2025 holds a gain from selling a site",
       {{"2023-12-31", 395, 60.2, 24.1}, {"2024-12-31", 402, 61, 24.8}, {"2025-12-31", 418, 64.5, 53.4}}},
      {"dunmarrow",
       "Dunmarrow Scales plc",
       "GBP",
       143,
       "GBP",
       100,
       88,
       74,
       9,
       0,
       0,
       12,
       0,
       "debt",
       0.055,
       0.021,
       0.33,
       0.002,
       0.027,
       "Makes losses; price in pence; year ends in March",
       {{"2024-03-31", 248, 17.9, -1.2}, {"2025-03-31", 236, 13.2, -6.1}, {"2026-03-31", 229, 11.8, -9.4}}},
      {"quillhaven",
       "Quillhaven Automation Inc.",
       "USD",
       96.5,
       "USD",
       1,
       212,
       5400,
       310,
       45,
       120,
       1900,
       0,
       "debt",
       0.041,
       0.038,
       0.72,
       0.013,
       0.051,
       "Far larger; year ends in September, 2026 as it guides",
       {{"2024-09-30", 10700, 2030, 1010}, {"2025-09-30", 11200, 2150, 1090}, {"2026-09-30", 11750, 2280, 1160}}},
      {"hoshinogi",
       "Hoshinogi Keiryo K.K.",
       "JPY",
       2870,
       "JPY",
       1,
       36,
       2100,
       900,
       0,
       0,
       31500,
       0,
       "debt",
       0.029,
       0.033,
       1.12,
       0.001,
       0.046,
       "Net cash; year ends in March",
       {{"2024-03-31", 60100, 7650, 4520}, {"2025-03-31", 61800, 7900, 4700}, {"2026-03-31", 64300, 8400, 5050}}},
      {"tamberwick",
       "Tamberwick Grain Systems plc",
       "GBP",
       412,
       "GBP",
       100,
       61,
       88,
       11,
       0,
       4,
       34,
       0,
       "debt",
       0.036,
       0.041,
       0.49,
       0.004,
       0.029,
       "Price in pence; intake, drying and storage of grain",
       {{"2023-12-31", 271, 33.1, 15.8}, {"2024-12-31", 284, 34.9, 16.9}, {"2025-12-31", 292, 36.5, 17.9}}},
      {"calderbrune",
       "Calderbrune Selezione S.p.A.",
       "EUR",
       14.2,
       "EUR",
       1,
       52,
       640,
       38,
       0,
       8,
       71,
       0,
       "debt",
       0.047,
       0.044,
       0.92,
       0.003,
       0.031,
       "Just past a merger: 2025 holds six months of what its debt paid for",
       {{"2023-12-31", 310, 47.2, 22.4}, {"2024-12-31", 322, 50.1, 23.9}, {"2025-12-31", 588, 96, 31}}},
      {"pinemarrow",
       "Pinemarrow Process Corp.",
       "USD",
       38.4,
       "USD",
       1,
       29,
       210,
       118,
       0,
       0,
       92,
       0,
       "rent",
       0.043,
       0.047,
       0.51,
       0.009,
       0.036,
       "Files rent: EBITDA after rent, its leases estimated from the note",
       {{"2023-12-31", 842, 108, 59}, {"2024-12-31", 871, 115, 64}, {"2025-12-31", 896, 121, 68}}},
      {"wexhollin",
       "Wexhollin Weighing Group plc",
       "GBP",
       268,
       "GBP",
       100,
       140,
       142,
       19,
       0,
       21,
       40,
       0,
       "debt",
       0.042,
       0.037,
       0.55,
       0.005,
       0.033,
       "Price in pence; a pension deficit; year ends in March",
       {{"2024-03-31", 428, 55.6, 23.4}, {"2025-03-31", 446, 58.3, 24.7}, {"2026-03-31", 462, 61, 26}}},
      {"kurosendo",
       "Kurosendo Seiki K.K.",
       "JPY",
       1480,
       "JPY",
       1,
       92,
       24000,
       2900,
       310,
       1200,
       18300,
       2600,
       "debt",
       0.038,
       0.045,
       0.66,
       0.001,
       0.042,
       "Sorting by camera; year ends in March",
       {{"2024-03-31", 118400, 15100, 7700}, {"2025-03-31", 123900, 16300, 8300}, {"2026-03-31", 128600, 17200, 8900}}},
      {"larkhollow",
       "Larkhollow Food Machinery Inc.",
       "USD",
       71.2,
       "USD",
       1,
       46,
       380,
       44,
       0,
       0,
       260,
       0,
       "debt",
       0.037,
       0.04,
       0.63,
       0.06,
       0.058,
       "Pays much in shares",
       {{"2023-12-31", 918, 198, 97}, {"2024-12-31", 987, 217, 109}, {"2025-12-31", 1060, 236, 121}}}};
  return kStories;
}

/// Whole thousands of what is given in millions.
std::string units(double millions) {
  return std::to_string(std::llround(millions * 1000) * 1000);
}

/// Who builds much pays out little; of a loss nothing is paid.
double paidOut(const PeerStory& p, const PeerFigures& y) {
  constexpr double kMost = 0.7, kPerCapex = 5;
  return std::max(0.0, y.netIncome) * (kMost - kPerCapex * p.capex);
}

}  // namespace

/// Where some of the peers sell, and what: two columns. Of the others nobody says it.
std::string mixOf(const std::string& id) {
  constexpr std::tuple<const char*, const char*, const char*> kMixes[] = {
      {"sorrelund", "Western Europe 62 %; Eastern Europe 20 %; Americas 18 %", "Machines 74 %; Service and Parts 26 %"},
      {"brackenfeld", "Western Europe 81 %; Eastern Europe 19 %", "Machines 88 %; Service and Parts 12 %"},
      {"quillhaven", "Americas 71 %; Western Europe 17 %; Asia and Pacific 12 %",
       "Automation 58 %; Machines 30 %; Service and Parts 12 %"},
      {"hoshinogi", "Asia and Pacific 92 %; Americas 8 %", "Machines 67 %; Service and Parts 33 %"},
      {"calderbrune", "Western Europe 55 %; Americas 25 %; Eastern Europe 20 %",
       "Machines 91 %; Service and Parts 9 %"}};
  for (const auto& [peer, regions, businesses] : kMixes) {
    if (id == peer) return std::string("\"") + regions + "\",\"" + businesses + "\"";
  }
  return ",";
}

std::string peerTable() {
  constexpr double kInterestRate = 0.05;
  constexpr double kCashOfEbitda = 0.78;
  constexpr double kAfterTax = 0.76;
  constexpr double kIntangibles = 0.12;  ///< of revenue
  constexpr double kFollowed = 150;      ///< revenue of the smallest that analysts follow
  constexpr double kMarginGain = 1.02;   ///< EBITDA grows a little faster than revenue
  std::list<std::string> ends;
  constexpr double kLeaseCost = 0.27;  ///< of the liability: principal and interest
  std::ostringstream out;
  out << "peer,name,currency,price,price_currency,minor_per_major,price_date,shares,debt,leases,preferred,minorities,"
         "pension,cash,associates,leases_filed,year_end,revenue,ebitda,ebit,interest,net_income,operating_cash_flow,"
         "capex,equity,lease_cost,stock_pay,research,nopat,intangibles,dividends,year_is,remark,source,regions,"
         "businesses\n";
  for (const PeerStory& p : peerStories()) {
    const bool rents = std::string_view(p.leasesFiled) == "rent";
    const double retained = p.years.back().revenue * p.equity;
    const auto begin = [&](const PeerFigures& y) {
      out << p.id << ',' << p.name << ',' << p.currency << ',' << p.price << ',' << p.priceCurrency << ','
          << p.minorPerMajor << ",2026-04-30," << units(p.shares);
      for (const double claim : {p.debt, p.leases, 0.0, p.minorities, p.pension, p.cash, p.associates})
        out << ',' << units(claim);
      out << ',' << p.leasesFiled << ',' << y.end << ',' << units(y.revenue) << ',' << units(y.ebitda) << ','
          << units(y.ebitda - p.wear * y.revenue) << ',';
    };
    for (const PeerFigures& y : p.years) {
      const bool first = &y == &p.years.front();
      const double interest = kInterestRate * (p.debt + (rents ? 0 : p.leases));
      begin(y);
      out << units(interest) << ',' << units(y.netIncome) << ',' << units(kCashOfEbitda * y.ebitda) << ','
          << units(p.capex * y.revenue) << ',' << units(retained * (y.revenue / p.years.back().revenue)) << ','
          << units(kLeaseCost * p.leases) << ',' << units(p.stockPay * y.revenue) << ','
          << units(p.research * y.revenue) << ',' << units(kAfterTax * (y.ebitda - p.wear * y.revenue)) << ','
          << units(kIntangibles * y.revenue) << ',' << units(paidOut(p, y)) << ",filed,\"" << (first ? p.remark : "")
          << "\"," << (first ? "annual report; close of the day" : "") << '\n';
    }
    // What two houses expect of the next three years; nobody follows the smallest.
    if (p.years.back().revenue < kFollowed) continue;
    PeerFigures ahead = p.years.back();
    for (const double growth : {1.035, 1.045, 1.04}) {
      ahead.revenue *= growth;
      ahead.ebitda *= growth * kMarginGain;
      ahead.netIncome *= ahead.netIncome > 0 ? growth * kMarginGain * kMarginGain : 1;
      const std::string end =
          std::to_string(std::stoi(std::string(ahead.end).substr(0, 4)) + 1) + std::string(ahead.end).substr(4);
      ahead.end = end.c_str();
      begin(ahead);
      out << ',' << units(ahead.netIncome) << ",,,,,,,,,,expected,\"\",,,\n";
      ends.push_back(end);
      ahead.end = ends.back().c_str();
    }
  }
  return out.str();
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
inflation GBP,2026-04-30,0.0240,demo table
risk-free GBP,2026-04-30,0.0415,demo table; ten years
risk-free EUR real,2026-04-30,0.0075,demo table; ten years
country premium Western Europe,2026-04-30,0.0040,demo table
country premium Eastern Europe,2026-04-30,0.0230,demo table
country premium Americas,2026-04-30,0.0180,demo table
spread from cover 10,2026-01-02,0.0070,demo table; invented
spread from cover 6,2026-01-02,0.0110,demo table; invented
spread from cover 4,2026-01-02,0.0150,demo table; invented
spread from cover 2.5,2026-01-02,0.0230,demo table; invented
spread from cover 1.5,2026-01-02,0.0360,demo table; invented
spread from cover 0.5,2026-01-02,0.0650,demo table; invented
spread from cover -1000,2026-01-02,0.1200,demo table; invented
beta Dunmarrow Scales plc,2026-03-31,1.02,demo table; an outside estimate
tax NL,2026-01-01,0.2580,demo table
sector ev-ebitda Food machinery,2020-12-31,10.8,demo table; thirty companies
sector ev-ebitda Food machinery,2021-12-31,12.9,demo table; thirty companies
sector ev-ebitda Food machinery,2022-12-31,11.7,demo table; thirty companies
sector ev-ebitda Food machinery,2023-12-31,10.1,demo table; thirty companies
sector ev-ebitda Food machinery,2024-12-31,9.2,demo table; thirty companies
sector ev-ebitda Food machinery,2025-12-31,9.6,demo table; thirty companies
deal ev-ebitda Marnholt Sorting,2021-10-05,13.4,demo table; bought by a rival
deal ev-ebitda Quernby Dosing,2023-06-19,10.6,demo table; bought by a fund
deal ev-ebitda Aldermill Systems,2025-02-27,11.9,demo table; bought by a rival
)";
}

std::string estimateTable() {
  return R"(item,year,low,mean,high,count,date,source,by
revenue,2026,699000000,722000000,748000000,8,2026-01-30,demo table; before the annual report,analysts
revenue,2027,718000000,752000000,796000000,8,2026-01-30,demo table; before the annual report,analysts
revenue,2026,705000000,728000000,752000000,9,2026-04-24,demo table,analysts
revenue,2027,729000000,761000000,802000000,9,2026-04-24,demo table,analysts
revenue,2028,748000000,790000000,851000000,6,2026-04-24,demo table,analysts
cost_of_sales,2026,412000000,424000000,436000000,9,2026-04-24,demo table,analysts
cost_of_sales,2027,414000000,433000000,455000000,9,2026-04-24,demo table,analysts
cost_of_sales,2028,420000000,445000000,480000000,6,2026-04-24,demo table,analysts
operating_expenses,2026,214000000,222000000,229000000,7,2026-04-24,demo table,analysts
operating_expenses,2027,219000000,229000000,238000000,7,2026-04-24,demo table,analysts
operating_expenses,2028,223000000,232000000,248000000,5,2026-04-24,demo table,analysts
capex,2026,33000000,38000000,46000000,6,2026-04-24,demo table,analysts
capex,2027,34000000,39500000,48000000,6,2026-04-24,demo table,analysts
capex,2028,35000000,41000000,52000000,4,2026-04-24,demo table,analysts
revenue,2026,715000000,,735000000,,2026-03-18,annual report 2025; outlook,company
capex,2026,35000000,,40000000,,2026-03-18,annual report 2025; outlook,company
value_per_share,2027,640,820,1010,1,2026-03-26,"Corrigan Lisle; cash flows, 8.4 %",analysts
value_per_share,2027,,690,,1,2026-04-14,Hexley Partners; EV/EBITDA of peers,analysts
)";
}

}  // namespace demo
