#pragma once
// Free cash flow by year: filed bars plain, projected ones by scenario side by side.

#include <QStringList>
#include <QWidget>
#include <vector>

#include "core/quantity/figure.h"

namespace zl::app {

struct FlowSeries {
  QString scenario, label;
  std::vector<Figure> figures;  ///< one per forecast year, money
};

class FlowBars : public QWidget {
  Q_OBJECT

 public:
  explicit FlowBars(QWidget* parent = nullptr);
  void setContent(QStringList periods, std::vector<Figure> history, std::vector<FlowSeries> series, QString unit);
  [[nodiscard]] QSize minimumSizeHint() const override { return {300, 130}; }

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  QStringList periods_;
  std::vector<Figure> history_;
  std::vector<FlowSeries> series_;
  QString unit_;
};

}  // namespace zl::app
