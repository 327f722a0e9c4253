#include "app/pages/document_panel.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPushButton>
#include <QTextBlock>
#include <QVBoxLayout>

#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "app/pages/page.h"
#include "services/views/document_view.h"

namespace zl::app {

DocumentPanel::DocumentPanel(Workbench& bench, QWidget* parent) : QWidget(parent), bench_(bench) {
  setObjectName(QStringLiteral("documentPanel"));
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(0, 0, 8, 0);
  title_ = sectionLabel({}, this);
  bar->addWidget(title_, 1);
  auto* back = new QPushButton(tr("&Back"), this);
  back->setObjectName(QStringLiteral("documentBack"));
  bar->addWidget(back);
  layout->addLayout(bar);
  facts_ = new QListWidget(this);
  facts_->setObjectName(QStringLiteral("documentFacts"));
  facts_->setAccessibleName(tr("Facts behind it"));
  facts_->setFrameShape(QFrame::NoFrame);
  facts_->setMaximumHeight(110);
  layout->addWidget(facts_);
  about_ = new PlainLabel(this);
  about_->setObjectName(QStringLiteral("documentAbout"));
  about_->setContentsMargins(8, 2, 8, 2);
  layout->addWidget(about_);
  text_ = new QPlainTextEdit(this);
  text_->setObjectName(QStringLiteral("documentText"));
  text_->setAccessibleName(tr("Document"));
  text_->setReadOnly(true);
  text_->setFrameShape(QFrame::NoFrame);
  text_->setLineWrapMode(QPlainTextEdit::NoWrap);
  layout->addWidget(text_, 1);
  connect(back, &QPushButton::clicked, this, &DocumentPanel::closed);
  connect(facts_, &QListWidget::currentRowChanged, this, &DocumentPanel::showFact);
}

void DocumentPanel::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape || event->key() == Qt::Key_Backspace) {
    Q_EMIT closed();
    return;
  }
  QWidget::keyPressEvent(event);
}

void DocumentPanel::show(const QString& title, const std::vector<size_t>& facts) {
  const services::Snapshot& s = bench_.now();
  title_->setText(title);
  {
    const QSignalBlocker quiet(facts_);
    shown_ = facts;
    facts_->clear();
    for (const size_t index : facts) {
      const Fact& f = s.evidence->facts[index];
      const store::StoredDocument* d = s.document(f.document);
      const FiledInMinor written = s.evidence->asWritten(index);
      QString line = text(f.concept_name) + QStringLiteral("   ") + text(written.text) + QLatin1Char(' ') +
                     text(written.unit) + QStringLiteral("   ") + text(f.period.text());
      for (const Segment& segment : f.segments) line += QStringLiteral("   ") + text(plainMember(segment.member));
      if (d != nullptr) line += QStringLiteral("   ") + text(d->document.name);
      facts_->addItem(line);
    }
  }
  facts_->setCurrentRow(0);
  if (facts.empty()) {
    text_->clear();
    about_->setText(tr("No filed fact stands behind it"));
  }
  facts_->setFocus();
}

void DocumentPanel::showFact(int index) {
  if (index < 0 || index >= static_cast<int>(shown_.size())) return;
  const services::Snapshot& s = bench_.now();
  const Fact& f = s.evidence->facts[shown_[static_cast<size_t>(index)]];
  const store::StoredDocument* d = s.document(f.document);
  const Result<services::DocumentView> view = bench_.viewDocument(f);
  if (!view || d == nullptr) {
    text_->clear();
    about_->setText(view ? tr("The document is not in the book") : text(view.error().text()));
    return;
  }
  QStringList lines;
  for (const std::string& line : view->lines) lines << text(line);
  text_->setPlainText(lines.join(QLatin1Char('\n')));
  const std::string line = services::lineOf(*s.filed, *s.resources, f.concept_name);
  const model::RowId row = s.evaluation->model().find(line);
  about_->setText(
      tr("%1, %2; stands on %3%4")
          .arg(text(d->document.name), text(f.place),
               !row.known() ? tr("no line") : text(s.evaluation->model()[row].label),
               view->left_out > 0 ? tr("; %1 lines further away are not shown").arg(view->left_out) : QString()));
  QList<QTextEdit::ExtraSelection> marks;
  if (view->marked >= 0) {
    QTextEdit::ExtraSelection mark;
    mark.cursor = QTextCursor(text_->document()->findBlockByNumber(view->marked));
    mark.format.setBackground(theme().chosenBand);
    mark.format.setProperty(QTextFormat::FullWidthSelection, true);
    text_->setTextCursor(mark.cursor);
    text_->centerCursor();
    marks << mark;
  }
  text_->setExtraSelections(marks);
}

}  // namespace zl::app
