#pragma once
// Daily closes with the events that happened along the way.

#include <QWidget>
#include <vector>

#include "core/capital/rates.h"

namespace zl::app {

struct PriceMark {
  Date on;
  QString what;
};

class PriceChart : public QWidget {
  Q_OBJECT

 public:
  explicit PriceChart(QWidget* parent = nullptr);
  void setContent(std::vector<PricePoint> prices, std::vector<PriceMark> marks, QString unit);
  /// A second series on the same scale, dotted, with what it is.
  void setBeside(std::vector<PricePoint> points, const QString& what);
  /// Another series than closes: what it is, over the chart.
  void setTitle(const QString& title) { title_ = title; }
  [[nodiscard]] QSize minimumSizeHint() const override { return {260, 130}; }

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::vector<PricePoint> prices_, beside_;
  std::vector<PriceMark> marks_;
  QString unit_, title_, besideWhat_;
};

}  // namespace zl::app
