#include "tests/services/stranger_filings.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "tests/support/archive_maker.h"

namespace zl::test {
namespace {

/// A row of a tagged statement. What it is a part of, and with which weight; the wider concept of an own one.
struct Tagged {
  char part;  ///< of the report: Income, Balance, Cash flow
  const char* name;
  const char* label;
  const char* figure;
  const char* sum = "";
  int weight = 1;
  const char* wider = "";
};

// The operating flow counts net income from the income statement, as tagged reports do.
constexpr Tagged kUs[] = {
    {'I', "us-gaap:RevenueFromContractWithCustomerExcludingAssessedTax", "Net sales", "Revenue", "us-gaap:GrossProfit"},
    {'I', "us-gaap:CostOfGoodsAndServicesSold", "Cost of sales", "SalesCostWithWear", "us-gaap:GrossProfit", -1},
    {'I', "us-gaap:GrossProfit", "Gross margin", "GrossWithWear", "us-gaap:OperatingIncomeLoss"},
    {'I', "us-gaap:SellingGeneralAndAdministrativeExpense", "Selling, general and administrative", "OverheadWithWear",
     "us-gaap:OperatingIncomeLoss", -1},
    {'I', "us-gaap:OperatingIncomeLoss", "Operating income", "Ebit",
     "us-gaap:IncomeLossFromContinuingOperationsBeforeIncomeTaxesExtraordinaryItemsNoncontrollingInterest"},
    {'I', "us-gaap:InterestExpense", "Interest expense", "Interest",
     "us-gaap:IncomeLossFromContinuingOperationsBeforeIncomeTaxesExtraordinaryItemsNoncontrollingInterest", -1},
    {'I', "us-gaap:InvestmentIncomeInterest", "Interest income", "InterestIncome",
     "us-gaap:IncomeLossFromContinuingOperationsBeforeIncomeTaxesExtraordinaryItemsNoncontrollingInterest"},
    {'I', "us-gaap:IncomeLossFromContinuingOperationsBeforeIncomeTaxesExtraordinaryItemsNoncontrollingInterest",
     "Income before income taxes", "Pretax", "us-gaap:NetIncomeLoss"},
    {'I', "us-gaap:IncomeTaxExpenseBenefit", "Provision for income taxes", "Tax", "us-gaap:NetIncomeLoss", -1},
    {'I', "us-gaap:NetIncomeLoss", "Net income", "Net"},
    {'I', "us-gaap:WeightedAverageNumberOfDilutedSharesOutstanding", "Diluted shares", "Shares"},
    {'B', "us-gaap:CashAndCashEquivalentsAtCarryingValue", "Cash and cash equivalents", "Cash",
     "us-gaap:AssetsCurrent"},
    {'B', "us-gaap:AccountsReceivableNetCurrent", "Accounts receivable, net", "Receivables", "us-gaap:AssetsCurrent"},
    {'B', "us-gaap:InventoryNet", "Inventories", "Inventory", "us-gaap:AssetsCurrent"},
    {'B', "us-gaap:PrepaidExpenseAndOtherAssetsCurrent", "Other current assets", "OtherCurrent",
     "us-gaap:AssetsCurrent"},
    {'B', "us-gaap:AssetsCurrent", "Total current assets", "CurrentAssets", "us-gaap:Assets"},
    {'B', "us-gaap:PropertyPlantAndEquipmentNet", "Property, plant and equipment, net", "Plant", "us-gaap:Assets"},
    {'B', "us-gaap:OperatingLeaseRightOfUseAsset", "Operating lease assets", "RightOfUse", "us-gaap:Assets"},
    {'B', "us-gaap:Goodwill", "Goodwill", "Goodwill", "us-gaap:Assets"},
    {'B', "us-gaap:Assets", "Total assets", "Assets"},
    {'B', "us-gaap:AccountsPayableCurrent", "Accounts payable", "Payables", "us-gaap:LiabilitiesCurrent"},
    {'B', "own:AccruedCompensationAndOtherCosts", "Accrued compensation and other", "OtherOwed",
     "us-gaap:LiabilitiesCurrent"},
    {'B', "us-gaap:LongTermDebtCurrent", "Current portion of debt", "DebtCurrent", "us-gaap:LiabilitiesCurrent"},
    {'B', "us-gaap:LiabilitiesCurrent", "Total current liabilities", "CurrentOwed", "us-gaap:Liabilities"},
    {'B', "us-gaap:LongTermDebtNoncurrent", "Long-term debt", "DebtLong", "us-gaap:Liabilities"},
    {'B', "us-gaap:OperatingLeaseLiabilityNoncurrent", "Operating lease liabilities", "Leases", "us-gaap:Liabilities"},
    {'B', "us-gaap:Liabilities", "Total liabilities", "Owed", "us-gaap:LiabilitiesAndStockholdersEquity"},
    {'B', "us-gaap:StockholdersEquity", "Total stockholders' equity", "Equity",
     "us-gaap:LiabilitiesAndStockholdersEquity"},
    {'B', "us-gaap:LiabilitiesAndStockholdersEquity", "Total liabilities and stockholders' equity", "Assets"},
    {'C', "us-gaap:NetIncomeLoss", "Net income", "Net", "us-gaap:NetCashProvidedByUsedInOperatingActivities"},
    {'C', "us-gaap:DepreciationDepletionAndAmortization", "Depreciation and amortization", "Depreciation",
     "us-gaap:NetCashProvidedByUsedInOperatingActivities"},
    {'C', "us-gaap:IncreaseDecreaseInOperatingCapital", "Changes in operating capital", "-WorkingCapitalFlow",
     "us-gaap:NetCashProvidedByUsedInOperatingActivities", -1},
    {'C', "us-gaap:NetCashProvidedByUsedInOperatingActivities", "Cash from operating activities", "OperatingFlow",
     "us-gaap:CashAndCashEquivalentsPeriodIncreaseDecrease"},
    {'C', "us-gaap:PaymentsToAcquirePropertyPlantAndEquipment", "Capital expenditures", "Capex",
     "us-gaap:NetCashProvidedByUsedInInvestingActivities", -1},
    {'C', "us-gaap:NetCashProvidedByUsedInInvestingActivities", "Cash used in investing activities", "-Capex",
     "us-gaap:CashAndCashEquivalentsPeriodIncreaseDecrease"},
    {'C', "us-gaap:ProceedsFromRepaymentsOfDebt", "Net change in debt", "Borrowed",
     "us-gaap:NetCashProvidedByUsedInFinancingActivities"},
    {'C', "us-gaap:PaymentsOfDividends", "Dividends paid", "Dividends",
     "us-gaap:NetCashProvidedByUsedInFinancingActivities", -1},
    {'C', "us-gaap:NetCashProvidedByUsedInFinancingActivities", "Cash used in financing activities", "FinancingFlow",
     "us-gaap:CashAndCashEquivalentsPeriodIncreaseDecrease"},
    {'C', "us-gaap:CashAndCashEquivalentsPeriodIncreaseDecrease", "Change in cash", "Movement"},
};

constexpr Tagged kEuBalance[] = {
    {'B', "ifrs-full:PropertyPlantAndEquipment", "Property, plant and equipment", "Plant",
     "ifrs-full:NoncurrentAssets"},
    {'B', "ifrs-full:Goodwill", "Goodwill", "Goodwill", "ifrs-full:NoncurrentAssets"},
    {'B', "ifrs-full:NoncurrentAssets", "Total non-current assets", "FixedAssets", "ifrs-full:Assets"},
    {'B', "ifrs-full:Inventories", "Inventories", "Inventory", "ifrs-full:CurrentAssets"},
    {'B', "ifrs-full:TradeAndOtherCurrentReceivables", "Trade receivables", "Receivables", "ifrs-full:CurrentAssets"},
    {'B', "ifrs-full:OtherCurrentNonfinancialAssets", "Other current assets", "OtherCurrent",
     "ifrs-full:CurrentAssets"},
    {'B', "ifrs-full:CashAndCashEquivalents", "Cash", "Cash", "ifrs-full:CurrentAssets"},
    {'B', "ifrs-full:CurrentAssets", "Total current assets", "CurrentAssets", "ifrs-full:Assets"},
    {'B', "ifrs-full:Assets", "Total assets", "Assets"},
    {'B', "ifrs-full:Equity", "Total equity", "Equity", "ifrs-full:EquityAndLiabilities"},
    {'B', "ifrs-full:LongtermBorrowings", "Long-term borrowings", "DebtLong", "ifrs-full:NoncurrentLiabilities"},
    {'B', "ifrs-full:NoncurrentLiabilities", "Total non-current liabilities", "DebtLong", "ifrs-full:Liabilities"},
    {'B', "ifrs-full:TradeAndOtherCurrentPayables", "Trade payables", "Payables", "ifrs-full:CurrentLiabilities"},
    {'B', "own:PersonnelAndSundryLiabilities", "Personnel and sundry liabilities", "OtherOwed",
     "ifrs-full:CurrentLiabilities", 1, "ifrs-full:OtherCurrentNonfinancialLiabilities"},
    {'B', "ifrs-full:CurrentBorrowingsAndCurrentPortionOfNoncurrentBorrowings", "Short-term borrowings", "DebtCurrent",
     "ifrs-full:CurrentLiabilities"},
    {'B', "ifrs-full:CurrentLiabilities", "Total current liabilities", "CurrentOwed", "ifrs-full:Liabilities"},
    {'B', "ifrs-full:Liabilities", "Total liabilities", "Owed", "ifrs-full:EquityAndLiabilities"},
    {'B', "ifrs-full:EquityAndLiabilities", "Total equity and liabilities", "Assets"},
    {'B', "ifrs-full:NumberOfSharesOutstanding", "Shares outstanding", "Shares"},
    {'C', "ifrs-full:CashFlowsFromUsedInOperatingActivities", "Cash flow from operations", "OperatingFlow",
     "ifrs-full:IncreaseDecreaseInCashAndCashEquivalents"},
    {'C', "ifrs-full:PurchaseOfPropertyPlantAndEquipmentClassifiedAsInvestingActivities", "Capital expenditure",
     "Capex", "ifrs-full:CashFlowsFromUsedInInvestingActivities", -1},
    {'C', "ifrs-full:CashFlowsFromUsedInInvestingActivities", "Cash flow from investing", "-Capex",
     "ifrs-full:IncreaseDecreaseInCashAndCashEquivalents"},
    {'C', "own:NetMovementOfBorrowings", "Net movement of borrowings", "Borrowed",
     "ifrs-full:CashFlowsFromUsedInFinancingActivities", 1,
     "ifrs-full:ProceedsFromBorrowingsClassifiedAsFinancingActivities"},
    {'C', "ifrs-full:DividendsPaidClassifiedAsFinancingActivities", "Dividends paid", "Dividends",
     "ifrs-full:CashFlowsFromUsedInFinancingActivities", -1},
    {'C', "ifrs-full:CashFlowsFromUsedInFinancingActivities", "Cash flow from financing", "FinancingFlow",
     "ifrs-full:IncreaseDecreaseInCashAndCashEquivalents"},
    {'C', "ifrs-full:IncreaseDecreaseInCashAndCashEquivalents", "Change in cash", "Movement"},
};

constexpr Tagged kEuResult[] = {
    {'I', "ifrs-full:ProfitLossFromOperatingActivities", "Operating profit", "Ebit", "ifrs-full:ProfitLossBeforeTax"},
    {'I', "ifrs-full:FinanceIncome", "Finance income", "InterestIncome", "ifrs-full:ProfitLossBeforeTax"},
    {'I', "ifrs-full:FinanceCosts", "Finance costs", "Interest", "ifrs-full:ProfitLossBeforeTax", -1},
    {'I', "ifrs-full:ProfitLossBeforeTax", "Profit before tax", "Pretax", "ifrs-full:ProfitLoss"},
    {'I', "ifrs-full:IncomeTaxExpenseContinuingOperations", "Income tax", "Tax", "ifrs-full:ProfitLoss", -1},
    {'I', "ifrs-full:ProfitLoss", "Profit for the year", "Net"},
};

constexpr Tagged kEuFunction[] = {
    {'I', "ifrs-full:Revenue", "Revenue", "Revenue", "ifrs-full:GrossProfit"},
    {'I', "ifrs-full:CostOfSales", "Cost of sales", "CostOfSales", "ifrs-full:GrossProfit", -1},
    {'I', "ifrs-full:GrossProfit", "Gross profit", "Gross", "ifrs-full:ProfitLossFromOperatingActivities"},
    {'I', "own:SalesAndHeadOfficeExpenses", "Sales and head office", "Overhead",
     "ifrs-full:ProfitLossFromOperatingActivities", -1, "ifrs-full:SellingGeneralAndAdministrativeExpense"},
    {'I', "ifrs-full:DepreciationAndAmortisationExpense", "Depreciation and amortisation", "Depreciation",
     "ifrs-full:ProfitLossFromOperatingActivities", -1},
};

constexpr Tagged kEuNature[] = {
    {'I', "ifrs-full:Revenue", "Chiffre d'affaires", "Revenue", "ifrs-full:ProfitLossFromOperatingActivities"},
    {'I', "ifrs-full:RawMaterialsAndConsumablesUsed", "Achats consommés", "CostOfSales",
     "ifrs-full:ProfitLossFromOperatingActivities", -1},
    {'I', "ifrs-full:EmployeeBenefitsExpense", "Charges de personnel", "Staff",
     "ifrs-full:ProfitLossFromOperatingActivities", -1},
    {'I', "own:AutresChargesDExploitation", "Autres charges", "OtherOverhead",
     "ifrs-full:ProfitLossFromOperatingActivities", -1, "ifrs-full:OtherExpenseByNature"},
    {'I', "ifrs-full:DepreciationAndAmortisationExpense", "Dotations aux amortissements", "Depreciation",
     "ifrs-full:ProfitLossFromOperatingActivities", -1},
};

using Rows = std::vector<Tagged>;

template <size_t... N>
Rows rowsOf(const Tagged (&... parts)[N]) {
  Rows rows;
  (rows.insert(rows.end(), std::begin(parts), std::end(parts)), ...);
  return rows;
}

/// How a filer tags: its taxonomy, year ends, what a figure is printed in.
struct Manner {
  Rows rows;
  std::string ownName, file;
  std::string currency;
  int scale = 6;
  std::string (*yearEnd)(int year) = nullptr;
  int flows = 3, balances = 2;  ///< years in one report
  bool european = false;
};

std::string septemberEnd(int year) {
  return std::to_string(year) + "-09-" + std::to_string(lastSaturdayOfSeptember(year));
}
std::string decemberEnd(int year) {
  return std::to_string(year) + "-12-31";
}
std::string marchEnd(int year) {
  return std::to_string(year) + "-03-31";
}

std::string dayAfter(const std::string& end) {
  if (end.substr(5) == "12-31") return std::to_string(std::stoi(end) + 1) + "-01-01";
  if (end.substr(5) == "03-31") return end.substr(0, 4) + "-04-01";
  if (end.substr(8) == "30") return end.substr(0, 4) + "-10-01";
  return end.substr(0, 8) + std::to_string(std::stoi(end.substr(8)) + 1);
}

constexpr const char* kLink =
    "xmlns:link=\"http://www.xbrl.org/2003/linkbase\" xmlns:xlink=\"http://www.w3.org/1999/xlink\"";

/// One report: its page, its schema and its linkbases.
class Report {
 public:
  Report(const StrangerFilings& filings, const Manner& manner, int year)
      : company_(filings), manner_(manner), year_(year) {
    const auto& years = company_.stranger.economy.years;
    first_ = company_.stranger.lastYear - static_cast<int>(years.size()) + 1;
  }

