#pragma once
// The application: an exception out of any event is told of and ends nothing, and a signal closes
// the window as a person would.

#include <QApplication>
#include <functional>

class QSocketNotifier;

namespace zl::app {

class Application : public QApplication {
  Q_OBJECT

 public:
  Application(int& argc, char** argv);

  bool notify(QObject* receiver, QEvent* event) override;
  /// Whom to tell what went wrong; said to stderr where nobody is named.
  void setFaultHandler(std::function<void(const QString&)> tell) { tell_ = std::move(tell); }
  /// SIGINT, SIGTERM and SIGHUP close all windows; a crash says on stderr that what was shown as done
  /// is stored.
  void watchSignals();

 private:
  void tell(const QString& fault);
  std::function<void(const QString&)> tell_;
  QSocketNotifier* signals_ = nullptr;
};

}  // namespace zl::app
