#include "app/pages/cash_value_page.h"

#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/stories/capital_stories.h"
#include "services/stories/company_stories.h"
#include "services/stories/outlook_stories.h"
#include "services/views/capital_view.h"
#include "services/views/listing_view.h"
#include "services/views/method_figures.h"

namespace zl::app {

namespace {

QString figureOr(const Figure& figure, Kind kind) {
  return figure.hasValue() ? text(figureText(figure, kind)) : text(figure.reason());
}

}  // namespace

CashValuePage::CashValuePage(Workbench& bench, QWidget* parent) : Page(bench, Stop::CashValue, parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  head_ = new PlainLabel(this);
  head_->setObjectName(QStringLiteral("cashHead"));
  head_->setContentsMargins(8, 0, 8, 0);
  head_->setWordWrap(true);
  layout->addWidget(head_);
  views_ = new SubViews(this);
  layout->addWidget(views_, 1);
  views_->add("value", tr("value"), makeValue());
  views_->add("years", tr("years"), makeYears());
  views_->add("beyond", tr("beyond"), makeBeyond());
  views_->add("claims", tr("claims"), makeClaims());
  views_->add("ways", tr("other ways"), makeOthers());
  addControls();
  connect(views_, &SubViews::turned, this, [this] {
    if (bench_.isOpen()) refresh();
  });
}

QWidget* CashValuePage::makeValue() {
  auto* view = new QWidget(views_);
  auto* layout = new QHBoxLayout(view);
  layout->setContentsMargins(0, 0, 0, 0);
  walk_ = addGrid("walk", tr("From present values to value per share"));
  walk_->setWidths(66, 0);
  layout->addWidget(walk_, 1, Qt::AlignTop);
  brief_ = addGrid("valueBrief", tr("Values by method and what they stand on"));
  brief_->setWidths(66, 0);
  layout->addWidget(brief_, 1, Qt::AlignTop);
  return view;
}

QWidget* CashValuePage::makeYears() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  yearsTitle_ = sectionLabel({}, view);
  layout->addWidget(yearsTitle_);
  bars_ = new FlowBars(view);
  connectChart(bars_);
  bars_->setMinimumHeight(170);
  layout->addWidget(bars_, 1);
  years_ = addGrid("flows", tr("Free cash flow by year"));
  years_->setWidths(64, 0);
  layout->addWidget(years_);
  keepAbove(bars_, years_,
            [this](std::vector<double> middles, double from) { bars_->setMiddles(std::move(middles), from); });
  return view;
}

QWidget* CashValuePage::makeBeyond() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  layout->addWidget(sectionLabel(tr("Beyond the last year: two methods and what each implies for the other"), view));
  terminal_ = addGrid("terminal", tr("Terminal value"));
  terminal_->setWidths(62, 0);
  layout->addWidget(terminal_);
  remark_ = new PlainLabel(view);
  remark_->setWordWrap(true);
  remark_->setContentsMargins(8, 0, 8, 4);
  layout->addWidget(remark_);
  layout->addStretch();
  takeInputs(terminal_);
  return view;
}

QWidget* CashValuePage::makeClaims() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  layout->addWidget(sectionLabel(tr("From the firm to the share: every claim, dated at the valuation date"), view));
  claims_ = addGrid("claims", tr("From the firm to the share"));
  claims_->setColumns({90, 90, 90, 420});
  layout->addWidget(claims_);
  layout->addStretch();
  takeInputs(claims_);
  return view;
}

QWidget* CashValuePage::makeOthers() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  LedgerView* values = addGrid("otherValues", tr("Another way by scenario"));
  LedgerView* years = addGrid("otherYears", tr("Another way by year"));
  others_ = new OtherWays(
      "otherWay", bench_, values, years,
      {{"profit", tr("Economic profit"), "economic_profit_value", "economic_profit",
        [](std::vector<LedgerRow>&) {
          return tr("Capital and what it earns beyond its cost: it must agree with the cash flows to the last digit.");
        }},
       {"shareholders", tr("Flows to shareholders"), "shareholder_value", "shareholder_years",
        [this](std::vector<LedgerRow>& rows) { return addImpliedCost(rows); }},
       {"direct", tr("Cash of a year, direct"), "direct", nullptr,
        [this](std::vector<LedgerRow>&) { return lastTraded(); }},
       {"target", tr("Dated target"), "target", nullptr,
        [this](std::vector<LedgerRow>& rows) { return addYearlyReturn(rows); }}},
      view);
  layout->addWidget(others_);
  takeInputs(values);
  return view;
}

