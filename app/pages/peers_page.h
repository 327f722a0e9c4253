#pragma once
// The peer set: multiples with an in or out mark per cell, statistics, implied value per share; the return to an exit
// multiple; further ways to a value.

#include <QComboBox>
#include <QLineEdit>

#include "app/charts/multiple_strips.h"
#include "app/charts/price_chart.h"
#include "app/charts/range_chart.h"
#include "app/pages/other_ways.h"
#include "app/pages/page.h"
#include "app/pages/sub_views.h"
#include "core/peers/peer.h"
#include "services/views/past_multiples.h"

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
  QWidget* makePast();
  QWidget* makeRatios();
  void fillRatios();
  QWidget* makeExit();
  QWidget* makeOthers();
  void fillPast();
  void fillPastSeries();
  void adoptPast(int row, int column);
  static std::vector<std::pair<QString, Figure>> pastColumns(const services::PastSeries& of);
  void fillExit();
  void fillExitGrid();
  void fillPeers();
  void fillStatistics();
  void fillStrips();
  void tellEffect();
  void toggle(int row, int column);

  SubViews* views_;
  LedgerView *peers_, *statistics_, *exit_, *exitGrid_, *past_, *pastYears_, *ratios_;
  PriceChart* pastChart_;
  QLabel* pastNote_;
  services::PastMultiples pastSeries_;  ///< as last filled
  OtherWays* others_;
  QLabel* exitSentence_;
  QComboBox* group_;
  std::vector<Multiple> shown_;
  QLabel *sentence_, *effect_;
  MultipleStrips* strips_;
  QLineEdit* reason_;
  RangeChart* ranges_;
  QWidget* empty_;
};

}  // namespace zl::app
