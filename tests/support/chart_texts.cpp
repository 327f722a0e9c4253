#include "tests/support/chart_texts.h"

#include <QWidget>

#include "app/charts/line_board.h"
#include "app/charts/path_board.h"
#include "app/charts/telling_chart.h"
#include "app/frame/value_rail.h"
#include "tests/support/text_recorder.h"

namespace zl::app {
namespace {

/// Two texts lie over each other, not merely beside.
bool overlap(const DrawnText& a, const DrawnText& b, double stretch) {
  constexpr double kTouch = 1.5;  // letters lean over their box by as much
  QRectF wide = a.rect;
  wide.setWidth(wide.width() * stretch);
  const QRectF both = wide.intersected(b.rect);
  return both.width() > kTouch && both.height() > kTouch + a.rect.height() / 4;
}

}  // namespace

bool isDrawn(const QWidget* w) {
  return qobject_cast<const TellingChart*>(w) != nullptr || qobject_cast<const PathBoard*>(w) != nullptr ||
         qobject_cast<const LineBoard*>(w) != nullptr || qobject_cast<const ValueRail*>(w) != nullptr;
}

int chartFaults(const QWidget& window, const std::string& where, std::set<std::string>& faults, bool whole,
                double stretch) {
  int seen = 0;
  for (QWidget* chart : window.findChildren<QWidget*>()) {
    if (!chart->isVisible() || !isDrawn(chart)) continue;
    const std::string name = where + ", " + chart->objectName().toStdString();
    const std::vector<DrawnText> texts = textsDrawnBy(*chart);
    seen += static_cast<int>(texts.size());
    for (size_t i = 0; i < texts.size(); ++i) {
      if (whole && texts[i].text.contains(QChar(0x2026)))
        faults.insert(name + ": cut '" + texts[i].text.toStdString() + "'");
      if (!texts[i].clip.adjusted(-1, -2, 1, 2).contains(texts[i].rect))
        faults.insert(name + ": cut '" + texts[i].text.toStdString() + "'");
      for (size_t k = i + 1; k < texts.size(); ++k) {
        if (overlap(texts[i], texts[k], stretch))
          faults.insert(name + ": '" + texts[i].text.toStdString() + "' over '" + texts[k].text.toStdString() + "'");
      }
    }
  }
  return seen;
}

}  // namespace zl::app
