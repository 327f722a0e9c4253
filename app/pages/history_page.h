#pragma once
// Statements as rows and years with a trend in each row; amounts, growth or share of revenue;
// ratios; exceptional years flagged in place with a reason.

#include <QComboBox>
#include <QLineEdit>

#include "app/pages/page.h"

namespace zl::app {

class HistoryPage : public Page {
  Q_OBJECT

 public:
  explicit HistoryPage(Workbench& bench, QWidget* parent = nullptr);

 protected:
  void refresh() override;

 private:
  enum class Show { Amounts, Growth, Share };
  void refreshInterim(Show show);
  void toggleFlag();
  void refreshFlagBar();
  [[nodiscard]] LedgerRow rowOf(int row, Show show) const;

  LedgerView* grid_;
  QComboBox *basis_, *show_, *yearBox_;
  QLineEdit* flagReason_;
  QPushButton* flag_;
  QLabel* flagNote_;
};

}  // namespace zl::app
