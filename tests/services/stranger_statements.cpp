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

using Of = std::function<long(const EconomyYear&)>;

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
  void row(const std::string& label, const Of& of) {
    csv_ += quoted(label);
    for (const size_t i : order()) csv_ += ";" + print_.of(of(economy_.years[i]));
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

using Y = EconomyYear;

/// Depreciation within cost of sales where functions contain it: its share of the two.
long inSales(const Y& y) {
  return y.depreciation * y.costOfSales / (y.costOfSales + y.overhead);
}

void usByFunction(Table& t) {
  t.text("Consolidated statements of operations");
  t.heading("In millions of US dollars; except share data", [](int year) {
    return std::string("Fiscal year ended September ") + (year % 6 == 0 ? "30" : "28") + ", " + std::to_string(year);
  });
  t.row("Net sales", [](const Y& y) { return y.revenue; });
  t.row("Cost of sales", [](const Y& y) { return y.costOfSales + inSales(y); });
  t.row("Gross profit", [](const Y& y) { return y.revenue - y.costOfSales - inSales(y); });
  t.row("Selling, general and administrative expenses",
        [](const Y& y) { return y.overhead + y.depreciation - inSales(y); });
  t.row("Operating income", [](const Y& y) { return y.ebit; });
  t.row("Interest expense", [](const Y& y) { return y.interest; });
  t.row("Interest income", [](const Y& y) { return y.interestIncome; });
  t.row("Income before income taxes", [](const Y& y) { return y.pretax; });
  t.row("Provision for income taxes", [](const Y& y) { return y.tax; });
  t.row("Net income", [](const Y& y) { return y.net; });
  t.row("Weighted average diluted shares", [](const Y& y) { return y.shares; });
  t.text("Consolidated balance sheets");
  t.row("Cash and cash equivalents", [](const Y& y) { return y.cash; });
  t.row("Accounts receivable, net", [](const Y& y) { return y.receivables; });
  t.row("Inventories", [](const Y& y) { return y.inventory; });
  t.row("Prepaid expenses and other current assets", [](const Y& y) { return y.otherCurrent; });
  t.row("Total current assets", [](const Y& y) { return y.currentAssets(); });
  t.row("Property, plant and equipment, net", [](const Y& y) { return y.plant; });
  t.row("Operating lease right-of-use assets", [](const Y& y) { return y.rightOfUse; });
  t.row("Goodwill", [](const Y& y) { return y.goodwill; });
  t.row("Total assets", [](const Y& y) { return y.assets(); });
  t.row("Accounts payable", [](const Y& y) { return y.payables; });
  t.row("Accrued liabilities", [](const Y& y) { return y.otherOwed; });
  t.row("Current portion of long-term debt", [](const Y& y) { return y.debtCurrent; });
  t.row("Total current liabilities", [](const Y& y) { return y.currentOwed(); });
  t.row("Long-term debt", [](const Y& y) { return y.debtLong; });
  t.row("Operating lease liabilities", [](const Y& y) { return y.leases; });
  t.row("Total liabilities", [](const Y& y) { return y.owed(); });
  t.row("Total stockholders' equity", [](const Y& y) { return y.equity; });
  t.row("Total liabilities and stockholders' equity", [](const Y& y) { return y.assets(); });
  t.text("Consolidated statements of cash flows");
  t.row("Net income", [](const Y& y) { return y.net; });
  t.row("Depreciation and amortization", [](const Y& y) { return y.depreciation; });
  t.row("Changes in operating assets and liabilities",
        [](const Y& y) { return y.operatingFlow - y.net - y.depreciation; });
  t.row("Net cash provided by operating activities", [](const Y& y) { return y.operatingFlow; });
  t.row("Purchases of property and equipment", [](const Y& y) { return -y.capex; });
  t.row("Net cash used in investing activities", [](const Y& y) { return -y.capex; });
  t.row("Net proceeds from (repayments of) debt", [](const Y& y) { return y.borrowed; });
  t.row("Dividends paid", [](const Y& y) { return -y.dividends; });
  t.row("Net cash used in financing activities", [](const Y& y) { return y.borrowed - y.dividends; });
  t.row("Net increase (decrease) in cash and cash equivalents", [](const Y& y) { return y.movement; });
}

void euByFunction(Table& t) {
  t.text("Consolidated income statement");
  t.heading("EUR thousand", [](int year) { return "31.12." + std::to_string(year); });
  t.row("Revenue", [](const Y& y) { return y.revenue; });
  t.row("Cost of sales", [](const Y& y) { return -y.costOfSales; });
  t.row("Gross profit", [](const Y& y) { return y.revenue - y.costOfSales; });
  t.row("Distribution and administrative expenses", [](const Y& y) { return -y.overhead; });
  t.row("Depreciation and amortisation", [](const Y& y) { return -y.depreciation; });
  t.row("Operating profit", [](const Y& y) { return y.ebit; });
  t.row("Finance income", [](const Y& y) { return y.interestIncome; });
  t.row("Finance costs", [](const Y& y) { return -y.interest; });
  t.row("Profit before tax", [](const Y& y) { return y.pretax; });
  t.row("Income tax expense", [](const Y& y) { return -y.tax; });
  t.row("Profit for the year", [](const Y& y) { return y.net; });
  t.text("Consolidated statement of financial position");
  t.row("Property, plant and equipment", [](const Y& y) { return y.plant; });
  t.row("Goodwill", [](const Y& y) { return y.goodwill; });
  t.row("Total non-current assets", [](const Y& y) { return y.plant + y.goodwill; });
  t.row("Inventories", [](const Y& y) { return y.inventory; });
  t.row("Trade receivables", [](const Y& y) { return y.receivables; });
  t.row("Other current assets", [](const Y& y) { return y.otherCurrent; });
  t.row("Cash and cash equivalents", [](const Y& y) { return y.cash; });
  t.row("Total current assets", [](const Y& y) { return y.currentAssets(); });
  t.row("Total assets", [](const Y& y) { return y.assets(); });
  t.row("Total equity", [](const Y& y) { return y.equity; });
  t.row("Long-term borrowings", [](const Y& y) { return y.debtLong; });
  t.row("Total non-current liabilities", [](const Y& y) { return y.debtLong; });
  t.row("Trade payables", [](const Y& y) { return y.payables; });
  t.row("Other current liabilities", [](const Y& y) { return y.otherOwed; });
  t.row("Short-term borrowings", [](const Y& y) { return y.debtCurrent; });
  t.row("Total current liabilities", [](const Y& y) { return y.currentOwed(); });
  t.row("Total liabilities", [](const Y& y) { return y.owed(); });
  t.row("Total equity and liabilities", [](const Y& y) { return y.assets(); });
  t.text("Consolidated statement of cash flows");
  t.row("Profit for the year", [](const Y& y) { return y.net; });
  t.row("Depreciation and amortisation", [](const Y& y) { return y.depreciation; });
  t.row("Change in working capital", [](const Y& y) { return y.operatingFlow - y.net - y.depreciation; });
  t.row("Net cash from operating activities", [](const Y& y) { return y.operatingFlow; });
  t.row("Purchase of property, plant and equipment", [](const Y& y) { return -y.capex; });
  t.row("Change in borrowings", [](const Y& y) { return y.borrowed; });
  t.row("Dividends paid", [](const Y& y) { return -y.dividends; });
  t.row("Net change in cash", [](const Y& y) { return y.movement; });
  t.row("Number of shares outstanding (thousands)", [](const Y& y) { return y.shares; });
}

void euByNature(Table& t) {
  t.text("Compte de résultat consolidé");
  t.heading("en milliers d'euros", [](int year) { return std::to_string(year); });
  t.row("Chiffre d'affaires", [](const Y& y) { return y.revenue; });
  t.row("Achats consommés", [](const Y& y) { return -y.costOfSales; });
  t.row("Charges de personnel", [](const Y& y) { return -y.staff; });
  t.row("Autres charges opérationnelles", [](const Y& y) { return -(y.overhead - y.staff); });
  t.row("Dotations aux amortissements", [](const Y& y) { return -y.depreciation; });
  t.row("Résultat opérationnel", [](const Y& y) { return y.ebit; });
  t.row("Produits financiers", [](const Y& y) { return y.interestIncome; });
  t.row("Charges financières", [](const Y& y) { return -y.interest; });
  t.row("Résultat avant impôt", [](const Y& y) { return y.pretax; });
  t.row("Impôt sur les bénéfices", [](const Y& y) { return -y.tax; });
  t.row("Résultat net", [](const Y& y) { return y.net; });
  t.text("Bilan consolidé");
  t.row("Goodwill", [](const Y& y) { return y.goodwill; });
  t.row("Immobilisations corporelles", [](const Y& y) { return y.plant; });
  t.row("Stocks", [](const Y& y) { return y.inventory; });
  t.row("Créances clients", [](const Y& y) { return y.receivables; });
  t.row("Autres actifs courants", [](const Y& y) { return y.otherCurrent; });
  t.row("Trésorerie et équivalents de trésorerie", [](const Y& y) { return y.cash; });
  t.row("Total de l'actif", [](const Y& y) { return y.assets(); });
  t.row("Capitaux propres", [](const Y& y) { return y.equity; });
  t.row("Emprunts à long terme", [](const Y& y) { return y.debtLong; });
  t.row("Emprunts à court terme", [](const Y& y) { return y.debtCurrent; });
  t.row("Dettes fournisseurs", [](const Y& y) { return y.payables; });
  t.row("Autres passifs courants", [](const Y& y) { return y.otherOwed; });
  t.row("Total du passif et des capitaux propres", [](const Y& y) { return y.assets(); });
  t.text("Tableau des flux de trésorerie");
  t.row("Flux de trésorerie liés à l'activité", [](const Y& y) { return y.operatingFlow; });
  t.row("Acquisitions d'immobilisations corporelles", [](const Y& y) { return -y.capex; });
  t.row("Variation des emprunts", [](const Y& y) { return y.borrowed; });
  t.row("Dividendes versés", [](const Y& y) { return -y.dividends; });
  t.row("Variation de la trésorerie", [](const Y& y) { return y.movement; });
  t.row("Nombre d'actions (milliers)", [](const Y& y) { return y.shares; });
}

void ukTurned(Table& t) {
  t.text("Group income statement");
  t.heading("£m", [](int year) { return "Year ended 31 March " + std::to_string(year); });
  t.row("Revenue", [](const Y& y) { return y.revenue; });
  t.row("Cost of sales", [](const Y& y) { return -y.costOfSales; });
  t.row("Gross profit", [](const Y& y) { return y.revenue - y.costOfSales; });
  t.row("Administrative expenses", [](const Y& y) { return -y.overhead; });
  t.row("Depreciation", [](const Y& y) { return -y.depreciation; });
  t.row("Operating profit/(loss)", [](const Y& y) { return y.ebit; });
  t.row("Finance income", [](const Y& y) { return y.interestIncome; });
  t.row("Finance expense", [](const Y& y) { return -y.interest; });
  t.row("Profit/(loss) before tax", [](const Y& y) { return y.pretax; });
  t.row("Taxation", [](const Y& y) { return -y.tax; });
  t.row("Profit/(loss) for the year", [](const Y& y) { return y.net; });
  t.text("Group balance sheet");
  t.row("Goodwill", [](const Y& y) { return y.goodwill; });
  t.row("Property, plant and equipment", [](const Y& y) { return y.plant; });
  t.row("Inventories", [](const Y& y) { return y.inventory; });
  t.row("Trade receivables", [](const Y& y) { return y.receivables; });
  t.row("Other current assets", [](const Y& y) { return y.otherCurrent; });
  t.row("Cash at bank", [](const Y& y) { return y.cash; });
  t.row("Total assets", [](const Y& y) { return y.assets(); });
  t.row("Trade payables", [](const Y& y) { return -y.payables; });
  t.row("Accruals", [](const Y& y) { return -y.otherOwed; });
  t.row("Current borrowings", [](const Y& y) { return -y.debtCurrent; });
  t.row("Non-current borrowings", [](const Y& y) { return -y.debtLong; });
  t.row("Total liabilities", [](const Y& y) { return -y.owed(); });
  t.row("Net assets", [](const Y& y) { return y.equity; });
  t.row("Total equity", [](const Y& y) { return y.equity; });
  t.text("Group cash flow statement");
  t.row("Cash generated from operating activities", [](const Y& y) { return y.operatingFlow; });
  t.row("Purchase of property, plant and equipment", [](const Y& y) { return -y.capex; });
  t.row("Net borrowings drawn", [](const Y& y) { return y.borrowed; });
  t.row("Dividends paid", [](const Y& y) { return -y.dividends; });
  t.row("Net increase/(decrease) in cash", [](const Y& y) { return y.movement; });
  t.row("Ordinary shares in issue (m)", [](const Y& y) { return y.shares; });
}

void germanCyclical(Table& t) {
  t.text("Konzern-Gewinn- und Verlustrechnung");
  t.heading("in TEUR", [](int year) { return std::to_string(year); });
  t.row("Umsatzerlöse", [](const Y& y) { return y.revenue; });
  t.row("Herstellungskosten", [](const Y& y) { return -y.costOfSales; });
  t.row("Vertriebs- und Verwaltungskosten", [](const Y& y) { return -y.overhead; });
  t.row("Abschreibungen", [](const Y& y) { return -y.depreciation; });
  t.row("Betriebsergebnis", [](const Y& y) { return y.ebit; });
  t.row("Zinserträge", [](const Y& y) { return y.interestIncome; });
  t.row("Zinsaufwendungen", [](const Y& y) { return -y.interest; });
  t.row("Ergebnis vor Steuern", [](const Y& y) { return y.pretax; });
  t.row("Ertragsteuern", [](const Y& y) { return -y.tax; });
  t.row("Jahresüberschuss", [](const Y& y) { return y.net; });
  t.text("Konzernbilanz");
  t.row("Geschäfts- oder Firmenwert", [](const Y& y) { return y.goodwill; });
  t.row("Sachanlagen", [](const Y& y) { return y.plant; });
  t.row("Vorräte", [](const Y& y) { return y.inventory; });
  t.row("Forderungen aus Lieferungen und Leistungen", [](const Y& y) { return y.receivables; });
  t.row("Sonstige kurzfristige Vermögenswerte", [](const Y& y) { return y.otherCurrent; });
  t.row("Zahlungsmittel", [](const Y& y) { return y.cash; });
  t.row("Bilanzsumme", [](const Y& y) { return y.assets(); });
  t.row("Eigenkapital", [](const Y& y) { return y.equity; });
  t.row("Langfristige Finanzverbindlichkeiten", [](const Y& y) { return y.debtLong; });
  t.row("Kurzfristige Finanzverbindlichkeiten", [](const Y& y) { return y.debtCurrent; });
  t.row("Verbindlichkeiten aus Lieferungen und Leistungen", [](const Y& y) { return y.payables; });
  t.row("Sonstige kurzfristige Verbindlichkeiten", [](const Y& y) { return y.otherOwed; });
  t.row("Summe Passiva", [](const Y& y) { return y.assets(); });
  t.text("Konzern-Kapitalflussrechnung");
  t.row("Cashflow aus betrieblicher Tätigkeit", [](const Y& y) { return y.operatingFlow; });
  t.row("Investitionen in Sachanlagen", [](const Y& y) { return -y.capex; });
  t.row("Veränderung der Finanzverbindlichkeiten", [](const Y& y) { return y.borrowed; });
  t.row("Gezahlte Dividenden", [](const Y& y) { return -y.dividends; });
  t.row("Veränderung der Zahlungsmittel", [](const Y& y) { return y.movement; });
  t.row("Anzahl der Aktien (Tsd.)", [](const Y& y) { return y.shares; });
}

void japanese(Table& t) {
  t.text("Consolidated statements of income");
  t.heading("Millions of yen", [](int year) { return "Fiscal year ended March 31, " + std::to_string(year); });
  t.row("Net sales", [](const Y& y) { return y.revenue; });
  t.row("Cost of sales", [](const Y& y) { return y.costOfSales + inSales(y); });
  t.row("Gross profit", [](const Y& y) { return y.revenue - y.costOfSales - inSales(y); });
  t.row("Selling, general and administrative expenses",
        [](const Y& y) { return y.overhead + y.depreciation - inSales(y); });
  t.row("Operating income", [](const Y& y) { return y.ebit; });
  t.row("Interest income", [](const Y& y) { return y.interestIncome; });
  t.row("Interest expense", [](const Y& y) { return y.interest; });
  t.row("Profit before income taxes", [](const Y& y) { return y.pretax; });
  t.row("Income taxes", [](const Y& y) { return y.tax; });
  t.row("Profit", [](const Y& y) { return y.net; });
  t.text("Consolidated balance sheets");
  t.row("Cash and deposits", [](const Y& y) { return y.cash; });
  t.row("Notes and accounts receivable", [](const Y& y) { return y.receivables; });
  t.row("Inventories", [](const Y& y) { return y.inventory; });
  t.row("Other current assets", [](const Y& y) { return y.otherCurrent; });
  t.row("Total current assets", [](const Y& y) { return y.currentAssets(); });
  t.row("Property, plant and equipment", [](const Y& y) { return y.plant; });
  t.row("Goodwill", [](const Y& y) { return y.goodwill; });
  t.row("Total assets", [](const Y& y) { return y.assets(); });
  t.row("Notes and accounts payable", [](const Y& y) { return y.payables; });
  t.row("Other current liabilities", [](const Y& y) { return y.otherOwed; });
  t.row("Short-term loans payable", [](const Y& y) { return y.debtCurrent; });
  t.row("Total current liabilities", [](const Y& y) { return y.currentOwed(); });
  t.row("Long-term loans payable", [](const Y& y) { return y.debtLong; });
  t.row("Total liabilities", [](const Y& y) { return y.owed(); });
  t.row("Total net assets", [](const Y& y) { return y.equity; });
  t.row("Total liabilities and net assets", [](const Y& y) { return y.assets(); });
  t.text("Consolidated statements of cash flows");
  t.row("Depreciation and amortization", [](const Y& y) { return y.depreciation; });
  t.row("Net cash provided by operating activities", [](const Y& y) { return y.operatingFlow; });
  t.row("Purchase of property, plant and equipment", [](const Y& y) { return -y.capex; });
  t.row("Net increase (decrease) in loans payable", [](const Y& y) { return y.borrowed; });
  t.row("Dividends paid", [](const Y& y) { return -y.dividends; });
  t.row("Net increase (decrease) in cash and cash equivalents", [](const Y& y) { return y.movement; });
  t.row("Number of shares outstanding (millions)", [](const Y& y) { return y.shares; });
}

void singleEquity(Table& t) {
  t.text("Statements");
  t.heading("CHF m", [](int year) { return "FY" + std::to_string(year); });
  t.row("Sales", [](const Y& y) { return y.revenue; });
  t.row("Cost of goods sold", [](const Y& y) { return y.costOfSales; });
  t.row("Operating expenses", [](const Y& y) { return y.overhead; });
  t.row("Depreciation", [](const Y& y) { return y.depreciation; });
  t.row("EBIT", [](const Y& y) { return y.ebit; });
  t.row("Interest expense", [](const Y& y) { return y.interest; });
  t.row("Interest income", [](const Y& y) { return y.interestIncome; });
  t.row("Earnings before tax", [](const Y& y) { return y.pretax; });
  t.row("Taxes", [](const Y& y) { return y.tax; });
  t.row("Net profit", [](const Y& y) { return y.net; });
  t.row("Cash", [](const Y& y) { return y.cash; });
  t.row("Receivables", [](const Y& y) { return y.receivables; });
  t.row("Inventory", [](const Y& y) { return y.inventory; });
  t.row("Other current assets", [](const Y& y) { return y.otherCurrent; });
  t.row("Fixed assets", [](const Y& y) { return y.plant; });
  t.row("Goodwill", [](const Y& y) { return y.goodwill; });
  t.row("Total assets", [](const Y& y) { return y.assets(); });
  t.row("Payables", [](const Y& y) { return y.payables; });
  t.row("Accrued expenses", [](const Y& y) { return y.otherOwed; });
  t.row("Short-term bank loans", [](const Y& y) { return y.debtCurrent; });
  t.row("Bonds", [](const Y& y) { return y.debtLong; });
  t.row("Shareholders' equity", [](const Y& y) { return y.equity; });
  t.row("Cash flow from operations", [](const Y& y) { return y.operatingFlow; });
  t.row("Capital expenditure", [](const Y& y) { return y.capex; });
  t.row("Change in debt", [](const Y& y) { return y.borrowed; });
  t.row("Dividends", [](const Y& y) { return y.dividends; });
  t.row("Change in cash", [](const Y& y) { return y.movement; });
  t.row("Shares outstanding (m)", [](const Y& y) { return y.shares; });
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
  const std::pair<const char*, Of> kLines[] = {{"revenue", [](const Y& y) { return y.revenue; }},
                                               {"cost_of_sales", [](const Y& y) { return y.costOfSales; }},
                                               {"operating_expenses", [](const Y& y) { return y.overhead; }},
                                               {"depreciation", [](const Y& y) { return y.depreciation; }},
                                               {"ebit", [](const Y& y) { return y.ebit; }},
                                               {"interest_expense", [](const Y& y) { return y.interest; }},
                                               {"interest_income", [](const Y& y) { return y.interestIncome; }},
                                               {"pretax_profit", [](const Y& y) { return y.pretax; }},
                                               {"tax", [](const Y& y) { return y.tax; }},
                                               {"net_income", [](const Y& y) { return y.net; }},
                                               {"cash", [](const Y& y) { return y.cash; }},
                                               {"receivables", [](const Y& y) { return y.receivables; }},
                                               {"inventory", [](const Y& y) { return y.inventory; }},
                                               {"other_current_assets", [](const Y& y) { return y.otherCurrent; }},
                                               {"plant", [](const Y& y) { return y.plant; }},
                                               {"right_of_use", [](const Y& y) { return y.rightOfUse; }},
                                               {"goodwill", [](const Y& y) { return y.goodwill; }},
                                               {"total_assets", [](const Y& y) { return y.assets(); }},
                                               {"payables", [](const Y& y) { return y.payables; }},
                                               {"other_current_liabilities", [](const Y& y) { return y.otherOwed; }},
                                               {"borrowings_current", [](const Y& y) { return y.debtCurrent; }},
                                               {"borrowings_long", [](const Y& y) { return y.debtLong; }},
                                               {"lease_liabilities", [](const Y& y) { return y.leases; }},
                                               {"total_liabilities", [](const Y& y) { return y.owed(); }},
                                               {"equity", [](const Y& y) { return y.equity; }},
                                               {"total_equity", [](const Y& y) { return y.equity; }},
                                               {"operating_cash_flow", [](const Y& y) { return y.operatingFlow; }},
                                               {"plant_bought", [](const Y& y) { return y.capex; }},
                                               {"net_borrowing", [](const Y& y) { return y.borrowed; }},
                                               {"dividends", [](const Y& y) { return y.dividends; }},
                                               {"net_cash_movement", [](const Y& y) { return y.movement; }},
                                               {"shares", [](const Y& y) { return y.shares; }}};
  for (const auto& [line, of] : kLines) {
    for (size_t i = 0; i < s.economy.years.size(); ++i) {
      const int year = kLastYear - static_cast<int>(s.economy.years.size() - 1 - i);
      s.lines[line][year] = of(s.economy.years[i]);
    }
  }
  return s;
}

}  // namespace zl::test
