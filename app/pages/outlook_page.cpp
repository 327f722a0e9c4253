#include "app/pages/outlook_page.h"

#include <QHBoxLayout>
#include <QSplitter>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "app/grid/ledger_rows.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/driver_evidence.h"

namespace zl::app {

OutlookPage::OutlookPage(Workbench& bench, QWidget* parent) : Page(bench, Stop::Outlook, parent) {
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  auto* splitter = new QSplitter(Qt::Horizontal, this);
  splitter->setChildrenCollapsible(false);
  splitter->addWidget(makeLeft());
  splitter->addWidget(makeRight());
  splitter->setStretchFactor(1, 1);
  splitter->setSizes({252, 680});
  layout->addWidget(splitter);
  connectBoard();
}

QWidget* OutlookPage::makeLeft() {
  auto* left = new QWidget(this);
  auto* layout = new QVBoxLayout(left);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  drivers_ = addGrid("drivers", tr("Drivers"));
  drivers_->setWidths(150, 48, 50);
  drivers_->setSelectionBehavior(QAbstractItemView::SelectRows);
  drivers_->setSelectionMode(QAbstractItemView::SingleSelection);
  drivers_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  layout->addWidget(drivers_, 5);
  layout->addWidget(sectionLabel(tr("Evidence (Enter adopts a figure)"), left));
  evidence_ = addGrid("evidence", tr("Evidence"));
  evidence_->setWidths(114, 60, 0);
  layout->addWidget(evidence_, 3);
  connect(drivers_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, [this](const QModelIndex& now) {
    if (filling_ || !now.isValid()) return;
    const LedgerRow& row = drivers_->ledger().ledgerRows()[static_cast<size_t>(now.row())];
    if (!row.heading && row.key != driver_) choose(row.key);
  });
  connect(evidence_, &LedgerView::rowActivated, this, &OutlookPage::adopt);
  return left;
}

QWidget* OutlookPage::makeRight() {
  auto* right = new QSplitter(Qt::Vertical, this);
  right->setChildrenCollapsible(false);
  auto* upper = new QWidget(right);
  auto* layout = new QVBoxLayout(upper);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  board_ = new PathBoard(upper);
  layout->addWidget(board_, 1);
  paths_ = addGrid("paths", tr("Paths by year"));
  paths_->setWidths(84, 60, 0);
  paths_->fitFigures(42);
  layout->addWidget(paths_);
  layout->addWidget(makeShapeBar());
  right->addWidget(upper);
  auto* lower = new QWidget(right);
  auto* lowerLayout = new QVBoxLayout(lower);
  lowerLayout->setContentsMargins(0, 0, 0, 0);
  lowerLayout->setSpacing(0);
  statementBox_ = new QComboBox(lower);
  statementBox_->setObjectName(QStringLiteral("statementBox"));
  statementBox_->setAccessibleName(tr("Projected rows shown"));
  for (const char* group : {"Income statement", "Balance sheet", "Cash flow statement", "Free cash flow",
                            "Capital employed", "Ratios", "Per share"}) {
    statementBox_->addItem(QString::fromLatin1(group));
  }
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 2, 8, 2);
  bar->addWidget(new QLabel(tr("Projected"), lower));
  bar->addWidget(statementBox_);
  bar->addStretch();
  lowerLayout->addLayout(bar);
  statements_ = addGrid("projected", tr("Projected statements"));
  statements_->setWidths(142, 64, 0);
  statements_->fitFigures(44);
  lowerLayout->addWidget(statements_, 1);
  right->addWidget(lower);
  right->setStretchFactor(0, 3);
  right->setStretchFactor(1, 2);
  right->setSizes({420, 240});
  connect(statementBox_, &QComboBox::currentIndexChanged, this, [this] {
    if (bench_.isOpen()) refreshStatements();
  });
  connect(&paths_->ledger(), &LedgerModel::typed, this, [this](int row, int column, const QString& typed) {
    if (const auto figure = typedOrSay(typed, paths_->ledger().ledgerRows()[static_cast<size_t>(row)])) {
      typeDriver(driver_, row, {{column, *figure}});
    }
  });
  connect(paths_, &LedgerView::pasted, this, [this](int row, int column, const QList<QStringList>& cells) {
    // One row of years at a time: what is pasted into a scenario is one edit.
    std::map<int, double> years;
    const int count = static_cast<int>(forecastOf(now(), 0).size());
    for (int i = 0; i < cells.first().size() && column + i < count; ++i) {
      if (cells.first()[i].trimmed().isEmpty()) continue;
      const auto figure = typedOrSay(cells.first()[i], paths_->ledger().ledgerRows()[static_cast<size_t>(row)]);
      if (!figure) return;
      years[column + i] = *figure;
    }
    if (!years.empty() && column >= 0) typeDriver(driver_, row, years);
  });
  connect(paths_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, [this](const QModelIndex& index) {
    if (!filling_ && index.isValid()) bench_.setScenario(index.row());
  });
  return right;
}

