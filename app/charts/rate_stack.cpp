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

struct Legend {
  QString label;
  double at = 0;  ///< where its block begins
};

/// Each label begins over its block, or as near to it as those beside it leave room; where not all have room, all are
/// cut to their blocks.
void drawLegend(QPainter& painter, const std::vector<Legend>& legend, const QRectF& row) {
  constexpr double kBetween = 10;
  const QFontMetricsF metrics(painter.font());
  std::vector<double> from;
  double free = row.left();
  for (const Legend& l : legend) {
    from.push_back(std::max(l.at, free));
    free = from.back() + metrics.horizontalAdvance(l.label) + kBetween;
  }
  double limit = row.right();
  for (size_t i = legend.size(); i-- > 0;) {
    from[i] = std::min(from[i], limit - metrics.horizontalAdvance(legend[i].label));
    limit = from[i] - kBetween;
  }
  const bool fit = from.empty() || from.front() >= row.left() - 0.5;
  painter.setPen(theme().quiet);
  for (size_t i = 0; i < legend.size(); ++i) {
    const double next = i + 1 < legend.size() ? legend[i + 1].at : row.right();
    const QString label =
        fit ? legend[i].label : metrics.elidedText(legend[i].label, Qt::ElideRight, next - legend[i].at - 4);
    painter.drawText(QPointF(fit ? from[i] : legend[i].at, row.bottom() - metrics.descent()), label);
  }
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
    std::vector<Legend> legend;  // one serves all bars: it stands over the first
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
      if (&bar == &bars_.front()) legend.push_back({part.label, block.left()});
      from += part.figure;
      ++index;
    }
    drawLegend(painter, legend, QRectF(x.at(0), y, width() - 8 - x.at(0), line));
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
