#include "app/charts/path_board.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

#include "app/charts/ticks.h"
#include "app/look/amounts.h"
#include "app/look/tabular.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {
namespace {
constexpr double kReach = 11;
}

PathBoard::PathBoard(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("pathBoard"));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void PathBoard::setContent(BoardContent content) {
  const bool sameDriver = content.title == content_.title;
  content_ = std::move(content);
  const int years = static_cast<int>(content_.periods.size()) - static_cast<int>(content_.history.size());
  focusYear_ = sameDriver ? std::clamp(focusYear_, 0, std::max(0, years - 1)) : 0;
  setAccessibleName(tr("Path of %1").arg(content_.title));
  if (dragYear_ < 0) rescale();  // the scale holds still under the hand
  update();
}

const BoardPath* PathBoard::chosenPath() const {
  if (content_.chosen < 0 || content_.chosen >= static_cast<int>(content_.paths.size())) return nullptr;
  return &content_.paths[static_cast<size_t>(content_.chosen)];
}

void PathBoard::rescale() {
  edges_ = edges();
  double low = 1e300, high = -1e300;
  const auto take = [&](const std::vector<Figure>& figures) {
    for (const Figure& f : figures) {
      if (!f.hasValue()) continue;
      low = std::min(low, f.value());
      high = std::max(high, f.value());
    }
  };
  take(content_.history);
  for (const BoardPath& p : content_.paths) {
    take(p.figures);
    take(p.ghost);
  }
  for (const BoardBracket& b : content_.consensus) take({b.low, b.mean, b.high});
  if (low > high) {
    low = 0;
    high = content_.kind == Kind::Days ? 100 : 0.1;
  }
  double pad = (high - low) * 0.22;
  if (pad <= 0) pad = std::max(std::fabs(high) * 0.3, content_.kind == Kind::Days ? 5.0 : 0.01);
  y_ = {low - pad, high + pad, height() - edges_.bottom, edges_.top};
}

void PathBoard::resizeEvent(QResizeEvent*) {
  rescale();
}

void PathBoard::changeEvent(QEvent* event) {
  QWidget::changeEvent(event);
  if (event->type() == QEvent::FontChange) rescale();
}

/// Room for the letters around what is drawn: ticks, names at the end of paths, title, years.
PathBoard::Edges PathBoard::edges() const {
  const QFontMetricsF metrics(font());
  double names = metrics.horizontalAdvance(QStringLiteral("Worst"));
  for (const BoardPath& p : content_.paths) names = std::max(names, metrics.horizontalAdvance(p.label));
  return {std::max(52.0, tabularWidth(font(), QStringLiteral("10,000")) + 12),
          std::max(70.0, std::min(names, 140.0) + 16), std::max(26.0, metrics.height() + 8),
          std::max(22.0, metrics.height() + 5)};
}

void PathBoard::setForecastYears(std::vector<double> places) {
  if (places == places_) return;
  places_ = std::move(places);
  update();
}

bool PathBoard::isAligned() const {
  return places_.size() > 1 && places_.size() + content_.history.size() == static_cast<size_t>(content_.periods.size());
}

double PathBoard::right() const {
  return isAligned() ? places_.back() + halfForecast() : width() - edges_.right;
}

double PathBoard::halfForecast() const {
  const int filed = static_cast<int>(content_.history.size());
  return (xOf(filed + 1) - xOf(filed)) / 2;
}

double PathBoard::xOf(int column) const {
  const auto filed = static_cast<int>(content_.history.size());
  if (isAligned()) {
    if (column >= filed) return places_[std::min(static_cast<size_t>(column - filed), places_.size() - 1)];
    const double room = places_[0] - (places_[1] - places_[0]) / 2 - edges_.left;
    return edges_.left + (column + 0.5) * room / filed;
  }
  const auto columns = static_cast<double>(std::max<qsizetype>(2, content_.periods.size()));
  return edges_.left + (column + 0.5) * (width() - edges_.left - edges_.right) / columns;
}

QPointF PathBoard::pointOf(int year) const {
  const BoardPath* path = chosenPath();
  if (path == nullptr || year < 0 || year >= static_cast<int>(path->figures.size())) return {};
  const Figure& f = path->figures[static_cast<size_t>(year)];
  return {xOf(static_cast<int>(content_.history.size()) + year), y_.at(f.valueOr(y_.low))};
}

