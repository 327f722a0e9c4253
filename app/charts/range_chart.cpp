#include "app/charts/range_chart.h"

#include <QPainter>
#include <algorithm>

#include "app/charts/ticks.h"
#include "app/look/plain_text.h"
#include "app/look/tabular.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {
namespace {
/// Of one method's range, in pixels: closer together where there are many.
double rangeHeight(const QFont& font, size_t ranges) {
  constexpr size_t kMany = 8;
  const double line = QFontMetricsF(font).height();
  return ranges > kMany ? std::max(24.0, line * 1.3) : std::max(34.0, line * 1.6);
}
QString shown(double x) {
  return text(figureText(Figure::of(x), Kind::Quote));
}
}  // namespace

RangeChart::RangeChart(QWidget* parent) : TellingChart(parent) {
  setObjectName(QStringLiteral("ranges"));
  setAccessibleName(tr("Value ranges by method against the price"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize RangeChart::sizeHint() const {
  return {500, static_cast<int>(rangeHeight(font(), ranges_.size()) *
                                    static_cast<double>(std::max<size_t>(1, ranges_.size())) +
                                3 * QFontMetricsF(font()).height() + 14)};
}

void RangeChart::setContent(std::vector<MethodRange> ranges, std::optional<RangeMark> price,
                            std::optional<RangeMark> buyBelow, QString unit) {
  ranges_ = std::move(ranges);
  price_ = std::move(price);
  buyBelow_ = std::move(buyBelow);
  unit_ = std::move(unit);
  // Whole where the window is too narrow for a reason, and for who has it read out.
  QStringList lines;
  for (const MethodRange& r : ranges_)
    lines << r.label + QStringLiteral(": ") +
                 (r.whyNot.isEmpty() ? tr("%1 to %2").arg(shown(r.low), shown(r.high)) : r.whyNot);
  setToolTip(tipText(lines.join(QLatin1Char('\n'))));
  setAccessibleDescription(lines.join(QStringLiteral("; ")));
  updateGeometry();
  update();
}

void RangeChart::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& t = theme();
  painter.fillRect(rect(), t.paper);
  painter.setRenderHint(QPainter::Antialiasing);
  beginFigures();
  double low = price_ ? price_->figure : 1e300;
  double high = price_ ? price_->figure : 0;
  for (const MethodRange& r : ranges_) {
    if (!r.whyNot.isEmpty()) continue;
    low = std::min(low, r.low);
    high = std::max(high, r.high);
  }
  if (buyBelow_) low = std::min(low, buyBelow_->figure);
  if (low > high) return;
  const double pad = std::max((high - low) * 0.12, high * 0.02 + 1e-9);
  const QFontMetricsF metrics(font());
  const double line = metrics.height(), tall = rangeHeight(font(), ranges_.size());
  double names = metrics.horizontalAdvance(tr("%1 per share").arg(unit_));
  for (const MethodRange& r : ranges_) names = std::max(names, metrics.horizontalAdvance(r.label));
  names = std::min(names + 2, width() * 0.35);
  const Scale x{std::max(0.0, low - pad), high + pad, names + 16, width() - 40.0};
  const double top = line + 10;
  const double bottom = top + tall * static_cast<double>(ranges_.size());
  const Ticks ticks = ticksOf(x.low, x.high, std::max(3, static_cast<int>(width() / (7 * line))), 1, font());
  for (qsizetype i = 0; i < ticks.words.size(); ++i) {
    const double tick = ticks.at[static_cast<size_t>(i)];
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(x.at(tick), top), QPointF(x.at(tick), bottom));
    painter.setPen(t.quiet);
    drawTabular(painter, {x.at(tick) - 3 * line, bottom + 3, 6 * line, line}, ticks.words[i], Qt::AlignHCenter);
  }
  painter.setPen(t.quiet);
  painter.drawText(QRectF(8, bottom + 3, names, line), Qt::AlignLeft, tr("%1 per share").arg(unit_));
  double y = top;
  std::vector<std::pair<double, QString>> reasons;
  // The lines come first, so that no figure is struck through.
  if (buyBelow_) {
    painter.setPen(QPen(t.base, 1.4, Qt::DashLine));
    painter.drawLine(QPointF(x.at(buyBelow_->figure), top), QPointF(x.at(buyBelow_->figure), bottom));
  }
  if (price_) {
    painter.setPen(QPen(t.price, 2));
    painter.drawLine(QPointF(x.at(price_->figure), top - 4), QPointF(x.at(price_->figure), bottom));
  }
  const auto onPaper = [&](const QRectF& area, const QString& words) {
    painter.fillRect(area.adjusted(-2, 0, 2, 0), t.paper);
    drawTabular(painter, area, words, Qt::AlignLeft);
  };
  for (const MethodRange& r : ranges_) {
    painter.setPen(t.ink);
    painter.drawText(QRectF(8, y, names, tall), Qt::AlignLeft | Qt::AlignVCenter,
                     metrics.elidedText(r.label, Qt::ElideRight, names));
    const double middle = y + tall / 2;
    if (!r.whyNot.isEmpty()) {
      reasons.emplace_back(y, r.whyNot);
      y += tall;
      continue;
    }
    QColor fill = r.scenarios ? t.base : t.quiet;
    fill.setAlphaF(0.30f);
    painter.fillRect(QRectF(x.at(r.low), middle - 6, std::max(2.0, x.at(r.high) - x.at(r.low)), 12), fill);
    painter.setPen(t.quiet);
    const double lowWidth = tabularWidth(font(), shown(r.low));
    const QRectF lowAt(x.at(r.low) - lowWidth - 6, middle - line / 2, lowWidth, line);
    const QRectF highAt(x.at(r.high) + 6, middle - line / 2, tabularWidth(font(), shown(r.high)), line);
    onPaper(lowAt, shown(r.low));
    onPaper(highAt, shown(r.high));
    addFigure(lowAt, r.lowTold);
    if (r.middle) addFigure({x.at(*r.middle) - 7, middle - 8, 14, 16}, r.middleTold);
    addFigure(highAt, r.highTold);
    if (r.middle) {
      if (r.scenarios) {
        drawScenarioMark(painter, QStringLiteral("base"), {x.at(*r.middle), middle}, 12);
      } else {
        painter.setPen(QPen(t.ink, 2));
        painter.drawLine(QPointF(x.at(*r.middle), middle - 7), QPointF(x.at(*r.middle), middle + 7));
      }
    }
    y += tall;
  }
  painter.setPen(t.quiet);
  for (const auto& [at, reason] : reasons) {
    const QString words = metrics.elidedText(QStringLiteral("·  ") + reason, Qt::ElideRight, width() - x.from - 8);
    const QRectF area(x.from, at + (tall - line) / 2, metrics.horizontalAdvance(words) + 6, line);
    painter.fillRect(area, t.paper);
    painter.drawText(area, Qt::AlignLeft | Qt::AlignVCenter, words);
  }
  if (price_) {
    painter.setPen(t.price);
    const QString label = tr("price %1").arg(shown(price_->figure));
    const bool left = buyBelow_ && buyBelow_->figure > price_->figure;
    // Each label on its side of its line, and whole within the chart.
    const auto beside = [&](double at, bool toLeft, const QString& words) {
      const double wide = metrics.horizontalAdvance(words) + 1;
      const double from = toLeft ? at - wide - 6 : at + 6;
      return QRectF(std::clamp(from, 0.0, std::max(0.0, width() - wide)), 2, wide, line);
    };
    const QRectF priceAt = beside(x.at(price_->figure), left, label);
    painter.drawText(priceAt, Qt::AlignLeft | Qt::TextDontClip, label);
    addFigure(priceAt, price_->told);
    if (buyBelow_) {
      painter.setPen(t.base);
      const QString words = tr("buy below %1").arg(shown(buyBelow_->figure));
      const QRectF buyAt = beside(x.at(buyBelow_->figure), !left, words);
      painter.drawText(buyAt, Qt::AlignLeft | Qt::TextDontClip, words);
      addFigure(buyAt, buyBelow_->told);
    }
  }
  paintCursor(painter);
}

}  // namespace zl::app
