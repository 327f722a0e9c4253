#include "app/pages/empty_note.h"

#include "app/look/plain_text.h"

namespace zl::app {

EmptyNote::EmptyNote(Workbench& bench, const QString& words, QWidget* parent) : QWidget(parent), bench_(bench) {
  buttons_ = new QHBoxLayout(this);
  buttons_->setContentsMargins(8, 4, 8, 4);
  auto* label = new PlainLabel(words, this);
  label->setWordWrap(true);
  buttons_->addWidget(label, 1);
}

void EmptyNote::offer(const QString& words, Stop stop, const QString& view, const QString& table) {
  auto* button = new QPushButton(words, this);
  button->setObjectName(QStringLiteral("offer.") + (table.isEmpty() ? view : table));
  buttons_->addWidget(button);
  connect(button, &QPushButton::clicked, this,
          [this, stop, view, table] { Q_EMIT bench_.viewWanted(stop, view, table); });
}

}  // namespace zl::app
