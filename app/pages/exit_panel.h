#pragma once
// The return to an exit multiple by scenario, what makes it, the yearly return for growths and multiples around, and
// the runs that were kept as versions beside the present one.

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QWidget>

#include "app/bench/workbench.h"
#include "app/grid/ledger_view.h"
#include "services/views/exit_runs.h"

namespace zl::app {

class ExitPanel : public QWidget {
  Q_OBJECT

 public:
  ExitPanel(Workbench& bench, LedgerView* values, LedgerView* grid, LedgerView* runs, QWidget* parent);
  void refresh();

 private:
  void addBeside(std::vector<LedgerRow>& rows);
  void fillPaths();
  void fillGrid();
  void fillRuns();
  void keepRun();

  Workbench& bench_;
  LedgerView *values_, *grid_, *runs_;
  QLabel* runsTitle_;
  QLineEdit* runName_;
  std::map<std::int64_t, services::Side> read_;  ///< versions by their number: they do not change
  QLabel* sentence_;
  QComboBox* paths_;
  services::ExitBeside beside_;
  QStringList drivers_;  ///< that the list of paths was filled with
};

}  // namespace zl::app
