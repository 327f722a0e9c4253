#pragma once
// The peer set: multiples with an in or out mark per cell, statistics, implied value per share.

#include <QLineEdit>

#include "app/charts/range_chart.h"
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
  void fillPeers();
  void fillStatistics();
  void toggle(int row, int column);

  SubViews* views_;
  LedgerView *peers_, *statistics_;
  QLineEdit* reason_;
  RangeChart* ranges_;
  QWidget* empty_;
};

}  // namespace zl::app
