#include "app/frame/hint_strip.h"

#include <QHBoxLayout>
#include <QPushButton>
#include <QSettings>

#include "app/look/plain_text.h"

namespace zl::app {
namespace {

QString hintOf(Stop stop) {
  switch (stop) {
    case Stop::Company:
      return QObject::tr(
          "Who it is and what the market makes of it. Ctrl+Tab goes to its record and tables, where "
          "everything can be typed.");
    case Stop::Filings:
      return QObject::tr("What was filed and what became of it. Drop a report here, or paste a table with Ctrl+V.");
    case Stop::History:
      return QObject::tr("Twelve years as filed. Flag a year as exceptional, or type beside a figure that misleads.");
    case Stop::Outlook:
      return QObject::tr("Drag a path on the board, or type over a year in the table below: every value follows.");
    case Stop::Capital:
      return QObject::tr("The rate from its parts. Type over one, and see the value move on the rail below.");
    case Stop::CashValue:
      return QObject::tr("From flows to a value per share. F6 says what a figure stands on.");
    case Stop::Peers:
      return QObject::tr("What others cost. Space takes a peer out of a multiple, and the implied value follows.");
    case Stop::Verdict:
      return QObject::tr("Price against every method. Ctrl+F finds any line, driver or action by its name.");
    default:
      return {};
  }
}

}  // namespace

HintStrip::HintStrip(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("hintStrip"));
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(12, 0, 12, 0);
  words_ = new PlainLabel(this);
  words_->setObjectName(QStringLiteral("hint"));
  words_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  layout->addWidget(words_, 1);
  auto* away = new QPushButton(tr("No more hints"), this);
  away->setObjectName(QStringLiteral("noHints"));
  away->setFlat(true);
  layout->addWidget(away);
  connect(away, &QPushButton::clicked, this, [this] {
    QSettings().setValue(QStringLiteral("noHints"), true);
    hide();
  });
  hide();
}

void HintStrip::show(Stop stop, bool ofDemo) {
  const QString words = hintOf(stop);
  words_->setText(words);
  setToolTip(tipText(words));
  setVisible(ofDemo && !words.isEmpty() && !QSettings().value(QStringLiteral("noHints")).toBool());
}

}  // namespace zl::app
