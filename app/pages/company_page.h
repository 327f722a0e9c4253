#pragma once
// Orientation on one screen: what the company does and where, size, returns, debt, what the market
// makes of it, what happened.

#include "app/charts/price_chart.h"
#include "app/charts/stacked_bars.h"
#include "app/pages/basis_panel.h"
#include "app/pages/page.h"

namespace zl::app {

class CompanyPage : public Page {
  Q_OBJECT

 public:
  explicit CompanyPage(Workbench& bench, QWidget* parent = nullptr);

 protected:
  void refresh() override;

 private:
  void refreshRecord();
  void refreshKeyFigures();
  void refreshSegments();
  void refreshWhatHappened();

  QLabel *about_, *facts_;
  LedgerView *key_, *market_, *parts_, *happened_;
  StackedBars *business_, *region_, *due_;
  PriceChart* price_;
  BasisPanel* basis_;
};

}  // namespace zl::app
