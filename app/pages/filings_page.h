#pragma once
// Documents, what would come in before it does, what does not map and what does not tie.

#include <QStackedWidget>
#include <QStringList>

#include "app/pages/beside_panel.h"
#include "app/pages/document_panel.h"
#include "app/pages/import_panel.h"
#include "app/pages/page.h"

namespace zl::app {

class FilingsPage : public Page {
  Q_OBJECT

 public:
  explicit FilingsPage(Workbench& bench, QWidget* parent = nullptr);
  /// Reads files and shows what would come in; nothing is stored until it is accepted.
  void offer(const QStringList& paths);
  /// Reads cells on the clipboard as a table.
  void offerPasted();

 Q_SIGNALS:
  void filesWanted();  ///< asks the window for a file dialog

 protected:
  void refresh() override;
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;

 private:
  void showFacts(const QString& title, const std::vector<size_t>& facts);
  void showTie(int row, int column);
  void refreshDocuments();
  void refreshTies();
  void refreshRestated();
  void toggleFirstFiled(int row);
  void refreshUnmapped();
  void placeConcept(const std::string& concept_name, const QString& typed);

  LedgerView *documents_, *ties_, *restated_, *unmapped_;
  QComboBox* lowerShows_;
  QCheckBox* firstFiled_;
  QLabel *tiesTitle_, *unmappedTitle_;
  ImportPanel* panel_;
  BesidePanel* beside_;
  DocumentPanel* document_;
  std::map<std::pair<int, int>, std::vector<size_t>> tieFacts_;  ///< by row and column of the ties' grid
  QStackedWidget* views_;                                        ///< grids, or the document that a fact stands in
  QWidget* before_ = nullptr;                                    ///< what had the focus before the document was shown
};

}  // namespace zl::app
