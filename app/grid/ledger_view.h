#pragma once
// A grid that behaves as people expect of grids: arrows, Tab, F2, type to replace, copy and paste
// of tab-separated cells, and a sum of the selection. Columns are as wide as what they show; where they do not fit, the
// figures scroll beneath the labels, which stay.

#include <QTableView>

#include "app/grid/column_widths.h"
#include "app/grid/ledger_model.h"

namespace zl::app {

class LedgerView : public QTableView {
  Q_OBJECT

 public:
  explicit LedgerView(QWidget* parent = nullptr);
  [[nodiscard]] LedgerModel& ledger() { return model_; }
  /// Of figures where there is room, and of the trend, at 100 %; figures get more where they need it.
  void setWidths(int figure, int trend = 90);
  /// Of single columns, from the first figure on; for grids that hold words.
  void setColumns(std::vector<int> widths) { ownWidths_ = std::move(widths); }
  /// Columns of figures stand above those of another table, from the last one back, where they all fit so.
  void follow(LedgerView* other);
  /// The room for labels, where figures can spare it.
  void setLabelRoom(int width) { labelRoom_ = width; }
  /// Where a column's heading stands, its middle, in this widget; columns count from the first figure.
  [[nodiscard]] double middleOf(int column) const;
  /// Rows may be dragged by their labels on to other rows.
  void setRowsDraggable(bool on) { rowsDraggable_ = on; }
  void showAll();  ///< from now on as high as all its rows, without a scroll bar
  [[nodiscard]] QRect visualRect(const QModelIndex& index) const override;
  [[nodiscard]] QModelIndex indexAt(const QPoint& point) const override;
  void scrollTo(const QModelIndex& index, ScrollHint hint = EnsureVisible) override;

 Q_SIGNALS:
  void widthsChanged();
  void cellFocused(zl::model::Cell cell, int scenario);
  void cellTold(const zl::services::Telling& story);
  void selectionSummed(const QString& summary);
  void rowActivated(int row, int column);  ///< Enter, Space or double click on a cell that offers no choice
  void rowDragged(int from, int to);
  /// Tab-separated cells to be typed from this cell on; one edit.
  void pasted(int row, int column, const QList<QStringList>& cells);

 protected:
  /// Paints only what looks otherwise now: an edit leaves most rows of most grids as they were.
  void dataChanged(const QModelIndex& topLeft, const QModelIndex& bottomRight, const QList<int>& roles) override;
  void keyPressEvent(QKeyEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void currentChanged(const QModelIndex& current, const QModelIndex& previous) override;
  void selectionChanged(const QItemSelection& selected, const QItemSelection& deselected) override;
  void resizeEvent(QResizeEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void changeEvent(QEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void scrollContentsBy(int dx, int dy) override;
  void focusInEvent(QFocusEvent* event) override;

 private:
  void askCurrent();  ///< what the cell under the cursor stands on is told
  void copySelection() const;
  bool showChoices(const QModelIndex& index);
  void paste();
  void measure();
  void measureAgain();  ///< columns grow with their figures and do not shrink while something is dragged
  void applyWidths();
  /// Rows whose label takes several lines are as high as they. Only of a grid in sight: before it has its place it is
  /// narrow, and would push the window higher than it need be.
  void applyHeights();
  void makeLabelRoom(ColumnWidths& widths, int room) const;
  void takeWidthsOf(const LedgerView& other, ColumnWidths& widths) const;
  [[nodiscard]] int scrolled() const;  ///< pixels that the figures are moved beneath the labels

  LedgerModel model_;
  bool rowsDraggable_ = false;
  bool showsAll_ = false;
  int draggedRow_ = -1;
  int figureWidth_ = 60;
  int trendWidth_ = 90;
  std::vector<int> ownWidths_;
  LedgerView* followed_ = nullptr;
  int labelRoom_ = 0;
  NeededWidths needed_;
};

}  // namespace zl::app
