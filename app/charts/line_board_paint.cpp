#include "app/charts/line_board_paint.h"

#include <algorithm>
#include <limits>

#include "app/charts/ticks.h"
#include "app/look/amounts.h"
#include "app/look/tabular.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {
namespace {

struct Range {
  double low = std::numeric_limits<double>::max();
  double high = std::numeric_limits<double>::lowest();
  void take(const Figure& f) {
    if (!f.hasValue()) return;
    low = std::min(low, f.value());
    high = std::max(high, f.value());
  }
  [[nodiscard]] bool isEmpty() const { return high < low; }
  /// With some air; amounts are seen from nought unless that hides them.
  [[nodiscard]] Range padded(bool fromNought) const {
    Range r = *this;
    if (fromNought) {
      r.low = std::min(0.0, r.low);
      r.high = std::max(0.0, r.high);
    }
    const double air = r.high > r.low ? (r.high - r.low) * 0.08 : std::max(1e-9, std::abs(r.high) * 0.1);
    if (r.low != 0 || !fromNought) r.low -= air;
    if (r.high != 0 || !fromNought) r.high += air;
    return r;
  }
};

class Board {
 public:
  Board(QPainter& painter, const QRectF& area, const LineBoardContent& content, const QFont& font)
      : p_(painter), area_(area), c_(content), t_(theme()), metrics_(font), height_(metrics_.height()) {
    p_.setFont(font);
  }

  void paint() {
    p_.fillRect(area_, t_.paper);
    p_.setRenderHint(QPainter::Antialiasing);
    if (c_.lines.empty()) {
      p_.setPen(t_.quiet);
      p_.drawText(area_, Qt::AlignCenter, QObject::tr("Press Enter on a row above to put it on the board"));
      return;
    }
    if (c_.against && c_.lines.size() >= 2) {
      paintAgainst();
    } else {
      paintOverTime();
    }
  }

 private:
  [[nodiscard]] QColor colour(size_t line) const {
    const QColor colours[] = {t_.ink, t_.accent, t_.assumed, t_.worst, t_.best, t_.price};
    return colours[line % 6];
  }

  /// A mark of its own shape per line, so that no line is known by colour alone.
  void mark(size_t line, QPointF at) {
    const double r = 3.2;
    p_.setBrush(line % 2 == 0 ? QBrush(colour(line)) : QBrush(t_.paper));
    p_.setPen(QPen(colour(line), 1.2));
    switch (line % 3) {
      case 0:
        p_.drawEllipse(at, r, r);
        break;
      case 1:
        p_.drawRect(QRectF(at.x() - r, at.y() - r, 2 * r, 2 * r));
        break;
      default:
        p_.drawPolygon(
            QPolygonF({{at.x(), at.y() - r - 1}, {at.x() + r + 1, at.y() + r}, {at.x() - r - 1, at.y() + r}}));
    }
    p_.setBrush(Qt::NoBrush);
  }

  [[nodiscard]] static QString tickText(double x, Kind kind, double step) {
    const double shown = x / shownUnit(kind);
    const double shownStep = std::abs(step / shownUnit(kind));
    const int decimals =
        shownStep >= 1 || shownStep == 0 ? 0 : std::min(9, static_cast<int>(std::ceil(-std::log10(shownStep) - 1e-9)));
    return text(groupedNumber(shown, decimals, false));
  }

  [[nodiscard]] std::vector<double> ticksOf(const Scale& y) const {
    return roundTicks(y.low, y.high, std::max(2, static_cast<int>(area_.height() / (2 * height_))));
  }
  /// What an axis takes: its widest tick and some air.
  [[nodiscard]] double axisWidth(const Scale& y, Kind kind) const {
    const std::vector<double> ticks = ticksOf(y);
    const double step = ticks.size() > 1 ? ticks[1] - ticks[0] : 1;
    double widest = 42;
    for (const double tick : ticks) widest = std::max(widest, tabularWidth(p_.font(), tickText(tick, kind, step)));
    return widest + 16;
  }

