#include "app/grid/label_lines.h"

#include <QTextLayout>
#include <algorithm>

#include "app/look/theme.h"

namespace zl::app {
namespace {

constexpr int kMostLines = 4;

struct Laid {
  QTextLayout layout;
  int lines = 0;
  double height = 0;
};

QString unitAfter(const LedgerRow& row) {
  return row.unit.isEmpty() ? QString() : QStringLiteral("  ") + row.unit;
}

void layOut(const QString& label, const QString& unit, const QFont& font, double width, Laid& laid) {
  laid.layout.setText(label + unit);
  laid.layout.setFont(font);
  QTextOption option;
  option.setWrapMode(QTextOption::WrapAtWordBoundaryOrAnywhere);
  option.setTextDirection(Qt::LeftToRight);
  laid.layout.setTextOption(option);
  QTextLayout::FormatRange quiet;
  quiet.start = static_cast<int>(label.size());
  quiet.length = static_cast<int>(unit.size());
  quiet.format.setForeground(theme().quiet);
  laid.layout.setFormats({quiet});
  laid.lines = 0;
  laid.height = 0;
  laid.layout.beginLayout();
  for (QTextLine line = laid.layout.createLine(); line.isValid(); line = laid.layout.createLine()) {
    line.setLineWidth(width);
    line.setPosition(QPointF(0, laid.height));
    laid.height += line.height();
    ++laid.lines;
  }
  laid.layout.endLayout();
}

}  // namespace

int labelLines(const LedgerRow& row, const QFont& font, double width) {
  Laid laid;
  layOut(row.label, unitAfter(row), font, width, laid);
  return std::clamp(laid.lines, 1, kMostLines);
}

void drawLabel(QPainter& painter, const QRectF& area, const LedgerRow& row) {
  Laid laid;
  QString label = row.label;
  layOut(label, unitAfter(row), painter.font(), area.width(), laid);
  while (laid.lines > kMostLines && !label.isEmpty()) {
    label.chop(1 + label.size() / 16);
    layOut(label + QChar(0x2026), unitAfter(row), painter.font(), area.width(), laid);
  }
  laid.layout.draw(&painter, QPointF(area.left(), area.center().y() - laid.height / 2));
}

}  // namespace zl::app
