#pragma once
// The company as the sum of its parts: each part's revenue and profit as filed, what a multiple is of, the multiple,
// what it comes to. Multiples are typed; Enter on the peers' median takes it.

#include <QLabel>
#include <QWidget>

#include "app/bench/workbench.h"
#include "app/grid/ledger_view.h"
#include "services/views/parts_view.h"

namespace zl::app {

class PartsPanel : public QWidget {
  Q_OBJECT

 public:
  PartsPanel(Workbench& bench, LedgerView* parts, LedgerView* share, QWidget* parent);
  void refresh();

 private:
  void fillParts();
  void typed(int row, int column, const QString& text);
  void take(int row, int column);
  /// What a row of the grid stands for; empty for the sum.
  [[nodiscard]] std::string keyOf(int row) const;
  [[nodiscard]] std::optional<PartChoice> chosen(const std::string& key) const;
  void say(int row, PartChoice choice);

  Workbench& bench_;
  LedgerView *parts_, *share_;
  QLabel* words_;
  services::PartsView shown_;  ///< as last filled
};

}  // namespace zl::app