void CashValuePage::addControls() {
  date_ = new QDateEdit(this);
  date_->setObjectName(QStringLiteral("valuationDate"));
  date_->setDisplayFormat(QStringLiteral("yyyy-MM-dd"));
  date_->setCalendarPopup(true);
  date_->setMinimumWidth(fontMetrics().horizontalAdvance(QStringLiteral("2026-04-30")) + 48);
  date_->setKeyboardTracking(false);
  horizon_ = new QSpinBox(this);
  horizon_->setObjectName(QStringLiteral("horizon"));
  horizon_->setRange(kShortestHorizon, kLongestHorizon);
  horizon_->setKeyboardTracking(false);
  price_ = new QComboBox(this);
  price_->setObjectName(QStringLiteral("priceStands"));
  price_->addItems({tr("of that day"), tr("the latest"), tr("as pinned")});
  const auto add = [&](const QString& words, QWidget* field) {
    auto* label = new PlainLabel(words, this);
    label->setBuddy(field);
    views_->addControl(label);
    views_->addControl(field);
  };
  price_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  price_->setMinimumContentsLength(12);
  date_->setAccessibleName(tr("Valuation date"));
  horizon_->setAccessibleName(tr("Forecast years"));
  add(tr("value&d on"), date_);
  add(tr("&years"), horizon_);
  add(tr("&price"), price_);
  connect(price_, &QComboBox::activated, this, &CashValuePage::standOnPrice);
  connect(date_, &QDateEdit::dateChanged, this, [this](QDate day) {
    const Date date = makeDate(day.year(), static_cast<unsigned>(day.month()), static_cast<unsigned>(day.day()));
    bench_.apply(services::setValuationDate(bench_.settled().caseOf(), date));
  });
  connect(horizon_, &QSpinBox::valueChanged, this,
          [this](int years) { bench_.apply(services::setHorizon(bench_.settled().caseOf(), years)); });
}

/// Pinned is the price that is shown, which then stays whatever comes.
void CashValuePage::standOnPrice(int index) {
  const services::Snapshot& s = bench_.settled();
  PriceChoice price;
  price.stands = static_cast<PriceChoice::Stands>(index);
  if (price.stands == PriceChoice::Stands::Pinned) {
    const Figure shown = s.given(model::Role::Price).figure;
    if (!shown.hasValue()) {
      bench_.say(tr("There is no price to pin: %1").arg(text(shown.reason())), true);
      return fillTime();
    }
    price.pinned = shown.value();
    price.said = bench_.saidNow({});
  }
  bench_.apply(services::setPriceChoice(s.caseOf(), price));
}

void CashValuePage::fillTime() {
  price_->setCurrentIndex(static_cast<int>(now().caseOf().price.stands));
  price_->setToolTip(tipText(text(now().given(model::Role::Price).source)));
  const QSignalBlocker quietDate(date_);
  const QSignalBlocker quietHorizon(horizon_);
  const std::chrono::year_month_day day(now().caseOf().valuationDate);
  date_->setDate(QDate(static_cast<int>(day.year()), static_cast<int>(static_cast<unsigned>(day.month())),
                       static_cast<int>(static_cast<unsigned>(day.day()))));
  horizon_->setValue(now().caseOf().horizon);
}

/// What is looked at is filled; the first line always is.
void CashValuePage::refresh() {
  fillTime();
  if (!bench_.isPreviewing()) fillHead();
  const services::Snapshot& s = now();
  const QString shown = views_->shown();
  if (shown == QLatin1String("value")) {
    fillScenarios(walk_, scenarioRows(s, "value_walk"));
    fillScenarios(brief_, scenarioRows(s, "value"));
  } else if (shown == QLatin1String("years")) {
    fillYears();
  } else if (shown == QLatin1String("beyond")) {
    fillTerminal();
  } else if (shown == QLatin1String("claims")) {
    fillClaims();
  } else {
    others_->refresh();
  }
}

