#pragma once
// The discount rate built up from its parts, one bar per scenario: cost of equity part by part,
// cost of debt after tax beside it, the weighted rate as a mark.

#include <vector>

#include "app/charts/telling_chart.h"

namespace zl::app {

struct RatePart {
  QString label;
  double figure;  ///< a fraction, already weighted
  ToldFigure told = {};
};
struct RateBar {
  QString scenario, label;
  std::vector<RatePart> parts;
  double total;
  ToldFigure told = {};  ///< of the total
};

class RateStack : public TellingChart {
  Q_OBJECT

 public:
  explicit RateStack(QWidget* parent = nullptr);
  void setBars(std::vector<RateBar> bars);
  [[nodiscard]] QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::vector<RateBar> bars_;
};

}  // namespace zl::app
