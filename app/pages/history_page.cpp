#include "app/pages/history_page.h"
#include "app/bench/draft_field.h"

#include <QHBoxLayout>
#include <QSplitter>
#include <QVBoxLayout>

#include "app/look/amounts.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {
namespace {

QComboBox* choiceOf(const char* name, const QString& accessible, QWidget* parent) {
  auto* box = new QComboBox(parent);
  box->setObjectName(QString::fromLatin1(name));
  box->setAccessibleName(accessible);
  return box;
}

QLineEdit* reasonOf(const char* name, const QString& asks, QWidget* parent) {
  auto* line = new QLineEdit(parent);
  line->setObjectName(QString::fromLatin1(name));
  line->setPlaceholderText(asks);
  line->setAccessibleName(asks);
  return line;
}

QPushButton* buttonOf(const char* name, const QString& words, QWidget* parent) {
  auto* button = new QPushButton(words, parent);
  button->setObjectName(QString::fromLatin1(name));
  return button;
}

QHBoxLayout* barLayout(QWidget* bar) {
  auto* layout = new QHBoxLayout(bar);
  layout->setContentsMargins(8, 0, 8, 0);
  return layout;
}

void fillYears(QComboBox* box, const std::vector<FiscalYear>& years, int chosen) {
  if (box->count() == static_cast<int>(years.size())) return;
  const QSignalBlocker quiet(box);
  box->clear();
  for (auto year = years.rbegin(); year != years.rend(); ++year)
    box->addItem(QString::number(year->label()), year->label());
  box->setCurrentIndex(std::min(chosen, box->count() - 1));
}

}  // namespace

HistoryPage::HistoryPage(Workbench& bench, QWidget* parent) : Page(bench, Stop::History, parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 4, 0, 0);
  layout->setSpacing(3);
  bars_ = new QStackedWidget(this);
  bars_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  bars_->addWidget(makeFlagBar());
  bars_->addWidget(makeWindowBar());
  QHBoxLayout* controls = makeChoiceBar();
  controls->addWidget(bars_, 1);
  layout->addLayout(controls);
  adjustBar_ = makeAdjustBar();
  layout->addWidget(adjustBar_);
  flagNote_ = new PlainLabel(this);
  flagNote_->setContentsMargins(8, 0, 8, 0);
  flagNote_->setWordWrap(true);
  layout->addWidget(flagNote_);
  auto* halves = new QSplitter(Qt::Vertical, this);
  halves->setObjectName(QStringLiteral("historyHalves"));
  grid_ = addGrid("history", tr("Filed history"));
  grid_->setWidths(62, 64);
  halves->addWidget(grid_);
  charts_ = new ChartPanel(bench, halves);
  halves->addWidget(charts_);
  keepAbove(charts_->board(), grid_, [this](std::vector<double> middles, double from) {
    // Columns that are scrolled away have no place on the board: then it is spread.
    const bool whole = !middles.empty() && middles.front() > from && middles.back() < charts_->board()->width();
    charts_->board()->setMiddles(whole ? std::move(middles) : std::vector<double>());
  });
  halves->setStretchFactor(0, 3);
  halves->setStretchFactor(1, 1);
  halves->setSizes({390, 220});
  layout->addWidget(halves, 1);
  for (QComboBox* choice : {show_, basis_, reading_}) {
    connect(choice, &QComboBox::currentIndexChanged, this, [this] {
      if (bench_.isOpen()) refresh();
    });
  }
  connect(grid_, &LedgerView::rowActivated, this, [this](int row, int) {
    const QString key = grid_->ledger().ledgerRows()[static_cast<size_t>(row)].key;
    if (!key.isEmpty()) charts_->toggle(key.toStdString());
  });
  connect(&grid_->ledger(), &LedgerModel::typed, this, &HistoryPage::adjustTo);
  connect(grid_, &LedgerView::cellFocused, this, [this] { refreshAdjustBar(); });
}

