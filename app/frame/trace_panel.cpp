#include "app/frame/trace_panel.h"
#include "app/bench/draft_field.h"

#include <QKeyEvent>
#include <QVBoxLayout>
#include <algorithm>

#include "app/look/amounts.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/outlook/trace.h"
#include "core/quantity/number_text.h"
#include "services/sessions/assumption_history.h"
#include "services/stories/sources.h"

namespace zl::app {
namespace {

constexpr int kCellRole = Qt::UserRole + 1;

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
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(12, 10, 10, 8);
  layout->setSpacing(5);
  title_ = addLabel(layout, "traceTitle", this);
  figure_ = addLabel(layout, "traceFigure", this);
  rule_ = addLabel(layout, "traceRule", this);
  source_ = addLabel(layout, "traceSource", this);
  showJournal_ = new QPushButton(tr("How it came &about"), this);
  showJournal_->setObjectName(QStringLiteral("traceShowJournal"));
  showJournal_->setCheckable(true);
  showJournal_->setFlat(true);
  layout->addWidget(showJournal_, 0, Qt::AlignLeft);
  journal_ = addLabel(layout, "traceJournal", this);
  connect(showJournal_, &QPushButton::toggled, this, &TracePanel::refresh);
  QFont bold = title_->font();
  bold.setBold(true);
  title_->setFont(bold);
  QFont large = bold;
  large.setPointSizeF(large.pointSizeF() + 5);
  figure_->setFont(large);
  inputsTitle_ = addLabel(layout, "traceInputsTitle", this);
  inputs_ = new QListWidget(this);
  inputs_->setObjectName(QStringLiteral("traceInputs"));
  inputs_->setAccessibleName(tr("What it stands on"));
  layout->addWidget(inputs_);
  dependentsTitle_ = addLabel(layout, "traceDependentsTitle", this);
  dependents_ = new QListWidget(this);
  dependents_->setObjectName(QStringLiteral("traceDependents"));
  dependents_->setAccessibleName(tr("What hangs on it"));
  layout->addWidget(dependents_);
  layout->addStretch();
  help_ = addLabel(layout, "traceHelp", this);
  note_ = new QLineEdit(this);
  note_->setObjectName(QStringLiteral("traceNote"));
  note_->setAccessibleName(tr("Note"));
  note_->setPlaceholderText(tr("Note on this line"));
  layout->addWidget(note_);
  for (QListWidget* list : {inputs_, dependents_}) {
    list->setFrameShape(QFrame::NoFrame);
    list->installEventFilter(this);
    list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list->setTextElideMode(Qt::ElideRight);
    connect(list, &QListWidget::itemActivated, this, [this](QListWidgetItem* item) { walkIn(item); });
  }
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

void TracePanel::tell(const services::Story& story) {
  telling_ = true;
  told_ = story;
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
  const QPoint cell = item->data(kCellRole).toPoint();
  if (!telling_) trail_.push_back(at_);
  setFocus();  // a list that goes would hand the keys to whatever comes next, which would be traced
  look({model::RowId(cell.x()), cell.y()}, telling_ ? told_->scenario : scenario_);
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

void TracePanel::fillList(QListWidget* list, const std::vector<TraceLink>& links) const {
  const int row = list->currentRow();
  list->clear();
  for (const TraceLink& link : links) {
    QString label = text(link.label);
    if (!link.period.empty()) label += QLatin1Char(' ') + text(link.period);
    const std::string shown = link.option.empty() ? shownText(link.figure, link.kind).toStdString() : link.option;
    auto* item = new QListWidgetItem(text(shown.empty() ? "absent" : shown) + QStringLiteral("   ") + label, list);
    item->setData(kCellRole, QPoint(link.cell.row.number(), link.cell.column));
    item->setToolTip(
        tipText(label + (link.figure.hasValue() ? QString() : QLatin1Char('\n') + text(link.figure.reason()))));
  }
  if (links.empty()) return;
  list->setCurrentRow(std::clamp(row, 0, static_cast<int>(links.size()) - 1));
  constexpr int kMostRows = 12;
  const int rows = std::min(kMostRows, static_cast<int>(links.size()));
  list->setFixedHeight(rows * list->sizeHintForRow(0) + 6);
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
