#pragma once
// All methods as ranges against the price, the scenarios in words and figures, and what needs a
// look before the verdict is given.

#include <QListWidget>

#include "app/charts/range_chart.h"
#include "app/pages/page.h"

namespace zl::app {

class VerdictPage : public Page {
  Q_OBJECT

 public:
  explicit VerdictPage(Workbench& bench, QWidget* parent = nullptr);

 protected:
  void refresh() override;

 private:
  void fillRanges();
  void fillScenarios();
  void fillFindings();

  QLabel *title_, *sentence_, *findingsTitle_;
  RangeChart* ranges_;
  LedgerView* scenarios_;
  QListWidget* findings_;
};

}  // namespace zl::app
