#pragma once
// The peer set: multiples with an in or out mark per cell, statistics, implied value per share; the return to an exit
// multiple; further ways to a value.

#include <QLineEdit>

#include "app/charts/range_chart.h"
#include "app/pages/other_ways.h"
#include "app/pages/page.h"
#include "app/pages/sub_views.h"

namespace zl::app {

class PeersPage : public Page {
  Q_OBJECT

 public:
  explicit PeersPage(Workbench& bench, QWidget* parent = nullptr);

 protected:
  void refresh() override;

 private:
  QWidget* makeSet();
  QWidget* makeImplied();
  QWidget* makeExit();
  QWidget* makeOthers();
  void fillExit();
  void fillExitGrid();
  void fillPeers();
  void fillStatistics();
  void toggle(int row, int column);

  SubViews* views_;
  LedgerView *peers_, *statistics_, *exit_, *exitGrid_;
  OtherWays* others_;
  QLabel* exitSentence_;
  QLineEdit* reason_;
  RangeChart* ranges_;
  QWidget* empty_;
};

}  // namespace zl::app
