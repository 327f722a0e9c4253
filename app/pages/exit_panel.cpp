#include "app/pages/exit_panel.h"

#include <QVBoxLayout>
#include <algorithm>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "app/pages/page.h"
#include "core/quantity/number_text.h"
#include "services/stories/exit_stories.h"

namespace zl::app {

ExitPanel::ExitPanel(Workbench& bench, LedgerView* values, LedgerView* grid, QWidget* parent)
    : QWidget(parent), bench_(bench), values_(values), grid_(grid) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  sentence_ = new PlainLabel(this);
  sentence_->setObjectName(QStringLiteral("exitSentence"));
  sentence_->setWordWrap(true);
  sentence_->setContentsMargins(8, 0, 8, 4);
  layout->addWidget(sentence_);
  values_->setWidths(66, 0);
  layout->addWidget(values_);
  grid_->setWidths(66, 0);
  layout->addWidget(
      sectionLabel(tr("Yearly return in % from today's price: growth by itself down, multiple across"), this));
  layout->addWidget(grid_);
  layout->addStretch();
}

void ExitPanel::refresh() {
  const services::Snapshot& s = bench_.now();
  std::vector<LedgerRow> rows = scenarioRows(s, "exit_return");
  struct Line {
    QString label;
    Figure (*of)(const services::ExitReturn&);
  };
  const Line lines[] = {
      {tr("Return from today's price, a year"), [](const services::ExitReturn& r) { return r.yearly; }},
      {tr("  of the total, by revenue"), [](const services::ExitReturn& r) { return r.split.revenue; }},
      {tr("  by margin"), [](const services::ExitReturn& r) { return r.split.margin; }},
      {tr("  by the count of shares"), [](const services::ExitReturn& r) { return r.split.count; }},
      {tr("  by the multiple"), [](const services::ExitReturn& r) { return r.split.multiple; }},
      {tr("  by dividends"), [](const services::ExitReturn& r) { return r.split.dividends; }}};
  std::vector<services::ExitReturn> returns;
  for (int k = 0; k < s.evaluation->scenarios(); ++k) returns.push_back(services::exitReturn(s, k));
  for (const Line& line : lines) {
    LedgerRow row = headingRow(line.label);
    row.heading = false;
    row.unit = QStringLiteral("%");
    row.kind = Kind::Ratio;
    for (size_t k = 0; k < returns.size(); ++k) {
      row.cells.push_back(figureCell(line.of(returns[k])));
      row.cells.back().story = [label = line.label.trimmed().toStdString(), of = returns[k],
                                figure = line.of(returns[k]), k](const services::Snapshot& shown) {
        return services::exitStory(shown, label, of, figure, static_cast<int>(k));
      };
    }
    rows.push_back(std::move(row));
  }
  values_->ledger().setCorner(cornerOf(s));
  values_->ledger().fill(scenarioHeaders(s), std::move(rows));
  values_->showAll();
  const auto base = static_cast<size_t>(std::max(0, s.caseOf().indexOf(kBase)));
  const services::ExitReturn& of = returns[base];
  QString words =
      of.toPay.hasValue()
          ? tr("Base: a price to pay of %1 for the required return").arg(text(figureText(of.toPay, Kind::Quote)))
          : tr("Base has no price to pay: %1").arg(text(of.toPay.reason()));
  if (of.yearly.hasValue()) words += tr("; at today's price %1 % a year").arg(text(figureText(of.yearly, Kind::Ratio)));
  if (of.lastAtOrUnder)
    words += tr("; last traded at or under it on %1, at %2")
                 .arg(text(dateText(of.lastAtOrUnder->date)),
                      text(figureText(Figure::of(of.lastAtOrUnder->close), Kind::Quote)));
  sentence_->setText(words + QLatin1Char('.'));
  fillGrid();
}

void ExitPanel::fillGrid() {
  const services::Snapshot& s = bench_.now();
  const int scenario = bench_.scenario();
  const services::ExitGrid grid = bench_.isPreviewing() ? services::ExitGrid{} : services::exitGrid(s, scenario);
  grid_->setVisible(!grid.growths.empty());
  if (grid.growths.empty()) return;
  QStringList headers;
  for (const double multiple : grid.multiples)
    headers << text(figureText(Figure::of(multiple), Kind::Multiple)) + QStringLiteral(" ×");
  std::vector<LedgerRow> rows;
  for (size_t g = 0; g < grid.growths.size(); ++g) {
    LedgerRow row;
    row.label = tr("growth %1 %").arg(text(figureText(Figure::of(grid.growths[g]), Kind::Ratio)));
    row.kind = Kind::Ratio;
    for (size_t m = 0; m < grid.multiples.size(); ++m) {
      row.cells.push_back(figureCell(grid.yearly[g][m]));
      row.cells.back().story = [growth = grid.growths[g], multiple = grid.multiples[m],
                                figure = grid.yearly[g][m]](const services::Snapshot& of) {
        return services::exitGridStory(of, growth, multiple, figure);
      };
    }
    rows.push_back(std::move(row));
  }
  grid_->ledger().setCorner(text(s.caseOf().scenarios[static_cast<size_t>(scenario)].label));
  grid_->ledger().fill(headers, std::move(rows));
  grid_->showAll();
}

}  // namespace zl::app
