#include "app/pages/outlook_page.h"

#include <QHBoxLayout>
#include <QRegularExpression>
#include <QSplitter>
#include <QStandardItemModel>
#include <QStyle>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/views/driver_evidence.h"

namespace zl::app {
namespace {
constexpr int kHistoryRoom = 230;   // beside the paths by year, above which the board draws history
constexpr int kOwnRowsShown = 100;  // among the data of the box, which are OutlookTables::Show else
}  // namespace

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
  connectShapeBar();
}

QWidget* OutlookPage::makeLeft() {
  auto* left = new QWidget(this);
  auto* layout = new QVBoxLayout(left);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  drivers_ = addGrid("drivers", tr("Drivers"));
  drivers_->setWidths(48, 50);
  drivers_->setSelectionBehavior(QAbstractItemView::SelectRows);
  drivers_->setSelectionMode(QAbstractItemView::ExtendedSelection);  // several are shaped at once
  drivers_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  modelBox_ = new QComboBox(left);
  modelBox_->setObjectName(QStringLiteral("modelBox"));
  modelBox_->setAccessibleName(tr("Model in use"));
  modelBox_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  modelBox_->setMinimumContentsLength(12);
  connect(modelBox_, &QComboBox::activated, this, [this](int index) {
    bench_.apply(services::setModel(bench_.settled().caseOf(), bench_.models()[static_cast<size_t>(index)]));
  });
  layout->addWidget(modelBox_);
  layout->addWidget(drivers_, 5);
  layout->addWidget(sectionLabel(tr("Evidence (Enter adopts a figure)"), left));
  LedgerView* evidence = addGrid("evidence", tr("Evidence"));
  evidence_ = new EvidenceTable(bench_, evidence, this);
  layout->addWidget(evidence, 3);
  connect(drivers_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, [this](const QModelIndex& now) {
    if (filling_ || !now.isValid()) return;
    const LedgerRow& row = drivers_->ledger().ledgerRows()[static_cast<size_t>(now.row())];
    if (!row.heading && row.key != driver_) choose(row.key);
  });
  return left;
}

QWidget* OutlookPage::makeRight() {
  auto* right = new QSplitter(Qt::Vertical, this);
  right->setChildrenCollapsible(false);
  upper_ = new QWidget(right);
  auto* layout = new QVBoxLayout(upper_);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  board_ = new PathBoard(upper_);
  layout->addWidget(board_, 1);
  paths_ = addGrid("paths", tr("Paths by year"));
  paths_->setWidths(60, 0);
  paths_->setLabelRoom(kHistoryRoom);
  auto* pathsRow = new QHBoxLayout;  // as wide as the statements beneath, whose scroll bar has the rest
  pathsRow->setContentsMargins(0, 0, style()->pixelMetric(QStyle::PM_ScrollBarExtent), 0);
  pathsRow->addWidget(paths_);
  layout->addLayout(pathsRow);
  connect(paths_, &LedgerView::widthsChanged, this, &OutlookPage::alignBoard);
  shapeBar_ = new ShapeBar(upper_);
  layout->addWidget(shapeBar_);
  right->addWidget(upper_);
  auto* lower = new QWidget(right);
  auto* lowerLayout = new QVBoxLayout(lower);
  lowerLayout->setContentsMargins(0, 0, 0, 0);
  lowerLayout->setSpacing(0);
  statementBox_ = new QComboBox(lower);
  statementBox_->setObjectName(QStringLiteral("statementBox"));
  statementBox_->setAccessibleName(tr("Projected rows shown"));
  for (const std::string& group : bench_.fullModel().statements) statementBox_->addItem(text(group));
  // What follows the statements is no group of rows: their data say which table it is.
  statementBox_->addItem(tr("Scenarios side by side"), static_cast<int>(OutlookTables::Show::Scenarios));
  statementBox_->addItem(tr("Decide next"), static_cast<int>(OutlookTables::Show::Decide));
  statementBox_->addItem(tr("Sum of caution"), static_cast<int>(OutlookTables::Show::Caution));
  statementBox_->addItem(tr("Forecast against actual"), static_cast<int>(OutlookTables::Show::Actual));
  statementBox_->addItem(tr("Interim report against forecast"), static_cast<int>(OutlookTables::Show::Interim));
  statementBox_->addItem(tr("Published estimates"), static_cast<int>(OutlookTables::Show::Published));
  statementBox_->addItem(tr("Own rows"), kOwnRowsShown);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 2, 8, 2);
  bar->setSpacing(6);
  auto* shown = new PlainLabel(tr("&Projected"), lower);
  shown->setBuddy(statementBox_);
  bar->addWidget(shown);
  bar->addWidget(statementBox_);
  bar->addStretch();
  makeHorizonFields(bar, lower);
  lowerLayout->addLayout(bar);
  statements_ = addGrid("projected", tr("Projected statements"));
  statements_->setWidths(64, 0);
  statements_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOn);
  paths_->follow(statements_);
  lower_ = new QStackedWidget(lower);
  lower_->addWidget(statements_);
  tables_ = new OutlookTables(bench_, addGrid("outlookTables", tr("Scenarios, caution, actuals")), lower_);
  lower_->addWidget(tables_);
  connect(tables_, &OutlookTables::driverWanted, this, &OutlookPage::choose);
  ownRows_ = new OwnRowsPanel(bench_, addGrid("ownRowsEffect", tr("Effect of the own rows")), lower_);
  lower_->addWidget(ownRows_);
  lowerLayout->addWidget(lower_, 1);
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
    const int count = now().caseOf().horizon;
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

