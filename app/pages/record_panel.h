#pragma once
// The company record, typed in place: its fields with why each is so, and its lists a row an item with an empty row at
// the end. Cells that are pasted come in as far as they can; what cannot is named.

#include <QComboBox>
#include <QLabel>

#include "app/bench/workbench.h"
#include "app/grid/ledger_view.h"
#include "services/edits/record_edits.h"

namespace zl::app {

class RecordPanel : public QWidget {
  Q_OBJECT

 public:
  /// The grids are the page's, so that it traces and sums what is selected in them.
  RecordPanel(Workbench& bench, LedgerView* fields, LedgerView* list, LedgerView* listings, QWidget* parent);
  void refresh();

 private:
  void refreshFields();
  void refreshList();
  void refreshListings();
  void typeField(int row, int column, const QString& typed);
  void typeCell(int row, int column, const QString& typed);
  void pasteRows(int row, int column, const QList<QStringList>& cells);
  void storeRows(const std::vector<services::RecordRow>& rows);
  void removeRow();
  void valueListing(int row);
  [[nodiscard]] const services::RecordList& list() const;

  Workbench& bench_;
  LedgerView *fields_, *listView_, *listings_;
  QComboBox* which_;
  QLabel* hint_;
  services::RecordRow fresh_;  ///< the row that is being typed and lacks something yet
};

}  // namespace zl::app
