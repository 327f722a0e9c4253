#include "app/grid/ledger_view.h"

#include <QAccessible>
#include <QApplication>
#include <QClipboard>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLinearGradient>
#include <QMenu>
#include <QPainter>
#include <QScrollBar>
#include <QTimer>
#include <algorithm>
#include <map>
#include <utility>

#include "app/grid/label_lines.h"
#include "app/grid/ledger_delegate.h"
#include "app/look/amounts.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "core/text/cells.h"

namespace zl::app {

namespace {

/// An edge beyond which there is more: a line, and a shade on the side of the figures.
void drawScrollEdge(QPainter& painter, int x, int height, bool rightOf) {
  constexpr int kShade = 7;
  QColor shade = theme().ink;
  shade.setAlpha(46);
  QColor none = shade;
  none.setAlpha(0);
  QLinearGradient fade(x, 0, rightOf ? x + kShade : x - kShade, 0);
  fade.setColorAt(0, shade);
  fade.setColorAt(1, none);
  painter.fillRect(QRect(rightOf ? x : x - kShade, 0, kShade, height), fade);
}

/// The title over the labels stays with them.
class LedgerHeader : public QHeaderView {
 public:
  explicit LedgerHeader(QWidget* parent) : QHeaderView(Qt::Horizontal, parent) { setSectionsClickable(true); }

