#pragma once
// The working order. Each stop shows its state by shape: untouched (ring), begun (half disc),
// settled (disc), needs a look (triangle with the count of open findings).

#include <QAbstractButton>
#include <QWidget>
#include <vector>

#include "app/bench/workbench.h"
#include "app/frame/company_switch.h"

namespace zl::app {

class StopButton : public QAbstractButton {
  Q_OBJECT

 public:
  enum class State { Untouched, Begun, Settled, NeedsLook };
  StopButton(int number, const QString& name, QWidget* parent = nullptr);
  void setState(State state, int findings);
  [[nodiscard]] QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  int number_;
  State state_ = State::Untouched;
  int findings_ = 0;
};

class RoutePanel : public QWidget {
  Q_OBJECT

 public:
  explicit RoutePanel(Workbench& bench, QWidget* parent = nullptr);
  void setCurrent(Stop stop);
  [[nodiscard]] CompanySwitch& companies() { return *companies_; }

 private:
  void refresh();
  [[nodiscard]] StopButton::State stateOf(Stop stop, int worst) const;

  Workbench& bench_;
  CompanySwitch* companies_;
  std::vector<std::pair<Stop, StopButton*>> buttons_;
};

/// The stops that have a page, in order.
const std::vector<Stop>& pageStops();

}  // namespace zl::app
