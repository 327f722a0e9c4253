#pragma once
// The limits of the monitors: what each reads, where it draws its line, and what the line is by
// default. A limit is typed; an empty cell takes the default again.

#include <QObject>

#include "app/bench/workbench.h"
#include "app/grid/ledger_view.h"

namespace zl::app {

class LimitsTable : public QObject {
  Q_OBJECT

 public:
  /// `grid` is the page's own, so that its cells are summed like any other.
  LimitsTable(Workbench& bench, LedgerView* grid, QObject* parent);
  void refresh();

 private:
  void typed(int row, const QString& text);

  Workbench& bench_;
  LedgerView* grid_;
};

}  // namespace zl::app
