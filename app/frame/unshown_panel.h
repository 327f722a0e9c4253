#pragma once
// A book or company that was opened and cannot be shown: why, and what can be done about it.

#include <QLabel>
#include <QPushButton>
#include <QWidget>

namespace zl::app {

class UnshownPanel : public QWidget {
  Q_OBJECT

 public:
  explicit UnshownPanel(QWidget* parent = nullptr);
  /// `step` is the edit that could be taken back; empty where there is none. Of a damaged book what is
  /// whole can be saved, and `copy` names the newest copy beside it.
  struct Content {
    QString book, why, step, copy;
    bool damaged = false;
    bool amongOthers = false;  ///< the book has further companies
  };
  void setContent(const Content& content);

 Q_SIGNALS:
  void stepBackWanted();
  void filesWanted();
  void otherBookWanted();
  void anotherCompanyWanted();
  void rescueWanted();
  void copyWanted();

 private:
  QLabel *title_, *why_;
  struct Way {
    QPushButton* button;
    QLabel* hint;
    void show(bool wanted) const {
      button->setVisible(wanted);
      hint->setVisible(wanted);
    }
  };
  template <class Signal>
  Way addWay(const char* name, const QString& words, const QString& hint, Signal signal);
  QWidget* box_;
  Way copy_, rescue_, back_, files_, company_, other_;
};

}  // namespace zl::app
