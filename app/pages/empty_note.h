#pragma once
// What belongs in a part of a page that has nothing yet, with a button for each way to bring it.

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

#include "app/bench/workbench.h"

namespace zl::app {

class EmptyNote : public QWidget {
  Q_OBJECT

 public:
  EmptyNote(Workbench& bench, const QString& words, QWidget* parent = nullptr);
  /// A button that goes to where it is typed or pasted: a view of a page, and a table of it.
  void offer(const QString& words, Stop stop, const QString& view, const QString& table = {});

 private:
  Workbench& bench_;
  QHBoxLayout* buttons_;
};

}  // namespace zl::app
