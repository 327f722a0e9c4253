#pragma once
// A grid that behaves as people expect of grids: arrows, Tab, F2, type to replace, copy and paste
// of tab-separated cells, and a sum of the selection.

#include <QStyledItemDelegate>
#include <QTableView>

#include "app/grid/ledger_model.h"

namespace zl::app {

class LedgerView : public QTableView {
  Q_OBJECT

 public:
  explicit LedgerView(QWidget* parent = nullptr);
  [[nodiscard]] LedgerModel& ledger() { return model_; }
  /// Column widths: label, trend, figures.
  void setWidths(int label, int figure, int trend = 90);
  /// Figures share the width there is, down to what their digits need; no sideways scrolling
  /// before that.
  void fitFigures(int narrowest) { narrowest_ = narrowest; }
  /// Widths of single columns, from the first figure on; for grids that hold words.
  void setColumns(std::vector<int> widths) { ownWidths_ = std::move(widths); }
  /// Labels keep at least this width and the figures scroll instead.
  void keepLabel(int width) { leastLabel_ = width; }
  /// Rows may be dragged by their labels on to other rows.
  void setRowsDraggable(bool on) { rowsDraggable_ = on; }
  void showAll();  ///< height for all rows, without a scroll bar

 Q_SIGNALS:
  void cellFocused(zl::model::Cell cell, int scenario);
  void cellTold(const zl::services::Telling& story);
  void selectionSummed(const QString& summary);
  void rowActivated(int row, int column);  ///< Enter, Space or double click on a cell that offers no choice
  void rowDragged(int from, int to);
  /// Tab-separated cells to be typed from this cell on; one edit.
  void pasted(int row, int column, const QList<QStringList>& cells);

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void currentChanged(const QModelIndex& current, const QModelIndex& previous) override;
  void selectionChanged(const QItemSelection& selected, const QItemSelection& deselected) override;
  void resizeEvent(QResizeEvent* event) override;
  void focusInEvent(QFocusEvent* event) override;

 private:
  void askCurrent();  ///< what the cell under the cursor stands on is told
  void copySelection() const;
  void paste();
  void applyWidths();

  LedgerModel model_;
  bool rowsDraggable_ = false;
  int draggedRow_ = -1;
  int labelWidth_ = 260;
  int figureWidth_ = 74;
  int trendWidth_ = 90;
  int narrowest_ = 0;
  int leastLabel_ = 110;
  std::vector<int> ownWidths_;
};

class LedgerDelegate : public QStyledItemDelegate {
  Q_OBJECT

 public:
  explicit LedgerDelegate(const LedgerModel& model, QObject* parent = nullptr)
      : QStyledItemDelegate(parent), model_(model) {}
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
  QWidget* createEditor(QWidget* parent, const QStyleOptionViewItem& option, const QModelIndex& index) const override;

 private:
  void paintHeading(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index,
                    const LedgerRow& row) const;
  void paintLabel(QPainter* painter, const QRect& rect, const LedgerRow& row) const;
  void paintScale(QPainter* painter, const QRect& rect, const ScaleMark& scale) const;
  void paintTrend(QPainter* painter, const QRect& rect, const LedgerRow& row) const;
  void paintCell(QPainter* painter, const QRect& rect, const LedgerRow& row, const LedgerCell& cell,
                 const QString& shown) const;

  const LedgerModel& model_;
};

}  // namespace zl::app