  void ticksY(const Scale& y, Kind kind, double textX, Qt::Alignment side, bool rules) {
    const std::vector<double> ticks = ticksOf(y);
    const double step = ticks.size() > 1 ? ticks[1] - ticks[0] : 1;
    for (const double tick : ticks) {
      if (rules) {
        p_.setPen(QPen(tick == 0 ? t_.wideRule : t_.rule, 1));
        p_.drawLine(QPointF(left_, y.at(tick)), QPointF(right_, y.at(tick)));
      }
      p_.setPen(t_.quiet);
      drawTabular(p_, {textX, y.at(tick) - height_ / 2, axisWidth(y, kind) - 10, height_}, tickText(tick, kind, step),
                  side);
    }
  }

  [[nodiscard]] double xOf(int column) const {
    if (aligned()) return area_.left() + c_.middles[static_cast<size_t>(column)];
    return left_ + (column + 0.5) * stepOf();
  }
  [[nodiscard]] bool aligned() const {
    return !c_.against && c_.middles.size() > 1 && c_.middles.size() == static_cast<size_t>(c_.periods.size());
  }
  [[nodiscard]] double stepOf() const {
    if (aligned()) {  // columns are as wide as their figures: the narrowest counts
      double least = c_.middles[1] - c_.middles[0];
      for (size_t i = 2; i < c_.middles.size(); ++i) least = std::min(least, c_.middles[i] - c_.middles[i - 1]);
      return least;
    }
    return (right_ - left_) / std::max(1, static_cast<int>(c_.periods.size()));
  }

  void paintYears(double bottom) {
    const double step = stepOf();
    const int every =
        std::max(1, static_cast<int>((metrics_.horizontalAdvance(QStringLiteral("0000")) + 10) / step + 1));
    for (int i = 0; i < c_.periods.size(); ++i) {
      if (i < static_cast<int>(c_.exceptional.size()) && c_.exceptional[static_cast<size_t>(i)]) {
        p_.fillRect(QRectF(xOf(i) - step / 2, area_.top() + 2, step, bottom - area_.top() - 2),
                    QBrush(t_.wideRule, Qt::BDiagPattern));
      }
      if ((c_.periods.size() - 1 - i) % every != 0) continue;
      p_.setPen(t_.quiet);
      drawYear(p_, xOf(i), bottom + 2, c_.periods[i], area_.right());
    }
  }

  /// Events stand at the foot as numbered flags; their words are the caller's tooltip and list.
  void paintEvents(double bottom) {
    for (const BoardMark& event : c_.events) {
      if (event.column < 0 || event.column >= c_.periods.size()) continue;
      p_.setPen(QPen(t_.price, 1, Qt::DotLine));
      p_.drawLine(QPointF(xOf(event.column), area_.top() + height_ + 2), QPointF(xOf(event.column), bottom));
      p_.setPen(Qt::NoPen);
      p_.setBrush(t_.price);
      p_.drawPolygon(QPolygonF(
          {{xOf(event.column) - 4, bottom}, {xOf(event.column) + 4, bottom}, {xOf(event.column), bottom - 6}}));
      p_.setBrush(Qt::NoBrush);
    }
  }

