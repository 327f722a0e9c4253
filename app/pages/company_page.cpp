#include "app/pages/company_page.h"

#include <QHBoxLayout>
#include <algorithm>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "app/pages/empty_note.h"
#include "app/pages/owner_rows.h"
#include "app/pages/parts_rows.h"
#include "core/quantity/number_text.h"
#include "services/stories/company_stories.h"
#include "services/stories/history_stories.h"
#include "services/views/company_view.h"

namespace zl::app {
namespace {
constexpr size_t kMostParts = 6;

LedgerCell words(const QString& shown, bool left = false) {
  LedgerCell cell;
  cell.words = shown;
  cell.left = left;
  return cell;
}

LedgerRow marketRow(services::MarketFigure which, const QString& label, const QString& unit, Kind kind,
                    const Figure& figure) {
  LedgerRow row;
  row.label = label;
  row.unit = unit;
  row.kind = kind;
  row.cells.push_back(figureCell(figure));
  row.cells.back().story = [which, label = label.toStdString(), figure, kind](const services::Snapshot& s) {
    return services::marketStory(s, which, label, figure, kind);
  };
  return row;
}

std::function<ToldFigure(int)> dueTold(const services::DueView& due, bool floating) {
  return [years = due.years, floating](int column) {
    return ToldFigure{{}, -1, [year = years[static_cast<size_t>(column)], floating](const services::Snapshot& of) {
                        return services::debtDueStory(of, year, floating);
                      }};
  };
}

}  // namespace

CompanyPage::CompanyPage(Workbench& bench, QWidget* parent) : Page(bench, Stop::Company, parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  views_ = new SubViews(this);
  layout->addWidget(views_);
  views_->add("overview", tr("overview"), makeOverview());
  record_ =
      new RecordPanel(bench, addGrid("recordFields", tr("Company record")),
                      addGrid("recordList", tr("List of the record")), addGrid("listings", tr("Listings")), views_);
  views_->add("record", tr("record"), record_);
  marketTables_ = new MarketPanel(bench, addGrid("marketRows", tr("Figures of the market")), views_);
  views_->add("market", tr("prices, series, rates, peers, estimates"), marketTables_);
  views_->add("price", tr("price and events"), makePrice());
  views_->add("parts", tr("parts, owners, basis"), makeParts());
  connect(views_, &SubViews::turned, this, [this] {
    if (bench_.isOpen()) refresh();
  });
}

QWidget* CompanyPage::makeOverview() {
  auto* view = new QWidget(views_);
  auto* layout = scrolledLayout(view);
  about_ = sectionLabel({}, view);
  about_->setObjectName(QStringLiteral("companyAbout"));
  about_->setWordWrap(true);
  layout->addWidget(about_);
  facts_ = new PlainLabel(view);
  facts_->setObjectName(QStringLiteral("companyFacts"));
  facts_->setWordWrap(true);
  facts_->setContentsMargins(8, 0, 8, 4);
  layout->addWidget(facts_);
  auto* figures = new QHBoxLayout;
  key_ = addGrid("keyFigures", tr("Key figures"));
  key_->setWidths(62, 70);
  market_ = addGrid("market", tr("What the market makes of it"));
  market_->setWidths(84, 0);
  figures->addWidget(key_, 3, Qt::AlignTop);
  figures->addWidget(market_, 2, Qt::AlignTop);
  layout->addLayout(figures);
  auto* charts = new QHBoxLayout;
  business_ = new StackedBars(view);
  business_->setObjectName(QStringLiteral("businessBars"));
  region_ = new StackedBars(view);
  region_->setObjectName(QStringLiteral("regionBars"));
  due_ = new StackedBars(view);
  due_->setObjectName(QStringLiteral("dueBars"));
  for (StackedBars* bars : {business_, region_, due_}) {
    connectChart(bars);
    charts->addWidget(bars, 1);
  }
  layout->addLayout(charts, 1);
  return view;
}

QWidget* CompanyPage::makePrice() {
  auto* view = new QWidget(views_);
  auto* layout = new QVBoxLayout(view);
  layout->setContentsMargins(0, 0, 0, 0);
  price_ = new PriceChart(view);
  layout->addWidget(price_, 1);
  happened_ = addGrid("happened", tr("Events and deals"));
  happened_->setWidths(80, 0);
  happened_->setColumns({430, 90, 90, 90});
  layout->addWidget(happened_);
  auto* noPrices =
      new EmptyNote(bench_, tr("Closes of the share belong here, and make its course and its multiples."), view);
  noPrices->offer(tr("&Type or paste prices"), Stop::Company, QStringLiteral("market"), QStringLiteral("prices"));
  noPrices_ = noPrices;
  layout->addWidget(noPrices_);
  return view;
}

QWidget* CompanyPage::makeParts() {
  auto* view = new QWidget(views_);
  auto* layout = scrolledLayout(view);
  layout->addWidget(sectionLabel(tr("Parts of the company"), view));
  parts_ = addGrid("companyParts", tr("Parts of the company"));
  parts_->setWidths(58, 64);
  layout->addWidget(parts_);
  owners_ = addGrid("owners", tr("Holders and insiders"));
  owners_->setColumns({100, 80, 100, 100, 300});
  layout->addWidget(owners_);
  auto* nothing = new EmptyNote(
      bench_, tr("What happened, what was bought, who holds it and what its people trade belong here."), view);
  nothing->offer(tr("&Events"), Stop::Company, QStringLiteral("record"), QStringLiteral("events"));
  nothing->offer(tr("&Holders"), Stop::Company, QStringLiteral("record"), QStringLiteral("holders"));
  nothing_ = nothing;
  layout->addWidget(nothing_);
  layout->addWidget(sectionLabel(tr("One basis: what each choice taken the other way would do, peers alike"), view));
  basis_ = new BasisPanel(bench_, addGrid("oneBasis", tr("One basis")), view);
  layout->addWidget(basis_);
  layout->addStretch();
  return view;
}

void CompanyPage::refresh() {
  refreshRecord();
  refreshKeyFigures();
  refreshSegments();
  refreshWhatHappened();
  if (views_->shown() == QLatin1String("parts")) basis_->refresh();
  if (bench_.isPreviewing()) return;  // what is typed is not what is dragged
  if (views_->shown() == QLatin1String("record")) record_->refresh();
  if (views_->shown() == QLatin1String("market")) marketTables_->refresh();
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
  const services::GivenFigure& count = now().given(model::Role::SharesNow);
  QString shares = count.figure.hasValue() ? tr("%1 m shares").arg(text(figureText(count.figure, Kind::Shares)))
                                           : tr("the count of shares is not known");
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
  for (const model::ViewRow& shown : s.model().view("key_figures")) {
    const model::RowId index = shown.row;
    const services::RowTrends trends = services::trendsOf(s, index, services::Reading::Adjusted);
    LedgerRow row = yearRow(s, index, years - 1, years, bench_.scenario());
    row.trend = services::figuresIn(s, index, services::HistoryView::Amounts, services::Reading::Adjusted);
    const auto add = [&](const Figure& figure, const char* what) {
      row.cells.push_back(figureCell(figure));
      row.cells.back().story = [index, what, figure, kind = row.kind](const services::Snapshot& of) {
        const services::YearsOf regular =
            services::lastYears(of, index, services::kStatisticsYears, services::Reading::Adjusted, true);
        return services::yearsStory(of, regular, what, figure, kind);
      };
    };
    add(trends.included.median, "median of the regular years");
    add(trends.included.low, "lowest of the regular years");
    add(trends.included.high, "highest of the regular years");
    rows.push_back(std::move(row));
  }
  LedgerRow growth;
  growth.label = tr("Organic growth");
  growth.unit = QStringLiteral("%");
  growth.kind = Kind::Ratio;
  growth.trend = services::organicGrowth(s);
  const model::RowId driver = s.model().find(model::Role::RevenueGrowth);
  const Statistics all =
      !driver.known() ? describe(growth.trend) : describe(growth.trend, services::leftOut(s, driver));
  growth.cells = {figureCell(growth.trend.back()), figureCell(all.median), figureCell(all.low), figureCell(all.high)};
  growth.cells[0].story = [years, figure = growth.trend.back()](const services::Snapshot& of) {
    return services::organicGrowthStory(of, years - 1, figure);
  };
  const char* statistics[] = {"median of the regular years", "lowest of the regular years",
                              "highest of the regular years"};
  for (size_t i = 0; i < std::size(statistics); ++i) {
    growth.cells[i + 1].story = [what = statistics[i],
                                 figure = growth.cells[i + 1].figure](const services::Snapshot& of) {
      return services::organicStatisticStory(of, what, figure);
    };
  }
  rows.insert(rows.begin() + std::min<std::ptrdiff_t>(1, std::ssize(rows)), std::move(growth));
  key_->ledger().setCorner(cornerOf(s));
  key_->ledger().fill({text(s.periodOf(years - 1)), tr("median"), tr("low"), tr("high")}, std::move(rows), true);
  key_->showAll();

  const services::MarketView m = services::marketView(s);
  const QString quote = text(s.company().listing.unit);
  const QString money = unitOf(s, Kind::Money);
  using Market = services::MarketFigure;
  const QString percent = QStringLiteral("%");
  std::vector<LedgerRow> market{
      marketRow(Market::Price, tr("Price"), quote, Kind::Quote, m.price.last),
      marketRow(Market::Low52, tr("Low of 52 weeks"), quote, Kind::Quote, m.price.low52),
      marketRow(Market::High52, tr("High of 52 weeks"), quote, Kind::Quote, m.price.high52),
      marketRow(Market::Drawdown, tr("Below its peak"), percent, Kind::Ratio, m.price.drawdown),
      marketRow(Market::Deepest, tr("Deepest fall in its history"), percent, Kind::Ratio, m.price.deepest),
      marketRow(Market::Return1, tr("Price over a year"), percent, Kind::Ratio, m.price.return1),
      marketRow(Market::Return5, tr("Price over five years"), percent, Kind::Ratio, m.price.return5),
      marketRow(Market::Swing, tr("Swing of a year"), percent, Kind::Ratio, m.price.swing),
      marketRow(Market::EnterpriseValue, tr("Enterprise value"), money, Kind::Money, m.enterpriseValue),
      marketRow(Market::EvToEbitda, tr("EV to EBITDA"), {}, Kind::Multiple, m.evToEbitda),
      marketRow(Market::PriceToEarnings, tr("Price to earnings"), {}, Kind::Multiple, m.priceToEarnings),
      marketRow(Market::FreeCashYield, tr("Simple free cash flow yield"), percent, Kind::Ratio, m.freeCashYield)};
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
      const size_t count = views[at].members.size();
      const size_t alone = count > kMostParts ? kMostParts - 1 : count;
      for (size_t m = 0; m < alone; ++m) {
        const std::vector<Figure>& all = views[at].revenue[m];
        const auto told = [m, from, view = std::make_shared<const services::SegmentView>(views[at])](int column) {
          return ToldFigure{{}, -1, [=](const services::Snapshot& of) {
                              return services::partStory(of, *view, m, from + column, services::PartFigure::Revenue);
                            }};
        };
        parts.push_back({text(views[at].members[m]), {all.begin() + from, all.end()}, told});
      }
      if (alone < count) {
        const std::vector<Figure> rest = services::revenueOfRest(views[at], alone);
        parts.push_back({tr("others (%1)").arg(count - alone), {rest.begin() + from, rest.end()}, {}});
      }
    }
    const QString title = at < views.size()
                              ? tr("Revenue by %1, %2").arg(text(views[at].axis).toLower(), unitOf(s, Kind::Money))
                              : fallback;
    chart->setContent(title, periods.mid(from), std::move(parts), Kind::Money, none);
  };
  bars(business_, 0, tr("Revenue by business"));
  bars(region_, 1, tr("Revenue by region"));
  // Of a company that files no parts there is nothing to look at.
  business_->setVisible(!views.empty());
  region_->setVisible(views.size() > 1);
  const services::DueView due = services::debtDue(s);
  due_->setVisible(!due.years.empty());
  QStringList dueYears;
  for (const int year : due.years) dueYears << QString::number(year);
  due_->setContent(tr("Debt by year due, %1").arg(unitOf(s, Kind::Money)), dueYears,
                   {{tr("fixed"), due.fixed, dueTold(due, false)}, {tr("floating"), due.floating, dueTold(due, true)}},
                   Kind::Money, tr("The company record says nothing of debt due"));

  parts_->ledger().setCorner(cornerOf(s));
  parts_->ledger().fill(periods, partsRows(s, views), true);
  parts_->showAll();
}

