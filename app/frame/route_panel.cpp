#include "app/frame/route_panel.h"

#include <QPainter>
#include <QShortcut>
#include <QVBoxLayout>

#include "app/look/plain_text.h"
#include "app/look/theme.h"

namespace zl::app {

const std::vector<Stop>& pageStops() {
  static const std::vector<Stop> kStops{Stop::Company, Stop::Filings,   Stop::History, Stop::Outlook,
                                        Stop::Capital, Stop::CashValue, Stop::Peers,   Stop::Verdict};
  return kStops;
}

StopButton::StopButton(int number, const QString& name, QWidget* parent) : QAbstractButton(parent), number_(number) {
  setText(name);
  setCheckable(true);
  setAutoExclusive(true);
  setFocusPolicy(Qt::StrongFocus);
}

QSize StopButton::sizeHint() const {
  return {150, fontMetrics().height() + 14};
}

void StopButton::setState(State state, int findings) {
  if (state == state_ && findings == findings_ && !toolTip().isEmpty()) return;
  state_ = state;
  findings_ = findings;
  const QString said = state == State::Untouched ? tr("untouched")
                       : state == State::Begun   ? tr("begun")
                       : state == State::Settled
                           ? tr("settled")
                           : tr("needs a look, %1").arg(counted(findings, tr("finding"), tr("findings")));
  setAccessibleDescription(said);
  setToolTip(tipText(tr("%1: %2 (Alt+%3)").arg(text(), said).arg(number_)));
  update();
}

void StopButton::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const Theme& t = theme();
  if (isChecked()) {
    painter.fillRect(rect(), t.paper);
    painter.fillRect(QRect(0, 0, 3, height()), t.accent);
  }
  QFont f = font();
  f.setBold(isChecked());
  painter.setFont(f);
  painter.setPen(t.quiet);
  painter.drawText(QRect(12, 0, 20, height()), Qt::AlignVCenter | Qt::AlignLeft, QString::number(number_));
  painter.setPen(t.ink);
  painter.drawText(QRect(32, 0, width() - 70, height()), Qt::AlignVCenter | Qt::AlignLeft, text());
  const QPointF c(width() - 18, height() / 2.0);
  const double r = 4.5;
  switch (state_) {
    case State::Untouched:
      painter.setPen(QPen(t.wideRule, 1.4));
      painter.drawEllipse(c, r, r);
      break;
    case State::Begun:
      painter.setPen(QPen(t.quiet, 1.4));
      painter.drawEllipse(c, r, r);
      painter.setBrush(t.quiet);
      painter.drawPie(QRectF(c.x() - r, c.y() - r, 2 * r, 2 * r), 90 * 16, 180 * 16);
      break;
    case State::Settled:
      painter.setPen(Qt::NoPen);
      painter.setBrush(t.quiet);
      painter.drawEllipse(c, r, r);
      break;
    case State::NeedsLook:
      painter.setPen(Qt::NoPen);
      painter.setBrush(t.assumed);
      painter.drawPolygon(QPolygonF(
          {QPointF(c.x() - 5.5, c.y() + 4.5), QPointF(c.x() + 5.5, c.y() + 4.5), QPointF(c.x(), c.y() - 5.5)}));
      painter.setPen(t.assumed);
      painter.drawText(QRectF(c.x() - 36, 0, 26, height()), Qt::AlignVCenter | Qt::AlignRight,
                       QString::number(findings_));
      break;
  }
  if (hasFocus()) {
    painter.setPen(QPen(t.accent, 1, Qt::DotLine));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(rect().adjusted(4, 2, -3, -3));
  }
}

RoutePanel::RoutePanel(Workbench& bench, QWidget* parent) : QWidget(parent), bench_(bench) {
  setObjectName(QStringLiteral("route"));
  setAccessibleName(tr("Route"));
  setFixedWidth(156);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 10, 0, 8);
  layout->setSpacing(1);
  companies_ = new CompanySwitch(bench_, this);
  layout->addWidget(companies_);
  for (Stop stop : pageStops()) {
    auto* button = new StopButton(static_cast<int>(stop) + 1, QString::fromLatin1(stopWord(stop)), this);
    button->setObjectName(QStringLiteral("stop%1").arg(static_cast<int>(stop) + 1));
    connect(button, &QAbstractButton::clicked, this, [this, stop] { bench_.goTo(stop); });
    // A button's own shortcut waits for its press to be drawn; going to a page should not.
    auto* key = new QShortcut(QKeySequence(Qt::ALT | static_cast<Qt::Key>(Qt::Key_1 + static_cast<int>(stop))), this);
    connect(key, &QShortcut::activated, this, [this, stop] { bench_.goTo(stop); });
    layout->addWidget(button);
    buttons_.emplace_back(stop, button);
  }
  layout->addStretch();
  connect(&bench_, &Workbench::judged, this, &RoutePanel::refresh);
}

void RoutePanel::setCurrent(Stop stop) {
  for (auto& [s, button] : buttons_) button->setChecked(s == stop);
}

StopButton::State RoutePanel::stateOf(Stop stop, int worst) const {
  using State = StopButton::State;
  if (worst > 0) return State::NeedsLook;
  const Case& c = bench_.now().caseOf();
  switch (stop) {
    case Stop::Outlook:
    case Stop::Capital:
    case Stop::CashValue: {
      bool reasoned = true;
      for (const auto& [row, a] : c.base().drivers) reasoned = reasoned && !a.said.reason.empty();
      return c.base().drivers.empty() ? State::Untouched : (reasoned ? State::Settled : State::Begun);
    }
    case Stop::Peers:
      return bench_.now().market->peers.empty() ? State::Untouched : (c.peers.empty() ? State::Begun : State::Settled);
    case Stop::Verdict:
      return c.base().drivers.empty() ? State::Untouched : State::Begun;
    default:
      return State::Settled;
  }
}

void RoutePanel::refresh() {
  // What monitors find is counted when the hand has let go.
  if (!bench_.isOpen() || bench_.isPreviewing()) return;
  for (auto& [stop, button] : buttons_) {
    int open = 0;
    for (const Finding& f : bench_.now().findings()) {
      if (f.stop == stop && f.isOpen()) ++open;
    }
    button->setState(stateOf(stop, open), open);
  }
}

}  // namespace zl::app
