#pragma once
// What is looked at, out of the program: a table as CSV or XLSX of values, a chart as PNG or SVG, a page on paper.

#include <QPagedPaintDevice>
#include <QString>
#include <QWidget>

#include "app/grid/ledger_model.h"

namespace zl::app {

/// Figures at full precision in their own units, words as shown; the ending of the path says which form. Empty where it
/// is done, else why not and what to do.
QString saveTable(const LedgerModel& ledger, const QString& path);
/// PNG at twice the size on the screen, or SVG.
QString saveDrawing(QWidget& chart, const QString& path);
/// As wide as the paper, over as many sheets as it takes.
void printPage(QWidget& page, QPagedPaintDevice& paper);

}  // namespace zl::app
