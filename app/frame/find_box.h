#pragma once
// Find any line, driver or page by name; Enter goes there.

#include <QCompleter>
#include <QLineEdit>
#include <QStringListModel>

#include "app/workbench.h"

namespace zl::app {

class FindBox : public QLineEdit {
  Q_OBJECT

 public:
  explicit FindBox(Workbench& bench, QWidget* parent = nullptr);

 Q_SIGNALS:
  void driverWanted(const QString& name);

 private:
  void go(const QString& label);
  void fill();

  Workbench& bench_;
  QStringListModel names_;
};

}  // namespace zl::app