QHBoxLayout* HistoryPage::makeChoiceBar() {
  show_ = choiceOf("historyShow", tr("What is shown"), this);
  const std::pair<HistoryShow, QString> shows[] = {{HistoryShow::Amounts, tr("amounts")},
                                                   {HistoryShow::Growth, tr("growth")},
                                                   {HistoryShow::GrowthTwoYears, tr("growth over 2 years")},
                                                   {HistoryShow::Change, tr("change")},
                                                   {HistoryShow::ShareOfRevenue, tr("share of revenue")},
                                                   {HistoryShow::PerShare, tr("per share")},
                                                   {HistoryShow::Trends, tr("trends and averages")},
                                                   {HistoryShow::UsesOfCash, tr("uses of cash")},
                                                   {HistoryShow::ProfitWalk, tr("what moved profit")},
                                                   {HistoryShow::Quality, tr("quality review")}};
  for (const auto& [show, words] : shows) show_->addItem(words, static_cast<int>(show));
  basis_ = choiceOf("historyBasis", tr("Periods"), this);
  basis_->addItem(tr("years"), -1);
  basis_->addItem(tr("quarters"), static_cast<int>(services::Basis::Quarters));
  basis_->addItem(tr("trailing 12 months"), static_cast<int>(services::Basis::Trailing));
  reading_ = choiceOf("historyReading", tr("Reading"), this);
  reading_->addItem(tr("adjusted"), static_cast<int>(services::Reading::Adjusted));
  reading_->addItem(tr("as filed"), static_cast<int>(services::Reading::AsFiled));
  auto* label = new PlainLabel(tr("&Show"), this);
  label->setBuddy(show_);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 0, 8, 0);
  for (QWidget* w : {static_cast<QWidget*>(label), static_cast<QWidget*>(show_), static_cast<QWidget*>(basis_),
                     static_cast<QWidget*>(reading_)}) {
    bar->addWidget(w);
  }
  return bar;
}

QWidget* HistoryPage::makeFlagBar() {
  auto* bar = new QWidget(this);
  auto* layout = barLayout(bar);
  yearBox_ = choiceOf("flagYear", tr("Exceptional year"), bar);
  auto* label = new PlainLabel(tr("E&xceptional year"), bar);
  label->setBuddy(yearBox_);
  flagReason_ = reasonOf("flagReason", tr("What was exceptional about it?"), bar);
  keepAsDraftOf(bench_, flagReason_, [this] { return flagKey(); });
  flag_ = buttonOf("flag", tr("Flag"), bar);
  layout->addWidget(label);
  layout->addWidget(yearBox_);
  layout->addWidget(flagReason_, 1);
  layout->addWidget(flag_);
  connect(yearBox_, &QComboBox::currentIndexChanged, this, [this] {
    if (bench_.isOpen()) refreshFlagBar();
  });
  connect(flag_, &QPushButton::clicked, this, &HistoryPage::toggleFlag);
  connect(flagReason_, &QLineEdit::returnPressed, this, &HistoryPage::toggleFlag);
  return bar;
}

QWidget* HistoryPage::makeWindowBar() {
  auto* bar = new QWidget(this);
  auto* layout = barLayout(bar);
  fromYear_ = choiceOf("windowFrom", tr("Window from"), bar);
  toYear_ = choiceOf("windowTo", tr("Window to"), bar);
  auto* label = new PlainLabel(tr("&Window"), bar);
  label->setBuddy(fromYear_);
  windowReason_ = reasonOf("windowReason", tr("Why these years?"), bar);
  keepAsDraftOf(bench_, windowReason_, [this] { return windowKey(); });
  keepWindow_ = buttonOf("keepWindow", tr("Keep"), bar);
  layout->addWidget(label);
  layout->addWidget(fromYear_);
  layout->addWidget(new PlainLabel(tr("to"), bar));
  layout->addWidget(toYear_);
  layout->addWidget(windowReason_, 1);
  layout->addWidget(keepWindow_);
  for (QComboBox* box : {fromYear_, toYear_}) {
    connect(box, &QComboBox::currentIndexChanged, this, [this] {
      if (bench_.isOpen()) refreshWindowBar();
    });
  }
  connect(keepWindow_, &QPushButton::clicked, this, &HistoryPage::toggleWindow);
  connect(windowReason_, &QLineEdit::returnPressed, this, &HistoryPage::toggleWindow);
  return bar;
}

