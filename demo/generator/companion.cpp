// A peer of the demo that is a whole company of its book: statements of three years, a record, closes and estimates.
// What it is told by as a peer is then worked out from these, and nobody typed it a second time.

#include <cstdio>
#include <sstream>
#include <tuple>
#include <vector>

#include "demo/generator/writers.h"

namespace demo {
namespace {

/// In thousands; balances at the end of the year. It was listed in 2024 and sold shares again in 2025.
struct Statement {
  int year;
  int revenue, costOfSales, distribution, administration, research, depreciation, operatingProfit, interest, pretax,
      tax, profit;
  int cash, receivables, inventories, otherCurrent, plant, rightOfUse, intangibles, goodwill, assets;
  int payables, otherPayables, borrowings, leases, liabilities, equity;
  int stockPay, operatingCash, plantBought, leasePaid, dividends, sharesSold, movement, newLeases;
  int shares;
};

constexpr Statement kYears[] = {
    {2023,  120000, 63600, 15200, 10640, 9960, 4100, 16500, 1300,   15200, 4400,  10800,
     10397, 27500,  25000, 3200,  54397, 6100, 6400, 8000,  140994, 9500,  12733, 20000,
     6000,  48233,  92761, 1200,  15900, 7200, 1300, 0,     0,      7400,  1300,  16000},
    {2024,  141000, 74000,  17600, 12297, 11703, 4794, 20606, 1300,   19306, 5706,  13600,
     44936, 30000,  27000,  3600,  56984, 6100,  8920, 8000,  185540, 12000, 15000, 20000,
     6000,  53000,  132540, 1551,  19812, 8601,  1300, 5372,  30000,  34539, 1300,  17400},
    {2025,  168000, 88000,  21000, 14056, 13944, 5712,  25288, 1300,   23988, 6888,  17100,
     64000, 31980,  30000,  4100,  59480, 6200,  12160, 8000,  215920, 14000, 18000, 20000,
     6000,  58000,  157920, 1848,  24180, 10248, 1300,  6755,  13187,  19064, 1300,  18000}};

}  // namespace

std::string companionRecord() {
  return R"({
  "format": "zealous-ledger-company",
  "version": 1,
  "id": "ostravelle",
  "name": "Ostravelle Triage S.A.",
  "description": "Optical sorters for grain and seed; listed in 2024",
  "currency": "EUR",
  "listing": {"unit": "EUR", "currency": "EUR", "minor_per_major": 1, "shares_per_listed": 1},
  "shares": 18000000,
  "sector": "Machinery"
}
)";
}

