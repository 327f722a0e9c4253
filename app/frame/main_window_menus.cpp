#include "app/frame/main_window.h"

#include <QActionGroup>
#include <QMenuBar>

#include "app/frame/glossary.h"
#include "app/frame/preferences.h"
#include "app/look/amounts.h"
#include "app/look/plain_text.h"
#include "app/pages/outlook_page.h"
#include "app/pages/verdict_page.h"
#include "services/views/company_view.h"

namespace zl::app {

/// Amounts in one unit for the company looked at, before anything shows them.
void MainWindow::makeUnitBox() {
  unit_ = new QComboBox(this);
  unit_->setObjectName(QStringLiteral("amountUnit"));
  unit_->setAccessibleName(tr("Amounts are shown in"));
  unit_->setToolTip(tipText(tr("Amounts are shown and typed in this unit, kept for the company")));
  unit_->setSizeAdjustPolicy(QComboBox::AdjustToContents);  // its first words change with the company
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
  const int preferred = Preferences::kept().amountPower;
  const int fits = preferred != 0 ? preferred : fittingPower(services::largestAmount(bench_.settled()));
  setAmountPower(kept == 0 ? fits : kept);
  const QString words = preferred != 0 ? tr("as preferred: %1") : tr("as it fits: %1");
  unit_->setItemText(0, words.arg(unit_->itemText(unit_->findData(fits))));
  unit_->setCurrentIndex(unit_->findData(kept));
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
    pages_->verdict().startKeeping();
  });
  keep->setShortcut(QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_K));
  keep->setObjectName(QStringLiteral("keepVersionAction"));
  QAction* decide = edit->addAction(tr("&Decide next…"), this, [this] {
    go(Stop::Outlook);
    pages_->outlook().showDecideNext();
  });
  decide->setShortcut(QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_D));
  decide->setObjectName(QStringLiteral("decideAction"));
  QAction* own = edit->addAction(tr("&Own rows…"), this, [this] {
    go(Stop::Outlook);
    pages_->outlook().showOwnRows();
  });
  own->setShortcut(QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_R));
  own->setObjectName(QStringLiteral("ownRowsAction"));
  needBook_.insert(needBook_.end(), {find, keep, decide, own});
  edit->addSeparator();
  QAction* preferences = edit->addAction(tr("&Preferences…"), this, &MainWindow::showPreferences);
  preferences->setShortcut(QKeySequence(Qt::CTRL | Qt::Key_Comma));
  preferences->setObjectName(QStringLiteral("preferencesAction"));
}

void MainWindow::makeViewMenu() {
  QMenu* view = menuBar()->addMenu(tr("&View"));
  // Working where a company cannot be shown, too: that is when another one is wanted.
  QAction* home = view->addAction(tr("The book opens &with this company"), this, [this] { bench_.makeHome(); });
  home->setObjectName(QStringLiteral("makeHome"));
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
  const ThemeChoice chosen = Preferences::kept().paper;
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

void MainWindow::chooseTheme(ThemeChoice choice) {
  Preferences p = Preferences::kept();
  p.paper = choice;
  p.keep();
  applyPreferences();
}

void MainWindow::takePreferences() {
  const Preferences p = Preferences::kept();
  setNumberStyle(p.numbers);
  const QString author = p.author.isEmpty() ? text(desk_.author) : p.author;
  if (bench_.author() != author) bench_.setAuthor(author);
}

void MainWindow::applyPreferences() {
  takePreferences();
  const Preferences p = Preferences::kept();
  applyTheme(*qApp, p.paper, p.textPercent);
  if (bench_.isOpen()) Q_EMIT bench_.changed();
  update();
}

void MainWindow::showPreferences() {
  auto* window = new PreferencesWindow(text(desk_.author), this);
  window->setAttribute(Qt::WA_DeleteOnClose);
  connect(window, &PreferencesWindow::changed, this, &MainWindow::applyPreferences);
  window->show();
}

void MainWindow::showGlossary(const QString& wanted) {
  auto* glossary = new Glossary(bench_.isOpen() ? bench_.now().evaluation->model() : resources_->model, wanted, this);
  glossary->setAttribute(Qt::WA_DeleteOnClose);
  glossary->show();
}

}  // namespace zl::app
