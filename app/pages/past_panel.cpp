#include "app/pages/past_panel.h"

#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/edits/peer_edits.h"
#include "services/edits/scenario_edits.h"
#include "services/stories/peer_stories.h"

namespace zl::app {

PastPanel::PastPanel(Workbench& bench, LedgerView* values, LedgerView* years, QWidget* parent)
    : QWidget(parent), bench_(bench), values_(values), years_(years) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 2, 0, 4);
  layout->setSpacing(2);
  note_ = new PlainLabel(this);
  note_->setObjectName(QStringLiteral("pastNote"));
  note_->setWordWrap(true);
  note_->setContentsMargins(8, 0, 8, 2);
  layout->addWidget(note_);
  auto* adopts = new QHBoxLayout;
  adopts->setContentsMargins(8, 0, 8, 0);
  as_ = new QComboBox(this);
  as_->setObjectName(QStringLiteral("pastAdoptsAs"));
  as_->addItems({tr("the multiple of the exit return"), tr("a method of its own, with the quartiles as its ends")});
  as_->setAccessibleName(tr("What Enter on a figure makes of it"));
  auto* label = new PlainLabel(tr("Enter on a figure makes &it"), this);
  label->setBuddy(as_);
  adopts->addWidget(label);
  adopts->addWidget(as_);
  adopts->addStretch();
  layout->addLayout(adopts);
  values_->setWidths(66, 0);
  layout->addWidget(values_);
  chart_ = new PriceChart(this);
  chart_->setObjectName(QStringLiteral("pastChart"));
  chart_->setAccessibleName(tr("Own past multiple by month"));
  layout->addWidget(chart_, 1);
  years_->setWidths(58, 0);
  layout->addWidget(years_);
  connect(values_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, [this] { fillSeries(); });
  connect(values_, &LedgerView::rowActivated, this, &PastPanel::adopt);
}

/// What the columns of the past's statistics show, in their order.
std::vector<std::pair<QString, Figure>> PastPanel::columnsOf(const services::PastSeries& of) {
  return {{tr("today"), of.today},   {tr("low"), of.low},   {tr("quartile"), of.lowerQuartile},
          {tr("median"), of.median}, {tr("mean"), of.mean}, {tr("quartile"), of.upperQuartile},
          {tr("high"), of.high}};
}

void PastPanel::refresh() {
  if (bench_.isPreviewing()) return;  // nothing of it moves under a hand
  const services::Snapshot& s = bench_.now();
  series_ = services::pastMultiples(s);
  std::vector<LedgerRow> rows;
  QStringList headers;
  for (const services::PastSeries& of : series_.series) {
    LedgerRow row;
    row.label = text(of.label);
    row.kind = Kind::Multiple;
    row.unit = QStringLiteral("×");
    headers.clear();
    for (const auto& [name, figure] : columnsOf(of)) {
      headers << name;
      row.cells.push_back(figureCell(figure));
      row.cells.back().story = [label = of.label + ", " + name.toStdString(), of,
                                figure = figure](const services::Snapshot& shown) {
        return services::pastStory(shown, label, of, figure, Kind::Multiple);
      };
    }
    LedgerCell place = figureCell(of.percentile);
    place.words = of.percentile.hasValue() ? text(figureText(of.percentile, Kind::Ratio)) + QStringLiteral(" %")
                                           : QStringLiteral("·");
    place.story = [of](const services::Snapshot& shown) {
      return services::pastStory(shown, of.label + ", where today stands", of, of.percentile, Kind::Ratio);
    };
    row.cells.push_back(place);
    const std::pair<QString, Figure> beside[] = {
        {tr("peers today"), of.peersToday}, {tr("apart, %"), of.gapToday}, {tr("usually, %"), of.usualGap}};
    for (const auto& [name, figure] : beside) {
      const Kind kind = &figure == &beside[0].second ? Kind::Multiple : Kind::Ratio;
      row.cells.push_back(figureCell(figure));
      if (kind == Kind::Ratio && figure.hasValue()) row.cells.back().words = text(figureText(figure, kind));
      row.cells.back().story = [label = of.label + ", " + name.toStdString(), of, figure = figure,
                                kind](const services::Snapshot& shown) {
        return services::pastStory(shown, label, of, figure, kind);
      };
    }
    LedgerCell months;
    const auto out = static_cast<int>(of.points.size()) - of.count;
    months.words = QString::number(of.count) + (out + of.left > 0 ? tr(" (%1 out)").arg(out + of.left) : QString());
    months.quiet = true;
    row.cells.push_back(months);
    rows.push_back(std::move(row));
  }
  const bool any = std::any_of(series_.series.begin(), series_.series.end(),
                               [](const services::PastSeries& of) { return !of.points.empty(); });
  note_->setText(
      any ? tr("The price then times the count then, over what had been filed by then, as first filed; "
               "outlier months do not count. The dotted line is the peers' median then, where their closes are in "
               "the book: today's count and claims, over the year filed by then. ") +
                text(series_.note)
          : tr("Closes of more than a year, and filed years that lie before them, make the own past "
               "multiples: type or paste prices under Company."));
  values_->setVisible(any);
  chart_->setVisible(any);
  years_->setVisible(any);
  if (!any) return;
  headers << tr("place") << tr("peers") << tr("apart, %") << tr("usually, %") << tr("months");
  values_->ledger().fill(headers, std::move(rows));
  values_->showAll();
  fillSeries();
}

