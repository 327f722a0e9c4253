#include "app/pages/market_rows.h"

#include <QCoreApplication>
#include <algorithm>
#include <cmath>
#include <set>

#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/filing/minor_unit.h"
#include "core/quantity/number_text.h"

namespace zl::app {
namespace {

using Shown = std::vector<std::vector<QString>>;
using Table = MarketRows::Table;

constexpr size_t kMostShown = 400;  // of the newest; older ones are in the book

QString tr(const char* words) {
  return QCoreApplication::translate("MarketPanel", words);
}

QString number(const Figure& f, double scale = 1) {
  return f.hasValue() ? text(plainNumber(f.value() / scale)) : QString();
}

QString day(Date date) {
  return text(dateText(date));
}

QString perCent(double fraction) {
  return text(plainNumber(std::round(fraction * 1e10) / 1e8)) + QLatin1Char('%');
}

Shown priceRows(const services::Snapshot& s) {
  Shown rows;
  for (auto p = s.market->prices.rbegin(); p != s.market->prices.rend() && rows.size() < kMostShown; ++p) {
    const store::StoredDocument* document = p->document == 0 ? nullptr : s.document(p->document);
    rows.push_back({day(p->date), text(plainNumber(p->close)),
                    document != nullptr ? text(document->document.name) : text(p->source)});
  }
  return rows;
}

/// Each series' newest levels, as many of each.
Shown seriesRows(const services::Snapshot& s) {
  Shown rows;
  const std::vector<MarketSeries>& all = s.market->series;
  const size_t each = all.empty() ? 0 : std::max<size_t>(1, kMostShown / all.size());
  for (const MarketSeries& series : all) {
    size_t shown = 0;
    for (auto p = series.points.rbegin(); p != series.points.rend() && shown < each; ++p, ++shown) {
      rows.push_back({text(series.name), day(p->date), text(plainNumber(p->level)), text(series.unit),
                      p->dividend > 0 ? text(plainNumber(p->dividend)) : QString(), text(p->source)});
    }
  }
  return rows;
}

/// What follows a beginning; null where the text does not begin so.
std::optional<std::string> after(const std::string& whole, const std::string& beginning) {
  if (whole.rfind(beginning, 0) != 0) return std::nullopt;
  return whole.substr(beginning.size());
}

/// "country premium of sales" is of the company, not of a region.
bool isOfRegion(const std::string& rate) {
  const std::optional<std::string> premium = after(rate, kCountryPremium);
  return (premium && *premium != "of sales") || after(rate, kCountryTax);
}

Shown rateRows(const services::Snapshot& s) {
  Shown rows;
  for (const MarketRate& r : s.market->rates) {
    if (isOfRegion(r.name) || after(r.name, kCoverSpread)) continue;
    const bool fraction = std::fabs(r.figure) < 1 && !text(r.name).startsWith(QLatin1String("spot"));
    rows.push_back(
        {text(r.name), day(r.date), fraction ? perCent(r.figure) : text(plainNumber(r.figure)), text(r.source)});
  }
  return rows;
}

/// A premium and a tax of one region and day stand in one row.
Shown regionRows(const services::Snapshot& s) {
  std::map<std::pair<std::string, Date>, std::vector<QString>> rows;
  for (const MarketRate& r : s.market->rates) {
    if (!isOfRegion(r.name)) continue;
    const std::optional<std::string> premium = after(r.name, kCountryPremium);
    const std::string region = premium ? *premium : *after(r.name, kCountryTax);
    std::vector<QString>& row =
        rows.try_emplace({region, r.date}, std::vector<QString>{text(region), {}, {}, day(r.date), text(r.source)})
            .first->second;
    row[premium ? 1 : 2] = perCent(r.figure);
  }
  Shown list;
  for (auto& [key, row] : rows) list.push_back(std::move(row));
  return list;
}

Shown spreadRows(const services::Snapshot& s) {
  std::map<std::pair<double, Date>, std::vector<QString>> rows;
  for (const MarketRate& r : s.market->rates) {
    const std::optional<std::string> from = after(r.name, kCoverSpread);
    const std::optional<double> bound = from ? typedNumber(*from) : std::nullopt;
    if (bound) rows[{-*bound, r.date}] = {text(*from), perCent(r.figure), day(r.date), text(r.source)};
  }
  Shown list;
  for (auto& [key, row] : rows) list.push_back(std::move(row));
  return list;
}

/// What the price is quoted in, as it is typed: GBX for pence of GBP.
QString unitOfPrice(const Peer& p) {
  for (const char* unit : {"GBX", "ZAC", "ILA", "USX"}) {
    const std::optional<Listing> listing = listingOfUnit(unit);
    if (listing && listing->currency == p.priceCurrency && listing->minorPerMajor == p.minorPerMajor)
      return QString::fromLatin1(unit);
  }
  return text(p.priceCurrency);
}

/// Rows of the model that peers tell for multiples of the analyst's own.
std::vector<std::string> furtherRows(const services::Snapshot& s) {
  std::vector<std::string> names;
  for (const Multiple m : s.crossCheck.multiples) {
    const std::string& name = ruleOf(m).metric.further;
    if (!name.empty() && std::find(names.begin(), names.end(), name) == names.end()) names.push_back(name);
  }
  return names;
}

Shown peerRows(const services::Snapshot& s) {
  constexpr double kMillion = 1e6;
  Shown rows;
  for (const Peer& p : s.market->peers) {
    const PeerYear last = p.years.empty() ? PeerYear{} : p.years.back();
    rows.push_back({text(p.name), number(p.price), unitOfPrice(p), day(p.priceDate), text(p.currency),
                    number(p.shares, kMillion), number(last.revenue, kMillion), number(last.ebitda, kMillion),
                    number(last.netIncome, kMillion), number(p.debt, kMillion), number(p.cash, kMillion)});
    for (const std::string& name : furtherRows(s)) {
      const auto found = last.further.find(name);
      rows.back().push_back(found == last.further.end() ? QString() : number(found->second, kMillion));
    }
    rows.back().push_back(p.years.empty() ? QString() : day(last.end));
    rows.back().push_back(text(p.source));
  }
  return rows;
}

Shown estimateRows(const services::Snapshot& s) {
  Shown rows;
  for (const Estimate& e : s.market->estimates) {
    const model::RowId row = s.model().find(e.item);
    const bool amount = row.known() && (s.model()[row].kind == Kind::Money || s.model()[row].kind == Kind::Shares);
    const auto figure = [&](const std::optional<double>& x) {
      return x ? text(plainNumber(amount ? *x / 1e6 : *x)) : QString();
    };
    rows.push_back({text(e.item), QString::number(e.year), figure(e.low), figure(e.mean), figure(e.high),
                    e.count > 0 ? QString::number(e.count) : QString(), day(e.date), text(e.source),
                    e.by == EstimateBy::Company ? QStringLiteral("company") : QStringLiteral("analysts")});
  }
  return rows;
}

/// Ends of the twelve months up to a day, the latest first.
QStringList monthEnds(Date until) {
  QStringList ends;
  std::chrono::year_month month{std::chrono::year_month_day(until).year(), std::chrono::year_month_day(until).month()};
  for (int back = 1; back <= 12; ++back) {
    const std::chrono::year_month_day_last last = (month - std::chrono::months(back)) / std::chrono::last;
    ends << day(Date(last));
  }
  return ends;
}

/// Currencies that the book knows of, its own first.
QStringList currencies(const services::Snapshot& s, bool quoted) {
  QStringList list{text(s.company().currency)};
  const auto add = [&](const std::string& currency) {
    if (!currency.empty() && !list.contains(text(currency))) list << text(currency);
  };
  for (const Peer& p : s.market->peers) add(quoted ? unitOfPrice(p).toStdString() : p.currency);
  add(s.company().listing.currency);
  if (quoted) add(s.company().listing.unit);
  for (const char* usual : {"EUR", "USD", "GBP", "JPY", "CHF"}) add(usual);
  constexpr qsizetype kMost = 14;  // what a list shows; others are typed
  return list.mid(0, kMost);
}

}  // namespace

const std::vector<MarketRows>& marketTables() {
  static const std::vector<MarketRows> kTables = {
      {Table::Prices,
       QStringLiteral("prices"),
       tr("Prices"),
       tr("a table copied from a page is understood: a day and a close are enough"),
       {{tr("day"), QStringLiteral("date"), true, true},
        {tr("close"), QStringLiteral("close"), false, true},
        {tr("source"), QStringLiteral("source"), true}},
       {0},
       {110, 110, 420}},
      {Table::Series,
       QStringLiteral("series"),
       tr("Indices and peers' prices"),
       tr("by name and day; a peer's as the table of peers calls it"),
       {{tr("series"), QStringLiteral("series"), true, true},
        {tr("day"), QStringLiteral("date"), true, true},
        {tr("level"), QStringLiteral("level"), false, true},
        {tr("unit"), QStringLiteral("unit"), true},
        {tr("dividend"), QStringLiteral("dividend")},
        {tr("source"), QStringLiteral("source"), true}},
       {0, 1},
       {220, 110, 110, 80, 90, 320}},
      {Table::Rates,
       QStringLiteral("rates"),
       tr("Rates"),
       tr("risk-free EUR, equity premium EUR, spot EUR/GBP; 2.6% or units of the second currency"),
       {{tr("rate"), QStringLiteral("rate"), true, true},
        {tr("day"), QStringLiteral("date"), true},
        {tr("figure"), QStringLiteral("figure"), false, true},
        {tr("source"), QStringLiteral("source"), true}},
       {0, 1},
       {240, 110, 110, 420}},
      {Table::Regions,
       QStringLiteral("regions"),
       tr("Country premiums and tax"),
       tr("regions as the filings name them; tax by the two letters of a country, such as DE"),
       {{tr("region or country"), QStringLiteral("region"), true, true},
        {tr("premium"), QStringLiteral("country premium")},
        {tr("tax"), QStringLiteral("tax rate")},
        {tr("day"), QStringLiteral("date"), true},
        {tr("source"), QStringLiteral("source"), true}},
       {0, 3},
       {240, 90, 90, 110, 420},
       2},
      {Table::Spreads,
       QStringLiteral("spreads"),
       tr("Spreads by interest cover"),
       tr("a row holds from its cover on; below the last one the last one holds"),
       {{tr("from cover"), QStringLiteral("interest cover"), false, true},
        {tr("spread"), QStringLiteral("spread"), false, true},
        {tr("day"), QStringLiteral("date"), true},
        {tr("source"), QStringLiteral("source"), true}},
       {0, 2},
       {110, 110, 110, 420}},
      {Table::Peers,
       QStringLiteral("peers"),
       tr("Peers"),
       tr("a name, a price, shares or a market value, and a few figures begin one; amounts in millions"),
       {{tr("name"), QStringLiteral("name"), true, true},
        {tr("price"), QStringLiteral("price")},
        {tr("unit"), QStringLiteral("price unit"), true},
        {tr("day"), QStringLiteral("date"), true},
        {tr("currency"), QStringLiteral("currency"), true},
        {tr("shares m"), QStringLiteral("shares (millions)"), false, false, true},
        {tr("revenue m"), QStringLiteral("revenue (millions)"), false, false, true},
        {tr("EBITDA m"), QStringLiteral("ebitda (millions)"), false, false, true},
        {tr("net income m"), QStringLiteral("net income (millions)"), false, false, true},
        {tr("debt m"), QStringLiteral("debt (millions)"), false, false, true},
        {tr("cash m"), QStringLiteral("cash (millions)"), false, false, true},
        {tr("year end"), QStringLiteral("year end"), true},
        {tr("source"), QStringLiteral("source"), true}},
       {0},
       {190},
       4},  // a name, a price, shares and a figure
      {Table::Estimates,
       QStringLiteral("estimates"),
       tr("Estimates and guidance"),
       tr("by line and year; 'by' is analysts or company; amounts in millions"),
       {{tr("line"), QStringLiteral("item"), true, true},
        {tr("year"), QStringLiteral("year"), false, true},
        {tr("low"), QStringLiteral("low (millions)"), false, false, true},
        {tr("mean"), QStringLiteral("mean (millions)"), false, true, true},
        {tr("high"), QStringLiteral("high (millions)"), false, false, true},
        {tr("count"), QStringLiteral("count")},
        {tr("day"), QStringLiteral("date"), true},
        {tr("source"), QStringLiteral("source"), true},
        {tr("by"), QStringLiteral("by"), true}},
       {0, 1, 6},
       {190}}};
  return kTables;
}

MarketRows marketTable(size_t at, const services::Snapshot& s) {
  MarketRows table = marketTables().at(at);
  if (table.table != MarketRows::Table::Peers) return table;
  constexpr std::ptrdiff_t kYearAndSource = 2;
  for (const std::string& name : furtherRows(s)) {
    const model::RowId row = s.model().find(name);
    const QString label = row.known() ? text(s.model()[row].label) : text(name);
    const QString column = text(kFurtherColumn + name) + QStringLiteral(" (millions)");
    table.columns.insert(table.columns.end() - kYearAndSource,
                         MarketColumn{QObject::tr("%1 m").arg(label), column, false, false, true});
  }
  return table;
}

std::vector<std::vector<QString>> marketRowsOf(const MarketRows& of, const services::Snapshot& s) {
  switch (of.table) {
    case Table::Prices:
      return priceRows(s);
    case Table::Series:
      return seriesRows(s);
    case Table::Rates:
      return rateRows(s);
    case Table::Regions:
      return regionRows(s);
    case Table::Spreads:
      return spreadRows(s);
    case Table::Peers:
      return peerRows(s);
    case Table::Estimates:
      break;
  }
  return estimateRows(s);
}

std::map<int, QStringList> marketChoices(const MarketRows& of, const services::Snapshot& s) {
  if (of.table == Table::Peers)
    return {{2, currencies(s, true)}, {4, currencies(s, false)}, {11, monthEnds(s.caseOf().valuationDate)}};
  if (of.table == Table::Estimates) return {{8, {QStringLiteral("analysts"), QStringLiteral("company")}}};
  if (of.table == Table::Series) return {{3, currencies(s, true)}};
  return {};
}

}  // namespace zl::app
