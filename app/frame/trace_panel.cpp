#include "app/frame/trace_panel.h"

#include <QKeyEvent>
#include <QScrollBar>
#include <QVBoxLayout>
#include <algorithm>

#include "app/bench/draft_field.h"
#include "app/look/amounts.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/outlook/trace.h"
#include "core/quantity/number_text.h"
#include "services/sessions/assumption_history.h"
#include "services/stories/sources.h"

namespace zl::app {
namespace {

QLabel* addLabel(QVBoxLayout* layout, const char* name, QWidget* parent) {
  auto* label = new PlainLabel(parent);
  label->setObjectName(QString::fromLatin1(name));
  label->setWordWrap(true);
  label->setTextInteractionFlags(Qt::TextSelectableByMouse);
  label->setTextFormat(Qt::PlainText);
  layout->addWidget(label);
  return label;
}

QString spaced(const std::string& rule) {
  // Names of rows may break at their underscores when the panel is narrow.
  return text(rule).replace(QLatin1Char('_'), QStringLiteral("_\u200B"));
}

}  // namespace

TracePanel::TracePanel(Workbench& bench, QWidget* parent) : QWidget(parent), bench_(bench) {
  setObjectName(QStringLiteral("trace"));
  setAccessibleName(tr("Trace"));
  setMinimumWidth(200);
  setFocusPolicy(Qt::ClickFocus);
  installEventFilter(this);
  // The rule of a figure and what stands around it are as long as they are: what does not fit is scrolled to.
  scroll_ = new QScrollArea(this);
  scroll_->setObjectName(QStringLiteral("traceScroll"));
  scroll_->setFrameShape(QFrame::NoFrame);
  scroll_->setWidgetResizable(true);
  scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll_->setFocusPolicy(Qt::NoFocus);
  auto* told = new QWidget(scroll_);
  auto* layout = new QVBoxLayout(told);
  layout->setContentsMargins(0, 0, 2, 0);
  layout->setSpacing(5);
  title_ = addLabel(layout, "traceTitle", told);
  figure_ = addLabel(layout, "traceFigure", told);
  help_ = addLabel(layout, "traceHelp", told);
  rule_ = addLabel(layout, "traceRule", told);
  source_ = addLabel(layout, "traceSource", told);
  showJournal_ = new QPushButton(tr("How it came &about"), told);
  showJournal_->setObjectName(QStringLiteral("traceShowJournal"));
  showJournal_->setCheckable(true);
  showJournal_->setFlat(true);
  layout->addWidget(showJournal_, 0, Qt::AlignLeft);
  journal_ = addLabel(layout, "traceJournal", told);
  connect(showJournal_, &QPushButton::toggled, this, &TracePanel::refresh);
  QFont bold = title_->font();
  bold.setBold(true);
  title_->setFont(bold);
  QFont large = bold;
  large.setPointSizeF(large.pointSizeF() + 5);
  figure_->setFont(large);
  inputsTitle_ = addLabel(layout, "traceInputsTitle", told);
  inputs_ = addList(layout, "traceInputs", tr("What it stands on"));
  dependentsTitle_ = addLabel(layout, "traceDependentsTitle", told);
  dependents_ = addList(layout, "traceDependents", tr("What hangs on it"));
  layout->addStretch();
  scroll_->setWidget(told);
  for (QWidget* w : std::initializer_list<QWidget*>{scroll_->viewport(), told}) w->setAutoFillBackground(false);
  auto* panel = new QVBoxLayout(this);
  panel->setContentsMargins(12, 10, 8, 8);
  panel->setSpacing(5);
  panel->addWidget(scroll_, 1);
  note_ = new QLineEdit(this);
  note_->setObjectName(QStringLiteral("traceNote"));
  note_->setAccessibleName(tr("Note"));
  note_->setPlaceholderText(tr("Note on this line"));
  panel->addWidget(note_);
  connect(note_, &QLineEdit::editingFinished, this, [this] {
    if (!at_.row.known() || !bench_.isOpen() || !note_->isModified()) return;
    note_->setModified(false);
    const model::Model& m = bench_.now().evaluation->model();
    const QString key = noteKey();
    const bool kept =
        bench_.apply(services::setNote(bench_.settled().caseOf(), m, m[at_.row].name, note_->text().toStdString()));
    if (kept) bench_.keepDraft(key, {});
  });
  keepAsDraftOf(bench_, note_, [this] { return noteKey(); });
  connect(&bench_, &Workbench::focused, this, [this](model::Cell cell, int scenario) {
    trail_.clear();
    told_.reset();
    look(cell, scenario);
  });
  connect(&bench_, &Workbench::told, this, &TracePanel::tell);
  connect(&bench_, &Workbench::changed, this, [this] {
    telling_ = false;
    told_.reset();  // it told of figures that may be others now
    // Folded away nobody reads it: it is made when it is shown.
    stale_ = !isVisible();
    if (!stale_) refresh();
  });
  connect(&bench_, &Workbench::opened, this, [this] { at_ = {}; });
}

LinkList* TracePanel::addList(QVBoxLayout* layout, const char* name, const QString& spoken) {
  auto* list = new LinkList(layout->parentWidget());
  list->setObjectName(QString::fromLatin1(name));
  list->setAccessibleName(spoken);
  list->installEventFilter(this);
  layout->addWidget(list);
  connect(list, &QListWidget::itemActivated, this, [this](QListWidgetItem* item) { walkIn(item); });
  connect(list, &QListWidget::currentItemChanged, this, [this, list](const QListWidgetItem* item) {
    if (item == nullptr || !list->hasFocus()) return;
    const QRect at = list->visualItemRect(item).translated(list->pos());
    scroll_->ensureVisible(at.left(), at.center().y(), 0, at.height());
  });
  return list;
}

void TracePanel::tell(const services::Story& story) {
  telling_ = true;
  told_ = story;
  scroll_->verticalScrollBar()->setValue(0);
  trail_.clear();
  title_->setText(text(story.title));
  figure_->setText(text(story.figure));
  QStringList lines;
  for (const std::string& line : story.lines) lines << text(line);
  source_->setText(lines.join(QLatin1Char('\n')));
  source_->setVisible(!lines.isEmpty());
  showInputs(story.reads);
  inputsTitle_->setVisible(!story.reads.empty());
  for (QWidget* w :
       std::initializer_list<QWidget*>{rule_, help_, dependents_, dependentsTitle_, showJournal_, journal_, note_}) {
    w->hide();
  }
}

void TracePanel::showInputs(const std::vector<TraceLink>& inputs) {
  fillList(inputs_, inputs);
  inputs_->setVisible(!inputs.empty());
  inputsTitle_->setText(inputs.empty() ? tr("Stands on nothing further") : tr("Stands on (%1)").arg(inputs.size()));
}

void TracePanel::look(model::Cell cell, int scenario) {
  telling_ = false;
  at_ = cell;
  row_ = !cell.row.known() ? "" : bench_.now().evaluation->model()[cell.row].name;
  scenario_ = scenario < 0 ? bench_.scenario() : scenario;
  scroll_->verticalScrollBar()->setValue(0);
  refresh();
}

bool TracePanel::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::KeyPress) {
    const auto* key = static_cast<QKeyEvent*>(event);
    if (key->key() == Qt::Key_Backspace) {
      walkOut();
      return true;
    }
    auto* list = qobject_cast<QListWidget*>(watched);
    if (list != nullptr && (key->key() == Qt::Key_Return || key->key() == Qt::Key_Enter)) {
      walkIn(list->currentItem());
      return true;
    }
  }
  return QWidget::eventFilter(watched, event);
}

