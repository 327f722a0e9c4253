#include "app/frame/start_panel.h"
#include "app/look/plain_text.h"

#include <QFileInfo>
#include <QHBoxLayout>
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
  box->setMaximumWidth(560);
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
  auto* begin = new QHBoxLayout;
  name_ = new QLineEdit(box);
  name_->setObjectName(QStringLiteral("startName"));
  name_->setAccessibleName(tr("Name of the company"));
  name_->setPlaceholderText(tr("Name of the company"));
  name_->setMinimumHeight(36);
  begin->addWidget(name_, 1);
  auto* paste = new QPushButton(tr("&Paste its statements"), box);
  paste->setObjectName(QStringLiteral("startPaste"));
  paste->setMinimumHeight(36);
  begin->addWidget(paste);
  layout->addLayout(begin);
  auto* how = new PlainLabel(tr("Cells of an income statement, a balance sheet, a cash flow statement, copied from a "
                                "workbook or a page. Nothing has to be saved first."),
                             box);
  how->setWordWrap(true);
  layout->addWidget(how);
  connect(paste, &QPushButton::clicked, this, &StartPanel::pasteWanted);
  connect(name_, &QLineEdit::returnPressed, this, &StartPanel::pasteWanted);
  way("startCompany", tr("Start a &company from files"),
      tr("Tagged reports and packages of them, workbooks, saved pages, tables."), &StartPanel::filesWanted);
  way("openBook", tr("Open a &book"), tr("Work saved earlier, on this machine or another."), &StartPanel::bookWanted);
  way("openDemo", tr("Open the &demo"),
      tr("An invented machine maker with twelve annual reports, twelve peers and three scenarios."),
      &StartPanel::demoWanted);
  recent_ = new QVBoxLayout;
  layout->addLayout(recent_);
  outer->addWidget(box, 0, Qt::AlignHCenter);
  outer->addStretch(3);
}

void StartPanel::setRecent(const std::vector<Recent>& books) {
  while (QLayoutItem* item = recent_->takeAt(0)) {
    delete item->widget();
    delete item;
  }
  for (const Recent& book : books) {
    QStringList words = {book.company.isEmpty() ? QFileInfo(book.path).fileName() : book.company};
    if (!book.value.isEmpty()) words << book.value;
    words << book.date;
    if (book.unnamed) {
      words << tr("not named yet");
    } else if (!book.company.isEmpty()) {
      words << QFileInfo(book.path).fileName();
    }
    auto* button = new QPushButton(menuText(words.join(QStringLiteral("  ·  "))), this);
    button->setObjectName(QStringLiteral("recentBook"));
    button->setFlat(true);
    button->setToolTip(tipText(book.path));
    connect(button, &QPushButton::clicked, this, [this, path = book.path] { Q_EMIT recentWanted(path); });
    recent_->addWidget(button);
  }
}

}  // namespace zl::app