QPointF PathBoard::levelHandle() const {
  const BoardPath* path = chosenPath();
  if (path == nullptr || path->figures.empty() || !path->figures.back().hasValue()) return {-100, -100};
  const int last = static_cast<int>(content_.periods.size()) - 1;
  return {isAligned() ? xOf(last) + kReach + 6 : std::max(width() - edges_.right + 3, xOf(last) + kReach + 1),
          y_.at(path->figures.back().value())};
}

double PathBoard::clipped(double figure) const {
  return std::clamp(figure, content_.low, content_.high);
}

/// A hand's breadth of precision: a hundredth of the axis, rounded to 1, 2 or 5.
double PathBoard::stepSize() const {
  const std::vector<double> ticks = roundTicks(y_.low, y_.high, 100);
  return ticks.size() > 1 ? ticks[1] - ticks[0] : 0.001;
}

void PathBoard::paintAxes(QPainter& painter) const {
  const Theme& t = theme();
  const QFontMetricsF metrics(font());
  for (double tick : roundTicks(y_.low, y_.high, std::max(2, static_cast<int>(height() / (2.6 * metrics.height()))))) {
    const double y = y_.at(tick);
    painter.setPen(QPen(tick == 0 ? t.wideRule : t.rule, 1));
    painter.drawLine(QPointF(edges_.left, y), QPointF(right(), y));
    painter.setPen(t.quiet);
    const int places = content_.kind == Kind::Ratio && std::fabs(y_.high - y_.low) < 0.05 ? 1 : 0;
    const QString label = content_.kind == Kind::Ratio
                              ? zl::app::text(groupedNumber(tick * 100, places, false))
                              : zl::app::text(groupedNumber(tick, std::fabs(y_.high - y_.low) < 5 ? 1 : 0, false));
    drawTabular(painter, {0, y - metrics.height() / 2, edges_.left - 8, metrics.height()}, label, Qt::AlignRight);
  }
  const double needed = metrics.horizontalAdvance(QStringLiteral("2026E")) + 6;
  const int filed = static_cast<int>(content_.history.size());
  const auto everyOf = [&](double step) { return std::max(1, static_cast<int>(std::ceil(needed / step))); };
  const int every = everyOf(xOf(1) - xOf(0)), everyAhead = everyOf(2 * halfForecast());
  // Forecast years are headed by the table that they stand above.
  const int named = isAligned() ? filed : static_cast<int>(content_.periods.size());
  for (int c = 0; c < named; ++c) {
    // Counted back from the last year of each part, so that this one is named.
    const int back = named - 1 - c;
    if (back % (c < filed ? every : everyAhead) != 0) continue;
    painter.setPen(t.quiet);
    drawYear(painter, xOf(c), height() - edges_.bottom + 3, content_.periods[c], width());
  }
}

void PathBoard::paintHistory(QPainter& painter) const {
  const Theme& t = theme();
  const int filed = static_cast<int>(content_.history.size());
  if (content_.spread.count >= 2) {
    QColor band = t.quiet;
    band.setAlphaF(0.10f);
    const double top = y_.at(content_.spread.upperQuartile.value());
    const double bottom = y_.at(content_.spread.lowerQuartile.value());
    painter.fillRect(QRectF(edges_.left, top, right() - edges_.left, std::max(1.0, bottom - top)), band);
    const double median = y_.at(content_.spread.median.value());
    painter.setPen(QPen(t.quiet, 1, Qt::DashLine));
    painter.drawLine(QPointF(edges_.left, median), QPointF(right(), median));
    const double line = QFontMetricsF(font()).height();
    painter.drawText(QRectF(edges_.left + 4, median - line - 2, width(), line), Qt::AlignLeft | Qt::AlignBottom,
                     tr("median of %1 years").arg(content_.spread.count));
  }
  const double half = (xOf(1) - xOf(0)) / 2;
  for (int c = 0; c < filed; ++c) {
    if (c < static_cast<int>(content_.exceptional.size()) && content_.exceptional[static_cast<size_t>(c)]) {
      painter.fillRect(QRectF(xOf(c) - half, edges_.top, 2 * half, height() - edges_.top - edges_.bottom),
                       QBrush(t.wideRule, Qt::BDiagPattern));
    }
  }
  painter.setPen(QPen(t.ink, 1));
  for (int c = 1; c < filed; ++c) {
    const Figure& a = content_.history[static_cast<size_t>(c - 1)];
    const Figure& b = content_.history[static_cast<size_t>(c)];
    if (a.hasValue() && b.hasValue())
      painter.drawLine(QPointF(xOf(c - 1), y_.at(a.value())), QPointF(xOf(c), y_.at(b.value())));
  }
  painter.setBrush(t.ink);
  for (int c = 0; c < filed; ++c) {
    const Figure& f = content_.history[static_cast<size_t>(c)];
    if (f.hasValue()) painter.drawEllipse(QPointF(xOf(c), y_.at(f.value())), 2.6, 2.6);
  }
  painter.setPen(QPen(t.wideRule, 1));
  const double edge = xOf(filed) - halfForecast();
  painter.drawLine(QPointF(edge, edges_.top), QPointF(edge, height() - edges_.bottom));
}

