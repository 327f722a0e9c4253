#pragma once
// A text field for the model language: line numbers, words that fit as one types, the place of a
// fault underlined.

#include <QCompleter>
#include <QPlainTextEdit>
#include <QStandardItemModel>
#include <QSyntaxHighlighter>
#include <functional>
#include <optional>

#include "core/model/syntax.h"
#include "services/views/own_rows.h"

namespace zl::app {

class ModelHighlighter : public QSyntaxHighlighter {
  Q_OBJECT

 public:
  explicit ModelHighlighter(QTextDocument* document);

 protected:
  void highlightBlock(const QString& line) override;
};

class ModelEditor : public QPlainTextEdit {
  Q_OBJECT

 public:
  explicit ModelEditor(QWidget* parent = nullptr);

  /// Gives the words that fit at a byte offset of the text; `typed` receives how many bytes stand there already.
  using Suggest =
      std::function<std::vector<services::Completion>(const std::string& text, size_t place, size_t* typed)>;
  void setSuggest(Suggest suggest) { suggest_ = std::move(suggest); }
  [[nodiscard]] std::string modelText() const { return toPlainText().toStdString(); }
  /// Underlines the word at a place (line and column from 1); none takes the mark away.
  void markFault(const std::optional<model::Position>& at);
  /// Puts the cursor there.
  void goToPlace(model::Position at);

  void paintNumbers(const QRect& area);
  [[nodiscard]] int numbersWidth() const;

 Q_SIGNALS:
  void acceptWanted();

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  void offerWords(bool asked);
  void takeWord(const QString& word);
  [[nodiscard]] QTextCursor cursorAt(model::Position at) const;

  Suggest suggest_;
  QCompleter* completer_;
  QStandardItemModel words_;
  QWidget* numbers_;
  int typed_ = 0;  ///< characters that the word taken takes the place of
};

}  // namespace zl::app
