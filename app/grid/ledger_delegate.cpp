#include "app/grid/ledger_delegate.h"

#include <QCompleter>
#include <QLineEdit>
#include <QPainter>
#include <QTableView>
#include <algorithm>

#include "app/grid/label_lines.h"
#include "app/look/tabular.h"
#include "app/look/theme.h"

namespace zl::app {

QWidget* LedgerDelegate::createEditor(QWidget* parent, const QStyleOptionViewItem& option,
                                      const QModelIndex& index) const {
  QWidget* editor = QStyledItemDelegate::createEditor(parent, option, index);
  if (editor != nullptr) editor->setObjectName(QStringLiteral("cellEditor"));
  const LedgerCell* cell = model_.cellAt(index);
  if (auto* line = qobject_cast<QLineEdit*>(editor); line != nullptr && cell != nullptr && cell->chooses) {
    auto* completer = new QCompleter(model_.choicesAt(index), line);
    completer->setCaseSensitivity(Qt::CaseInsensitive);
    completer->setCompletionMode(QCompleter::InlineCompletion);  // a list of its own would take the focus
    line->setCompleter(completer);
  }
  return editor;
}

void LedgerDelegate::paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const {
  const Theme& t = theme();
  const LedgerRow& row = model_.ledgerRows()[static_cast<size_t>(index.row())];
  painter->save();
  QColor ground = t.paper;
  if (model_.isFlagged(index.column()) && !row.heading) ground = t.chosenBand;
  if (option.state & QStyle::State_Selected) ground = t.selection;
  painter->fillRect(option.rect, ground);
  // Ruled like a ledger: every row thin, every fifth wider.
  painter->setPen(QPen(index.row() % 5 == 4 ? t.wideRule : t.rule, 1));
  painter->drawLine(option.rect.bottomLeft(), option.rect.bottomRight());
  if (row.heading) {
    paintHeading(painter, option, index, row);
  } else if (index.column() == 0) {
    paintLabel(painter, option.rect, row);
  } else if (model_.hasTrend() && index.column() == 1) {
    // As high as on a row of one line, so that lines can be compared.
    QRect line = option.rect;
    line.setHeight(std::min(line.height(), option.fontMetrics.height() + 7));
    line.moveCenter(option.rect.center());
    row.scale ? paintScale(painter, line, *row.scale) : paintTrend(painter, line, row);
  } else if (const LedgerCell* cell = model_.cellAt(index)) {
    paintCell(painter, option.rect, row, *cell, index.data(Qt::DisplayRole).toString());
  }
  if (option.state & QStyle::State_HasFocus) {
    painter->setPen(QPen(t.accent, 1.5));
    painter->setBrush(Qt::NoBrush);
    painter->drawRect(QRectF(option.rect).adjusted(1, 1, -1, -1.5));
  }
  painter->restore();
}

/// A heading runs on over the cells beside it, which are empty: each shows its piece of it.
void LedgerDelegate::paintHeading(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index,
                                  const LedgerRow& row) const {
  QRect whole = option.rect;
  if (const auto* view = qobject_cast<const QTableView*>(option.widget)) {
    whole = view->visualRect(index.siblingAtColumn(0));
    whole.setRight(view->visualRect(index.siblingAtColumn(model_.columnCount() - 1)).right());
  }
  painter->setClipRect(option.rect);
  paintLabel(painter, whole, row);
}

void LedgerDelegate::paintLabel(QPainter* painter, const QRect& rect, const LedgerRow& row) const {
  const Theme& t = theme();
  QFont font = painter->font();
  font.setBold(row.heading || row.strong);
  painter->setFont(font);
  QRectF area = QRectF(rect).adjusted(CellSpace::kLabelLeft, 0, -CellSpace::kLabelRight, 0);
  if (!row.scenario.isEmpty()) {
    drawScenarioMark(*painter, row.scenario, QPointF(area.left() + 5, area.center().y()), 9);
    area.adjust(CellSpace::kScenarioMark, 0, 0, 0);
  }
  painter->setPen(t.ink);
  drawLabel(*painter, area, row);
}

void LedgerDelegate::paintScale(QPainter* painter, const QRect& rect, const ScaleMark& scale) const {
  const Theme& t = theme();
  const QRectF area = QRectF(rect).adjusted(8, 0, -8, 0);
  const double middle = area.center().y();
  const auto xOf = [&](double v) { return area.left() + (v - scale.low) / (scale.high - scale.low) * area.width(); };
  painter->setRenderHint(QPainter::Antialiasing);
  if (scale.bar) {
    if (!scale.figure) return;
    painter->setPen(Qt::NoPen);
    painter->setBrush(t.assumed);
    painter->drawRect(QRectF(area.left(), middle - 3.5, std::max(1.0, xOf(*scale.figure) - area.left()), 7));
    return;
  }
  painter->setPen(QPen(t.wideRule, 1));
  painter->drawLine(QPointF(area.left(), middle), QPointF(area.right(), middle));
  // The side that is wanted is drawn strong: which way is better shows without a colour.
  const double bound = xOf(scale.threshold);
  painter->setPen(QPen(t.quiet, 3));
  painter->drawLine(QPointF(bound, middle), QPointF(scale.atLeast ? area.right() : area.left(), middle));
  painter->setPen(QPen(t.ink, 1.2));
  painter->drawLine(QPointF(bound, middle - 6), QPointF(bound, middle + 6));
  if (!scale.figure) return;
  painter->setBrush(t.paper);
  painter->setPen(QPen(t.accent, 1.8));
  painter->drawEllipse(QPointF(xOf(*scale.figure), middle), 3.6, 3.6);
}

void LedgerDelegate::paintTrend(QPainter* painter, const QRect& rect, const LedgerRow& row) const {
  std::vector<double> values;
  for (const Figure& f : row.trend) {
    if (f.hasValue()) values.push_back(f.value());
  }
  if (values.size() < 2) return;
  const auto ends = std::minmax_element(values.begin(), values.end());
  const auto low = ends.first;  // a lambda below reads them; bindings cannot be captured everywhere
  const auto high = ends.second;
  const QRectF area = QRectF(rect).adjusted(8, 4, -8, -4);
  const double span = *high > *low ? *high - *low : 1;
  const double step = area.width() / static_cast<double>(std::max<size_t>(2, row.trend.size()) - 1);
  painter->setRenderHint(QPainter::Antialiasing);
  const auto yOf = [&](double v) { return area.bottom() - (v - *low) / span * area.height(); };
  if (*low < 0 && *high > 0) {
    painter->setPen(QPen(theme().wideRule, 1));
    painter->drawLine(QPointF(area.left(), yOf(0)), QPointF(area.right(), yOf(0)));
  }
  painter->setPen(QPen(theme().quiet, 1.2));
  QPointF before;
  bool joined = false;
  for (size_t i = 0; i < row.trend.size(); ++i) {
    if (!row.trend[i].hasValue()) {
      joined = false;
      continue;
    }
    const QPointF point(area.left() + static_cast<double>(i) * step, yOf(row.trend[i].value()));
    if (joined) painter->drawLine(before, point);
    before = point;
    joined = true;
  }
  painter->setBrush(theme().quiet);
  painter->drawEllipse(before, 1.6, 1.6);
}

void LedgerDelegate::paintCell(QPainter* painter, const QRect& rect, const LedgerRow& row, const LedgerCell& cell,
                               const QString& shown) const {
  const Theme& t = theme();
  QFont font = painter->font();
  font.setBold(row.strong);
  font.setStrikeOut(cell.struck);
  painter->setFont(font);
  const bool assumed = cell.ink == Ink::Assumed || cell.ink == Ink::Proposed;
  QColor ink = assumed ? t.assumed : (cell.ink == Ink::Derived ? t.quiet : t.ink);
  if (row.strong && cell.ink == Ink::Derived) ink = t.ink;
  if (cell.quiet) ink = t.quiet;
  if (assumed && !cell.quiet) {
    // The notch tells an assumption without its colour; a hollow one, that nobody has decided it.
    painter->setRenderHint(QPainter::Antialiasing);
    const bool hollow = cell.ink == Ink::Proposed;
    painter->setPen(hollow ? QPen(t.assumed, 1) : QPen(Qt::NoPen));
    painter->setBrush(hollow ? QBrush(Qt::NoBrush) : QBrush(t.assumed));
    const double middle = rect.center().y() + 0.5;
    painter->drawPolygon(QPolygonF(
        {QPointF(rect.left(), middle - 4), QPointF(rect.left() + 4, middle), QPointF(rect.left(), middle + 4)}));
  }
  painter->setPen(ink);
  // A closing parenthesis hangs outside the column, so that digits stay under digits.
  const double hang = QFontMetricsF(font).horizontalAdvance(QLatin1Char(')'));
  QRectF area = QRectF(rect).adjusted(CellSpace::kGap, 0, -(CellSpace::kGap + hang), 0);
  if (cell.left && assumed && !cell.quiet) area.setLeft(area.left() + 4);  // words begin after the notch
  if (shown.endsWith(QLatin1Char(')')) || cell.doubted) area.setRight(area.right() + hang);
  if (cell.adjusted) {
    const double width = QFontMetricsF(font).horizontalAdvance(shown);
    painter->drawLine(QPointF(area.right() - width * 0.7, rect.top() + 3), QPointF(area.right(), rect.top() + 3));
  }
  if (cell.words) {
    painter->drawText(area, (cell.left ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter,
                      QFontMetricsF(font).elidedText(shown, Qt::ElideRight, area.width()));
  } else {
    drawTabular(*painter, area, shown, Qt::AlignRight);
  }
}

}  // namespace zl::app
