#include "app/editor/own_rows_panel.h"
#include "app/bench/draft_field.h"

#include <QHBoxLayout>
#include <QSplitter>
#include <QVBoxLayout>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "services/stories/version_stories.h"

namespace zl::app {
namespace {
constexpr int kPauseBeforeCheck = 250;  // milliseconds without a key
}

OwnRowsPanel::OwnRowsPanel(Workbench& bench, LedgerView* effects, QWidget* parent)
    : QWidget(parent), bench_(bench), effects_(effects) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  layout->addWidget(makeBar());
  auto* splitter = new QSplitter(Qt::Vertical, this);
  splitter->setChildrenCollapsible(false);
  editor_ = new ModelEditor(splitter);
  editor_->setObjectName(QStringLiteral("ownRowsText"));
  editor_->setAccessibleName(tr("Own rows, model text"));
  editor_->setPlaceholderText(
      tr("Rows and drivers of your own, upon the model that ships:\n\n"
         "driver book_to_bill \"Orders over revenue\" ratio rate\n  range 0 to 5\n  default 1\n"
         "row orders \"Orders\" money flow\n  forecast revenue * book_to_bill\n\n"
         "amend revenue  gives a row of the model another rule.\nCtrl+Space offers the words that fit."));
  splitter->addWidget(editor_);
  splitter->addWidget(effects_);
  splitter->setStretchFactor(0, 1);
  splitter->setSizes({330, 160});
  layout->addWidget(splitter, 1);
  message_ = new PlainLabel(this);
  message_->setObjectName(QStringLiteral("ownRowsMessage"));
  message_->setWordWrap(true);
  message_->setContentsMargins(8, 2, 8, 4);
  message_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  layout->addWidget(message_);
  layout->addWidget(makeAcceptBar());
  effects_->setWidths(90, 0);
  wait_.setSingleShot(true);
  wait_.setInterval(kPauseBeforeCheck);
  connect(&wait_, &QTimer::timeout, this, &OwnRowsPanel::check);
  connect(editor_, &QPlainTextEdit::textChanged, &wait_, qOverload<>(&QTimer::start));
  connect(editor_, &ModelEditor::acceptWanted, this, &OwnRowsPanel::accept);
  editor_->setSuggest([this](const std::string& text, size_t place, size_t* typed) {
    return services::completionsAt(bench_.settled(), text, place, typed);
  });
}

QWidget* OwnRowsPanel::makeBar() {
  auto* widget = new QWidget(this);
  auto* bar = new QHBoxLayout(widget);
  bar->setContentsMargins(8, 2, 8, 2);
  builds_ = new QComboBox(widget);
  builds_->setObjectName(QStringLiteral("builds"));
  builds_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  builds_->setMinimumContentsLength(30);
  auto* label = new PlainLabel(tr("Ready &builds"), widget);
  label->setBuddy(builds_);
  bar->addWidget(label);
  bar->addWidget(builds_);
  insert_ = new QPushButton(tr("&put in"), widget);
  insert_->setObjectName(QStringLiteral("insertBuild"));
  insert_->setToolTip(tipText(tr("Puts the build's text at the end, to be changed or accepted")));
  bar->addWidget(insert_);
  bar->addStretch();
  connect(insert_, &QPushButton::clicked, this, &OwnRowsPanel::insertBuild);
  return widget;
}

QWidget* OwnRowsPanel::makeAcceptBar() {
  auto* widget = new QWidget(this);
  auto* bar = new QHBoxLayout(widget);
  bar->setContentsMargins(8, 2, 8, 4);
  const auto button = [&](const char* name, const QString& words, const QString& tip) {
    auto* b = new QPushButton(words, widget);
    b->setObjectName(QString::fromLatin1(name));
    b->setToolTip(tipText(tip));
    return b;
  };
  reason_ = new QLineEdit(widget);
  reason_->setObjectName(QStringLiteral("ownRowsReason"));
  auto* label = new PlainLabel(tr("Reaso&n"), widget);
  label->setBuddy(reason_);
  bar->addWidget(label);
  bar->addWidget(reason_, 1);
  accept_ = button("acceptOwnRows", tr("&Accept"), tr("Takes the text into use (Ctrl+Enter)"));
  letGo_ = button("letGoOwnRows", tr("&Let go"), tr("Puts the text in use back in the field"));
  bar->addWidget(accept_);
  bar->addWidget(letGo_);
  keepAsDraftOf(bench_, reason_, [this] { return reasonKey(); });
  connect(editor_, &QPlainTextEdit::textChanged, this, [this] {
    if (!filling_ && bench_.isOpen()) bench_.keepDraft(draftKey(), isDraft() ? editor_->toPlainText() : QString());
  });
  connect(accept_, &QPushButton::clicked, this, &OwnRowsPanel::accept);
  connect(letGo_, &QPushButton::clicked, this, &OwnRowsPanel::letGo);
  return widget;
}

void OwnRowsPanel::refresh() {
  if (!bench_.isOpen() || bench_.isPreviewing()) return;
  const Case& c = bench_.settled().caseOf();
  const std::string book = bench_.path().toStdString() + '\n' + c.company + '\n' + c.model;
  const std::string& inUse = ownRowsInUse(c);
  if (book != book_ || (!isDraft() && inUse != shown_)) {
    book_ = book;
    shown_ = inUse;
    const QString draft = bench_.draft(draftKey());
    filling_ = true;
    editor_->setPlainText(draft.isEmpty() ? text(inUse) : draft);
    filling_ = false;
    const auto own = c.ownRows.find(c.model);
    showDraftOr(bench_, reason_, reasonKey(), own == c.ownRows.end() ? QString() : text(own->second.said.reason));
  } else {
    shown_ = inUse;
  }
  fillBuilds();
  check();
}

