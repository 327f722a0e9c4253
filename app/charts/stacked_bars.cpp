#include "app/charts/stacked_bars.h"

#include <QPainter>
#include <algorithm>

#include "app/charts/ticks.h"
#include "app/look/amounts.h"
#include "app/look/plain_text.h"
#include "app/look/tabular.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {

StackedBars::StackedBars(QWidget* parent) : TellingChart(parent) {
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void StackedBars::setContent(QString title, QStringList columns, std::vector<BarPart> parts, Kind kind,
                             QString whyNone) {
  title_ = std::move(title);
  columns_ = std::move(columns);
  parts_ = std::move(parts);
  kind_ = kind;
  whyNone_ = std::move(whyNone);
  setAccessibleName(title_);
  QStringList lines;
  for (const BarPart& part : parts_) {
    QStringList figures;
    for (qsizetype c = 0; c < columns_.size(); ++c) {
      figures << columns_[c] + QLatin1Char(' ') + shownText(part.figures[static_cast<size_t>(c)], kind_);
    }
    lines << part.label + QStringLiteral(": ") + figures.join(QStringLiteral(", "));
  }
  setToolTip(tipText(lines.join(QLatin1Char('\n'))));
  setAccessibleDescription(lines.join(QStringLiteral("; ")));
  updateGeometry();
  update();
}

void StackedBars::setMiddles(std::vector<double> middles, double from) {
  middles_ = std::move(middles);
  from_ = from;
  update();
}

QSize StackedBars::minimumSizeHint() const {
  constexpr int kLeast = 160, kFewestLines = 4;
  const int lines = std::max(kFewestLines, static_cast<int>(parts_.size())) + 2;
  return {220, std::max(kLeast, lines * (fontMetrics().height() + 3) + 12)};
}

QBrush StackedBars::filling(size_t part) const {
  const Theme& t = theme();
  const QColor colours[] = {t.accent, t.worst, t.assumed, t.best, t.quiet, t.price};
  const Qt::BrushStyle styles[] = {Qt::SolidPattern, Qt::BDiagPattern, Qt::Dense5Pattern,
                                   Qt::HorPattern,   Qt::FDiagPattern, Qt::CrossPattern};
  return {colours[part % 6], styles[part % 6]};
}

void StackedBars::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& t = theme();
  painter.fillRect(rect(), t.paper);
  beginFigures();
  const QFontMetricsF metrics(font());
  const double line = metrics.height();
  painter.setPen(t.ink);
  painter.drawText(QPointF(8, line), metrics.elidedText(title_, Qt::ElideRight, width() - 16));
  double low = 0, high = 0, names = 0;
  for (qsizetype c = 0; c < columns_.size(); ++c) {
    double above = 0, below = 0;
    for (const BarPart& part : parts_) {
      const double x = part.figures[static_cast<size_t>(c)].valueOr(0);
      (x > 0 ? above : below) += x;
    }
    low = std::min(low, below);
    high = std::max(high, above);
  }
  if (high <= low) {
    painter.setPen(t.quiet);
    painter.drawText(QRectF(rect()).adjusted(12, line, -12, 0), Qt::AlignCenter | Qt::TextWordWrap, whyNone_);
    return;
  }
  for (const BarPart& part : parts_) names = std::max(names, metrics.horizontalAdvance(part.label));
  names = std::min(names + 22, width() * 0.42);
  const Ticks ticks = ticksOf(low, high, 3, shownUnit(kind_), font());
  const bool aligned = middles_.size() == static_cast<size_t>(columns_.size()) && middles_.size() > 1;
  const double left = aligned ? from_ : std::max(44.0, ticks.width + 14);
  const double right = aligned ? width() - 8.0 : width() - names - 8;
  const Scale y{low, high, height() - line - 6.0, 1.6 * line + 4.0};
  for (qsizetype i = 0; i < ticks.words.size(); ++i) {
    const double tick = ticks.at[static_cast<size_t>(i)];
    painter.setPen(QPen(tick == 0 ? t.wideRule : t.rule, 1));
    painter.drawLine(QPointF(left, y.at(tick)), QPointF(right, y.at(tick)));
    painter.setPen(t.quiet);
    drawTabular(painter, {0, y.at(tick) - line / 2, left - 6, line}, ticks.words[i], Qt::AlignRight);
  }
  const double step = aligned ? middles_[1] - middles_[0] : (right - left) / static_cast<double>(columns_.size());
  // The last column's middle may lie near the edge.
  const double half = aligned ? std::min(step * 0.36, std::max(4.0, width() - 4 - middles_.back())) : step * 0.36;
  const int every = std::max(1, static_cast<int>((metrics.horizontalAdvance(columns_.last()) + 8) / step + 0.999));
  for (qsizetype c = 0; c < columns_.size(); ++c) {
    double above = 0, below = 0;
    const double x = aligned ? middles_[static_cast<size_t>(c)] - step / 2 : left + static_cast<double>(c) * step;
    if (x + step / 2 < left || (aligned && x + step / 2 > width() - 8)) continue;
    for (size_t p = 0; p < parts_.size(); ++p) {
      const double figure = parts_[p].figures[static_cast<size_t>(c)].valueOr(0);
      if (figure == 0) continue;
      double& base = figure > 0 ? above : below;
      const QRectF bar(QPointF(x + step / 2 - half, y.at(base + figure)), QPointF(x + step / 2 + half, y.at(base)));
      painter.setPen(QPen(filling(p).color(), 1));
      painter.setBrush(filling(p));
      painter.drawRect(bar.normalized());
      if (parts_[p].told) addFigure(bar.normalized(), parts_[p].told(static_cast<int>(c)));
      base += figure;
    }
    if ((columns_.size() - 1 - c) % every != 0) continue;
    painter.setPen(t.quiet);
    drawYear(painter, x + step / 2, height() - line - 2, columns_[c], width());
  }
  const double legend = aligned ? 8 : right + 8;
  const double room = aligned ? left - ticks.width - 40 : names - 18;
  double at = line + 14;
  for (size_t p = parts_.size(); p-- > 0;) {
    painter.setPen(QPen(filling(p).color(), 1));
    painter.setBrush(filling(p));
    painter.drawRect(QRectF(legend, at, 9, 9));
    painter.setPen(t.ink);
    painter.drawText(QRectF(legend + 14, at - 4, room, line), Qt::AlignLeft,
                     metrics.elidedText(parts_[p].label, Qt::ElideRight, room));
    at += line + 3;
  }
  paintCursor(painter);
}

}  // namespace zl::app
