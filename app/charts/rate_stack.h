#pragma once
// The discount rate built up from its parts, one bar per scenario: cost of equity part by part,
// cost of debt after tax beside it, the weighted rate as a mark.

#include <QWidget>
#include <vector>

namespace zl::app {

struct RatePart {
  QString label;
  double figure;  ///< a fraction, already weighted
};
struct RateBar {
  QString scenario, label;
  std::vector<RatePart> parts;
  double total;
};

class RateStack : public QWidget {
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
