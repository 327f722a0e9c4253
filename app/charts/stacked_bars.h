#pragma once
// Parts of a whole by year, one bar each, the parts named beside the last bar and told apart by
// their filling as well as their colour.

#include <QStringList>
#include <vector>

#include "app/charts/telling_chart.h"
#include "core/quantity/figure.h"
#include "core/quantity/kind.h"

namespace zl::app {

struct BarPart {
  QString label;
  std::vector<Figure> figures;  ///< one per column
  /// What the figure of a column tells; empty: nothing.
  std::function<ToldFigure(int column)> told = {};
};

class StackedBars : public TellingChart {
  Q_OBJECT

 public:
  explicit StackedBars(QWidget* parent = nullptr);
  /// `whyNone` is shown where no part has a figure.
  void setContent(QString title, QStringList columns, std::vector<BarPart> parts, Kind kind, QString whyNone);
  /// Where the middle of each column lies, so that bars stand above the columns of a table; none: spread over the
  /// width. The parts are then named left of `from`, where the table has its labels.
  void setMiddles(std::vector<double> middles, double from);
  /// As high as its title, the names of its parts and the years need in the letters in use.
  [[nodiscard]] QSize minimumSizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  [[nodiscard]] QBrush filling(size_t part) const;

  QString title_, whyNone_;
  QStringList columns_;
  std::vector<BarPart> parts_;
  Kind kind_ = Kind::Money;
  std::vector<double> middles_;
  double from_ = 0;
};

}  // namespace zl::app