void CompanyPage::refreshWhatHappened() {
  const services::Snapshot& s = now();
  std::vector<LedgerRow> owners = ownerRows(s);
  owners_->setVisible(!owners.empty());
  nothing_->setVisible(owners.empty() && s.company().events.empty() && s.company().deals.empty());
  owners_->ledger().setCorner(tr("who"));
  owners_->ledger().fill(ownerHeaders(s), std::move(owners));
  owners_->showAll();
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
    const auto recorded = [&](const Figure& figure, const char* what, Kind kind, const char* how) {
      LedgerCell cell = figureCell(figure);
      cell.story = [title = deal.what + ", " + what, figure, kind, how](const services::Snapshot& of) {
        return services::recordStory(of, title, figure, kind, how);
      };
      return cell;
    };
    LedgerCell earned = recorded(services::returnOnDeal(deal), "EBIT on price", Kind::Ratio,
                                 "EBIT that it added in its first twelve months over what was paid");
    if (earned.figure.hasValue()) earned.words = text(figureText(earned.figure, Kind::Ratio)) + QStringLiteral(" %");
    row.cells = {words(text(deal.what), true), recorded(Figure::of(deal.price), "price", Kind::Money, ""),
                 recorded(Figure::of(deal.goodwill), "goodwill", Kind::Money, ""), std::move(earned)};
    rows.push_back(std::move(row));
  }
  price_->setVisible(s.market->prices.size() > 1);
  noPrices_->setVisible(s.market->prices.size() <= 1);
  price_->setContent(s.market->prices, std::move(marks), text(c.listing.unit));
  happened_->setVisible(!rows.empty());
  happened_->ledger().setCorner(tr("when"));
  happened_->ledger().fill(
      {tr("what happened"), tr("price, %1").arg(unitOf(s, Kind::Money)), tr("goodwill"), tr("EBIT on price")},
      std::move(rows));
  happened_->showAll();
}

}  // namespace zl::app
