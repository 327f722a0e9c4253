#pragma once
// A chart whose figures can be asked what they stand on, by mouse and by keys: arrows go from
// figure to figure, Home and End to the first and the last.

#include <QWidget>
#include <optional>
#include <vector>

#include "app/telling/told_figure.h"
#include "core/model/program.h"

namespace zl::app {

class TellingChart : public QWidget {
  Q_OBJECT

 public:
  explicit TellingChart(QWidget* parent = nullptr);
  /// Figures drawn that can be asked, in the order that keys go through them.
  [[nodiscard]] int figureCount() const { return static_cast<int>(drawn_.size()); }

 Q_SIGNALS:
  void cellFocused(zl::model::Cell cell, int scenario);
  void cellTold(const zl::services::Telling& story);
  void figureActivated(int figure);  ///< Enter or Space on it

 protected:
  /// While painting: forgets what was drawn, then takes each figure with the place it has; at last
  /// draws the cursor.
  void beginFigures() { drawn_.clear(); }
  void addFigure(const QRectF& place, ToldFigure figure);
  void paintCursor(QPainter& painter) const;
  /// The figure at a place, -1 where there is none.
  [[nodiscard]] virtual int figureAt(const QPointF& place) const;
  /// Puts the cursor on a figure and tells of it.
  void ask(int figure);

  void keyPressEvent(QKeyEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void focusInEvent(QFocusEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;

 private:
  struct Drawn {
    QRectF place;
    ToldFigure figure;
  };
  std::vector<Drawn> drawn_;
  int current_ = -1;
};

}  // namespace zl::app
