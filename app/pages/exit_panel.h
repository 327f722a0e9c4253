#pragma once
// The return to an exit multiple by scenario, what makes it, and the yearly return for growths and multiples around.

#include <QLabel>
#include <QWidget>

#include "app/bench/workbench.h"
#include "app/grid/ledger_view.h"

namespace zl::app {

class ExitPanel : public QWidget {
  Q_OBJECT

 public:
  ExitPanel(Workbench& bench, LedgerView* values, LedgerView* grid, QWidget* parent);
  void refresh();

 private:
  void fillGrid();

  Workbench& bench_;
  LedgerView *values_, *grid_;
  QLabel* sentence_;
};

}  // namespace zl::app