/// A year's point on the board stands above its column.
void OutlookPage::alignBoard() {
  std::vector<double> places;
  const int years = paths_->ledger().columnCount() - paths_->ledger().firstColumn();
  for (int c = 0; c < years; ++c)
    places.push_back(board_->mapFromGlobal(paths_->mapToGlobal(QPointF(paths_->middleOf(c), 0))).x());
  board_->setForecastYears(std::move(places));
}

void OutlookPage::makeHorizonFields(QHBoxLayout* bar, QWidget* parent) {
  horizon_ = new QSpinBox(parent);
  horizon_->setObjectName(QStringLiteral("outlookHorizon"));
  horizon_->setRange(kShortestHorizon, kLongestHorizon);
  horizon_->setKeyboardTracking(false);
  stages_ = new QLineEdit(parent);
  stages_->setObjectName(QStringLiteral("stages"));
  stages_->setMaximumWidth(110);
  stages_->setToolTip(
      tipText(tr("Lengths of the stages in years, as 3 + 4 + 3. Steps have a figure a stage, and a stage can be "
                 "moved as a whole (Shift with drag or arrows).")));
  const std::pair<QString, QWidget*> fields[] = {{tr("Forecast &years"), horizon_}, {tr("&stages"), stages_}};
  for (const auto& [words, field] : fields) {
    auto* label = new PlainLabel(words, parent);
    label->setBuddy(field);
    bar->addWidget(label);
    bar->addWidget(field);
  }
  connect(horizon_, &QSpinBox::valueChanged, this, [this](int years) {
    if (!filling_) bench_.apply(services::setHorizon(bench_.settled().caseOf(), years));
  });
  connect(stages_, &QLineEdit::editingFinished, this, [this] {
    if (stages_->isModified()) typeStages();
  });
}

void OutlookPage::typeStages() {
  stages_->setModified(false);
  std::vector<int> lengths;
  int sum = 0;
  for (const QString& piece : stages_->text().split(QLatin1Char('+'), Qt::SkipEmptyParts)) {
    bool whole = false;
    lengths.push_back(piece.trimmed().toInt(&whole));
    sum += lengths.back();
    if (whole && lengths.back() >= 1) continue;
    bench_.say(tr("'%1' is not a number of years; write stages as 3 + 4 + 3").arg(piece.trimmed()), true);
    return refreshHorizon();
  }
  // The last stage takes what the others leave, so that a length need not be counted out.
  const int horizon = bench_.settled().caseOf().horizon;
  if (!lengths.empty() && sum < horizon) lengths.push_back(horizon - sum);
  if (!bench_.apply(services::setStages(bench_.settled().caseOf(), lengths))) refreshHorizon();
}

