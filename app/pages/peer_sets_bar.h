#pragma once
// Which peers count: sets by name, a new one of those that count, companies of the same book taken in or out.

#include <QComboBox>
#include <QLayout>
#include <QLineEdit>
#include <QWidget>

#include "app/bench/workbench.h"
#include "core/peers/multiples.h"

namespace zl::app {

class PeerSetsBar : public QWidget {
  Q_OBJECT

 public:
  PeerSetsBar(Workbench& bench, QWidget* parent);
  /// `shown` are the multiples in which a peer must count to be kept in a new set; `reason` goes with the next change.
  void refresh(std::vector<Multiple> shown);
  /// At the end of the row.
  void add(QWidget* control) { layout()->addWidget(control); }
  void setReason(const QString& reason) { reason_ = reason; }

 Q_SIGNALS:
  void reasonUsed();

 private:
  void keepSet();
  void chooseSet(int index);
  void offerOthers();
  void chooseFromBook(int index);

  Workbench& bench_;
  std::vector<Multiple> shown_;
  QString reason_;
  QLineEdit* setName_;
  QComboBox *set_, *ofBook_;
};

}  // namespace zl::app
