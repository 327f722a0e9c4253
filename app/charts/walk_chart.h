#pragma once
// What moved a value from one figure to another: a bar a step, each beginning where the one above
// ended.

#include <QStringList>
#include <vector>

#include "app/charts/telling_chart.h"

namespace zl::app {

struct WalkBar {
  QString label;
  double effect = 0;
  QString figure;  ///< as written, with its sign
  QString tip;     ///< what the step is made of
  ToldFigure told = {};
};

struct WalkContent {
  QString fromLabel, toLabel;
  double from = 0, to = 0;
  QString fromFigure, toFigure;
  ToldFigure fromTold = {}, toTold = {};
  QString unit;
  std::vector<WalkBar> bars;
  QString gap;  ///< why there is nothing to draw; empty: there is
};

class WalkChart : public TellingChart {
  Q_OBJECT

 public:
  explicit WalkChart(QWidget* parent = nullptr);
  void setContent(WalkContent content);
  [[nodiscard]] QSize sizeHint() const override;
  [[nodiscard]] QSize minimumSizeHint() const override { return {320, sizeHint().height()}; }

 protected:
  void paintEvent(QPaintEvent* event) override;
  bool event(QEvent* event) override;

 private:
  [[nodiscard]] double stepHeight() const;  ///< of one bar, in pixels
  [[nodiscard]] double labelsWidth() const;
  WalkContent content_;
};

}  // namespace zl::app
