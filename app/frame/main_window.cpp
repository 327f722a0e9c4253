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
#include "app/pages/capital_page.h"
#include "app/pages/cash_value_page.h"
#include "app/pages/company_page.h"
#include "app/pages/history_page.h"
#include "app/pages/peers_page.h"
#include "app/pages/verdict_page.h"
#include "core/quantity/number_text.h"
#include "services/text/short_name.h"
#include "services/views/company_view.h"
#include "store/copies.h"

static void initResources() {
  Q_INIT_RESOURCE(resources);
}  // must stand outside a namespace

namespace zl::app {
namespace {
constexpr int kMostRecent = 6;

std::vector<std::string> pathsOf(const QStringList& files) {
  std::vector<std::string> paths;
  for (const QString& file : files) paths.push_back(file.toStdString());
  return paths;
}
}  // namespace

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
}

/// Fields store what they hold when they lose the focus: they go while the workbench is still there.
MainWindow::~MainWindow() {
  hide();
  delete takeCentralWidget();
}

/// Amounts in one unit for the company looked at, before anything shows them.
void MainWindow::makeUnitBox() {
  unit_ = new QComboBox(this);
  unit_->setObjectName(QStringLiteral("amountUnit"));
  unit_->setAccessibleName(tr("Amounts are shown in"));
  unit_->setToolTip(tipText(tr("Amounts are shown and typed in this unit, kept for the company")));
  unit_->addItem(tr("as it fits"), 0);
  unit_->addItem(tr("thousand"), 3);
  unit_->addItem(tr("million"), 6);
  unit_->addItem(tr("billion"), 9);
  connect(&bench_, &Workbench::changed, this, [this] {
    if (bench_.isOpen() && !bench_.isPreviewing()) showAmountUnit();
  });
  connect(unit_, &QComboBox::activated, this, [this] {
    QVariantMap kept = settings_.value(QStringLiteral("amountUnits")).toMap();
    kept[bench_.path() + QLatin1Char('|') + QString::fromStdString(bench_.companyId())] = unit_->currentData();
    settings_.setValue(QStringLiteral("amountUnits"), kept);
    Q_EMIT bench_.changed();
  });
}

