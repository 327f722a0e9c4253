// Books and companies: opened, left, made, saved from damage, put back from copies, given names.

#include <QFileInfo>
#include <algorithm>

#include "app/bench/workbench.h"
#include "app/look/theme.h"
#include "core/text/utf8.h"
#include "services/sessions/book_care.h"
#include "services/sessions/demo.h"
#include "store/copies.h"

namespace zl::app {

using services::Session;

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
  tellChanged();
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

}  // namespace zl::app
