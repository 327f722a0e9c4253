#pragma once
// The companies of the open book, quietly at the head of the route: which one is open, and a list to
// go to another. A book with one company shows its name and nothing else.

#include <QFrame>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTreeWidget>
#include <QWidget>

#include "app/bench/workbench.h"

namespace zl::app {

/// The list that comes up: typing narrows it, Enter goes to a company, Escape leaves.
class CompanyList : public QFrame {
  Q_OBJECT

 public:
  explicit CompanyList(QWidget* parent = nullptr);
  void offer(const std::vector<services::CompanyEntry>& companies, const std::string& open);
  /// What the companies are worth, as soon as it is known.
  void tellValues(const std::vector<services::CompanyValue>& values);

 Q_SIGNALS:
  void chosen(const QString& company);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void narrow(const QString& words);
  void choose();

  QLineEdit* words_;
  QTreeWidget* list_;
};

class CompanySwitch : public QWidget {
  Q_OBJECT

 public:
  explicit CompanySwitch(Workbench& bench, QWidget* parent = nullptr);
  /// Brings the list up.
  void showList();

 private:
  void refresh();

  Workbench& bench_;
  QLabel* name_;
  QPushButton* more_;
  CompanyList* list_;
};

}  // namespace zl::app
