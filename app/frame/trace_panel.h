#pragma once
// What is this number, from what, who said so, why, and what hangs on it. Enter walks into an
// input, Backspace walks out again.

#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>
#include <QWidget>
#include <vector>

#include "app/bench/workbench.h"
#include "app/frame/link_list.h"
#include "core/outlook/trace.h"

namespace zl::app {

class TracePanel : public QWidget {
  Q_OBJECT

 public:
  explicit TracePanel(Workbench& bench, QWidget* parent = nullptr);
  void look(model::Cell cell, int scenario);
  /// To what can be walked on from the figure shown.
  void takeFocus();
  [[nodiscard]] model::Cell current() const { return at_; }

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void showEvent(QShowEvent* event) override;

 private:
  [[nodiscard]] QString noteKey() const;
  void refresh();
  void walkIn(const QListWidgetItem* item);
  void walkOut();
  LinkList* addList(QVBoxLayout* layout, const char* name, const QString& spoken);
  void fillList(LinkList* list, const std::vector<TraceLink>& links) const;
  void tell(const services::Story& story);
  void showInputs(const std::vector<TraceLink>& inputs);
  void refreshJournal(const TraceStep& step);

  Workbench& bench_;
  bool stale_ = false;  ///< something changed while it was not shown
  QLabel *title_, *figure_, *rule_, *source_, *help_, *inputsTitle_, *dependentsTitle_;
  QScrollArea* scroll_;
  LinkList *inputs_, *dependents_;
  QLineEdit* note_;
  QPushButton* showJournal_;  ///< how an assumption came about; read only when asked for
  QLabel* journal_;
  model::Cell at_;
  std::string row_;                      ///< name of the row at at_
  bool telling_ = false;                 ///< a figure that is no row of the model is shown
  std::optional<services::Story> told_;  ///< what the trail began with, where it did with such a figure
  int scenario_ = 0;
  std::vector<model::Cell> trail_;
};

}  // namespace zl::app
