#include "app/bench/workbench.h"

#include <QFileInfo>
#include <algorithm>

#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "core/text/utf8.h"
#include "services/sessions/book_care.h"
#include "services/sessions/case_file.h"
#include "services/sessions/demo.h"
#include "services/views/listing_view.h"
#include "services/views/roll_forward.h"
#include "store/copies.h"

namespace zl::app {

using services::Session;

namespace {
constexpr int kPatience = 60;         // milliseconds that a lock may hold up a frame
constexpr int kTryAgain = 120;        // milliseconds between tries of an edit that waits
constexpr int kMostTries = 80;        // about ten seconds
constexpr int kDraftAfter = 400;      // milliseconds after the last key
constexpr int kLookForOthers = 2000;  // milliseconds
}  // namespace

Workbench::Workbench(std::shared_ptr<const services::Resources> resources, services::Desk desk, QObject* parent)
    : QObject(parent), resources_(std::move(resources)), desk_(std::move(desk)) {
  desk_.patience = kPatience;
  draftTimer_.setSingleShot(true);
  draftTimer_.setInterval(kDraftAfter);
  connect(&draftTimer_, &QTimer::timeout, this, &Workbench::flushDrafts);
  retryTimer_.setInterval(kTryAgain);
  connect(&retryTimer_, &QTimer::timeout, this, &Workbench::retry);
  othersTimer_.setInterval(kLookForOthers);
  connect(&othersTimer_, &QTimer::timeout, this, &Workbench::lookForOthers);
}

Workbench::~Workbench() {
  flushDrafts();
}

bool Workbench::report(const Status& status) {
  if (!status) say(text(status.error().text()), true);
  return status.has_value();
}

void Workbench::say(const QString& message, bool fault) {
  Q_EMIT said(message, fault);
}

/// What takes its time and is waited for: the window shows what stood before until it is done.
void Workbench::away(const QString& title, const std::function<void()>& work) {
  if (session_) held_ = session_->now();
  const auto released = [this](void*) { held_.reset(); };
  const std::unique_ptr<void, decltype(released)> whateverHappens(this, released);
  jobs_.untilDone(title, work);
}

bool Workbench::open(const QString& path, const QString& company) {
  Result<store::Book> book = tl::unexpected(Error{});
  away(tr("Opening the book"), [&] {
    book = store::Book::open(path.toStdString());
    if (book) book->setPatience(desk_.patience);
  });
  if (!book && book.error().kind == ErrorKind::Damaged) return showDamage(path.toStdString(), book.error());
  if (!book) return report(tl::unexpected(book.error()));
  return openIn(std::move(*book), services::CaseEvaluator::upon(resources_), company.toStdString());
}

bool Workbench::openIn(store::Book book, std::shared_ptr<services::CaseEvaluator> evaluator,
                       const std::string& wanted) {
  const std::string path = book.path();
  Result<std::vector<services::CompanyEntry>> companies;
  Result<std::unique_ptr<Session>> session;
  away(tr("Opening the company"), [&] {
    companies = services::companiesOf(book);
    if (!companies) {
      session = tl::unexpected(companies.error());
      return;
    }
    std::string id;
    if (!companies->empty()) {
      const auto found = std::find_if(companies->begin(), companies->end(),
                                      [&](const services::CompanyEntry& c) { return c.id == wanted; });
      const Result<std::string> home = services::homeOf(book);
      if (!home) {
        session = tl::unexpected(home.error());
        return;
      }
      id = found != companies->end() ? wanted : home->empty() ? companies->front().id : *home;
    }
    session = Session::openIn(std::move(book), id, std::move(evaluator), desk_);
  });
  if (!session && session.error().kind == ErrorKind::Damaged) return showDamage(path, session.error());
  if (!session) return report(tl::unexpected(session.error()));
  if (!mayLeave()) return false;
  const QString lost = leave();
  companies_ = std::move(*companies);
  if (const std::optional<Error> fault = (*session)->fault()) {
    unshown_ = std::move(*session);
    session_.reset();
    if (fault->kind == ErrorKind::Damaged) {
      damage_ = *fault;
      damagedPath_ = path;
      lookThrough(path);
    }
    Q_EMIT unshown();
    tellLost(lost);
    return false;
  }
  show(std::move(*session));
  tellLost(lost);
  return true;
}

bool Workbench::showDamage(const std::string& path, const Error& fault) {
  if (!mayLeave()) return false;
  const QString lost = leave();
  companies_.clear();
  session_.reset();
  damage_ = fault;
  damagedPath_ = path;
  lookThrough(path);
  Q_EMIT unshown();
  tellLost(lost);
  return false;
}

bool Workbench::openCompany(const QString& company) {
  const std::string wanted = company.toStdString();
  const Session* from = session_ ? session_.get() : unshown_.get();
  if (from == nullptr || wanted == from->companyId()) return false;
  return openIn(from->book(), from->evaluator(), wanted);
}

bool Workbench::stepCompany(int by) {
  const Session* from = session_ ? session_.get() : unshown_.get();
  if (from == nullptr || companies_.size() < 2) return false;
  const auto count = static_cast<int>(companies_.size());
  const auto found = std::find_if(companies_.begin(), companies_.end(),
                                  [&](const services::CompanyEntry& c) { return c.id == from->companyId(); });
  const auto at = static_cast<int>(found - companies_.begin());
  const int next = ((at + by) % count + count) % count;
  return openCompany(QString::fromStdString(companies_[static_cast<size_t>(next)].id));
}

bool Workbench::mayLeave() {
  if (waiting_) say(tr("One moment: %1").arg(unwritten()), true);
  return !waiting_;
}

void Workbench::tellLost(const QString& lost) {
  if (!lost.isEmpty()) say(tr("Not kept in the book before: %1").arg(lost), true);
}

/// Before another book takes the place of the open one; what of it could not be written.
QString Workbench::leave() {
  QString lost = unwritten();
  unsaved_.clear();  // they are this book's and must not go into the next one
  draftTimer_.stop();
  preview_.reset();
  unshown_.reset();
  damage_.reset();
  return lost;
}

QString Workbench::unwritten() {
  flushDrafts();
  if (waiting_)
    return tr("another program is still writing, and this edit waits for it: %1").arg(text(waiting_->label));
  if (!unsaved_.empty()) return tr("another program is still writing, and what is being typed waits for it");
  return {};
}

void Workbench::show(std::unique_ptr<Session> session) {
  session_ = std::move(session);
  scenario_ = std::max(0, now().caseOf().indexOf(kBase));
  drafts_.clear();
  if (const auto drafts = session_->drafts()) {
    for (const store::Draft& draft : *drafts) drafts_[draft.field] = draft.text;
  }
  Q_EMIT opened();
  restoring_ = true;
  Q_EMIT restoring();
  restoring_ = false;
  Q_EMIT changed();
  for (const std::string& notice : session_->notices()) say(text(notice));
  copiedDay_.clear();
  makeTodaysCopy();
  othersTimer_.start();
  Q_EMIT shown();
}

/// By a connection of its own; the session leaves its copies to this.
void Workbench::makeTodaysCopy() {
  session_->leaveCopies();
  const std::string day = dateText(desk_.today());
  if (copiedDay_ == day || !session_->readOnly().empty()) return;
  copiedDay_ = day;
  jobs_.start(QStringLiteral("copy"), tr("Making today's copy of the book"),
              [this, day, path = session_->path()](const JobContext&) -> Jobs::Then {
                const Status made = store::copyForDay(path, day);
                if (made) return {};
                return [this, words = text(made.error().text())] {
                  say(tr("Today's copy of the book was not made: %1").arg(words), true);
                };
              });
}

/// Names the damage where it is: a large book takes its time.
void Workbench::lookThrough(const std::string& path) {
  jobs_.start(QStringLiteral("look"), tr("Looking through the book"),
              [this, path, resources = resources_, desk = desk_](const JobContext&) -> Jobs::Then {
                const Result<services::BookCheck> check = services::checkBook(path, resources, desk);
                return [this, path, found = check ? services::checkText(*check) : check.error().text()] {
                  if (!damage_ || damagedPath_ != path) return;  // another book was opened meanwhile
                  constexpr std::size_t kMost = 1500;
                  damage_->what += "\n" + shortened(found, kMost);
                  Q_EMIT unshown();
                };
              });
}

void Workbench::valueCompanies() {
  if (!session_ || companies_.size() < 2) return;
  jobs_.start(QStringLiteral("values"), tr("Valuing the companies of the book"),
              [this, path = session_->path(), resources = resources_,
               today = desk_.today()](const JobContext& context) -> Jobs::Then {
                const auto refused = [this](const Error& error) {
                  return [this, words = text(error.text())] { say(words, true); };
                };
                Result<store::Book> book = store::Book::open(path);
                if (!book) return refused(book.error());
                // Not by the session's: what the open company stands on would go out of its caches.
                const auto evaluator = services::CaseEvaluator::upon(resources);
                auto values =
                    services::valuesOf(*book, *evaluator, today, context.stopped, [&](size_t done, size_t total) {
                      context.progress(static_cast<int>(done), static_cast<int>(total), {});
                    });
                if (!values) return refused(values.error());
                return [this, path, list = std::move(*values)] {
                  if (!session_ || session_->path() != path) return;
                  Q_EMIT companiesValued(list);
                };
              });
}

bool Workbench::rescue(const QString& into) {
  if (!damage_) return false;
  auto survey = Result<store::Survey>();
  away(tr("Saving what is whole"),
       [&] { survey = services::rescueBook(damagedPath_, into.toStdString(), resources_, desk_); });
  if (!survey) return report(tl::unexpected(survey.error()));
  return open(into);
}

QString Workbench::whyUnshown() const {
  if (damage_) return text(damage_->what);
  return unshown_ && unshown_->fault() ? text(unshown_->fault()->text()) : QString();
}

QString Workbench::unshownStep() const {
  return unshown_ ? text(unshown_->undoLabel()) : QString();
}

std::pair<QString, QString> Workbench::unshownCompany() const {
  if (!unshown_) return {QString::fromStdString(damagedPath_), QString()};
  return {QString::fromStdString(unshown_->path()), QString::fromStdString(unshown_->companyId())};
}

bool Workbench::stepBackUnshown() {
  if (!unshown_) return false;
  const QString label = unshownStep();
  Status undone;
  away(tr("Taking back: %1").arg(label), [&] { undone = unshown_->undo(); });
  if (!report(undone)) return false;
  if (unshown_->fault()) {
    Q_EMIT unshown();
    return false;
  }
  show(std::move(unshown_));
  say(tr("Undone: %1").arg(label));
  return true;
}

QString Workbench::copyOf() const {
  return session_ ? QString::fromStdString(store::bookOfCopy(session_->path())) : QString();
}

void Workbench::setAuthor(const QString& author) {
  flushDrafts();
  desk_.author = harmless(author.toStdString());
  if (session_) session_->setAuthor(desk_.author);
}

bool Workbench::putCopyBack() {
  const std::string book = store::bookOfCopy(session_->path());
  const std::string copy = session_->path();
  if (book.empty()) return false;
  Result<std::string> kept;
  away(tr("Putting the copy back"), [&] { kept = store::putBack(copy, book, desk_.now()); });
  if (!kept) return report(tl::unexpected(kept.error()));
  if (!open(QString::fromStdString(book), QString::fromStdString(session_->companyId()))) return false;
  say(tr("The book is as it was in that copy; what stood there is kept as %1").arg(QString::fromStdString(*kept)));
  return true;
}

bool Workbench::makeDemo(const QString& path) {
  Status made;
  away(tr("Making the demo book"), [&] { made = services::makeDemoBook(path.toStdString(), resources_, desk_); });
  return report(made) && open(path);
}

void Workbench::keepDraft(const QString& field, const QString& words) {
  if (!session_ || !session_->readOnly().empty()) return;
  const std::string name = field.toStdString();
  std::string typed = words.toStdString();
  if (drafts_.count(name) == 0 && typed.empty()) return;
  drafts_[name] = std::move(typed);
  unsaved_.insert(name);
  draftTimer_.start();
}

QString Workbench::draft(const QString& field) const {
  const auto found = drafts_.find(field.toStdString());
  return found == drafts_.end() ? QString() : QString::fromStdString(found->second);
}

void Workbench::flushDrafts() {
  draftTimer_.stop();
  if (!session_) return;
  if (jobs_.isBusy()) return draftTimer_.start();
  for (auto at = unsaved_.begin(); at != unsaved_.end();) {
    const Status kept = session_->keepDraft({*at, drafts_[*at]});
    if (!kept && kept.error().kind == ErrorKind::Busy) {
      draftTimer_.start();  // soon again
      return;
    }
    if (!kept) say(tr("What is being typed cannot be kept: %1").arg(text(kept.error().text())), true);
    if (drafts_[*at].empty()) drafts_.erase(*at);
    at = unsaved_.erase(at);
  }
}

void Workbench::lookForOthers() {
  if (!session_ || preview_ || waiting_ || jobs_.isBusy()) return;
  if (copiedDay_ != dateText(desk_.today())) makeTodaysCopy();
  const Result<Session::News> news = session_->refresh();
  if (!news || *news == Session::News::None) return;  // what is wrong with the book is said when it is used
  if (session_->fault()) {
    unshown_ = std::move(session_);
    Q_EMIT unshown();
    return;
  }
  Q_EMIT changed();
  const services::GivenFigure& price = session_->now()->given(model::Role::Price);
  say(*news == Session::News::Market ? tr("Figures of the market have come in; the price is %1 (%2)")
                                           .arg(text(figureText(price.figure, Kind::Quote)), text(price.source))
                                     : tr("Another program has changed this book; it is shown as it is now"));
}

services::ImportContext Workbench::newContext(const QString& company) const {
  return {company.toStdString(), resources_, desk_.now(), {}};
}

bool Workbench::makeBook(const QString& path, const QString& company, std::vector<services::ImportPreview> previews) {
  Result<Session::ImportResult> result;
  away(tr("Making the book"), [&] {
    result = Session::bringIn(path.toStdString(), company.toStdString(), std::move(previews), resources_, desk_);
  });
  if (!result) return report(tl::unexpected(result.error()));
  return open(path, company);
}

QString Workbench::path() const {
  return session_ ? QString::fromStdString(session_->path()) : QString();
}

Provenance Workbench::saidNow(const QString& reason) const {
  return session_->said(reason.toStdString());
}

const std::string& Workbench::scenarioId() const {
  return now().caseOf().scenarios[static_cast<size_t>(scenario_)].id;
}

void Workbench::setScenario(int index) {
  if (index == scenario_ || index < 0 || index >= static_cast<int>(now().caseOf().scenarios.size())) return;
  scenario_ = index;
  Q_EMIT scenarioChanged();
  Q_EMIT changed();
}

void Workbench::preview(const services::CaseEdit& edit) {
  Result<std::shared_ptr<const services::Snapshot>> next = session_->preview(edit.after);
  if (!next) {
    say(text(next.error().text()), true);
    return;
  }
  preview_ = std::move(*next);
  Q_EMIT changed();
}

void Workbench::endPreview() {
  if (!preview_) return;
  preview_.reset();
  Q_EMIT changed();
}

bool Workbench::apply(const services::CaseEdit& edit) {
  preview_.reset();
  if (waiting_) {
    say(tr("The edit before still waits for another program to finish writing; make this one again in a moment"), true);
    return false;
  }
  const Status applied = session_->apply(edit);
  if (!applied && applied.error().kind == ErrorKind::Busy) {
    waiting_ = edit;
    tries_ = 0;
    retryTimer_.start();
    say(tr("Waiting for another program to finish writing: %1").arg(text(edit.label)));
    Q_EMIT changed();
    return false;
  }
  const bool done = report(applied);
  if (done) say(text(edit.label));
  finish(applied);
  return done;
}

/// What was typed beside the case is stored and shown, or refused.
bool Workbench::typed(const Status& status, const QString& label) {
  preview_.reset();
  if (report(status)) say(label);
  return finish(status);
}

bool Workbench::changeRecord(const Result<services::RecordEdit>& edit) {
  if (!edit) return report(tl::unexpected(edit.error()));
  const std::string against = services::contradictionOf(edit->after, settled());
  if (!against.empty() && !confirm_(tr("%1. Is the record right?").arg(text(against)))) {
    say(tr("%1; nothing was changed").arg(text(against)), true);
    return false;
  }
  return typed(session_->changeRecord(*edit), text(edit->label));
}

bool Workbench::typeFigure(const QString& series, double figure, const QString& reason, std::optional<Date> day) {
  const Date at = day.value_or(desk_.today());
  return typed(session_->typeFigure(series.toStdString(), at, figure, reason.toStdString()),
               tr("%1 of %2: %3").arg(series, text(dateText(at)), text(plainNumber(figure))));
}

bool Workbench::peerOfBook(const QString& id, bool in, const QString& reason) {
  return typed(session_->peerOfBook(id.toStdString(), in, reason.toStdString()),
               in ? tr("%1 is a peer, from its own statements").arg(id) : tr("%1 is no peer any more").arg(id));
}

bool Workbench::makeHome() {
  return typed(session_->makeHome(session_->companyId()), tr("The book opens with %1").arg(text(now().company().name)));
}

std::vector<std::pair<std::string, std::string>> Workbench::setsOfOthers() {
  const auto sets = session_->setsOfOthers();
  if (sets) return *sets;
  say(text(sets.error().text()), true);
  return {};
}

bool Workbench::shareSet(const std::string& company, const std::string& set, bool in, const QString& reason) {
  const QString name = tr("%1 of %2").arg(text(set), text(company));
  return typed(session_->shareSet(company, set, in, reason.toStdString()),
               in ? tr("The set %1 is shared").arg(name) : tr("The set %1 is shared no more").arg(name));
}

bool Workbench::typeTable(const QString& name, const QString& cells, const QString& label) {
  const Result<std::vector<std::string>> warnings =
      session_->typeTable(name.toStdString(), cells.toStdString(), label.toStdString());
  if (!warnings) return typed(tl::unexpected(warnings.error()), {});
  QString message = label;
  for (const std::string& warning : *warnings) message += QStringLiteral("; ") + text(warning);
  return typed({}, message);
}

RecordNote Workbench::notedNow(const QString& reason) const {
  const Provenance said = saidNow(reason);
  return {said.reason, said.author, said.at};
}

/// A whole copy by the database's own means is opened before the old file goes: at no moment is there no book.
bool Workbench::nameBook(const QString& into) {
  const QString from = path();
  if (!mayLeave()) return false;
  flushDrafts();
  if (const Status copied = session_->copyTo(into.toStdString()); !copied) return report(copied);
  if (!open(into, QString::fromStdString(companyId())) || path() != QFileInfo(into).absoluteFilePath()) return false;
  report(store::takeAway(from.toStdString(), into.toStdString()));
  return true;
}

/// Shows what there is now.
bool Workbench::finish(const Status& status) {
  if (session_->fault()) {  // somebody else's doing
    unshown_ = std::move(session_);
    Q_EMIT unshown();
    return false;
  }
  Q_EMIT changed();
  return status.has_value();
}

void Workbench::retry() {
  if (!waiting_ || !session_) return retryTimer_.stop();
  const Status applied = session_->apply(*waiting_);
  if (!applied && applied.error().kind == ErrorKind::Busy && ++tries_ < kMostTries) return;
  const services::CaseEdit edit = std::move(*waiting_);
  waiting_.reset();
  retryTimer_.stop();
  if (report(applied)) say(text(edit.label));
  finish(applied);
}

void Workbench::undo() {
  if (!session_) return;
  preview_.reset();
  const QString label = undoLabel();
  Status undone;
  away(tr("Taking back: %1").arg(label), [&] { undone = session_->undo(); });
  if (report(undone)) say(tr("Undone: %1").arg(label));
  finish(undone);
}

void Workbench::redo() {
  if (!session_) return;
  preview_.reset();
  const QString label = redoLabel();
  Status redone;
  away(tr("Doing again: %1").arg(label), [&] { redone = session_->redo(); });
  if (report(redone)) say(tr("Done again: %1").arg(label));
  finish(redone);
}

QString Workbench::undoLabel() const {
  return session_ ? text(session_->undoLabel()) : QString();
}
QString Workbench::redoLabel() const {
  return session_ ? text(session_->redoLabel()) : QString();
}

QString Workbench::readOnly() const {
  return session_ ? text(session_->readOnly()) : QString();
}

services::OwnRowsCheck Workbench::checkOwnRows(const std::string& typed) const {
  return services::checkOwnRows(settled(), typed);
}

Result<services::AssumptionHistory> Workbench::historyOf(const std::string& scenario, const std::string& row) const {
  return services::historyOf(*session_, scenario, row);
}

bool Workbench::bringIn(std::vector<services::ImportPreview> previews) {
  preview_.reset();
  Result<Session::ImportResult> result;
  away(tr("Storing what was read"), [&] { result = session_->bringIn(std::move(previews)); });
  if (!result) return report(tl::unexpected(result.error()));
  QString message = tr("Imported %1").arg(counted(static_cast<int>(result->files.size()), tr("file"), tr("files")));
  for (const std::string& warning : result->warnings) message += QStringLiteral("; ") + text(warning);
  say(message);
  Q_EMIT changed();
  return true;
}

Result<services::DocumentView> Workbench::viewDocument(const Fact& fact) const {
  const store::StoredDocument* document = now().document(fact.document);
  const Result<std::string> content = session_->documentContent(fact.document);
  if (!content) return tl::unexpected(content.error());
  return services::viewDocument(*content, document == nullptr ? std::string() : document->document.name, fact.place);
}

bool Workbench::exportCase(const QString& path) {
  const Result<std::string> written = services::caseText(*session_);
  if (!written) return report(tl::unexpected(written.error()));
  return report(services::writeFile(path.toStdString(), *written));
}

bool Workbench::applyCase(const QString& path, bool over) {
  couldGoOver_ = false;
  const Result<std::string> content = services::readFile(path.toStdString());
  if (!content) return report(tl::unexpected(content.error()));
  preview_.reset();
  Status applied;
  away(tr("Applying the case"), [&] {
    applied = services::applyCaseText(*session_, *content, services::fileName(path.toStdString()),
                                      over ? services::Over::Anything : services::Over::SameState);
  });
  couldGoOver_ = !over && !applied && applied.error().kind == ErrorKind::Conflict;
  report(applied);
  return finish(applied);
}

std::vector<store::KeptVersion> Workbench::versions() {
  Result<std::vector<store::KeptVersion>> list = session_->versions();
  if (!list) report(tl::unexpected(list.error()));
  return list ? std::move(*list) : std::vector<store::KeptVersion>();
}

bool Workbench::keepVersion(const QString& name, const QString& note) {
  const bool done = report(session_->keepVersion(name.toStdString(), note.toStdString()));
  if (done) say(tr("Kept as '%1'").arg(name.trimmed()));
  Q_EMIT changed();
  return done;
}

bool Workbench::goBackTo(const QString& name) {
  preview_.reset();
  Status back;
  away(tr("Going back to '%1'").arg(name), [&] { back = session_->goBackTo(name.toStdString()); });
  const bool done = report(back);
  if (done) say(tr("Back to version '%1'").arg(name));
  Q_EMIT changed();
  return done;
}

bool Workbench::setVersionAside(const QString& name) {
  const bool done = report(session_->setVersionAside(name.toStdString()));
  if (done) say(tr("'%1' is off the list").arg(name));
  Q_EMIT changed();
  return done;
}

std::optional<services::Side> Workbench::sideOf(const QString& name) {
  if (name == QLatin1String(services::kNow))
    return services::Side{services::kNow, preview_ ? preview_ : session_->now()};
  Result<services::Side> side;
  away(tr("Reading version '%1'").arg(name), [&] { side = services::sideOf(*session_, name.toStdString()); });
  if (side) return std::move(*side);
  report(tl::unexpected(side.error()));
  return std::nullopt;
}

Result<ValueWalk> Workbench::walkBetween(const services::Side& from, const services::Side& to,
                                         const std::string& scenario, bool byRow) const {
  return services::walkBetween(from, to, scenario, byRow);
}

bool Workbench::rollForward() {
  preview_.reset();
  const QString kept = text(services::nameBeforeRolling(*session_->now()));
  Status rolled;
  away(tr("Rolling forward"), [&] { rolled = services::keepAndRollForward(*session_); });
  const bool done = report(rolled);
  if (done)
    say(tr("Rolled forward to %1; the state before is kept as '%2'").arg(now().years().back().label()).arg(kept));
  Q_EMIT changed();
  return done;
}

Result<Figure> Workbench::referenceValue(services::Reference reference) const {
  return services::referenceValue(now(), reference);
}

Result<services::SumOfCaution> Workbench::sumOfCaution() const {
  return services::sumOfCaution(now());
}

void Workbench::focus(model::Cell cell, int scenario) {
  Q_EMIT focused(cell, scenario);
}
void Workbench::tell(const services::Telling& story) {
  Q_EMIT told(story(now()));
}

void Workbench::goTo(Stop stop) {
  Q_EMIT stopWanted(stop);
}

void Workbench::goTo(const Finding& finding) {
  const model::Model& m = now().evaluation->model();
  const model::RowId row = m.find(finding.row);
  goTo(finding.stop);
  if (!row.known()) return;
  if (finding.stop == Stop::Outlook && m[row].declared == model::Declared::Driver) {
    wantDriver(finding.row);
  }
  focus({row, std::max(0, finding.column)}, -1);
}

void Workbench::wantDriver(const std::string& driver) {
  goTo(Stop::Outlook);
  Q_EMIT driverWanted(text(driver));
}

}  // namespace zl::app
