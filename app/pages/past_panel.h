#pragma once
// The company's own past multiples: statistics with where today stands, the one under the cursor by month and by year;
// Enter makes a figure the multiple of the exit return, or a method of its own. Beside them the peers' median of each
// month.

#include <QComboBox>
#include <QLabel>
#include <QWidget>

#include "app/bench/workbench.h"
#include "app/charts/price_chart.h"
#include "app/grid/ledger_view.h"
#include "services/views/past_multiples.h"

namespace zl::app {

class PastPanel : public QWidget {
  Q_OBJECT

 public:
  PastPanel(Workbench& bench, LedgerView* values, LedgerView* years, QWidget* parent);
  void refresh();

 private:
  void fillSeries();
  void adopt(int row, int column);
  static std::vector<std::pair<QString, Figure>> columnsOf(const services::PastSeries& of);

  Workbench& bench_;
  LedgerView *values_, *years_;
  PriceChart* chart_;
  QLabel* note_;
  QComboBox* as_;
  services::PastMultiples series_;  ///< as last filled
};

}  // namespace zl::app