  [[nodiscard]] std::string stem() const { return manner_.file + "-" + std::to_string(year_); }

  [[nodiscard]] std::string page() const {
    std::string body = cover();
    for (const char part : {'I', 'B', 'C'}) {
      body += "<table>";
      for (const Tagged& row : manner_.rows) {
        if (row.part == part) body += tableRow(row);
      }
      body += "</table>";
    }
    return "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<html xmlns=\"http://www.w3.org/1999/xhtml\" "
           "xmlns:ix=\"http://www.xbrl.org/2013/inlineXBRL\" "
           "xmlns:ixt=\"http://www.xbrl.org/inlineXBRL/transformation/2020-02-12\" "
           "xmlns:xbrli=\"http://www.xbrl.org/2003/instance\" xmlns:iso4217=\"http://www.xbrl.org/2003/iso4217\" " +
           std::string(kLink) +
           " xmlns:dei=\"http://xbrl.sec.gov/dei/2024\" xmlns:us-gaap=\"http://fasb.org/us-gaap/2024\" "
           "xmlns:ifrs-full=\"http://xbrl.ifrs.org/taxonomy/2022-03-24/ifrs-full\" xmlns:own=\"http://" +
           manner_.file + ".example/" + std::to_string(year_) + "\"><head><title>" + company_.name +
           "</title></head><body><div style=\"display:none\"><ix:header><ix:references><link:schemaRef "
           "xlink:type=\"simple\" xlink:href=\"" +
           stem() + ".xsd\"/></ix:references><ix:resources>" + resources() + "</ix:resources></ix:header></div>" +
           body + "</body></html>";
  }

