#include "app/pages/history_page.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

#include "app/grid/ledger_rows.h"
#include "app/look/theme.h"
#include "services/driver_evidence.h"
#include "services/interim_table.h"

namespace zl::app {

namespace {

constexpr const char* kGroups[] = {"Income statement", "Balance sheet",    "Cash flow statement",
                                   "Free cash flow",   "Capital employed", "Ratios",
                                   "Per share"};

}  // namespace

HistoryPage::HistoryPage(Workbench& bench, QWidget* parent) : Page(bench, Stop::History, parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 4, 0, 0);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 0, 8, 0);
  basis_ = new QComboBox(this);
  basis_->setObjectName(QStringLiteral("historyBasis"));
  basis_->setAccessibleName(tr("Periods"));
  basis_->addItem(tr("years"), -1);
  basis_->addItem(tr("quarters"), static_cast<int>(services::Basis::Quarters));
  basis_->addItem(tr("trailing 12 months"), static_cast<int>(services::Basis::Trailing));
  show_ = new QComboBox(this);
  show_->setObjectName(QStringLiteral("historyShow"));
  show_->addItem(tr("amounts"), static_cast<int>(Show::Amounts));
  show_->addItem(tr("growth"), static_cast<int>(Show::Growth));
  show_->addItem(tr("share of revenue"), static_cast<int>(Show::Share));
  auto* showLabel = new QLabel(tr("&Show"), this);
  showLabel->setBuddy(show_);
  bar->addWidget(showLabel);
  bar->addWidget(show_);
  bar->addWidget(basis_);
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
  flagNote_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);  // one line; the whole is in its tip
  layout->addWidget(flagNote_);
  grid_ = addGrid("history", tr("Filed history"));
  grid_->setWidths(200, 62, 64);
  grid_->fitFigures(50);
  layout->addWidget(grid_, 1);
  for (QComboBox* choice : {show_, basis_}) {
    connect(choice, &QComboBox::currentIndexChanged, this, [this] {
      if (bench_.isOpen()) refresh();
    });
  }
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
  if (basis_->currentData().toInt() >= 0) {
    refreshInterim(show);
    return;
  }
  std::vector<LedgerRow> rows;
  for (const char* group : kGroups) {
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

void HistoryPage::refreshInterim(Show show) {
  constexpr size_t kMostColumns = 20;  ///< five years of quarters; older ones are in the export
  const services::Snapshot& s = now();
  const services::InterimTable table =
      services::interimTable(s, static_cast<services::Basis>(basis_->currentData().toInt()));
  if (table.periods.empty()) {
    flagNote_->setText(tr("No interim report is in the book. Import quarterly or half-yearly reports on Filings."));
  }
  const size_t from = table.periods.size() - std::min(table.periods.size(), kMostColumns);
  std::vector<LedgerRow> rows;
  for (const char* group : kGroups) {
    const size_t heading = rows.size();
    rows.push_back(headingRow(QString::fromLatin1(group)));
    for (size_t r = 0; r < table.rows.size(); ++r) {
      const int index = table.rows[r].row;
      const model::Row& m = s.evaluation->model().rows[static_cast<size_t>(index)];
      if (m.group != group) continue;
      LedgerRow row = yearRow(s, index, 0, 0, bench_.scenario());
      std::vector<Figure> figures = table.rows[r].figures;
      const bool amount = m.kind == Kind::Money || m.kind == Kind::Shares || m.kind == Kind::PerShare;
      const bool changed = amount && (show == Show::Growth || (show == Show::Share && m.kind == Kind::Money));
      if (changed) {
        figures = show == Show::Growth ? table.growthOf(r) : table.shareOfRevenue(r, s.evaluation->model());
        row.kind = Kind::Ratio;
        row.unit = QStringLiteral("%");
      }
      for (size_t c = from; c < figures.size(); ++c) {
        LedgerCell cell;
        cell.figure = figures[c];
        cell.ink = m.historyFiled && !changed ? Ink::Filed : Ink::Derived;
        row.cells.push_back(std::move(cell));
      }
      row.trend.assign(figures.begin() + static_cast<std::ptrdiff_t>(from), figures.end());
      rows.push_back(std::move(row));
    }
    if (rows.size() == heading + 1) rows.pop_back();
  }
  QStringList headers;
  for (size_t c = from; c < table.periods.size(); ++c)
    headers << text(table.periods[c]).remove(3, 2);  // "Q1 25": the century is known
  grid_->ledger().setFlagged({});
  grid_->ledger().setCorner(cornerOf(s));
  grid_->ledger().fill(headers, std::move(rows), true);
  grid_->viewport()->update();
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
  flagNote_->setToolTip(lines.join(QLatin1Char('\n')));
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
