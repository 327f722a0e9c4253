#pragma once
// Free cash flow by year, factors, the terminal methods side by side, and the walk from present
// values to value per share, three scenarios in columns.

#include <QComboBox>
#include <QDateEdit>
#include <QHBoxLayout>
#include <QSpinBox>

#include "app/charts/flow_bars.h"
#include "app/pages/page.h"

namespace zl::app {

class CashValuePage : public Page {
  Q_OBJECT

 public:
  explicit CashValuePage(Workbench& bench, QWidget* parent = nullptr);

 protected:
  void refresh() override;

 private:
  QHBoxLayout* makeTimeBar();
  void standOnPrice(int index);
  void fillTime();
  void fillYears();
  void fillTerminal();
  void fillWalk();

  QDateEdit* date_;
  QSpinBox* horizon_;
  QComboBox* price_;
  FlowBars* bars_;
  LedgerView *years_, *terminal_, *walk_;
  QLabel *yearsTitle_, *remark_;
};

}  // namespace zl::app