  [[nodiscard]] std::string schema() const {
    std::string elements;
    for (const Tagged& row : manner_.rows) {
      const std::string name = row.name;
      if (name.rfind("own:", 0) != 0) continue;
      elements += "<xs:element id=\"own_" + name.substr(4) + "\" name=\"" + name.substr(4) +
                  "\" type=\"xbrli:monetaryItemType\" substitutionGroup=\"xbrli:item\" xbrli:periodType=\"" +
                  (row.part == 'B' ? "instant" : "duration") + "\"/>";
    }
    return "<?xml version=\"1.0\"?><xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\" "
           "xmlns:xbrli=\"http://www.xbrl.org/2003/instance\" targetNamespace=\"http://" +
           manner_.file + ".example/" + std::to_string(year_) + "\">" + elements + "</xs:schema>";
  }

  [[nodiscard]] std::string calculation() const {
    std::string links;
    for (const char part : {'I', 'B', 'C'}) {
      std::string arcs;
      std::set<std::string> named;
      for (const Tagged& row : manner_.rows) {
        if (row.part != part || *row.sum == 0) continue;
        arcs +=
            "<link:calculationArc xlink:type=\"arc\" "
            "xlink:arcrole=\"http://www.xbrl.org/2003/arcrole/summation-item\" xlink:from=\"" +
            id(row.sum) + "\" xlink:to=\"" + id(row.name) + "\" weight=\"" + std::to_string(row.weight) +
            "\" order=\"1\"/>";
        named.insert({row.sum, row.name});
      }
      links += "<link:calculationLink xlink:type=\"extended\" xlink:role=\"http://" + manner_.file + ".example/role/" +
               part + "\">" + locators(named) + arcs + "</link:calculationLink>";
    }
    return linkbase(links);
  }

