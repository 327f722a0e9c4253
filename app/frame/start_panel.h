#pragma once
// With no book: the ways in, and nothing else. A company begins with its name and the cells of its statements.

#include <QLineEdit>
#include <QVBoxLayout>
#include <QWidget>
#include <vector>

namespace zl::app {

class StartPanel : public QWidget {
  Q_OBJECT

 public:
  explicit StartPanel(QWidget* parent = nullptr);
  /// A book opened before: what is in it, as far as that is known without opening it.
  struct Recent {
    QString path, company, value, date;
    bool unnamed = false;
  };
  void setRecent(const std::vector<Recent>& books);
  [[nodiscard]] QString companyName() const { return name_->text().trimmed(); }

 Q_SIGNALS:
  void pasteWanted();  ///< of the statements of the company named
  void demoWanted();
  void filesWanted();
  void bookWanted();
  void recentWanted(const QString& path);

 private:
  QLineEdit* name_;
  QVBoxLayout* recent_;
};

}  // namespace zl::app