QWidget* HistoryPage::makeAdjustBar() {
  auto* bar = new QWidget(this);
  auto* layout = barLayout(bar);
  adjustLabel_ = new PlainLabel(bar);
  adjustLabel_->setObjectName(QStringLiteral("adjustLabel"));
  adjustTo_ = reasonOf("adjustTo", tr("to"), bar);
  adjustTo_->setAccessibleName(tr("Adjusted figure"));
  adjustTo_->setFixedWidth(84);
  adjustReason_ = reasonOf("adjustReason", tr("Why is the filed figure not the normal one?"), bar);
  keepAsDraftOf(bench_, adjustTo_, [this] { return adjustKey(QStringLiteral("to")); });
  keepAsDraftOf(bench_, adjustReason_, [this] { return adjustKey(QStringLiteral("reason")); });
  adjust_ = buttonOf("adjust", tr("Adjust"), bar);
  takeBack_ = buttonOf("takeBack", tr("As filed"), bar);
  layout->addWidget(adjustLabel_);
  layout->addWidget(adjustTo_);
  layout->addWidget(adjustReason_, 1);
  layout->addWidget(adjust_);
  layout->addWidget(takeBack_);
  connect(adjust_, &QPushButton::clicked, this, [this] { adjust(false); });
  connect(adjustReason_, &QLineEdit::returnPressed, this, [this] { adjust(false); });
  connect(adjustTo_, &QLineEdit::returnPressed, adjustReason_, qOverload<>(&QWidget::setFocus));
  connect(takeBack_, &QPushButton::clicked, this, [this] { adjust(true); });
  return bar;
}

HistoryShow HistoryPage::show() const {
  return static_cast<HistoryShow>(show_->currentData().toInt());
}

services::Reading HistoryPage::reading() const {
  return static_cast<services::Reading>(reading_->currentData().toInt());
}

void HistoryPage::refresh() {
  const auto& years = now().years();
  fillYears(yearBox_, years, 0);
  fillYears(fromYear_, years, 5);
  fillYears(toYear_, years, 0);
  basis_->setEnabled(isByPeriod(show()));
  reading_->setEnabled(isYearly() && show() != HistoryShow::UsesOfCash);
  bars_->setCurrentIndex(show() == HistoryShow::Trends || show() == HistoryShow::UsesOfCash ? 1 : 0);
  refreshGrid();
  refreshFlagBar();
  refreshWindowBar();
  refreshAdjustBar();
  charts_->refresh(reading());
}

void HistoryPage::refreshGrid() {
  const services::Snapshot& s = now();
  HistoryGrid shown =
      isYearly() || !isByPeriod(show())
          ? historyGrid(s, show(), reading(), bench_.scenario())
          : interimGrid(s, show(), static_cast<services::Basis>(basis_->currentData().toInt()), bench_.scenario());
  if (shown.headers.isEmpty()) {
    bench_.say(tr("No interim report is in the book. Import quarterly or half-yearly reports on Filings"));
  }
  tests_ = std::move(shown.tests);
  tests_.resize(shown.rows.size());
  grid_->ledger().setTrendTitle(show() == HistoryShow::Quality ? tr("scale") : tr("trend"));
  grid_->setColumns(show() == HistoryShow::Quality ? std::vector<int>{56, 52, 66, 56, 40, 54, 56, 50, 36, 110}
                                                   : std::vector<int>{});
  grid_->ledger().setFlagged(std::move(shown.flagged));
  grid_->ledger().setCorner(shown.corner.isEmpty() ? cornerOf(s) : shown.corner);
  grid_->ledger().fill(shown.headers, std::move(shown.rows), shown.trend);
  grid_->viewport()->update();
}

