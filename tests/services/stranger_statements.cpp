#include "tests/services/stranger_statements.h"

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

/// A figure of a year by its name, with a minus before it for the other sign.
long figureOf(const Y& y, const std::string& signedName) {
  static const std::map<std::string, long Y::*> kFiled{{"borrowed", &Y::borrowed},
                                                       {"capex", &Y::capex},
                                                       {"cash", &Y::cash},
                                                       {"costOfSales", &Y::costOfSales},
                                                       {"debtCurrent", &Y::debtCurrent},
                                                       {"debtLong", &Y::debtLong},
                                                       {"depreciation", &Y::depreciation},
                                                       {"dividends", &Y::dividends},
                                                       {"ebit", &Y::ebit},
                                                       {"equity", &Y::equity},
                                                       {"goodwill", &Y::goodwill},
                                                       {"interest", &Y::interest},
                                                       {"interestIncome", &Y::interestIncome},
                                                       {"inventory", &Y::inventory},
                                                       {"leases", &Y::leases},
                                                       {"movement", &Y::movement},
                                                       {"net", &Y::net},
                                                       {"operatingFlow", &Y::operatingFlow},
                                                       {"otherCurrent", &Y::otherCurrent},
                                                       {"otherOwed", &Y::otherOwed},
                                                       {"overhead", &Y::overhead},
                                                       {"payables", &Y::payables},
                                                       {"plant", &Y::plant},
                                                       {"pretax", &Y::pretax},
                                                       {"receivables", &Y::receivables},
                                                       {"revenue", &Y::revenue},
                                                       {"rightOfUse", &Y::rightOfUse},
                                                       {"shares", &Y::shares},
                                                       {"staff", &Y::staff},
                                                       {"tax", &Y::tax}};
  const std::map<std::string, long> sums{{"assets", y.assets()},
                                         {"currentAssets", y.currentAssets()},
                                         {"currentOwed", y.currentOwed()},
                                         {"financingFlow", y.borrowed - y.dividends},
                                         {"fixedAssets", y.plant + y.goodwill},
                                         {"gross", y.revenue - y.costOfSales},
                                         {"grossWithWear", y.revenue - y.costOfSales - inSales(y)},
                                         {"otherOverhead", y.overhead - y.staff},
                                         {"overheadWithWear", y.overhead + y.depreciation - inSales(y)},
                                         {"owed", y.owed()},
                                         {"salesCostWithWear", y.costOfSales + inSales(y)},
                                         {"workingCapitalFlow", y.operatingFlow - y.net - y.depreciation}};
  const bool minus = signedName.front() == '-';
  const std::string name = signedName.substr(minus ? 1 : 0);
  const auto filed = kFiled.find(name);
  const long figure = filed != kFiled.end() ? y.*(filed->second) : sums.at(name);
  return minus ? -figure : figure;
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
  t.heading("In millions of US dollars; except share data", [](int year) {
    return std::string("Fiscal year ended September ") + (year % 6 == 0 ? "30" : "28") + ", " + std::to_string(year);
  });
  t.row("Net sales", "revenue");
  t.row("Cost of sales", "salesCostWithWear");
  t.row("Gross profit", "grossWithWear");
  t.row("Selling, general and administrative expenses", "overheadWithWear");
  t.row("Operating income", "ebit");
  t.row("Interest expense", "interest");
  t.row("Interest income", "interestIncome");
  t.row("Income before income taxes", "pretax");
  t.row("Provision for income taxes", "tax");
  t.row("Net income", "net");
  t.row("Weighted average diluted shares", "shares");
  t.text("Consolidated balance sheets");
  t.row("Cash and cash equivalents", "cash");
  t.row("Accounts receivable, net", "receivables");
  t.row("Inventories", "inventory");
  t.row("Prepaid expenses and other current assets", "otherCurrent");
  t.row("Total current assets", "currentAssets");
  t.row("Property, plant and equipment, net", "plant");
  t.row("Operating lease right-of-use assets", "rightOfUse");
  t.row("Goodwill", "goodwill");
  t.row("Total assets", "assets");
  t.row("Accounts payable", "payables");
  t.row("Accrued liabilities", "otherOwed");
  t.row("Current portion of long-term debt", "debtCurrent");
  t.row("Total current liabilities", "currentOwed");
  t.row("Long-term debt", "debtLong");
  t.row("Operating lease liabilities", "leases");
  t.row("Total liabilities", "owed");
  t.row("Total stockholders' equity", "equity");
  t.row("Total liabilities and stockholders' equity", "assets");
  t.text("Consolidated statements of cash flows");
  t.row("Net income", "net");
  t.row("Depreciation and amortization", "depreciation");
  t.row("Changes in operating assets and liabilities", "workingCapitalFlow");
  t.row("Net cash provided by operating activities", "operatingFlow");
  t.row("Purchases of property and equipment", "-capex");
  t.row("Net cash used in investing activities", "-capex");
  t.row("Net proceeds from (repayments of) debt", "borrowed");
  t.row("Dividends paid", "-dividends");
  t.row("Net cash used in financing activities", "financingFlow");
  t.row("Net increase (decrease) in cash and cash equivalents", "movement");
}

