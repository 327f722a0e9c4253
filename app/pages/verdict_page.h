#pragma once
// All methods as ranges against the price, the scenarios in words and figures, and what needs a
// look before the verdict is given; in views of their own, the versions kept
// and the limits of the monitors.

#include <QLineEdit>
#include <QListWidget>

#include "app/charts/range_chart.h"
#include "app/pages/limits_table.h"
#include "app/pages/page.h"
#include "app/pages/sub_views.h"
#include "app/pages/versions_panel.h"

namespace zl::app {

class VerdictPage : public Page {
  Q_OBJECT

 public:
  explicit VerdictPage(Workbench& bench, QWidget* parent = nullptr);
  /// Shows the versions, ready to name the present state.
  void startKeeping();
  /// Shows the versions with one of them under the cursor.
  void showVersion(const QString& name);

 protected:
  void refresh() override;

 private:
  QWidget* makeMethods();
  QWidget* makeFindings();
  QWidget* makeBlend();
  void takeTyped(int row, int column, const QString& typed);
  void fillRanges();
  void fillScenarios();
  void fillFindings();
  [[nodiscard]] const Finding* currentFinding() const;
  void acknowledge();

  SubViews* views_;
  VersionsPanel* versions_;
  LimitsTable* limits_;
  QLabel *title_, *sentence_, *findingsTitle_;
  RangeChart* ranges_;
  LedgerView *scenarios_, *blend_;
  QLabel* spread_;
  QListWidget* findings_;
  QLineEdit* why_;
  QPushButton* accept_;
};

}  // namespace zl::app