QWidget* OutlookPage::makeShapeBar() {
  auto* bar = new QWidget(this);
  auto* rows = new QVBoxLayout(bar);
  rows->setContentsMargins(8, 2, 8, 2);
  rows->setSpacing(3);
  auto* line = new QHBoxLayout;
  rows->addLayout(line);
  const auto label = [&](const QString& words, QWidget* buddy) {
    auto* l = new QLabel(words, bar);
    l->setBuddy(buddy);
    line->addWidget(l);
    line->addWidget(buddy);
    return l;
  };
  scenarioBox_ = new QComboBox(bar);
  scenarioBox_->setObjectName(QStringLiteral("scenarioBox"));
  label(tr("S&cenario"), scenarioBox_);
  shapeBox_ = new QComboBox(bar);
  shapeBox_->setObjectName(QStringLiteral("shapeBox"));
  for (Shape shape : {Shape::Hold, Shape::Typed, Shape::Glide, Shape::Fade}) {
    shapeBox_->addItem(QString::fromLatin1(shapeWord(shape)), static_cast<int>(shape));
  }
  label(tr("S&hape"), shapeBox_);
  level_ = new QLineEdit(bar);
  level_->setObjectName(QStringLiteral("level"));
  level_->setMaximumWidth(70);
  level_->setPlaceholderText(tr("last"));
  level_->setAlignment(Qt::AlignRight);
  levelLabel_ = label(tr("&Level"), level_);
  from_ = new QSpinBox(bar);
  from_->setObjectName(QStringLiteral("fromYear"));
  fromLabel_ = label(tr("&from year"), from_);
  to_ = new QSpinBox(bar);
  to_->setObjectName(QStringLiteral("toYear"));
  toLabel_ = label(tr("&to year"), to_);
  halfLife_ = new QDoubleSpinBox(bar);
  halfLife_->setObjectName(QStringLiteral("halfLife"));
  halfLife_->setRange(0.1, 50);
  halfLife_->setDecimals(1);
  halfLife_->setSuffix(tr(" y"));
  halfLabel_ = label(tr("h&alf-life"), halfLife_);
  // They appear with the shapes that use them; all at once they would widen the window.
  for (QWidget* w : std::initializer_list<QWidget*>{from_, fromLabel_, to_, toLabel_, halfLife_, halfLabel_}) w->hide();
  line->addStretch();
  reset_ = new QPushButton(bar);
  reset_->setObjectName(QStringLiteral("resetDriver"));
  line->addWidget(reset_);
  auto* second = new QHBoxLayout;
  rows->addLayout(second);
  auto* why = new QLabel(tr("&Reason"), bar);
  reason_ = new QLineEdit(bar);
  reason_->setObjectName(QStringLiteral("reason"));
  reason_->setPlaceholderText(tr("Why this path? A driver without a reason stays marked."));
  why->setBuddy(reason_);
  second->addWidget(why);
  second->addWidget(reason_, 1);
  connect(scenarioBox_, &QComboBox::activated, this, [this](int index) { bench_.setScenario(index); });
  connect(shapeBox_, &QComboBox::activated, this, [this] { applyShape(); });
  connect(level_, &QLineEdit::editingFinished, this, [this] {
    if (level_->isModified()) applyShape();
  });
  for (QSpinBox* box : {from_, to_}) {
    box->setKeyboardTracking(false);
    connect(box, &QSpinBox::valueChanged, this, [this] {
      if (!filling_) applyShape();
    });
  }
  halfLife_->setKeyboardTracking(false);
  connect(halfLife_, &QDoubleSpinBox::valueChanged, this, [this] {
    if (!filling_) applyShape();
  });
  connect(reason_, &QLineEdit::editingFinished, this, [this] {
    if (!reason_->isModified()) return;
    reason_->setModified(false);
    bench_.apply(services::setReason(bench_.settled().caseOf(), now().evaluation->model(), bench_.scenarioId(),
                                     driver_.toStdString(), bench_.saidNow(reason_->text())));
  });
  connect(reset_, &QPushButton::clicked, this, [this] {
    bench_.apply(services::clearDriver(bench_.settled().caseOf(), now().evaluation->model(), bench_.scenarioId(),
                                       driver_.toStdString()));
  });
  return bar;
}

