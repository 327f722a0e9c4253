#pragma once
// Fields whose text is kept while it is being typed, so that neither a kill nor another page or book
// loses it.

#include <QLineEdit>
#include <QPointer>
#include <functional>

#include "app/bench/workbench.h"

namespace zl::app {

/// What is typed into `field` is kept as a draft under `key` and comes back when its book is opened;
/// emptying the field, by hand or once it was used, takes the draft away.
inline void keepAsDraft(Workbench& bench, QLineEdit* field, const QString& key) {
  QObject::connect(field, &QLineEdit::textChanged, &bench, [&bench, key](const QString& words) {
    if (bench.isOpen() && !bench.isRestoring()) bench.keepDraft(key, words);
  });
  QObject::connect(&bench, &Workbench::restoring, field, [&bench, field, key] { field->setText(bench.draft(key)); });
}

/// The same for a field that shows what is stored of something chosen (a driver, a row, a cell): the
/// key names it, and what is shown is the draft where there is one. Only what a person types is kept.
inline void keepAsDraftOf(Workbench& bench, QLineEdit* field, std::function<QString()> key) {
  QObject::connect(field, &QLineEdit::textEdited, &bench, [&bench, key = std::move(key)](const QString& words) {
    if (bench.isOpen()) bench.keepDraft(key(), words);
  });
}

/// Shows a stored text or the draft upon it; true where it is a draft, which still has to be used.
inline bool showDraftOr(const Workbench& bench, QLineEdit* field, const QString& key, const QString& stored) {
  const QString draft = bench.draft(key);
  field->setText(draft.isEmpty() ? stored : draft);
  field->setModified(!draft.isEmpty());
  return !draft.isEmpty();
}

}  // namespace zl::app