void MainWindow::showAmountUnit() {
  const QString of = bench_.path() + QLatin1Char('|') + QString::fromStdString(bench_.companyId());
  const int kept = settings_.value(QStringLiteral("amountUnits")).toMap().value(of).toInt();
  const int fits = fittingPower(services::largestAmount(bench_.settled()));
  setAmountPower(kept == 0 ? fits : kept);
  unit_->setItemText(0, tr("as it fits: %1").arg(unit_->itemText(unit_->findData(fits))));
  unit_->setCurrentIndex(unit_->findData(kept));
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
  pages_ = new QStackedWidget(centre);
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

  filings_ = new FilingsPage(bench_);
  outlook_ = new OutlookPage(bench_);
  verdict_ = new VerdictPage(bench_);
  auto* history = new HistoryPage(bench_);
  history->setSaveDialog(dialogs_.saveChart);
  for (Page* page : {static_cast<Page*>(new CompanyPage(bench_)), static_cast<Page*>(filings_),
                     static_cast<Page*>(history), static_cast<Page*>(outlook_),
                     static_cast<Page*>(new CapitalPage(bench_)), static_cast<Page*>(new CashValuePage(bench_)),
                     static_cast<Page*>(new PeersPage(bench_)), static_cast<Page*>(verdict_)}) {
    pages_->addWidget(page);
    pageOf_[page->stop()] = page;
    connect(page, &Page::summed, sum_, &QLabel::setText);
  }
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

void MainWindow::makeActions() {
  makeFileMenu();
  makeEditMenu();
  makeViewMenu();
  QList<QAction*> actions;
  for (QMenu* menu : menuBar()->findChildren<QMenu*>()) actions += menu->actions();
  find_->setActions(actions);
  QMenu* help = menuBar()->addMenu(tr("&Help"));
  QAction* glossary = help->addAction(tr("&Glossary…"), this, [this] { showGlossary({}); });
  glossary->setShortcut(QKeySequence::HelpContents);
  glossary->setObjectName(QStringLiteral("glossary"));
  QAction* keys = help->addAction(tr("&Keys…"), this, [this] { showGlossary(tr("Keys")); });
  keys->setObjectName(QStringLiteral("keys"));
}

void MainWindow::makeFileMenu() {
  QMenu* file = menuBar()->addMenu(tr("&File"));
  QAction* fresh = file->addAction(tr("&New company from files…"), this, [this] { startCompany(false); });
  fresh->setShortcut(QKeySequence::New);
  QAction* another = file->addAction(tr("Another &company into this book…"), this, [this] { startCompany(true); });
  another->setShortcut(QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_N));
  another->setObjectName(QStringLiteral("anotherCompanyAction"));
  QAction* open = file->addAction(tr("&Open book or copy…"), this, &MainWindow::chooseBook);
  open->setShortcut(QKeySequence::Open);
  open->setObjectName(QStringLiteral("openBookAction"));
  file->addAction(tr("Open &demo"), this, &MainWindow::openDemo);
  name_ = file->addAction(tr("Name or move this boo&k…"), this, &MainWindow::nameBook);
  name_->setShortcut(QKeySequence::Save);
  name_->setObjectName(QStringLiteral("nameBookAction"));
  file->addSeparator();
  QAction* import = file->addAction(tr("&Import files…"), this, [this] { offer(dialogs_.openFiles(this)); });
  import->setShortcut(QKeySequence(Qt::CTRL | Qt::Key_I));
  import->setObjectName(QStringLiteral("importAction"));
  QAction* exportCase = file->addAction(tr("&Export case as JSON…"), this, [this] {
    const QString path = dialogs_.saveCase(this);
    if (!path.isEmpty() && bench_.exportCase(path)) bench_.say(tr("Exported the case to %1").arg(path));
  });
  QAction* applyCase = file->addAction(tr("&Apply case…"), this, &MainWindow::applyCase);
  file->addSeparator();
  QAction* save = file->addAction(tr("Save the &table or chart…"), this, &MainWindow::saveWhatIsLookedAt);
  save->setShortcut(QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_E));
  save->setObjectName(QStringLiteral("saveShownAction"));
  QAction* print = file->addAction(tr("&Print the page…"), this, &MainWindow::printShown);
  print->setShortcut(QKeySequence::Print);
  print->setObjectName(QStringLiteral("printAction"));
  file->addSeparator();
  QAction* quit = file->addAction(tr("&Quit"), this, &QWidget::close);
  quit->setShortcut(QKeySequence::Quit);
  needBook_ = {another, name_, import, exportCase, applyCase, save, print};
}

void MainWindow::makeEditMenu() {
  QMenu* edit = menuBar()->addMenu(tr("&Edit"));
  undo_ = edit->addAction(tr("&Undo"), &bench_, &Workbench::undo);
  undo_->setShortcut(QKeySequence::Undo);
  undo_->setObjectName(QStringLiteral("undo"));
  redo_ = edit->addAction(tr("&Redo"), &bench_, &Workbench::redo);
  redo_->setShortcut(QKeySequence::Redo);
  redo_->setObjectName(QStringLiteral("redo"));
  edit->addSeparator();
  QAction* find = edit->addAction(tr("&Find…"), this, [this] {
    find_->setFocus();
    find_->selectAll();
  });
  find->setShortcut(QKeySequence::Find);
  QAction* keep = edit->addAction(tr("Name the present &state…"), this, [this] {
    go(Stop::Verdict);
    verdict_->startKeeping();
  });
  keep->setShortcut(QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_K));
  keep->setObjectName(QStringLiteral("keepVersionAction"));
  QAction* decide = edit->addAction(tr("&Decide next…"), this, [this] {
    go(Stop::Outlook);
    outlook_->showDecideNext();
  });
  decide->setShortcut(QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_D));
  decide->setObjectName(QStringLiteral("decideAction"));
  QAction* own = edit->addAction(tr("&Own rows…"), this, [this] {
    go(Stop::Outlook);
    outlook_->showOwnRows();
  });
  own->setShortcut(QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_R));
  own->setObjectName(QStringLiteral("ownRowsAction"));
  needBook_.insert(needBook_.end(), {find, keep, decide, own});
}