void OutlookPage::connectBoard() {
  connect(board_, &PathBoard::dragging, this, [this](int year, double figure) { drag(year, figure, false); });
  connect(board_, &PathBoard::dropped, this, [this](int year, double figure) { drag(year, figure, true); });
  connect(board_, &PathBoard::cancelled, &bench_, &Workbench::endPreview);
  connect(board_, &PathBoard::pathChosen, this, [this](int path) { bench_.setScenario(path); });
}

int OutlookPage::driverIndex() const {
  return now().evaluation->model().find(driver_.toStdString());
}

std::vector<Figure> OutlookPage::forecastOf(const services::Snapshot& s, int scenario) const {
  return trendOf(s, driverIndex(), s.evaluation->layout().historyYears, s.evaluation->layout().columns(), scenario);
}

void OutlookPage::drag(int year, double figure, bool drop) {
  if (drop) {
    typeDriver(driver_, bench_.scenario(), {{year, figure}});
    return;
  }
  const services::Snapshot& s = bench_.settled();
  bench_.preview(services::typeDriverYears(s.caseOf(), s.evaluation->model(), bench_.scenarioId(),
                                           driver_.toStdString(), forecastOf(s, bench_.scenario()), {{year, figure}},
                                           bench_.saidNow({})));
}

void OutlookPage::choose(const QString& driver) {
  const int index = now().evaluation->model().find(driver.toStdString());
  if (index < 0 || now().evaluation->model().rows[static_cast<size_t>(index)].role != model::Role::Driver) return;
  driver_ = driver;
  bench_.focus({index, now().evaluation->layout().historyYears}, bench_.scenario());
  if (isVisible()) refresh();
}

void OutlookPage::refresh() {
  filling_ = true;
  refreshDrivers();
  refreshBoard();
  refreshPaths();
  refreshEvidence();
  refreshShape();
  refreshStatements();
  filling_ = false;
}

void OutlookPage::refreshDrivers() {
  const services::Snapshot& s = now();
  const model::Model& m = s.evaluation->model();
  std::vector<LedgerRow> rows;
  QString group;
  int current = 0;
  for (size_t r = 0; r < m.rows.size(); ++r) {
    const model::Row& row = m.rows[r];
    if (row.role != model::Role::Driver) continue;
    if (text(row.group) != group) {
      group = text(row.group);
      rows.push_back(headingRow(group));
    }
    const int columns = s.evaluation->layout().columns();
    LedgerRow out = yearRow(s, static_cast<int>(r), columns - 1, columns, bench_.scenario());
    out.unit.clear();
    out.label = out.label.section(QLatin1Char(','), 0, 0);  // the board shows the full name
    out.cells[0].editable = false;
    const Assumption* a = s.caseOf().driver(s.caseOf().scenarios[static_cast<size_t>(bench_.scenario())], row.name);
    if (a != nullptr && a->said.reason.empty()) out.label += QStringLiteral(" ?");
    out.trend = trendOf(s, static_cast<int>(r), 0, columns, bench_.scenario());
    if (out.key == driver_) current = static_cast<int>(rows.size());
    rows.push_back(std::move(out));
  }
  drivers_->ledger().fill({text(s.periodOf(s.evaluation->layout().columns() - 1))}, std::move(rows), true);
  if (drivers_->currentIndex().row() != current) drivers_->setCurrentIndex(drivers_->ledger().index(current, 0));
}

void OutlookPage::refreshBoard() {
  const services::Snapshot& s = now();
  const model::Row& row = s.evaluation->model().rows[static_cast<size_t>(driverIndex())];
  const services::DriverEvidence e = services::evidenceOf(s, driverIndex(), bench_.scenario());
  BoardContent content;
  content.title = text(row.label);
  content.unit = unitOf(s, row.kind);
  content.kind = row.kind;
  content.periods = periodHeaders(s, 0, s.evaluation->layout().columns());
  content.history = e.history;
  content.exceptional = services::exceptionalColumns(s);
  content.spread = e.spread;
  content.chosen = bench_.scenario();
  if (row.range) {
    content.low = row.range->low;
    content.high = row.range->high;
  }
  for (int i = 0; i < s.evaluation->scenarios(); ++i) {
    const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(i)];
    BoardPath path;
    path.scenario = text(sc.id);
    path.label = text(sc.label);
    path.figures = forecastOf(s, i);
    if (bench_.isPreviewing()) path.ghost = forecastOf(bench_.settled(), i);
    path.inherited = sc.id != kBase && sc.drivers.count(row.name) == 0;
    content.paths.push_back(std::move(path));
  }
  board_->setContent(std::move(content));
}