void OutlookPage::refreshHorizon() {
  const Case& c = bench_.settled().caseOf();
  horizon_->setValue(c.horizon);
  QStringList lengths;
  for (const int length : c.stages) lengths << QString::number(length);
  stages_->setText(lengths.isEmpty() ? QString::number(c.horizon) : lengths.join(QStringLiteral(" + ")));
  stages_->setModified(false);
}

/// What the draft of a driver's reason is kept under.
QString OutlookPage::reasonKey() const {
  return QStringLiteral("reason/%1/%2").arg(text(bench_.scenarioId()), driver_);
}

void OutlookPage::connectShapeBar() {
  connect(shapeBar_, &ShapeBar::scenarioChosen, this, [this](int index) { bench_.setScenario(index); });
  connect(shapeBar_, &ShapeBar::refused, this, [this](const QString& message) { bench_.say(message, true); });
  connect(shapeBar_, &ShapeBar::shaped, this, &OutlookPage::shape);
  connect(shapeBar_, &ShapeBar::reasonTyped, this, [this](const QString& reason) {
    const QString key = reasonKey();
    const bool kept =
        bench_.apply(services::setReason(bench_.settled().caseOf(), now().evaluation->model(), bench_.scenarioId(),
                                         driver_.toStdString(), bench_.saidNow(reason)));
    if (kept) bench_.keepDraft(key, {});
  });
  connect(shapeBar_, &ShapeBar::reasonEdited, this,
          [this](const QString& words) { bench_.keepDraft(reasonKey(), words); });
  connect(shapeBar_, &ShapeBar::resetWanted, this, [this] {
    bench_.apply(services::clearDriver(bench_.settled().caseOf(), now().evaluation->model(), bench_.scenarioId(),
                                       driver_.toStdString()));
  });
}

void OutlookPage::connectBoard() {
  connect(board_, &PathBoard::dragging, this,
          [this](int year, double figure, Grip grip) { drag(grip, year, figure, false); });
  connect(board_, &PathBoard::dropped, this,
          [this](int year, double figure, Grip grip) { drag(grip, year, figure, true); });
  connect(board_, &PathBoard::cancelled, &bench_, &Workbench::endPreview);
  connect(board_, &PathBoard::pathChosen, this, [this](int path) { bench_.setScenario(path); });
}

model::RowId OutlookPage::driverIndex() const {
  return now().evaluation->model().find(driver_.toStdString());
}

std::vector<model::RowId> OutlookPage::selectedDrivers() const {
  std::vector<model::RowId> list;
  const model::Model& m = now().evaluation->model();
  for (const QModelIndex& index : drivers_->selectionModel()->selectedRows()) {
    const LedgerRow& row = drivers_->ledger().ledgerRows()[static_cast<size_t>(index.row())];
    if (!row.heading) list.push_back(m.find(row.key.toStdString()));
  }
  if (std::count(list.begin(), list.end(), driverIndex()) == 0) list = {driverIndex()};
  return list;
}

void OutlookPage::drag(Grip grip, int year, double figure, bool drop) {
  const services::CaseEdit edit =
      services::moveDriver(bench_.settled(), bench_.scenario(), driverIndex(), grip, year, figure, bench_.saidNow({}));
  if (drop) {
    bench_.apply(edit);
  } else {
    bench_.preview(edit);
  }
}

void OutlookPage::choose(const QString& driver) {
  const model::RowId index = now().evaluation->model().find(driver.toStdString());
  if (!index.known() || now().evaluation->model()[index].declared != model::Declared::Driver) return;
  driver_ = driver;
  bench_.focus({index, now().evaluation->layout().historyYears}, bench_.scenario());
  if (isVisible()) refresh();
}

void OutlookPage::showOwnRows() {
  statementBox_->setCurrentIndex(statementBox_->findData(kOwnRowsShown));
  ownRows_->takeFocus();
}

void OutlookPage::showDecideNext() {
  statementBox_->setCurrentIndex(statementBox_->findData(static_cast<int>(OutlookTables::Show::Decide)));
  tables_->takeFocus();
}

