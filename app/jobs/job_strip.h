#pragma once
// What runs off the window's thread, in the frame's last line: title, how far it is, and a stop. Work that
// is over in a moment is never shown.

#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QTimer>
#include <QWidget>

#include "app/jobs/jobs.h"

namespace zl::app {

class JobStrip : public QWidget {
  Q_OBJECT

 public:
  explicit JobStrip(Jobs& jobs, QWidget* parent = nullptr);

 private:
  void refresh();
  void fill();

  Jobs& jobs_;
  QTimer after_;
  QString key_;  ///< of the job that is shown
  QLabel* words_;
  QProgressBar* bar_;
  QPushButton* stop_;
};

}  // namespace zl::app
