#pragma once
// The one write path of the window. Views ask it to apply edits and are told what to show; they
// never write and never talk to one another.

#include <QObject>
#include <QString>
#include <QTimer>
#include <map>
#include <memory>
#include <optional>
#include <set>

#include "app/jobs/jobs.h"
#include "services/library/library.h"
#include "services/sessions/assumption_history.h"
#include "services/sessions/session.h"
#include "services/stories/story.h"
#include "services/views/compare.h"
#include "services/views/document_view.h"
#include "services/views/own_rows.h"
#include "services/views/scenario_view.h"

namespace zl::app {

class Workbench : public QObject {
  Q_OBJECT

 public:
  Workbench(std::shared_ptr<const services::Resources> resources, services::Desk desk, QObject* parent = nullptr);

  ~Workbench() override;

  /// Opens a book; on failure says why and keeps what was open. A company that cannot be shown is
  /// told of by unshown(), and is not what was open.
  /// Without a company, or where the book does not have it, its first by name is shown.
  bool open(const QString& path, const QString& company = {});
  /// All companies of the open book, by name.
  [[nodiscard]] const std::vector<services::CompanyEntry>& companies() const { return companies_; }
  [[nodiscard]] std::string companyId() const { return session_ ? session_->companyId() : std::string(); }
  /// Shows another company of the open book.
  bool openCompany(const QString& company);
  /// The company after the open one, or before it, around the end.
  bool stepCompany(int by);
  /// Values every company of the book off the window's thread; companiesValued() tells them.
  void valueCompanies();
  /// What works off the window's thread.
  [[nodiscard]] Jobs& jobs() { return jobs_; }
  bool makeDemo(const QString& path);
  /// What stands in the way of showing the company of the book last opened; empty where nothing does.
  [[nodiscard]] QString whyUnshown() const;
  /// The step that would be taken back of a company that cannot be shown; empty where there is none.
  [[nodiscard]] QString unshownStep() const;
  /// Takes that step back and opens the company if it can be shown then.
  bool stepBackUnshown();
  [[nodiscard]] std::pair<QString, QString> unshownCompany() const;  ///< path, company
  /// Whether the book last opened is damaged; whyUnshown() then comes to name the damage.
  [[nodiscard]] bool isDamaged() const { return damage_.has_value(); }
  /// Saves what is whole of the damaged book into a new one and opens that.
  bool rescue(const QString& into);
  /// The book that an open one is a copy of; empty for any other.
  [[nodiscard]] QString copyOf() const;
  /// Puts the open copy in its book's place and opens that.
  bool putCopyBack();
  /// How the first files of a company are read.
  [[nodiscard]] services::ImportContext newContext(const QString& company) const;
  /// Makes a new book from what was previewed and opens it.
  bool makeBook(const QString& path, const QString& company, std::vector<services::ImportPreview> previews);
  [[nodiscard]] bool isOpen() const { return session_ != nullptr; }
  [[nodiscard]] QString path() const;

  /// What is shown: the preview while something is being dragged, else the stored state.
  [[nodiscard]] const services::Snapshot& now() const { return preview_ ? *preview_ : settled(); }
  /// The stored state; ghosts are drawn from it.
  [[nodiscard]] const services::Snapshot& settled() const { return held_ ? *held_ : *session_->now(); }
  [[nodiscard]] bool isPreviewing() const { return preview_ != nullptr; }
  [[nodiscard]] Provenance saidNow(const QString& reason) const;

  /// The scenario that pages with one scenario show.
  [[nodiscard]] int scenario() const { return scenario_; }
  [[nodiscard]] const std::string& scenarioId() const;
  void setScenario(int index);

  /// Shows a case without storing it; refused edits are said once and not shown.
  void preview(const services::CaseEdit& edit);
  void endPreview();
  bool apply(const services::CaseEdit& edit);
  /// Types a part of the company record; what contradicts filings is asked about first.
  bool changeRecord(const Result<services::RecordEdit>& edit);
  /// Types a price (series "price", in the listing's unit) or a rate; of today where no day is given.
  bool typeFigure(const QString& series, double figure, const QString& reason, std::optional<Date> day = {});
  /// A company of this book becomes a peer, or is none any more.
  bool peerOfBook(const QString& id, bool in, const QString& reason);
  /// The book opens with the company that is shown.
  bool makeHome();
  /// Company and name of the peer sets of all other companies; where they cannot be read, that is said.
  [[nodiscard]] std::vector<std::pair<std::string, std::string>> setsOfOthers();
  /// Another company's set of peers comes into use here, or not any more.
  bool shareSet(const std::string& company, const std::string& set, bool in, const QString& reason);
  /// Types or pastes a table of the market under a label.
  bool typeTable(const QString& name, const QString& cells, const QString& label);
  [[nodiscard]] RecordNote notedNow(const QString& reason) const;
  /// Who edits from now on; drafts stay with whoever began them.
  void setAuthor(const QString& author);
  [[nodiscard]] QString author() const { return QString::fromStdString(desk_.author); }
  /// Asks whether something is to be done although it says why it should not.
  void setConfirm(std::function<bool(const QString&)> confirm) { confirm_ = std::move(confirm); }
  /// Moves the open book, with its copies, to another name; what is open stays.
  bool nameBook(const QString& path);
  void undo();
  void redo();
  [[nodiscard]] QString undoLabel() const;
  [[nodiscard]] QString redoLabel() const;

