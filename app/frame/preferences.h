#pragma once
// What a user prefers, kept on this machine: who edits, how figures and paper look, where files are. A window of its
// own that changes things as they are chosen.

#include <QComboBox>
#include <QDialog>
#include <QLineEdit>
#include <QString>

#include "app/look/theme.h"
#include "core/quantity/number_text.h"

class QFormLayout;

namespace zl::app {

struct Preferences {
  QString author;  ///< empty: the name of the account
  NumberStyle numbers;
  ThemeChoice paper = ThemeChoice::System;
  int textPercent = 100;  ///< of the usual size of letters
  int amountPower = 0;    ///< 3, 6, 9; 0: as it fits the company
  QString books, files;   ///< folders that dialogs begin in; empty: where the system says

  static Preferences kept();
  void keep() const;
};

class PreferencesWindow : public QDialog {
  Q_OBJECT

 public:
  explicit PreferencesWindow(const QString& account, QWidget* parent = nullptr);

 Q_SIGNALS:
  void changed();  ///< and kept

 private:
  void take();
  QComboBox* addChoice(QFormLayout& form, const char* name, const QString& label,
                       const std::vector<std::pair<QString, int>>& choices, int chosen);
  QLineEdit* addFolder(QFormLayout& form, const char* name, const QString& label, const QString& folder);

  QLineEdit *author_, *books_, *files_;
  QComboBox *marks_, *negatives_, *paper_, *text_, *amounts_;
};

}  // namespace zl::app
