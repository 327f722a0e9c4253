#pragma once
// From flows to a value per share, three scenarios in columns. Opens with the walk from present values to the share;
// its other views are the years beneath their bars, what lies beyond, the claims, and other ways to the same value.

#include <QComboBox>
#include <QDateEdit>
#include <QSpinBox>

#include "app/charts/flow_bars.h"
#include "app/pages/other_ways.h"
#include "app/pages/page.h"
#include "app/pages/sub_views.h"
#include "services/views/cash_view.h"

namespace zl::app {

class CashValuePage : public Page {
  Q_OBJECT

 public:
  explicit CashValuePage(Workbench& bench, QWidget* parent = nullptr);

 protected:
  void refresh() override;

 private:
  void addControls();
  QWidget* makeValue();
  QWidget* makeYears();
  QWidget* makeBeyond();
  QWidget* makeClaims();
  QWidget* makeOthers();
  void standOnPrice(int index);
  void fillTime();
  void fillHead();
  void fillYears();
  void fillTerminal();
  void fillClaims();
  /// Lines of other ways that are no rows of the model; each gives the words beside the way.
  QString addImpliedCost(std::vector<LedgerRow>& rows);
  QString addYearlyReturn(std::vector<LedgerRow>& rows);
  [[nodiscard]] QString lastTraded() const;
  void fillScenarios(LedgerView* grid, std::vector<LedgerRow> rows);

  QDateEdit* date_;
  QSpinBox* horizon_;
  QComboBox* price_;
  QLabel* head_;
  SubViews* views_;
  FlowBars* bars_;
  LedgerView *years_, *terminal_, *walk_, *brief_, *claims_;
  OtherWays* others_;
  QLabel *yearsTitle_, *remark_;
};

}  // namespace zl::app