void TracePanel::walkIn(const QListWidgetItem* item) {
  if (item == nullptr) return;
  const model::Cell cell = LinkList::cellOf(*item);
  if (!telling_) trail_.push_back(at_);
  setFocus();  // a list that goes would hand the keys to whatever comes next, which would be traced
  look(cell, telling_ ? told_->scenario : scenario_);
  takeFocus();
}

void TracePanel::walkOut() {
  setFocus();
  if (!trail_.empty()) {
    const model::Cell back = trail_.back();
    trail_.pop_back();
    look(back, scenario_);
  } else if (told_) {
    tell(services::Story(*told_));
  }
  takeFocus();
}

/// A list without entries goes, and the keys that walk must not go with it.
void TracePanel::takeFocus() {
  if (inputs_->isVisibleTo(this)) return inputs_->setFocus();
  if (dependents_->isVisibleTo(this)) return dependents_->setFocus();
  setFocus();
}

void TracePanel::fillList(LinkList* list, const std::vector<TraceLink>& links) const {
  const services::Snapshot& s = bench_.now();
  list->fill(links, s.company().currency, s.company().listing.unit);
}

void TracePanel::refreshJournal(const TraceStep& step) {
  const bool assumed = step.source == TraceStep::Source::Assumed;
  showJournal_->setVisible(assumed);
  journal_->setVisible(assumed && showJournal_->isChecked());
  if (!journal_->isVisibleTo(this) || bench_.isPreviewing()) return;
  // Where the scenario follows base, it is base's changes that made the figure.
  const Scenario& s = bench_.settled().caseOf().scenarios[static_cast<size_t>(scenario_)];
  const bool own = s.drivers.count(row_) + s.inputs.count(row_) > 0;
  const Result<services::AssumptionHistory> told = bench_.historyOf(own ? s.id : kBase, row_);
  QStringList lines;
  if (!told) {
    lines << text(told.error().text());
  } else {
    for (const services::AssumptionChange& change : told->changes) {
      lines << text(change.at.substr(0, 10)) + QLatin1Char(' ') + text(change.author) + QStringLiteral(": ") +
                   text(services::changeText(change));
    }
    if (const std::string untold = services::untoldText(*told); !untold.empty()) lines << text(untold);
    if (lines.isEmpty()) lines << tr("as it was brought in; it has not been changed since");
  }
  journal_->setText(lines.join(QLatin1Char('\n')));
}

