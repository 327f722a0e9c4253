#pragma once
// Which multiples are looked at first, in the menu of a button that stands where the page wants it, and a multiple of
// the analyst's own, of any row and year: a row of fields that is there when it is asked for.

#include <QComboBox>
#include <QPushButton>
#include <QToolButton>
#include <QWidget>

#include "app/bench/workbench.h"

namespace zl::app {

class MultiplesBar : public QWidget {
  Q_OBJECT

 public:
  MultiplesBar(Workbench& bench, QWidget* parent);
  [[nodiscard]] QToolButton* button() const { return shown_; }
  void refresh();

 private:
  void fillShown();
  void show(Multiple m, bool shown);
  void add();

  Workbench& bench_;
  QToolButton* shown_;
  QComboBox *row_, *over_, *year_;
  QStringList rows_;  ///< that the list of rows was filled with
};

}  // namespace zl::app
