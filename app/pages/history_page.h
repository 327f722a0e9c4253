#pragma once
// Filed history as rows and periods with a trend in each row, in many views; exceptional years,
// adjustments and windows are made here, in place, with a reason; below, the chart board.

#include <QComboBox>
#include <QLineEdit>
#include <QStackedWidget>

#include "app/pages/chart_panel.h"
#include "app/pages/history_rows.h"
#include "app/pages/page.h"

namespace zl::app {

class HistoryPage : public Page {
  Q_OBJECT

 public:
  explicit HistoryPage(Workbench& bench, QWidget* parent = nullptr);
  void setSaveDialog(std::function<QString(QWidget*)> dialog) { charts_->setSaveDialog(std::move(dialog)); }

 protected:
  void refresh() override;

 private:
  [[nodiscard]] QHBoxLayout* makeChoiceBar();
  [[nodiscard]] QWidget* makeFlagBar();
  [[nodiscard]] QWidget* makeWindowBar();
  [[nodiscard]] QWidget* makeAdjustBar();
  void refreshGrid();
  void refreshFlagBar();
  void refreshWindowBar();
  void refreshAdjustBar();
  /// What drafts of the bars' fields are kept under.
  [[nodiscard]] QString flagKey() const;
  [[nodiscard]] QString windowKey() const;
  [[nodiscard]] QString adjustKey(const QString& part) const;
  void toggleFlag();
  void toggleWindow();
  void adjust(bool takeBack);
  void changeTest(int row, int column, const QString& typed);
  void adjustTo(int row, int column, const QString& typed);
  [[nodiscard]] HistoryShow show() const;
  [[nodiscard]] services::Reading reading() const;
  /// The filed flow under the cursor that may be adjusted; row -1 when there is none.
  [[nodiscard]] model::Cell adjustable() const;
  [[nodiscard]] bool isYearly() const { return basis_->currentData().toInt() < 0; }

  LedgerView* grid_;
  ChartPanel* charts_;
  QStackedWidget* bars_;
  QComboBox *basis_, *show_, *reading_, *yearBox_, *fromYear_, *toYear_;
  QLineEdit *flagReason_, *windowReason_, *adjustTo_, *adjustReason_;
  QPushButton *flag_, *keepWindow_, *adjust_, *takeBack_;
  QLabel *flagNote_, *adjustLabel_;
  QWidget* adjustBar_;
  std::vector<std::string> tests_;  ///< of the rows shown, in the quality review
};

}  // namespace zl::app