void HistoryPage::refreshFlagBar() {
  const Case& c = now().caseOf();
  const auto found = c.exceptional.find(yearBox_->currentData().toInt());
  const bool flagged = found != c.exceptional.end();
  flag_->setText(flagged ? tr("Unflag") : tr("Flag"));
  if (flagged) {
    flagReason_->setText(text(found->second));
  } else if (!flagReason_->hasFocus()) {
    showDraftOr(bench_, flagReason_, flagKey(), {});
  }
  flagReason_->setCursorPosition(0);
  flagReason_->setReadOnly(flagged);
  QStringList lines;
  for (const auto& [year, reason] : c.exceptional) lines << QStringLiteral("⚑ %1: %2").arg(year).arg(text(reason));
  flagNote_->setText(lines.isEmpty() ? tr("No year is flagged; averages use every year.")
                                     : lines.join(QStringLiteral("     ")));
}

void HistoryPage::refreshWindowBar() {
  const int from = fromYear_->currentData().toInt();
  const int to = toYear_->currentData().toInt();
  const HistoryWindow* kept = nullptr;
  for (const HistoryWindow& w : now().caseOf().windows) {
    if (w.from == from && w.to == to) kept = &w;
  }
  keepWindow_->setText(kept != nullptr ? tr("Drop") : tr("Keep"));
  windowReason_->setReadOnly(kept != nullptr);
  if (kept != nullptr) {
    windowReason_->setText(text(kept->reason));
  } else if (!windowReason_->hasFocus()) {
    showDraftOr(bench_, windowReason_, windowKey(), {});
  }
}

model::Cell HistoryPage::adjustable() const {
  const LedgerCell* cell = grid_->ledger().cellAt(grid_->currentIndex());
  if (show() == HistoryShow::Quality || cell == nullptr || !cell->editable || !cell->source) return {};
  return *cell->source;
}

void HistoryPage::refreshAdjustBar() {
  const model::Cell at = adjustable();
  adjustBar_->setVisible(at.row.known());
  flagNote_->setVisible(!at.row.known());
  if (!at.row.known()) return;
  const services::Snapshot& s = now();
  const model::Row& row = s.evaluation->model()[at.row];
  const int year = s.years()[static_cast<size_t>(at.column)].label();
  const Figure filed = s.asFiled->at(at.row, at.column);
  const auto own = s.caseOf().adjustments.find({row.name, year});
  const bool adjusted = own != s.caseOf().adjustments.end();
  adjustLabel_->setText(tr("%1 %2, filed %3").arg(text(row.label)).arg(year).arg(shownText(filed, row.kind)));
  takeBack_->setEnabled(adjusted);
  if (adjustTo_->hasFocus() || adjustReason_->hasFocus()) return;
  showDraftOr(bench_, adjustTo_, adjustKey(QStringLiteral("to")),
              adjusted ? shownText(s.history->at(at.row, at.column), row.kind) : QString());
  showDraftOr(bench_, adjustReason_, adjustKey(QStringLiteral("reason")),
              adjusted ? text(own->second.said.reason) : QString());
}

QString HistoryPage::flagKey() const {
  return QStringLiteral("flag/") + yearBox_->currentText();
}

QString HistoryPage::windowKey() const {
  return QStringLiteral("window/%1-%2").arg(fromYear_->currentText(), toYear_->currentText());
}

/// Of the cell under the cursor.
QString HistoryPage::adjustKey(const QString& part) const {
  const model::Cell at = adjustable();
  if (!at.row.known()) return {};
  const services::Snapshot& s = now();
  return QStringLiteral("adjust %1/%2/%3")
      .arg(part, text(s.evaluation->model()[at.row].name))
      .arg(s.years()[static_cast<size_t>(at.column)].label());
}

