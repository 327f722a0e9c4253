#include "app/pages/multiples_bar.h"

#include <QCompleter>
#include <QHBoxLayout>
#include <QMenu>
#include <QSignalBlocker>
#include <algorithm>

#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/model/peer_multiple.h"
#include "services/edits/peer_edits.h"
#include "services/views/peer_view.h"

namespace zl::app {
namespace {

using Of = model::PeerMultiple::Of;
constexpr Of kYears[] = {Of::Trailing, Of::ThisYear, Of::NextYear, Of::YearAfter};

}  // namespace

MultiplesBar::MultiplesBar(Workbench& bench, QWidget* parent) : QWidget(parent), bench_(bench) {
  auto* bar = new QHBoxLayout(this);
  bar->setContentsMargins(8, 0, 8, 0);
  shown_ = new QToolButton(parent);
  shown_->setObjectName(QStringLiteral("multiplesShown"));
  shown_->setText(tr("&Multiples…"));
  shown_->setAccessibleName(tr("Multiples that are looked at first"));
  shown_->setFocusPolicy(Qt::TabFocus);
  shown_->setPopupMode(QToolButton::InstantPopup);
  shown_->setMenu(new QMenu(shown_));
  connect(shown_->menu(), &QMenu::aboutToShow, this, &MultiplesBar::fillShown);
  row_ = new QComboBox(this);
  row_->setObjectName(QStringLiteral("ownMultipleRow"));
  row_->setAccessibleName(tr("Row that a multiple of your own is of"));
  row_->setEditable(true);
  row_->setInsertPolicy(QComboBox::NoInsert);
  row_->completer()->setFilterMode(Qt::MatchContains);
  row_->completer()->setCompletionMode(QCompleter::PopupCompletion);
  constexpr int kShownOfName = 18;
  row_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  row_->setMinimumContentsLength(kShownOfName);
  over_ = new QComboBox(this);
  over_->setObjectName(QStringLiteral("ownMultipleOver"));
  over_->setAccessibleName(tr("What stands over the row"));
  over_->addItems({tr("price to"), tr("EV to")});
  year_ = new QComboBox(this);
  year_->setObjectName(QStringLiteral("ownMultipleYear"));
  year_->setAccessibleName(tr("Of which year"));
  year_->addItems({tr("trailing"), tr("this year"), tr("next year"), tr("the year after")});
  auto* label = new PlainLabel(tr("A multiple of &your own"), this);
  label->setBuddy(over_);
  bar->addWidget(label);
  bar->addWidget(over_);
  bar->addWidget(row_, 1);
  bar->addWidget(year_);
  auto* adds = new QPushButton(tr("&Add"), this);
  adds->setObjectName(QStringLiteral("ownMultipleAdd"));
  bar->addWidget(adds);
  connect(adds, &QPushButton::clicked, this, &MultiplesBar::add);
  hide();
}

void MultiplesBar::refresh() {
  const model::Model& m = bench_.now().model();
  QStringList rows;
  for (const model::Row& row : m.rows) {
    const bool amount = row.kind == Kind::Money || row.kind == Kind::Count;
    if (amount && row.timing != model::Timing::Constant && (row.historyFiled || row.history)) rows << text(row.name);
  }
  if (rows == rows_) return;
  rows_ = rows;
  const QSignalBlocker quiet(row_);
  row_->clear();
  for (const QString& name : rows) row_->addItem(text(m[m.find(name.toStdString())].label), name);
  row_->setCurrentIndex(-1);
  row_->lineEdit()->setPlaceholderText(tr("a row: orders, capex, research…"));
}

void MultiplesBar::fillShown() {
  const services::Snapshot& s = bench_.settled();
  QMenu* menu = shown_->menu();
  menu->clear();
  QAction* usual = menu->addAction(tr("the usual ones and your own"));
  usual->setEnabled(!s.caseOf().shownMultiples.empty());
  connect(usual, &QAction::triggered, this,
          [this] { bench_.apply(services::showMultiples(bench_.settled().caseOf(), {})); });
  QAction* own = menu->addAction(tr("add one of your own…"));
  own->setObjectName(QStringLiteral("ownMultiple"));
  connect(own, &QAction::triggered, this, [this] {
    setVisible(true);
    row_->setFocus();
  });
  menu->addSeparator();
  const std::vector<Multiple> shown = services::multiplesOf(s, services::MultipleGroup::Chosen);
  for (const Multiple m : s.crossCheck.multiples) {
    QAction* one = menu->addAction(text(multipleLabel(m)));
    one->setCheckable(true);
    one->setChecked(std::find(shown.begin(), shown.end(), m) != shown.end());
    connect(one, &QAction::triggered, this, [this, m](bool checked) { show(m, checked); });
  }
  bool any = false;
  for (const Multiple m : s.crossCheck.multiples) {
    const std::string name = multipleName(m);
    if (!services::isOwnMultiple(s.caseOf(), name)) continue;
    if (!any) menu->addSeparator();
    any = true;
    QAction* drops = menu->addAction(tr("drop %1").arg(text(multipleLabel(m))));
    connect(drops, &QAction::triggered, this, [this, name] {
      bench_.apply(services::dropOwnMultiple(bench_.settled().caseOf(), name, bench_.saidNow({})));
    });
  }
}

void MultiplesBar::show(Multiple m, bool shown) {
  const services::Snapshot& s = bench_.settled();
  std::set<std::string> ids;
  for (const Multiple one : services::multiplesOf(s, services::MultipleGroup::Chosen)) ids.insert(multipleId(one));
  if (shown) {
    ids.insert(multipleId(m));
  } else {
    ids.erase(multipleId(m));
  }
  if (ids.empty()) return bench_.say(tr("One multiple at least is looked at"), true);
  bench_.apply(services::showMultiples(s.caseOf(), ids));
}

void MultiplesBar::add() {
  const services::Snapshot& s = bench_.settled();
  const model::Model& m = s.model();
  int at = row_->findText(row_->currentText(), Qt::MatchFixedString);
  if (at < 0) at = row_->findData(row_->currentText().trimmed());
  if (at < 0) return bench_.say(tr("'%1' is no row of the model").arg(row_->currentText().left(40)), true);
  const model::RowId row = m.find(row_->itemData(at).toString().toStdString());
  if (!row.known()) return;
  const model::PeerMultiple multiple = model::multipleOfRow(
      m[row], over_->currentIndex() == 1, kYears[static_cast<size_t>(std::max(0, year_->currentIndex()))]);
  if (!bench_.apply(services::addOwnMultiple(s.caseOf(), multiple, bench_.saidNow({})))) return;
  row_->setCurrentIndex(-1);
  hide();
}

}  // namespace zl::app
