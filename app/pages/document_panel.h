#pragma once
// Filed facts and the document each stands in, with its place marked.

#include <QLabel>
#include <QListWidget>
#include <QPlainTextEdit>

#include "app/bench/workbench.h"

namespace zl::app {

class DocumentPanel : public QWidget {
  Q_OBJECT

 public:
  explicit DocumentPanel(Workbench& bench, QWidget* parent = nullptr);
  /// Shows facts (indices into the evidence) under a title; the first one's document opens.
  void show(const QString& title, const std::vector<size_t>& facts);

 Q_SIGNALS:
  void closed();

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void showFact(int index);

  Workbench& bench_;
  QLabel *title_, *about_;
  QListWidget* facts_;
  QPlainTextEdit* text_;
  std::vector<size_t> shown_;
};

}  // namespace zl::app
