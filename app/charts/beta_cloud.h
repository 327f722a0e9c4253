#pragma once
// A share's returns against an index's as points, with the line of least squares and the band that its error leaves.
// Points are named on focus.

#include <QString>

#include "app/charts/telling_chart.h"
#include "core/capital/beta.h"

namespace zl::app {

struct CloudContent {
  std::vector<ReturnPair> pairs;
  Regression fit;
  QString title;
  QString indexName, whyNone;
};

class BetaCloud : public TellingChart {
  Q_OBJECT

 public:
  explicit BetaCloud(QWidget* parent = nullptr);
  void setContent(CloudContent content);
  [[nodiscard]] QSize minimumSizeHint() const override { return {320, 240}; }

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  CloudContent content_;
};

}  // namespace zl::app
