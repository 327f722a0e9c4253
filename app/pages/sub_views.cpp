#include "app/pages/sub_views.h"

#include <QAbstractItemView>
#include <QPushButton>
#include <QShortcut>
#include <QVBoxLayout>
#include <algorithm>

#include "app/look/plain_text.h"

namespace zl::app {
namespace {

/// A word of the row: room around it while there is some, else as narrow as itself, bold.
class Word : public QPushButton {
 public:
  Word(const QString& words, QWidget* parent) : QPushButton(words, parent) {
    setFlat(true);
    setCheckable(true);
    setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    setToolTip(tipText(SubViews::tr("Ctrl+Tab")));
  }
  [[nodiscard]] QSize minimumSizeHint() const override {
    constexpr int kRoom = 10;
    QFont bold = font();
    bold.setBold(true);
    const QSize whole = sizeHint();
    return {std::min(whole.width(), QFontMetrics(bold).size(Qt::TextShowMnemonic, text()).width() + kRoom),
            whole.height()};
  }
};

}  // namespace

SubViews::SubViews(QWidget* parent) : QWidget(parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  words_ = new QHBoxLayout;
  words_->setContentsMargins(8, 0, 8, 0);
  words_->setSpacing(4);
  words_->addStretch();
  layout->addLayout(words_);
  views_ = new QStackedWidget(this);
  layout->addWidget(views_, 1);
  buttons_ = new QButtonGroup(this);
  buttons_->setExclusive(true);
  connect(buttons_, &QButtonGroup::idToggled, this, [this](int id, bool on) {
    QAbstractButton* button = buttons_->button(id);
    QFont f = button->font();
    f.setBold(on);
    button->setFont(f);
    if (!on) return;
    views_->setCurrentIndex(id);
    Q_EMIT turned();
  });
  auto* next = new QShortcut(QKeySequence(Qt::CTRL | Qt::Key_Tab), this);
  auto* before = new QShortcut(QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Tab), this);
  for (QShortcut* key : {next, before}) key->setContext(Qt::WindowShortcut);
  connect(next, &QShortcut::activated, this, [this] { step(1); });
  connect(before, &QShortcut::activated, this, [this] { step(-1); });
}

void SubViews::add(const char* name, const QString& words, QWidget* view) {
  auto* button = new Word(words, this);
  button->setObjectName(QStringLiteral("sub.") + QString::fromLatin1(name));
  const int id = views_->addWidget(view);
  buttons_->addButton(button, id);
  words_->insertWidget(words_->count() - 1, button);
  if (id == 0) button->setChecked(true);
}

void SubViews::addControl(QWidget* control) {
  words_->addWidget(control);
}

QString SubViews::shown() const {
  return buttons_->checkedButton()->objectName().mid(4);
}

void SubViews::show(const QString& name) {
  for (QAbstractButton* button : buttons_->buttons()) {
    if (button->objectName() == QStringLiteral("sub.") + name) button->setChecked(true);
  }
}

void SubViews::setWords(const char* name, const QString& words) {
  findChild<QPushButton*>(QStringLiteral("sub.") + QString::fromLatin1(name))->setText(words);
}

void SubViews::showAt(int view) {
  buttons_->button(std::clamp(view, 0, views_->count() - 1))->setChecked(true);
}

void SubViews::step(int by) {
  const int count = views_->count();
  buttons_->button((views_->currentIndex() + by + count) % count)->setChecked(true);
  if (QWidget* inside = views_->currentWidget()->findChild<QAbstractItemView*>()) inside->setFocus();
}

}  // namespace zl::app
