#include "app/pages/history_page.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

#include "app/grid/ledger_rows.h"
#include "app/look/theme.h"
#include "services/driver_evidence.h"

namespace zl::app {

HistoryPage::HistoryPage(Workbench& bench, QWidget* parent) : Page(bench, Stop::History, parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 4, 0, 0);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 0, 8, 0);
  show_ = new QComboBox(this);
  show_->setObjectName(QStringLiteral("historyShow"));
  show_->addItem(tr("amounts"), static_cast<int>(Show::Amounts));
  show_->addItem(tr("growth"), static_cast<int>(Show::Growth));
  show_->addItem(tr("share of revenue"), static_cast<int>(Show::Share));
  auto* showLabel = new QLabel(tr("&Show"), this);
  showLabel->setBuddy(show_);
  bar->addWidget(showLabel);
  bar->addWidget(show_);
  bar->addSpacing(18);
  yearBox_ = new QComboBox(this);
  yearBox_->setObjectName(QStringLiteral("flagYear"));
  auto* yearLabel = new QLabel(tr("E&xceptional year"), this);
  yearLabel->setBuddy(yearBox_);
  bar->addWidget(yearLabel);
  bar->addWidget(yearBox_);
  flagReason_ = new QLineEdit(this);
  flagReason_->setObjectName(QStringLiteral("flagReason"));
  flagReason_->setPlaceholderText(tr("What was exceptional about it?"));
  bar->addWidget(flagReason_, 1);
  flag_ = new QPushButton(this);
  flag_->setObjectName(QStringLiteral("flag"));
  bar->addWidget(flag_);
  layout->addLayout(bar);
  flagNote_ = new QLabel(this);
  flagNote_->setContentsMargins(8, 0, 8, 0);
  flagNote_->setWordWrap(true);
  layout->addWidget(flagNote_);
  grid_ = addGrid("history", tr("Filed history"));
  grid_->setWidths(200, 62, 64);
  grid_->fitFigures(50);
  layout->addWidget(grid_, 1);
  connect(show_, &QComboBox::currentIndexChanged, this, [this] {
    if (bench_.isOpen()) refresh();
  });
  connect(yearBox_, &QComboBox::currentIndexChanged, this, [this] {
    if (bench_.isOpen()) refreshFlagBar();
  });
  connect(flag_, &QPushButton::clicked, this, &HistoryPage::toggleFlag);
  connect(flagReason_, &QLineEdit::returnPressed, this, &HistoryPage::toggleFlag);
}

LedgerRow HistoryPage::rowOf(int index, Show show) const {
  const services::Snapshot& s = now();
  const int to = s.evaluation->layout().historyYears;
  LedgerRow row = yearRow(s, index, 0, to, bench_.scenario());
  row.trend = trendOf(s, index, 0, to, bench_.scenario());
  const bool amount = row.kind == Kind::Money || row.kind == Kind::Shares || row.kind == Kind::PerShare;
  if (show == Show::Amounts || !amount || (show == Show::Share && row.kind != Kind::Money)) return row;
  const std::vector<Figure> figures = show == Show::Growth ? services::growthOf(s, index, bench_.scenario())
                                                           : services::shareOfRevenue(s, index, bench_.scenario());
  row.kind = Kind::Ratio;
  row.unit = QStringLiteral("%");
  for (size_t c = 0; c < row.cells.size(); ++c) {
    row.cells[c].figure = figures[c];
    row.cells[c].ink = Ink::Derived;
  }
  return row;
}

void HistoryPage::refresh() {
  const services::Snapshot& s = now();
  const Show show = static_cast<Show>(show_->currentData().toInt());
  std::vector<LedgerRow> rows;
  for (const char* group : {"Income statement", "Balance sheet", "Cash flow statement", "Free cash flow",
                            "Capital employed", "Ratios", "Per share"}) {
    rows.push_back(headingRow(QString::fromLatin1(group)));
    for (int index : groupRows(s, group)) {
      const model::Row& r = s.evaluation->model().rows[static_cast<size_t>(index)];
      if (!r.historyFiled && !r.history) continue;
      rows.push_back(rowOf(index, show));
    }
  }
  grid_->ledger().setFlagged(services::exceptionalColumns(s));
  grid_->ledger().setCorner(cornerOf(s));
  grid_->ledger().fill(periodHeaders(s, 0, s.evaluation->layout().historyYears), std::move(rows), true);
  grid_->viewport()->update();
  if (yearBox_->count() != static_cast<int>(s.years().size())) {
    const QSignalBlocker quiet(yearBox_);
    yearBox_->clear();
    for (auto year = s.years().rbegin(); year != s.years().rend(); ++year)
      yearBox_->addItem(QString::number(year->label()), year->label());
  }
  refreshFlagBar();
}

void HistoryPage::refreshFlagBar() {
  const Case& c = now().caseOf();
  const auto found = c.exceptional.find(yearBox_->currentData().toInt());
  const bool flagged = found != c.exceptional.end();
  flag_->setText(flagged ? tr("Unflag") : tr("Flag"));
  if (!flagReason_->hasFocus() || flagged) flagReason_->setText(flagged ? text(found->second) : QString());
  flagReason_->setCursorPosition(0);
  flagReason_->setReadOnly(flagged);
  QStringList lines;
  for (const auto& [year, reason] : c.exceptional) lines << QStringLiteral("⚑ %1: %2").arg(year).arg(text(reason));
  flagNote_->setText(lines.isEmpty() ? tr("No year is flagged; averages use every year.")
                                     : lines.join(QStringLiteral("     ")));
}

void HistoryPage::toggleFlag() {
  const int year = yearBox_->currentData().toInt();
  const Case& c = bench_.settled().caseOf();
  if (c.exceptional.count(year) > 0) {
    bench_.apply(services::setExceptional(c, year, std::nullopt));
    return;
  }
  const QString reason = flagReason_->text().trimmed();
  if (reason.isEmpty()) {
    bench_.say(tr("A flag needs its reason; write what was exceptional about %1").arg(year), true);
    flagReason_->setFocus();
    return;
  }
  bench_.apply(services::setExceptional(c, year, reason.toStdString()));
}

}  // namespace zl::app
