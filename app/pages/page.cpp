#include "app/pages/page.h"

#include <QScrollArea>
#include <QScrollBar>

#include "app/look/amounts.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {

Page::Page(Workbench& bench, Stop stop, QWidget* parent) : QWidget(parent), bench_(bench), stop_(stop) {
  setObjectName(QString::fromLatin1(stopWord(stop)).remove(QLatin1Char(' ')) + QStringLiteral("Page"));
  setAccessibleName(QString::fromLatin1(stopWord(stop)));
  setAutoFillBackground(true);
  setBackgroundRole(QPalette::Base);
  connect(&bench_, &Workbench::changed, this, [this] {
    if (isVisible() && bench_.isOpen()) refresh();
  });
}

void Page::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  if (bench_.isOpen()) refresh();
}

QVBoxLayout* Page::scrolledLayout(QWidget* view) {
  auto* outer = new QVBoxLayout(view);
  outer->setContentsMargins(0, 0, 0, 0);
  auto* area = new QScrollArea(view);
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  area->setFocusPolicy(Qt::NoFocus);
  auto* inner = new QWidget(area);
  inner->setAutoFillBackground(true);
  inner->setBackgroundRole(QPalette::Base);
  area->setWidget(inner);
  outer->addWidget(area);
  auto* layout = new QVBoxLayout(inner);
  layout->setContentsMargins(0, 2, 0, 4);
  layout->setSpacing(2);
  return layout;
}

void Page::keepAbove(QWidget* chart, LedgerView* years, const std::function<void(std::vector<double>, double)>& place) {
  const auto align = [chart, years, place] {
    const int first = years->ledger().firstColumn();
    const auto mapped = [&](double x) { return chart->mapFromGlobal(years->mapToGlobal(QPointF(x, 0))).x(); };
    std::vector<double> middles;
    for (int c = first; c < years->ledger().columnCount(); ++c) middles.push_back(mapped(years->middleOf(c - first)));
    place(std::move(middles), mapped(years->viewport()->x() + years->columnWidth(0)));
  };
  connect(years, &LedgerView::widthsChanged, chart, align);
  connect(years->horizontalScrollBar(), &QScrollBar::valueChanged, chart, align);
}

LedgerView* Page::addGrid(const char* name, const QString& accessibleName) {
  auto* grid = new LedgerView(this);
  grid->setObjectName(QString::fromLatin1(name));
  grid->setAccessibleName(accessibleName);
  connect(grid, &LedgerView::cellTold, &bench_, &Workbench::tell);
  connect(grid, &LedgerView::cellFocused, this,
          [this](model::Cell cell, int scenario) { bench_.focus(cell, scenario); });
  connect(grid, &LedgerView::selectionSummed, this, &Page::summed);
  return grid;
}

void Page::connectChart(TellingChart* chart) {
  connect(chart, &TellingChart::cellTold, &bench_, &Workbench::tell);
  connect(chart, &TellingChart::cellFocused, &bench_, &Workbench::focus);
}

std::optional<double> typedOption(const QString& typed, const LedgerRow& row) {
  const QString wanted = typed.trimmed();
  if (wanted.isEmpty()) return std::nullopt;
  int found = -1;
  for (int i = 0; i < static_cast<int>(row.choices.size()); ++i) {
    if (row.choices[i].compare(wanted, Qt::CaseInsensitive) == 0) return i;
    if (!row.choices[i].startsWith(wanted, Qt::CaseInsensitive)) continue;
    if (found >= 0) return std::nullopt;  // the beginning of two
    found = i;
  }
  return found < 0 ? std::nullopt : std::optional<double>(found);
}

QString noSuchOption(const QString& typed, const LedgerRow& row) {
  return QObject::tr("'%1' is no choice for %2; nothing was changed. There are: %3")
      .arg(typed.left(40), row.label, row.choices.join(QStringLiteral(", ")));
}

std::optional<double> Page::typedOrSay(const QString& typed, const LedgerRow& row) {
  if (!row.choices.isEmpty()) {
    const std::optional<double> option = typedOption(typed, row);
    if (!option) bench_.say(noSuchOption(typed, row), true);
    return option;
  }
  const std::optional<double> figure = typedShown(typed.toStdString(), row.kind);
  if (!figure) {
    bench_.say(
        tr("'%1' is not a number for %2; nothing was changed. Numbers may read 12.5%, 1.2bn, (350), 1,250.5 or 1 250,5")
            .arg(typed.left(40), row.label),
        true);
  }
  return figure;
}

void Page::typeDriver(const QString& row, int scenario, const std::map<int, double>& years) {
  const services::Snapshot& s = bench_.settled();
  const model::Model& m = s.evaluation->model();
  const model::RowId index = m.find(row.toStdString());
  std::vector<Figure> current;
  for (int c = s.evaluation->layout().historyYears; c < s.evaluation->layout().columns(); ++c) {
    current.push_back(s.evaluation->figure(index, c, scenario));
  }
  bench_.apply(services::typeDriverYears(s.caseOf(), m, s.caseOf().scenarios[static_cast<size_t>(scenario)].id,
                                         row.toStdString(), current, years, bench_.saidNow({})));
}

void Page::typeInput(const QString& row, int scenario, double figure) {
  const Case& c = bench_.settled().caseOf();
  bench_.apply(services::setLevel(c, bench_.settled().evaluation->model(),
                                  c.scenarios[static_cast<size_t>(scenario)].id, row.toStdString(), figure,
                                  bench_.saidNow({})));
}

void Page::takeInputs(LedgerView* grid) {
  connect(&grid->ledger(), &LedgerModel::typed, this, [this, grid](int row, int column, const QString& typed) {
    const LedgerRow& line = grid->ledger().ledgerRows()[static_cast<size_t>(row)];
    if (const auto figure = typedOrSay(typed, line)) typeInput(line.key, column, *figure);
  });
}

QLabel* sectionLabel(const QString& words, QWidget* parent) {
  auto* label = new PlainLabel(words, parent);
  QFont f = label->font();
  f.setBold(true);
  label->setFont(f);
  label->setContentsMargins(8, 6, 0, 2);
  return label;
}

}  // namespace zl::app
