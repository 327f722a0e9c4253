#pragma once
// One line at each stop of the demo: what the stop is for and what to try there. Dismissed for good.

#include <QLabel>
#include <QWidget>

#include "core/monitor/finding.h"

namespace zl::app {

class HintStrip : public QWidget {
  Q_OBJECT

 public:
  explicit HintStrip(QWidget* parent = nullptr);
  /// Shows the hint of a stop of the demo; nothing elsewhere, or once hints are dismissed.
  void show(Stop stop, bool ofDemo);

 private:
  QLabel* words_;
};

}  // namespace zl::app