  [[nodiscard]] std::string presentation() const {
    std::string links;
    for (const char part : {'I', 'B', 'C'}) {
      std::string arcs;
      std::set<std::string> named{"own:StatementAbstract"};
      for (const Tagged& row : manner_.rows) {
        if (row.part != part) continue;
        arcs +=
            "<link:presentationArc xlink:type=\"arc\" "
            "xlink:arcrole=\"http://www.xbrl.org/2003/arcrole/parent-child\" "
            "xlink:from=\"own_StatementAbstract\" xlink:to=\"" +
            id(row.name) + "\"/>";
        named.insert(row.name);
      }
      links += "<link:presentationLink xlink:type=\"extended\">" + locators(named) + arcs + "</link:presentationLink>";
    }
    return linkbase(links);
  }

  /// Anchors of own concepts, as European rules want them.
  [[nodiscard]] std::string definition() const {
    std::string arcs;
    std::set<std::string> named;
    for (const Tagged& row : manner_.rows) {
      if (*row.wider == 0) continue;
      arcs +=
          "<link:definitionArc xlink:type=\"arc\" "
          "xlink:arcrole=\"http://www.esma.europa.eu/xbrl/esef/arcrole/wider-narrower\" xlink:from=\"" +
          id(row.wider) + "\" xlink:to=\"" + id(row.name) + "\"/>";
      named.insert({row.wider, row.name});
    }
    return linkbase("<link:definitionLink xlink:type=\"extended\">" + locators(named) + arcs +
                    "</link:definitionLink>");
  }

