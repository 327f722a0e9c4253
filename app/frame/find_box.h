#pragma once
// Find any line, driver, page, version, finding or action by name; Enter goes there.

#include <QAction>
#include <QCompleter>
#include <QLineEdit>
#include <QStringListModel>
#include <functional>
#include <vector>

#include "app/bench/workbench.h"

namespace zl::app {

class FindBox : public QLineEdit {
  Q_OBJECT

 public:
  explicit FindBox(Workbench& bench, QWidget* parent = nullptr);
  /// What of the menus can be found; the window's own actions.
  void setActions(const QList<QAction*>& actions) { actions_ = actions; }

 private:
  struct Place {
    QString name;
    std::function<void()> go;
    QString among = {};  ///< said after the name where several things have it
  };
  void go(const QString& name);
  /// Everything that can be found now; asked for when the field takes the focus.
  void fill();
  void addRows();
  void tellApart();

  Workbench& bench_;
  QStringListModel names_;
  std::vector<Place> places_;
  QList<QAction*> actions_;

 protected:
  void focusInEvent(QFocusEvent* event) override;
};

}  // namespace zl::app
