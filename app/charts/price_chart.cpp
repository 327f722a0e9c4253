#include "app/charts/price_chart.h"

#include <QPainter>
#include <QPolygonF>
#include <algorithm>
#include <cmath>

#include "app/charts/ticks.h"
#include "app/look/plain_text.h"
#include "app/look/tabular.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {

PriceChart::PriceChart(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("priceChart"));
  setAccessibleName(tr("Price and events"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void PriceChart::setContent(std::vector<PricePoint> prices, std::vector<PriceMark> marks, QString unit) {
  prices_ = std::move(prices);
  marks_ = std::move(marks);
  unit_ = std::move(unit);
  QStringList lines;
  for (size_t i = 0; i < marks_.size(); ++i) {
    lines << QStringLiteral("%1  %2  %3").arg(i + 1).arg(text(dateText(marks_[i].on)), marks_[i].what);
  }
  setToolTip(tipText(lines.join(QLatin1Char('\n'))));
  setAccessibleDescription(lines.join(QStringLiteral("; ")));
  update();
}

void PriceChart::setBeside(std::vector<PricePoint> points, const QString& what) {
  beside_ = std::move(points);
  besideWhat_ = what;
  update();
}

void PriceChart::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& t = theme();
  painter.fillRect(rect(), t.paper);
  painter.setRenderHint(QPainter::Antialiasing);
  const QFontMetricsF metrics(font());
  const double line = metrics.height();
  painter.setPen(t.ink);
  painter.drawText(QPointF(8, line), title_.isEmpty() ? tr("Close, %1, and events").arg(unit_) : title_);
  if (prices_.size() < 2) {
    painter.setPen(t.quiet);
    painter.drawText(rect(), Qt::AlignCenter,
                     tr("Fewer than two closes are in the book; import a price table on Filings"));
    return;
  }
  double high = 0;
  for (const PricePoint& p : prices_) high = std::max(high, p.close);
  for (const PricePoint& p : beside_) high = std::max(high, p.close);
  const Ticks ticks = ticksOf(0, high * 1.05, 4, 1, font());
  const double left = std::max(48.0, ticks.width + 14);
  const double right = width() - 12.0;
  const Date last = beside_.empty() ? prices_.back().date : std::max(prices_.back().date, beside_.back().date);
  const Scale x{0, static_cast<double>(daysBetween(prices_.front().date, last)), left, right};
  const Scale y{0, high * 1.05, height() - line - 6.0, line + 20.0};
  for (qsizetype i = 0; i < ticks.words.size(); ++i) {
    const double tick = ticks.at[static_cast<size_t>(i)];
    painter.setPen(QPen(tick == 0 ? t.wideRule : t.rule, 1));
    painter.drawLine(QPointF(left, y.at(tick)), QPointF(right, y.at(tick)));
    painter.setPen(t.quiet);
    drawTabular(painter, {0, y.at(tick) - line / 2, left - 6, line}, ticks.words[i], Qt::AlignRight);
  }
  const auto xOf = [&](Date date) { return x.at(daysBetween(prices_.front().date, date)); };
  const double yearly = x.at(365) - x.at(0);
  const int every =
      std::max(2, static_cast<int>(std::ceil((metrics.horizontalAdvance(QStringLiteral("0000")) + 8) / yearly)));
  for (int year = yearOf(prices_.front().date) + 1; year <= yearOf(last); year += every) {
    painter.setPen(t.quiet);
    drawYear(painter, xOf(makeDate(year, 1, 1)), height() - line - 2, QString::number(year), width());
  }
  for (size_t i = 0; i < marks_.size(); ++i) {
    const double at = xOf(marks_[i].on);
    if (at < left || at > right) continue;
    painter.setPen(QPen(t.price, 1, Qt::DotLine));
    painter.drawLine(QPointF(at, line + 18), QPointF(at, y.from));
    painter.setPen(t.price);
    painter.drawText(QRectF(at - line, line + 3, 2 * line, line), Qt::AlignHCenter, QString::number(i + 1));
  }
  QPolygonF path;
  for (const PricePoint& p : prices_) path << QPointF(xOf(p.date), y.at(p.close));
  painter.setPen(QPen(t.ink, 1.1));
  painter.drawPolyline(path);
  if (beside_.empty()) return;
  QPolygonF other;
  for (const PricePoint& p : beside_) {
    if (p.date >= prices_.front().date) other << QPointF(xOf(p.date), y.at(p.close));
  }
  painter.setPen(QPen(t.price, 1.3, Qt::DotLine));
  painter.drawPolyline(other);
  // What it is stands in the head's own line, where no curve runs.
  painter.drawText(QRectF(left, 0, right - left, line + 2), Qt::AlignRight | Qt::AlignBottom,
                   QStringLiteral("⋯ ") + besideWhat_);
}

}  // namespace zl::app
