#pragma once
// A stop of the route: shows a snapshot, asks the workbench for edits.

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <QWidget>
#include <functional>

#include "app/bench/workbench.h"
#include "app/charts/telling_chart.h"
#include "app/grid/ledger_view.h"

namespace zl::app {

class Page : public QWidget {
  Q_OBJECT

 public:
  Page(Workbench& bench, Stop stop, QWidget* parent = nullptr);
  [[nodiscard]] Stop stop() const { return stop_; }

 Q_SIGNALS:
  void summed(const QString& summary);

 protected:
  /// Shows what the workbench holds; called when the page is in view and something changed.
  virtual void refresh() = 0;
  void showEvent(QShowEvent* event) override;

  /// A layout inside an area that scrolls when the window is too low for the page, or for a view of it.
  QVBoxLayout* scrolledLayout() { return scrolledLayout(this); }
  QVBoxLayout* scrolledLayout(QWidget* view);
  /// What a chart's figures stand on is shown in the trace.
  void connectChart(TellingChart* chart);
  /// A grid whose focused cell is traced and whose selection is summed.
  LedgerView* addGrid(const char* name, const QString& accessibleName);
  /// Calls `place` with the middles of the years of `years`, in the chart's own place, and where its figures begin, now
  /// and whenever its columns or its scroll move.
  void keepAbove(QWidget* chart, LedgerView* years, const std::function<void(std::vector<double>, double)>& place);
  /// Reads what was typed into a driver's or input's cell; says what is wrong and gives nothing.
  std::optional<double> typedOrSay(const QString& text, const LedgerRow& row);
  /// Types a driver's year or an input of a scenario and stores it.
  void typeDriver(const QString& row, int scenario, const std::map<int, double>& years);
  void typeInput(const QString& row, int scenario, double figure);
  /// What is typed into a grid by scenario is an input of that scenario.
  void takeInputs(LedgerView* grid);
  [[nodiscard]] const services::Snapshot& now() const { return bench_.now(); }

  Workbench& bench_;

 private:
  Stop stop_;
};

/// The option that was typed for a row with choices, by its label or the beginning of it; none where no one is meant.
std::optional<double> typedOption(const QString& typed, const LedgerRow& row);
QString noSuchOption(const QString& typed, const LedgerRow& row);

/// A heading over a block of a page.
QLabel* sectionLabel(const QString& text, QWidget* parent);

}  // namespace zl::app