void euByFunction(Table& t) {
  t.text("Consolidated income statement");
  t.heading("EUR thousand", [](int year) { return "31.12." + std::to_string(year); });
  t.row("Revenue", "revenue");
  t.row("Cost of sales", "-costOfSales");
  t.row("Gross profit", "gross");
  t.row("Distribution and administrative expenses", "-overhead");
  t.row("Depreciation and amortisation", "-depreciation");
  t.row("Operating profit", "ebit");
  t.row("Finance income", "interestIncome");
  t.row("Finance costs", "-interest");
  t.row("Profit before tax", "pretax");
  t.row("Income tax expense", "-tax");
  t.row("Profit for the year", "net");
  t.text("Consolidated statement of financial position");
  t.row("Property, plant and equipment", "plant");
  t.row("Goodwill", "goodwill");
  t.row("Total non-current assets", "fixedAssets");
  t.row("Inventories", "inventory");
  t.row("Trade receivables", "receivables");
  t.row("Other current assets", "otherCurrent");
  t.row("Cash and cash equivalents", "cash");
  t.row("Total current assets", "currentAssets");
  t.row("Total assets", "assets");
  t.row("Total equity", "equity");
  t.row("Long-term borrowings", "debtLong");
  t.row("Total non-current liabilities", "debtLong");
  t.row("Trade payables", "payables");
  t.row("Other current liabilities", "otherOwed");
  t.row("Short-term borrowings", "debtCurrent");
  t.row("Total current liabilities", "currentOwed");
  t.row("Total liabilities", "owed");
  t.row("Total equity and liabilities", "assets");
  t.text("Consolidated statement of cash flows");
  t.row("Profit for the year", "net");
  t.row("Depreciation and amortisation", "depreciation");
  t.row("Change in working capital", "workingCapitalFlow");
  t.row("Net cash from operating activities", "operatingFlow");
  t.row("Purchase of property, plant and equipment", "-capex");
  t.row("Change in borrowings", "borrowed");
  t.row("Dividends paid", "-dividends");
  t.row("Net change in cash", "movement");
  t.row("Number of shares outstanding (thousands)", "shares");
}

void euByNature(Table& t) {
  t.text("Compte de résultat consolidé");
  t.heading("en milliers d'euros", [](int year) { return std::to_string(year); });
  t.row("Chiffre d'affaires", "revenue");
  t.row("Achats consommés", "-costOfSales");
  t.row("Charges de personnel", "-staff");
  t.row("Autres charges opérationnelles", "-otherOverhead");
  t.row("Dotations aux amortissements", "-depreciation");
  t.row("Résultat opérationnel", "ebit");
  t.row("Produits financiers", "interestIncome");
  t.row("Charges financières", "-interest");
  t.row("Résultat avant impôt", "pretax");
  t.row("Impôt sur les bénéfices", "-tax");
  t.row("Résultat net", "net");
  t.text("Bilan consolidé");
  t.row("Goodwill", "goodwill");
  t.row("Immobilisations corporelles", "plant");
  t.row("Stocks", "inventory");
  t.row("Créances clients", "receivables");
  t.row("Autres actifs courants", "otherCurrent");
  t.row("Trésorerie et équivalents de trésorerie", "cash");
  t.row("Total de l'actif", "assets");
  t.row("Capitaux propres", "equity");
  t.row("Emprunts à long terme", "debtLong");
  t.row("Emprunts à court terme", "debtCurrent");
  t.row("Dettes fournisseurs", "payables");
  t.row("Autres passifs courants", "otherOwed");
  t.row("Total du passif et des capitaux propres", "assets");
  t.text("Tableau des flux de trésorerie");
  t.row("Flux de trésorerie liés à l'activité", "operatingFlow");
  t.row("Acquisitions d'immobilisations corporelles", "-capex");
  t.row("Variation des emprunts", "borrowed");
  t.row("Dividendes versés", "-dividends");
  t.row("Variation de la trésorerie", "movement");
  t.row("Nombre d'actions (milliers)", "shares");
}

