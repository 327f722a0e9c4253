#include "app/frame/trace_edge.h"

#include <QPainter>

#include "app/look/plain_text.h"
#include "app/look/theme.h"

namespace zl::app {

TraceEdge::TraceEdge(QWidget* parent) : QAbstractButton(parent) {
  setObjectName(QStringLiteral("traceEdge"));
  setText(tr("Trace"));
  setAccessibleName(tr("Open the trace"));
  setToolTip(tipText(tr("What the figure stands on (F6)")));
  setFocusPolicy(Qt::TabFocus);  // a click leaves the keys, and with them the figure, to the page
  setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Expanding);
}

QSize TraceEdge::sizeHint() const {
  return {fontMetrics().height() + 6, 120};
}

void TraceEdge::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& t = theme();
  painter.fillRect(rect(), underMouse() ? t.selection : t.panel);
  painter.setPen(t.wideRule);
  painter.drawLine(rect().topLeft(), rect().bottomLeft());
  if (hasFocus()) {
    painter.setPen(QPen(t.accent, 1.5));
    painter.drawRect(QRectF(rect()).adjusted(1, 1, -1, -1));
  }
  painter.setPen(t.quiet);
  painter.translate(0, 12);
  painter.rotate(90);
  painter.drawText(QRectF(0, -width(), height(), width()), Qt::AlignLeft | Qt::AlignVCenter,
                   text() + QStringLiteral("  F6"));
}

}  // namespace zl::app
