#include "app/charts/multiple_strips.h"

#include <QHelpEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>
#include <cmath>
#include <optional>

#include "app/charts/axis.h"
#include "app/look/plain_text.h"
#include "app/look/tabular.h"
#include "app/look/theme.h"

namespace zl::app {

MultipleStrips::MultipleStrips(QWidget* parent) : TellingChart(parent) {
  setObjectName(QStringLiteral("multipleStrips"));
  setAccessibleName(tr("Peers and the subject, multiple by multiple"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

double MultipleStrips::stripHeight() const {
  return std::max(26.0, QFontMetricsF(font()).height() * 1.5);
}

QSize MultipleStrips::sizeHint() const {
  return {500,
          static_cast<int>(std::ceil(stripHeight() * static_cast<double>(std::max<size_t>(1, strips_.size())))) + 6};
}

void MultipleStrips::setStrips(std::vector<MultipleStrip> strips) {
  strips_ = std::move(strips);
  QStringList said;
  for (const MultipleStrip& strip : strips_) said << strip.label + QStringLiteral(": ") + strip.words;
  setAccessibleDescription(said.join(QStringLiteral("; ")));
  updateGeometry();
  update();
}

bool MultipleStrips::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip) return TellingChart::event(event);
  const auto* help = static_cast<QHelpEvent*>(event);
  const auto at =
      std::find_if(named_.begin(), named_.end(), [&](const auto& n) { return n.first.contains(help->pos()); });
  QToolTip::showText(help->globalPos(), at == named_.end() ? QString() : tipText(at->second), this);
  return true;
}

void MultipleStrips::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& t = theme();
  painter.fillRect(rect(), t.paper);
  painter.setRenderHint(QPainter::Antialiasing);
  beginFigures();
  named_.clear();
  const QFontMetricsF metrics(font());
  const double line = metrics.height();
  double labels = 0, words = 0;
  for (const MultipleStrip& strip : strips_) {
    labels = std::max(labels, metrics.horizontalAdvance(strip.label));
    words = std::max(words, tabularWidth(font(), strip.words));
  }
  labels = std::min(labels + 4, width() * 0.3);
  words = std::min(words + 4, width() * 0.42);
  const double from = labels + 20, to = width() - words - 20;
  double top = 3;
  for (const MultipleStrip& strip : strips_) {
    const double middle = top + stripHeight() / 2;
    painter.setPen(t.ink);
    painter.drawText(QRectF(8, middle - line / 2, labels, line), Qt::AlignLeft | Qt::AlignVCenter,
                     metrics.elidedText(strip.label, Qt::ElideRight, labels));
    painter.setPen(t.quiet);
    painter.drawText(QRectF(width() - words - 8, middle - line / 2, words, line), Qt::AlignLeft | Qt::AlignVCenter,
                     metrics.elidedText(strip.words, Qt::ElideRight, words));
    double low = 1e300, high = -1e300;
    const auto take = [&](double x) {
      low = std::min(low, x);
      high = std::max(high, x);
    };
    for (const StripMark& peer : strip.peers) take(peer.figure);
    // A subject far from its peers stands at the edge, so that they can still be told apart.
    constexpr double kBeyond = 0.25;
    std::optional<double> subject;
    if (strip.subject) {
      const double room = kBeyond * (high - low);
      subject = low <= high ? std::clamp(strip.subject->figure, low - room, high + room) : strip.subject->figure;
      take(*subject);
    }
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(from, middle), QPointF(to, middle));
    if (low <= high) {
      const Scale x{low, high > low ? high : low + 1, from + 8, to - 8};
      const auto place = [&](double figure) { return QPointF(high > low ? x.at(figure) : (from + to) / 2, middle); };
      if (strip.lowerQuartile && strip.upperQuartile) {
        QColor box = t.base;
        box.setAlphaF(0.22F);
        const double a = place(*strip.lowerQuartile).x(), b = place(*strip.upperQuartile).x();
        painter.fillRect(QRectF(a, middle - 7, std::max(2.0, b - a), 14), box);
      }
      if (strip.median) {
        painter.setPen(QPen(t.ink, 2));
        painter.drawLine(place(*strip.median) - QPointF(0, 8), place(*strip.median) + QPointF(0, 8));
      }
      for (const StripMark& peer : strip.peers) {
        // A ring is two discs: filling is much cheaper than drawing a line round.
        painter.setPen(Qt::NoPen);
        painter.setBrush(t.quiet);
        painter.drawEllipse(place(peer.figure), 4, 4);
        if (!peer.in) {
          painter.setBrush(t.paper);
          painter.drawEllipse(place(peer.figure), 2.7, 2.7);
        }
        const QRectF area(place(peer.figure) - QPointF(5, 5), QSizeF(10, 10));
        addFigure(area, peer.told);
        named_.emplace_back(area, peer.who);
      }
      if (strip.subject) {
        drawScenarioMark(painter, QStringLiteral("base"), place(*subject), 11, *subject == strip.subject->figure);
        const QRectF area(place(*subject) - QPointF(6, 6), QSizeF(12, 12));
        addFigure(area, strip.subject->told);
        named_.emplace_back(area, strip.subject->who);
      }
    }
    top += stripHeight();
  }
  paintCursor(painter);
}

}  // namespace zl::app
