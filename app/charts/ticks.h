#pragma once
// What stands at the ticks of an axis: as many decimals as the step asks for, and the room that it takes.

#include <QFontMetricsF>
#include <QStringList>
#include <algorithm>
#include <cmath>

#include "app/charts/axis.h"
#include "app/look/tabular.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {

struct Ticks {
  std::vector<double> at;  ///< figures
  QStringList words;       ///< of each, in the unit that `scale` makes
  double width = 0;        ///< of the widest
};

/// At most `most` ticks inside low..high; `scale` is what a figure is divided by to be shown.
inline Ticks ticksOf(double low, double high, int most, double scale, const QFont& font) {
  Ticks ticks{roundTicks(low, high, most), {}, 0};
  const double step = ticks.at.size() > 1 ? (ticks.at[1] - ticks.at[0]) / scale : 1;
  constexpr double kMostDecimals = 9;
  const int decimals =
      step >= 1 || step <= 0 ? 0 : static_cast<int>(std::min(kMostDecimals, std::ceil(-std::log10(step) - 1e-9)));
  for (const double tick : ticks.at) {
    ticks.words << text(groupedNumber(tick / scale, decimals, false));
    ticks.width = std::max(ticks.width, tabularWidth(font, ticks.words.last()));
  }
  return ticks;
}

/// A year beneath its column, whole within 0..width even where the column is at an edge.
inline void drawYear(QPainter& painter, double middle, double top, const QString& words, double width) {
  const QFontMetricsF metrics(painter.font());
  const double wide = metrics.horizontalAdvance(words) + 1;
  const double left = std::max(0.0, std::min(middle - wide / 2, width - wide));
  painter.drawText(QRectF(left, top, wide, metrics.height()), Qt::AlignLeft | Qt::TextDontClip, words);
}

}  // namespace zl::app
