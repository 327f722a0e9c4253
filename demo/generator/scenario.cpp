#include "demo/generator/scenario.h"

#include <cmath>

namespace demo {
namespace {

struct Drivers {
  double growth, cost, expense, capex, receivable, inventory, payable, exceptional, impairment, debt;
};

// An investment boom (2020 to 2022), then a recall (2024), then a plant closed and written down
// with a working-capital squeeze (2025).
constexpr Drivers kDrivers[] = {
    // growth cost   expense capex receiv invent payable except impair  net borrowing (thousands)
    {0.000, 0.570, 0.306, 0.042, 58, 96, 52, 0, 0, 2000},
    {0.050, 0.570, 0.305, 0.042, 58, 96, 52, 0, 0, 0},
    {0.040, 0.566, 0.303, 0.044, 57, 95, 52, 0, 0, -3000},
    {0.060, 0.562, 0.301, 0.045, 57, 94, 53, 0, 0, -2000},
    {0.070, 0.559, 0.300, 0.048, 56, 94, 53, 0, 0, 0},
    {0.030, 0.562, 0.302, 0.050, 57, 96, 52, 4100, 0, 5000},
    {0.110, 0.557, 0.293, 0.078, 58, 98, 54, 0, 0, 20000},
    {0.170, 0.552, 0.286, 0.094, 60, 102, 56, 0, 0, 38000},
    {0.140, 0.554, 0.287, 0.083, 62, 108, 55, 0, 0, 34000},
    {0.020, 0.562, 0.293, 0.056, 64, 115, 51, 0, 0, 12000},
    {-0.060, 0.579, 0.305, 0.044, 68, 126, 45, 21400, 0, 16000},
    {-0.030, 0.586, 0.309, 0.041, 73, 147, 40, 34300, 26500, 34000},
};

Thousands whole(double x) {
  return std::llround(x);
}

Thousands get(const Year& y, const char* line) {
  const auto found = y.find(line);
  return found == y.end() ? 0 : found->second;
}

Year opening() {
  Year y;
  y["revenue"] = 398000;
  y["cash"] = 46200;
  y["receivables"] = 63400;
  y["inventory"] = 58900;
  y["other_current_assets"] = 11900;
  y["plant"] = 121500;
  y["right_of_use"] = 18200;
  y["intangibles"] = 21400;
  y["goodwill"] = 38600;
  y["other_noncurrent_assets"] = 7300;
  y["payables"] = 31900;
  y["other_current_liabilities"] = 39800;
  y["debt"] = 92000;
  y["lease_liabilities"] = 18600;
  y["other_noncurrent_liabilities"] = 12700;
  y["minorities"] = 4100;
  Thousands assets = 0;
  for (const char* line : {"cash", "receivables", "inventory", "other_current_assets", "plant", "right_of_use",
                           "intangibles", "goodwill", "other_noncurrent_assets"}) {
    assets += y[line];
  }
  y["equity"] = assets - y["payables"] - y["other_current_liabilities"] - y["debt"] - y["lease_liabilities"] -
                y["other_noncurrent_liabilities"] - y["minorities"];
  y["shares"] = 60800;
  return y;
}

void incomeStatement(const Drivers& d, const Year& before, Year& y, bool first) {
  y["revenue"] = first ? 412000 : whole(static_cast<double>(get(before, "revenue")) * (1 + d.growth));
  const auto revenue = static_cast<double>(y["revenue"]);
  y["cost_of_sales"] = whole(revenue * d.cost);
  const Thousands expense = whole(revenue * d.expense);
  y["research"] = whole(revenue * 0.041);
  y["administration"] = whole(revenue * 0.088);
  y["distribution"] = expense - y["research"] - y["administration"];
  y["operating_expenses"] = expense;
  y["depreciation"] = whole(0.113 * static_cast<double>(get(before, "plant")) +
                            0.21 * static_cast<double>(get(before, "right_of_use")) +
                            0.14 * static_cast<double>(get(before, "intangibles")));
  y["exceptional_items"] = whole(d.exceptional);
  y["ebit"] = y["revenue"] - y["cost_of_sales"] - expense - y["depreciation"] - y["exceptional_items"];
  const double claims = static_cast<double>(get(before, "debt") + get(before, "lease_liabilities")) + d.debt / 2;
  y["interest_expense"] = whole(claims * (y["revenue"] > 700000 ? 0.047 : 0.039));
  y["interest_income"] = whole(static_cast<double>(get(before, "cash")) * 0.012);
  y["pretax_profit"] = y["ebit"] - y["interest_expense"] + y["interest_income"];
  y["tax"] = whole(static_cast<double>(y["pretax_profit"]) *
                   (y["pretax_profit"] > 0 ? 0.244 + 0.003 * static_cast<double>(y["year"] % 5) : 0.12));
  y["net_income"] = y["pretax_profit"] - y["tax"];
  y["minority_income"] = whole(static_cast<double>(y["net_income"]) * 0.028);
}

void cashFlow(const Drivers& d, const Year& before, Year& y) {
  const auto revenue = static_cast<double>(y["revenue"]);
  const auto cost = static_cast<double>(y["cost_of_sales"]);
  y["receivables"] = whole(d.receivable * revenue / 365);
  y["inventory"] = whole(d.inventory * cost / 365);
  y["payables"] = whole(d.payable * cost / 365);
  y["other_current_assets"] = whole(0.029 * revenue);
  y["other_current_liabilities"] = whole(0.097 * revenue);
  const Thousands tied =
      y["receivables"] + y["inventory"] + y["other_current_assets"] - y["payables"] - y["other_current_liabilities"];
  const Thousands tiedBefore = get(before, "receivables") + get(before, "inventory") +
                               get(before, "other_current_assets") - get(before, "payables") -
                               get(before, "other_current_liabilities");
  y["stock_pay"] = whole(0.0042 * revenue);
  y["operating_cash_flow"] =
      y["net_income"] + y["depreciation"] + whole(d.impairment) + y["stock_pay"] - (tied - tiedBefore);
  const Thousands capex = whole(d.capex * revenue);
  y["intangibles_bought"] = whole(0.14 * static_cast<double>(capex));
  y["disposals"] = whole(0.02 * static_cast<double>(capex));
  y["plant_bought"] = capex - y["intangibles_bought"] + y["disposals"];
  y["acquisitions"] = y["year"] == 2021 ? 18400 : 0;
  y["new_leases"] = whole(0.0102 * revenue);
  y["lease_principal"] = whole(0.215 * static_cast<double>(get(before, "lease_liabilities")));
  y["net_borrowing"] = whole(d.debt);
  const Thousands common = y["net_income"] - y["minority_income"];
  y["dividends"] =
      common > 0 ? whole((0.36 + 0.02 * static_cast<double>(y["year"] % 4)) * static_cast<double>(common)) : 4200;
  y["minority_dividends"] = y["minority_income"] > 0 ? whole(0.5 * static_cast<double>(y["minority_income"])) : 0;
  y["buybacks"] = y["year"] == 2019 ? 9000 : 0;
  y["net_cash_movement"] = y["operating_cash_flow"] - y["plant_bought"] - y["intangibles_bought"] + y["disposals"] -
                           y["acquisitions"] + y["net_borrowing"] - y["lease_principal"] - y["dividends"] -
                           y["minority_dividends"] - y["buybacks"];
}

void balanceSheet(const Drivers& d, const Year& before, Year& y) {
  const auto plantShare = static_cast<double>(get(before, "plant")) * 0.113;
  const auto leaseShare = static_cast<double>(get(before, "right_of_use")) * 0.21;
  const Thousands plantWear = whole(plantShare);
  const Thousands leaseWear = whole(leaseShare);
  y["cash"] = get(before, "cash") + y["net_cash_movement"];
  y["plant"] = get(before, "plant") + y["plant_bought"] - y["disposals"] - plantWear - whole(d.impairment);
  y["right_of_use"] = get(before, "right_of_use") + y["new_leases"] - leaseWear;
  y["intangibles"] = get(before, "intangibles") + y["intangibles_bought"] - (y["depreciation"] - plantWear - leaseWear);
  y["goodwill"] = get(before, "goodwill") + y["acquisitions"];
  y["other_noncurrent_assets"] = get(before, "other_noncurrent_assets");
  y["debt"] = get(before, "debt") + y["net_borrowing"];
  y["borrowings_current"] = y["debt"] / 6;
  y["borrowings_long"] = y["debt"] - y["borrowings_current"];
  y["lease_liabilities"] = get(before, "lease_liabilities") + y["new_leases"] - y["lease_principal"];
  y["other_noncurrent_liabilities"] = get(before, "other_noncurrent_liabilities");
  y["equity"] =
      get(before, "equity") + y["net_income"] - y["minority_income"] - y["dividends"] - y["buybacks"] + y["stock_pay"];
  y["minorities"] = get(before, "minorities") + y["minority_income"] - y["minority_dividends"];
  y["shares"] = get(before, "shares") + 60 - (y["year"] == 2019 ? 1100 : 0);
  y["total_assets"] = y["cash"] + y["receivables"] + y["inventory"] + y["other_current_assets"] + y["plant"] +
                      y["right_of_use"] + y["intangibles"] + y["goodwill"] + y["other_noncurrent_assets"];
  y["total_liabilities"] = y["payables"] + y["other_current_liabilities"] + y["debt"] + y["lease_liabilities"] +
                           y["other_noncurrent_liabilities"];
  y["total_equity"] = y["equity"] + y["minorities"];
}

/// Revenue of 6.2 million was first booked in 2022 and belonged to 2023's backlog.
Year asFirstFiled(Year y) {
  const Thousands early = 6200;
  const Thousands tax = 1581;
  for (const char* line : {"revenue", "ebit", "pretax_profit", "receivables", "total_assets"}) y[line] += early;
  y["tax"] += tax;
  y["other_current_liabilities"] += tax;
  y["total_liabilities"] += tax;
  for (const char* line : {"net_income", "equity", "total_equity"}) y[line] += early - tax;
  return y;
}

}  // namespace

Story simulate() {
  Story story;
  Year before = opening();
  int number = story.firstYear;
  for (const Drivers& d : kDrivers) {
    Year y;
    y["year"] = number;
    incomeStatement(d, before, y, number == story.firstYear);
    cashFlow(d, before, y);
    balanceSheet(d, before, y);
    if (number == 2022) story.restated2022AsFirstFiled = asFirstFiled(y);
    story.years.push_back(y);
    before = y;
    ++number;
  }
  return story;
}

double Random::uniform() {
  unsigned long long z = (state_ += 0x9E3779B97F4A7C15ull);
  z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9ull;
  z = (z ^ (z >> 27)) * 0x94D049BB133111EBull;
  return (static_cast<double>((z ^ (z >> 31)) >> 11) + 0.5) * 0x1p-53;
}

double Random::normal() {
  double sum = -6;
  for (int i = 0; i < 12; ++i) sum += uniform();
  return sum;
}

}  // namespace demo
