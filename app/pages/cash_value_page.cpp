#include "app/pages/cash_value_page.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/stories/outlook_stories.h"
#include "services/views/method_figures.h"

namespace zl::app {

CashValuePage::CashValuePage(Workbench& bench, QWidget* parent) : Page(bench, Stop::CashValue, parent) {
  QVBoxLayout* layout = scrolledLayout();
  layout->addLayout(makeTimeBar());
  auto* columns = new QGridLayout;
  columns->setHorizontalSpacing(14);
  columns->addWidget(sectionLabel(tr("From present values to value per share"), this), 0, 0);
  columns->addWidget(sectionLabel(tr("Beyond the last year: two methods and what each implies"), this), 0, 1);
  walk_ = addGrid("walk", tr("From present values to value per share"));
  walk_->setWidths(66, 0);
  columns->addWidget(walk_, 1, 0);
  terminal_ = addGrid("terminal", tr("Terminal value"));
  terminal_->setWidths(62, 0);
  columns->addWidget(terminal_, 1, 1);
  columns->setColumnStretch(0, 1);
  columns->setColumnStretch(1, 1);
  layout->addLayout(columns);
  remark_ = new PlainLabel(this);
  remark_->setWordWrap(true);
  remark_->setContentsMargins(8, 0, 8, 4);
  layout->addWidget(remark_);
  bars_ = new FlowBars(this);
  connectChart(bars_);
  bars_->setMinimumHeight(150);
  layout->addWidget(bars_, 1);
  yearsTitle_ = sectionLabel({}, this);
  layout->addWidget(yearsTitle_);
  years_ = addGrid("flows", tr("Free cash flow by year"));
  years_->setWidths(64, 0);
  layout->addWidget(years_);
  connect(&terminal_->ledger(), &LedgerModel::typed, this, [this](int row, int column, const QString& typed) {
    const LedgerRow& line = terminal_->ledger().ledgerRows()[static_cast<size_t>(row)];
    if (const auto figure = typedOrSay(typed, line)) typeInput(line.key, column, *figure);
  });
}

QHBoxLayout* CashValuePage::makeTimeBar() {
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 0, 8, 0);
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
  const auto add = [&](const QString& words, QWidget* field) {
    auto* label = new PlainLabel(words, this);
    label->setBuddy(field);
    bar->addWidget(label);
    bar->addWidget(field);
    bar->addSpacing(12);
  };
  add(tr("Valuation &date"), date_);
  add(tr("Forecast &years"), horizon_);
  price_ = new QComboBox(this);
  price_->setObjectName(QStringLiteral("priceStands"));
  price_->addItems({tr("of the valuation date"), tr("the latest"), tr("pinned as it is")});
  add(tr("&Price"), price_);
  bar->addStretch();
  connect(price_, &QComboBox::activated, this, &CashValuePage::standOnPrice);
  connect(date_, &QDateEdit::dateChanged, this, [this](QDate day) {
    const Date date = makeDate(day.year(), static_cast<unsigned>(day.month()), static_cast<unsigned>(day.day()));
    bench_.apply(services::setValuationDate(bench_.settled().caseOf(), date));
  });
  connect(horizon_, &QSpinBox::valueChanged, this,
          [this](int years) { bench_.apply(services::setHorizon(bench_.settled().caseOf(), years)); });
  return bar;
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

void CashValuePage::refresh() {
  fillTime();
  const services::Snapshot& s = now();
  const int filed = s.evaluation->layout().historyYears;
  const int to = s.evaluation->layout().columns();
  const int shown = std::max(0, filed - 5);
  const model::RowId row = s.evaluation->model().find(model::Role::Fcff);
  std::vector<FlowSeries> series;
  for (int i = 0; i < s.evaluation->scenarios(); ++i) {
    const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(i)];
    series.push_back({text(sc.id), text(sc.label), trendOf(s, row, filed, to, i)});
  }
  bars_->setSource(row, shown);
  bars_->setContent(periodHeaders(s, shown, to), trendOf(s, row, shown, filed, 0), std::move(series),
                    unitOf(s, Kind::Money));
  fillYears();
  fillTerminal();
  fillWalk();
}

void CashValuePage::fillYears() {
  const services::Snapshot& s = now();
  const int from = s.evaluation->layout().historyYears;
  const int to = s.evaluation->layout().columns();
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

void CashValuePage::fillWalk() {
  const services::Snapshot& s = now();
  walk_->ledger().setCorner(cornerOf(s));
  walk_->ledger().fill(scenarioHeaders(s), scenarioRows(s, "value_walk"));
  walk_->showAll();
}

}  // namespace zl::app
