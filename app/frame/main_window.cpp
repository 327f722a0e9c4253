#include "app/frame/main_window.h"

#include <QActionGroup>
#include <QClipboard>
#include <QCloseEvent>
#include <QFileInfo>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QMenuBar>
#include <QPrinter>
#include <QStatusBar>
#include <QTimer>
#include <QToolTip>
#include <QVBoxLayout>

#include "app/charts/line_board.h"
#include "app/charts/path_board.h"
#include "app/frame/glossary.h"
#include "app/frame/saving.h"
#include "app/frame/unnamed_books.h"
#include "app/jobs/job_strip.h"
#include "app/look/amounts.h"
#include "app/look/plain_text.h"
#include "app/pages/filings_page.h"
#include "app/pages/outlook_page.h"
#include "app/pages/sub_views.h"
#include "app/pages/verdict_page.h"
#include "core/quantity/number_text.h"
#include "services/text/short_name.h"
#include "services/views/company_view.h"
#include "store/copies.h"

static void initResources() {
  Q_INIT_RESOURCE(resources);
}  // must stand outside a namespace

namespace zl::app {

MainWindow::MainWindow(std::shared_ptr<const services::Resources> resources, services::Desk desk, Dialogs dialogs,
                       QWidget* parent)
    : QMainWindow(parent),
      resources_(resources),
      desk_(desk),
      dialogs_(std::move(dialogs)),
      bench_(std::move(resources), std::move(desk)) {
  initResources();
  setObjectName(QStringLiteral("mainWindow"));
  setWindowTitle(tr("Zealous Ledger"));
  setWindowIcon(QIcon(QStringLiteral(":/icon.svg")));
  makeFrame();
  makeActions();
  connectBench();
  resize(1280, 800);
  restoreGeometry(settings_.value(QStringLiteral("geometry")).toByteArray());
  splitter_->restoreState(settings_.value(QStringLiteral("splitter")).toByteArray());
  start_->setRecent(recentBooks());
  refreshActions();
  takePreferences();
}

/// Fields store what they hold when they lose the focus: they go while the workbench is still there.
MainWindow::~MainWindow() {
  hide();
  delete takeCentralWidget();
}

void MainWindow::makeFrame() {
  makeUnitBox();
  body_ = new QStackedWidget(this);
  start_ = new StartPanel(this);
  body_->addWidget(start_);
  auto* work = new QWidget(this);
  auto* layout = new QVBoxLayout(work);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  auto* middle = new QHBoxLayout;
  middle->setSpacing(0);
  route_ = new RoutePanel(bench_, work);
  middle->addWidget(route_);
  splitter_ = new QSplitter(Qt::Horizontal, work);
  auto* centre = new QWidget(splitter_);
  auto* centreLayout = new QVBoxLayout(centre);
  centreLayout->setContentsMargins(0, 4, 0, 0);
  centreLayout->setSpacing(2);
  find_ = new FindBox(bench_, this);
  auto* corner = new QWidget(menuBar());  // of one size whether the field is shown or not
  auto* cornerLayout = new QHBoxLayout(corner);
  cornerLayout->setContentsMargins(0, 1, 10, 1);
  cornerLayout->addWidget(find_);
  corner->setFixedWidth(find_->width() + 10);
  menuBar()->setCornerWidget(corner);
  centreLayout->addWidget(makeNotice(centre));
  hint_ = new HintStrip(centre);
  centreLayout->addWidget(hint_);
  pages_ = new PageStack(bench_, dialogs_.saveChart, centre);
  centreLayout->addWidget(pages_, 1);
  splitter_->addWidget(centre);
  trace_ = new TracePanel(bench_, splitter_);
  splitter_->addWidget(trace_);
  splitter_->setStretchFactor(0, 1);
  splitter_->setSizes({906, 218});
  splitter_->setCollapsible(0, false);
  middle->addWidget(splitter_, 1);
  traceEdge_ = new TraceEdge(work);
  middle->addWidget(traceEdge_);
  connect(traceEdge_, &QAbstractButton::clicked, this, [this] { openTrace(true); });
  layout->addLayout(middle, 1);
  layout->addWidget(new NeedsStrip(bench_, work));
  rail_ = new ValueRail(bench_, work);
  layout->addWidget(rail_);
  body_->addWidget(work);
  first_ = new ImportPanel(this);
  first_->setObjectName(QStringLiteral("firstFiles"));
  // The same panel stands on Filings; each control keeps a name of its own.
  for (QWidget* child : first_->findChildren<QWidget*>()) {
    if (!child->objectName().startsWith(QLatin1String("qt_")))
      child->setObjectName(QStringLiteral("first.") + child->objectName());
  }
  body_->addWidget(first_);
  unshown_ = new UnshownPanel(this);
  body_->addWidget(unshown_);
  setCentralWidget(body_);
  sum_ = new PlainLabel(this);
  sum_->setObjectName(QStringLiteral("selectionSum"));
  statusBar()->addPermanentWidget(new JobStrip(bench_.jobs(), this));
  statusBar()->addPermanentWidget(sum_);
  statusBar()->addPermanentWidget(unit_);
}

/// Says above every page why nothing can be changed, and of a copy how to go back to it.
QWidget* MainWindow::makeNotice(QWidget* parent) {
  notice_ = new QWidget(parent);
  auto* layout = new QHBoxLayout(notice_);
  layout->setContentsMargins(12, 2, 12, 2);
  readOnly_ = new PlainLabel(notice_);
  readOnly_->setObjectName(QStringLiteral("readOnlyNotice"));
  readOnly_->setWordWrap(true);
  layout->addWidget(readOnly_, 1);
  putBack_ = new QPushButton(tr("Make it the &book again"), notice_);
  putBack_->setObjectName(QStringLiteral("putCopyBack"));
  layout->addWidget(putBack_);
  connect(putBack_, &QPushButton::clicked, this, [this] {
    const QString question = tr("Put this copy in the place of %1? What stands there now is kept among the copies.")
                                 .arg(QFileInfo(bench_.copyOf()).fileName());
    if (!dialogs_.confirm(this, question) || !bench_.putCopyBack()) return;
    afterOpening();
  });
  notice_->hide();
  return notice_;
}

void MainWindow::connectBench() {
  bench_.setConfirm([this](const QString& question) { return dialogs_.confirm(this, question); });
  connect(&bench_, &Workbench::stopWanted, this, &MainWindow::go);
  connect(&bench_, &Workbench::shown, this, &MainWindow::companyShown);
  connect(&bench_.jobs(), &Jobs::failed, this,
          [this](const QString&, const QString& words) { bench_.say(words, true); });
  connect(&bench_, &Workbench::changed, this, &MainWindow::refreshActions);
  connect(&bench_, &Workbench::said, this, [this](const QString& message, bool fault) {
    QPalette p = statusBar()->palette();
    p.setColor(QPalette::WindowText, fault ? theme().fault : theme().ink);
    statusBar()->setPalette(p);
    statusBar()->showMessage((fault ? QStringLiteral("■ ") : QString()) + message, fault ? 0 : 8000);
    if (fault) sayBeside(message);
  });
  connect(&bench_, &Workbench::driverWanted, this, [this](const QString& driver) { pages_->outlook().choose(driver); });
  connect(&bench_, &Workbench::viewWanted, this, [this](Stop stop, const QString& view, const QString& table) {
    go(stop);
    if (auto* views = pages_->at(stop).findChild<SubViews*>()) views->show(view);
    for (QComboBox* box : pages_->at(stop).findChildren<QComboBox*>()) {
      const int at = box->isVisible() && !table.isEmpty() ? box->findData(table) : -1;
      if (at >= 0) box->setCurrentIndex(at);
    }
  });
  connect(&bench_, &Workbench::versionWanted, this, [this](const QString& name) {
    go(Stop::Verdict);
    pages_->verdict().showVersion(name);
  });
  connect(pages_, &PageStack::filesWanted, this, [this] { pages_->filings().offer(dialogs_.openFiles(this)); });
  connect(pages_, &PageStack::summed, sum_, &QLabel::setText);
  connect(first_, &ImportPanel::closed, this, [this] { body_->setCurrentIndex(before_); });
  connect(first_, &ImportPanel::failed, this, [this](const QString& message) { bench_.say(message, true); });
  connect(first_, &ImportPanel::accepted, this, &MainWindow::makeCompany);
  connect(start_, &StartPanel::demoWanted, this, &MainWindow::openDemo);
  connect(start_, &StartPanel::pasteWanted, this, &MainWindow::startPasted);
  connect(start_, &StartPanel::filesWanted, this, [this] { startCompany(false); });
  connect(start_, &StartPanel::bookWanted, this, &MainWindow::chooseBook);
  connect(unshown_, &UnshownPanel::otherBookWanted, this, &MainWindow::chooseBook);
  connect(unshown_, &UnshownPanel::copyWanted, this, [this] {
    const auto copies = store::copiesOf(bench_.unshownCompany().first.toStdString());
    if (!copies.empty()) openBook(QString::fromStdString(copies.front().path));
  });
  connect(unshown_, &UnshownPanel::rescueWanted, this, [this] {
    const QString into = dialogs_.newBook(this);
    if (!into.isEmpty() && bench_.rescue(into)) afterOpening();
  });
  connect(unshown_, &UnshownPanel::anotherCompanyWanted, this, [this] { bench_.stepCompany(1); });
  connect(unshown_, &UnshownPanel::filesWanted, this, &MainWindow::importForUnshown);
  connect(unshown_, &UnshownPanel::stepBackWanted, this, [this] {
    if (bench_.stepBackUnshown()) afterOpening();
  });
  connect(&bench_, &Workbench::unshown, this, [this] {
    const QString book = bench_.unshownCompany().first;
    const std::vector<store::Copy> copies = store::copiesOf(book.toStdString());
    unshown_->setContent({book, bench_.whyUnshown(), bench_.unshownStep(),
                          copies.empty() ? QString() : text(copies.front().name), bench_.isDamaged(),
                          bench_.companies().size() > 1});
    body_->setCurrentWidget(unshown_);
    setWindowTitle(titleText(tr("%1 — Zealous Ledger").arg(QFileInfo(book).fileName())));
    refreshActions();
  });
  connect(start_, &StartPanel::recentWanted, this, &MainWindow::openBook);
}

/// A refusal also stands beside the cell or field that it is about.
void MainWindow::sayBeside(const QString& message) {
  // When the cell's editor has closed: its going would take the words along.
  constexpr int kAfterTheEditor = 60;  // milliseconds
  QTimer::singleShot(kAfterTheEditor, this, [this, message] { showBeside(message); });
}

void MainWindow::showBeside(const QString& message) {
  QWidget* at = QApplication::focusWidget();
  if (at == nullptr || at->window() != this) return;
  QRect place = at->rect();
  for (QWidget* w = at; w != nullptr; w = w->parentWidget()) {
    auto* grid = qobject_cast<LedgerView*>(w);
    if (grid == nullptr) continue;
    at = grid->viewport();
    place = grid->visualRect(grid->currentIndex());
    break;
  }
  QToolTip::showText(at->mapToGlobal(place.bottomLeft()), tipText(QStringLiteral("■ ") + message), at);
}

void MainWindow::offer(const QStringList& files) {
  go(Stop::Filings);
  pages_->filings().offer(files);
}

/// The table or chart that has the keys, else the page's first table.
void MainWindow::saveWhatIsLookedAt() {
  LedgerView* table = nullptr;
  QWidget* chart = nullptr;
  for (QWidget* w = QApplication::focusWidget(); w != nullptr && table == nullptr && chart == nullptr;
       w = w->parentWidget()) {
    table = qobject_cast<LedgerView*>(w);
    const bool drawn = qobject_cast<TellingChart*>(w) != nullptr || qobject_cast<PathBoard*>(w) != nullptr ||
                       qobject_cast<LineBoard*>(w) != nullptr;
    if (drawn) chart = w;
  }
  if (table == nullptr && chart == nullptr) {
    const QList<LedgerView*> tables = pages_->currentWidget()->findChildren<LedgerView*>();
    const auto shown = std::find_if(tables.begin(), tables.end(), [](const LedgerView* t) { return t->isVisible(); });
    if (shown == tables.end()) return bench_.say(tr("Go to a table or a chart first"), true);
    table = *shown;
  }
  const QString path = chart != nullptr ? dialogs_.saveDrawing(this) : dialogs_.saveTable(this);
  if (path.isEmpty()) return;
  const QString fault = chart != nullptr ? saveDrawing(*chart, path) : saveTable(table->ledger(), path);
  bench_.say(fault.isEmpty() ? tr("Saved as %1").arg(path) : fault, !fault.isEmpty());
}

void MainWindow::printShown() {
  QPrinter printer(QPrinter::HighResolution);
  printer.setDocName(windowTitle());
  if (!dialogs_.print(this, printer)) return;
  printPage(*pages_->currentWidget(), printer);
  bench_.say(tr("Printed"));
}

void MainWindow::afterOpening() {
  rememberRecent(bench_.path());
  go(Stop::Verdict);
}

/// A company came to be shown, of this book or another one: the page stays.
void MainWindow::companyShown() {
  body_->setCurrentIndex(1);
  const QString book = isUnnamed(bench_.path()) ? tr("not named yet") : QFileInfo(bench_.path()).fileName();
  setWindowTitle(titleText(tr("%1 — %2 — Zealous Ledger").arg(text(bench_.now().company().name), book)));
  trace_->look({bench_.now().evaluation->model().find(model::Role::ValuePerShare), 0}, bench_.scenario());
  QVariantMap last = settings_.value(QStringLiteral("companies")).toMap();
  last[bench_.path()] = QString::fromStdString(bench_.companyId());
  settings_.setValue(QStringLiteral("companies"), last);
}

/// The page comes first: the trace stands beside the pages where it was asked for.
void MainWindow::openTrace(bool open) {
  QStringList words = settings_.value(QStringLiteral("traceOn")).toStringList();
  const QString page = QString::fromLatin1(stopWord(pages_->shown()));
  words.removeAll(page);
  if (open) words << page;
  settings_.setValue(QStringLiteral("traceOn"), words);
  showTrace();
}

void MainWindow::showTrace() {
  const QString page = QString::fromLatin1(stopWord(pages_->shown()));
  const bool open = settings_.value(QStringLiteral("traceOn")).toStringList().contains(page);
  // Focus must not go with what is folded away.
  if (!open && trace_->isAncestorOf(focusWidget())) pages_->currentWidget()->setFocus();
  trace_->setVisible(open);
  if (open && traceEdge_->hasFocus()) trace_->takeFocus();
  traceEdge_->setVisible(!open);
  traceAction_->setChecked(open);
}

bool MainWindow::isDemo() const {
  return bench_.isOpen() && bench_.path() == demoBookPath();
}

void MainWindow::go(Stop stop) {
  if (!PageStack::has(stop)) return;
  // Who walks on in the trace takes it along.
  const bool walks = trace_->isAncestorOf(QApplication::focusWidget());
  pages_->showPage(stop);
  walks ? openTrace(true) : showTrace();
  route_->setCurrent(stop);
  hint_->show(stop, isDemo());
  const QList<LedgerView*> grids = pages_->at(stop).findChildren<LedgerView*>();
  const auto inView = std::find_if(grids.begin(), grids.end(), [](const LedgerView* g) { return g->isVisible(); });
  if (inView != grids.end()) (*inView)->setFocus();
  sum_->clear();
}

void MainWindow::refreshActions() {
  const QString readOnly = bench_.readOnly();
  const QString copyOf = bench_.copyOf();
  notice_->setVisible(!readOnly.isEmpty() || !copyOf.isEmpty());
  putBack_->setVisible(!copyOf.isEmpty());
  readOnly_->setText(copyOf.isEmpty()
                         ? tr("■ Only for looking: %1.").arg(readOnly)
                         : tr("■ This is a copy of %1, not the book itself.").arg(QFileInfo(copyOf).fileName()));
  const QString undo = bench_.undoLabel();
  const QString redo = bench_.redoLabel();
  undo_->setEnabled(!undo.isEmpty());
  redo_->setEnabled(!redo.isEmpty());
  undo_->setText(undo.isEmpty() ? tr("&Undo") : tr("&Undo: %1").arg(menuText(undo)));
  redo_->setText(redo.isEmpty() ? tr("&Redo") : tr("&Redo: %1").arg(menuText(redo)));
  for (QAction* action : needBook_) action->setEnabled(bench_.isOpen());
  find_->setVisible(bench_.isOpen());
  unit_->setVisible(bench_.isOpen());
}

void MainWindow::closeEvent(QCloseEvent* event) {
  rememberSeen();
  settings_.setValue(QStringLiteral("geometry"), saveGeometry());
  settings_.setValue(QStringLiteral("splitter"), splitter_->saveState());
  const QString waits = bench_.unwritten();
  if (!waits.isEmpty() && !dialogs_.confirm(this, tr("Close without it? As it stands, %1.").arg(waits))) {
    event->ignore();
    return;
  }
  QMainWindow::closeEvent(event);
}

/// Whoever comes back to the window sees the book as it is.
void MainWindow::changeEvent(QEvent* event) {
  QMainWindow::changeEvent(event);
  if (event->type() == QEvent::ActivationChange && isActiveWindow()) bench_.lookForOthers();
}

}  // namespace zl::app
