#pragma once
// Every method's range on one axis against the price.

#include <QWidget>
#include <optional>
#include <vector>

namespace zl::app {

struct MethodRange {
  QString label;
  double low, high;
  std::optional<double> middle;
  QString whyNot;  ///< set when the method has no value; low and high are then ignored
  bool scenarios = false;
};

class RangeChart : public QWidget {
  Q_OBJECT

 public:
  explicit RangeChart(QWidget* parent = nullptr);
  void setContent(std::vector<MethodRange> ranges, std::optional<double> price, std::optional<double> buyBelow,
                  QString unit);
  [[nodiscard]] QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::vector<MethodRange> ranges_;
  std::optional<double> price_, buyBelow_;
  QString unit_;
};

}  // namespace zl::app