void PathBoard::paintOthers(QPainter& painter) const {
  const Theme& t = theme();
  const int filed = static_cast<int>(content_.history.size());
  for (size_t i = 0; i < content_.consensus.size(); ++i) {
    const BoardBracket& b = content_.consensus[i];
    if (!b.mean.hasValue()) continue;
    const double x = xOf(filed + static_cast<int>(i)) + 5;
    painter.setPen(QPen(t.price, 1.2));
    const double low = y_.at(b.low.valueOr(b.mean.value()));
    const double high = y_.at(b.high.valueOr(b.mean.value()));
    painter.drawLine(QPointF(x, low), QPointF(x, high));
    for (const double y : {low, high}) painter.drawLine(QPointF(x - 3, y), QPointF(x + 3, y));
    painter.setBrush(t.price);
    painter.drawEllipse(QPointF(x, y_.at(b.mean.value())), 2, 2);
  }
  // Levels to hold a path against; they are named in the line of the title, where nothing crosses them.
  QStringList named;
  const auto level = [&](const Figure& figure, const QString& words, Qt::PenStyle style, const QString& mark) {
    if (!figure.hasValue()) return;
    named << mark + QLatin1Char(' ') + words + QLatin1Char(' ') + shownText(figure, content_.kind);
    if (figure.value() < y_.low || figure.value() > y_.high) return;
    const double y = y_.at(figure.value());
    painter.setPen(QPen(t.quiet, 1, style));
    painter.drawLine(QPointF(xOf(filed) - 14, y), QPointF(right(), y));
  };
  if (std::any_of(content_.consensus.begin(), content_.consensus.end(),
                  [](const BoardBracket& b) { return b.mean.hasValue(); })) {
    named << tr("I consensus");
  }
  level(content_.peers, tr("peers' median"), Qt::DashDotLine, QStringLiteral("–·–"));
  level(content_.economy, content_.economyLabel, Qt::DotLine, QStringLiteral("····"));
  painter.setPen(t.quiet);
  QFont bold = font();
  bold.setBold(true);
  const double title = 22 + QFontMetricsF(bold).horizontalAdvance(content_.title) +
                       QFontMetricsF(font()).horizontalAdvance(content_.unit);
  const QRectF room(title, 0, width() - title - 8, edges_.top);
  painter.drawText(room, Qt::AlignRight | Qt::AlignVCenter,
                   QFontMetricsF(font()).elidedText(named.join(QStringLiteral("    ")), Qt::ElideRight, room.width()));
}

void PathBoard::paintStages(QPainter& painter) const {
  const Theme& t = theme();
  const int filed = static_cast<int>(content_.history.size());
  const double half = halfForecast();
  int end = filed;
  for (size_t k = 0; k + 1 < content_.stages.size(); ++k) {
    end += content_.stages[k];
    painter.setPen(QPen(t.wideRule, 1, Qt::DotLine));
    painter.drawLine(QPointF(xOf(end) - half, edges_.top), QPointF(xOf(end) - half, height() - edges_.bottom));
  }
}

