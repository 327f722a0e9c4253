#include "app/pages/company_page.h"

#include <QHBoxLayout>
#include <algorithm>
#include <cmath>

#include "app/grid/ledger_rows.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/company_view.h"
#include "services/history_figures.h"

namespace zl::app {
namespace {

constexpr const char* kKeyRows[] = {"revenue",       "ebit_margin",        "roic",
                                    "fcf_margin",    "net_debt_to_ebitda", "interest_cover",
                                    "current_ratio", "total_payout"};
constexpr size_t kMostParts = 6;

LedgerCell words(const QString& shown, bool left = false) {
  LedgerCell cell;
  cell.words = shown;
  cell.left = left;
  return cell;
}

LedgerRow marketRow(const QString& label, const QString& unit, Kind kind, Figure figure) {
  LedgerRow row;
  row.label = label;
  row.unit = unit;
  row.kind = kind;
  row.cells.push_back(figureCell(std::move(figure)));
  return row;
}

/// The fewest decimals, three at most, that show all figures of a row as they were given.
int placesOf(const std::vector<Figure>& figures) {
  constexpr int kMostPlaces = 3;
  for (int places = 0; places < kMostPlaces; ++places) {
    const double scale = std::pow(10.0, places);
    const bool enough = std::all_of(figures.begin(), figures.end(), [&](const Figure& f) {
      return !f.hasValue() || std::abs(f.value() * scale - std::round(f.value() * scale)) < 1e-6 * scale;
    });
    if (enough) return places;
  }
  return kMostPlaces;
}

}  // namespace

CompanyPage::CompanyPage(Workbench& bench, QWidget* parent) : Page(bench, Stop::Company, parent) {
  auto* layout = scrolledLayout();
  about_ = sectionLabel({}, this);
  about_->setObjectName(QStringLiteral("companyAbout"));
  about_->setWordWrap(true);
  layout->addWidget(about_);
  facts_ = new QLabel(this);
  facts_->setObjectName(QStringLiteral("companyFacts"));
  facts_->setWordWrap(true);
  facts_->setContentsMargins(8, 0, 8, 4);
  layout->addWidget(facts_);
  auto* figures = new QHBoxLayout;
  key_ = addGrid("keyFigures", tr("Key figures"));
  key_->setWidths(230, 62, 70);
  market_ = addGrid("market", tr("What the market makes of it"));
  market_->setWidths(230, 84, 0);
  figures->addWidget(key_, 3, Qt::AlignTop);
  figures->addWidget(market_, 2, Qt::AlignTop);
  layout->addLayout(figures);
  auto* charts = new QHBoxLayout;
  business_ = new StackedBars(this);
  business_->setObjectName(QStringLiteral("businessBars"));
  region_ = new StackedBars(this);
  region_->setObjectName(QStringLiteral("regionBars"));
  due_ = new StackedBars(this);
  due_->setObjectName(QStringLiteral("dueBars"));
  for (StackedBars* bars : {business_, region_, due_}) {
    bars->setMinimumHeight(160);
    charts->addWidget(bars, 1);
  }
  layout->addLayout(charts);
  price_ = new PriceChart(this);
  price_->setMinimumHeight(170);
  layout->addWidget(price_);
  happened_ = addGrid("happened", tr("Events and deals"));
  happened_->setWidths(130, 80, 0);
  happened_->keepLabel(130);
  happened_->setColumns({430, 90, 90, 90});
  layout->addWidget(happened_);
  layout->addWidget(sectionLabel(tr("Parts of the company"), this));
  parts_ = addGrid("companyParts", tr("Parts of the company"));
  parts_->setWidths(230, 58, 64);
  parts_->fitFigures(46);
  layout->addWidget(parts_);
  layout->addWidget(sectionLabel(tr("One basis: what each choice taken the other way would do, peers alike"), this));
  basis_ = new BasisPanel(bench, addGrid("oneBasis", tr("One basis")), this);
  layout->addWidget(basis_);
  layout->addStretch();
}

void CompanyPage::refresh() {
  refreshRecord();
  refreshKeyFigures();
  refreshSegments();
  refreshWhatHappened();
  basis_->refresh();
}

void CompanyPage::refreshRecord() {
  const Company& c = now().company();
  about_->setText(text(c.name) + (c.description.empty() ? QString() : QStringLiteral(" · ") + text(c.description)));
  const auto listing = [](const Listing& l) {
    QString line = text(l.unit);
    if (l.minorPerMajor != 1) line += tr(" (%1 to the %2)").arg(l.minorPerMajor).arg(text(l.currency));
    if (l.sharesPerListed != 1) line += tr(", one receipt for %1 shares").arg(l.sharesPerListed);
    return line;
  };
  QStringList lines;
  QString first = c.sector.empty() ? QString() : text(c.sector) + QStringLiteral(" · ");
  first += tr("reports in %1 · year ends %2 · listed in %3")
               .arg(text(c.currency), text(dateText(now().years().back().end).substr(5)), listing(c.listing));
  for (const Listing& l : c.furtherListings) first += tr(" and in ") + listing(l);
  lines << first;
  QString shares = tr("%1 m shares").arg(text(figureText(Figure::of(c.shares), Kind::Shares)));
  if (c.options > 0) {
    shares += tr(" · %1 m options at %2 %3")
                  .arg(text(figureText(Figure::of(c.options), Kind::Shares)))
                  .arg(c.optionStrike)
                  .arg(text(c.listing.unit));
  }
  if (c.unvestedShares > 0)
    shares += tr(" · %1 m unvested").arg(text(figureText(Figure::of(c.unvestedShares), Kind::Shares)));
  if (c.convertibleShares > 0) {
    shares += tr(" · convertible into %1 m for %2 %3 m")
                  .arg(text(figureText(Figure::of(c.convertibleShares), Kind::Shares)), text(c.currency),
                       text(figureText(Figure::of(c.convertibleFace), Kind::Money)));
  }
  for (const ShareSplit& split : c.splits) {
    shares += tr(" · split %1 for %2 on %3").arg(split.now).arg(split.before).arg(text(dateText(split.on)));
  }
  lines << shares;
  for (const ShareClass& share : c.classes) {
    QString line = tr("%1: %2 m shares, %3 %4 each")
                       .arg(text(share.name), text(figureText(Figure::of(share.shares), Kind::Shares)))
                       .arg(share.votes)
                       .arg(share.votes == 1 ? tr("vote") : tr("votes"));
    if (!share.holder.empty()) line += tr(", held by %1").arg(text(share.holder));
    lines << line;
  }
  if (!c.control.empty()) lines << text(c.control);
  facts_->setText(lines.join(QLatin1Char('\n')));
}

void CompanyPage::refreshKeyFigures() {
  const services::Snapshot& s = now();
  const int years = s.evaluation->layout().historyYears;
  std::vector<LedgerRow> rows;
  for (const char* name : kKeyRows) {
    const int index = s.evaluation->model().find(name);
    const services::RowTrends trends = services::trendsOf(s, index, services::Reading::Adjusted);
    LedgerRow row = yearRow(s, index, years - 1, years, bench_.scenario());
    row.trend = services::figuresIn(s, index, services::HistoryView::Amounts, services::Reading::Adjusted);
    for (const Figure* f : {&trends.included.median, &trends.included.low, &trends.included.high})
      row.cells.push_back(figureCell(*f));
    for (LedgerCell& cell : row.cells) cell.source = model::Cell{index, years - 1};
    rows.push_back(std::move(row));
  }
  LedgerRow growth;
  growth.label = tr("Organic growth");
  growth.unit = QStringLiteral("%");
  growth.kind = Kind::Ratio;
  growth.trend = services::organicGrowth(s);
  const Statistics all = describe(growth.trend, services::leftOut(s, s.evaluation->model().find("revenue_growth")));
  growth.cells = {figureCell(growth.trend.back()), figureCell(all.median), figureCell(all.low), figureCell(all.high)};
  rows.insert(rows.begin() + 1, std::move(growth));
  key_->ledger().setCorner(cornerOf(s));
  key_->ledger().fill({text(s.periodOf(years - 1)), tr("median"), tr("low"), tr("high")}, std::move(rows), true);
  key_->showAll();

  const services::MarketView m = services::marketView(s);
  const QString quote = text(s.company().listing.unit);
  const QString money = unitOf(s, Kind::Money);
  std::vector<LedgerRow> market{
      marketRow(tr("Price"), quote, Kind::Quote, m.price.last),
      marketRow(tr("Low of 52 weeks"), quote, Kind::Quote, m.price.low52),
      marketRow(tr("High of 52 weeks"), quote, Kind::Quote, m.price.high52),
      marketRow(tr("Below its peak"), QStringLiteral("%"), Kind::Ratio, m.price.drawdown),
      marketRow(tr("Deepest fall in its history"), QStringLiteral("%"), Kind::Ratio, m.price.deepest),
      marketRow(tr("Price over a year"), QStringLiteral("%"), Kind::Ratio, m.price.return1),
      marketRow(tr("Price over five years"), QStringLiteral("%"), Kind::Ratio, m.price.return5),
      marketRow(tr("Swing of a year"), QStringLiteral("%"), Kind::Ratio, m.price.swing),
      marketRow(tr("Enterprise value"), money, Kind::Money, m.enterpriseValue),
      marketRow(tr("EV to EBITDA"), {}, Kind::Multiple, m.evToEbitda),
      marketRow(tr("Price to earnings"), {}, Kind::Multiple, m.priceToEarnings),
      marketRow(tr("Free cash flow yield"), QStringLiteral("%"), Kind::Ratio, m.freeCashYield)};
  market_->ledger().setCorner(tr("at the valuation date"));
  market_->ledger().fill({text(dateText(s.caseOf().valuationDate))}, std::move(market));
  market_->showAll();
}

void CompanyPage::refreshSegments() {
  const services::Snapshot& s = now();
  const int years = s.evaluation->layout().historyYears;
  const QStringList periods = periodHeaders(s, 0, years);
  // Years before parts were filed would be an empty half of the picture.
  const auto firstFiled = [&](const services::SegmentView& view) {
    for (int c = 0; c < years; ++c) {
      for (const std::vector<Figure>& member : view.revenue) {
        if (member[static_cast<size_t>(c)].hasValue()) return c;
      }
    }
    return 0;
  };
  const std::vector<services::SegmentView> views = services::segmentViews(s);
  const QString none = tr("No figures by part are filed; reports in XBRL bring them");
  const auto bars = [&](StackedBars* chart, size_t at, const QString& fallback) {
    std::vector<BarPart> parts;
    const int from = at < views.size() ? firstFiled(views[at]) : 0;
    if (at < views.size()) {
      for (size_t m = 0; m < std::min(kMostParts, views[at].members.size()); ++m) {
        const std::vector<Figure>& all = views[at].revenue[m];
        parts.push_back({text(views[at].members[m]), {all.begin() + from, all.end()}});
      }
    }
    const QString title = at < views.size()
                              ? tr("Revenue by %1, %2").arg(text(views[at].axis).toLower(), unitOf(s, Kind::Money))
                              : fallback;
    chart->setContent(title, periods.mid(from), std::move(parts), Kind::Money, none);
  };
  bars(business_, 0, tr("Revenue by business"));
  bars(region_, 1, tr("Revenue by region"));
  const services::DueView due = services::debtDue(s);
  QStringList dueYears;
  for (const int year : due.years) dueYears << QString::number(year);
  due_->setContent(tr("Debt by year due, %1").arg(unitOf(s, Kind::Money)), dueYears,
                   {{tr("fixed"), due.fixed}, {tr("floating"), due.floating}}, Kind::Money,
                   tr("The company record says nothing of debt due"));

  std::vector<LedgerRow> rows;
  const auto add = [&](const QString& label, Kind kind, const std::vector<Figure>& figures, bool strong = false) {
    LedgerRow row;
    row.label = label;
    row.kind = kind;
    row.unit = kind == Kind::Money ? QString() : unitOf(s, kind);
    row.strong = strong;
    row.trend = figures;
    for (const Figure& f : figures) row.cells.push_back(figureCell(f));
    rows.push_back(std::move(row));
  };
  const auto quotient = [](const std::vector<Figure>& parts, const std::vector<Figure>& wholes) {
    std::vector<Figure> list;
    for (size_t i = 0; i < parts.size(); ++i) list.push_back(parts[i] / wholes[i]);
    return list;
  };
  for (const services::SegmentView& view : views) {
    rows.push_back(headingRow(text(view.axis)));
    for (size_t m = 0; m < view.members.size(); ++m) add(text(view.members[m]), Kind::Money, view.revenue[m]);
    if (!view.profit.front().back().hasValue()) continue;
    for (size_t m = 0; m < view.members.size(); ++m)
      add(tr("%1, EBIT margin").arg(text(view.members[m])), Kind::Ratio, quotient(view.profit[m], view.revenue[m]));
    std::vector<Figure> mix, within, total;
    for (const MarginChange& change : view.change) {
      mix.push_back(change.mix);
      within.push_back(change.within);
      total.push_back(change.total);
    }
    add(tr("Margin change: mix"), Kind::Ratio, mix);
    add(tr("Margin change: within parts"), Kind::Ratio, within);
    add(tr("Margin change"), Kind::Ratio, total, true);
  }
  for (const OperatingFigure& figure : s.company().operating) {
    std::vector<Figure> figures(static_cast<size_t>(years), Figure::absent("not in the record"));
    for (const auto& [year, x] : figure.years) {
      for (size_t c = 0; c < figures.size(); ++c) {
        if (s.years()[c].label() == year) figures[c] = Figure::of(x);
      }
    }
    if (&figure == &s.company().operating.front()) rows.push_back(headingRow(tr("Operating figures")));
    add(text(figure.name), Kind::Count, figures);
    rows.back().unit = text(figure.unit);
    const int places = placesOf(figures);
    for (LedgerCell& cell : rows.back().cells) {
      if (cell.figure.hasValue()) cell.words = text(groupedNumber(cell.figure.value(), places));
    }
  }
  parts_->ledger().setCorner(cornerOf(s));
  parts_->ledger().fill(periods, std::move(rows), true);
  parts_->showAll();
}

void CompanyPage::refreshWhatHappened() {
  const services::Snapshot& s = now();
  const Company& c = s.company();
  std::vector<PriceMark> marks;
  std::vector<LedgerRow> rows;
  for (const CompanyEvent& event : c.events) {
    marks.push_back({event.on, text(event.what)});
    LedgerRow row;
    row.label = QStringLiteral("%1   %2").arg(marks.size()).arg(text(dateText(event.on)));
    row.cells = {words(text(event.what), true), words({}), words({}), words({})};
    rows.push_back(std::move(row));
  }
  for (const Deal& deal : c.deals) {
    LedgerRow row;
    row.label = QStringLiteral("     ") + text(dateText(deal.on));
    row.kind = Kind::Money;
    LedgerCell earned = figureCell(services::returnOnDeal(deal));
    if (earned.figure.hasValue()) earned.words = text(figureText(earned.figure, Kind::Ratio)) + QStringLiteral(" %");
    row.cells = {words(text(deal.what), true), figureCell(Figure::of(deal.price)),
                 figureCell(Figure::of(deal.goodwill)), std::move(earned)};
    rows.push_back(std::move(row));
  }
  price_->setContent(s.evidence->prices, std::move(marks), text(c.listing.unit));
  happened_->setVisible(!rows.empty());
  happened_->ledger().setCorner(tr("when"));
  happened_->ledger().fill(
      {tr("what happened"), tr("price, %1").arg(unitOf(s, Kind::Money)), tr("goodwill"), tr("EBIT on price")},
      std::move(rows));
  happened_->showAll();
}

}  // namespace zl::app
