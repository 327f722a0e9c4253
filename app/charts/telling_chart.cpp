#include "app/charts/telling_chart.h"

#include <QFocusEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

#include "app/look/theme.h"

namespace zl::app {

TellingChart::TellingChart(QWidget* parent) : QWidget(parent) {
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
}

void TellingChart::addFigure(const QRectF& place, ToldFigure figure) {
  if (figure.tells()) drawn_.push_back({place, std::move(figure)});
}

void TellingChart::paintCursor(QPainter& painter) const {
  if (!hasFocus() || current_ < 0 || current_ >= figureCount()) return;
  painter.save();
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(theme().accent, 2));
  painter.drawRect(drawn_[static_cast<size_t>(current_)].place.adjusted(-2, -2, 2, 2));
  painter.restore();
}

int TellingChart::figureAt(const QPointF& place) const {
  constexpr double kNear = 3;
  for (size_t i = drawn_.size(); i-- > 0;) {
    if (drawn_[i].place.adjusted(-kNear, -kNear, kNear, kNear).contains(place)) return static_cast<int>(i);
  }
  return -1;
}

void TellingChart::ask(int figure) {
  if (figure < 0 || figure >= figureCount()) return;
  current_ = figure;
  update();
  const ToldFigure& asked = drawn_[static_cast<size_t>(figure)].figure;
  if (asked.story) {
    Q_EMIT cellTold(asked.story);
  } else {
    Q_EMIT cellFocused(*asked.source, asked.scenario);
  }
}

void TellingChart::keyPressEvent(QKeyEvent* event) {
  const int last = figureCount() - 1;
  if (last < 0) return QWidget::keyPressEvent(event);
  const int at = std::clamp(current_, -1, last);
  switch (event->key()) {
    case Qt::Key_Left:
    case Qt::Key_Up:
      return ask(std::max(0, at - 1));
    case Qt::Key_Right:
    case Qt::Key_Down:
      return ask(std::min(last, at + 1));
    case Qt::Key_Home:
      return ask(0);
    case Qt::Key_End:
      return ask(last);
    case Qt::Key_Return:
    case Qt::Key_Enter:
    case Qt::Key_Space:
      if (at >= 0) Q_EMIT figureActivated(at);
      return;
    default:
      QWidget::keyPressEvent(event);
  }
}

void TellingChart::mousePressEvent(QMouseEvent* event) {
  const int figure = figureAt(event->position());
  if (figure < 0) return QWidget::mousePressEvent(event);
  setFocus(Qt::MouseFocusReason);
  ask(figure);
}

void TellingChart::mouseMoveEvent(QMouseEvent* event) {
  setCursor(figureAt(event->position()) < 0 ? Qt::ArrowCursor : Qt::PointingHandCursor);
  QWidget::mouseMoveEvent(event);
}

void TellingChart::focusInEvent(QFocusEvent* event) {
  QWidget::focusInEvent(event);
  const bool byKey = event->reason() == Qt::TabFocusReason || event->reason() == Qt::BacktabFocusReason;
  if (byKey) ask(std::clamp(current_, 0, std::max(0, figureCount() - 1)));
  update();
}

void TellingChart::focusOutEvent(QFocusEvent* event) {
  QWidget::focusOutEvent(event);
  update();
}

}  // namespace zl::app
