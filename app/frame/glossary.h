#pragma once
// Every row of the model with its definition, rule and unit, words of the pages, and keys; searchable.

#include <QDialog>

#include "core/model/syntax.h"

class QTextBrowser;

namespace zl::app {

class Glossary : public QDialog {
  Q_OBJECT

 public:
  /// Opens on what matches `wanted`; empty: on everything.
  Glossary(model::Model model, const QString& wanted, QWidget* parent = nullptr);

 private:
  void fill(const QString& filter);

  model::Model model_;  ///< as it was when opened
  QTextBrowser* text_;
};

/// Where the demo book lives for this user.
QString demoBookPath();

}  // namespace zl::app
