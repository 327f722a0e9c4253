#pragma once
// The cost of capital from its parts. Opens with the rate as a stack and its parts by scenario; its other views are
// what rivals each part, beta from returns and from peers, the rate over the years, and debt.

#include <QCheckBox>
#include <QComboBox>
#include <QSpinBox>

#include "app/charts/beta_cloud.h"
#include "app/charts/price_chart.h"
#include "app/charts/rate_stack.h"
#include "app/charts/stacked_bars.h"
#include "app/pages/page.h"
#include "app/pages/sub_views.h"
#include "services/views/capital_view.h"

namespace zl::app {

class CapitalPage : public Page {
  Q_OBJECT

 public:
  explicit CapitalPage(Workbench& bench, QWidget* parent = nullptr);

 protected:
  void refresh() override;

 private:
  QWidget* makeRate();
  QWidget* makeRivals();
  QWidget* makeBeta();
  QWidget* makeYears();
  QWidget* makeDebt();
  void fillStack();
  void fillParts();
  void fillRivals();
  void fillBeta();
  void fillPeerBetas();
  void fillYears();
  void fillDebt();
  void adoptRival(int row);
  [[nodiscard]] services::BetaSettings settings() const;

  SubViews* views_;
  RateStack* stack_;
  LedgerView *parts_, *weights_, *rivals_, *hurdle_, *fit_, *peers_, *rateYears_, *debt_, *rates_;
  QLabel* rivalsHint_;
  bool allRivals_ = false;                                             ///< also those after the sixth of a part
  std::vector<std::pair<model::RowId, services::Rival>> shownRivals_;  ///< by row of the grid
  QComboBox *index_, *frequency_;
  QSpinBox* window_;
  QCheckBox* total_;
  BetaCloud* cloud_;
  PriceChart* rolling_;
  QLabel* betaNotes_;
  StackedBars* years_;
};

}  // namespace zl::app