void TracePanel::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  if (stale_) refresh();
}

void TracePanel::refresh() {
  stale_ = false;
  if (!bench_.isOpen() || telling_) return;
  for (QWidget* w : std::initializer_list<QWidget*>{inputsTitle_, dependentsTitle_, note_}) w->show();
  const services::Snapshot& s = bench_.now();
  const model::Layout& layout = s.evaluation->layout();
  const std::vector<model::Row>& rows = s.evaluation->model().rows;
  if (at_.row.known() && (at_.row.at() >= rows.size() || rows[at_.row.at()].name != row_)) {
    at_.row = s.evaluation->model().find(row_);  // own rows or another model have moved it
    trail_.clear();
  }
  if (!at_.row.known() || at_.column >= layout.columns()) {
    at_ = {s.evaluation->model().find(model::Role::ValuePerShare), 0};
    row_ = s.model().nameOf(model::Role::ValuePerShare);
    scenario_ = bench_.scenario();
  }
  if (!at_.row.known()) {  // the model says not what its value is: nothing is traced until something is asked for
    title_->setText(tr("Choose a figure to see what it stands on"));
    for (QLabel* label : {figure_, rule_, source_, help_}) label->clear();
    showInputs({});
    return;
  }
  scenario_ = std::min(scenario_, s.evaluation->scenarios() - 1);
  const TraceStep step = trace(*s.evaluation, s.filed->statements, at_, scenario_);
  const model::Row& row = s.evaluation->model()[at_.row];
  QString title = text(step.self.label);
  if (!step.self.period.empty()) title += QLatin1Char(' ') + text(step.self.period);
  const bool byScenario = row.timing == model::Timing::Constant || layout.isForecast(at_.column);
  if (byScenario) title += QStringLiteral(" · ") + text(s.caseOf().scenarios[static_cast<size_t>(scenario_)].label);
  title_->setText(title);
  const QString unit = shownUnitText(row.kind, s.company().currency, s.company().listing.unit);
  figure_->setText(!step.self.option.empty() ? text(step.self.option)
                   : step.self.figure.hasValue()
                       ? shownText(step.self.figure, row.kind) + QLatin1Char(' ') + unit
                       : (step.self.figure.isNotMeaningful() ? tr("not meaningful") : tr("absent")));
  QString rule;
  if (!step.formula.empty())
    rule = spaced(step.formulaInWords) + QStringLiteral("\n= ") + spaced(step.formula) + QStringLiteral("\n= ") +
           spaced(step.formulaWithValues);
  rule_->setText(rule);
  rule_->setVisible(!rule.isEmpty());
  QStringList lines;
  if (!step.self.figure.hasValue()) lines << text(step.self.figure.reason());
  for (const std::string& line : services::sourceLines(s, step)) lines << text(line);
  source_->setText(lines.join(QLatin1Char('\n')));
  source_->setVisible(!lines.isEmpty());
  refreshJournal(step);
  help_->setText(text(step.help));
  help_->setVisible(!step.help.empty());
  showInputs(step.inputs);
  fillList(dependents_, step.dependents);
  dependentsTitle_->setText(tr("Hangs on it (%1)").arg(step.dependents.size()));
  dependents_->setVisible(!step.dependents.empty());
  for (QLabel* label : {inputsTitle_, dependentsTitle_, help_}) {
    QPalette p = label->palette();
    p.setColor(QPalette::WindowText, theme().quiet);
    label->setPalette(p);
  }
  const auto noteAt = s.caseOf().notes.find(row.name);
  if (!note_->hasFocus()) {
    showDraftOr(bench_, note_, noteKey(), noteAt == s.caseOf().notes.end() ? QString() : text(noteAt->second));
  }
}

QString TracePanel::noteKey() const {
  return QStringLiteral("note/") + text(row_);
}

}  // namespace zl::app
