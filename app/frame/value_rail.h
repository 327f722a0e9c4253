#pragma once
// The value rail: one axis in the listing's unit per share with the price as a stem, worst to best
// as a band with base as a diamond, other methods as ticks, the buy-below price as a notch. While
// something is edited the stored marks stay as ghosts and the change is written beside them. Arrows
// go from mark to mark, Enter goes to the page a mark comes from.

#include "app/bench/workbench.h"
#include "app/charts/axis.h"
#include "app/charts/telling_chart.h"

namespace zl::app {

class ValueRail : public TellingChart {
  Q_OBJECT

 public:
  explicit ValueRail(Workbench& bench, QWidget* parent = nullptr);
  [[nodiscard]] QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void leaveEvent(QEvent* event) override;

 private:
  struct Mark {
    QString label;
    QString scenario;  ///< empty for price and other methods
    double figure;
    Stop stop;
    ToldFigure told;
    enum class Shape { Scenario, Tick, Price, Notch } shape;
  };
  std::vector<Mark> marksOf(const services::Snapshot& s) const;
  [[nodiscard]] int figureAt(const QPointF& place) const override;
  void paintMark(QPainter& painter, const Mark& mark, bool ghost) const;
  void paintLabels(QPainter& painter, const std::vector<Mark>& ghosts) const;
  void refresh();
  /// Marks as keys go through them, from the lowest figure on.
  [[nodiscard]] std::vector<const Mark*> inOrder() const;

  Workbench& bench_;
  std::vector<Mark> marks_;
  Scale scale_;
  double axisY_ = 0;
};

}  // namespace zl::app
