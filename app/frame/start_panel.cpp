#include "app/frame/start_panel.h"
#include "app/look/plain_text.h"

#include <QFileInfo>
#include <QLabel>
#include <QPushButton>

namespace zl::app {

StartPanel::StartPanel(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("startPanel"));
  setAutoFillBackground(true);
  setBackgroundRole(QPalette::Base);
  auto* outer = new QVBoxLayout(this);
  outer->addStretch(2);
  auto* box = new QWidget(this);
  box->setMaximumWidth(520);
  auto* layout = new QVBoxLayout(box);
  layout->setSpacing(10);
  auto* title = new PlainLabel(tr("From filed statements to a value per share"), box);
  QFont f = title->font();
  f.setPointSizeF(f.pointSizeF() + 7);
  f.setBold(true);
  title->setFont(f);
  layout->addWidget(title);
  const auto way = [&](const char* name, const QString& words, const QString& hint, auto signal) {
    auto* button = new QPushButton(words, box);
    button->setObjectName(QString::fromLatin1(name));
    button->setMinimumHeight(36);
    layout->addWidget(button);
    auto* label = new PlainLabel(hint, box);
    label->setWordWrap(true);
    layout->addWidget(label);
    connect(button, &QPushButton::clicked, this, signal);
  };
  way("openDemo", tr("Open the &demo"),
      tr("An invented machine maker with twelve annual reports, five peers and three scenarios."),
      &StartPanel::demoWanted);
  way("startCompany", tr("Start a &company from files"),
      tr("XBRL instances or CSV tables of its annual reports; they make a new book."), &StartPanel::filesWanted);
  way("openBook", tr("Open a &book"), tr("Work saved earlier, on this machine or another."), &StartPanel::bookWanted);
  recent_ = new QVBoxLayout;
  layout->addLayout(recent_);
  outer->addWidget(box, 0, Qt::AlignHCenter);
  outer->addStretch(3);
}

void StartPanel::setRecent(const QStringList& paths) {
  while (QLayoutItem* item = recent_->takeAt(0)) {
    delete item->widget();
    delete item;
  }
  for (const QString& path : paths) {
    auto* button = new QPushButton(menuText(QFileInfo(path).fileName()), this);
    button->setFlat(true);
    button->setToolTip(tipText(path));
    connect(button, &QPushButton::clicked, this, [this, path] { Q_EMIT recentWanted(path); });
    recent_->addWidget(button);
  }
}

}  // namespace zl::app