  void paintOverTime() {
    // The first unit has the left axis, the second the right one.
    const QString second = secondUnit();
    const bool twoAxes = !second.isNull();
    const double bottom = area_.bottom() - height_ - 4;
    Range ranges[2];
    for (const BoardLine& line : c_.lines) {
      for (const Figure& f : line.figures) ranges[axisOf(line)].take(f);
    }
    Scale scales[2];
    for (int axis = 0; axis < 2; ++axis) {
      if (ranges[axis].isEmpty()) ranges[axis] = {0, 1};
      const Range r = ranges[axis].padded(kindOfAxis(axis) == Kind::Money);
      scales[axis] = {r.low, r.high, bottom - 4, area_.top() + height_ + 10};
    }
    const double wide = axisWidth(scales[0], kindOfAxis(0));
    const double wideSecond = twoAxes ? axisWidth(scales[1], kindOfAxis(1)) : 0;
    left_ = area_.left() + wide;
    right_ = area_.right() - (twoAxes ? wideSecond : 12);
    if (aligned()) {  // both axes stand where the table has its labels
      left_ = area_.left() + c_.middles.front() - stepOf() / 2;
      right_ = area_.right() - 4;
    }
    paintYears(bottom);
    const double first = aligned() ? left_ - wide : area_.left();
    ticksY(scales[0], kindOfAxis(0), first, Qt::AlignRight, true);
    if (twoAxes && aligned()) ticksY(scales[1], kindOfAxis(1), first - wideSecond, Qt::AlignRight, false);
    if (twoAxes && !aligned()) ticksY(scales[1], kindOfAxis(1), right_ + 10, Qt::AlignLeft, false);
    paintEvents(bottom);
    for (size_t l = 0; l < c_.lines.size(); ++l) paintLine(l, scales[axisOf(c_.lines[l])]);
    paintNames();
  }

  [[nodiscard]] QString secondUnit() const {
    for (const BoardLine& line : c_.lines) {
      if (line.unit != c_.lines.front().unit) return line.unit;
    }
    return {};
  }
  [[nodiscard]] int axisOf(const BoardLine& line) const { return line.unit == c_.lines.front().unit ? 0 : 1; }
  [[nodiscard]] Kind kindOfAxis(int axis) const {
    for (const BoardLine& line : c_.lines) {
      if (axisOf(line) == axis) return line.kind;
    }
    return Kind::Ratio;
  }

  void paintLine(size_t l, const Scale& y) {
    const BoardLine& line = c_.lines[l];
    QPointF before;
    bool joined = false;
    for (int i = 0; i < static_cast<int>(line.figures.size()); ++i) {
      const Figure& f = line.figures[static_cast<size_t>(i)];
      if (!f.hasValue()) {
        joined = false;
        continue;
      }
      const QPointF at(xOf(i), y.at(f.value()));
      if (joined) {
        p_.setPen(QPen(colour(l), 1.5, l % 2 == 0 ? Qt::SolidLine : Qt::DashLine));
        p_.drawLine(before, at);
      }
      mark(l, at);
      before = at;
      joined = true;
    }
  }

  void paintNames() {
    double x = left_;
    for (size_t l = 0; l < c_.lines.size(); ++l) {
      const BoardLine& line = c_.lines[l];
      const QString name = line.unit.isEmpty() ? line.label : line.label + QStringLiteral(", ") + line.unit;
      const double width = metrics_.horizontalAdvance(name);
      if (x + 14 + width > area_.right() && l > 0) {
        p_.setPen(t_.quiet);
        p_.drawText(QPointF(x, area_.top() + height_), QObject::tr("+ %1 more").arg(c_.lines.size() - l));
        return;
      }
      mark(l, {x + 4, area_.top() + height_ - 4});
      p_.setPen(t_.ink);
      p_.drawText(QPointF(x + 12, area_.top() + height_), name);
      x += width + 34;
    }
  }

