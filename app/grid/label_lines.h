#pragma once
// The label of a ledger's row with its unit after it, in as many lines as it takes: a label is read whole.

#include <QFont>
#include <QPainter>
#include <QRectF>

#include "app/grid/ledger_model.h"

namespace zl::app {

/// How many lines, 1 to 4, the label takes in `width` pixels, which are those left of its marks.
int labelLines(const LedgerRow& row, const QFont& font, double width);

/// Drawn from the left, the lines together in the middle of `area`; what four lines do not hold ends in an ellipsis.
void drawLabel(QPainter& painter, const QRectF& area, const LedgerRow& row);

}  // namespace zl::app
