#pragma once
// Figures with digits of one width, so that they align in a column. Letters keep their own width.

#include <QFont>
#include <QPainter>
#include <QString>

namespace zl::app {

/// Draws text in the middle of the rectangle's height, aligned left, right or centred in its width.
void drawTabular(QPainter& painter, const QRectF& rect, const QString& text, Qt::Alignment alignment);
/// What it takes, in pixels.
double tabularWidth(const QFont& font, const QString& text);

}  // namespace zl::app
