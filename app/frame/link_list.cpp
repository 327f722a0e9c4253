#include "app/frame/link_list.h"

#include <algorithm>

#include "app/look/amounts.h"
#include "app/look/plain_text.h"

namespace zl::app {
namespace {

constexpr int kCellRole = Qt::UserRole + 1;

QString figureOf(const TraceLink& link, const std::string& currency, const std::string& listing) {
  const QString shown = shownText(link.figure, link.kind);
  if (shown.isEmpty()) return LinkList::tr("absent");
  if (!link.figure.hasValue()) return shown;
  return (shown + QLatin1Char(' ') + shownUnitText(link.kind, currency, listing)).trimmed();
}

}  // namespace

LinkList::LinkList(QWidget* parent) : QListWidget(parent) {
  setFrameShape(QFrame::NoFrame);
  setWordWrap(true);
  setSpacing(1);
  setResizeMode(QListView::Adjust);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
}

void LinkList::fill(const std::vector<TraceLink>& links, const std::string& currency, const std::string& listing) {
  const int row = currentRow();
  clear();
  for (const TraceLink& link : links) {
    QString label = text(link.label);
    if (!link.period.empty()) label += QLatin1Char(' ') + text(link.period);
    const QString line = link.option.empty() ? figureOf(link, currency, listing) + QStringLiteral("   ") + label
                                             : label + QStringLiteral(": ") + text(link.option);
    auto* item = new QListWidgetItem(line, this);
    item->setData(kCellRole, QPoint(link.cell.row.number(), link.cell.column));
    if (link.option.empty() && !link.figure.hasValue()) item->setToolTip(tipText(text(link.figure.reason())));
  }
  if (!links.empty()) setCurrentRow(std::clamp(row, 0, static_cast<int>(links.size()) - 1));
}

model::Cell LinkList::cellOf(const QListWidgetItem& item) {
  const QPoint cell = item.data(kCellRole).toPoint();
  return {model::RowId(cell.x()), cell.y()};
}

void LinkList::updateGeometries() {
  QListWidget::updateGeometries();
  // How many lines an entry takes hangs on the width, which is known only here.
  if (const int needed = contentsSize().height(); needed > 0 && needed != height()) setFixedHeight(needed);
}

}  // namespace zl::app
