#pragma once
// The peer set: multiples with an in or out mark per cell, statistics, implied value per share; the return to an exit
// multiple; further ways to a value.

#include <QComboBox>
#include <QLineEdit>

#include "app/charts/multiple_strips.h"
#include "app/charts/range_chart.h"
#include "app/pages/exit_panel.h"
#include "app/pages/multiples_bar.h"
#include "app/pages/other_ways.h"
#include "app/pages/page.h"
#include "app/pages/parts_panel.h"
#include "app/pages/past_panel.h"
#include "app/pages/peer_sets_bar.h"
#include "app/pages/sub_views.h"
#include "app/pages/why_panel.h"
#include "core/peers/peer.h"

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
  QWidget* makeRange();
  void fillRange();
  QWidget* makeRatios();
  void fillRatios();
  QWidget* makeOthers();
  [[nodiscard]] Multiple fittedMultiple();
  void fillPeers();
  void fillLikeness();
  void fillStatistics();
  void fillStrips();
  void tellEffect();
  void toggle(int row, int column);

  SubViews* views_;
  LedgerView *peers_, *statistics_, *ratios_, *chosen_;
  PastPanel* past_;
  WhyPanel* why_;
  PartsPanel* parts_;
  ExitPanel* exit_;
  OtherWays* others_;
  QComboBox *group_, *fitted_;
  std::vector<Multiple> shown_;
  bool alike_ = false;  ///< the peers' likeness to the subject is shown in place of multiples
  QLabel *sentence_, *effect_, *spread_, *without_;
  MultipleStrips* strips_;
  QLineEdit* reason_;
  PeerSetsBar* sets_;
  MultiplesBar* multiples_;
  RangeChart* ranges_;
  QWidget* empty_;
};

}  // namespace zl::app