  void paintAgainst() {
    const BoardLine& across = c_.lines[0];
    const BoardLine& up = c_.lines[1];
    const double bottom = area_.bottom() - 2 * height_ - 4;
    right_ = area_.right() - 3 * height_;
    Range x, y;
    for (size_t i = 0; i < across.figures.size(); ++i) {
      if (!across.figures[i].hasValue() || !up.figures[i].hasValue()) continue;
      x.take(across.figures[i]);
      y.take(up.figures[i]);
    }
    p_.setPen(t_.ink);
    const QString title = up.label + QStringLiteral(", ") + up.unit;
    p_.drawText(QPointF(area_.left() + 8, area_.top() + height_), title);
    if (c_.split >= 0 && c_.split < c_.periods.size()) {
      p_.setPen(t_.accent);
      p_.drawText(QRectF(area_.left(), area_.top(), area_.width() - 12, height_ + 4), Qt::AlignRight | Qt::AlignBottom,
                  QObject::tr("squares: from %1 on").arg(c_.periods[c_.split]));
    }
    if (x.isEmpty()) {
      p_.setPen(t_.quiet);
      p_.drawText(area_, Qt::AlignCenter, QObject::tr("No year has a figure for both"));
      return;
    }
    x = x.padded(isAmount(across.kind) && x.low > 0 && x.low < 0.3 * x.high);
    y = y.padded(isAmount(up.kind) && y.low > 0 && y.low < 0.3 * y.high);
    const Scale sy{y.low, y.high, bottom, area_.top() + height_ + 10};
    left_ = area_.left() + axisWidth(sy, up.kind);
    const Scale sx{x.low, x.high, left_, right_};
    ticksY(sy, up.kind, area_.left(), Qt::AlignRight, true);
    const std::vector<double> ticks =
        roundTicks(sx.low, sx.high, std::max(2, static_cast<int>((right_ - left_) / (6 * height_))));
    const double step = ticks.size() > 1 ? ticks[1] - ticks[0] : 1;
    for (const double tick : ticks) {
      p_.setPen(QPen(t_.rule, 1));
      p_.drawLine(QPointF(sx.at(tick), sy.to), QPointF(sx.at(tick), bottom));
      p_.setPen(t_.quiet);
      p_.drawText(QRectF(sx.at(tick) - 3 * height_, bottom + 2, 6 * height_, height_), Qt::AlignHCenter,
                  tickText(tick, across.kind, step));
    }
    p_.setPen(t_.ink);
    p_.drawText(QRectF(left_, bottom + height_ + 2, right_ - left_, height_), Qt::AlignRight,
                across.label + QStringLiteral(", ") + across.unit);
    paintPoints(across, up, sx, sy);
  }

  void paintPoints(const BoardLine& across, const BoardLine& up, const Scale& sx, const Scale& sy) {
    QPointF before;
    bool joined = false;
    std::vector<QRectF> names;
    for (int i = 0; i < static_cast<int>(across.figures.size()); ++i) {
      const Figure& fx = across.figures[static_cast<size_t>(i)];
      const Figure& fy = up.figures[static_cast<size_t>(i)];
      const bool later = c_.split >= 0 && i >= c_.split;
      if (!fx.hasValue() || !fy.hasValue() || i == c_.split) joined = false;
      if (!fx.hasValue() || !fy.hasValue()) continue;
      const QPointF at(sx.at(fx.value()), sy.at(fy.value()));
      if (joined) {
        p_.setPen(QPen(t_.wideRule, 1));
        p_.drawLine(before, at);
      }
      mark(later ? 1 : 0, at);
      p_.setPen(later ? t_.accent : t_.ink);
      // A name that would lie over another one is left out; the table has every year.
      const QString name = c_.periods.value(i);
      const QRectF named(at.x() + 6, at.y() - 4 - metrics_.ascent(), metrics_.horizontalAdvance(name), height_);
      const bool room = std::none_of(names.begin(), names.end(), [&](const QRectF& n) { return n.intersects(named); });
      if (room) p_.drawText(at + QPointF(6, -4), name);
      if (room) names.push_back(named);
      before = at;
      joined = true;
    }
  }

  QPainter& p_;
  QRectF area_;
  const LineBoardContent& c_;
  const Theme& t_;
  QFontMetricsF metrics_;
  double height_;
  double left_ = 0, right_ = 0;
};

}  // namespace

void paintLineBoard(QPainter& painter, const QRectF& area, const LineBoardContent& content, const QFont& font) {
  Board(painter, area, content, font).paint();
}

}  // namespace zl::app
