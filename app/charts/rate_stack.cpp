#include "app/charts/rate_stack.h"

#include <QPainter>
#include <algorithm>

#include "app/charts/axis.h"
#include "app/look/tabular.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {

namespace {

/// Of a bar: a line of letters and some air.
double barHeight(const QFont& font) {
  return std::max(18.0, QFontMetricsF(font).height() + 2);
}
double rowHeight(const QFont& font) {
  return barHeight(font) + 8;
}

}  // namespace

RateStack::RateStack(QWidget* parent) : TellingChart(parent) {
  setObjectName(QStringLiteral("rateStack"));
  setAccessibleName(tr("The rate, part by part"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize RateStack::sizeHint() const {
  return {500, static_cast<int>(std::max(1.0, static_cast<double>(bars_.size())) * rowHeight(font()) +
                                QFontMetricsF(font()).height() + 10)};
}

void RateStack::setBars(std::vector<RateBar> bars) {
  bars_ = std::move(bars);
  QStringList said;
  for (const RateBar& bar : bars_) {
    said << bar.label + QLatin1Char(' ') + zl::app::text(groupedNumber(bar.total * 100, 2)) + QStringLiteral(" %");
    for (const RatePart& part : bar.parts) {
      if (part.figure > 0)
        said.back() +=
            QStringLiteral(", ") + part.label + QLatin1Char(' ') + zl::app::text(groupedNumber(part.figure * 100, 2));
    }
  }
  setAccessibleDescription(said.join(QStringLiteral("; ")));
  updateGeometry();
  update();
}

void RateStack::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& t = theme();
  painter.fillRect(rect(), t.paper);
  painter.setRenderHint(QPainter::Antialiasing);
  beginFigures();
  double high = 0.01;
  for (const RateBar& bar : bars_) high = std::max(high, bar.total);
  QFont bold = font();
  bold.setBold(true);
  const QFontMetricsF metrics(font());
  double names = 0;
  for (const RateBar& bar : bars_) names = std::max(names, metrics.horizontalAdvance(bar.label));
  names = std::min(names + 2, width() * 0.3);
  const double total = tabularWidth(bold, QStringLiteral("00.00 %")) + 12;
  const Scale x{0, high, 26 + names + 12, width() - total};
  const double line = metrics.height(), thick = barHeight(font());
  double y = 6;
  for (const RateBar& bar : bars_) {
    drawScenarioMark(painter, bar.scenario, {14, y + line + thick / 2}, 9);
    painter.setPen(t.ink);
    painter.drawText(QRectF(26, y + line, names, thick), Qt::AlignLeft | Qt::AlignVCenter,
                     metrics.elidedText(bar.label, Qt::ElideRight, names));
    double from = 0;
    int index = 0;
    for (const RatePart& part : bar.parts) {
      if (part.figure <= 0) continue;
      const QRectF block(x.at(from), y + line, x.at(from + part.figure) - x.at(from), thick);
      QColor fill = t.scenario(bar.scenario);
      fill.setAlphaF(index % 2 == 0 ? 0.42f : 0.22f);
      painter.fillRect(block, fill);
      addFigure(block, part.told);
      painter.setPen(QPen(t.paper, 1));
      painter.drawLine(block.topRight(), block.bottomRight());
      painter.setPen(t.ink);
      const QString figure = zl::app::text(groupedNumber(part.figure * 100, 2));
      if (block.width() > tabularWidth(font(), figure) + 4) drawTabular(painter, block, figure, Qt::AlignHCenter);
      // One legend serves all bars: it stands over the first.
      painter.setPen(t.quiet);
      if (&bar == &bars_.front())
        painter.drawText(QRectF(block.left(), y, block.width() - 4, line), Qt::AlignLeft | Qt::AlignBottom,
                         metrics.elidedText(part.label, Qt::ElideRight, block.width() - 4));
      from += part.figure;
      ++index;
    }
    painter.setPen(t.ink);
    painter.setFont(bold);
    addFigure({x.at(from) + 4, y + line, total - 4, thick}, bar.told);
    drawTabular(painter, {x.at(from) + 6, y + line, total - 6, thick},
                zl::app::text(groupedNumber(bar.total * 100, 2)) + QStringLiteral(" %"), Qt::AlignLeft);
    painter.setFont(font());
    y += rowHeight(font());
  }
  paintCursor(painter);
}

}  // namespace zl::app