void OwnRowsPanel::fillBuilds() {
  ready_ = services::buildsFor(bench_.settled());
  const QString before = builds_->currentText();
  builds_->clear();
  for (const services::Build& b : ready_) builds_->addItem(text(b.label));
  builds_->setCurrentIndex(std::max(0, builds_->findText(before)));
  builds_->setEnabled(!ready_.empty());
  insert_->setEnabled(!ready_.empty());
  if (ready_.empty()) builds_->addItem(tr("nothing filed that could be built from"));
}

void OwnRowsPanel::insertBuild() {
  const int index = builds_->currentIndex();
  if (index < 0 || index >= static_cast<int>(ready_.size())) return;
  QTextCursor cursor(editor_->document());
  cursor.movePosition(QTextCursor::End);
  const QString before = editor_->toPlainText();
  cursor.insertText((before.isEmpty() || before.endsWith(QLatin1Char('\n')) ? QString() : QStringLiteral("\n")) +
                    text(ready_[static_cast<size_t>(index)].text));
  editor_->setFocus();
}

void OwnRowsPanel::check() {
  wait_.stop();
  if (!bench_.isOpen()) return;
  last_ = bench_.checkOwnRows(editor_->modelText());
  editor_->markFault(last_.at);
  QString words;
  if (last_.fault) {
    words = QStringLiteral("■ ") +
            (last_.at ? tr("line %1, column %2: ").arg(last_.at->line).arg(last_.at->column) : QString());
    words += text(last_.fault->what);
    if (!last_.at && !last_.fault->where.empty())
      words += QStringLiteral(" (") + text(last_.fault->where) + QLatin1Char(')');
    if (!last_.fault->todo.empty()) words += QStringLiteral(". ") + text(last_.fault->todo);
    if (isDraft()) words += tr(" — the rows in use stay as they are.");
  } else if (isDraft()) {
    words = tr("Fits; not in use yet. Ctrl+Enter accepts.");
  } else if (shown_.empty()) {
    words = tr("No own rows. The shipped model is used as it is.");
  } else {
    words = tr("In use, upon '%1'; the shipped model itself is untouched.")
                .arg(text(bench_.settled().evaluation->model().title));
  }
  for (const std::string& fault : last_.newFaults)
    words += QStringLiteral("\n■ ") + tr("It would break: ") + text(fault);
  message_->setText(words);
  QPalette p = message_->palette();
  p.setColor(QPalette::WindowText, last_.fault || !last_.newFaults.empty() ? theme().fault : theme().quiet);
  message_->setPalette(p);
  accept_->setEnabled(isDraft() && !last_.fault && bench_.readOnly().isEmpty());
  letGo_->setEnabled(isDraft());
  fillEffects();
}

void OwnRowsPanel::fillEffects() {
  std::vector<LedgerRow> rows;
  const services::Snapshot& s = bench_.settled();
  for (const services::OwnEffect& e : last_.effects) {
    LedgerRow row;
    row.label = text(e.scenario);
    row.kind = Kind::Quote;
    row.cells = {figureCell(e.before), figureCell(e.after), figureCell(e.after - e.before)};
    const auto lane = static_cast<int>(&e - last_.effects.data());
    row.cells[0].source = model::Cell{s.evaluation->model().find(model::Role::ValuePerShare), 0};
    row.cells[0].scenario = lane;
    for (const bool change : {false, true}) {
      row.cells[change ? 2 : 1].story = [e, lane, change](const services::Snapshot& of) {
        return services::ownEffectStory(of, e, lane, change);
      };
    }
    row.strong = true;
    rows.push_back(std::move(row));
  }
  for (const bool amended : {false, true}) {
    bool any = false;
    for (const services::OwnRow& own : last_.rows) {
      if (own.amended != amended) continue;
      if (!any)
        rows.push_back(headingRow((amended ? tr("Rows with other rules, %1") : tr("Rows of your own, %1"))
                                      .arg(text(s.periodOf(s.evaluation->layout().columns() - 1)))));
      any = true;
      LedgerRow row;
      row.label = text(own.label);
      row.key = text(own.name);
      const model::RowId index = s.evaluation->model().find(own.name);
      const int last = s.evaluation->layout().columns() - 1;
      if (index.known()) {
        const model::Row& shown = s.evaluation->model()[index];
        row.kind = shown.kind;
        LedgerCell cell = figureCell(s.evaluation->figure(index, last, bench_.scenario()));
        cell.source = model::Cell{index, shown.timing == model::Timing::Constant ? 0 : last};
        row.cells = {cell};
      }
      rows.push_back(std::move(row));
    }
  }
  effects_->ledger().setCorner(text(s.company().listing.unit));
  effects_->ledger().fill({tr("now"), tr("with"), tr("change")}, std::move(rows));
}

void OwnRowsPanel::accept() {
  check();
  if (!isDraft()) return;
  if (last_.fault) {
    if (last_.at) editor_->goToPlace(*last_.at);
    return;
  }
  const std::string wanted = editor_->modelText();
  if (bench_.apply(services::setOwnRows(bench_.settled().caseOf(), wanted, bench_.saidNow(reason_->text())))) {
    shown_ = wanted;
    bench_.keepDraft(draftKey(), {});
    bench_.keepDraft(reasonKey(), {});
    refresh();
  }
}

QString OwnRowsPanel::draftKey() const {
  return QStringLiteral("own rows/") + text(bench_.settled().caseOf().model);
}

QString OwnRowsPanel::reasonKey() const {
  return QStringLiteral("own rows reason/") + text(bench_.settled().caseOf().model);
}

void OwnRowsPanel::letGo() {
  editor_->setPlainText(text(shown_));
  bench_.keepDraft(reasonKey(), {});
  check();
}

}  // namespace zl::app