void PastPanel::fillSeries() {
  if (series_.series.empty()) return;
  const auto at =
      std::clamp<size_t>(static_cast<size_t>(std::max(0, values_->currentIndex().row())), 0, series_.series.size() - 1);
  const services::PastSeries& of = series_.series[at];
  std::vector<PricePoint> points;
  std::vector<PriceMark> marks;
  std::vector<PricePoint> peers;
  for (const services::PastMultiple& p : of.points) {
    if (!p.outlier) points.push_back({p.on, p.multiple, {}});
    if (p.peersCount > 0) peers.push_back({p.on, p.peers, {}});
  }
  chart_->setTitle(tr("%1, by month; median %2").arg(text(of.label), text(figureText(of.median, Kind::Multiple))));
  chart_->setContent(std::move(points), std::move(marks), QString());
  chart_->setBeside(std::move(peers), tr("peers' median"));
  const std::vector<services::PastYear> years = services::pastYears(of);
  QStringList headers;
  LedgerRow low, mean, high;
  low.label = tr("lowest month");
  mean.label = tr("mean of the months");
  high.label = tr("highest month");
  for (LedgerRow* row : {&low, &mean, &high}) row->kind = Kind::Multiple;
  for (const services::PastYear& year : years) {
    headers << QString::number(year.year);
    const auto add = [&](LedgerRow& row, double figure) {
      row.cells.push_back(figureCell(Figure::of(figure)));
      row.cells.back().story = [label = of.label + ", " + row.label.toStdString() + " of " + std::to_string(year.year),
                                of, figure](const services::Snapshot& shown) {
        return services::pastStory(shown, label, of, Figure::of(figure), Kind::Multiple);
      };
    };
    add(low, year.low);
    add(mean, year.mean);
    add(high, year.high);
  }
  years_->ledger().setCorner(text(of.label));
  years_->ledger().fill(headers, {std::move(low), std::move(mean), std::move(high)});
  years_->showAll();
}

/// A figure of the past becomes the multiple in the exit year of the scenario chosen, with what it is as the reason.
void PastPanel::adopt(int row, int column) {
  const services::Snapshot& s = bench_.settled();
  const auto& parts = s.model().view("exit_parts");
  constexpr size_t kMultipleAt = 2;
  if (row < 0 || row >= static_cast<int>(series_.series.size()) || parts.size() <= kMultipleAt) return;
  const services::PastSeries& of = series_.series[static_cast<size_t>(row)];
  const auto columns = columnsOf(of);
  if (column < 0 || column >= static_cast<int>(columns.size())) return;
  const auto& [name, figure] = columns[static_cast<size_t>(column)];
  if (!figure.hasValue()) return bench_.say(tr("There is no figure to adopt: %1").arg(text(figure.reason())), true);
  const Scenario& scenario = s.caseOf().scenarios[static_cast<size_t>(bench_.scenario())];
  const Provenance said = bench_.saidNow(tr("own past %1, %2").arg(text(of.label), name));
  if (as_->currentIndex() == 0) {
    bench_.apply(services::setLevel(s.caseOf(), s.model(), scenario.id, s.model()[parts[kMultipleAt].row].name,
                                    figure.value(), said));
    return;
  }
  bench_.apply(services::adoptOwnPast(s.caseOf(), s.model(), scenario.id, row,
                                      {figure.value(), of.lowerQuartile.valueOr(0), of.upperQuartile.valueOr(0)},
                                      said));
}

}  // namespace zl::app