void PathBoard::paintPath(QPainter& painter, const BoardPath& path, bool chosen) const {
  const Theme& t = theme();
  const QColor color = t.scenario(path.scenario);
  const int filed = static_cast<int>(content_.history.size());
  const auto line = [&](const std::vector<Figure>& figures, const QPen& pen) {
    painter.setPen(pen);
    QPointF before;
    bool joined = filed > 0 && content_.history.back().hasValue();
    if (joined) before = {xOf(filed - 1), y_.at(content_.history.back().value())};
    for (size_t i = 0; i < figures.size(); ++i) {
      if (!figures[i].hasValue()) {
        joined = false;
        continue;
      }
      const QPointF point(xOf(filed + static_cast<int>(i)), y_.at(figures[i].value()));
      if (joined) painter.drawLine(before, point);
      before = point;
      joined = true;
    }
  };
  if (!path.ghost.empty()) {
    QColor faint = color;
    faint.setAlphaF(0.45f);
    line(path.ghost, QPen(faint, 1, Qt::DotLine));
  }
  line(path.figures, QPen(color,
                          path.proposed ? 0.8
                          : chosen      ? 2.2
                                        : 1.2,
                          path.inherited && !chosen ? Qt::DashLine : Qt::SolidLine));
  for (size_t i = 0; i < path.figures.size(); ++i) {
    if (!path.figures[i].hasValue()) continue;
    const QPointF point(xOf(filed + static_cast<int>(i)), y_.at(path.figures[i].value()));
    if (chosen) {
      const bool held = dragYear_ == static_cast<int>(i);
      drawScenarioMark(painter, path.scenario, point, held ? 13 : 9, true);
      if (i < path.clipped.size() && path.clipped[i]) {
        painter.setPen(QPen(t.fault, 2));  // a bar that it cannot pass
        const double beyond = path.figures[i].value() >= content_.high ? -8 : 8;
        painter.drawLine(point + QPointF(-8, beyond), point + QPointF(8, beyond));
      }
      if (hasFocus() && focusYear_ == static_cast<int>(i)) {
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(t.accent, 1.4));
        painter.drawEllipse(point, 9, 9);
      }
    }
  }
  if (!chosen && isAligned() && !path.figures.empty() && path.figures.back().hasValue()) {
    const int last = static_cast<int>(content_.periods.size()) - 1;
    drawScenarioMark(painter, path.scenario, {xOf(last), y_.at(path.figures.back().value())}, 7, true);
  }
  if (!chosen) return;
  const QPointF handle = levelHandle();
  painter.setBrush(t.paper);
  painter.setPen(QPen(color, 1.4));
  painter.drawRect(QRectF(handle.x() - 3, handle.y() - 6, 6, 12));
}

void PathBoard::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& t = theme();
  painter.fillRect(rect(), t.paper);
  if (content_.periods.isEmpty()) return;
  painter.setRenderHint(QPainter::Antialiasing);
  QFont bold = font();
  bold.setBold(true);
  painter.setFont(bold);
  painter.setPen(t.ink);
  const double titleWidth = QFontMetricsF(bold).horizontalAdvance(content_.title);
  painter.drawText(QRectF(8, 0, width() - 16, edges_.top), Qt::AlignLeft | Qt::AlignVCenter, content_.title);
  painter.setFont(font());
  painter.setPen(t.quiet);
  painter.drawText(QRectF(14 + titleWidth, 0, width() - 20 - titleWidth, edges_.top), Qt::AlignLeft | Qt::AlignVCenter,
                   content_.unit);
  paintAxes(painter);
  paintHistory(painter);
  paintStages(painter);
  paintOthers(painter);
  for (int i = 0; i < static_cast<int>(content_.paths.size()); ++i) {
    if (i != content_.chosen) paintPath(painter, content_.paths[static_cast<size_t>(i)], false);
  }
  if (const BoardPath* path = chosenPath()) paintPath(painter, *path, true);

  // Direct labels at the right end, moved apart where they would touch.
  std::vector<std::pair<double, const BoardPath*>> ends;
  for (const BoardPath& p : content_.paths) {
    if (isAligned()) break;  // the table beneath names them, with their marks
    if (!p.figures.empty() && p.figures.back().hasValue()) ends.emplace_back(y_.at(p.figures.back().value()), &p);
  }
  std::sort(ends.begin(), ends.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  double floor = -1e9;
  const double line = QFontMetricsF(font()).height();
  for (auto& [y, p] : ends) {
    y = std::max(y, floor + line);
    floor = y;
    painter.setPen(t.scenario(p->scenario));
    painter.drawText(QRectF(width() - edges_.right + 12, y - line / 2, edges_.right - 12, line),
                     Qt::AlignLeft | Qt::AlignVCenter,
                     QFontMetricsF(font()).elidedText(p->label, Qt::ElideRight, edges_.right - 12));
  }
  const BoardPath* path = chosenPath();
  const int shown = dragYear_ >= 0 ? dragYear_ : (hasFocus() ? focusYear_ : -1);
  if (path != nullptr && shown >= 0 && shown < static_cast<int>(path->figures.size())) {
    const QPointF at = pointOf(shown);
    const Figure& f = path->figures[static_cast<size_t>(shown)];
    QString words = shownText(f, content_.kind);
    const double figure = f.valueOr(0);
    const bool stopped = static_cast<size_t>(shown) < path->clipped.size() && path->clipped[static_cast<size_t>(shown)];
    if (stopped || figure <= content_.low || figure >= content_.high) words += tr("  at its limit");
    const double w = tabularWidth(font(), words) + 10;
    const QRectF box(std::min(at.x() + 10, width() - w - 2), std::max(edges_.top, at.y() - line - 10), w, line + 3);
    painter.setPen(QPen(t.wideRule, 1));
    painter.setBrush(t.paper);
    painter.drawRect(box);
    painter.setPen(t.ink);
    drawTabular(painter, box, words, Qt::AlignHCenter);
  }
}