 protected:
  void paintEvent(QPaintEvent* event) override {
    QHeaderView::paintEvent(event);
    if (offset() == 0 || count() == 0) return;
    QPainter painter(viewport());
    const QRect rect(0, 0, sectionSize(0), viewport()->height());
    painter.fillRect(rect, theme().paper);
    paintSection(&painter, rect, 0);
    drawScrollEdge(painter, rect.right() + 1, rect.height(), true);
  }
};

}  // namespace

LedgerView::LedgerView(QWidget* parent) : QTableView(parent) {
  setModel(&model_);
  setHorizontalHeader(new LedgerHeader(this));
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
  connect(&model_, &QAbstractItemModel::modelReset, this, &LedgerView::measure);
  connect(&model_, &QAbstractItemModel::dataChanged, this, &LedgerView::measureAgain);
  connect(this, &QTableView::doubleClicked, this, [this](const QModelIndex& index) {
    if (!(model_.flags(index) & Qt::ItemIsEditable)) {
      Q_EMIT rowActivated(index.row(), index.column() - model_.firstColumn());
    }
  });
}

void LedgerView::dataChanged(const QModelIndex& topLeft, const QModelIndex& bottomRight, const QList<int>& roles) {
  // An open editor and a screen reader are told by the base, which paints everything.
  if (state() == EditingState || QAccessible::isActive()) {
    QTableView::dataChanged(topLeft, bottomRight, roles);
    return;
  }
  const std::optional<std::pair<int, int>>& rows = model_.rowsToPaint();
  if (!rows) return;
  const int top = rowViewportPosition(rows->first);
  const int bottom = rowViewportPosition(rows->second) + rowHeight(rows->second);
  viewport()->update(0, top, viewport()->width(), bottom - top);
}

void LedgerView::setWidths(int figure, int trend) {
  figureWidth_ = figure;
  trendWidth_ = trend;
  applyWidths();
}

void LedgerView::measure() {
  needed_ = neededWidths(model_, font(), horizontalHeader()->font());
  applyWidths();
}

void LedgerView::measureAgain() {
  NeededWidths now = neededWidths(model_, font(), horizontalHeader()->font());
  bool grows = now.label > needed_.label;
  now.label = std::max(now.label, needed_.label);
  for (size_t c = 0; c < std::min(now.figures.size(), needed_.figures.size()); ++c) {
    grows = grows || now.figures[c] > needed_.figures[c];
    now.figures[c] = std::max(now.figures[c], needed_.figures[c]);
  }
  const bool others = now.labels != needed_.labels;
  needed_ = std::move(now);
  if (grows) {
    applyWidths();
  } else if (others) {
    applyHeights();
  }
}

void LedgerView::applyWidths() {
  if (model_.columnCount() == 0) return;
  const double scale = std::max(1.0, fontMetrics().horizontalAdvance(QLatin1Char('0')) / 8.0);
  const auto scaled = [&](int width) { return static_cast<int>(width * scale); };
  WantedWidths wanted{viewport()->width(), model_.hasTrend() ? scaled(trendWidth_) : 0, scaled(figureWidth_), {}};
  for (const int width : ownWidths_) wanted.columns.push_back(scaled(width));
  ColumnWidths widths = columnWidths(needed_, wanted);
  makeLabelRoom(widths, scaled(labelRoom_));
  if (followed_ != nullptr) takeWidthsOf(*followed_, widths);
  setColumnWidth(0, widths.label);
  if (model_.hasTrend()) setColumnWidth(1, wanted.trend);
  for (size_t c = 0; c < widths.figures.size(); ++c) {
    setColumnWidth(model_.firstColumn() + static_cast<int>(c), widths.figures[c]);
  }
  applyHeights();
  Q_EMIT widthsChanged();
}

void LedgerView::applyHeights() {
  if (!isVisible()) return;
  QHeaderView& heights = *verticalHeader();
  const int usual = heights.defaultSectionSize();
  QFont strong = font();
  strong.setBold(true);
  for (int r = 0; r < model_.rowCount(); ++r) {
    int height = usual;
    const auto at = static_cast<size_t>(r);
    if (at < needed_.labels.size() && needed_.labels[at] > columnWidth(0)) {
      const LedgerRow& row = model_.ledgerRows()[at];
      const QFont& type = row.strong ? strong : font();
      const int lines = labelLines(row, type, columnWidth(0) - CellSpace::besideLabel(row));
      height += (lines - 1) * QFontMetrics(type).lineSpacing();
    }
    if (heights.sectionSize(r) != height) heights.resizeSection(r, height);
  }
  if (showsAll_) showAll();
}

void LedgerView::makeLabelRoom(ColumnWidths& widths, int room) const {
  int lacks = room - widths.label;
  for (size_t left = widths.figures.size(); left > 0 && lacks > 0; --left) {
    const size_t c = left - 1;
    const int spare =
        std::min(widths.figures[c] - needed_.figures[c], (lacks + static_cast<int>(c)) / static_cast<int>(left));
    if (spare <= 0) continue;
    widths.figures[c] -= spare;
    widths.label += spare;
    lacks -= spare;
  }
}

void LedgerView::takeWidthsOf(const LedgerView& other, ColumnWidths& widths) const {
  const int there = other.model_.columnCount() - other.model_.firstColumn();
  const int here = static_cast<int>(widths.figures.size());
  const bool scrolls = other.horizontalHeader()->length() > other.viewport()->width();
  if (here == 0 || there < here || scrolls || !other.isVisible()) return;
  std::vector<int> taken;
  int sum = 0;
  for (int c = 0; c < here; ++c) {
    taken.push_back(other.columnWidth(other.model_.firstColumn() + there - here + c));
    if (taken.back() < needed_.figures[static_cast<size_t>(c)]) return;
    sum += taken.back();
  }
  // A column that only the other has lies over the labels.
  const int trend = model_.hasTrend() ? columnWidth(1) : 0;
  const int label = viewport()->width() - trend - sum;
  if (label < needed_.usualLabel) return;
  widths.figures = std::move(taken);
  widths.label = label;
}

void LedgerView::follow(LedgerView* other) {
  followed_ = other;
  connect(other, &LedgerView::widthsChanged, this, &LedgerView::applyWidths);
}

double LedgerView::middleOf(int column) const {
  const int at = model_.firstColumn() + column;
  const double heading = QFontMetricsF(horizontalHeader()->font()).horizontalAdvance(QStringLiteral("2026E"));
  return viewport()->x() + columnViewportPosition(at) + columnWidth(at) - CellSpace::kGap - heading / 2;
}

void LedgerView::resizeEvent(QResizeEvent* event) {
  QTableView::resizeEvent(event);
  applyWidths();
}

void LedgerView::showEvent(QShowEvent* event) {
  QTableView::showEvent(event);
  applyHeights();
}

void LedgerView::changeEvent(QEvent* event) {
  QTableView::changeEvent(event);
  if (event->type() != QEvent::FontChange) return;
  verticalHeader()->setDefaultSectionSize(fontMetrics().height() + 7);
  measure();
}

int LedgerView::scrolled() const {
  return horizontalHeader()->offset();
}

QRect LedgerView::visualRect(const QModelIndex& index) const {
  QRect rect = QTableView::visualRect(index);
  if (index.isValid() && index.column() == 0) rect.translate(scrolled(), 0);
  return rect;
}

QModelIndex LedgerView::indexAt(const QPoint& point) const {
  if (scrolled() == 0 || point.x() >= columnWidth(0)) return QTableView::indexAt(point);
  const int row = rowAt(point.y());
  return row < 0 ? QModelIndex() : model_.index(row, 0);
}

void LedgerView::scrollTo(const QModelIndex& index, ScrollHint hint) {
  if (index.column() == 0) {  // always in view; only its row may not be
    const int place = horizontalScrollBar()->value();
    QTableView::scrollTo(index, hint);
    horizontalScrollBar()->setValue(place);
    return;
  }
  QTableView::scrollTo(index, hint);
  const int beneath = columnWidth(0) - visualRect(index).left();
  if (scrolled() > 0 && beneath > 0) horizontalScrollBar()->setValue(horizontalScrollBar()->value() - beneath);
}

void LedgerView::scrollContentsBy(int dx, int dy) {
  QTableView::scrollContentsBy(dx, dy);
  if (dx == 0) return;
  viewport()->update();  // the labels stay where the rest has moved
  horizontalHeader()->viewport()->update();
}

void LedgerView::paintEvent(QPaintEvent* event) {
  QTableView::paintEvent(event);
  QPainter painter(viewport());
  const int behind = horizontalHeader()->length() - scrolled() - viewport()->width();
  if (scrolled() > 0) {
    QStyleOptionViewItem option;
    initViewItemOption(&option);
    for (int r = std::max(0, rowAt(0)); r < model_.rowCount() && rowViewportPosition(r) < viewport()->height(); ++r) {
      const QModelIndex index = model_.index(r, 0);
      option.rect = visualRect(index);
      option.state.setFlag(QStyle::State_Selected, selectionModel()->isSelected(index));
      option.state.setFlag(QStyle::State_HasFocus, hasFocus() && currentIndex() == index);
      itemDelegate()->paint(&painter, option, index);
    }
    drawScrollEdge(painter, columnWidth(0), viewport()->height(), true);
  }
  if (behind > 0) drawScrollEdge(painter, viewport()->width(), viewport()->height(), false);
}

void LedgerView::showAll() {
  showsAll_ = true;
  const bool wide = horizontalHeader()->length() > viewport()->width();
  const int bar = wide ? horizontalScrollBar()->sizeHint().height() : 0;
  setFixedHeight(verticalHeader()->length() + horizontalHeader()->sizeHint().height() + 4 + bar);
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
  if (activates && opensChoice && state() != EditingState && showChoices(index)) return;
  QTableView::keyPressEvent(event);
}

/// The options by their words, the one in force ticked; false where there are more than a list shows at a glance: those
/// are typed by their beginning, as all of them may be.
bool LedgerView::showChoices(const QModelIndex& index) {
  constexpr qsizetype kMostListed = 14;
  const QStringList& choices = model_.choicesAt(index);
  const bool editable = (model_.flags(index) & Qt::ItemIsEditable) != 0;
  if (!editable || choices.isEmpty() || choices.size() > kMostListed) return false;
  auto* list = new QMenu(this);
  list->setObjectName(QStringLiteral("choices"));
  list->setAttribute(Qt::WA_DeleteOnClose);
  const QString stands = index.data().toString();
  for (const QString& choice : choices) {
    QAction* action = list->addAction(menuText(choice));
    action->setCheckable(true);
    action->setChecked(choice == stands);
    if (choice == stands) list->setActiveAction(action);
    connect(action, &QAction::triggered, this,
            [this, at = QPersistentModelIndex(index), choice] { model_.setData(at, choice, Qt::EditRole); });
  }
  list->popup(viewport()->mapToGlobal(visualRect(index).bottomLeft()));
  return true;
}

void LedgerView::mousePressEvent(QMouseEvent* event) {
  QTableView::mousePressEvent(event);
  const QModelIndex index = indexAt(event->pos());
  draggedRow_ = rowsDraggable_ && event->button() == Qt::LeftButton && index.column() == 0 ? index.row() : -1;
}

void LedgerView::mouseDoubleClickEvent(QMouseEvent* event) {
  const QModelIndex index = indexAt(event->pos());
  const LedgerCell* cell = model_.cellAt(index);
  if (cell != nullptr && cell->chooses && showChoices(index)) return;
  QTableView::mouseDoubleClickEvent(event);
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
  Q_EMIT selectionSummed(tr("%1 cells   sum %2   mean %3")
                             .arg(count)
                             .arg(shownText(Figure::of(sum), *kind), shownText(Figure::of(sum / count), *kind)));
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

}  // namespace zl::app
