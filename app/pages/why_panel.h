#pragma once
// Why the subject's multiple is another than its peers': the gap by its grounds, and the fit across peers.

#include <QLabel>
#include <QWidget>

#include "app/bench/workbench.h"
#include "app/grid/ledger_view.h"
#include "services/views/why_differs.h"

namespace zl::app {

class WhyPanel : public QWidget {
  Q_OBJECT

 public:
  WhyPanel(Workbench& bench, LedgerView* grounds, LedgerView* fit, QWidget* parent);
  /// `m` is the multiple that is fitted across peers.
  void refresh(Multiple m);

 private:
  void fillGrounds();
  void fillFit(Multiple m);

  Workbench& bench_;
  LedgerView *grounds_, *fit_;
  QLabel *words_, *fitWords_;
};

}  // namespace zl::app