void ukTurned(Table& t) {
  t.text("Group income statement");
  t.heading("£m", [](int year) { return "Year ended 31 March " + std::to_string(year); });
  t.row("Revenue", "revenue");
  t.row("Cost of sales", "-costOfSales");
  t.row("Gross profit", "gross");
  t.row("Administrative expenses", "-overhead");
  t.row("Depreciation", "-depreciation");
  t.row("Operating profit/(loss)", "ebit");
  t.row("Finance income", "interestIncome");
  t.row("Finance expense", "-interest");
  t.row("Profit/(loss) before tax", "pretax");
  t.row("Taxation", "-tax");
  t.row("Profit/(loss) for the year", "net");
  t.text("Group balance sheet");
  t.row("Goodwill", "goodwill");
  t.row("Property, plant and equipment", "plant");
  t.row("Inventories", "inventory");
  t.row("Trade receivables", "receivables");
  t.row("Other current assets", "otherCurrent");
  t.row("Cash at bank", "cash");
  t.row("Total assets", "assets");
  t.row("Trade payables", "-payables");
  t.row("Accruals", "-otherOwed");
  t.row("Current borrowings", "-debtCurrent");
  t.row("Non-current borrowings", "-debtLong");
  t.row("Total liabilities", "-owed");
  t.row("Net assets", "equity");
  t.row("Total equity", "equity");
  t.text("Group cash flow statement");
  t.row("Cash generated from operating activities", "operatingFlow");
  t.row("Purchase of property, plant and equipment", "-capex");
  t.row("Net borrowings drawn", "borrowed");
  t.row("Dividends paid", "-dividends");
  t.row("Net increase/(decrease) in cash", "movement");
  t.row("Ordinary shares in issue (m)", "shares");
}

void germanCyclical(Table& t) {
  t.text("Konzern-Gewinn- und Verlustrechnung");
  t.heading("in TEUR", [](int year) { return std::to_string(year); });
  t.row("Umsatzerlöse", "revenue");
  t.row("Herstellungskosten", "-costOfSales");
  t.row("Vertriebs- und Verwaltungskosten", "-overhead");
  t.row("Abschreibungen", "-depreciation");
  t.row("Betriebsergebnis", "ebit");
  t.row("Zinserträge", "interestIncome");
  t.row("Zinsaufwendungen", "-interest");
  t.row("Ergebnis vor Steuern", "pretax");
  t.row("Ertragsteuern", "-tax");
  t.row("Jahresüberschuss", "net");
  t.text("Konzernbilanz");
  t.row("Geschäfts- oder Firmenwert", "goodwill");
  t.row("Sachanlagen", "plant");
  t.row("Vorräte", "inventory");
  t.row("Forderungen aus Lieferungen und Leistungen", "receivables");
  t.row("Sonstige kurzfristige Vermögenswerte", "otherCurrent");
  t.row("Zahlungsmittel", "cash");
  t.row("Bilanzsumme", "assets");
  t.row("Eigenkapital", "equity");
  t.row("Langfristige Finanzverbindlichkeiten", "debtLong");
  t.row("Kurzfristige Finanzverbindlichkeiten", "debtCurrent");
  t.row("Verbindlichkeiten aus Lieferungen und Leistungen", "payables");
  t.row("Sonstige kurzfristige Verbindlichkeiten", "otherOwed");
  t.row("Summe Passiva", "assets");
  t.text("Konzern-Kapitalflussrechnung");
  t.row("Cashflow aus betrieblicher Tätigkeit", "operatingFlow");
  t.row("Investitionen in Sachanlagen", "-capex");
  t.row("Veränderung der Finanzverbindlichkeiten", "borrowed");
  t.row("Gezahlte Dividenden", "-dividends");
  t.row("Veränderung der Zahlungsmittel", "movement");
  t.row("Anzahl der Aktien (Tsd.)", "shares");
}

