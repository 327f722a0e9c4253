#pragma once
// The analyst's own rows as text: checked while one types, with the place of a fault, and what they
// would do to value before they are accepted. Ready builds can be put in.

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTimer>
#include <QWidget>

#include "app/bench/workbench.h"
#include "app/editor/model_editor.h"
#include "app/grid/ledger_view.h"
#include "services/views/builds.h"

namespace zl::app {

class OwnRowsPanel : public QWidget {
  Q_OBJECT

 public:
  /// `effects` is the page's own grid, so that its cells are traced and summed like any other.
  OwnRowsPanel(Workbench& bench, LedgerView* effects, QWidget* parent);
  /// Shows the rows in use; what is being written stays until it is accepted or let go.
  void refresh();
  void takeFocus() { editor_->setFocus(); }

 private:
  QWidget* makeBar();
  QWidget* makeAcceptBar();
  void insertBuild();
  void check();
  void accept();
  void letGo();
  void fillEffects();
  void fillBuilds();
  [[nodiscard]] QString draftKey() const;
  [[nodiscard]] QString reasonKey() const;
  [[nodiscard]] bool isDraft() const { return editor_->modelText() != shown_; }

  Workbench& bench_;
  LedgerView* effects_;
  ModelEditor* editor_;
  QComboBox* builds_;
  QPushButton *insert_, *accept_, *letGo_;
  QLineEdit* reason_;
  QLabel* message_;
  QTimer wait_;
  bool filling_ = false;
  std::string shown_;  ///< the text in use when it was last put in the editor
  std::string book_;   ///< path, company and model that the text belongs to
  services::OwnRowsCheck last_;
  std::vector<services::Build> ready_;
};

}  // namespace zl::app
