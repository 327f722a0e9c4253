#include "app/charts/walk_chart.h"

#include <QHelpEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>

#include "app/charts/axis.h"
#include "app/look/plain_text.h"
#include "app/look/tabular.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {
namespace {
constexpr double kTop = 6;
}  // namespace

WalkChart::WalkChart(QWidget* parent) : TellingChart(parent) {
  setObjectName(QStringLiteral("walkChart"));
  setAccessibleName(tr("What moved the value"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

double WalkChart::stepHeight() const {
  return std::max(24.0, QFontMetricsF(font()).height() + 8);
}

/// As wide as the widest name, up to two fifths of the chart.
double WalkChart::labelsWidth() const {
  QFont strong = font();
  strong.setBold(true);
  const QFontMetricsF plain(font()), bold(strong);
  double widest = std::max({plain.horizontalAdvance(tr("%1 per share").arg(content_.unit)),
                            bold.horizontalAdvance(content_.fromLabel), bold.horizontalAdvance(content_.toLabel)});
  for (const WalkBar& bar : content_.bars) widest = std::max(widest, plain.horizontalAdvance(bar.label));
  return std::min(widest + 14, width() * 0.4);
}

QSize WalkChart::sizeHint() const {
  const double rows = content_.gap.isEmpty() ? static_cast<double>(content_.bars.size() + 2) : 2;
  return {500, static_cast<int>(kTop + stepHeight() * rows + QFontMetricsF(font()).height() + 10)};
}

void WalkChart::setContent(WalkContent content) {
  content_ = std::move(content);
  QStringList said{content_.fromLabel + QLatin1Char(' ') + content_.fromFigure};
  for (const WalkBar& bar : content_.bars) said << bar.label + QLatin1Char(' ') + bar.figure;
  said << content_.toLabel + QLatin1Char(' ') + content_.toFigure;
  setAccessibleDescription(content_.gap.isEmpty() ? said.join(QStringLiteral("; ")) : content_.gap);
  updateGeometry();
  update();
}

bool WalkChart::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip) return TellingChart::event(event);
  const auto* help = static_cast<QHelpEvent*>(event);
  const int row = static_cast<int>((help->pos().y() - kTop) / stepHeight()) - 1;
  const bool on = content_.gap.isEmpty() && row >= 0 && row < static_cast<int>(content_.bars.size());
  QToolTip::showText(help->globalPos(), on ? tipText(content_.bars[static_cast<size_t>(row)].tip) : QString(), this);
  return true;
}

void WalkChart::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& t = theme();
  painter.fillRect(rect(), t.paper);
  painter.setRenderHint(QPainter::Antialiasing);
  beginFigures();
  if (!content_.gap.isEmpty()) {
    painter.setPen(t.quiet);
    painter.drawText(rect().adjusted(8, 4, -8, -4), Qt::AlignLeft | Qt::TextWordWrap,
                     QStringLiteral("·  ") + content_.gap);
    return;
  }
  double low = std::min(content_.from, content_.to);
  double high = std::max(content_.from, content_.to);
  double at = content_.from;
  for (const WalkBar& bar : content_.bars) {
    at += bar.effect;
    low = std::min(low, at);
    high = std::max(high, at);
  }
  const QFontMetricsF metrics(font());
  double widest = 0;
  for (const WalkBar& bar : content_.bars) widest = std::max(widest, tabularWidth(font(), bar.figure));
  const double line = metrics.height(), labels = labelsWidth(), step = stepHeight();
  const double pad = std::max((high - low) * 0.06, std::max(1e-9, std::abs(high) * 0.002));
  const Scale x{low - pad, high + pad, labels + 14, std::max(labels + 60, width() - widest - 22.0)};
  const double rows = static_cast<double>(content_.bars.size() + 2);
  const double bottom = kTop + step * rows;
  for (double tick : roundTicks(x.low, x.high, std::max(3, static_cast<int>(width() / (7 * line))))) {
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(x.at(tick), kTop), QPointF(x.at(tick), bottom));
    painter.setPen(t.quiet);
    const double apart = (x.high - x.low) / 8;
    drawTabular(painter, {x.at(tick) - 3 * line, bottom + 3, 6 * line, line},
                text(groupedNumber(tick,
                                   apart < 0.05  ? 2
                                   : apart < 0.5 ? 1
                                                 : 0,
                                   false)),
                Qt::AlignHCenter);
  }
  painter.setPen(t.quiet);
  painter.drawText(QRectF(8, bottom + 3, labels, line), Qt::AlignLeft, tr("%1 per share").arg(content_.unit));
  double y = kTop;
  const auto label = [&](const QString& words, bool strong) {
    QFont f = font();
    f.setBold(strong);
    painter.setFont(f);
    painter.setPen(t.ink);
    painter.drawText(QRectF(8, y, labels - 12, step), Qt::AlignLeft | Qt::AlignVCenter,
                     QFontMetricsF(f).elidedText(words, Qt::ElideRight, labels - 12));
  };
  // A figure stands to the right of its mark, on paper of its own.
  const auto figure = [&](double pixel, const QString& words, bool strong, const ToldFigure& told) {
    const QRectF area(pixel + 7, y + 4, tabularWidth(painter.font(), words) + (strong ? 8 : 2), step - 8);
    painter.fillRect(area, t.paper);
    painter.setPen(strong ? t.ink : t.quiet);
    drawTabular(painter, area, words, Qt::AlignLeft | Qt::AlignVCenter);
    addFigure(area, told);
  };
  const auto total = [&](const QString& words, double value, const QString& shown, const ToldFigure& told) {
    label(words, true);
    drawScenarioMark(painter, QStringLiteral("base"), {x.at(value), y + step / 2}, 11);
    figure(x.at(value), shown, true, told);
    y += step;
  };
  total(content_.fromLabel, content_.from, content_.fromFigure, content_.fromTold);
  at = content_.from;
  for (const WalkBar& bar : content_.bars) {
    label(bar.label, false);
    const double begin = x.at(at);
    const double end = x.at(at + bar.effect);
    painter.setPen(QPen(t.wideRule, 1, Qt::DotLine));
    painter.drawLine(QPointF(begin, y - step / 2), QPointF(begin, y + step / 2));
    const double left = std::min(begin, end);
    const double wide = std::max(1.5, std::abs(end - begin));
    const QRectF area(left, y + 6, wide, step - 12);
    // Up is filled, down is hatched: the sign can be told without colour.
    if (bar.effect >= 0) {
      painter.fillRect(area, t.best);
    } else {
      painter.fillRect(area, QBrush(t.worst, Qt::BDiagPattern));
      painter.setBrush(Qt::NoBrush);
      painter.setPen(QPen(t.worst, 1));
      painter.drawRect(area);
    }
    figure(left + wide, bar.figure, false, bar.told);
    at += bar.effect;
    y += step;
  }
  total(content_.toLabel, content_.to, content_.toFigure, content_.toTold);
  paintCursor(painter);
}

}  // namespace zl::app
