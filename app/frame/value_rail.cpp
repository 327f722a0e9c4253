#include "app/frame/value_rail.h"

#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>

#include "app/look/plain_text.h"
#include "app/look/tabular.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/stories/peer_stories.h"

namespace zl::app {

ValueRail::ValueRail(Workbench& bench, QWidget* parent) : TellingChart(parent), bench_(bench) {
  setObjectName(QStringLiteral("valueRail"));
  setAccessibleName(tr("Value rail"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  connect(&bench_, &Workbench::changed, this, &ValueRail::refresh);
  connect(this, &TellingChart::cellTold, &bench_, &Workbench::tell);
  connect(this, &TellingChart::cellFocused, &bench_, &Workbench::focus);
  connect(this, &TellingChart::figureActivated, this,
          [this](int figure) { bench_.goTo(inOrder()[static_cast<size_t>(figure)]->stop); });
}

QSize ValueRail::sizeHint() const {
  return {600, fontMetrics().height() * 4 + 28};
}

std::vector<ValueRail::Mark> ValueRail::marksOf(const services::Snapshot& s) const {
  std::vector<Mark> marks;
  const Evaluation& e = *s.evaluation;
  const auto add = [&](const QString& label, const QString& scenario, model::RowId row, Stop stop, int lane,
                       Mark::Shape shape) {
    if (!row.known()) return;
    const Figure f = e.constant(row, lane);
    if (f.hasValue()) marks.push_back({label, scenario, f.value(), stop, {model::Cell{row, 0}, lane, {}}, shape});
  };
  const model::Model& m = e.model();
  for (int i = 0; i < e.scenarios(); ++i) {
    const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(i)];
    add(text(sc.label), text(sc.id), m.find(model::Role::ValuePerShare), Stop::CashValue, i, Mark::Shape::Scenario);
  }
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  add(tr("buy below"), {}, m.find(model::Role::BuyBelow), Stop::Verdict, base, Mark::Shape::Notch);
  // The headline's own method has given the scenarios' marks already.
  for (const model::Method& method : m.methods) {
    if (&method == e.leadingMethod(base)) continue;
    add(text(method.mark), {}, method.value, method.rate.known() ? Stop::CashValue : Stop::Peers, base,
        Mark::Shape::Tick);
  }
  add(tr("price"), {}, m.find(model::Role::Price), Stop::Verdict, base, Mark::Shape::Price);
  return marks;
}

void ValueRail::refresh() {
  marks_ = bench_.isOpen() ? marksOf(bench_.now()) : std::vector<Mark>{};
  QStringList said;
  for (const Mark& m : marks_) {
    said << m.label + QLatin1Char(' ') + zl::app::text(figureText(Figure::of(m.figure), Kind::Quote));
  }
  setAccessibleDescription(said.join(QStringLiteral(", ")));
  setVisible(!marks_.empty());  // what is still needed stands above it until then
  update();
}

void ValueRail::paintMark(QPainter& painter, const Mark& mark, bool ghost) const {
  const Theme& t = theme();
  const double x = scale_.at(mark.figure);
  painter.setOpacity(ghost ? 0.4 : 1.0);
  switch (mark.shape) {
    case Mark::Shape::Scenario:
      drawScenarioMark(painter, mark.scenario, {x, axisY_}, 13, !ghost);
      break;
    case Mark::Shape::Tick:
      painter.setPen(QPen(t.quiet, 2));
      painter.drawLine(QPointF(x, axisY_ - 6), QPointF(x, axisY_ + 6));
      break;
    case Mark::Shape::Price:
      painter.setPen(QPen(t.price, 2));
      painter.drawLine(QPointF(x, axisY_ - 12), QPointF(x, axisY_ + 10));
      break;
    case Mark::Shape::Notch:
      painter.setPen(QPen(t.base, 1.6));
      painter.drawPolyline(
          QPolygonF({QPointF(x - 5, axisY_ + 12), QPointF(x, axisY_ + 5), QPointF(x + 5, axisY_ + 12)}));
      break;
  }
  painter.setOpacity(1.0);
}

namespace {
constexpr double kAgree = 0.05;  // less than what a figure on the rail shows
}  // namespace

void ValueRail::paintLabels(QPainter& painter, const std::vector<Mark>& ghosts) const {
  // Scenario and price labels stand above the axis, the other methods' below; each row is pushed
  // to the right where two would touch.
  const Theme& t = theme();
  std::vector<const Mark*> above, below;
  for (const Mark& m : marks_) {
    const bool up = m.shape == Mark::Shape::Scenario || m.shape == Mark::Shape::Price;
    (up ? above : below).push_back(&m);
  }
  const QFontMetricsF metrics(font());
  const double line = metrics.height();
  const auto place = [&](std::vector<const Mark*>& list, double firstY, double direction) {
    std::sort(list.begin(), list.end(), [](const Mark* a, const Mark* b) { return a->figure < b->figure; });
    double ends[2] = {-1e9, -1e9};
    for (auto at = list.begin(); at != list.end(); ++at) {
      const Mark* m = *at;
      // Methods that agree, as two ways to one value must, share a label.
      QString label = m->label;
      while (direction > 0 && at + 1 != list.end() && std::fabs((*(at + 1))->figure - m->figure) < kAgree) {
        ++at;
        label += QStringLiteral(", ") + (*at)->label;
      }
      QString words = label + QLatin1Char(' ') + zl::app::text(figureText(Figure::of(m->figure), Kind::Quote));
      for (const Mark& g : ghosts) {
        if (g.label != m->label || std::fabs(g.figure - m->figure) < 0.05) continue;
        words += QStringLiteral("  %1%2").arg(m->figure > g.figure ? QStringLiteral("+") : QString(),
                                              zl::app::text(groupedNumber(m->figure - g.figure, 1, false)));
      }
      const double width = tabularWidth(font(), words);
      double x = std::clamp(scale_.at(m->figure) - width / 2, 4.0, std::max(4.0, this->width() - width - 4));
      // Two rows of labels; the one with room is taken.
      int row = x > ends[0] + 10 ? 0 : (x > ends[1] + 10 ? 1 : (ends[0] <= ends[1] ? 0 : 1));
      x = std::max(x, ends[row] + 10);
      if (x > std::max(4.0, this->width() - width - 4)) continue;  // no room: its mark tells on hover
      ends[row] = x + width;
      painter.fillRect(QRectF(x - 2, firstY + direction * row * line, width + 4, line), t.panel);
      painter.setPen(m->shape == Mark::Shape::Price ? t.price
                     : m->scenario.isEmpty()        ? t.quiet
                                                    : t.scenario(m->scenario));
      drawTabular(painter, {x, firstY + direction * row * line, width, line}, words, Qt::AlignLeft);
    }
  };
  place(above, axisY_ - 12 - line, -1);
  place(below, axisY_ + 12, 1);
}

void ValueRail::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& t = theme();
  painter.fillRect(rect(), t.panel);
  painter.setPen(t.wideRule);
  painter.drawLine(0, 0, width(), 0);
  if (marks_.empty()) return;
  painter.setRenderHint(QPainter::Antialiasing);
  const std::vector<Mark> ghosts = bench_.isPreviewing() ? marksOf(bench_.settled()) : std::vector<Mark>{};
  double low = marks_.front().figure;
  double high = low;
  // The axis holds still during a drag: it spans the stored marks and grows only when it must.
  for (const std::vector<Mark>* list : {static_cast<const std::vector<Mark>*>(&marks_), &ghosts}) {
    for (const Mark& m : *list) {
      low = std::min(low, m.figure);
      high = std::max(high, m.figure);
    }
  }
  const double pad = std::max({(high - low) * 0.08, std::fabs(high) * 0.02, 1e-6});
  const QString unit = zl::app::text(bench_.now().company().listing.unit) + tr(" / share");
  const double unitWidth = std::max(84.0, QFontMetricsF(font()).horizontalAdvance(unit) + 2);
  const double line = QFontMetricsF(font()).height();
  scale_ = {std::max(0.0, low - pad), high + pad, unitWidth + 16, width() - 24.0};
  axisY_ = line * 2 + 14;

  painter.setPen(t.quiet);
  painter.drawText(QRectF(12, axisY_ - line / 2, unitWidth, line), Qt::AlignLeft | Qt::AlignVCenter, unit);
  painter.setPen(QPen(t.wideRule, 1));
  painter.drawLine(QPointF(scale_.from, axisY_), QPointF(scale_.to, axisY_));
  for (double tick : roundTicks(scale_.low, scale_.high, 10)) {
    painter.drawLine(QPointF(scale_.at(tick), axisY_ - 3), QPointF(scale_.at(tick), axisY_ + 3));
  }
  const auto band = [&](const std::vector<Mark>& marks, double opacity) {
    double from = 1e300, to = -1e300;
    for (const Mark& m : marks) {
      if (m.shape != Mark::Shape::Scenario) continue;
      from = std::min(from, m.figure);
      to = std::max(to, m.figure);
    }
    if (from > to) return;
    QColor fill = t.base;
    fill.setAlphaF(static_cast<float>(opacity));
    painter.fillRect(QRectF(scale_.at(from), axisY_ - 5, scale_.at(to) - scale_.at(from), 10), fill);
  };
  band(ghosts, 0.10);
  band(marks_, 0.25);
  for (const Mark& m : ghosts) paintMark(painter, m, true);
  for (const Mark& m : marks_) paintMark(painter, m, false);
  paintLabels(painter, ghosts);
  beginFigures();
  for (const Mark* m : inOrder()) addFigure({scale_.at(m->figure) - 9, axisY_ - 11, 18, 22}, m->told);
  paintCursor(painter);
}

std::vector<const ValueRail::Mark*> ValueRail::inOrder() const {
  std::vector<const Mark*> list;
  for (const Mark& m : marks_) list.push_back(&m);
  std::stable_sort(list.begin(), list.end(), [](const Mark* a, const Mark* b) { return a->figure < b->figure; });
  return list;
}

int ValueRail::figureAt(const QPointF& place) const {
  int best = -1;
  double distance = 12;
  const std::vector<const Mark*> list = inOrder();
  for (size_t i = 0; i < list.size(); ++i) {
    const double d = std::fabs(scale_.at(list[i]->figure) - place.x());
    if (d >= distance) continue;
    distance = d;
    best = static_cast<int>(i);
  }
  return best;
}

void ValueRail::mouseMoveEvent(QMouseEvent* event) {
  TellingChart::mouseMoveEvent(event);
  const int at = figureAt(event->position());
  if (at < 0) return QToolTip::hideText();
  const Mark* m = inOrder()[static_cast<size_t>(at)];
  const Figure price = bench_.now().given(model::Role::Price).figure;
  QString tip = m->label + QStringLiteral(": ") + zl::app::text(figureText(Figure::of(m->figure), Kind::Quote)) +
                QLatin1Char(' ') + zl::app::text(bench_.now().company().listing.unit);
  if (price.hasValue() && m->shape != Mark::Shape::Price) {
    const double upside = m->figure / price.value() - 1;
    tip += QLatin1Char('\n') + tr("%1 % %2 against the price")
                                   .arg(std::fabs(upside) * 100, 0, 'f', 1)
                                   .arg(upside >= 0 ? tr("upside") : tr("downside"));
  }
  QToolTip::showText(event->globalPosition().toPoint(), tipText(tip), this);
}

void ValueRail::mousePressEvent(QMouseEvent* event) {
  TellingChart::mousePressEvent(event);
  if (const int at = figureAt(event->position()); at >= 0) bench_.goTo(inOrder()[static_cast<size_t>(at)]->stop);
}

void ValueRail::leaveEvent(QEvent*) {
  QToolTip::hideText();
}

}  // namespace zl::app