void OutlookPage::refreshPaths() {
  const services::Snapshot& s = now();
  const int from = s.evaluation->layout().historyYears;
  const int to = s.evaluation->layout().columns();
  std::vector<LedgerRow> rows;
  for (int i = 0; i < s.evaluation->scenarios(); ++i) {
    const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(i)];
    LedgerRow row = yearRow(s, driverIndex(), from, to, i);
    row.label = text(sc.label);
    row.scenario = text(sc.id);
    row.unit.clear();
    for (LedgerCell& cell : row.cells) cell.quiet = sc.drivers.count(driver_.toStdString()) == 0;
    rows.push_back(std::move(row));
  }
  paths_->ledger().fill(periodHeaders(s, from, to), std::move(rows));
  paths_->showAll();
}

void OutlookPage::refreshEvidence() {
  const services::Snapshot& s = now();
  const model::Row& driver = s.evaluation->model().rows[static_cast<size_t>(driverIndex())];
  const services::DriverEvidence e = services::evidenceOf(s, driverIndex(), bench_.scenario());
  std::vector<LedgerRow> rows;
  const auto add = [&](const QString& label, const Figure& all, const Figure& regular, int n, int nRegular) {
    LedgerRow row;
    row.label = label;
    row.kind = driver.kind;
    for (const auto& [figure, count] : {std::pair(all, n), std::pair(regular, nRegular)}) {
      LedgerCell cell;
      cell.figure = figure;
      cell.ink = Ink::Derived;
      cell.tip = counted(count, tr("year counted"), tr("years counted"));
      row.cells.push_back(std::move(cell));
    }
    rows.push_back(std::move(row));
  };
  for (const services::EvidenceWindow& w : e.windows) {
    add(tr("median %1 years").arg(w.years), w.all.median, w.regular.median, w.all.count, w.regular.count);
    add(tr("mean %1 years").arg(w.years), w.all.mean, w.regular.mean, w.all.count, w.regular.count);
  }
  const services::EvidenceWindow& longest = e.windows.back();
  add(tr("low"), longest.all.low, longest.regular.low, longest.all.count, longest.regular.count);
  add(tr("high"), longest.all.high, longest.regular.high, longest.all.count, longest.regular.count);
  const int base = s.evaluation->layout().baseColumn();
  LedgerRow last;
  last.label = tr("last actual, %1").arg(text(s.periodOf(base)));
  last.kind = driver.kind;
  LedgerCell cell;
  cell.figure = s.history->at(driverIndex(), base);
  cell.ink = Ink::Filed;
  last.cells.push_back(cell);
  rows.push_back(std::move(last));
  LedgerRow rank;
  rank.label = tr("last year's choice ranks at");
  rank.kind = Kind::Ratio;
  LedgerCell percentile;
  percentile.figure = e.percentile;
  percentile.tip = tr("Share of the counted history at or below the last forecast year's figure, in per cent");
  rank.cells = {LedgerCell{}, percentile};
  rank.cells[0].words = QString();
  rows.push_back(std::move(rank));
  const int flagged = static_cast<int>(std::count(e.exceptional.begin(), e.exceptional.end(), true));
  evidence_->ledger().fill({tr("all"), flagged > 0 ? tr("less ▨ %1").arg(flagged) : tr("regular")}, std::move(rows));
}