std::string companionStatements() {
  std::ostringstream out;
  out << "concept,label,start,end,unit,decimals,value\n";
  for (const Statement& s : kYears) {
    const std::string start = std::to_string(s.year) + "-01-01", end = std::to_string(s.year) + "-12-31";
    const auto row = [&](const char* name, const char* label, int thousands, bool balance, const char* unit) {
      out << "ifrs-full:" << name << ",\"" << label << "\"," << (balance ? "" : start) << ',' << end << ',' << unit
          << ",-3," << thousands << "000\n";
    };
    const std::tuple<const char*, const char*, int> flows[] = {
        {"Revenue", "Revenue", s.revenue},
        {"CostOfSales", "Cost of sales, before depreciation", s.costOfSales},
        {"DistributionCosts", "Selling and distribution", s.distribution},
        {"AdministrativeExpense", "Administration", s.administration},
        {"ResearchAndDevelopmentExpense", "Research and development", s.research},
        {"DepreciationAndAmortisationExpense", "Depreciation and amortisation", s.depreciation},
        {"ProfitLossFromOperatingActivities", "Operating profit", s.operatingProfit},
        {"InterestExpense", "Interest expense", s.interest},
        {"ProfitLossBeforeTax", "Profit before tax", s.pretax},
        {"IncomeTaxExpenseContinuingOperations", "Income tax", s.tax},
        {"ProfitLoss", "Profit for the year", s.profit},
        {"AdjustmentsForSharebasedPayments", "Share-based pay", s.stockPay},
        {"CashFlowsFromUsedInOperatingActivities", "Cash flow from operations", s.operatingCash},
        {"PurchaseOfPropertyPlantAndEquipmentClassifiedAsInvestingActivities", "Plant bought", s.plantBought},
        {"PaymentsOfLeaseLiabilitiesClassifiedAsFinancingActivities", "Lease principal paid", s.leasePaid},
        {"DividendsPaidToEquityHoldersOfParentClassifiedAsFinancingActivities", "Dividends to shareholders",
         s.dividends},
        {"ProceedsFromIssuingShares", "Shares issued", s.sharesSold},
        {"IncreaseDecreaseInCashAndCashEquivalents", "Movement in cash", s.movement},
        {"AdditionsToRightofuseAssets", "New leases", s.newLeases}};
    const std::tuple<const char*, const char*, int> balances[] = {
        {"CashAndCashEquivalents", "Cash and cash equivalents", s.cash},
        {"TradeAndOtherCurrentReceivables", "Trade receivables", s.receivables},
        {"Inventories", "Inventories", s.inventories},
        {"OtherCurrentAssets", "Other current assets", s.otherCurrent},
        {"PropertyPlantAndEquipment", "Plant and equipment", s.plant},
        {"RightofuseAssets", "Right-of-use assets", s.rightOfUse},
        {"IntangibleAssetsOtherThanGoodwill", "Intangible assets", s.intangibles},
        {"Goodwill", "Goodwill", s.goodwill},
        {"Assets", "Total assets", s.assets},
        {"TradeAndOtherCurrentPayables", "Trade payables", s.payables},
        {"OtherCurrentLiabilities", "Other current liabilities", s.otherPayables},
        {"LongtermBorrowings", "Borrowings due later", s.borrowings},
        {"LeaseLiabilities", "Lease liabilities", s.leases},
        {"Liabilities", "Total liabilities", s.liabilities},
        {"EquityAttributableToOwnersOfParent", "Shareholders' equity", s.equity},
        {"Equity", "Total equity", s.equity}};
    for (const auto& [name, label, amount] : flows) row(name, label, amount, false, "EUR");
    for (const auto& [name, label, amount] : balances) row(name, label, amount, true, "EUR");
    row("NumberOfSharesOutstanding", "Shares outstanding", s.shares, true, "shares");
  }
  return out.str();
}

/// The closes that the table of series has of it.
std::string companionPrices(const std::string& series) {
  std::ostringstream out;
  out << "date,close\n";
  std::istringstream lines(series);
  for (std::string line; std::getline(lines, line);) {
    if (line.rfind("ostravelle,", 0) != 0) continue;
    const size_t date = line.find(',') + 1, level = line.find(',', date) + 1;
    out << line.substr(date, line.find(',', level) - date) << '\n';
  }
  out << "2026-04-30,22.6\n";
  return out.str();
}

std::string companionEstimates() {
  return R"(item,year,low,mean,high,count,date,source,by
revenue,2026,,173880000,,2,2026-04-24,demo table,analysts
revenue,2027,,181705000,,2,2026-04-24,demo table,analysts
revenue,2028,,188973000,,1,2026-04-24,demo table,analysts
ebitda,2026,,32727000,,2,2026-04-24,demo table,analysts
ebitda,2027,,34883000,,2,2026-04-24,demo table,analysts
ebitda,2028,,36750000,,1,2026-04-24,demo table,analysts
ebit,2026,,26815000,,2,2026-04-24,demo table,analysts
ebit,2027,,28705000,,2,2026-04-24,demo table,analysts
ebit,2028,,30290000,,1,2026-04-24,demo table,analysts
net_income_common,2026,,18414000,,2,2026-04-24,demo table,analysts
net_income_common,2027,,20020000,,2,2026-04-24,demo table,analysts
net_income_common,2028,,21310000,,1,2026-04-24,demo table,analysts
)";
}

}  // namespace demo
