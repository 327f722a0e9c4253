#include "app/pages/capital_page.h"

#include <QGridLayout>
#include <QVBoxLayout>

#include "app/grid/ledger_rows.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/stories/evidence_stories.h"

namespace zl::app {
namespace {}  // namespace

CapitalPage::CapitalPage(Workbench& bench, QWidget* parent) : Page(bench, Stop::Capital, parent) {
  QVBoxLayout* layout = scrolledLayout();
  layout->addWidget(sectionLabel(tr("The rate of the first forecast year, part by part (weighted, %)"), this));
  stack_ = new RateStack(this);
  connectChart(stack_);
  layout->addWidget(stack_);
  auto* columns = new QGridLayout;
  columns->setHorizontalSpacing(16);
  columns->addWidget(sectionLabel(tr("Parts by scenario, held over the years unless shaped on Outlook"), this), 0, 0);
  columns->addWidget(sectionLabel(tr("Weights and choices"), this), 0, 1);
  parts_ = addGrid("rateParts", tr("Parts of the rate by scenario"));
  parts_->setWidths(62, 0);
  columns->addWidget(parts_, 1, 0);
  weights_ = addGrid("weights", tr("Weights and choices"));
  weights_->setWidths(66, 0);
  columns->addWidget(weights_, 1, 1);
  layout->addLayout(columns);
  layout->addWidget(sectionLabel(
      tr("Gross interest over average debt with leases; the oldest year has no opening balance and is not used"),
      this));
  debt_ = addGrid("interestOverDebt", tr("Interest over debt by year"));
  debt_->setWidths(56, 0);
  layout->addWidget(debt_);
  layout->addWidget(sectionLabel(tr("Rates in the book (latest at the valuation date)"), this));
  rates_ = addGrid("rates", tr("Rates"));
  rates_->setWidths(110, 0);
  layout->addWidget(rates_);
  layout->addStretch();
  connect(&parts_->ledger(), &LedgerModel::typed, this, [this](int row, int column, const QString& typed) {
    const LedgerRow& line = parts_->ledger().ledgerRows()[static_cast<size_t>(row)];
    const std::optional<double> level = typedOrSay(typed, line);
    if (!level) return;
    Path path;
    path.level = level;
    const Case& c = bench_.settled().caseOf();
    const Scenario& s = c.scenarios[static_cast<size_t>(column)];
    const Assumption* before = c.driver(s, line.key.toStdString());
    bench_.apply(services::setDriver(c, now().evaluation->model(), s.id, line.key.toStdString(), path,
                                     bench_.saidNow(before != nullptr ? text(before->said.reason) : QString())));
  });
  connect(&weights_->ledger(), &LedgerModel::typed, this, [this](int row, int column, const QString& typed) {
    const LedgerRow& line = weights_->ledger().ledgerRows()[static_cast<size_t>(row)];
    if (const auto figure = typedOrSay(typed, line)) typeInput(line.key, column, *figure);
  });
}

void CapitalPage::refresh() {
  refreshStack();
  refreshParts();
  refreshDebt();
  refreshRates();
}

void CapitalPage::refreshStack() {
  const services::Snapshot& s = now();
  const Evaluation& e = *s.evaluation;
  const int first = e.layout().historyYears;
  std::vector<RateBar> bars;
  for (int i = 0; i < e.scenarios(); ++i) {
    const Figure total = e.figure(model::Role::Wacc, first, i);
    if (!total.hasValue()) continue;
    const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(i)];
    RateBar bar{
        text(sc.id), text(sc.label), {}, total.value(), {model::Cell{e.model().find(model::Role::Wacc), first}, i, {}}};
    for (const model::ViewRow& part : e.model().view("rate_stack")) {
      const model::Row& row = e.model()[part.row];
      bar.parts.push_back(
          {text(row.label), e.figure(part.row, first, i).valueOr(0), {model::Cell{part.row, first}, i, {}}});
    }
    bars.push_back(std::move(bar));
  }
  stack_->setBars(std::move(bars));
}

void CapitalPage::refreshParts() {
  const services::Snapshot& s = now();
  const int first = s.evaluation->layout().historyYears;
  std::vector<LedgerRow> rows;
  for (const model::ViewRow& shown : s.model().view("rate")) {
    const std::string& name = s.model()[shown.row].name;
    LedgerRow row = yearRow(s, shown.row, first, first + 1, 0);
    row.cells.clear();
    for (int i = 0; i < s.evaluation->scenarios(); ++i) {
      LedgerCell cell = yearRow(s, shown.row, first, first + 1, i).cells.front();
      cell.quiet = cell.editable && s.caseOf().scenarios[static_cast<size_t>(i)].drivers.count(name) == 0;
      row.cells.push_back(std::move(cell));
    }
    rows.push_back(std::move(row));
  }
  parts_->ledger().fill(scenarioHeaders(s), std::move(rows));
  parts_->showAll();
  weights_->ledger().setCorner(cornerOf(s));
  weights_->ledger().fill(scenarioHeaders(s), scenarioRows(s, "weights"));
  weights_->showAll();
}

void CapitalPage::refreshDebt() {
  const services::Snapshot& s = now();
  const int to = s.evaluation->layout().historyYears;
  debt_->ledger().setCorner(cornerOf(s));
  debt_->ledger().fill(periodHeaders(s, 0, to), yearRows(s, "cost_of_debt", 0, to, bench_.scenario()));
  debt_->showAll();
}

void CapitalPage::refreshRates() {
  const services::Snapshot& s = now();
  std::vector<LedgerRow> rows;
  QStringList seen;
  for (const MarketRate& r : s.market->rates) {
    const QString name = text(r.name);
    if (seen.contains(name)) continue;
    seen << name;
    const std::optional<MarketRate> latest = rateAt(s.market->rates, r.name, s.caseOf().valuationDate);
    if (!latest) continue;
    LedgerRow row;
    row.label = name;
    row.kind = name.startsWith(QLatin1String("spot")) ? Kind::QuoteRate : Kind::Ratio;
    row.unit = row.kind == Kind::Ratio ? QStringLiteral("%") : QString();
    LedgerCell figure;
    figure.figure = Figure::of(latest->figure);
    figure.ink = Ink::Filed;
    figure.story = [latest = *latest, kind = row.kind](const services::Snapshot& of) {
      return services::rateStory(of, latest.name, Figure::of(latest.figure), kind,
                                 dateText(latest.date) + ", " + latest.source);
    };
    LedgerCell date;
    date.words = text(dateText(latest->date));
    LedgerCell source;
    source.words = text(latest->source);
    row.cells = {figure, date, source};
    rows.push_back(std::move(row));
  }
  rates_->ledger().fill({tr("figure"), tr("date"), tr("source")}, std::move(rows));
  rates_->showAll();
}

}  // namespace zl::app
