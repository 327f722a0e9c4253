#include "app/frame/company_switch.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QVBoxLayout>
#include <algorithm>
#include <map>

#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "services/text/text_cells.h"

namespace zl::app {
namespace {

constexpr int kMostShown = 14;  // rows of the list without scrolling
constexpr int kListWidth = 520;
constexpr int kId = Qt::UserRole;
enum Column { kName, kValue, kPrice, kUpside };

}  // namespace

CompanyList::CompanyList(QWidget* parent) : QFrame(parent, Qt::Popup) {
  setObjectName(QStringLiteral("companyList"));
  setFrameShape(QFrame::StyledPanel);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(6, 6, 6, 6);
  layout->setSpacing(4);
  words_ = new QLineEdit(this);
  words_->setObjectName(QStringLiteral("companyWords"));
  words_->setPlaceholderText(tr("Company"));
  words_->setAccessibleName(tr("Part of a company's name"));
  words_->installEventFilter(this);
  layout->addWidget(words_);
  list_ = new QTreeWidget(this);
  list_->setObjectName(QStringLiteral("companyNames"));
  list_->setAccessibleName(tr("Companies of this book"));
  list_->setHeaderLabels({tr("Company"), tr("Weighted value"), tr("Price"), tr("Upside, %")});
  for (int column = kValue; column <= kUpside; ++column)
    list_->headerItem()->setTextAlignment(column, Qt::AlignRight | Qt::AlignVCenter);
  list_->header()->setStretchLastSection(false);
  list_->header()->setSectionResizeMode(kName, QHeaderView::Stretch);
  list_->header()->setSectionsMovable(false);
  for (int column = kValue; column <= kUpside; ++column)
    list_->header()->setSectionResizeMode(column, QHeaderView::ResizeToContents);
  list_->setRootIsDecorated(false);
  list_->setUniformRowHeights(true);
  list_->setAllColumnsShowFocus(true);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->setTextElideMode(Qt::ElideMiddle);
  list_->setFocusPolicy(Qt::NoFocus);
  layout->addWidget(list_);
  connect(words_, &QLineEdit::textChanged, this, &CompanyList::narrow);
  connect(words_, &QLineEdit::returnPressed, this, &CompanyList::choose);
  connect(list_, &QTreeWidget::itemClicked, this, &CompanyList::choose);
}

void CompanyList::offer(const std::vector<services::CompanyEntry>& companies, const std::string& open) {
  words_->clear();
  list_->clear();
  std::map<std::string, int> called;
  for (const services::CompanyEntry& c : companies) ++called[c.name];
  for (const services::CompanyEntry& c : companies) {
    const bool shared = called.at(c.name) > 1;
    const QString name = shared ? tr("%1 (%2)").arg(text(c.name), text(c.id)) : text(c.name);
    auto* item = new QTreeWidgetItem(list_, {name});
    item->setData(kName, kId, QString::fromStdString(c.id));
    item->setToolTip(kName, tipText(tr("%1, in commands %2").arg(text(c.name), text(c.id))));
    for (int column = kValue; column <= kUpside; ++column)
      item->setTextAlignment(column, Qt::AlignRight | Qt::AlignVCenter);
    if (c.id == open) list_->setCurrentItem(item);
  }
  const int rows = std::clamp(list_->topLevelItemCount(), 1, kMostShown);
  list_->setFixedHeight(rows * std::max(list_->sizeHintForRow(0), fontMetrics().height()) +
                        list_->header()->sizeHint().height() + 2 * list_->frameWidth());
  setFixedWidth(kListWidth);
  adjustSize();
  words_->setFocus();
}

void CompanyList::tellValues(const std::vector<services::CompanyValue>& values) {
  std::map<QString, const services::CompanyValue*> byId;
  for (const services::CompanyValue& v : values) byId[QString::fromStdString(v.company.id)] = &v;
  for (int i = 0; i < list_->topLevelItemCount(); ++i) {
    QTreeWidgetItem* item = list_->topLevelItem(i);
    const auto found = byId.find(item->data(kName, kId).toString());
    if (found == byId.end()) continue;
    const services::CompanyValue& v = *found->second;
    const auto say = [&](int column, const Figure& figure, Kind kind, const std::string& unit) {
      std::string shown = services::shownOrDash(figure, kind);
      if (figure.hasValue() && !unit.empty()) shown.append(" ").append(unit);
      item->setText(column, text(shown));
      if (!figure.hasValue()) item->setToolTip(column, tipText(text(figure.reason())));
    };
    if (!v.fault.empty()) {
      item->setText(kValue, tr("cannot be valued"));
      item->setToolTip(kValue, tipText(text(v.fault)));
      continue;
    }
    say(kValue, v.weighted, Kind::Quote, v.unit);
    say(kPrice, v.price, Kind::Quote, v.unit);
    say(kUpside, v.upside, Kind::Ratio, {});
  }
}

void CompanyList::narrow(const QString& words) {
  QTreeWidgetItem* first = nullptr;
  for (int i = 0; i < list_->topLevelItemCount(); ++i) {
    QTreeWidgetItem* item = list_->topLevelItem(i);
    const bool fits = item->text(kName).contains(words, Qt::CaseInsensitive) ||
                      item->data(kName, kId).toString().contains(words, Qt::CaseInsensitive);
    item->setHidden(!fits);
    if (fits && first == nullptr) first = item;
  }
  list_->setCurrentItem(first);
}

void CompanyList::choose() {
  const QTreeWidgetItem* item = list_->currentItem();
  if (item == nullptr || item->isHidden()) return;
  const QString company = item->data(kName, kId).toString();
  hide();
  Q_EMIT chosen(company);
}

/// The words keep the focus; arrows move in the list all the same.
bool CompanyList::eventFilter(QObject* watched, QEvent* event) {
  if (watched == words_ && event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Escape) {
      hide();
      return true;
    }
    const int step = key == Qt::Key_Down ? 1 : (key == Qt::Key_Up ? -1 : 0);
    const int from = list_->indexOfTopLevelItem(list_->currentItem());
    for (int row = from + step; step != 0 && row >= 0 && row < list_->topLevelItemCount(); row += step) {
      if (list_->topLevelItem(row)->isHidden()) continue;
      list_->setCurrentItem(list_->topLevelItem(row));
      break;
    }
    if (step != 0) return true;
  }
  return QFrame::eventFilter(watched, event);
}

