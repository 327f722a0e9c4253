#pragma once
// Orientation on one screen: what the company does and where, size, returns, debt, what the market makes of it. Further
// views: the record and the market, typed in place; parts of the company, what happened, the basis.

#include "app/charts/price_chart.h"
#include "app/charts/stacked_bars.h"
#include "app/pages/basis_panel.h"
#include "app/pages/market_panel.h"
#include "app/pages/page.h"
#include "app/pages/record_panel.h"
#include "app/pages/sub_views.h"

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
  QWidget* makeOverview();
  QWidget* makePrice();
  QWidget* makeParts();

  SubViews* views_;
  QLabel *about_, *facts_;
  LedgerView *key_, *market_, *parts_, *happened_, *owners_;
  StackedBars *business_, *region_, *due_;
  PriceChart* price_;
  QWidget *noPrices_, *nothing_;  ///< what belongs where there is nothing yet
  BasisPanel* basis_;
  RecordPanel* record_;
  MarketPanel* marketTables_;
};

}  // namespace zl::app
