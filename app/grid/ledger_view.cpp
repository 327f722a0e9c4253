#include "app/grid/ledger_view.h"

#include <QApplication>
#include <QClipboard>
#include <QCompleter>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLineEdit>
#include <QScrollBar>
#include <QTimer>
#include <algorithm>
#include <map>
#include <utility>

#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "core/text/cells.h"

namespace zl::app {

LedgerView::LedgerView(QWidget* parent) : QTableView(parent) {
  setModel(&model_);
  // A figure that was being told of may be another one now.
  connect(&model_, &QAbstractItemModel::dataChanged, this, [this] {
    const LedgerCell* cell = model_.cellAt(currentIndex());
    if (hasFocus() && cell != nullptr && cell->story) QTimer::singleShot(0, this, &LedgerView::askCurrent);
  });
  setItemDelegate(new LedgerDelegate(model_, this));
  setShowGrid(false);
  setFrameShape(QFrame::NoFrame);
  setSelectionMode(QAbstractItemView::ExtendedSelection);
  setEditTriggers(QAbstractItemView::AnyKeyPressed | QAbstractItemView::EditKeyPressed |
                  QAbstractItemView::DoubleClicked);
  setHorizontalScrollMode(QAbstractItemView::ScrollPerPixel);
  setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
  setWordWrap(false);
  setTabKeyNavigation(true);
  verticalHeader()->hide();
  verticalHeader()->setDefaultSectionSize(fontMetrics().height() + 7);
  verticalHeader()->setMinimumSectionSize(10);
  horizontalHeader()->setHighlightSections(false);
  horizontalHeader()->setSectionResizeMode(QHeaderView::Fixed);
  horizontalHeader()->setMinimumSectionSize(20);
  connect(&model_, &QAbstractItemModel::modelReset, this, &LedgerView::applyWidths);
  connect(this, &QTableView::doubleClicked, this, [this](const QModelIndex& index) {
    if (!(model_.flags(index) & Qt::ItemIsEditable)) {
      Q_EMIT rowActivated(index.row(), index.column() - model_.firstColumn());
    }
  });
}

void LedgerView::setWidths(int label, int figure, int trend) {
  labelWidth_ = label;
  figureWidth_ = figure;
  trendWidth_ = trend;
  applyWidths();
}

void LedgerView::applyWidths() {
  const int columns = model_.columnCount();
  const double scale = fontMetrics().horizontalAdvance(QLatin1Char('0')) / 8.0;
  int figure = static_cast<int>(figureWidth_ * std::max(1.0, scale));
  const int figures = columns - model_.firstColumn();
  if (narrowest_ > 0 && figures > 0) {
    const int trend = model_.hasTrend() ? trendWidth_ : 0;
    const int share = (viewport()->width() - labelWidth_ - trend) / figures;
    figure = std::clamp(share, static_cast<int>(narrowest_ * std::max(1.0, scale)), figure);
  }
  for (int c = 1; c < columns; ++c) {
    const auto own = static_cast<size_t>(c - model_.firstColumn());
    const bool named = c >= model_.firstColumn() && own < ownWidths_.size();
    setColumnWidth(c, c < model_.firstColumn() ? trendWidth_ : (named ? ownWidths_[own] : figure));
  }
  // The label takes what the figures leave, within reason.
  int used = 0;
  for (int c = 1; c < columns; ++c) used += columnWidth(c);
  const int left = viewport()->width() - used;
  const int widest = narrowest_ > 0 ? 2 * labelWidth_ : labelWidth_;
  setColumnWidth(0, std::clamp(left, std::min(labelWidth_, leastLabel_), widest));
}

void LedgerView::resizeEvent(QResizeEvent* event) {
  QTableView::resizeEvent(event);
  applyWidths();
}

void LedgerView::showAll() {
  const int rows = model_.rowCount() * verticalHeader()->defaultSectionSize();
  const bool wide = horizontalHeader()->length() > viewport()->width();
  const int bar = wide ? horizontalScrollBar()->sizeHint().height() : 0;
  setFixedHeight(rows + horizontalHeader()->sizeHint().height() + 4 + bar);
  setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
}

void LedgerView::keyPressEvent(QKeyEvent* event) {
  if (event->matches(QKeySequence::Copy)) return copySelection();
  if (event->matches(QKeySequence::Paste)) return paste();
  const QModelIndex index = currentIndex();
  const LedgerCell* cell = model_.cellAt(index);
  const bool opensChoice = cell != nullptr && cell->chooses;
  const bool editable = index.isValid() && (model_.flags(index) & Qt::ItemIsEditable);
  // A space may be typed over a figure to empty it; Enter is never the start of one.
  const bool activates =
      event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || (event->key() == Qt::Key_Space && !editable);
  if (activates && index.isValid() && state() != EditingState && !opensChoice) {
    Q_EMIT rowActivated(index.row(), index.column() - model_.firstColumn());
    return;
  }
  QTableView::keyPressEvent(event);
}

void LedgerView::mousePressEvent(QMouseEvent* event) {
  QTableView::mousePressEvent(event);
  const QModelIndex index = indexAt(event->pos());
  draggedRow_ = rowsDraggable_ && event->button() == Qt::LeftButton && index.column() == 0 ? index.row() : -1;
}

void LedgerView::mouseMoveEvent(QMouseEvent* event) {
  if (draggedRow_ < 0) {
    QTableView::mouseMoveEvent(event);
    return;
  }
  // The row under the pointer is where it would go; the grid's own selection shows it.
  viewport()->setCursor(Qt::ClosedHandCursor);
  const QModelIndex index = indexAt(event->pos());
  if (index.isValid()) selectRow(index.row());
}

void LedgerView::mouseReleaseEvent(QMouseEvent* event) {
  const int from = std::exchange(draggedRow_, -1);
  viewport()->unsetCursor();
  const QModelIndex index = indexAt(event->pos());
  if (from >= 0 && index.isValid() && index.row() != from) {
    Q_EMIT rowDragged(from, index.row());
    return;
  }
  QTableView::mouseReleaseEvent(event);
}

void LedgerView::currentChanged(const QModelIndex& current, const QModelIndex& previous) {
  QTableView::currentChanged(current, previous);
  askCurrent();
}

void LedgerView::focusInEvent(QFocusEvent* event) {
  QTableView::focusInEvent(event);
  // Where a hand comes back to a grid, the trace may have gone elsewhere. What the program itself has just
  // traced (a finding, a mark of the rail) stays when it brings the page.
  const Qt::FocusReason why = event->reason();
  if (why == Qt::TabFocusReason || why == Qt::BacktabFocusReason || why == Qt::MouseFocusReason) askCurrent();
}

void LedgerView::askCurrent() {
  const LedgerCell* cell = model_.cellAt(currentIndex());
  if (cell == nullptr) return;
  if (cell->story) {
    Q_EMIT cellTold(cell->story);
  } else if (cell->source) {
    Q_EMIT cellFocused(*cell->source, cell->scenario);
  }
}

void LedgerView::selectionChanged(const QItemSelection& selected, const QItemSelection& deselected) {
  QTableView::selectionChanged(selected, deselected);
  double sum = 0;
  int count = 0;
  std::optional<Kind> kind;
  for (const QModelIndex& index : selectionModel()->selectedIndexes()) {
    const LedgerCell* cell = model_.cellAt(index);
    if (cell == nullptr || !cell->figure.hasValue()) continue;
    const Kind here = model_.ledgerRows()[static_cast<size_t>(index.row())].kind;
    if (kind && *kind != here) {
      Q_EMIT selectionSummed({});  // a sum across units would mean nothing
      return;
    }
    kind = here;
    sum += cell->figure.value();
    ++count;
  }
  if (count < 2) {
    Q_EMIT selectionSummed({});
    return;
  }
  Q_EMIT selectionSummed(
      tr("%1 cells   sum %2   mean %3")
          .arg(count)
          .arg(text(figureText(Figure::of(sum), *kind)), text(figureText(Figure::of(sum / count), *kind))));
}

void LedgerView::copySelection() const {
  std::map<int, std::map<int, QString>> grid;
  for (const QModelIndex& index : selectionModel()->selectedIndexes()) {
    grid[index.row()][index.column()] = model_.plainText(index);
  }
  QString out;
  for (const auto& [row, cells] : grid) {
    const int first = cells.begin()->first;
    const int last = cells.rbegin()->first;
    for (int c = first; c <= last; ++c) {
      if (c > first) out += QLatin1Char('\t');
      const auto found = cells.find(c);
      if (found != cells.end()) out += text(cellText(found->second.toStdString()));
    }
    out += QLatin1Char('\n');
  }
  QApplication::clipboard()->setText(out);
}

void LedgerView::paste() {
  const QModelIndex index = currentIndex();
  if (!index.isValid()) return;
  QList<QStringList> cells;
  const QStringList lines = QApplication::clipboard()->text().split(QLatin1Char('\n'));
  for (const QString& line : lines) {
    if (!line.trimmed().isEmpty()) cells.append(line.split(QLatin1Char('\t')));
  }
  if (!cells.isEmpty()) Q_EMIT pasted(index.row(), index.column() - model_.firstColumn(), cells);
}

QWidget* LedgerDelegate::createEditor(QWidget* parent, const QStyleOptionViewItem& option,
                                      const QModelIndex& index) const {
  QWidget* editor = QStyledItemDelegate::createEditor(parent, option, index);
  if (editor != nullptr) editor->setObjectName(QStringLiteral("cellEditor"));
  const LedgerCell* cell = model_.cellAt(index);
  if (auto* line = qobject_cast<QLineEdit*>(editor); line != nullptr && cell != nullptr && cell->chooses) {
    const QStringList& own = model_.ledgerRows()[static_cast<size_t>(index.row())].choices;
    auto* completer = new QCompleter(own.isEmpty() ? model_.choices() : own, line);
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
    row.scale ? paintScale(painter, option.rect, *row.scale) : paintTrend(painter, option.rect, row);
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
  QRectF area = QRectF(rect).adjusted(8, 0, -4, 0);
  if (!row.scenario.isEmpty()) {
    drawScenarioMark(*painter, row.scenario, QPointF(area.left() + 5, area.center().y()), 9);
    area.adjust(16, 0, 0, 0);
  }
  painter->setPen(t.ink);
  const QFontMetricsF metrics(font);
  const QString unit = row.unit.isEmpty() ? QString() : QStringLiteral("  ") + row.unit;
  const double unitWidth = QFontMetricsF(painter->font()).horizontalAdvance(unit);
  const QString label = metrics.elidedText(row.label, Qt::ElideRight, area.width() - unitWidth);
  painter->drawText(area, Qt::AlignLeft | Qt::AlignVCenter, label);
  if (!unit.isEmpty()) {
    painter->setPen(t.quiet);
    painter->drawText(area.adjusted(metrics.horizontalAdvance(label), 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, unit);
  }
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
  QRectF area = QRectF(rect).adjusted(5, 0, -(5 + hang), 0);
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