void OutlookPage::refreshShape() {
  const services::Snapshot& s = now();
  const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(bench_.scenario())];
  const model::Row& row = s.evaluation->model().rows[static_cast<size_t>(driverIndex())];
  if (scenarioBox_->count() != s.evaluation->scenarios()) {
    scenarioBox_->clear();
    scenarioBox_->addItems(scenarioHeaders(s));
  }
  scenarioBox_->setCurrentIndex(bench_.scenario());
  const Assumption* a = s.caseOf().driver(sc, row.name);
  Path path = a != nullptr ? a->path : Path{};
  const Figure last = s.history->at(driverIndex(), s.evaluation->layout().baseColumn());
  if (a == nullptr && row.preset && !(row.preset->last && last.hasValue())) path.level = row.preset->level;
  const int horizon = s.caseOf().horizon;
  shapeBox_->setCurrentIndex(static_cast<int>(path.shape));
  level_->setText(path.level ? text(plainNumber(std::round(*path.level / shownScale(row.kind) * 1e6) / 1e6))
                             : QString());
  level_->setModified(false);
  levelLabel_->setText(tr("&Level %1").arg(unitOf(s, row.kind)));
  from_->setRange(0, path.shape == Shape::Glide ? horizon - 1 : horizon);
  to_->setRange(0, horizon);
  to_->setSpecialValueText(tr("last"));
  from_->setValue(path.from);
  to_->setValue(path.to);
  halfLife_->setValue(path.halfLife);
  const bool glide = path.shape == Shape::Glide;
  const bool fade = path.shape == Shape::Fade;
  for (QWidget* w : {static_cast<QWidget*>(from_), static_cast<QWidget*>(fromLabel_)}) w->setVisible(glide || fade);
  for (QWidget* w : {static_cast<QWidget*>(to_), static_cast<QWidget*>(toLabel_)}) w->setVisible(glide);
  for (QWidget* w : {static_cast<QWidget*>(halfLife_), static_cast<QWidget*>(halfLabel_)}) w->setVisible(fade);
  for (QWidget* w : {static_cast<QWidget*>(level_), static_cast<QWidget*>(levelLabel_)})
    w->setVisible(path.shape != Shape::Typed);
  const bool own = sc.drivers.count(row.name) > 0;
  reset_->setText(sc.id == kBase ? tr("Model's preset") : tr("Follow base"));
  reset_->setEnabled(own);
  if (!reason_->hasFocus()) {
    reason_->setText(a != nullptr ? text(a->said.reason) : QString());
    reason_->setModified(false);
    reason_->setCursorPosition(0);
  }
  reason_->setToolTip(a == nullptr ? tr("Nobody has decided on this driver yet")
                                   : tr("%1, %2").arg(text(a->said.author), text(a->said.at)));
}

void OutlookPage::applyShape() {
  const services::Snapshot& s = bench_.settled();
  const model::Row& row = s.evaluation->model().rows[static_cast<size_t>(driverIndex())];
  const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(bench_.scenario())];
  const std::vector<Figure> current = forecastOf(s, bench_.scenario());
  Path path;
  path.shape = static_cast<Shape>(shapeBox_->currentData().toInt());
  if (path.shape == Shape::Typed) {
    for (const Figure& f : current) path.typed.push_back(f.hasValue() ? std::optional(f.value()) : std::nullopt);
  } else {
    if (!level_->text().trimmed().isEmpty()) {
      LedgerRow spoken;
      spoken.label = text(row.label);
      spoken.kind = row.kind;
      const std::optional<double> level = typedOrSay(level_->text(), spoken);
      if (!level) return refreshShape();
      path.level = level;
    } else if (path.shape != Shape::Hold && current.back().hasValue()) {
      path.level = current.back().value();  // shaping starts from where the path already ends
    }
    path.halfLife = halfLife_->value();
    path.from = path.shape == Shape::Hold ? 0 : from_->value();
    if (path.shape == Shape::Fade && path.from == 0) path.from = 1;
    if (path.shape == Shape::Glide) path.to = to_->value() > path.from ? to_->value() : 0;
  }
  const Assumption* before = s.caseOf().driver(sc, row.name);
  bench_.apply(services::setDriver(s.caseOf(), s.evaluation->model(), sc.id, row.name, path,
                                   bench_.saidNow(before != nullptr ? text(before->said.reason) : QString())));
}

void OutlookPage::adopt(int row, int column) {
  const LedgerRow& line = evidence_->ledger().ledgerRows()[static_cast<size_t>(row)];
  if (column < 0 || column >= static_cast<int>(line.cells.size())) return;
  const Figure& figure = line.cells[static_cast<size_t>(column)].figure;
  if (!figure.hasValue() || row + 1 == evidence_->ledger().rowCount()) return;
  const services::Snapshot& s = bench_.settled();
  const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(bench_.scenario())];
  Path path;
  if (const Assumption* a = s.caseOf().driver(sc, driver_.toStdString());
      a != nullptr && a->path.shape != Shape::Typed) {
    path = a->path;
  }
  path.level = figure.value();
  const QString reason = tr("Adopted: %1%2, %3")
                             .arg(line.label, column == 1 ? tr(" without exceptional years") : QString(),
                                  text(figureText(figure, line.kind)));
  bench_.apply(services::setDriver(s.caseOf(), s.evaluation->model(), sc.id, driver_.toStdString(), path,
                                   bench_.saidNow(reason)));
}

void OutlookPage::refreshStatements() {
  const services::Snapshot& s = now();
  const int from = s.evaluation->layout().baseColumn();
  const int to = s.evaluation->layout().columns();
  std::vector<LedgerRow> rows;
  for (int row : groupRows(s, statementBox_->currentText().toLatin1().constData())) {
    rows.push_back(yearRow(s, row, from, to, bench_.scenario()));
  }
  statements_->ledger().setCorner(cornerOf(s));
  statements_->ledger().fill(periodHeaders(s, from, to), std::move(rows));
}

}  // namespace zl::app