  /// Why nothing can be changed, empty where everything can: a newer program wrote the case.
  [[nodiscard]] QString readOnly() const;
  /// The full model as it ships.
  [[nodiscard]] const model::Model& fullModel() const { return resources_->model; }
  /// The models that ship, the full one first.
  [[nodiscard]] const std::vector<services::ShippedModel>& models() const { return resources_->models; }
  /// What a text of own rows would do; stores nothing.
  [[nodiscard]] services::OwnRowsCheck checkOwnRows(const std::string& text) const;

  /// Who changed what a scenario says of a driver or input, from what to what and why.
  [[nodiscard]] Result<services::AssumptionHistory> historyOf(const std::string& scenario,
                                                              const std::string& row) const;

  /// How files would be read for the open company.
  [[nodiscard]] services::ImportContext importContext() const { return session_->importContext(); }
  /// Stores what was previewed.
  bool bringIn(std::vector<services::ImportPreview> previews);
  /// The document of a fact as text, its place marked.
  [[nodiscard]] Result<services::DocumentView> viewDocument(const Fact& fact) const;
  bool exportCase(const QString& path);
  /// Fails, saying what was done since, where the file is older than the present state, unless `over`.
  bool applyCase(const QString& path, bool over = false);
  /// Whether a file that could not be applied could be applied over what was done since.
  [[nodiscard]] bool couldGoOver() const { return couldGoOver_; }

  /// Keeps what is typed into a field, soon and at the latest when the book is left.
  void keepDraft(const QString& field, const QString& words);
  [[nodiscard]] QString draft(const QString& field) const;
  [[nodiscard]] bool isRestoring() const { return restoring_; }
  /// Writes drafts that wait.
  void flushDrafts();
  /// What waits for another program to have written, after one more try, in words; empty when nothing does.
  [[nodiscard]] QString unwritten();
  /// Shows what another program has stored in the meantime.
  void lookForOthers();

  /// Named versions, oldest first; none when they cannot be read, and the reason is said.
  [[nodiscard]] std::vector<store::KeptVersion> versions();
  bool keepVersion(const QString& name, const QString& note);
  bool goBackTo(const QString& name);
  bool setVersionAside(const QString& name);
  /// A version, or the present state, as it is looked at.
  [[nodiscard]] std::optional<services::Side> sideOf(const QString& name);
  [[nodiscard]] Result<ValueWalk> walkBetween(const services::Side& from, const services::Side& to,
                                              const std::string& scenario, bool byRow) const;

  /// Keeps the state before as a version and moves the case on to the last year filed.
  bool rollForward();
  [[nodiscard]] Result<Figure> referenceValue(services::Reference reference) const;
  [[nodiscard]] Result<services::SumOfCaution> sumOfCaution() const;

  void focus(model::Cell cell, int scenario);
  /// Shows in the trace what a figure that is no row of the model stands on.
  void tell(const services::Telling& story);
  void goTo(Stop stop);
  /// To the stop of a finding, its row traced; a driver comes to the board.
  void goTo(const Finding& finding);
  /// Brings a driver to the board of Outlook.
  void wantDriver(const std::string& driver);
  void say(const QString& message, bool fault = false);

 Q_SIGNALS:
  void opened();
  void shown();      ///< after opened() and changed(): everything stands as it is in the book
  void unshown();    ///< a company was opened that cannot be shown
  void restoring();  ///< fields show the drafts of the book that was opened
  void changed();    ///< settled or preview: refresh what is shown
  void judged();     ///< after changed(): what counts findings need not wait for them before
  void scenarioChanged();
  void focused(zl::model::Cell cell, int scenario);
  void told(const zl::services::Story& story);
  void stopWanted(zl::Stop stop);
  void driverWanted(const QString& driver);
  /// A view of a page, and perhaps one of its tables, by the names that they have there.
  void viewWanted(zl::Stop stop, const QString& view, const QString& table);
  void versionWanted(const QString& name);
  void companiesValued(const std::vector<zl::services::CompanyValue>& values);
  void said(const QString& message, bool fault);

 private:
  bool report(const Status& status);
  QString leave();
  [[nodiscard]] bool mayLeave();
  void tellLost(const QString& lost);
  bool showDamage(const std::string& path, const Error& fault);
  bool openIn(store::Book book, std::shared_ptr<services::CaseEvaluator> evaluator, const std::string& wanted);
  void show(std::unique_ptr<services::Session> session);
  void makeTodaysCopy();
  void lookThrough(const std::string& path);
  void retry();
  void tellChanged();
  bool finish(const Status& status);
  bool typed(const Status& status, const QString& label);
  void away(const QString& title, const std::function<void()>& work);

  std::shared_ptr<const services::Resources> resources_;
  services::Desk desk_;
  std::function<bool(const QString&)> confirm_ = [](const QString&) { return false; };
  std::unique_ptr<services::Session> session_;
  std::unique_ptr<services::Session> unshown_;     ///< opened, and with nothing to show
  std::vector<services::CompanyEntry> companies_;  ///< of the book last opened
  std::shared_ptr<const services::Snapshot> preview_;
  std::shared_ptr<const services::Snapshot> held_;  ///< shown while the session is worked on by another thread
  std::optional<Error> damage_;                     ///< of the book last opened
  std::string damagedPath_;
  std::optional<services::CaseEdit> waiting_;  ///< for another program to have written
  int tries_ = 0;
  bool couldGoOver_ = false;
  std::map<std::string, std::string> drafts_;
  std::set<std::string> unsaved_;  ///< drafts that wait to be written
  bool restoring_ = false;
  QTimer draftTimer_, othersTimer_, retryTimer_;
  std::string copiedDay_;  ///< of the open book, as far as is known here
  int scenario_ = 1;
  Jobs jobs_;  ///< the last member: its end waits for work that speaks of the others
};

}  // namespace zl::app