void CashValuePage::fillScenarios(LedgerView* grid, std::vector<LedgerRow> rows) {
  const services::Snapshot& s = now();
  grid->ledger().setCorner(cornerOf(s));
  grid->ledger().fill(scenarioHeaders(s), std::move(rows));
  grid->showAll();
}

void CashValuePage::fillHead() {
  const services::Snapshot& s = now();
  const services::CashHead head = services::cashHead(s);
  QStringList values, reasons;
  for (size_t k = 0; k < head.values.size(); ++k) {
    const QString value = figureOr(head.values[k], Kind::Quote);
    values << tr("%1 %2").arg(text(s.caseOf().scenarios[k].label), value);
    if (!head.values[k].hasValue()) reasons << value;
  }
  // What all scenarios lack for one reason is said once.
  if (reasons.size() == values.size() && reasons.removeDuplicates() + 1 == values.size()) values = reasons;
  const QString price = figureOr(head.price, Kind::Quote);
  const QString unit = text(s.company().listing.unit);
  QStringList words = {head.price.hasValue() ? tr("Price %1 %2").arg(price, unit) : price,
                       values.join(QStringLiteral(", "))};
  if (head.beyond.hasValue())
    words << tr("%1 % of base's firm lies beyond the forecast").arg(text(figureText(head.beyond, Kind::Ratio)));
  if (!head.driver.empty())
    words << tr("what moves base most: %1, by %2").arg(text(head.driver), figureOr(head.swing, Kind::Quote));
  head_->setText(words.join(QStringLiteral("   ·   ")));
  head_->setToolTip(tipText(head_->text()));
}

void CashValuePage::fillYears() {
  const services::Snapshot& s = now();
  const int filed = s.evaluation->layout().historyYears;
  const int to = s.evaluation->layout().columns();
  const int from = std::max(0, filed - 5);
  const model::RowId row = s.evaluation->model().find(model::Role::Fcff);
  std::vector<FlowSeries> series;
  for (int i = 0; i < s.evaluation->scenarios(); ++i) {
    const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(i)];
    series.push_back({text(sc.id), text(sc.label), trendOf(s, row, filed, to, i)});
  }
  bars_->setSource(row, from);
  bars_->setContent(periodHeaders(s, from, to), trendOf(s, row, from, filed, 0), std::move(series),
                    unitOf(s, Kind::Money));
  yearsTitle_->setText(tr("%1, by year; the first year counts %2 % of its flow, valued %3")
                           .arg(text(s.caseOf().scenarios[static_cast<size_t>(bench_.scenario())].label),
                                text(figureText(s.given(model::Role::Stub).figure, Kind::Ratio)),
                                text(dateText(s.caseOf().valuationDate))));
  years_->ledger().setCorner(cornerOf(s));
  years_->ledger().fill(periodHeaders(s, from, to), yearRows(s, "flow_years", from, to, bench_.scenario()));
  years_->showAll();
}

void CashValuePage::fillTerminal() {
  const services::Snapshot& s = now();
  std::vector<LedgerRow> rows = scenarioRows(s, "terminal");
  LedgerRow implied;
  implied.label = tr("Growth the exit multiple implies");
  implied.unit = QStringLiteral("%");
  implied.kind = Kind::Ratio;
  for (int i = 0; i < s.evaluation->scenarios(); ++i) {
    LedgerCell cell;
    QStringList all;
    for (double g : services::impliedGrowthOf(s, i)) all << text(groupedNumber(g * 100, 1));
    cell.words = all.isEmpty() ? tr("none") : all.join(QStringLiteral(" or "));
    cell.tip = tr("Every growth rate at which the perpetuity in use gives the exit's terminal value");
    cell.story = [i](const services::Snapshot& of) { return services::impliedGrowthStory(of, i); };
    implied.cells.push_back(std::move(cell));
  }
  // What the exit multiple implies stands with the exit's own lines.
  const auto simple = std::find_if(rows.begin(), rows.end(), [&](const LedgerRow& row) {
    return row.key == text(s.model().nameOf(model::Role::ImpliedGrowthSimple));
  });
  rows.insert(simple, std::move(implied));
  terminal_->ledger().setCorner(cornerOf(s));
  terminal_->ledger().fill(scenarioHeaders(s), std::move(rows));
  terminal_->showAll();
  const Figure keep = s.evaluation->constant(model::Role::ReturnWeight, bench_.scenario());
  remark_->setText(keep.hasValue() && keep.value() == 0
                       ? tr("New capital earns the discount rate: growth after year N+1 adds no value.")
                       : QString());
}