  [[nodiscard]] std::string labels() const {
    std::string links;
    for (const Tagged& row : manner_.rows) {
      if (std::string(row.name).rfind("own:", 0) != 0) continue;
      links += locators({row.name}) + "<link:label xlink:type=\"resource\" xlink:label=\"l_" + id(row.name) +
               "\" xlink:role=\"http://www.xbrl.org/2003/role/label\" xml:lang=\"en\">" + row.label +
               "</link:label><link:labelArc xlink:type=\"arc\" "
               "xlink:arcrole=\"http://www.xbrl.org/2003/arcrole/concept-label\" xlink:from=\"" +
               id(row.name) + "\" xlink:to=\"l_" + id(row.name) + "\"/>";
    }
    return linkbase("<link:labelLink xlink:type=\"extended\">" + links + "</link:labelLink>");
  }

 private:
  static std::string id(std::string name) {
    std::replace(name.begin(), name.end(), ':', '_');
    return name;
  }
  [[nodiscard]] std::string locators(const std::set<std::string>& names) const {
    std::string all;
    for (const std::string& name : names) {
      const std::string where = name.rfind("own:", 0) == 0 ? stem() + ".xsd" : "https://taxonomy.example/core.xsd";
      all += "<link:loc xlink:type=\"locator\" xlink:label=\"" + id(name) + "\" xlink:href=\"" + where + "#" +
             id(name) + "\"/>";
    }
    return all;
  }
  static std::string linkbase(const std::string& links) {
    return "<?xml version=\"1.0\" encoding=\"UTF-8\"?><link:linkbase " + std::string(kLink) + ">" + links +
           "</link:linkbase>";
  }

