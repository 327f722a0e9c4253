#pragma once
// The pages of the route. Each is made when it is first wanted, so that a start waits for one page only; the others are
// made in the turns of the loop after the first picture, one a turn, so that going to them costs nothing later.

#include <QStackedWidget>
#include <map>

#include "app/pages/page.h"

namespace zl::app {

class FilingsPage;
class OutlookPage;
class VerdictPage;

class PageStack : public QStackedWidget {
  Q_OBJECT

 public:
  PageStack(Workbench& bench, std::function<QString(QWidget*)> saveChart, QWidget* parent);
  /// Whether the route has a page at this stop.
  [[nodiscard]] static bool has(Stop stop) { return stop != Stop::Stress; }
  [[nodiscard]] Page& at(Stop stop);
  [[nodiscard]] FilingsPage& filings();
  [[nodiscard]] OutlookPage& outlook();
  [[nodiscard]] VerdictPage& verdict();
  [[nodiscard]] Stop shown() const;
  void showPage(Stop stop) { setCurrentWidget(&at(stop)); }
  /// Every page is made.
  [[nodiscard]] bool isWhole() const;

 Q_SIGNALS:
  void summed(const QString& summary);
  void filesWanted();  ///< for Filings

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  Page* make(Stop stop);
  void makeRest();

  Workbench& bench_;
  std::function<QString(QWidget*)> saveChart_;
  std::map<Stop, Page*> made_;
  bool makingRest_ = false;
};

}  // namespace zl::app
