#pragma once
// The views of one page: a quiet row of words, one of them shown. Ctrl+Tab and Ctrl+Shift+Tab go round; the page's own
// grid keeps the place.

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QStackedWidget>
#include <QWidget>

namespace zl::app {

class SubViews : public QWidget {
  Q_OBJECT

 public:
  explicit SubViews(QWidget* parent = nullptr);
  /// The first one added is what the page opens with.
  void add(const char* name, const QString& words, QWidget* view);
  [[nodiscard]] QString shown() const;
  /// What a view is called from now on, as where it says how many.
  void setWords(const char* name, const QString& words);
  /// The view of a name; nothing where there is none.
  void show(const QString& name);
  /// The n-th from 0; the last where there are fewer.
  void showAt(int view);
  /// A control that holds for every view, at the end of the row of words.
  void addControl(QWidget* control);

 Q_SIGNALS:
  void turned();  ///< to another view

 private:
  void step(int by);

  QHBoxLayout* words_;
  QStackedWidget* views_;
  QButtonGroup* buttons_;
};

}  // namespace zl::app
