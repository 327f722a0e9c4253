#pragma once
// What a first value still needs, above the value rail: the first of it with a field or a button beside it, the rest
// named. Gone once there is a value and a price.

#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

#include "app/bench/workbench.h"
#include "services/views/still_needed.h"

namespace zl::app {

class NeedsStrip : public QWidget {
  Q_OBJECT

 public:
  explicit NeedsStrip(Workbench& bench, QWidget* parent = nullptr);

 private:
  void refresh();
  void take();  ///< what was typed is stored
  void goThere();

  Workbench& bench_;
  std::vector<services::Need> needs_;
  QLabel *words_, *rest_;
  QLineEdit* field_;
  QPushButton* go_;
};

}  // namespace zl::app