/// Each with what it is of and when, the other listings' values at the end.
void CashValuePage::fillClaims() {
  const services::Snapshot& s = now();
  std::vector<LedgerRow> rows = scenarioRows(s, "claims");
  for (LedgerRow& row : rows) {
    const model::RowId id = s.model().find(row.key.toStdString());
    const QString basis = id.known() ? text(s.model()[id].help) : QString();
    row.cells.push_back(wordsCell(basis, basis));
    row.cells.back().quiet = true;
  }
  for (const services::ListingLine& line : services::listingLines(s)) {
    if (line.listing == s.company().listing) continue;
    LedgerRow row;
    row.label = tr("Value in the listing in %1").arg(text(line.listing.unit));
    row.unit = text(line.listing.unit);
    row.kind = Kind::Quote;
    for (size_t k = 0; k < line.values.size(); ++k) {
      row.cells.push_back(figureCell(line.values[k]));
      row.cells.back().story = [line, k](const services::Snapshot& of) {
        return services::listingStory(of, line.listing, line.values[k], static_cast<int>(k));
      };
    }
    row.cells.push_back(wordsCell(tr("by the exchange rate of the valuation date")));
    rows.push_back(std::move(row));
  }
  claims_->ledger().setCorner(cornerOf(s));
  claims_->ledger().fill(scenarioHeaders(s) << tr("what it is"), std::move(rows));
  claims_->showAll();
}

QString CashValuePage::addImpliedCost(std::vector<LedgerRow>& rows) {
  LedgerRow implied = headingRow(tr("Cost of equity the price implies"));
  implied.heading = false;
  implied.unit = QStringLiteral("%");
  implied.kind = Kind::Ratio;
  for (int i = 0; i < now().evaluation->scenarios(); ++i) {
    QStringList all;
    if (!bench_.isPreviewing()) {
      for (const double k : services::impliedCostOfEquity(now(), i)) all << text(groupedNumber(k * 100, 1));
    }
    const QString shown = all.isEmpty() ? tr("none") : all.join(tr(" or "));
    implied.cells.push_back(wordsCell(shown));
    implied.cells.back().left = false;
    implied.cells.back().story = [i, shown = shown.toStdString()](const services::Snapshot& of) {
      return services::impliedCostStory(of, i, shown);
    };
  }
  rows.push_back(std::move(implied));
  return tr("After interest and borrowing, at the cost of equity; no debt is taken off again.");
}

QString CashValuePage::lastTraded() const {
  const services::Snapshot& s = now();
  const QString remark = tr("The price to pay for the required return, from what a year brings shareholders.");
  const auto& shown = s.model().view("direct");
  const Figure base = shown.empty() ? Figure::absent("the model has no such view")
                                    : s.evaluation->constant(shown.back().row, std::max(0, s.caseOf().indexOf(kBase)));
  if (!base.hasValue()) return remark;
  const std::optional<PricePoint> last = services::lastAtOrUnder(s, base.value());
  return remark + (last ? tr(" Last traded at or under base's on %1, at %2.")
                              .arg(text(dateText(last->date)), text(figureText(Figure::of(last->close), Kind::Quote)))
                        : tr(" The book has no close at or under base's."));
}

QString CashValuePage::addYearlyReturn(std::vector<LedgerRow>& rows) {
  LedgerRow yearly = headingRow(tr("Return to the dated target, a year"));
  yearly.heading = false;
  yearly.unit = QStringLiteral("%");
  yearly.kind = Kind::Ratio;
  for (int i = 0; i < now().evaluation->scenarios(); ++i) {
    const services::DatedTarget target = services::datedTarget(now(), i);
    yearly.cells.push_back(figureCell(target.yearly));
    yearly.cells.back().story = [i, target](const services::Snapshot& of) {
      return services::targetStory(of, i, target);
    };
  }
  rows.push_back(std::move(yearly));
  return tr("Today's value as a going concern, carried at the cost of equity, less what is paid out on the way.");
}

}  // namespace zl::app
