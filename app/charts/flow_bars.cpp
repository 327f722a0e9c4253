#include "app/charts/flow_bars.h"

#include <QPainter>
#include <algorithm>

#include "app/charts/ticks.h"
#include "app/look/amounts.h"
#include "app/look/tabular.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {

FlowBars::FlowBars(QWidget* parent) : TellingChart(parent) {
  setObjectName(QStringLiteral("flowBars"));
  setAccessibleName(tr("Free cash flow by year"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void FlowBars::setSource(model::RowId row, int firstColumn) {
  row_ = row;
  firstColumn_ = firstColumn;
}

void FlowBars::setContent(QStringList periods, std::vector<Figure> history, std::vector<FlowSeries> series,
                          QString unit) {
  periods_ = std::move(periods);
  history_ = std::move(history);
  series_ = std::move(series);
  unit_ = std::move(unit);
  update();
}

void FlowBars::setMiddles(std::vector<double> middles, double from) {
  middles_ = std::move(middles);
  from_ = from;
  update();
}

void FlowBars::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& t = theme();
  painter.fillRect(rect(), t.paper);
  beginFigures();
  if (periods_.isEmpty()) return;
  painter.setRenderHint(QPainter::Antialiasing);
  double low = 0, high = 0;
  const auto take = [&](const std::vector<Figure>& figures) {
    for (const Figure& f : figures) {
      low = std::min(low, f.valueOr(0));
      high = std::max(high, f.valueOr(0));
    }
  };
  take(history_);
  for (const FlowSeries& s : series_) take(s.figures);
  if (high <= low) high = low + 1;
  const double line = QFontMetricsF(font()).height();
  const double pad = (high - low) * 0.08;
  const Scale y{low - pad, high + pad, height() - line - 6.0, line + 8.0};
  const Ticks ticks =
      ticksOf(y.low, y.high, std::max(2, static_cast<int>(height() / (2.5 * line))), shownUnit(Kind::Money), font());
  const bool aligned = middles_.size() == static_cast<size_t>(periods_.size()) && middles_.size() > 1;
  const double left = aligned ? from_ : std::max(56.0, ticks.width + 16);
  const double step =
      aligned ? middles_[1] - middles_[0] : (width() - left - 16) / static_cast<double>(periods_.size());
  const auto startOf = [&](int column) {
    return aligned ? middles_[static_cast<size_t>(column)] - step / 2 : left + column * step;
  };
  for (qsizetype i = 0; i < ticks.words.size(); ++i) {
    const double tick = ticks.at[static_cast<size_t>(i)];
    painter.setPen(QPen(tick == 0 ? t.wideRule : t.rule, 1));
    painter.drawLine(QPointF(left, y.at(tick)), QPointF(width() - 16, y.at(tick)));
    painter.setPen(t.quiet);
    drawTabular(painter, {0, y.at(tick) - line / 2, left - 8, line}, ticks.words[i], Qt::AlignRight);
  }
  const int filed = static_cast<int>(history_.size());
  const auto bar = [&](double x, double w, const Figure& f, const QColor& color, int column, int scenario) {
    if (!f.hasValue()) return;
    const double top = y.at(std::max(0.0, f.value()));
    const double bottom = y.at(std::min(0.0, f.value()));
    const QRectF area(x, top, w, std::max(1.0, bottom - top));
    painter.fillRect(area, color);
    if (row_.known()) addFigure(area, {model::Cell{row_, firstColumn_ + column}, scenario, {}});
  };
  for (int c = 0; c < periods_.size(); ++c) {
    const double x = startOf(c);
    if (x + step / 2 < left || (aligned && x + step / 2 > width() - 8)) continue;
    if (c < filed) {
      bar(x + step * 0.3, step * 0.4, history_[static_cast<size_t>(c)], t.quiet, c, 0);
    } else {
      // The last column's middle may lie near the edge.
      const double half = aligned ? std::min(step * 0.39, std::max(6.0, width() - 4 - middles_.back())) : step * 0.39;
      const double w = 2 * half / static_cast<double>(std::max<size_t>(1, series_.size()));
      for (size_t k = 0; k < series_.size(); ++k) {
        bar(x + step / 2 - half + static_cast<double>(k) * w, w - 1, series_[k].figures[static_cast<size_t>(c - filed)],
            t.scenario(series_[k].scenario), c, static_cast<int>(k));
      }
    }
    painter.setPen(t.quiet);
    drawYear(painter, x + step / 2, height() - line - 2, periods_[c], width());
  }
  painter.setPen(QPen(t.wideRule, 1, Qt::DashLine));
  if (const double edge = filed < periods_.size() ? startOf(filed) : 0; edge >= left)
    painter.drawLine(QPointF(edge, line + 8), QPointF(edge, height() - line - 6));
  painter.setPen(t.quiet);
  painter.drawText(QPointF(8, line), tr("Free cash flow to the firm, %1").arg(unit_));
  double x = width() - 16;
  for (auto s = series_.rbegin(); s != series_.rend(); ++s) {
    const double w = QFontMetricsF(font()).horizontalAdvance(s->label);
    x -= w;
    painter.setPen(t.scenario(s->scenario));
    painter.drawText(QPointF(x, line), s->label);
    drawScenarioMark(painter, s->scenario, {x - 9, line - 4}, 8);
    x -= 26;
  }
  paintCursor(painter);
}

}  // namespace zl::app
