#include "services/intake/market_headings.h"

#include <algorithm>
#include <span>

#include "core/filing/labels.h"
#include "core/peers/peer.h"

namespace zl::services {
namespace {

using Words = std::vector<const char*>;

/// What a column may be, by the words of its heading.
struct Heading {
  const char* is;
  Words words;
};

const std::vector<Heading>& headings() {
  static const std::vector<Heading> kHeadings = {
      {"date", {"date", "day", "datum", "fecha", "data", "price date", "as at", "as of", "tag"}},
      {"close", {"close",       "closing price", "close price", "price",         "last",         "last price",
                 "share price", "kurs",          "schlusskurs", "cours",         "cl\u00F4ture", "dernier",
                 "cierre",      "precio",        "chiusura",    "prezzo",        "slotkoers",    "koers",
                 "last close",  "current price", "adj close",   "adjusted close"}},
      {"name",
       {"name", "company", "company name", "peer", "firm", "unternehmen", "firma", "soci\u00E9t\u00E9", "entreprise",
        "empresa", "societ\u00E0", "bedrijf", "comparable", "comparables", "peers"}},
      {"id", {"short name", "id", "code"}},
      {"currency", {"currency", "reporting currency", "w\u00E4hrung", "devise", "moneda", "valuta"}},
      {"price_currency", {"price currency", "price unit", "quoted", "listing currency", "unit"}},
      {"shares",
       {"shares", "share count", "shares outstanding", "diluted shares", "number shares", "aktien", "actions",
        "acciones", "azioni", "aandelen", "ordinary shares"}},
      {"market_value",
       {"market cap", "market capitalisation", "market capitalization", "market value", "equity value", "mkt cap",
        "b\u00F6rsenwert", "marktkapitalisierung", "capitalisation boursi\u00E8re", "capitalisation",
        "capitalizaci\u00F3n", "capitalizzazione", "marktwaarde"}},
      {"debt", {"debt", "total debt", "borrowings", "gross debt", "financial debt", "finanzschulden", "dette"}},
      {"net_debt", {"net debt", "nettoverschuldung", "dette nette", "deuda neta", "nettoschuld"}},
      {"ev", {"ev", "enterprise value", "firm value", "unternehmenswert", "valeur d'entreprise"}},
      {"cash", {"cash", "cash and cash equivalents", "liquide mittel", "tr\u00E9sorerie"}},
      {"leases", {"leases", "lease liabilities", "lease liability"}},
      {"preferred", {"preferred", "preferred stock", "preference shares"}},
      {"minorities", {"minorities", "minority interests", "non controlling interests"}},
      {"pension", {"pension", "pensions", "pension deficit"}},
      {"associates", {"associates", "associated companies"}},
      {"year_end", {"year end", "fiscal year end", "year ended", "fy end", "fiscal year", "year", "period"}},
      {"revenue",
       {"revenue", "revenues", "sales", "net sales", "turnover", "umsatz", "chiffre d'affaires", "chiffre affaires",
        "ventas", "ricavi", "omzet"}},
      {"ebitda", {"ebitda"}},
      {"ebit", {"ebit", "operating profit", "operating income"}},
      {"net_income",
       {"net income", "net profit", "earnings", "profit", "profit after tax", "net earnings", "jahres\u00FCberschuss",
        "r\u00E9sultat net", "beneficio neto", "utile netto", "nettowinst"}},
      {"equity", {"equity", "book value", "shareholders equity", "shareholders' equity", "eigenkapital"}},
      {"operating_cash_flow", {"operating cash flow", "cash flow from operations"}},
      {"capex", {"capex", "capital expenditure"}},
      {"dividends", {"dividends paid", "total dividends", "dividends in all"}},
      {"nopat", {"nopat", "operating profit after tax"}},
      {"intangibles", {"intangibles", "goodwill and intangibles", "intangible assets"}},
      {"stock_pay", {"stock pay", "share based payment", "share based payments", "stock based compensation"}},
      {"research", {"research", "research and development", "r&d"}},
      {"lease_cost", {"lease cost", "lease payments"}},
      {"interest", {"interest", "interest expense"}},
      {"remark", {"remark", "comment", "note", "why", "remarks"}},
      {"rate",
       {"rate", "pair", "currency pair", "what", "zins", "zinssatz", "satz", "taux", "tipo", "tasso", "rente",
        "ränta"}},
      {"series", {"series", "index", "security", "indice", "indeks", "benchmark"}},
      {"dividend", {"dividend", "dividends", "dividende", "dividendo"}},
      {"regions", {"regions", "revenue by region", "sales by region"}},
      {"businesses", {"businesses", "revenue by business", "sales by business"}},
      {"region", {"country", "region", "market", "land", "pays", "país", "paese", "area"}},
      {"premium",
       {"country premium", "country risk premium", "crp", "premium", "risk premium", "länderrisikoprämie",
        "prime risque pays"}},
      {"tax",
       {"tax", "tax rate", "corporate tax", "corporate tax rate", "marginal tax", "marginal tax rate", "steuersatz",
        "taux impôt"}},
      {"cover",
       {"cover", "interest cover", "interest coverage", "coverage", "from cover", "interest coverage ratio",
        "zinsdeckung"}},
      {"spread", {"spread", "default spread", "credit spread"}},
      {"figure",
       {"figure", "value", "yield", "level", "percent", "wert", "valeur", "valor", "valore", "waarde", "värde"}},
      {"source", {"source", "quelle", "from"}},
      {"item", {"item", "line", "measure", "metric"}},
      {"mean", {"mean", "consensus", "average", "estimate", "expected"}},
      {"low", {"low", "lowest", "min"}},
      {"high", {"high", "highest", "max"}},
      {"count", {"count", "analysts", "number analysts", "estimates"}},
      {"by", {"by", "whose"}}};
  return kHeadings;
}

/// "Revenue (EUR m)", "Sales $bn": the words before what names a unit.
std::string headingOf(const std::string& text) {
  std::string label = normalisedLabel(text);
  const auto known = [&](const std::string& words) -> std::string {
    for (const Heading& heading : headings()) {
      for (const char* word : heading.words) {
        if (words == normalisedLabel(word)) return heading.is;
      }
    }
    return {};
  };
  for (; !label.empty();
       label = label.substr(0, label.find_last_of(' ') == std::string::npos ? 0 : label.find_last_of(' '))) {
    if (std::string is = known(label); !is.empty()) return is;
    // What is cut off must be a unit: "sales growth" are no sales.
    const std::string last = label.substr(label.find_last_of(' ') + 1);
    const UnitHeading unit = unitHeading("in " + last);
    if (unit.currency.empty() && !unit.scale) return {};
  }
  return {};
}

/// "Revenue (units)" counts one by one; elsewhere units are what a company is made of.
UnitHeading unitOf(const std::string& heading) {
  UnitHeading unit = unitHeading(heading);
  if (!unit.scale && heading.ends_with("(units)")) unit.scale = 0;
  return unit;
}

/// The words of a heading; brackets and commas part them, too.
std::vector<std::string> wordsOf(const std::string& heading) {
  std::vector<std::string> words(1);
  for (const char c : heading) {
    const bool parts = c == ' ' || c == '(' || c == ')' || c == ',' || c == ';' || c == '\n' || c == '\r' || c == '\t';
    if (!parts) {
      words.back() += c;
    } else if (!words.back().empty()) {
      words.emplace_back();
    }
  }
  if (words.back().empty()) words.pop_back();
  return words;
}

std::string joined(std::span<const std::string> words) {
  std::string text;
  for (const std::string& word : words) text += (text.empty() ? "" : " ") + word;
  return text;
}

/// "LTM", "TTM": twelve months to the last report.
bool saysTrailing(std::string word) {
  std::transform(word.begin(), word.end(), word.begin(), [](unsigned char c) { return std::tolower(c); });
  return word == "ltm" || word == "ttm" || word == "latest" || word == "trailing";
}

constexpr size_t kMostWords = 4;  // "31 December 2025", "FY 2025 E"

/// Of a heading of a figure and a fiscal year, "Revenue (2026E)": the longest run of words that is a year is taken out.
void findPeriod(MarketColumn& column) {
  std::vector<std::string> words = wordsOf(column.text);
  words.erase(std::remove_if(words.begin(), words.end(), saysTrailing), words.end());
  if (column.is.empty()) column.is = headingOf(joined(words));
  for (size_t length = std::min(kMostWords, words.size()); length > 0; --length) {
    for (size_t at = 0; at + length <= words.size(); ++at) {
      const std::optional<PeriodHeading> period = periodHeading(joined(std::span(words).subspan(at, length)));
      if (!period || period->months != 12 || period->part != 0) continue;
      std::vector<std::string> others = words;
      others.erase(others.begin() + static_cast<std::ptrdiff_t>(at),
                   others.begin() + static_cast<std::ptrdiff_t>(at + length));
      const std::string is = headingOf(joined(others));
      if (is.empty()) continue;
      column.is = is;
      column.year = period->forecast ? -1 : period->year;
      if (isPeerFigure(is)) column.period = period;
      return;
    }
  }
}

}  // namespace

MarketColumn marketColumn(int at, const std::string& heading) {
  MarketColumn column{at, headingOf(heading), heading, unitOf(heading), {}, 0};
  findPeriod(column);
  return column;
}

bool isPeerFigure(const std::string& is) {
  return is.starts_with(kFurtherColumn) || std::any_of(std::begin(kPeerColumns), std::end(kPeerColumns),
                                                       [&](const PeerColumn& column) { return is == column.name; });
}

bool isStatistic(const std::string& name) {
  static const std::vector<const char*> kNames = {
      "median",       "mean",    "average",      "high",  "low",     "maximum",  "minimum",    "total",   "mittelwert",
      "durchschnitt", "moyenne", "m\u00E9diane", "media", "mediana", "promedio", "gemiddelde", "mediaan", "quartile"};
  const std::string label = normalisedLabel(name);
  return std::find(kNames.begin(), kNames.end(), label) != kNames.end();
}

std::string quotedIn(const std::string& cell) {
  size_t end = cell.size();
  while (end > 0 && cell[end - 1] == ' ') --end;
  size_t first = end;
  while (first > 0 && std::isalpha(static_cast<unsigned char>(cell[first - 1])) != 0) --first;
  const std::string letters = cell.substr(first, end - first);
  size_t figure = first;
  while (figure > 0 && cell[figure - 1] == ' ') --figure;
  if (figure == 0 || std::isdigit(static_cast<unsigned char>(cell[figure - 1])) == 0) return {};
  for (const char* pence : {"p", "pence"}) {
    if (letters == pence) return "GBX";
  }
  for (const char* minor : kMinorUnits) {
    if (letters == minor) return minor;
  }
  return {};
}

}  // namespace zl::services
