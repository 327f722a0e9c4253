#include "tests/support/grid_texts.h"

#include <QScrollBar>

#include "tests/support/text_recorder.h"

namespace zl::app {
namespace {

struct Look {
  LedgerView& grid;
  std::set<std::string>& faults;
  bool labelsWhole;
  double stretch;
  std::string where;
};

void lookAtText(const Look& look, const DrawnText& drawn) {
  const QModelIndex index = look.grid.indexAt(drawn.rect.center().toPoint());
  if (!index.isValid()) return;  // scrolled half out of sight
  const LedgerRow& row = look.grid.ledger().ledgerRows()[static_cast<size_t>(index.row())];
  const std::string said = look.where + ": '" + drawn.text.toStdString() + "'";
  const bool ownEllipsis = row.label.contains(QChar(0x2026));
  if (index.column() == 0 && look.labelsWhole && !ownEllipsis && drawn.text.contains(QChar(0x2026)))
    look.faults.insert(said + " is cut, of '" + row.label.toStdString() + "'");
  QRectF cell = look.grid.visualRect(index);
  if (row.heading) cell.setRight(std::max(cell.right(), static_cast<double>(look.grid.viewport()->width())));
  QRectF wide = drawn.rect;
  if (index.column() == 0) wide.setWidth(wide.width() * look.stretch);
  if (wide.left() < cell.left() - 1 || wide.right() > cell.right() + 2) look.faults.insert(said + " leaves its column");
  if (wide.top() < cell.top() - 2 || wide.bottom() > cell.bottom() + 2) look.faults.insert(said + " leaves its row");
}

}  // namespace

int gridFaults(LedgerView& grid, const std::string& where, std::set<std::string>& faults, bool labelsWhole,
               double stretch) {
  const Look look{grid, faults, labelsWhole, stretch, where + ", " + grid.objectName().toStdString()};
  QScrollBar& bar = *grid.verticalScrollBar();
  const int stood = bar.value();
  int seen = 0;
  for (int at = 0;; at += std::max(1, grid.viewport()->height())) {
    bar.setValue(at);
    for (const DrawnText& drawn : textsDrawnBy(*grid.viewport())) {
      lookAtText(look, drawn);
      ++seen;
    }
    if (at >= bar.maximum()) break;
  }
  bar.setValue(stood);
  return seen;
}

}  // namespace zl::app
