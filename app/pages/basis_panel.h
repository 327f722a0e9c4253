#pragma once
// One basis: the three choices, and what each taken the other way would do. Enter on a column of
// the table takes that choice.

#include <QComboBox>
#include <QSpinBox>
#include <QWidget>

#include "app/bench/workbench.h"
#include "app/grid/ledger_view.h"
#include "services/views/one_basis.h"

namespace zl::app {

class BasisPanel : public QWidget {
  Q_OBJECT

 public:
  /// `grid` is the page's own, so that its cells are traced like any other; the panel takes it in.
  BasisPanel(Workbench& bench, LedgerView* grid, QWidget* parent);
  void refresh();

 private:
  void take(model::Role role, double figure);
  [[nodiscard]] QWidget* fieldOf(model::Role role) const;
  void fillTable(const services::BasisView& view);

  Workbench& bench_;
  LedgerView* grid_;
  QComboBox *leases_, *pay_;
  QSpinBox* research_;
  std::vector<services::BasisSwitch> switches_;
};

}  // namespace zl::app
