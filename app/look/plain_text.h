#pragma once
// Text that comes from a filing, a record or a person is shown as it stands, never as markup. Every
// label and every tooltip of the window is made with these two; the architecture check sees to it.

#include <QLabel>
#include <QString>

namespace zl::app {

/// A label that shows its text as it stands.
class PlainLabel : public QLabel {
  Q_OBJECT

 public:
  explicit PlainLabel(QWidget* parent = nullptr) : PlainLabel(QString(), parent) {}
  explicit PlainLabel(const QString& words, QWidget* parent = nullptr) : QLabel(words, parent) {
    setTextFormat(Qt::PlainText);
  }
};

/// A text for a tooltip, which Qt reads as markup wherever it looks like some.
inline QString tipText(const QString& words) {
  if (!Qt::mightBeRichText(words)) return words;
  QString escaped = words.toHtmlEscaped();
  escaped.replace(QLatin1Char('\n'), QLatin1String("<br/>"));
  return QLatin1String("<qt>") + escaped + QLatin1String("</qt>");
}

/// A text for a menu or a button, where "&" marks a letter.
inline QString menuText(QString words) {
  return words.replace(QLatin1Char('&'), QLatin1String("&&"));
}

/// A text for a window's title, where "[*]" stands for "changed".
inline QString titleText(QString words) {
  return words.replace(QLatin1String("[*]"), QLatin1String("[*][*]"));
}

}  // namespace zl::app
