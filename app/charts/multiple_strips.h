#pragma once
// A strip for each multiple: peers as dots (hollow where they do not count), the quartiles as a box with the median,
// the subject as a diamond; each strip on a scale of its own, from its lowest to its highest.

#include <vector>

#include "app/charts/telling_chart.h"

namespace zl::app {

struct StripMark {
  double figure = 0;
  bool in = true;
  QString who;
  ToldFigure told;
};

struct MultipleStrip {
  QString label;
  std::vector<StripMark> peers;
  std::optional<double> lowerQuartile, median, upperQuartile;
  std::optional<StripMark> subject;
  QString words;  ///< at the end: where the subject stands, or why there is nothing
};

class MultipleStrips : public TellingChart {
  Q_OBJECT

 public:
  explicit MultipleStrips(QWidget* parent = nullptr);
  void setStrips(std::vector<MultipleStrip> strips);
  [[nodiscard]] QSize sizeHint() const override;
  [[nodiscard]] QSize minimumSizeHint() const override { return {320, sizeHint().height()}; }

 protected:
  void paintEvent(QPaintEvent* event) override;
  bool event(QEvent* event) override;

 private:
  [[nodiscard]] double stripHeight() const;

  std::vector<MultipleStrip> strips_;
  std::vector<std::pair<QRectF, QString>> named_;  ///< of the last painting
};

}  // namespace zl::app
