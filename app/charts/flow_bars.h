#pragma once
// Free cash flow by year: filed bars plain, projected ones by scenario side by side.

#include <QStringList>
#include <vector>

#include "app/charts/telling_chart.h"
#include "core/quantity/figure.h"

namespace zl::app {

struct FlowSeries {
  QString scenario, label;
  std::vector<Figure> figures;  ///< one per forecast year, money
};

class FlowBars : public TellingChart {
  Q_OBJECT

 public:
  explicit FlowBars(QWidget* parent = nullptr);
  /// `firstColumn` is the model's column of the first period, `row` the row drawn.
  void setSource(model::RowId row, int firstColumn);
  void setContent(QStringList periods, std::vector<Figure> history, std::vector<FlowSeries> series, QString unit);
  /// Where the middle of each period lies, so that bars stand above the columns of a table; none: spread over the
  /// width. A period left of `from` is scrolled out of the table and not drawn.
  void setMiddles(std::vector<double> middles, double from);
  [[nodiscard]] QSize minimumSizeHint() const override { return {300, 130}; }

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  QStringList periods_;
  std::vector<Figure> history_;
  std::vector<FlowSeries> series_;
  QString unit_;
  model::RowId row_;
  int firstColumn_ = 0;
  std::vector<double> middles_;
  double from_ = 0;
};

}  // namespace zl::app
