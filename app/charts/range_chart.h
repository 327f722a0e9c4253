#pragma once
// Every method's range on one axis against the price.

#include <optional>
#include <vector>

#include "app/charts/telling_chart.h"

namespace zl::app {

struct MethodRange {
  QString label;
  double low = 0, high = 0;
  std::optional<double> middle = {};
  QString whyNot = {};  ///< set when the method has no value; low and high are then ignored
  bool scenarios = false;
  ToldFigure lowTold = {}, middleTold = {}, highTold = {};
};

/// A line across all methods.
struct RangeMark {
  double figure = 0;
  ToldFigure told = {};
};

class RangeChart : public TellingChart {
  Q_OBJECT

 public:
  explicit RangeChart(QWidget* parent = nullptr);
  void setContent(std::vector<MethodRange> ranges, std::optional<RangeMark> price, std::optional<RangeMark> buyBelow,
                  QString unit);
  [[nodiscard]] QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::vector<MethodRange> ranges_;
  std::optional<RangeMark> price_, buyBelow_;
  QString unit_;
};

}  // namespace zl::app
