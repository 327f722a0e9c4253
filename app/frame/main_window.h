#pragma once
// The frame: route, page, trace, value rail. Holds them together and nothing else.

#include <QComboBox>
#include <QMainWindow>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <functional>
#include <map>

#include "app/frame/find_box.h"
#include "app/frame/hint_strip.h"
#include "app/frame/needs_strip.h"
#include "app/frame/page_stack.h"
#include "app/frame/route_panel.h"
#include "app/frame/start_panel.h"
#include "app/frame/trace_edge.h"
#include "app/frame/trace_panel.h"
#include "app/frame/unshown_panel.h"
#include "app/frame/value_rail.h"
#include "app/look/theme.h"
#include "app/pages/import_panel.h"

class QPrinter;

namespace zl::app {

/// Dialogs stand behind this, so that tests can answer them.
struct Dialogs {
  std::function<QString(QWidget*)> openBook;
  std::function<QString(QWidget*)> newBook;
  std::function<QStringList(QWidget*)> openFiles;
  std::function<QString(QWidget*)> openCase;
  std::function<QString(QWidget*)> saveCase;
  std::function<QString(QWidget*)> companyName;
  std::function<QString(QWidget*)> saveChart;
  std::function<QString(QWidget*)> saveTable;
  std::function<QString(QWidget*)> saveDrawing;
  /// Sets the printer up; false where nothing is to be printed.
  std::function<bool(QWidget*, QPrinter&)> print;
  /// Asks whether something is to be done although it says why it should not.
  std::function<bool(QWidget*, const QString& question)> confirm;
  static Dialogs native();
};

class MainWindow : public QMainWindow {
  Q_OBJECT

 public:
  MainWindow(std::shared_ptr<const services::Resources> resources, services::Desk desk, Dialogs dialogs,
             QWidget* parent = nullptr);
  ~MainWindow() override;
  [[nodiscard]] Workbench& bench() { return bench_; }
  /// Shows on Filings what files would bring in; stores nothing.
  void offer(const QStringList& files);
  bool openBook(const QString& path);
  bool openDemo();
  void go(Stop stop);

 protected:
  void closeEvent(QCloseEvent* event) override;
  void changeEvent(QEvent* event) override;

 private:
  void openTrace(bool open);  ///< on the page shown; kept for it
  void showTrace();
  [[nodiscard]] bool isDemo() const;
  void makeFrame();
  void makeActions();
  void makeFileMenu();
  void makeEditMenu();
  void makeViewMenu();
  void connectBench();
  void sayBeside(const QString& message);
  void showBeside(const QString& message);
  void startCompany(bool inOpenBook);
  void startPasted();
  /// Where the first files of a company go, and what it is called; shows the panel that reads them.
  services::ImportContext beginFirst(const QString& book, const QString& companyId, const QString& name);
  [[nodiscard]] QString freeId(const QString& name, bool inOpenBook) const;
  void nameBook();
  void saveWhatIsLookedAt();
  void printShown();
  [[nodiscard]] std::vector<StartPanel::Recent> recentBooks() const;
  void chooseBook();
  void applyCase();
  void importForUnshown();
  QWidget* makeNotice(QWidget* parent);
  void makeCompany(std::vector<services::ImportPreview> previews);
  void afterOpening();
  void companyShown();
  void refreshActions();
  void rememberRecent(const QString& path);
  void rememberSeen();
  [[nodiscard]] QStringList recent() const;
  void chooseTheme(ThemeChoice choice);
  void showPreferences();
  void takePreferences();   ///< who edits and how figures are written, as kept
  void applyPreferences();  ///< all of them; polishes every widget anew
  void makeUnitBox();
  void showAmountUnit();  ///< of the company shown: as kept for it, else what fits its statements
  void showGlossary(const QString& wanted);

  std::shared_ptr<const services::Resources> resources_;
  services::Desk desk_;
  Dialogs dialogs_;
  Workbench bench_;
  QSettings settings_;
  QStackedWidget* body_;
  PageStack* pages_;
  StartPanel* start_;
  ImportPanel* first_;  ///< a new company's files, before there is a book
  QString newBook_, newCompany_, newName_;
  int before_ = 0;  ///< what the body showed before them
  RoutePanel* route_;
  TracePanel* trace_;
  TraceEdge* traceEdge_;
  QAction* traceAction_;
  ValueRail* rail_;
  FindBox* find_;
  QSplitter* splitter_;
  QLabel* sum_;
  QComboBox* unit_;
  QLabel* readOnly_;      ///< why nothing can be changed
  QPushButton* putBack_;  ///< of a copy: into its book's place
  QWidget* notice_;       ///< the strip of both
  HintStrip* hint_;
  UnshownPanel* unshown_;
  QAction *undo_ = nullptr, *redo_ = nullptr, *name_ = nullptr;
  std::vector<QAction*> needBook_;
};

}  // namespace zl::app
