#pragma once
// How a board of lines is drawn, whatever it is drawn on.

#include <QFont>
#include <QPainter>

#include "app/charts/line_board.h"

namespace zl::app {

void paintLineBoard(QPainter& painter, const QRectF& area, const LineBoardContent& content, const QFont& font);

}  // namespace zl::app