CompanySwitch::CompanySwitch(Workbench& bench, QWidget* parent) : QWidget(parent), bench_(bench) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 6);
  layout->setSpacing(2);
  name_ = new PlainLabel(this);
  name_->setObjectName(QStringLiteral("companyName"));
  name_->setWordWrap(true);
  name_->setContentsMargins(12, 0, 8, 0);
  QFont f = name_->font();
  f.setBold(true);
  f.setPointSizeF(f.pointSizeF() + 1);
  name_->setFont(f);
  layout->addWidget(name_);
  more_ = new QPushButton(this);
  more_->setObjectName(QStringLiteral("companySwitch"));
  more_->setFlat(true);
  more_->setToolTip(tipText(tr("Another company of this book (Alt+0); the next one is Alt+Page Down")));
  auto* beneath = new QHBoxLayout;
  beneath->setContentsMargins(8, 0, 0, 0);
  beneath->addWidget(more_, 0, Qt::AlignLeft);
  layout->addLayout(beneath);
  list_ = new CompanyList(this);
  connect(more_, &QPushButton::clicked, this, &CompanySwitch::showList);
  connect(list_, &CompanyList::chosen, &bench_, &Workbench::openCompany);
  connect(&bench_, &Workbench::changed, this, &CompanySwitch::refresh);
  connect(&bench_, &Workbench::companiesValued, list_, &CompanyList::tellValues);
}

void CompanySwitch::showList() {
  if (!bench_.isOpen() || bench_.companies().size() < 2) return;
  list_->offer(bench_.companies(), bench_.companyId());
  list_->move(more_->mapToGlobal(QPoint(6, more_->height())));
  list_->show();
  bench_.valueCompanies();
}

void CompanySwitch::refresh() {
  if (!bench_.isOpen()) return;
  const QString name = text(bench_.now().company().name);
  if (name_->toolTip() != name) {
    name_->setText(fontMetrics().elidedText(name, Qt::ElideRight, 136 * 3));
    name_->setToolTip(tipText(name));
  }
  const auto& all = bench_.companies();
  const auto at =
      std::find_if(all.begin(), all.end(), [&](const services::CompanyEntry& c) { return c.id == bench_.companyId(); });
  more_->setVisible(all.size() > 1);
  more_->setText(tr("%1 of %2 companies…").arg(at - all.begin() + 1).arg(all.size()));
  more_->setAccessibleName(tr("%1, company %2").arg(name, more_->text()));
}

}  // namespace zl::app