void japanese(Table& t) {
  t.text("Consolidated statements of income");
  t.heading("Millions of yen", [](int year) { return "Fiscal year ended March 31, " + std::to_string(year); });
  t.row("Net sales", "revenue");
  t.row("Cost of sales", "salesCostWithWear");
  t.row("Gross profit", "grossWithWear");
  t.row("Selling, general and administrative expenses", "overheadWithWear");
  t.row("Operating income", "ebit");
  t.row("Interest income", "interestIncome");
  t.row("Interest expense", "interest");
  t.row("Profit before income taxes", "pretax");
  t.row("Income taxes", "tax");
  t.row("Profit", "net");
  t.text("Consolidated balance sheets");
  t.row("Cash and deposits", "cash");
  t.row("Notes and accounts receivable", "receivables");
  t.row("Inventories", "inventory");
  t.row("Other current assets", "otherCurrent");
  t.row("Total current assets", "currentAssets");
  t.row("Property, plant and equipment", "plant");
  t.row("Goodwill", "goodwill");
  t.row("Total assets", "assets");
  t.row("Notes and accounts payable", "payables");
  t.row("Other current liabilities", "otherOwed");
  t.row("Short-term loans payable", "debtCurrent");
  t.row("Total current liabilities", "currentOwed");
  t.row("Long-term loans payable", "debtLong");
  t.row("Total liabilities", "owed");
  t.row("Total net assets", "equity");
  t.row("Total liabilities and net assets", "assets");
  t.text("Consolidated statements of cash flows");
  t.row("Depreciation and amortization", "depreciation");
  t.row("Net cash provided by operating activities", "operatingFlow");
  t.row("Purchase of property, plant and equipment", "-capex");
  t.row("Net increase (decrease) in loans payable", "borrowed");
  t.row("Dividends paid", "-dividends");
  t.row("Net increase (decrease) in cash and cash equivalents", "movement");
  t.row("Number of shares outstanding (millions)", "shares");
}

void singleEquity(Table& t) {
  t.text("Statements");
  t.heading("CHF m", [](int year) { return "FY" + std::to_string(year); });
  t.row("Sales", "revenue");
  t.row("Cost of goods sold", "costOfSales");
  t.row("Operating expenses", "overhead");
  t.row("Depreciation", "depreciation");
  t.row("EBIT", "ebit");
  t.row("Interest expense", "interest");
  t.row("Interest income", "interestIncome");
  t.row("Earnings before tax", "pretax");
  t.row("Taxes", "tax");
  t.row("Net profit", "net");
  t.row("Cash", "cash");
  t.row("Receivables", "receivables");
  t.row("Inventory", "inventory");
  t.row("Other current assets", "otherCurrent");
  t.row("Fixed assets", "plant");
  t.row("Goodwill", "goodwill");
  t.row("Total assets", "assets");
  t.row("Payables", "payables");
  t.row("Accrued expenses", "otherOwed");
  t.row("Short-term bank loans", "debtCurrent");
  t.row("Bonds", "debtLong");
  t.row("Shareholders' equity", "equity");
  t.row("Cash flow from operations", "operatingFlow");
  t.row("Capital expenditure", "capex");
  t.row("Change in debt", "borrowed");
  t.row("Dividends", "dividends");
  t.row("Change in cash", "movement");
  t.row("Shares outstanding (m)", "shares");
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
  const std::pair<const char*, const char*> kLines[] = {{"revenue", "revenue"},
                                                        {"cost_of_sales", "costOfSales"},
                                                        {"operating_expenses", "overhead"},
                                                        {"depreciation", "depreciation"},
                                                        {"ebit", "ebit"},
                                                        {"interest_expense", "interest"},
                                                        {"interest_income", "interestIncome"},
                                                        {"pretax_profit", "pretax"},
                                                        {"tax", "tax"},
                                                        {"net_income", "net"},
                                                        {"cash", "cash"},
                                                        {"receivables", "receivables"},
                                                        {"inventory", "inventory"},
                                                        {"other_current_assets", "otherCurrent"},
                                                        {"plant", "plant"},
                                                        {"right_of_use", "rightOfUse"},
                                                        {"goodwill", "goodwill"},
                                                        {"total_assets", "assets"},
                                                        {"payables", "payables"},
                                                        {"other_current_liabilities", "otherOwed"},
                                                        {"borrowings_current", "debtCurrent"},
                                                        {"borrowings_long", "debtLong"},
                                                        {"lease_liabilities", "leases"},
                                                        {"total_liabilities", "owed"},
                                                        {"equity", "equity"},
                                                        {"total_equity", "equity"},
                                                        {"operating_cash_flow", "operatingFlow"},
                                                        {"plant_bought", "capex"},
                                                        {"net_borrowing", "borrowed"},
                                                        {"dividends", "dividends"},
                                                        {"net_cash_movement", "movement"},
                                                        {"shares", "shares"}};
  for (const auto& [line, figure] : kLines) {
    for (size_t i = 0; i < s.economy.years.size(); ++i) {
      const int year = kLastYear - static_cast<int>(s.economy.years.size() - 1 - i);
      s.lines[line][year] = figureOf(s.economy.years[i], figure);
    }
  }
  return s;
}

}  // namespace zl::test
