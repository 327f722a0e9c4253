#pragma once
// Named versions: keep the present state, see versions side by side, go back to one, and what
// moved the value between any two.

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QWidget>
#include <map>
#include <set>

#include "app/bench/workbench.h"
#include "app/charts/walk_chart.h"
#include "app/grid/ledger_view.h"

namespace zl::app {

class VersionsPanel : public QWidget {
  Q_OBJECT

 public:
  /// The grids are the page's own, so that their cells are traced and summed like any other.
  VersionsPanel(Workbench& bench, LedgerView* list, LedgerView* beside, LedgerView* years, QWidget* parent);
  void refresh();
  /// Puts the cursor where a name for the present state is typed.
  void startKeeping();
  /// Puts the cursor of the list on a version.
  void placeOn(const QString& name);

 private:
  void makeKeepBar(QWidget* parent);
  void keep();
  void actOnCurrent(bool goBack);
  /// The sides looked at: from, to, and those ticked in the list, oldest first.
  [[nodiscard]] std::vector<services::Side> sidesShown() const;
  [[nodiscard]] const services::Side* side(const QString& name) const;
  void load();
  void fillList();
  void fillChoices();
  void fillWalk();
  void fillBeside();
  void fillYears();
  void refreshActions();

  Workbench& bench_;
  LedgerView *list_, *beside_, *years_;
  QWidget *keepBar_, *walkBar_;
  QLineEdit *name_, *note_;
  QPushButton *keep_, *goBack_, *drop_;
  QComboBox *from_, *to_, *scenario_, *split_;
  WalkChart* chart_;
  QLabel *sentence_, *empty_, *hint_;
  std::vector<store::KeptVersion> versions_;
  std::map<std::int64_t, services::Side> read_;  ///< by the id of the version, which never changes
  std::vector<services::Side> sides_;            ///< oldest first, the present state last
  std::set<QString> ticked_;
};

}  // namespace zl::app
