#include <sstream>
#include <vector>

#include "demo/generator/writers.h"

namespace demo {
namespace {

struct Line {
  const char* line;
  const char* concept_name;
  const char* label;
  bool balance;
};

constexpr Line kLines[] = {
    {"revenue", "Revenue", "Revenue", false},
    {"cost_of_sales", "CostOfSales", "Cost of sales, before depreciation", false},
    {"distribution", "DistributionCosts", "Selling and distribution", false},
    {"administration", "AdministrativeExpense", "Administration", false},
    {"research", "ResearchAndDevelopmentExpense", "Research and development", false},
    {"depreciation", "DepreciationAndAmortisationExpense", "Depreciation and amortisation", false},
    {"exceptional_items", "ExpenseOfRestructuringActivities", "Recall, closure and write-down", false},
    {"ebit", "ProfitLossFromOperatingActivities", "Operating profit", false},
    {"interest_expense", "InterestExpense", "Interest expense", false},
    {"interest_income", "InterestIncome", "Interest income", false},
    {"pretax_profit", "ProfitLossBeforeTax", "Profit before tax", false},
    {"tax", "IncomeTaxExpenseContinuingOperations", "Income tax", false},
    {"net_income", "ProfitLoss", "Profit for the year", false},
    {"minority_income", "ProfitLossAttributableToNoncontrollingInterests", "Attributable to minorities", false},
    {"cash", "CashAndCashEquivalents", "Cash and cash equivalents", true},
    {"receivables", "TradeAndOtherCurrentReceivables", "Trade receivables", true},
    {"inventory", "Inventories", "Inventories", true},
    {"other_current_assets", "OtherCurrentAssets", "Other current assets", true},
    {"plant", "PropertyPlantAndEquipment", "Plant and equipment", true},
    {"right_of_use", "RightofuseAssets", "Right-of-use assets", true},
    {"intangibles", "IntangibleAssetsOtherThanGoodwill", "Intangible assets", true},
    {"goodwill", "Goodwill", "Goodwill", true},
    {"other_noncurrent_assets", "OtherNoncurrentAssets", "Other non-current assets", true},
    {"total_assets", "Assets", "Total assets", true},
    {"payables", "TradeAndOtherCurrentPayables", "Trade payables", true},
    {"other_current_liabilities", "OtherCurrentLiabilities", "Other current liabilities", true},
    {"borrowings_current", "CurrentBorrowingsAndCurrentPortionOfNoncurrentBorrowings", "Borrowings due within a year",
     true},
    {"borrowings_long", "LongtermBorrowings", "Borrowings due later", true},
    {"lease_liabilities", "LeaseLiabilities", "Lease liabilities", true},
    {"other_noncurrent_liabilities", "OtherNoncurrentLiabilities", "Other non-current liabilities", true},
    {"total_liabilities", "Liabilities", "Total liabilities", true},
    {"equity", "EquityAttributableToOwnersOfParent", "Shareholders' equity", true},
    {"minorities", "NoncontrollingInterests", "Minorities", true},
    {"total_equity", "Equity", "Total equity", true},
    {"stock_pay", "AdjustmentsForSharebasedPayments", "Share-based pay", false},
    {"operating_cash_flow", "CashFlowsFromUsedInOperatingActivities", "Cash flow from operations", false},
    {"plant_bought", "PurchaseOfPropertyPlantAndEquipmentClassifiedAsInvestingActivities", "Plant bought", false},
    {"intangibles_bought", "PurchaseOfIntangibleAssetsClassifiedAsInvestingActivities", "Intangibles bought", false},
    {"disposals", "ProceedsFromSalesOfPropertyPlantAndEquipmentClassifiedAsInvestingActivities", "Plant sold", false},
    {"acquisitions", "CashFlowsUsedInObtainingControlOfSubsidiariesOrOtherBusinessesClassifiedAsInvestingActivities",
     "Businesses bought", false},
    {"net_borrowing", "ProceedsFromBorrowingsClassifiedAsFinancingActivities", "Borrowings raised less repaid", false},
    {"lease_principal", "PaymentsOfLeaseLiabilitiesClassifiedAsFinancingActivities", "Lease principal paid", false},
    {"dividends", "DividendsPaidToEquityHoldersOfParentClassifiedAsFinancingActivities", "Dividends to shareholders",
     false},
    {"minority_dividends", "DividendsPaidToNoncontrollingInterestsClassifiedAsFinancingActivities",
     "Dividends to minorities", false},
    {"buybacks", "PaymentsToAcquireOrRedeemEntitysShares", "Shares bought back", false},
    {"net_cash_movement", "IncreaseDecreaseInCashAndCashEquivalents", "Movement in cash", false},
    {"new_leases", "AdditionsToRightofuseAssets", "New leases", false},
};

std::string amount(Thousands thousands) {
  return thousands == 0 ? "0" : std::to_string(thousands) + "000";
}

Thousands lineOf(const Year& y, const char* line) {
  return y.at(line);
}

std::string yearStart(long long year) {
  return std::to_string(year) + "-01-01";
}
std::string yearEnd(long long year) {
  return std::to_string(year) + "-12-31";
}

void csvYear(std::ostringstream& out, const Year& y) {
  const long long year = y.at("year");
  for (const Line& l : kLines) {
    out << "ifrs-full:" << l.concept_name << ",\"" << l.label << "\"," << (l.balance ? "" : yearStart(year)) << ','
        << yearEnd(year) << ",EUR,-3," << amount(lineOf(y, l.line)) << '\n';
  }
  out << "ifrs-full:NumberOfSharesOutstanding,\"Shares outstanding\",," << yearEnd(year) << ",shares,-3,"
      << amount(y.at("shares")) << '\n';
}

struct Part {
  const char* id;
  const char* axis;
  const char* member;
};

constexpr Part kParts[] = {{"Machines", "ifrs-full:SegmentsAxis", "vsh:MachinesMember"},
                           {"Service", "ifrs-full:SegmentsAxis", "vsh:ServiceAndPartsMember"},
                           {"West", "ifrs-full:GeographicalAreasAxis", "vsh:WesternEuropeMember"},
                           {"East", "ifrs-full:GeographicalAreasAxis", "vsh:EasternEuropeMember"},
                           {"Americas", "ifrs-full:GeographicalAreasAxis", "vsh:AmericasMember"},
                           {"Asia", "ifrs-full:GeographicalAreasAxis", "vsh:AsiaAndPacificMember"}};

void xbrlContext(std::ostringstream& out, const std::string& id, long long year, bool balance,
                 const Part* part = nullptr) {
  out << "  <xbrli:context id=\"" << id << "\">\n    <xbrli:entity>\n"
      << "      <xbrli:identifier scheme=\"https://registry.example/entities\">VESSINGHOLT</xbrli:identifier>\n";
  if (part != nullptr) {
    out << "      <xbrli:segment><xbrldi:explicitMember dimension=\"" << part->axis << "\">" << part->member
        << "</xbrldi:explicitMember></xbrli:segment>\n";
  }
  out << "    </xbrli:entity>\n    <xbrli:period>";
  if (balance) {
    out << "<xbrli:instant>" << yearEnd(year) << "</xbrli:instant>";
  } else {
    out << "<xbrli:startDate>" << yearStart(year) << "</xbrli:startDate><xbrli:endDate>" << yearEnd(year)
        << "</xbrli:endDate>";
  }
  out << "</xbrli:period>\n  </xbrli:context>\n";
}

void xbrlFact(std::ostringstream& out, const std::string& name, const std::string& context, const std::string& text,
              const char* unit = "EUR", const char* decimals = "-3") {
  out << "  <" << name << " contextRef=\"" << context << "\" unitRef=\"" << unit << "\" decimals=\"" << decimals
      << "\">" << text << "</" << name << ">\n";
}

void xbrlYear(std::ostringstream& out, const Year& y) {
  const std::string year = std::to_string(y.at("year"));
  for (const Line& l : kLines) {
    xbrlFact(out, std::string("ifrs-full:") + l.concept_name, (l.balance ? "I" : "D") + year,
             amount(lineOf(y, l.line)));
  }
  xbrlFact(out, "ifrs-full:NumberOfSharesOutstanding", "I" + year, amount(y.at("shares")), "shares");
}

void segmentFacts(std::ostringstream& out, const Year& y) {
  const long long number = y.at("year");
  const std::string year = std::to_string(number);
  const Thousands revenue = y.at("revenue");
  // Service grows slowly through boom and bust and earns more; Asia gains what the west loses.
  const Thousands service = revenue * 29 / 100 + (number > 2022 ? revenue * (number - 2022) / 100 : 0);
  const Thousands serviceProfit = service * 17 / 100;
  const Thousands west = revenue * (52 - (number - 2019)) / 100;
  const Thousands east = revenue * 14 / 100;
  const Thousands americas = revenue * 19 / 100;
  const auto fact = [&](const char* name, const char* part, Thousands thousands) {
    xbrlFact(out, name, "D" + year + "_" + part, amount(thousands));
  };
  fact("ifrs-full:Revenue", "Machines", revenue - service);
  fact("ifrs-full:Revenue", "Service", service);
  fact("ifrs-full:ProfitLossFromOperatingActivities", "Machines", y.at("ebit") - serviceProfit);
  fact("ifrs-full:ProfitLossFromOperatingActivities", "Service", serviceProfit);
  fact("ifrs-full:Revenue", "West", west);
  fact("ifrs-full:Revenue", "East", east);
  fact("ifrs-full:Revenue", "Americas", americas);
  fact("ifrs-full:Revenue", "Asia", revenue - west - east - americas);
}

}  // namespace

std::string csvReport(const Year& year, const Year* before) {
  std::ostringstream out;
  out << "concept,label,start,end,unit,decimals,value\n";
  csvYear(out, year);
  if (before != nullptr) csvYear(out, *before);
  return out.str();
}

std::string xbrlReport(const Year& year, const Year* before) {
  std::ostringstream out;
  const long long number = year.at("year");
  out << "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n"
         "<!-- Invented figures of an invented company. -->\n"
         "<xbrli:xbrl xmlns:xbrli=\"http://www.xbrl.org/2003/instance\" "
         "xmlns:link=\"http://www.xbrl.org/2003/linkbase\"\n"
         "  xmlns:xlink=\"http://www.w3.org/1999/xlink\" xmlns:xsi=\"http://www.w3.org/2001/XMLSchema-instance\"\n"
         "  xmlns:iso4217=\"http://www.xbrl.org/2003/iso4217\" xmlns:xbrldi=\"http://xbrl.org/2006/xbrldi\"\n"
         "  xmlns:ifrs-full=\"https://xbrl.ifrs.org/taxonomy/2021-03-24/ifrs-full\" "
         "xmlns:vsh=\"https://vessingholt.example/xbrl\">\n"
         "  <link:schemaRef xlink:type=\"simple\" xlink:href=\"vessingholt.xsd\"/>\n";
  const Year* years[] = {&year, before};
  for (const Year* y : years) {
    if (y == nullptr) continue;
    const std::string id = std::to_string(y->at("year"));
    xbrlContext(out, "D" + id, y->at("year"), false);
    xbrlContext(out, "I" + id, y->at("year"), true);
  }
  const std::string id = std::to_string(number);
  for (const Part& part : kParts) xbrlContext(out, "D" + id + "_" + part.id, number, false, &part);
  out << "  <xbrli:unit id=\"EUR\"><xbrli:measure>iso4217:EUR</xbrli:measure></xbrli:unit>\n"
         "  <xbrli:unit id=\"shares\"><xbrli:measure>xbrli:shares</xbrli:measure></xbrli:unit>\n"
         "  <xbrli:unit id=\"pure\"><xbrli:measure>xbrli:pure</xbrli:measure></xbrli:unit>\n"
         "  <xbrli:unit id=\"perShare\"><xbrli:divide><xbrli:unitNumerator><xbrli:measure>iso4217:EUR</xbrli:measure>"
         "</xbrli:unitNumerator><xbrli:unitDenominator><xbrli:measure>xbrli:shares</xbrli:measure>"
         "</xbrli:unitDenominator></xbrli:divide></xbrli:unit>\n";
  for (const Year* y : years) {
    if (y != nullptr) xbrlYear(out, *y);
  }
  segmentFacts(out, year);
  const Thousands common = year.at("net_income") - year.at("minority_income");
  std::ostringstream perShare;
  perShare.setf(std::ios::fixed);
  perShare.precision(2);
  perShare << static_cast<double>(common) / static_cast<double>(year.at("shares"));
  xbrlFact(out, "ifrs-full:BasicEarningsLossPerShare", "D" + id, perShare.str(), "perShare", "2");
  xbrlFact(out, "vsh:OrderBacklog", "I" + id, amount(year.at("revenue") * 31 / 100));
  xbrlFact(out, "vsh:EmployeesAtYearEnd", "I" + id, std::to_string(year.at("revenue") / 168), "pure", "0");
  out << "  <ifrs-full:InvestmentsAccountedForUsingEquityMethod contextRef=\"I" << id
      << "\" unitRef=\"EUR\" xsi:nil=\"true\"/>\n</xbrli:xbrl>\n";
  return out.str();
}

}  // namespace demo
