#include "tests/services/stranger_statements.h"

#include <chrono>
#include <functional>

namespace zl::test {
namespace {

constexpr int kLastYear = 2024;

/// A figure as a report prints it.
struct Print {
  char group = ',';
  bool brackets = true;

  [[nodiscard]] std::string of(long x) const {
    std::string digits = std::to_string(x < 0 ? -x : x);
    if (group != 0) {
      for (auto at = static_cast<int>(digits.size()) - 3; at > 0; at -= 3) {
        digits.insert(static_cast<size_t>(at), 1, group);
      }
    }
    if (x >= 0) return digits;
    return brackets ? "(" + digits + ")" : "-" + digits;
  }
};

using Y = EconomyYear;

/// Depreciation within cost of sales where functions contain it: its share of the two.
long inSales(const Y& y) {
  return y.depreciation * y.costOfSales / (y.costOfSales + y.overhead);
}

/// A table as it grows: years side by side, the latest first or last.
class Table {
 public:
  Table(const Economy& economy, Print print, bool latestFirst)
      : economy_(economy), print_(print), latestFirst_(latestFirst) {}

  void text(const std::string& label) { csv_ += quoted(label) + std::string(economy_.years.size(), ';') + "\n"; }
  void heading(const std::string& label, const std::function<std::string(int year)>& of) {
    csv_ += quoted(label);
    for (const size_t i : order()) csv_ += ";" + quoted(of(yearAt(i)));
    csv_ += "\n";
  }
  void row(const std::string& label, const std::string& figure) {
    csv_ += quoted(label);
    for (const size_t i : order()) csv_ += ";" + print_.of(figureOf(economy_.years[i], figure));
    csv_ += "\n";
  }
  std::string take() { return std::move(csv_); }

 private:
  static std::string quoted(const std::string& text) {
    return text.find(';') == std::string::npos ? text : '"' + text + '"';
  }
  [[nodiscard]] int yearAt(size_t i) const { return kLastYear - static_cast<int>(economy_.years.size() - 1 - i); }
  [[nodiscard]] std::vector<size_t> order() const {
    std::vector<size_t> all;
    for (size_t i = 0; i < economy_.years.size(); ++i) {
      all.push_back(latestFirst_ ? economy_.years.size() - 1 - i : i);
    }
    return all;
  }