void MainWindow::makeViewMenu() {
  QMenu* view = menuBar()->addMenu(tr("&View"));
  // Working where a company cannot be shown, too: that is when another one is wanted.
  QAction* list = view->addAction(tr("Companies of this &book…"), this, [this] { route_->companies().showList(); });
  list->setShortcut(QKeySequence(Qt::ALT | Qt::Key_0));
  list->setObjectName(QStringLiteral("companiesAction"));
  QAction* next = view->addAction(tr("&Next company"), this, [this] { bench_.stepCompany(1); });
  next->setShortcut(QKeySequence(Qt::ALT | Qt::Key_PageDown));
  QAction* before = view->addAction(tr("&Previous company"), this, [this] { bench_.stepCompany(-1); });
  before->setShortcut(QKeySequence(Qt::ALT | Qt::Key_PageUp));
  view->addSeparator();
  traceAction_ = view->addAction(tr("&Trace"));
  traceAction_->setCheckable(true);
  traceAction_->setShortcut(QKeySequence(Qt::CTRL | Qt::Key_T));
  connect(traceAction_, &QAction::triggered, this, &MainWindow::openTrace);
  QAction* toTrace = view->addAction(tr("Go to the tra&ce"), this, [this] {
    openTrace(true);
    trace_->takeFocus();
  });
  toTrace->setShortcut(QKeySequence(Qt::Key_F6));
  QAction* toRail = view->addAction(tr("Go to the &value rail"), this, [this] { rail_->setFocus(Qt::TabFocusReason); });
  toRail->setShortcut(QKeySequence(Qt::SHIFT | Qt::Key_F6));
  view->addSeparator();
  auto* group = new QActionGroup(this);
  const ThemeChoice chosen = static_cast<ThemeChoice>(settings_.value(QStringLiteral("theme"), 0).toInt());
  const std::pair<ThemeChoice, QString> choices[] = {{ThemeChoice::System, tr("As the &system")},
                                                     {ThemeChoice::Light, tr("&Light paper")},
                                                     {ThemeChoice::Dark, tr("&Dark paper")}};
  for (const auto& [choice, words] : choices) {
    QAction* action = view->addAction(words);
    action->setCheckable(true);
    action->setChecked(choice == chosen);
    group->addAction(action);
    connect(action, &QAction::triggered, this, [this, c = choice] { chooseTheme(c); });
  }
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
  connect(&bench_, &Workbench::driverWanted, outlook_, &OutlookPage::choose);
  connect(&bench_, &Workbench::versionWanted, this, [this](const QString& name) {
    go(Stop::Verdict);
    verdict_->showVersion(name);
  });
  connect(filings_, &FilingsPage::filesWanted, this, [this] { filings_->offer(dialogs_.openFiles(this)); });
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
  filings_->offer(files);
}

void MainWindow::makeCompany(std::vector<services::ImportPreview> previews) {
  if (newBook_.isEmpty()) newBook_ = newUnnamedBook(newCompany_);
  if (!bench_.makeBook(newBook_, newCompany_, std::move(previews))) return;
  if (!newName_.isEmpty()) {
    bench_.changeRecord(
        services::setField(bench_.settled().company(), "name", newName_.toStdString(), bench_.notedNow({})));
  }
  afterOpening();
  go(Stop::Filings);
}