int PathBoard::yearAt(QPointF position, int path) const {
  const BoardPath& p = content_.paths[static_cast<size_t>(path)];
  const int filed = static_cast<int>(content_.history.size());
  for (size_t i = 0; i < p.figures.size(); ++i) {
    if (!p.figures[i].hasValue()) continue;
    const QPointF point(xOf(filed + static_cast<int>(i)), y_.at(p.figures[i].value()));
    const QPointF d = position - point;
    if (d.x() * d.x() + d.y() * d.y() <= kReach * kReach) return static_cast<int>(i);
  }
  return -1;
}

namespace {

Grip gripOf(Qt::KeyboardModifiers modifiers) {
  if ((modifiers & Qt::ControlModifier) != 0) return Grip::Level;
  return (modifiers & Qt::ShiftModifier) != 0 ? Grip::Stage : Grip::Year;
}

bool near(QPointF a, QPointF b) {
  const QPointF d = a - b;
  return d.x() * d.x() + d.y() * d.y() <= kReach * kReach;
}

}  // namespace

void PathBoard::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton || chosenPath() == nullptr) return;
  grip_ = gripOf(event->modifiers());
  int year = yearAt(event->position(), content_.chosen);
  if (year < 0 && near(event->position(), levelHandle())) {
    grip_ = Grip::Level;
    year = static_cast<int>(chosenPath()->figures.size()) - 1;
  }
  if (year < 0) {
    for (int i = 0; i < static_cast<int>(content_.paths.size()) && year < 0; ++i) {
      if (i == content_.chosen) continue;
      year = yearAt(event->position(), i);
      if (year >= 0) Q_EMIT pathChosen(i);
    }
  }
  if (year < 0) return;
  dragYear_ = focusYear_ = year;
  dragFigure_ = content_.paths[static_cast<size_t>(content_.chosen)].figures[static_cast<size_t>(year)].valueOr(0);
  update();
}

void PathBoard::mouseMoveEvent(QMouseEvent* event) {
  if (dragYear_ < 0) {
    const bool over = chosenPath() != nullptr &&
                      (yearAt(event->position(), content_.chosen) >= 0 || near(event->position(), levelHandle()));
    setCursor(over ? Qt::SizeVerCursor : Qt::ArrowCursor);
    return;
  }
  const double step = stepSize();
  dragFigure_ = clipped(std::round(y_.figure(event->position().y()) / step) * step);
  Q_EMIT dragging(dragYear_, dragFigure_, grip_);
}

void PathBoard::mouseReleaseEvent(QMouseEvent*) {
  if (dragYear_ < 0) return;
  const int year = dragYear_;
  dragYear_ = -1;
  Q_EMIT dropped(year, dragFigure_, grip_);
}

void PathBoard::keyPressEvent(QKeyEvent* event) {
  const BoardPath* path = chosenPath();
  if (path == nullptr) return;
  const int years = static_cast<int>(path->figures.size());
  const Grip grip = gripOf(event->modifiers());
  const int at = grip == Grip::Level ? years - 1 : focusYear_;
  const double before = path->figures[static_cast<size_t>(at)].valueOr(0);
  const auto nudge = [&](double steps) {
    const double step = stepSize() * std::abs(steps);
    Q_EMIT dropped(at, clipped(std::round((before + stepSize() * steps) / step) * step), grip);
  };
  switch (event->key()) {
    case Qt::Key_Left:
      focusYear_ = std::max(0, focusYear_ - 1);
      break;
    case Qt::Key_Right:
      focusYear_ = std::min(years - 1, focusYear_ + 1);
      break;
    case Qt::Key_Up:
      nudge(1);
      break;
    case Qt::Key_Down:
      nudge(-1);
      break;
    case Qt::Key_PageUp:
      nudge(5);
      break;
    case Qt::Key_PageDown:
      nudge(-5);
      break;
    case Qt::Key_Escape:
      if (dragYear_ >= 0) {
        dragYear_ = -1;
        Q_EMIT cancelled();
      }
      break;
    default:
      QWidget::keyPressEvent(event);
      return;
  }
  update();
}

}  // namespace zl::app
