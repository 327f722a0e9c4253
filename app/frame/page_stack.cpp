#include "app/frame/page_stack.h"

#include <QTimer>

#include "app/pages/capital_page.h"
#include "app/pages/cash_value_page.h"
#include "app/pages/company_page.h"
#include "app/pages/filings_page.h"
#include "app/pages/history_page.h"
#include "app/pages/outlook_page.h"
#include "app/pages/peers_page.h"
#include "app/pages/verdict_page.h"

namespace zl::app {
namespace {

constexpr Stop kRoute[] = {Stop::Verdict, Stop::Company, Stop::Filings,   Stop::History,
                           Stop::Outlook, Stop::Capital, Stop::CashValue, Stop::Peers};

}  // namespace

PageStack::PageStack(Workbench& bench, std::function<QString(QWidget*)> saveChart, QWidget* parent)
    : QStackedWidget(parent), bench_(bench), saveChart_(std::move(saveChart)) {
  setObjectName(QStringLiteral("pages"));
  showPage(Stop::Verdict);  // a book opens with it
}

Page& PageStack::at(Stop stop) {
  const auto found = made_.find(stop);
  if (found != made_.end()) return *found->second;
  Page* page = make(stop);
  made_[stop] = page;
  addWidget(page);
  connect(page, &Page::summed, this, &PageStack::summed);
  return *page;
}

Page* PageStack::make(Stop stop) {
  switch (stop) {
    case Stop::Company:
      return new CompanyPage(bench_);
    case Stop::Outlook:
      return new OutlookPage(bench_);
    case Stop::Capital:
      return new CapitalPage(bench_);
    case Stop::CashValue:
      return new CashValuePage(bench_);
    case Stop::Peers:
      return new PeersPage(bench_);
    case Stop::Verdict:
      return new VerdictPage(bench_);
    case Stop::Filings: {
      auto* filings = new FilingsPage(bench_);
      connect(filings, &FilingsPage::filesWanted, this, &PageStack::filesWanted);
      return filings;
    }
    case Stop::History: {
      auto* history = new HistoryPage(bench_);
      history->setSaveDialog(saveChart_);
      return history;
    }
    case Stop::Stress:
      break;
  }
  qFatal("a stop without a page was wanted");
}

FilingsPage& PageStack::filings() {
  return static_cast<FilingsPage&>(at(Stop::Filings));
}

OutlookPage& PageStack::outlook() {
  return static_cast<OutlookPage&>(at(Stop::Outlook));
}

VerdictPage& PageStack::verdict() {
  return static_cast<VerdictPage&>(at(Stop::Verdict));
}

Stop PageStack::shown() const {
  return static_cast<const Page*>(currentWidget())->stop();
}

bool PageStack::isWhole() const {
  return made_.size() == std::size(kRoute);
}

void PageStack::showEvent(QShowEvent* event) {
  QStackedWidget::showEvent(event);
  if (makingRest_) return;
  makingRest_ = true;
  QTimer::singleShot(0, this, &PageStack::makeRest);  // after what is painted now
}

void PageStack::makeRest() {
  for (const Stop stop : kRoute) {
    if (made_.count(stop) > 0) continue;
    Page* page = &at(stop);
    QTimer::singleShot(0, page, [this] { makeRest(); });
    return;
  }
}

}  // namespace zl::app