bool MainWindow::openBook(const QString& path) {
  const QString last =
      settings_.value(QStringLiteral("companies")).toMap().value(QFileInfo(path).absoluteFilePath()).toString();
  if (!bench_.open(path, last)) return false;
  afterOpening();
  return true;
}

void MainWindow::chooseBook() {
  const QString path = dialogs_.openBook(this);
  if (!path.isEmpty()) openBook(path);
}

void MainWindow::applyCase() {
  const QString path = dialogs_.openCase(this);
  if (path.isEmpty() || bench_.applyCase(path) || !bench_.couldGoOver()) return;
  const QString question =
      tr("%1\n\nApply the file over them all the same? Undo takes it back.").arg(statusBar()->currentMessage());
  if (dialogs_.confirm(this, question)) bench_.applyCase(path, true);
}

/// What is missing comes into the book that is open and cannot be shown.
void MainWindow::importForUnshown() {
  const QStringList files = dialogs_.openFiles(this);
  if (files.isEmpty()) return;
  const auto [book, company] = bench_.unshownCompany();
  first_->read(files, beginFirst(book, company, {}));
}

bool MainWindow::openDemo() {
  const QString path = demoBookPath();
  if (QFileInfo::exists(path) && !store::Book::isHalfMade(path.toStdString())) return openBook(path);
  if (!bench_.makeDemo(path)) return false;
  afterOpening();
  return true;
}

/// From files: in a book of its own, which is named later, or in the one that is open.
void MainWindow::startCompany(bool inOpenBook) {
  const QStringList files = dialogs_.openFiles(this);
  if (files.isEmpty()) return;
  const QString name = inOpenBook ? dialogs_.companyName(this) : start_->companyName();
  if (inOpenBook && name.isEmpty()) return;
  const QString recorded = QString::fromStdString(services::companyNamedIn(pathsOf(files)));
  const QString of = name.isEmpty() ? QFileInfo(files.front()).completeBaseName() : name;
  // A record that comes along says who it is of, and what that is called.
  first_->read(files, recorded.isEmpty()
                          ? beginFirst(inOpenBook ? bench_.path() : QString(), freeId(of, inOpenBook), name)
                          : beginFirst(inOpenBook ? bench_.path() : QString(), recorded, {}));
}

services::ImportContext MainWindow::beginFirst(const QString& book, const QString& companyId, const QString& name) {
  newBook_ = book;
  newCompany_ = companyId;
  newName_ = name;
  before_ = body_->currentIndex();
  body_->setCurrentWidget(first_);
  return bench_.newContext(newCompany_);
}

/// A short name that no company of the book has: two names may be the same in small letters of this alphabet.
QString MainWindow::freeId(const QString& name, bool inOpenBook) const {
  const QString id = QString::fromStdString(services::shortName(name.toStdString(), "company"));
  const auto taken = [&](const QString& tried) {
    const auto& there = bench_.companies();
    return inOpenBook && std::any_of(there.begin(), there.end(),
                                     [&](const services::CompanyEntry& c) { return c.id == tried.toStdString(); });
  };
  QString free = id;
  for (int n = 2; taken(free); ++n) free = QStringLiteral("%1-%2").arg(id).arg(n);
  return free;
}

