#include "app/editor/model_editor.h"

#include <QAbstractItemView>
#include <QFontDatabase>
#include <QPainter>
#include <QRegularExpression>
#include <QScrollBar>
#include <QTextBlock>
#include <QTreeView>
#include <set>

#include "app/look/theme.h"
#include "core/model/language_words.h"

namespace zl::app {
namespace {

class LineNumbers : public QWidget {
 public:
  explicit LineNumbers(ModelEditor* editor) : QWidget(editor), editor_(editor) {}
  [[nodiscard]] QSize sizeHint() const override { return {editor_->numbersWidth(), 0}; }

 protected:
  void paintEvent(QPaintEvent* event) override { editor_->paintNumbers(event->rect()); }

 private:
  ModelEditor* editor_;
};

const std::set<QString>& keywords() {
  static const std::set<QString> words = [] {
    std::set<QString> list{QStringLiteral("along"), QStringLiteral("to"), QStringLiteral("else"),
                           QStringLiteral("last"),  QStringLiteral("or"), QStringLiteral("and")};
    const model::LanguageWords& w = model::languageWords();
    for (const auto* of : {&w.declarations, &w.attributes, &w.histories, &w.functions}) {
      for (const std::string& word : *of) list.insert(text(word));
    }
    return list;
  }();
  return words;
}

}  // namespace

ModelHighlighter::ModelHighlighter(QTextDocument* document) : QSyntaxHighlighter(document) {}

void ModelHighlighter::highlightBlock(const QString& line) {
  static const QRegularExpression pieces(QStringLiteral("#.*|\"[^\"]*\"?|[A-Za-z_][A-Za-z_0-9]*|[0-9.]+%?"));
  const Theme& t = theme();
  for (auto at = pieces.globalMatch(line); at.hasNext();) {
    const QRegularExpressionMatch piece = at.next();
    const QString word = piece.captured();
    QTextCharFormat format;
    if (word.startsWith(QLatin1Char('#'))) {
      format.setForeground(t.quiet);
      format.setFontItalic(true);
    } else if (word.startsWith(QLatin1Char('"'))) {
      format.setForeground(t.base);
    } else if (word.at(0).isDigit()) {
      format.setForeground(t.assumed);
    } else if (keywords().count(word) > 0) {
      format.setFontWeight(QFont::DemiBold);
    } else {
      continue;
    }
    setFormat(static_cast<int>(piece.capturedStart()), static_cast<int>(piece.capturedLength()), format);
  }
}

ModelEditor::ModelEditor(QWidget* parent) : QPlainTextEdit(parent), numbers_(new LineNumbers(this)) {
  setFont(QFontDatabase::systemFont(QFontDatabase::FixedFont));
  setLineWrapMode(QPlainTextEdit::NoWrap);
  setTabChangesFocus(true);
  setFrameShape(QFrame::NoFrame);
  new ModelHighlighter(document());
  completer_ = new QCompleter(&words_, this);
  completer_->setWidget(this);
  completer_->setCompletionMode(QCompleter::UnfilteredPopupCompletion);
  auto* list = new QTreeView;
  list->setObjectName(QStringLiteral("wordsThatFit"));
  list->setRootIsDecorated(false);
  list->setHeaderHidden(true);
  list->setMinimumWidth(420);
  completer_->setPopup(list);
  completer_->setMaxVisibleItems(9);
  connect(completer_, qOverload<const QString&>(&QCompleter::activated), this, &ModelEditor::takeWord);
  connect(this, &QPlainTextEdit::blockCountChanged, this, [this] { setViewportMargins(numbersWidth(), 0, 0, 0); });
  connect(this, &QPlainTextEdit::updateRequest, this, [this](const QRect& area, int dy) {
    if (dy != 0) {
      numbers_->scroll(0, dy);
    } else {
      numbers_->update(0, area.y(), numbers_->width(), area.height());
    }
  });
  setViewportMargins(numbersWidth(), 0, 0, 0);
}

int ModelEditor::numbersWidth() const {
  const int digits = static_cast<int>(QString::number(std::max(1, blockCount())).size());
  return 14 + fontMetrics().horizontalAdvance(QLatin1Char('0')) * std::max(2, digits);
}

void ModelEditor::resizeEvent(QResizeEvent* event) {
  QPlainTextEdit::resizeEvent(event);
  const QRect inside = contentsRect();
  numbers_->setGeometry(inside.left(), inside.top(), numbersWidth(), inside.height());
}

void ModelEditor::paintNumbers(const QRect& area) {
  QPainter painter(numbers_);
  const Theme& t = theme();
  painter.fillRect(area, t.panel);
  painter.setPen(t.quiet);
  painter.setFont(font());
  QTextBlock block = firstVisibleBlock();
  double top = blockBoundingGeometry(block).translated(contentOffset()).top();
  while (block.isValid() && top <= area.bottom()) {
    const double height = blockBoundingRect(block).height();
    painter.drawText(QRectF(0, top, numbers_->width() - 6, height), Qt::AlignRight | Qt::AlignVCenter,
                     QString::number(block.blockNumber() + 1));
    top += height;
    block = block.next();
  }
}

QTextCursor ModelEditor::cursorAt(model::Position at) const {
  const QTextBlock block = document()->findBlockByNumber(std::clamp(at.line - 1, 0, blockCount() - 1));
  // Columns count bytes; the line may hold letters of several.
  const QByteArray bytes = block.text().toUtf8().left(std::max(0, at.column - 1));
  QTextCursor cursor(block);
  cursor.setPosition(block.position() +
                     std::min(static_cast<int>(QString::fromUtf8(bytes).size()), std::max(0, block.length() - 1)));
  return cursor;
}

void ModelEditor::markFault(const std::optional<model::Position>& at) {
  QList<QTextEdit::ExtraSelection> marks;
  if (at) {
    QTextEdit::ExtraSelection mark;
    mark.cursor = cursorAt(*at);
    mark.cursor.movePosition(QTextCursor::EndOfWord, QTextCursor::KeepAnchor);
    if (!mark.cursor.hasSelection() && !mark.cursor.atBlockEnd()) {
      mark.cursor.movePosition(QTextCursor::NextCharacter, QTextCursor::KeepAnchor);
    }
    if (!mark.cursor.hasSelection()) mark.cursor.movePosition(QTextCursor::StartOfBlock, QTextCursor::KeepAnchor);
    mark.format.setUnderlineStyle(QTextCharFormat::WaveUnderline);
    mark.format.setUnderlineColor(theme().fault);
    marks << mark;
  }
  setExtraSelections(marks);
}

void ModelEditor::goToPlace(model::Position at) {
  setTextCursor(cursorAt(at));
  setFocus();
}

void ModelEditor::keyPressEvent(QKeyEvent* event) {
  const bool enter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
  if (enter && event->modifiers().testFlag(Qt::ControlModifier)) {
    completer_->popup()->hide();
    Q_EMIT acceptWanted();
    return;
  }
  if (completer_->popup()->isVisible() && (enter || event->key() == Qt::Key_Tab)) {
    event->ignore();  // the list takes it
    return;
  }
  const bool asked = event->key() == Qt::Key_Space && event->modifiers().testFlag(Qt::ControlModifier);
  if (!asked) QPlainTextEdit::keyPressEvent(event);
  const bool letter =
      !event->text().isEmpty() && (event->text().at(0).isLetterOrNumber() || event->text().at(0) == QLatin1Char('_'));
  if (asked || letter || event->key() == Qt::Key_Backspace) {
    offerWords(asked);
  } else {
    completer_->popup()->hide();
  }
}

void ModelEditor::offerWords(bool asked) {
  if (!suggest_) return;
  const QString before = toPlainText().left(textCursor().position());
  size_t typed = 0;
  const std::vector<services::Completion> fit =
      suggest_(modelText(), static_cast<size_t>(before.toUtf8().size()), &typed);
  typed_ = static_cast<int>(typed);  // words are plain letters: a byte each
  constexpr int kLeast = 2;          // letters before words are offered unasked
  if (fit.empty() || (!asked && typed_ < kLeast)) {
    completer_->popup()->hide();
    return;
  }
  words_.clear();
  for (const services::Completion& c : fit) {
    words_.appendRow({new QStandardItem(text(c.word)), new QStandardItem(text(c.meaning))});
  }
  auto* list = static_cast<QTreeView*>(completer_->popup());
  QRect at = cursorRect();
  at.translate(numbersWidth(), 0);
  at.setWidth(list->minimumWidth());
  completer_->complete(at);
  list->resizeColumnToContents(0);
  list->setCurrentIndex(completer_->completionModel()->index(0, 0));
}

void ModelEditor::takeWord(const QString& word) {
  QTextCursor cursor = textCursor();
  cursor.movePosition(QTextCursor::Left, QTextCursor::KeepAnchor, typed_);
  cursor.insertText(word);
  setTextCursor(cursor);
}

}  // namespace zl::app
