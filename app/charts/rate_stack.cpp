#include "app/charts/rate_stack.h"

#include <QPainter>
#include <algorithm>

#include "app/charts/axis.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {

RateStack::RateStack(QWidget* parent) : TellingChart(parent) {
  setObjectName(QStringLiteral("rateStack"));
  setAccessibleName(tr("The rate, part by part"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize RateStack::sizeHint() const {
  return {500, static_cast<int>(std::max<size_t>(1, bars_.size())) * (26) + fontMetrics().height() + 10};
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
  const Scale x{0, high * 1.12, 84, width() - 70.0};
  const double line = QFontMetricsF(font()).height();
  double y = 6;
  for (const RateBar& bar : bars_) {
    drawScenarioMark(painter, bar.scenario, {14, y + line + 9}, 9);
    painter.setPen(t.ink);
    painter.drawText(QRectF(26, y + line, 60, 18), Qt::AlignLeft | Qt::AlignVCenter, bar.label);
    double from = 0;
    int index = 0;
    for (const RatePart& part : bar.parts) {
      if (part.figure <= 0) continue;
      const QRectF block(x.at(from), y + line, x.at(from + part.figure) - x.at(from), 18);
      QColor fill = t.scenario(bar.scenario);
      fill.setAlphaF(index % 2 == 0 ? 0.42f : 0.22f);
      painter.fillRect(block, fill);
      addFigure(block, part.told);
      painter.setPen(QPen(t.paper, 1));
      painter.drawLine(block.topRight(), block.bottomRight());
      painter.setPen(t.ink);
      const QString figure = zl::app::text(groupedNumber(part.figure * 100, 2));
      if (block.width() > tabularWidth(QFontMetricsF(font()), figure) + 4)
        drawTabular(painter, block, figure, Qt::AlignHCenter);
      // One legend serves all bars: it stands over the first.
      painter.setPen(t.quiet);
      if (&bar == &bars_.front())
        painter.drawText(QRectF(block.left(), y, block.width() - 4, line), Qt::AlignLeft | Qt::AlignBottom,
                         QFontMetricsF(font()).elidedText(part.label, Qt::ElideRight, block.width() - 4));
      from += part.figure;
      ++index;
    }
    painter.setPen(t.ink);
    QFont bold = font();
    bold.setBold(true);
    painter.setFont(bold);
    addFigure({x.at(from) + 4, y + line, 60, 18}, bar.told);
    drawTabular(painter, {x.at(from) + 6, y + line, 70, 18},
                zl::app::text(groupedNumber(bar.total * 100, 2)) + QStringLiteral(" %"), Qt::AlignLeft);
    painter.setFont(font());
    y += 26;
  }
  paintCursor(painter);
}

}  // namespace zl::app
