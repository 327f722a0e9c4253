#include "app/frame/unshown_panel.h"

#include <QFileInfo>
#include <QVBoxLayout>

#include "app/look/plain_text.h"
#include "app/look/theme.h"

namespace zl::app {
namespace {
constexpr int kWidth = 660, kMargin = 10;
}

UnshownPanel::UnshownPanel(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("unshownPanel"));
  setAutoFillBackground(true);
  setBackgroundRole(QPalette::Base);
  auto* outer = new QVBoxLayout(this);
  outer->addStretch(2);
  box_ = new QWidget(this);
  box_->setFixedWidth(kWidth);
  auto* layout = new QVBoxLayout(box_);
  layout->setContentsMargins(kMargin, 0, kMargin, 0);
  layout->setSpacing(6);
  title_ = new PlainLabel(box_);
  QFont f = title_->font();
  f.setPointSizeF(f.pointSizeF() + 5);
  f.setBold(true);
  title_->setFont(f);
  title_->setWordWrap(true);
  layout->addWidget(title_);
  why_ = new PlainLabel(box_);
  why_->setObjectName(QStringLiteral("whyUnshown"));
  why_->setWordWrap(true);
  why_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  layout->addWidget(why_);
  copy_ = addWay("openNewestCopy", {}, tr("It is looked at first, and can then be made the book again."),
                 &UnshownPanel::copyWanted);
  rescue_ =
      addWay("rescueBook", tr("&Save what is whole into a new book"),
             tr("The damaged one stays as it is; what could not be saved is named."), &UnshownPanel::rescueWanted);
  back_ = addWay("stepBackUnshown", {}, tr("Nothing is deleted: what is taken back can be done again."),
                 &UnshownPanel::stepBackWanted);
  files_ = addWay("filesForUnshown", tr("&Import what is missing"),
                  tr("Filings, tables or a company record, upon what the book holds."), &UnshownPanel::filesWanted);
  company_ = addWay("anotherCompany", tr("The &next company of this book"), tr("The others can be shown all the same."),
                    &UnshownPanel::anotherCompanyWanted);
  other_ =
      addWay("otherBook", tr("Open another &book"),
             tr("This one stays as it is. Its copies lie in the folder beside it."), &UnshownPanel::otherBookWanted);
  outer->addWidget(box_, 0, Qt::AlignHCenter);
  outer->addStretch(3);
}

template <class Signal>
UnshownPanel::Way UnshownPanel::addWay(const char* name, const QString& words, const QString& hint, Signal signal) {
  auto* button = new QPushButton(words, box_);
  button->setObjectName(QString::fromLatin1(name));
  button->setMinimumHeight(34);
  box_->layout()->addWidget(button);
  auto* label = new PlainLabel(hint, box_);
  label->setWordWrap(true);
  label->setContentsMargins(2, 0, 0, 10);
  QPalette quiet = label->palette();
  quiet.setColor(QPalette::WindowText, theme().quiet);
  label->setPalette(quiet);
  box_->layout()->addWidget(label);
  connect(button, &QPushButton::clicked, this, signal);
  return {button, label};
}

void UnshownPanel::setContent(const Content& c) {
  const QString name = QFileInfo(c.book).fileName();
  title_->setText(c.damaged ? tr("%1 is damaged").arg(name)
                            : tr("%1 is open, and its company cannot be shown").arg(name));
  why_->setText(QStringLiteral("■ ") + c.why);
  why_->setMinimumHeight(why_->heightForWidth(kWidth - 2 * kMargin));
  copy_.button->setText(tr("Open the newest &copy: %1").arg(menuText(c.copy)));
  copy_.show(c.damaged && !c.copy.isEmpty());
  rescue_.show(c.damaged);
  back_.button->setText(tr("&Take back: %1").arg(menuText(c.step)));
  back_.show(!c.step.isEmpty());
  files_.show(!c.damaged);
  company_.show(c.amongOthers);
}

}  // namespace zl::app
