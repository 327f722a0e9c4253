#include "app/frame/main_window.h"

#include <QClipboard>
#include <QFileInfo>
#include <QGuiApplication>
#include <QStatusBar>

#include "app/frame/glossary.h"
#include "app/frame/unnamed_books.h"
#include "core/quantity/number_text.h"
#include "services/text/short_name.h"
#include "store/copies.h"

namespace zl::app {
namespace {
constexpr int kMostRecent = 6;

std::vector<std::string> pathsOf(const QStringList& files) {
  std::vector<std::string> paths;
  for (const QString& file : files) paths.push_back(file.toStdString());
  return paths;
}
}  // namespace

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

}  // namespace zl::app
