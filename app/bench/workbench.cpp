#include "app/bench/workbench.h"

#include <algorithm>
#include <future>

#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "core/text/utf8.h"
#include "services/sessions/case_file.h"
#include "services/views/listing_view.h"

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

void Workbench::setAuthor(const QString& author) {
  flushDrafts();
  desk_.author = harmless(author.toStdString());
  if (session_) session_->setAuthor(desk_.author);
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
  tellChanged();
  const services::GivenFigure& price = session_->now()->given(model::Role::Price);
  say(*news == Session::News::Market ? tr("Figures of the market have come in; the price is %1 (%2)")
                                           .arg(text(figureText(price.figure, Kind::Quote)), text(price.source))
                                     : tr("Another program has changed this book; it is shown as it is now"));
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
  tellChanged();
}

void Workbench::preview(const services::CaseEdit& edit) {
  Result<std::shared_ptr<const services::Snapshot>> next = session_->preview(edit.after);
  if (!next) {
    say(text(next.error().text()), true);
    return;
  }
  preview_ = std::move(*next);
  tellChanged();
}

void Workbench::endPreview() {
  if (!preview_) return;
  preview_.reset();
  tellChanged();
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
    tellChanged();
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

/// What monitors find is looked for beside the pages that take up what has changed, and told of after them.
void Workbench::tellChanged() {
  std::future<void> found;
  if (session_ && !preview_ && !held_) {
    found = std::async(std::launch::async, [shown = session_->now()] { static_cast<void>(shown->findings()); });
  }
  Q_EMIT changed();
  Q_EMIT judged();
}

/// Shows what there is now.
bool Workbench::finish(const Status& status) {
  if (session_->fault()) {  // somebody else's doing
    unshown_ = std::move(session_);
    Q_EMIT unshown();
    return false;
  }
  tellChanged();
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
  tellChanged();
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