/// Another model, or rows of one's own, may compute what was a driver.
void OutlookPage::keepDriver() {
  const model::Model& m = now().evaluation->model();
  const model::RowId index = driverIndex();
  if (index.known() && m[index].declared == model::Declared::Driver) return;
  const model::Row* growth = m.row(model::Role::RevenueGrowth);
  if (growth != nullptr && growth->declared == model::Declared::Driver) {
    driver_ = text(growth->name);
    return;
  }
  const auto first = std::find_if(m.rows.begin(), m.rows.end(),
                                  [](const model::Row& row) { return row.declared == model::Declared::Driver; });
  driver_ = first == m.rows.end() ? QString() : text(first->name);
}

void OutlookPage::refreshModel() {
  QStringList titles;
  int current = 0;
  for (const services::ShippedModel& m : bench_.models()) {
    if (m.name == now().caseOf().model) current = static_cast<int>(titles.size());
    titles << text(m.title);
  }
  // What a title says behind its first words shows itself on hover: the list is as narrow as the drivers.
  modelBox_->clear();
  for (const QString& title : titles) {
    modelBox_->addItem(title.section(QRegularExpression(QStringLiteral("[,:]")), 0, 0));
    modelBox_->setItemData(modelBox_->count() - 1, tipText(title), Qt::ToolTipRole);
  }
  modelBox_->setCurrentIndex(current);
  // Groups that the model does not project cannot be chosen.
  auto* shown = qobject_cast<QStandardItemModel*>(statementBox_->model());
  const auto& rows = now().evaluation->model().rows;
  for (int i = 0; i < statementBox_->count(); ++i) {
    if (statementBox_->itemData(i).isValid()) continue;
    const std::string group = statementBox_->itemText(i).toStdString();
    shown->item(i)->setEnabled(std::any_of(rows.begin(), rows.end(), [&](const model::Row& row) {
      return row.group == group && row.projected && row.timing != model::Timing::Constant;
    }));
  }
  modelBox_->setToolTip(
      tipText(tr("%1. Changing the model keeps what was assumed for the other.").arg(titles[current])));
}

void OutlookPage::refresh() {
  filling_ = true;
  keepDriver();
  if (!driverIndex().known()) {  // a model that computes everything has no path to show
    refreshModel();
    refreshStatements();
    filling_ = false;
    return;
  }
  // While a hand moves a point, only what moves with it is drawn again: a frame has 16 ms.
  const bool whole = !bench_.isPreviewing();
  if (whole) {
    refreshModel();
    refreshDrivers();
  }
  refreshBoard();
  refreshPaths();
  if (whole) {
    evidence_->show(driver_);
    refreshShape();
    refreshHorizon();
  }
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
    if (row.declared != model::Declared::Driver) continue;
    if (text(row.group) != group) {
      group = text(row.group);
      rows.push_back(headingRow(group));
    }
    const int columns = s.evaluation->layout().columns();
    LedgerRow out = yearRow(s, model::RowId(r), columns - 1, columns, bench_.scenario());
    out.unit.clear();
    out.label = out.label.section(QLatin1Char(','), 0, 0);  // the board shows the full name
    out.cells[0].editable = false;
    const Assumption* a = s.caseOf().driver(s.caseOf().scenarios[static_cast<size_t>(bench_.scenario())], row.name);
    if (a != nullptr && !a->said.isProposed() && a->said.reason.empty()) out.label += QStringLiteral(" ?");
    out.trend = trendOf(s, model::RowId(r), 0, columns, bench_.scenario());
    if (out.key == driver_) current = static_cast<int>(rows.size());
    rows.push_back(std::move(out));
  }
  drivers_->ledger().fill({text(s.periodOf(s.evaluation->layout().columns() - 1))}, std::move(rows), true);
  if (drivers_->currentIndex().row() != current) drivers_->setCurrentIndex(drivers_->ledger().index(current, 0));
}

