#pragma once
// Tables beside the projected statements: scenarios side by side with the reference cases, the sum
// of caution, and what was forecast for a year that has since been filed.

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QWidget>

#include "app/bench/workbench.h"
#include "app/grid/ledger_view.h"
#include "services/views/scenario_view.h"

namespace zl::app {

class OutlookTables : public QWidget {
  Q_OBJECT

 public:
  enum class Show { Scenarios, Decide, Caution, Actual, Interim, Published };

  /// `grid` is the page's own, so that its cells are traced and summed like any other.
  OutlookTables(Workbench& bench, LedgerView* grid, QWidget* parent);
  void show(Show what);
  void refresh();
  void takeFocus() { grid_->setFocus(Qt::ShortcutFocusReason); }

 Q_SIGNALS:
  void driverWanted(const QString& driver);

 private:
  void makeScenarioBar();
  void refreshScenarioBar();
  void fillScenarios();
  void fillDecide();
  void fillCaution();
  void fillActual();
  void fillInterim();
  void makePublishBar();
  void fillPublished();
  void typed(int row, int column, const QString& text);
  [[nodiscard]] std::string chosen(const QComboBox* box) const;

  Workbench& bench_;
  LedgerView* grid_;
  Show what_ = Show::Scenarios;
  QWidget *bar_, *publishBar_;
  QCheckBox* differences_;
  QComboBox *from_, *to_;
  QLineEdit* name_;
  QPushButton *add_, *copy_, *swap_, *reset_, *remove_, *rename_, *roll_;
  QLineEdit *publishName_, *publishNote_;
  QComboBox* sets_;
  QPushButton *publish_, *withdraw_;
  QLabel* words_;
  std::vector<Figure> references_;  ///< values of the reference cases, as last worked out
};

}  // namespace zl::app
