#pragma once
// The rate built up as a stack from the risk-free rate; interest over debt by year; weights.

#include "app/charts/rate_stack.h"
#include "app/pages/page.h"

namespace zl::app {

class CapitalPage : public Page {
  Q_OBJECT

 public:
  explicit CapitalPage(Workbench& bench, QWidget* parent = nullptr);

 protected:
  void refresh() override;

 private:
  void refreshStack();
  void refreshParts();
  void refreshDebt();
  void refreshRates();

  RateStack* stack_;
  LedgerView *parts_, *debt_, *weights_, *rates_;
};

}  // namespace zl::app
