#include "app/workbench.h"

#include <algorithm>

#include "app/look/theme.h"
#include "services/demo.h"
#include "services/roll_forward.h"

namespace zl::app {

using services::Session;

Workbench::Workbench(std::shared_ptr<const services::Resources> resources, services::Desk desk, QObject* parent)
    : QObject(parent), resources_(std::move(resources)), desk_(std::move(desk)) {}

bool Workbench::report(const Status& status) {
  if (!status) say(text(status.error().text()), true);
  return status.has_value();
}

void Workbench::say(const QString& message, bool fault) {
  Q_EMIT said(message, fault);
}

bool Workbench::open(const QString& path, const QString& company) {
  Result<std::unique_ptr<Session>> session =
      Session::open(path.toStdString(), company.toStdString(), resources_, desk_);
  if (!session) return report(tl::unexpected(session.error()));
  session_ = std::move(*session);
  preview_.reset();
  scenario_ = std::max(0, now().caseOf().indexOf(kBase));
  Q_EMIT opened();
  Q_EMIT changed();
  return true;
}

bool Workbench::makeDemo(const QString& path) {
  return report(services::makeDemoBook(path.toStdString(), resources_, desk_)) && open(path);
}

services::ImportContext Workbench::newContext(const QString& company) const {
  return {company.toStdString(), resources_, desk_.now(), {}};
}

bool Workbench::makeBook(const QString& path, const QString& company, std::vector<services::ImportPreview> previews) {
  const Result<Session::ImportResult> result =
      Session::bringIn(path.toStdString(), company.toStdString(), std::move(previews), resources_, desk_);
  if (!result) return report(tl::unexpected(result.error()));
  return open(path, company);
}

QString Workbench::path() const {
  return session_ ? text(session_->path()) : QString();
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
  const bool done = report(session_->apply(edit));
  if (done) say(text(edit.label));
  Q_EMIT changed();
  return done;
}

void Workbench::undo() {
  if (!session_) return;
  preview_.reset();
  const QString label = undoLabel();
  if (report(session_->undo())) say(tr("Undone: %1").arg(label));
  Q_EMIT changed();
}

void Workbench::redo() {
  if (!session_) return;
  preview_.reset();
  const QString label = redoLabel();
  if (report(session_->redo())) say(tr("Done again: %1").arg(label));
  Q_EMIT changed();
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
  return services::checkOwnRows(settled(), resources_, typed);
}

Result<services::AssumptionHistory> Workbench::historyOf(const std::string& scenario, const std::string& row) const {
  return services::historyOf(*session_, scenario, row);
}

bool Workbench::bringIn(std::vector<services::ImportPreview> previews) {
  preview_.reset();
  const Result<Session::ImportResult> result = session_->bringIn(std::move(previews));
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
  return report(services::writeFile(path.toStdString(), services::caseText(settled())));
}

bool Workbench::applyCase(const QString& path) {
  const Result<std::string> content = services::readFile(path.toStdString());
  if (!content) return report(tl::unexpected(content.error()));
  preview_.reset();
  const bool done = report(services::applyCaseText(*session_, *content, services::fileName(path.toStdString())));
  Q_EMIT changed();
  return done;
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
  const bool done = report(session_->goBackTo(name.toStdString()));
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
  Result<services::Side> side = services::sideOf(*session_, name.toStdString());
  if (side) return std::move(*side);
  report(tl::unexpected(side.error()));
  return std::nullopt;
}

Result<ValueWalk> Workbench::walkBetween(const services::Side& from, const services::Side& to,
                                         const std::string& scenario, bool byRow) const {
  return services::walkBetween(from, to, scenario, byRow, resources_);
}

bool Workbench::rollForward() {
  preview_.reset();
  const QString kept = text(services::nameBeforeRolling(*session_->now()));
  const bool done = report(services::keepAndRollForward(*session_));
  if (done)
    say(tr("Rolled forward to %1; the state before is kept as '%2'").arg(now().years().back().label()).arg(kept));
  Q_EMIT changed();
  return done;
}

Result<Figure> Workbench::referenceValue(services::Reference reference) const {
  return services::referenceValue(now(), resources_, reference);
}

Result<services::SumOfCaution> Workbench::sumOfCaution() const {
  return services::sumOfCaution(now(), resources_);
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
  const int row = m.find(finding.row);
  goTo(finding.stop);
  if (row < 0) return;
  if (finding.stop == Stop::Outlook && m.rows[static_cast<size_t>(row)].role == model::Role::Driver) {
    wantDriver(finding.row);
  }
  focus({row, std::max(0, finding.column)}, -1);
}

void Workbench::wantDriver(const std::string& driver) {
  goTo(Stop::Outlook);
  Q_EMIT driverWanted(text(driver));
}

}  // namespace zl::app