  const Economy& economy_;
  Print print_;
  bool latestFirst_;
  std::string csv_;
};

void usByFunction(Table& t) {
  t.text("Consolidated statements of operations");
  t.heading("In millions of US dollars; except per share data", [](int year) {
    return "Fiscal year ended September " + std::to_string(lastSaturdayOfSeptember(year)) + ", " + std::to_string(year);
  });
  t.row("Net sales", "Revenue");
  t.row("Cost of sales", "SalesCostWithWear");
  t.row("Gross profit", "GrossWithWear");
  t.row("Selling, general and administrative expenses", "OverheadWithWear");
  t.row("Operating income", "Ebit");
  t.row("Interest expense", "Interest");
  t.row("Interest income", "InterestIncome");
  t.row("Income before income taxes", "Pretax");
  t.row("Provision for income taxes", "Tax");
  t.row("Net income", "Net");
  t.row("Weighted average diluted shares", "Shares");
  t.text("Consolidated balance sheets");
  t.row("Cash and cash equivalents", "Cash");
  t.row("Accounts receivable, net", "Receivables");
  t.row("Inventories", "Inventory");
  t.row("Prepaid expenses and other current assets", "OtherCurrent");
  t.row("Total current assets", "CurrentAssets");
  t.row("Property, plant and equipment, net", "Plant");
  t.row("Operating lease right-of-use assets", "RightOfUse");
  t.row("Goodwill", "Goodwill");
  t.row("Total assets", "Assets");
  t.row("Accounts payable", "Payables");
  t.row("Accrued liabilities", "OtherOwed");
  t.row("Current portion of long-term debt", "DebtCurrent");
  t.row("Total current liabilities", "CurrentOwed");
  t.row("Long-term debt", "DebtLong");
  t.row("Operating lease liabilities", "Leases");
  t.row("Total liabilities", "Owed");
  t.row("Total stockholders' equity", "Equity");
  t.row("Total liabilities and stockholders' equity", "Assets");
  t.text("Consolidated statements of cash flows");
  t.row("Net income", "Net");
  t.row("Depreciation and amortization", "Depreciation");
  t.row("Changes in operating assets and liabilities", "WorkingCapitalFlow");
  t.row("Net cash provided by operating activities", "OperatingFlow");
  t.row("Purchases of property and equipment", "-Capex");
  t.row("Net cash used in investing activities", "-Capex");
  t.row("Net proceeds from (repayments of) debt", "Borrowed");
  t.row("Dividends paid", "-Dividends");
  t.row("Net cash used in financing activities", "FinancingFlow");
  t.row("Net increase (decrease) in cash and cash equivalents", "Movement");
}

void euByFunction(Table& t) {
  t.text("Consolidated income statement");
  t.heading("EUR thousand", [](int year) { return "31.12." + std::to_string(year); });
  t.row("Revenue", "Revenue");
  t.row("Cost of sales", "-CostOfSales");
  t.row("Gross profit", "Gross");
  t.row("Distribution and administrative expenses", "-Overhead");
  t.row("Depreciation and amortisation", "-Depreciation");
  t.row("Operating profit", "Ebit");
  t.row("Finance income", "InterestIncome");
  t.row("Finance costs", "-Interest");
  t.row("Profit before tax", "Pretax");
  t.row("Income tax expense", "-Tax");
  t.row("Profit for the year", "Net");
  t.text("Consolidated statement of financial position");
  t.row("Property, plant and equipment", "Plant");
  t.row("Goodwill", "Goodwill");
  t.row("Total non-current assets", "FixedAssets");
  t.row("Inventories", "Inventory");
  t.row("Trade receivables", "Receivables");
  t.row("Other current assets", "OtherCurrent");
  t.row("Cash and cash equivalents", "Cash");
  t.row("Total current assets", "CurrentAssets");
  t.row("Total assets", "Assets");
  t.row("Total equity", "Equity");
  t.row("Long-term borrowings", "DebtLong");
  t.row("Total non-current liabilities", "DebtLong");
  t.row("Trade payables", "Payables");
  t.row("Other current liabilities", "OtherOwed");
  t.row("Short-term borrowings", "DebtCurrent");
  t.row("Total current liabilities", "CurrentOwed");
  t.row("Total liabilities", "Owed");
  t.row("Total equity and liabilities", "Assets");
  t.text("Consolidated statement of cash flows");
  t.row("Profit for the year", "Net");
  t.row("Depreciation and amortisation", "Depreciation");
  t.row("Change in working capital", "WorkingCapitalFlow");
  t.row("Net cash from operating activities", "OperatingFlow");
  t.row("Purchase of property, plant and equipment", "-Capex");
  t.row("Change in borrowings", "Borrowed");
  t.row("Dividends paid", "-Dividends");
  t.row("Net change in cash", "Movement");
  t.row("Number of shares outstanding (thousands)", "Shares");
}

void euByNature(Table& t) {
  t.text("Compte de résultat consolidé");
  t.heading("en milliers d'euros", [](int year) { return std::to_string(year); });
  t.row("Chiffre d'affaires", "Revenue");
  t.row("Achats consommés", "-CostOfSales");
  t.row("Charges de personnel", "-Staff");
  t.row("Autres charges opérationnelles", "-OtherOverhead");
  t.row("Dotations aux amortissements", "-Depreciation");
  t.row("Résultat opérationnel", "Ebit");
  t.row("Produits financiers", "InterestIncome");
  t.row("Charges financières", "-Interest");
  t.row("Résultat avant impôt", "Pretax");
  t.row("Impôt sur les bénéfices", "-Tax");
  t.row("Résultat net", "Net");
  t.text("Bilan consolidé");
  t.row("Goodwill", "Goodwill");
  t.row("Immobilisations corporelles", "Plant");
  t.row("Stocks", "Inventory");
  t.row("Créances clients", "Receivables");
  t.row("Autres actifs courants", "OtherCurrent");
  t.row("Trésorerie et équivalents de trésorerie", "Cash");
  t.row("Total de l'actif", "Assets");
  t.row("Capitaux propres", "Equity");
  t.row("Emprunts à long terme", "DebtLong");
  t.row("Emprunts à court terme", "DebtCurrent");
  t.row("Dettes fournisseurs", "Payables");
  t.row("Autres passifs courants", "OtherOwed");
  t.row("Total du passif et des capitaux propres", "Assets");
  t.text("Tableau des flux de trésorerie");
  t.row("Flux de trésorerie liés à l'activité", "OperatingFlow");
  t.row("Acquisitions d'immobilisations corporelles", "-Capex");
  t.row("Variation des emprunts", "Borrowed");
  t.row("Dividendes versés", "-Dividends");
  t.row("Variation de la trésorerie", "Movement");
  t.row("Nombre d'actions (milliers)", "Shares");
}

void ukTurned(Table& t) {
  t.text("Group income statement");
  t.heading("£m", [](int year) { return "Year ended 31 March " + std::to_string(year); });
  t.row("Revenue", "Revenue");
  t.row("Cost of sales", "-CostOfSales");
  t.row("Gross profit", "Gross");
  t.row("Administrative expenses", "-Overhead");
  t.row("Depreciation", "-Depreciation");
  t.row("Operating profit/(loss)", "Ebit");
  t.row("Finance income", "InterestIncome");
  t.row("Finance expense", "-Interest");
  t.row("Profit/(loss) before tax", "Pretax");
  t.row("Taxation", "-Tax");
  t.row("Profit/(loss) for the year", "Net");
  t.text("Group balance sheet");
  t.row("Goodwill", "Goodwill");
  t.row("Property, plant and equipment", "Plant");
  t.row("Inventories", "Inventory");
  t.row("Trade receivables", "Receivables");
  t.row("Other current assets", "OtherCurrent");
  t.row("Cash at bank", "Cash");
  t.row("Total assets", "Assets");
  t.row("Trade payables", "-Payables");
  t.row("Accruals", "-OtherOwed");
  t.row("Current borrowings", "-DebtCurrent");
  t.row("Non-current borrowings", "-DebtLong");
  t.row("Total liabilities", "-Owed");
  t.row("Net assets", "Equity");
  t.row("Total equity", "Equity");
  t.text("Group cash flow statement");
  t.row("Cash generated from operating activities", "OperatingFlow");
  t.row("Purchase of property, plant and equipment", "-Capex");
  t.row("Net borrowings drawn", "Borrowed");
  t.row("Dividends paid", "-Dividends");
  t.row("Net increase/(decrease) in cash", "Movement");
  t.row("Ordinary shares in issue (m)", "Shares");
}

void germanCyclical(Table& t) {
  t.text("Konzern-Gewinn- und Verlustrechnung");
  t.heading("in TEUR", [](int year) { return std::to_string(year); });
  t.row("Umsatzerlöse", "Revenue");
  t.row("Herstellungskosten", "-CostOfSales");
  t.row("Vertriebs- und Verwaltungskosten", "-Overhead");
  t.row("Abschreibungen", "-Depreciation");
  t.row("Betriebsergebnis", "Ebit");
  t.row("Zinserträge", "InterestIncome");
  t.row("Zinsaufwendungen", "-Interest");
  t.row("Ergebnis vor Steuern", "Pretax");
  t.row("Ertragsteuern", "-Tax");
  t.row("Jahresüberschuss", "Net");
  t.text("Konzernbilanz");
  t.row("Geschäfts- oder Firmenwert", "Goodwill");
  t.row("Sachanlagen", "Plant");
  t.row("Vorräte", "Inventory");
  t.row("Forderungen aus Lieferungen und Leistungen", "Receivables");
  t.row("Sonstige kurzfristige Vermögenswerte", "OtherCurrent");
  t.row("Zahlungsmittel", "Cash");
  t.row("Bilanzsumme", "Assets");
  t.row("Eigenkapital", "Equity");
  t.row("Langfristige Finanzverbindlichkeiten", "DebtLong");
  t.row("Kurzfristige Finanzverbindlichkeiten", "DebtCurrent");
  t.row("Verbindlichkeiten aus Lieferungen und Leistungen", "Payables");
  t.row("Sonstige kurzfristige Verbindlichkeiten", "OtherOwed");
  t.row("Summe Passiva", "Assets");
  t.text("Konzern-Kapitalflussrechnung");
  t.row("Cashflow aus betrieblicher Tätigkeit", "OperatingFlow");
  t.row("Investitionen in Sachanlagen", "-Capex");
  t.row("Veränderung der Finanzverbindlichkeiten", "Borrowed");
  t.row("Gezahlte Dividenden", "-Dividends");
  t.row("Veränderung der Zahlungsmittel", "Movement");
  t.row("Anzahl der Aktien (Tsd.)", "Shares");
}

void japanese(Table& t) {
  t.text("Consolidated statements of income");
  t.heading("Millions of yen", [](int year) { return "Fiscal year ended March 31, " + std::to_string(year); });
  t.row("Net sales", "Revenue");
  t.row("Cost of sales", "SalesCostWithWear");
  t.row("Gross profit", "GrossWithWear");
  t.row("Selling, general and administrative expenses", "OverheadWithWear");
  t.row("Operating income", "Ebit");
  t.row("Interest income", "InterestIncome");
  t.row("Interest expense", "Interest");
  t.row("Profit before income taxes", "Pretax");
  t.row("Income taxes", "Tax");
  t.row("Profit", "Net");
  t.text("Consolidated balance sheets");
  t.row("Cash and deposits", "Cash");
  t.row("Notes and accounts receivable", "Receivables");
  t.row("Inventories", "Inventory");
  t.row("Other current assets", "OtherCurrent");
  t.row("Total current assets", "CurrentAssets");
  t.row("Property, plant and equipment", "Plant");
  t.row("Goodwill", "Goodwill");
  t.row("Total assets", "Assets");
  t.row("Notes and accounts payable", "Payables");
  t.row("Other current liabilities", "OtherOwed");
  t.row("Short-term loans payable", "DebtCurrent");
  t.row("Total current liabilities", "CurrentOwed");
  t.row("Long-term loans payable", "DebtLong");
  t.row("Total liabilities", "Owed");
  t.row("Total net assets", "Equity");
  t.row("Total liabilities and net assets", "Assets");
  t.text("Consolidated statements of cash flows");
  t.row("Depreciation and amortization", "Depreciation");
  t.row("Net cash provided by operating activities", "OperatingFlow");
  t.row("Purchase of property, plant and equipment", "-Capex");
  t.row("Net increase (decrease) in loans payable", "Borrowed");
  t.row("Dividends paid", "-Dividends");
  t.row("Net increase (decrease) in cash and cash equivalents", "Movement");
  t.row("Number of shares outstanding (millions)", "Shares");
}

void singleEquity(Table& t) {
  t.text("Statements");
  t.heading("CHF m", [](int year) { return "FY" + std::to_string(year); });
  t.row("Sales", "Revenue");
  t.row("Cost of goods sold", "CostOfSales");
  t.row("Operating expenses", "Overhead");
  t.row("Depreciation", "Depreciation");
  t.row("EBIT", "Ebit");
  t.row("Interest expense", "Interest");
  t.row("Interest income", "InterestIncome");
  t.row("Earnings before tax", "Pretax");
  t.row("Taxes", "Tax");
  t.row("Net profit", "Net");
  t.row("Cash", "Cash");
  t.row("Receivables", "Receivables");
  t.row("Inventory", "Inventory");
  t.row("Other current assets", "OtherCurrent");
  t.row("Fixed assets", "Plant");
  t.row("Goodwill", "Goodwill");
  t.row("Total assets", "Assets");
  t.row("Payables", "Payables");
  t.row("Accrued expenses", "OtherOwed");
  t.row("Short-term bank loans", "DebtCurrent");
  t.row("Bonds", "DebtLong");
  t.row("Shareholders' equity", "Equity");
  t.row("Cash flow from operations", "OperatingFlow");
  t.row("Capital expenditure", "Capex");
  t.row("Change in debt", "Borrowed");
  t.row("Dividends", "Dividends");
  t.row("Change in cash", "Movement");
  t.row("Shares outstanding (m)", "Shares");
}

struct Form {
  const char* name;
  Trade trade;
  const char* currency;
  double unit, shareUnit;
  Print print;
  bool latestFirst;
  int years;
  void (*write)(Table&);
};

const Form& formOf(Shape shape) {
  static const Form kForms[] = {
      {"us-by-function", Trade::Steady, "USD", 1e6, 1e6, {',', true}, true, 10, usByFunction},
      {"eu-by-function", Trade::Steady, "EUR", 1e3, 1e3, {'.', false}, true, 6, euByFunction},
      {"eu-by-nature", Trade::Steady, "EUR", 1e3, 1e3, {' ', true}, false, 7, euByNature},
      {"uk-turned", Trade::Turned, "GBP", 1e6, 1e6, {',', true}, true, 8, ukTurned},
      {"german-cyclical", Trade::Cyclical, "EUR", 1e3, 1e3, {'.', false}, false, 10, germanCyclical},
      {"japanese", Trade::Steady, "JPY", 1e6, 1e6, {',', true}, false, 8, japanese},
      {"single-equity", Trade::Steady, "CHF", 1e6, 1e6, {0, false}, true, 5, singleEquity},
  };
  return kForms[static_cast<size_t>(shape)];
}

}  // namespace

long figureOf(const Y& y, const std::string& signedName) {
  static const std::map<std::string, long Y::*> kFiledLines{{"Borrowed", &Y::borrowed},
                                                            {"Capex", &Y::capex},
                                                            {"Cash", &Y::cash},
                                                            {"CostOfSales", &Y::costOfSales},
                                                            {"DebtCurrent", &Y::debtCurrent},
                                                            {"DebtLong", &Y::debtLong},
                                                            {"Depreciation", &Y::depreciation},
                                                            {"Dividends", &Y::dividends},
                                                            {"Ebit", &Y::ebit},
                                                            {"Equity", &Y::equity},
                                                            {"Goodwill", &Y::goodwill},
                                                            {"Interest", &Y::interest},
                                                            {"InterestIncome", &Y::interestIncome},
                                                            {"Inventory", &Y::inventory},
                                                            {"Leases", &Y::leases},
                                                            {"Movement", &Y::movement},
                                                            {"Net", &Y::net},
                                                            {"OperatingFlow", &Y::operatingFlow},
                                                            {"OtherCurrent", &Y::otherCurrent},
                                                            {"OtherOwed", &Y::otherOwed},
                                                            {"Overhead", &Y::overhead},
                                                            {"Payables", &Y::payables},
                                                            {"Plant", &Y::plant},
                                                            {"Pretax", &Y::pretax},
                                                            {"Receivables", &Y::receivables},
                                                            {"Revenue", &Y::revenue},
                                                            {"RightOfUse", &Y::rightOfUse},
                                                            {"Shares", &Y::shares},
                                                            {"Staff", &Y::staff},
                                                            {"Tax", &Y::tax}};
  const std::map<std::string, long> sums{{"Assets", y.assets()},
                                         {"CurrentAssets", y.currentAssets()},
                                         {"CurrentOwed", y.currentOwed()},
                                         {"FinancingFlow", y.borrowed - y.dividends},
                                         {"FixedAssets", y.plant + y.goodwill},
                                         {"Gross", y.revenue - y.costOfSales},
                                         {"GrossWithWear", y.revenue - y.costOfSales - inSales(y)},
                                         {"OtherOverhead", y.overhead - y.staff},
                                         {"OverheadWithWear", y.overhead + y.depreciation - inSales(y)},
                                         {"Owed", y.owed()},
                                         {"SalesCostWithWear", y.costOfSales + inSales(y)},
                                         {"WorkingCapitalFlow", y.operatingFlow - y.net - y.depreciation}};
  const bool minus = signedName.front() == '-';
  const std::string name = signedName.substr(minus ? 1 : 0);
  const auto filed = kFiledLines.find(name);
  const long figure = filed != kFiledLines.end() ? y.*(filed->second) : sums.at(name);
  return minus ? -figure : figure;
}

int lastSaturdayOfSeptember(int year) {
  using namespace std::chrono;
  return static_cast<int>(
      static_cast<unsigned>(year_month_day(sys_days(std::chrono::year(year) / September / Saturday[last])).day()));
}

const char* nameOf(Shape shape) {
  return formOf(shape).name;
}

Stranger strangerOf(Shape shape, std::uint64_t seed) {
  const Form& form = formOf(shape);
  Stranger s;
  s.economy =
      drawEconomy(form.trade, seed * 31 + static_cast<std::uint64_t>(shape), form.years, shape == Shape::UsByFunction);
  s.name = std::string(form.name) + ".csv";
  s.currency = form.currency;
  s.unit = form.unit;
  s.shareUnit = form.shareUnit;
  s.lastYear = kLastYear;
  Table table(s.economy, form.print, form.latestFirst);
  form.write(table);
  s.csv = table.take();
  const std::pair<const char*, const char*> kLines[] = {{"revenue", "Revenue"},
                                                        {"cost_of_sales", "CostOfSales"},
                                                        {"operating_expenses", "Overhead"},
                                                        {"depreciation", "Depreciation"},
                                                        {"ebit", "Ebit"},
                                                        {"interest_expense", "Interest"},
                                                        {"interest_income", "InterestIncome"},
                                                        {"pretax_profit", "Pretax"},
                                                        {"tax", "Tax"},
                                                        {"net_income", "Net"},
                                                        {"cash", "Cash"},
                                                        {"receivables", "Receivables"},
                                                        {"inventory", "Inventory"},
                                                        {"other_current_assets", "OtherCurrent"},
                                                        {"plant", "Plant"},
                                                        {"right_of_use", "RightOfUse"},
                                                        {"goodwill", "Goodwill"},
                                                        {"total_assets", "Assets"},
                                                        {"payables", "Payables"},
                                                        {"other_current_liabilities", "OtherOwed"},
                                                        {"borrowings_current", "DebtCurrent"},
                                                        {"borrowings_long", "DebtLong"},
                                                        {"lease_liabilities", "Leases"},
                                                        {"total_liabilities", "Owed"},
                                                        {"equity", "Equity"},
                                                        {"total_equity", "Equity"},
                                                        {"operating_cash_flow", "OperatingFlow"},
                                                        {"plant_bought", "Capex"},
                                                        {"net_borrowing", "Borrowed"},
                                                        {"dividends", "Dividends"},
                                                        {"net_cash_movement", "Movement"},
                                                        {"shares", "Shares"}};
  for (const auto& [line, figure] : kLines) {
    for (size_t i = 0; i < s.economy.years.size(); ++i) {
      const int year = kLastYear - static_cast<int>(s.economy.years.size() - 1 - i);
      s.lines[line][year] = figureOf(s.economy.years[i], figure);
    }
  }
  return s;
}

}  // namespace zl::test