void HistoryPage::changeTest(int row, int column, const QString& typed) {
  constexpr int kThreshold = 2, kExempt = 9;
  const std::string& name = tests_[static_cast<size_t>(row)];
  const Case& c = bench_.settled().caseOf();
  const auto own = c.tests.find(name);
  TestChoice choice = own == c.tests.end() ? TestChoice{} : own->second;
  if (column == kThreshold && typed.trimmed().isEmpty()) {
    choice.threshold.reset();  // the shipped one again
  } else if (column == kThreshold) {
    choice.threshold = typedOrSay(typed, grid_->ledger().ledgerRows()[static_cast<size_t>(row)]);
    if (!choice.threshold) return;
  } else if (column == kExempt) {
    choice.exempt = typed.trimmed().toStdString();
  }
  const bool asShipped = choice == TestChoice{};
  bench_.apply(services::setTest(c, name, grid_->ledger().ledgerRows()[static_cast<size_t>(row)].label.toStdString(),
                                 asShipped ? std::nullopt : std::optional(choice)));
}

void HistoryPage::adjustTo(int row, int column, const QString& typed) {
  if (show() == HistoryShow::Quality) {
    changeTest(row, column, typed);
    return;
  }
  // The figure waits for its reason: nothing is kept that says no why.
  refreshAdjustBar();
  adjustTo_->setText(typed);
  bench_.keepDraft(adjustKey(QStringLiteral("to")), typed);
  adjustReason_->setFocus();
  bench_.say(tr("Write why, then Enter; the filed figure stays beside the adjusted one"));
}

void HistoryPage::adjust(bool takeBack) {
  const model::Cell at = adjustable();
  if (!at.row.known()) return;
  const services::Snapshot& s = bench_.settled();
  const model::Model& m = s.evaluation->model();
  const model::Row& row = m[at.row];
  const int year = s.years()[static_cast<size_t>(at.column)].label();
  const double filed = s.asFiled->at(at.row, at.column).value();
  std::optional<double> figure;
  if (!takeBack) {
    figure =
        typedOrSay(adjustTo_->text(), grid_->ledger().ledgerRows()[static_cast<size_t>(grid_->currentIndex().row())]);
    if (!figure) {
      adjustTo_->setFocus();
      return;
    }
    if (adjustReason_->text().trimmed().isEmpty()) {
      bench_.say(tr("An adjustment needs its reason; write why %1 is not normal in %2").arg(text(row.label)).arg(year),
                 true);
      adjustReason_->setFocus();
      return;
    }
  }
  const Provenance said = bench_.saidNow(adjustReason_->text().trimmed());
  const QString keys[] = {adjustKey(QStringLiteral("to")), adjustKey(QStringLiteral("reason"))};
  grid_->setFocus();
  if (!bench_.apply(services::setAdjustment(s.caseOf(), m, row.name, year, filed, figure, said))) return;
  for (const QString& key : keys) bench_.keepDraft(key, {});
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
  const QString key = flagKey();
  if (bench_.apply(services::setExceptional(c, year, reason.toStdString()))) bench_.keepDraft(key, {});
}

void HistoryPage::toggleWindow() {
  const int from = fromYear_->currentData().toInt();
  const int to = toYear_->currentData().toInt();
  const Case& c = bench_.settled().caseOf();
  for (const HistoryWindow& w : c.windows) {
    if (w.from != from || w.to != to) continue;
    bench_.apply(services::dropWindow(c, from, to));
    return;
  }
  const QString reason = windowReason_->text().trimmed();
  if (reason.isEmpty()) {
    bench_.say(tr("A window needs its reason; write why %1 to %2 say more than other years").arg(from).arg(to), true);
    windowReason_->setFocus();
    return;
  }
  const QString key = windowKey();
  if (bench_.apply(services::keepWindow(c, {from, to, reason.toStdString()}))) bench_.keepDraft(key, {});
}

}  // namespace zl::app
