#pragma once
// The heart: drivers in groups, the path board of the chosen one, its evidence, and the projected
// statements, all moving together.

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLineEdit>
#include <QSpinBox>

#include "app/charts/path_board.h"
#include "app/pages/page.h"

namespace zl::app {

class OutlookPage : public Page {
  Q_OBJECT

 public:
  explicit OutlookPage(Workbench& bench, QWidget* parent = nullptr);
  /// Brings a driver to the board.
  void choose(const QString& driver);
  [[nodiscard]] const QString& chosen() const { return driver_; }

 protected:
  void refresh() override;

 private:
  QWidget* makeLeft();
  QWidget* makeRight();
  QWidget* makeShapeBar();
  void connectBoard();
  void refreshDrivers();
  void refreshBoard();
  void refreshPaths();
  void refreshEvidence();
  void refreshShape();
  void refreshStatements();
  void applyShape();
  void adopt(int row, int column);
  void drag(int year, double figure, bool drop);
  [[nodiscard]] int driverIndex() const;
  [[nodiscard]] std::vector<Figure> forecastOf(const services::Snapshot& s, int scenario) const;

  QString driver_ = QStringLiteral("revenue_growth");
  LedgerView *drivers_, *evidence_, *paths_, *statements_;
  PathBoard* board_;
  QComboBox *scenarioBox_, *shapeBox_, *statementBox_;
  QLineEdit *level_, *reason_;
  QSpinBox *from_, *to_;
  QDoubleSpinBox* halfLife_;
  QPushButton* reset_;
  QLabel *fromLabel_, *toLabel_, *halfLabel_, *levelLabel_;
  bool filling_ = false;
};

}  // namespace zl::app