  [[nodiscard]] std::string cover() const {
    const std::string context = "contextRef=\"d" + std::to_string(year_) + "\"";
    if (manner_.european) {
      return "<p><ix:nonNumeric name=\"ifrs-full:NameOfReportingEntityOrOtherMeansOfIdentification\" " + context + ">" +
             company_.name + "</ix:nonNumeric></p>";
    }
    return "<p><ix:nonNumeric name=\"dei:DocumentType\" " + context +
           ">10-K</ix:nonNumeric> <ix:nonNumeric name=\"dei:EntityRegistrantName\" " + context + ">" + company_.name +
           "</ix:nonNumeric> <ix:nonNumeric name=\"dei:EntityIncorporationStateCountryCode\" " + context +
           ">DE</ix:nonNumeric> <ix:nonFraction name=\"dei:EntityCommonStockSharesOutstanding\" contextRef=\"cover\" "
           "unitRef=\"shares\" decimals=\"INF\" scale=\"0\" format=\"ixt:num-dot-decimal\">" +
           digits(std::lround(coverCount())) + "</ix:nonFraction> shares</p>";
  }
  [[nodiscard]] double coverCount() const {
    return static_cast<double>(company_.stranger.economy.years[static_cast<size_t>(year_ - first_)].shares) *
           company_.stranger.shareUnit * 1.01;
  }

  [[nodiscard]] std::string tableRow(const Tagged& row) const {
    std::string cells;
    const bool count = std::string(row.figure) == "Shares";
    for (int year = year_; year > year_ - (row.part == 'B' ? manner_.balances : manner_.flows) && year >= first_;
         --year) {
      const long figure = figureOf(company_.stranger.economy.years[static_cast<size_t>(year - first_)], row.figure);
      const std::string number = digits(figure < 0 ? -figure : figure);
      cells += "<td>" + std::string(figure < 0 ? "(" : "") + "<ix:nonFraction name=\"" + row.name + "\" contextRef=\"" +
               (row.part == 'B' ? "i" : "d") + std::to_string(year) + "\" unitRef=\"" + (count ? "shares" : "money") +
               "\" decimals=\"" + std::to_string(-manner_.scale) + "\" scale=\"" + std::to_string(manner_.scale) +
               "\" format=\"ixt:" + (manner_.european ? "num-comma-decimal" : "num-dot-decimal") + "\"" +
               (figure < 0 ? " sign=\"-\"" : "") + ">" + number + "</ix:nonFraction>" + (figure < 0 ? ")" : "") +
               "</td>";
    }
    return "<tr><td>" + std::string(row.label) + "</td>" + cells + "</tr>";
  }
  [[nodiscard]] std::string digits(long x) const {
    std::string all = std::to_string(x);
    for (auto at = static_cast<int>(all.size()) - 3; at > 0; at -= 3) {
      all.insert(static_cast<size_t>(at), 1, manner_.european ? '.' : ',');
    }
    return all;
  }

  [[nodiscard]] std::string resources() const {
    const std::string entity = "<xbrli:entity><xbrli:identifier scheme=\"http://standards.iso.org/iso/17442\">" +
                               manner_.file + "</xbrli:identifier></xbrli:entity>";
    std::string all;
    for (int year = year_; year > year_ - manner_.flows && year >= first_; --year) {
      const std::string y = std::to_string(year);
      const std::string end = manner_.yearEnd(year);
      all += "<xbrli:context id=\"d" + y + "\">" + entity + "<xbrli:period><xbrli:startDate>" +
             dayAfter(manner_.yearEnd(year - 1)) + "</xbrli:startDate><xbrli:endDate>" + end +
             "</xbrli:endDate></xbrli:period></xbrli:context><xbrli:context id=\"i" + y + "\">" + entity +
             "<xbrli:period><xbrli:instant>" + end + "</xbrli:instant></xbrli:period></xbrli:context>";
    }
    all += "<xbrli:context id=\"cover\">" + entity + "<xbrli:period><xbrli:instant>" + std::to_string(year_ + 1) +
           "-01-31</xbrli:instant></xbrli:period></xbrli:context>";
    return all + "<xbrli:unit id=\"money\"><xbrli:measure>iso4217:" + manner_.currency +
           "</xbrli:measure></xbrli:unit><xbrli:unit "
           "id=\"shares\"><xbrli:measure>xbrli:shares</xbrli:measure></xbrli:unit>";
  }

