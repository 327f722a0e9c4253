#pragma once
// With no book: three ways in, and nothing else.

#include <QVBoxLayout>
#include <QWidget>

namespace zl::app {

class StartPanel : public QWidget {
  Q_OBJECT

 public:
  explicit StartPanel(QWidget* parent = nullptr);
  void setRecent(const QStringList& paths);

 Q_SIGNALS:
  void demoWanted();
  void filesWanted();
  void bookWanted();
  void recentWanted(const QString& path);

 private:
  QVBoxLayout* recent_;
};

}  // namespace zl::app
