#include "app/frame/find_box.h"

#include "app/frame/route_panel.h"
#include "app/look/theme.h"

namespace zl::app {

FindBox::FindBox(Workbench& bench, QWidget* parent) : QLineEdit(parent), bench_(bench) {
  setObjectName(QStringLiteral("find"));
  setAccessibleName(tr("Find a line, driver or page"));
  setPlaceholderText(tr("Find a line, driver or page"));
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

void FindBox::fill() {
  QStringList names;
  for (Stop stop : pageStops()) names << QString::fromLatin1(stopWord(stop));
  for (const model::Row& row : bench_.now().evaluation->model().rows) names << zl::app::text(row.label);
  names_.setStringList(names);
}

void FindBox::go(const QString& label) {
  if (!bench_.isOpen() || label.isEmpty()) return;
  for (Stop stop : pageStops()) {
    if (label.compare(QLatin1String(stopWord(stop)), Qt::CaseInsensitive) == 0) return bench_.goTo(stop);
  }
  const model::Model& m = bench_.now().evaluation->model();
  for (size_t r = 0; r < m.rows.size(); ++r) {
    if (zl::app::text(m.rows[r].label).compare(label, Qt::CaseInsensitive) != 0) continue;
    const int row = static_cast<int>(r);
    if (m.rows[r].role == model::Role::Driver) {
      Q_EMIT driverWanted(zl::app::text(m.rows[r].name));
    } else {
      bench_.focus(
          {row, m.rows[r].timing == model::Timing::Constant ? 0 : bench_.now().evaluation->layout().baseColumn()}, -1);
    }
    clear();
    return;
  }
  bench_.say(tr("Nothing here is called '%1'").arg(label), true);
}

}  // namespace zl::app