  const StrangerFilings& company_;
  const Manner& manner_;
  int year_, first_;
};

std::pair<std::string, std::string> packageOf(const Report& r, bool european) {
  const std::string stem = r.stem();
  if (!european) {
    return {stem + ".zip", archiveOf({{stem + ".htm", r.page()},
                                      {stem + ".xsd", r.schema()},
                                      {stem + "_cal.xml", r.calculation()},
                                      {stem + "_def.xml", r.definition()},
                                      {stem + "_lab.xml", r.labels()},
                                      {stem + "_pre.xml", r.presentation()},
                                      {"ex-31.htm", "<html><body><p>I certify what is above.</p></body></html>"},
                                      {"logo.jpg", "\xFF\xD8\xFF"}})};
  }
  return {stem + ".xbri",
          archiveOf({{stem + "/META-INF/reportPackage.json",
                      "{\"documentInfo\":{\"documentType\":\"https://xbrl.org/report-package/2023/xbri\"}}"},
                     {stem + "/META-INF/taxonomyPackage.xml", "<?xml version=\"1.0\"?><taxonomyPackage/>"},
                     {stem + "/reports/" + stem + ".xhtml", r.page()},
                     {stem + "/own.example/" + stem + ".xsd", r.schema()},
                     {stem + "/own.example/" + stem + "_cal.xml", r.calculation()},
                     {stem + "/own.example/" + stem + "_def.xml", r.definition()},
                     {stem + "/own.example/" + stem + "_lab-en.xml", r.labels()},
                     {stem + "/own.example/" + stem + "_pre.xml", r.presentation()}})};
}

void writePackages(StrangerFilings& f, const Manner& manner) {
  const int count = static_cast<int>(f.stranger.economy.years.size());
  for (int year = f.stranger.lastYear - count + manner.balances; year <= f.stranger.lastYear; ++year) {
    f.files.push_back(packageOf(Report(f, manner, year), manner.european));
  }
  if (!manner.european) {
    f.count = std::round(static_cast<double>(f.stranger.economy.years.back().shares) * f.stranger.shareUnit * 1.01);
  }
}

std::string xmlText(const std::string& text) {
  std::string out;
  for (const char c : text) out += c == '&' ? "&amp;" : c == '<' ? "&lt;" : std::string(1, c);
  return out;
}

/// The table as a page pastes it: a sign of the currency in a cell of its own, brackets as text, residues of binary
/// arithmetic, and amounts a share in pence below.
std::string penceWorkbook(const Stranger& s) {
  std::string rows;
  int at = 0;
  const auto text = [](const std::string& t) { return "<c t=\"inlineStr\"><is><t>" + xmlText(t) + "</t></is></c>"; };
  std::string line;
  const auto flush = [&](const std::string& cells) {
    rows += "<row r=\"" + std::to_string(++at) + "\">" + cells + "</row>";
  };
  flush(text("Five-year record and more"));
  for (size_t begin = 0; begin < s.csv.size();) {
    const size_t end = s.csv.find('\n', begin);
    line = s.csv.substr(begin, end - begin);
    begin = end + 1;
    std::string cells;
    bool first = true;
    for (size_t from = 0; from <= line.size();) {
      const size_t to = std::min(line.find(';', from), line.size());
      std::string cell = line.substr(from, to - from);
      from = to + 1;
      const bool number = !first && !cell.empty() && cell.find_first_not_of("0123456789,()") == std::string::npos;
      if (first || !number) {
        cells += cell.empty() ? "<c/>" : text(cell);
        if (!first) cells += "<c/>";
      } else {
        cells += text("£");
        if (cell.front() == '(') {
          cells += text(cell);
        } else {
          std::erase(cell, ',');
          cells += "<c><v>" + cell + (cell == "0" ? "" : ".00000000000001") + "</v></c>";
        }
      }
      first = false;
    }
    flush(cells);
  }
  std::string perShare = text("Dividend per share (pence)");
  for (size_t i = s.economy.years.size(); i-- > 0;) {
    const EconomyYear& y = s.economy.years[i];
    const double pence = 100 * static_cast<double>(y.dividends) / static_cast<double>(y.shares);
    perShare += text("p") + "<c><v>" + std::to_string(pence) + "</v></c>";
  }
  flush(perShare);
  return XlsxParts{.sheetData = rows, .strings = "", .sheetName = "Record"}.bytes();
}

/// Facts of a company in arrays; every year once more in the report after it.
std::string yenFacts(const StrangerFilings& f, const Rows& rows) {
  const Stranger& s = f.stranger;
  const int first = s.lastYear - static_cast<int>(s.economy.years.size()) + 1;
  std::string all;
  std::set<std::string> written;
  for (const Tagged& row : rows) {
    // Own concepts are not in such arrays: what they hold shows in the totals alone.
    const std::string name = row.name;
    if (name.rfind("us-gaap:", 0) != 0 || !written.insert(name).second) continue;
    const bool count = std::string(row.figure) == "Shares";
    std::string amounts;
    for (size_t i = 0; i < s.economy.years.size(); ++i) {
      const int year = first + static_cast<int>(i);
      const long long amount = static_cast<long long>(figureOf(s.economy.years[i], row.figure)) *
                               static_cast<long long>(count ? s.shareUnit : s.unit);
      for (const int later : {0, 1}) {
        if (year + later > s.lastYear) continue;
        amounts += std::string(amounts.empty() ? "" : ",") + "{" +
                   (row.part == 'B' ? "" : "\"start\":\"" + dayAfter(marchEnd(year - 1)) + "\",") + "\"end\":\"" +
                   marchEnd(year) + "\",\"val\":" + std::to_string(amount) + ",\"accn\":\"0000000000-" +
                   std::to_string(year + later) + "\",\"fy\":" + std::to_string(year + later) +
                   ",\"fp\":\"FY\",\"form\":\"20-F\",\"filed\":\"" + std::to_string(year + later) + "-06-24\"" +
                   (later == 1 ? ",\"frame\":\"CY" + std::to_string(year) + "\"" : "") + "}";
      }
    }
    all += std::string(all.empty() ? "" : ",") + "\"" + name.substr(8) + "\":{\"label\":\"" + row.label +
           "\",\"description\":null,\"units\":{\"" + (count ? "shares" : s.currency) + "\":[" + amounts + "]}}";
  }
  return "{\"cik\":1234567,\"entityName\":\"" + f.name +
         "\",\"facts\":{\"dei\":{\"EntityCommonStockSharesOutstanding\":{\"label\":\"Shares\",\"units\":{\"shares\":[{"
         "\"end\":\"" +
         marchEnd(s.lastYear) + "\",\"val\":" + std::to_string(std::llround(f.count)) +
         ",\"form\":\"20-F\",\"filed\":\"" + std::to_string(s.lastYear) + "-06-24\"}]}}},\"us-gaap\":{" + all + "}}}";
}

}  // namespace

StrangerFilings filingsOf(Filed filed, std::uint64_t seed) {
  StrangerFilings f;
  switch (filed) {
    case Filed::UsPackages:
      f.name = "Fernlake Tooling, Inc.";
      f.stranger = strangerOf(Shape::UsByFunction, seed);
      writePackages(f, {rowsOf(kUs), f.name, "fernlake", "USD", 6, septemberEnd, 3, 2, false});
      break;
    case Filed::EuByFunction:
      f.name = "Oosterbeemd Kabels";
      f.stranger = strangerOf(Shape::EuByFunction, seed);
      writePackages(
          f, {rowsOf(kEuFunction, kEuResult, kEuBalance), f.name, "oosterbeemd", "EUR", 3, decemberEnd, 2, 2, true});
      break;
    case Filed::EuByNature:
      f.name = "Verrières du Lointain";
      f.stranger = strangerOf(Shape::EuByNature, seed);
      writePackages(f,
                    {rowsOf(kEuNature, kEuResult, kEuBalance), f.name, "lointain", "EUR", 3, decemberEnd, 2, 2, true});
      break;
    case Filed::PenceWorkbook:
      f.stranger = strangerOf(Shape::UkTurned, seed);
      f.files.emplace_back("record.xlsx", penceWorkbook(f.stranger));
      break;
    case Filed::YenFacts:
      f.name = "Hoshikawa Valves";
      f.stranger = strangerOf(Shape::Japanese, seed);
      f.count = static_cast<double>(f.stranger.economy.years.back().shares) * f.stranger.shareUnit;
      f.files.emplace_back("company-facts.json", yenFacts(f, rowsOf(kUs)));
      break;
    case Filed::SmallFiler:
      f.name = "Quarrel Pond Boats LLC";
      f.stranger = strangerOf(Shape::UsByFunction, seed);
      f.stranger.unit = f.stranger.shareUnit = 1;
      writePackages(f, {rowsOf(kUs), f.name, "quarrelpond", "USD", 0, decemberEnd, 10, 10, false});
      f.files.erase(f.files.begin(), f.files.end() - 1);
      break;
  }
  return f;
}

}  // namespace zl::test
