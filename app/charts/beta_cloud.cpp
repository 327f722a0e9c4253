#include "app/charts/beta_cloud.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "app/charts/ticks.h"
#include "app/look/tabular.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/stories/story.h"

namespace zl::app {

BetaCloud::BetaCloud(QWidget* parent) : TellingChart(parent) {
  setObjectName(QStringLiteral("betaCloud"));
  setAccessibleName(tr("Returns of the share against the index"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void BetaCloud::setContent(CloudContent content) {
  content_ = std::move(content);
  setAccessibleDescription(content_.title);
  update();
}

void BetaCloud::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& t = theme();
  painter.fillRect(rect(), t.paper);
  beginFigures();
  const QFontMetricsF metrics(font());
  const double line = metrics.height();
  painter.setPen(t.ink);
  painter.drawText(QPointF(8, line), metrics.elidedText(content_.title, Qt::ElideRight, width() - 16));
  if (content_.pairs.empty()) {
    painter.setPen(t.quiet);
    painter.drawText(QRectF(rect()).adjusted(12, line * 2, -12, 0), Qt::AlignTop | Qt::TextWordWrap, content_.whyNone);
    return;
  }
  double lowX = 0, highX = 0, lowY = 0, highY = 0;
  for (const ReturnPair& p : content_.pairs) {
    lowX = std::min(lowX, p.index);
    highX = std::max(highX, p.index);
    lowY = std::min(lowY, p.share);
    highY = std::max(highY, p.share);
  }
  const double padX = std::max(0.002, (highX - lowX) * 0.06), padY = std::max(0.002, (highY - lowY) * 0.06);
  const double top = line + 14, bottom = height() - 2 * line - 10;
  const Scale y{lowY - padY, highY + padY, bottom, top};
  const Ticks ticks =
      ticksOf(y.low, y.high, std::max(2, static_cast<int>((bottom - top) / (2.6 * line))), 0.01, font());
  const double left = std::max(52.0, ticks.width + 16), right = width() - 14.0;
  const Scale x{lowX - padX, highX + padX, left, right};
  painter.setRenderHint(QPainter::Antialiasing);
  for (qsizetype i = 0; i < ticks.words.size(); ++i) {
    const double tick = ticks.at[static_cast<size_t>(i)];
    painter.setPen(QPen(tick == 0 ? t.wideRule : t.rule, 1));
    painter.drawLine(QPointF(left, y.at(tick)), QPointF(right, y.at(tick)));
    painter.setPen(t.quiet);
    drawTabular(painter, {0, y.at(tick) - line / 2, left - 8, line}, ticks.words[i], Qt::AlignRight);
  }
  const Ticks below =
      ticksOf(x.low, x.high, std::max(2, static_cast<int>((right - left) / (5.5 * line))), 0.01, font());
  for (qsizetype i = 0; i < below.words.size(); ++i) {
    const double at = x.at(below.at[static_cast<size_t>(i)]);
    painter.setPen(QPen(below.at[static_cast<size_t>(i)] == 0 ? t.wideRule : t.rule, 1));
    painter.drawLine(QPointF(at, top), QPointF(at, bottom));
    painter.setPen(t.quiet);
    drawTabular(painter, {at - 3 * line, bottom + 3, 6 * line, line}, below.words[i], Qt::AlignHCenter);
  }
  painter.setPen(t.quiet);
  painter.drawText(QRectF(left, height() - line - 3, right - left, line), Qt::AlignRight,
                   metrics.elidedText(tr("%1, return in %").arg(content_.indexName), Qt::ElideRight, right - left));
  for (const ReturnPair& p : content_.pairs) {
    const QPointF at(x.at(p.index), y.at(p.share));
    painter.setPen(Qt::NoPen);
    QColor ink = t.base;
    ink.setAlphaF(0.55F);
    painter.setBrush(ink);
    painter.drawEllipse(at, 2.4, 2.4);
    addFigure(QRectF(at.x() - 3, at.y() - 3, 6, 6),
              {{}, -1, [p, index = content_.indexName.toStdString()](const services::Snapshot& s) {
                 services::Story story =
                     services::storyAbout(s, "Return to " + dateText(p.on), Figure::of(p.share), Kind::Ratio);
                 story.lines.push_back(index + " " + groupedNumber(p.index * 100, 1) + " % over the same days");
                 return story;
               }});
  }
  if (content_.fit.beta.hasValue()) {
    const double alpha = content_.fit.alpha.value();
    double mean = 0;
    for (const ReturnPair& p : content_.pairs) mean += p.index / static_cast<double>(content_.pairs.size());
    const double centre = alpha + content_.fit.beta.value() * mean;
    const auto at = [&](double beta, double index) {
      return QPointF(x.at(index), y.at(centre + beta * (index - mean)));
    };
    painter.setClipRect(QRectF(left, top, right - left, bottom - top));
    QPolygonF band;
    band << at(content_.fit.low.value(), x.low) << at(content_.fit.low.value(), x.high)
         << at(content_.fit.high.value(), x.high) << at(content_.fit.high.value(), x.low);
    // Two wedges that meet where the means are.
    QColor quiet = t.assumed;
    quiet.setAlphaF(0.16F);
    painter.setPen(Qt::NoPen);
    painter.setBrush(quiet);
    const QPointF middle = at(0, mean);
    painter.drawPolygon(QPolygonF({band[0], middle, band[3]}));
    painter.drawPolygon(QPolygonF({band[1], middle, band[2]}));
    painter.setPen(QPen(t.assumed, 1.6));
    painter.drawLine(at(content_.fit.beta.value(), x.low), at(content_.fit.beta.value(), x.high));
    painter.setClipping(false);
  }
  paintCursor(painter);
}

}  // namespace zl::app
