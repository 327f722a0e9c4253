#pragma once
// What a widget draws as text: each text with its rectangle, colour and clip, recorded by a paint device of its own.

#include <QColor>
#include <QImage>
#include <QRectF>
#include <QString>
#include <QWidget>
#include <vector>

namespace zl::app {

struct DrawnText {
  QString text;
  QRectF rect;  ///< in the widget's pixels; as wide as the text runs, as high as its letters may be
  QRectF clip;  ///< what is drawn outside of it is not seen
  QColor colour;
};

/// Without the widget's children.
std::vector<DrawnText> textsDrawnBy(QWidget& widget);

/// Contrast (WCAG 2.1) of a text against what is most of the picture beneath it: 1 to 21.
double contrastOf(const DrawnText& drawn, const QImage& picture);

}  // namespace zl::app