/// A company by its name and the cells that were copied elsewhere.
void MainWindow::startPasted() {
  const QString cells = QGuiApplication::clipboard()->text();
  if (cells.trimmed().isEmpty()) {
    bench_.say(tr("The clipboard holds no cells; copy its statements in the other program first"), true);
    return;
  }
  const QString name = start_->companyName();
  first_->read(services::ImportFile{"pasted cells", cells.toStdString()}, beginFirst({}, freeId(name, false), name));
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

/// Nothing is saved by this: it is saved already.
void MainWindow::nameBook() {
  const QString from = bench_.path();
  const QString into = dialogs_.newBook(this);
  if (into.isEmpty() || !bench_.nameBook(into)) return;
  QStringList list = recent();
  list.removeAll(from);
  settings_.setValue(QStringLiteral("recent"), list);
  rememberRecent(bench_.path());
  bench_.say(tr("The book is %1").arg(into));
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
  const QString page = QString::fromLatin1(stopWord(shownStop()));
  words.removeAll(page);
  if (open) words << page;
  settings_.setValue(QStringLiteral("traceOn"), words);
  showTrace();
}

void MainWindow::showTrace() {
  const QString page = QString::fromLatin1(stopWord(shownStop()));
  const bool open = settings_.value(QStringLiteral("traceOn")).toStringList().contains(page);
  // Focus must not go with what is folded away.
  if (!open && trace_->isAncestorOf(focusWidget())) pages_->currentWidget()->setFocus();
  trace_->setVisible(open);
  if (open && traceEdge_->hasFocus()) trace_->takeFocus();
  traceEdge_->setVisible(!open);
  traceAction_->setChecked(open);
}

Stop MainWindow::shownStop() const {
  return static_cast<const Page*>(pages_->currentWidget())->stop();
}

void MainWindow::go(Stop stop) {
  const auto page = pageOf_.find(stop);
  if (page == pageOf_.end()) return;
  // Who walks on in the trace takes it along.
  const bool walks = trace_->isAncestorOf(QApplication::focusWidget());
  pages_->setCurrentWidget(page->second);
  walks ? openTrace(true) : showTrace();
  route_->setCurrent(stop);
  if (auto* grid = page->second->findChild<LedgerView*>()) grid->setFocus();
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

QStringList MainWindow::recent() const {
  QStringList list;
  for (const QString& path : settings_.value(QStringLiteral("recent")).toStringList()) {
    if (QFileInfo::exists(path)) list << path;
  }
  return list;
}

void MainWindow::rememberRecent(const QString& path) {
  QStringList list = recent();
  list.removeAll(path);
  list.prepend(path);
  while (list.size() > kMostRecent) list.removeLast();
  settings_.setValue(QStringLiteral("recent"), list);
}

/// What each held when it was last looked at.
std::vector<StartPanel::Recent> MainWindow::recentBooks() const {
  const QVariantMap seen = settings_.value(QStringLiteral("seen")).toMap();
  std::vector<StartPanel::Recent> books;
  for (const QString& path : recent()) {
    const QStringList was = seen.value(path).toStringList();
    const QString date = QFileInfo(path).lastModified().date().toString(Qt::ISODate);
    books.push_back({path, was.value(0), was.value(1), date, isUnnamed(path)});
  }
  return books;
}

void MainWindow::chooseTheme(ThemeChoice choice) {
  settings_.setValue(QStringLiteral("theme"), static_cast<int>(choice));
  applyTheme(*qApp, choice);
  if (bench_.isOpen()) Q_EMIT bench_.changed();
  update();
}

void MainWindow::showGlossary(const QString& wanted) {
  auto* glossary = new Glossary(bench_.isOpen() ? bench_.now().evaluation->model() : resources_->model, wanted, this);
  glossary->setAttribute(Qt::WA_DeleteOnClose);
  glossary->show();
}

/// For the start panel: whose book it is and what base was worth.
void MainWindow::rememberSeen() {
  if (!bench_.isOpen()) return;
  const services::Snapshot& s = bench_.settled();
  const Figure value = s.evaluation->constant(model::Role::ValuePerShare, std::max(0, s.caseOf().indexOf(kBase)));
  QVariantMap seen = settings_.value(QStringLiteral("seen")).toMap();
  seen[bench_.path()] = QStringList{
      text(s.company().name),
      value.hasValue() ? tr("base %1 %2").arg(text(figureText(value, Kind::Quote)), text(s.company().listing.unit))
                       : tr("no value yet")};
  settings_.setValue(QStringLiteral("seen"), seen);
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
