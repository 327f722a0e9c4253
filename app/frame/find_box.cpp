#include "app/frame/find_box.h"

#include <algorithm>
#include <map>

#include "app/frame/route_panel.h"
#include "app/look/theme.h"

namespace zl::app {
namespace {
constexpr int kLetters = 44;
}

FindBox::FindBox(Workbench& bench, QWidget* parent) : QLineEdit(parent), bench_(bench) {
  setObjectName(QStringLiteral("find"));
  setAccessibleName(tr("Find a line, driver, page, version, finding or action"));
  setPlaceholderText(tr("Find anything, Ctrl+F"));
  setFixedWidth(fontMetrics().averageCharWidth() * kLetters);
  setClearButtonEnabled(true);
  auto* completer = new QCompleter(&names_, this);
  completer->setCaseSensitivity(Qt::CaseInsensitive);
  completer->setFilterMode(Qt::MatchContains);
  completer->setMaxVisibleItems(14);
  setCompleter(completer);
  connect(completer, qOverload<const QString&>(&QCompleter::activated), this, &FindBox::go);
  connect(this, &QLineEdit::returnPressed, this, [this] {
    QCompleter* c = this->completer();
    c->setCompletionPrefix(text());
    const bool exact = names_.stringList().contains(text(), Qt::CaseInsensitive);
    go(!exact && c->completionCount() > 0 ? c->currentCompletion() : text());
  });
  connect(&bench_, &Workbench::opened, this, &FindBox::fill);
}

void FindBox::focusInEvent(QFocusEvent* event) {
  QLineEdit::focusInEvent(event);
  if (bench_.isOpen()) fill();
}

void FindBox::addRows() {
  const model::Model& m = bench_.now().evaluation->model();
  for (const model::Row& row : m.rows) {
    // By name, not by place: own rows may move it before it is gone to.
    places_.push_back({zl::app::text(row.label),
                       [this, name = row.name] {
                         const model::Model& now = bench_.now().evaluation->model();
                         const model::RowId at = now.find(name);
                         if (!at.known()) return;
                         const model::Row& found = now[at];
                         if (found.declared == model::Declared::Driver) return bench_.wantDriver(name);
                         const bool constant = found.timing == model::Timing::Constant;
                         bench_.focus({at, constant ? 0 : bench_.now().evaluation->layout().baseColumn()}, -1);
                       },
                       zl::app::text(row.group.empty() ? row.name : row.group)});
  }
}

/// Names that several things have get their group's after them; a name that is left is numbered.
void FindBox::tellApart() {
  std::map<QString, int> count;
  for (const Place& place : places_) ++count[place.name.toCaseFolded()];
  for (Place& place : places_) {
    if (count[place.name.toCaseFolded()] > 1 && !place.among.isEmpty())
      place.name = tr("%1, among %2").arg(place.name, place.among);
  }
  count.clear();
  for (Place& place : places_) {
    const int before = count[place.name.toCaseFolded()]++;
    if (before > 0) place.name = tr("%1 (%2)").arg(place.name).arg(before + 1);
  }
}

void FindBox::fill() {
  places_.clear();
  for (Stop stop : pageStops()) {
    places_.push_back({QString::fromLatin1(stopWord(stop)), [this, stop] { bench_.goTo(stop); }});
  }
  places_.push_back({zl::app::text(bench_.now().company().name), [this] { bench_.goTo(Stop::Company); }});
  for (const services::CompanyEntry& company : bench_.companies()) {
    if (company.id == bench_.companyId()) continue;
    const QString id = QString::fromStdString(company.id);
    places_.push_back({tr("Company: %1").arg(zl::app::text(company.name)), [this, id] { bench_.openCompany(id); },
                       zl::app::text(company.id)});
  }
  addRows();
  for (const store::KeptVersion& version : bench_.versions()) {
    const QString name = zl::app::text(version.name);
    places_.push_back({tr("Version: %1").arg(name), [this, name] { Q_EMIT bench_.versionWanted(name); }});
  }
  for (const Finding& finding : bench_.now().findings()) {
    const QString name = tr("Finding: %1").arg(zl::app::text(bench_.now().textOf(finding)));
    places_.push_back({name, [this, finding] { bench_.goTo(finding); }});
  }
  for (QAction* action : actions_) {
    const QString words = action->text().remove(QLatin1Char('&')).remove(QStringLiteral("…"));
    if (!words.isEmpty() && action->isEnabled()) {
      places_.push_back({tr("Do: %1").arg(words), [action] { action->trigger(); }});
    }
  }
  tellApart();
  QStringList names;
  for (const Place& place : places_) names << place.name;
  names_.setStringList(names);
}

void FindBox::go(const QString& name) {
  if (!bench_.isOpen() || name.isEmpty()) return;
  const auto place = std::find_if(places_.begin(), places_.end(),
                                  [&](const Place& p) { return p.name.compare(name, Qt::CaseInsensitive) == 0; });
  if (place == places_.end()) return bench_.say(tr("Nothing here is called '%1'").arg(name), true);
  const std::function<void()> there = place->go;  // the list may be made anew on the way
  clear();
  there();
}

}  // namespace zl::app