void OutlookPage::refreshBoard() {
  const services::Snapshot& s = now();
  const model::Row& row = s.evaluation->model()[driverIndex()];
  const services::DriverEvidence e = services::evidenceOf(s, driverIndex(), bench_.scenario());
  BoardContent content;
  content.title = text(row.label);
  content.unit = unitOf(s, row.kind);
  content.kind = row.kind;
  content.periods = periodHeaders(s, 0, s.evaluation->layout().columns());
  content.history = e.history;
  content.exceptional = services::exceptionalColumns(s);
  content.spread = e.spread;
  content.stages = s.caseOf().stages;
  for (const Consensus::Spread& spread : e.consensus)
    content.consensus.push_back({spread.low, spread.mean, spread.high});
  content.peers = e.peers.median;
  if (e.economy) {
    content.economy = e.economy->figure;
    content.economyLabel = text(e.economy->name);
  }
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
    path.figures = services::forecastOf(s, i, driverIndex());
    if (bench_.isPreviewing()) path.ghost = services::forecastOf(bench_.settled(), i, driverIndex());
    for (int c = s.evaluation->layout().historyYears; c < s.evaluation->layout().columns(); ++c) {
      path.clipped.push_back(s.evaluation->clipped({driverIndex(), c}, i));
    }
    path.inherited = sc.id != kBase && sc.drivers.count(row.name) == 0;
    const Assumption* a = s.caseOf().driver(sc, row.name);
    path.proposed = a != nullptr && a->said.isProposed();
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

void OutlookPage::refreshShape() {
  const services::Snapshot& s = now();
  const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(bench_.scenario())];
  const model::Row& row = s.evaluation->model()[driverIndex()];
  const Assumption* a = s.caseOf().driver(sc, row.name);
  ShapeShown shown;
  shown.path = pathInForce(row, s.caseOf(), sc, s.history->at(driverIndex(), s.evaluation->layout().baseColumn()));
  shown.kind = row.kind;
  shown.unit = unitOf(s, row.kind);
  shown.horizon = s.caseOf().horizon;
  shown.scenarios = scenarioHeaders(s);
  shown.scenario = bench_.scenario();
  shown.base = sc.id == kBase;
  const bool proposed = a != nullptr && a->said.isProposed();
  shown.own = sc.drivers.count(row.name) > 0 && !proposed;
  const QString draft = bench_.draft(reasonKey());
  shown.reasonIsDraft = !draft.isEmpty();
  shown.reason = shown.reasonIsDraft ? draft : a != nullptr && !proposed ? text(a->said.reason) : QString();
  if (proposed) shown.proposal = proposedTip(a->said);
  shown.reasonTip = proposed       ? tr("%1. Type a reason to confirm it").arg(shown.proposal)
                    : a == nullptr ? tr("Nobody has decided on this driver yet")
                                   : tr("%1, %2").arg(text(a->said.author), text(a->said.at));
  shapeBar_->setContent(shown);
}

void OutlookPage::shape(const services::ShapeWish& wish) {
  bench_.apply(
      services::shapeDrivers(bench_.settled(), bench_.scenario(), selectedDrivers(), wish, bench_.saidNow({})));
}

void OutlookPage::refreshStatements() {
  const services::Snapshot& s = now();
  const QVariant table = statementBox_->currentData();
  const bool writing = table.isValid() && table.toInt() == kOwnRowsShown;
  upper_->setVisible(!writing);  // a text wants the height
  lower_->setCurrentIndex(writing ? 2 : table.isValid() ? 1 : 0);
  if (writing) return ownRows_->refresh();
  if (table.isValid()) return tables_->show(static_cast<OutlookTables::Show>(table.toInt()));
  const int from = s.evaluation->layout().baseColumn();
  const int to = s.evaluation->layout().columns();
  std::vector<LedgerRow> rows;
  const std::string group = statementBox_->currentText().toStdString();
  for (const model::RowId row : groupRows(s, group)) {
    if (!s.evaluation->model()[row].projected) continue;
    rows.push_back(yearRow(s, row, from, to, bench_.scenario()));
  }
  statements_->ledger().setCorner(cornerOf(s));
  statements_->ledger().fill(periodHeaders(s, from, to), std::move(rows));
}

}  // namespace zl::app
