#pragma once
// The heart: drivers in groups, the path board of the chosen one, its evidence, and the projected
// statements, all moving together.

#include <QComboBox>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QSpinBox>
#include <QStackedWidget>

#include "app/charts/path_board.h"
#include "app/editor/own_rows_panel.h"
#include "app/pages/evidence_table.h"
#include "app/pages/outlook_tables.h"
#include "app/pages/page.h"
#include "app/pages/shape_bar.h"
#include "services/views/driver_evidence.h"

namespace zl::app {

class OutlookPage : public Page {
  Q_OBJECT

 public:
  explicit OutlookPage(Workbench& bench, QWidget* parent = nullptr);
  /// Brings a driver to the board.
  void choose(const QString& driver);
  [[nodiscard]] const QString& chosen() const { return driver_; }
  /// Shows what is not decided yet, ranked by what it moves.
  void showDecideNext();
  /// Opens the analyst's own rows for writing.
  void showOwnRows();

 protected:
  void refresh() override;

 private:
  QWidget* makeLeft();
  QWidget* makeRight();
  void alignBoard();
  void makeHorizonFields(QHBoxLayout* bar, QWidget* parent);
  void connectShapeBar();
  [[nodiscard]] QString reasonKey() const;
  void connectBoard();
  void refreshDrivers();
  void refreshBoard();
  void refreshPaths();
  void refreshShape();
  void refreshStatements();
  void refreshHorizon();
  void refreshModel();
  void keepDriver();
  void shape(const services::ShapeWish& wish);
  void typeStages();
  void drag(Grip grip, int year, double figure, bool drop);
  /// The drivers selected in the list, the one on the board among them.
  [[nodiscard]] std::vector<model::RowId> selectedDrivers() const;
  [[nodiscard]] model::RowId driverIndex() const;

  QString driver_;  ///< row name; the first driver of the model until one is chosen
  LedgerView *drivers_, *paths_, *statements_;
  EvidenceTable* evidence_;
  PathBoard* board_;
  ShapeBar* shapeBar_;
  QComboBox* statementBox_;
  OutlookTables* tables_;
  QStackedWidget* lower_;
  QWidget* upper_;  ///< board, paths and shape
  OwnRowsPanel* ownRows_;
  QComboBox* modelBox_;
  QSpinBox* horizon_;
  QLineEdit* stages_;
  bool filling_ = false;
};

}  // namespace zl::app
