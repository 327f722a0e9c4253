#include "app/pages/versions_panel.h"
#include "app/bench/draft_field.h"

#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "app/pages/page.h"
#include "core/quantity/number_text.h"
#include "services/stories/version_stories.h"

namespace zl::app {
namespace {

/// A figure of a version, traced in that version.
services::Telling storyIn(const services::Side& side, const services::BesideLine& line, const std::string& scenario) {
  return [side, line, scenario](const services::Snapshot&) { return services::versionStory(side, line, scenario); };
}

/// An end of the walk: a scenario's value before the floor at zero, or the weighted one.
services::Telling walkEnd(const services::Side& side, const std::string& scenario, const Figure& figure) {
  if (scenario.empty())
    return [side, figure](const services::Snapshot&) {
      return services::weightedStory(side, model::Role::ValueBeforeFloor, figure);
    };
  services::BesideLine value;
  value.row = side.snapshot->model().nameOf(model::Role::ValueBeforeFloor);
  value.label = "Value per share";
  value.kind = Kind::Quote;
  return storyIn(side, value, scenario);
}

}  // namespace

VersionsPanel::VersionsPanel(Workbench& bench, LedgerView* list, LedgerView* beside, LedgerView* years, QWidget* parent)
    : QWidget(parent), bench_(bench), list_(list), beside_(beside), years_(years) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  keepBar_ = new QWidget(this);
  makeKeepBar(keepBar_);
  layout->addWidget(keepBar_);
  list_->setWidths(70, 0);
  layout->addWidget(list_);
  hint_ = new PlainLabel(tr("Enter or Space puts a version beside those walked between, or takes it away."), this);
  hint_->setContentsMargins(8, 0, 8, 0);
  layout->addWidget(hint_);
  empty_ = new PlainLabel(
      tr("No version is kept yet. Name the present state above before you try something else: "
         "it can be gone back to, compared, and what moved the value between the two is split by cause."),
      this);
  empty_->setObjectName(QStringLiteral("noVersions"));
  empty_->setWordWrap(true);
  empty_->setContentsMargins(8, 6, 8, 6);
  layout->addWidget(empty_);
  walkBar_ = new QWidget(this);
  auto* bar = new QHBoxLayout(walkBar_);
  bar->setContentsMargins(8, 8, 8, 2);
  const auto box = [&](const char* name, const QString& words, int characters) {
    auto* choice = new QComboBox(walkBar_);
    choice->setObjectName(QString::fromLatin1(name));
    choice->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    choice->setMinimumContentsLength(characters);
    auto* label = new PlainLabel(words, walkBar_);
    label->setBuddy(choice);
    bar->addWidget(label);
    bar->addWidget(choice);
    connect(choice, &QComboBox::activated, this, [this] {
      fillWalk();
      fillBeside();
      fillYears();
      fillList();
    });
    return choice;
  };
  from_ = box("walkFrom", tr("What moved the value &from"), 14);
  to_ = box("walkTo", tr("t&o"), 12);
  scenario_ = box("walkScenario", tr("&in"), 7);
  split_ = box("walkSplit", tr("&by"), 6);
  split_->addItems({tr("group"), tr("driver")});
  bar->addStretch();
  layout->addWidget(walkBar_);
  chart_ = new WalkChart(this);
  connect(chart_, &TellingChart::cellTold, &bench_, &Workbench::tell);
  layout->addWidget(chart_);
  sentence_ = new PlainLabel(this);
  sentence_->setObjectName(QStringLiteral("walkSentence"));
  sentence_->setWordWrap(true);
  sentence_->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
  sentence_->setContentsMargins(8, 0, 8, 4);
  layout->addWidget(sentence_);
  beside_->setWidths(180, 0);
  layout->addWidget(beside_);
  years_->setWidths(64, 0);
  layout->addWidget(years_);
  layout->addStretch(1);
  connect(list_, &LedgerView::rowActivated, this, [this](int row, int) {
    const QString name = list_->ledger().ledgerRows()[static_cast<size_t>(row)].key;
    if (ticked_.erase(name) == 0) ticked_.insert(name);
    fillList();
    fillBeside();
    fillYears();
  });
  connect(list_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, [this] { refreshActions(); });
  connect(&bench_, &Workbench::opened, this, [this] {
    read_.clear();
    ticked_.clear();
    versions_.clear();
  });
  refreshActions();
}

void VersionsPanel::makeKeepBar(QWidget* parent) {
  auto* bar = new QHBoxLayout(parent);
  bar->setContentsMargins(8, 4, 8, 4);
  const auto field = [&](const char* name, const QString& words, int stretch) {
    auto* edit = new QLineEdit(parent);
    edit->setObjectName(QString::fromLatin1(name));
    keepAsDraft(bench_, edit, edit->objectName());
    auto* label = new PlainLabel(words, parent);
    label->setBuddy(edit);
    bar->addWidget(label);
    bar->addWidget(edit, stretch);
    connect(edit, &QLineEdit::returnPressed, this, &VersionsPanel::keep);
    connect(edit, &QLineEdit::textChanged, this, &VersionsPanel::refreshActions);
    return edit;
  };
  name_ = field("versionName", tr("&Name the present state"), 2);
  name_->setMaxLength(80);
  note_ = field("versionNote", tr("no&te"), 3);
  const auto button = [&](const char* name, const QString& words) {
    auto* b = new QPushButton(words, parent);
    b->setObjectName(QString::fromLatin1(name));
    bar->addWidget(b);
    return b;
  };
  keep_ = button("keepVersion", tr("&Keep"));
  goBack_ = button("goBack", tr("&Go back to it"));
  drop_ = button("dropVersion", tr("Take off the &list"));
  connect(keep_, &QPushButton::clicked, this, &VersionsPanel::keep);
  connect(goBack_, &QPushButton::clicked, this, [this] { actOnCurrent(true); });
  connect(drop_, &QPushButton::clicked, this, [this] { actOnCurrent(false); });
}

void VersionsPanel::startKeeping() {
  name_->setFocus(Qt::ShortcutFocusReason);
  name_->selectAll();
}

void VersionsPanel::placeOn(const QString& name) {
  const std::vector<LedgerRow>& rows = list_->ledger().ledgerRows();
  for (size_t r = 0; r < rows.size(); ++r) {
    if (rows[r].key == name) list_->setCurrentIndex(list_->ledger().index(static_cast<int>(r), 0));
  }
  list_->setFocus();
}

void VersionsPanel::keep() {
  if (name_->text().trimmed().isEmpty()) return;
  if (!bench_.keepVersion(name_->text(), note_->text())) return;
  name_->clear();
  note_->clear();
}

void VersionsPanel::actOnCurrent(bool goBack) {
  const int row = list_->currentIndex().row();
  if (row < 0 || row >= static_cast<int>(list_->ledger().ledgerRows().size())) return;
  const QString name = list_->ledger().ledgerRows()[static_cast<size_t>(row)].key;
  if (goBack) {
    bench_.goBackTo(name);
  } else {
    bench_.setVersionAside(name);
  }
}

void VersionsPanel::refreshActions() {
  const int row = list_->currentIndex().row();
  const auto& rows = list_->ledger().ledgerRows();
  const bool kept = row >= 0 && row < static_cast<int>(rows.size()) &&
                    rows[static_cast<size_t>(row)].key != QLatin1String(services::kNow);
  keep_->setEnabled(!name_->text().trimmed().isEmpty());
  goBack_->setEnabled(kept);
  drop_->setEnabled(kept);
}

const services::Side* VersionsPanel::side(const QString& name) const {
  const auto found =
      std::find_if(sides_.begin(), sides_.end(), [&](const services::Side& s) { return text(s.name) == name; });
  return found == sides_.end() ? nullptr : &*found;
}

void VersionsPanel::refresh() {
  load();
  fillChoices();
  fillList();
  const bool any = !versions_.empty();
  empty_->setVisible(!any);
  for (QWidget* w : std::initializer_list<QWidget*>{hint_, walkBar_, chart_, sentence_, beside_, years_})
    w->setVisible(any);
  if (any) {
    fillWalk();
    fillBeside();
    fillYears();
  }
  refreshActions();
}

void VersionsPanel::load() {
  versions_ = bench_.versions();
  sides_.clear();
  for (const store::KeptVersion& v : versions_) {
    auto known = read_.find(v.id);
    if (known == read_.end()) {
      std::optional<services::Side> fresh = bench_.sideOf(text(v.name));
      if (!fresh) continue;  // said in the status line; the others are still shown
      known = read_.emplace(v.id, std::move(*fresh)).first;
    }
    sides_.push_back(known->second);
  }
  if (auto present = bench_.sideOf(QString::fromLatin1(services::kNow))) sides_.push_back(std::move(*present));
}

void VersionsPanel::fillChoices() {
  const auto fill = [&](QComboBox* box, qsizetype otherwise) {
    const QString chosen = box->currentText();
    box->clear();
    for (const services::Side& s : sides_) box->addItem(text(s.name));
    const int at = box->findText(chosen);
    box->setCurrentIndex(at >= 0 ? at : static_cast<int>(otherwise));
  };
  const auto count = static_cast<qsizetype>(sides_.size());
  // What is asked first: what has changed since the last version that was another.
  qsizetype other = std::max<qsizetype>(0, count - 2);
  while (other > 0 && sides_[static_cast<size_t>(other)].snapshot->caseOf() == bench_.now().caseOf()) --other;
  fill(from_, other);
  fill(to_, count - 1);
  const QString chosen = scenario_->currentText();
  scenario_->clear();
  scenario_->addItems(scenarioHeaders(bench_.now()));
  scenario_->addItem(tr("weighted"));
  const int at = scenario_->findText(chosen);
  scenario_->setCurrentIndex(at >= 0 ? at : bench_.now().caseOf().indexOf(kBase));
}

void VersionsPanel::fillList() {
  std::vector<LedgerRow> rows;
  const std::vector<Scenario>& scenarios = bench_.now().caseOf().scenarios;
  for (auto s = sides_.rbegin(); s != sides_.rend(); ++s) {
    const QString name = text(s->name);
    const bool walked = name == from_->currentText() || name == to_->currentText();
    LedgerRow row;
    row.key = name;
    row.kind = Kind::Quote;
    row.label = (walked || ticked_.count(name) > 0 ? QStringLiteral("● ") : QStringLiteral("○ ")) +
                (name == QLatin1String(services::kNow) ? tr("now, the present state") : name);
    row.strong = name == QLatin1String(services::kNow);
    for (const Scenario& scenario : scenarios) {
      const int lane = s->snapshot->caseOf().indexOf(scenario.id);
      row.cells.push_back(figureCell(lane < 0 ? Figure::absent(tr("it has no such scenario").toStdString())
                                              : s->snapshot->evaluation->constant(model::Role::ValuePerShare, lane)));
      services::BesideLine value;
      value.row = s->snapshot->model().nameOf(model::Role::ValuePerShare);
      value.label = "Value per share";
      value.kind = Kind::Quote;
      row.cells.back().story = storyIn(*s, value, scenario.id);
    }
    row.cells.push_back(figureCell(weightedValue(*s->snapshot->evaluation, model::Role::ValuePerShare)));
    row.cells.back().story = [side = *s, figure = row.cells.back().figure](const services::Snapshot&) {
      return services::weightedStory(side, model::Role::ValuePerShare, figure);
    };
    const auto kept = std::find_if(versions_.begin(), versions_.end(),
                                   [&](const store::KeptVersion& v) { return v.name == s->name; });
    if (kept != versions_.end()) {
      row.cells.push_back(wordsCell(text(kept->at).left(16).replace(QLatin1Char('T'), QLatin1Char(' '))));
      row.cells.push_back(wordsCell(text(kept->author)));
      row.cells.push_back(wordsCell(text(kept->note)));
    } else {
      for (int i = 0; i < 3; ++i) row.cells.push_back(wordsCell({}));
    }
    rows.push_back(std::move(row));
  }
  QStringList headers = scenarioHeaders(bench_.now());
  headers << tr("weighted") << tr("kept") << tr("by") << tr("note");
  std::vector<int> widths(static_cast<size_t>(scenarios.size()) + 1, 70);
  widths.insert(widths.end(), {130, 80, 220});
  list_->setColumns(std::move(widths));
  list_->ledger().setCorner(tr("%1 per share").arg(text(bench_.now().company().listing.unit)));
  list_->ledger().fill(headers, std::move(rows));
  list_->showAll();
}

void VersionsPanel::fillWalk() {
  const services::Side* from = side(from_->currentText());
  const services::Side* to = side(to_->currentText());
  WalkContent content;
  sentence_->clear();
  if (from == nullptr || to == nullptr) return chart_->setContent(std::move(content));
  const auto& scenarios = bench_.now().caseOf().scenarios;
  const auto chosen = static_cast<size_t>(std::max(0, scenario_->currentIndex()));
  const std::string id = chosen < scenarios.size() ? scenarios[chosen].id : std::string();
  const Result<ValueWalk> walk = bench_.walkBetween(*from, *to, id, split_->currentIndex() == 1);
  content.unit = text(bench_.now().company().listing.unit);
  content.fromLabel = from_->currentText();
  content.toLabel = to_->currentText();
  content.gap = !walk ? text(walk.error().text()) : text(walk->gap);
  if (walk && walk->gap.empty()) {
    const auto written = [](double x) { return text(groupedNumber(x, 2, false)); };
    content.from = walk->from.value();
    content.to = walk->to.value();
    content.fromFigure = written(content.from);
    content.toFigure = written(content.to);
    content.fromTold.story = walkEnd(*from, id, walk->from);
    content.toTold.story = walkEnd(*to, id, walk->to);
    const std::vector<double> shown = effectsThatAddUp(*walk, 2);
    QStringList causes;
    for (size_t i = 0; i < shown.size(); ++i) {
      const WalkStep& step = walk->steps[i];
      QStringList made;
      for (const std::string& row : step.rows) made << text(row);
      const QString figure = (shown[i] < 0 ? QString() : QStringLiteral("+")) + written(shown[i]);
      const auto story = [of = *walk, i, said = figure.toStdString()](const services::Snapshot& s) {
        return services::walkStepStory(s, of, i, said);
      };
      content.bars.push_back({text(step.label), step.effect, figure, made.join(QLatin1Char('\n')), {{}, -1, story}});
      causes << tr("%1 %2").arg(text(step.label), figure);
    }
    sentence_->setText(causes.isEmpty() ? tr("The two are the same.")
                                        : tr("From %1 %4 (%2) to %3 %4 (%5): %6.")
                                              .arg(content.fromFigure, content.fromLabel, content.toFigure,
                                                   content.unit, content.toLabel, causes.join(QStringLiteral(", "))));
  }
  chart_->setVisible(!content.bars.empty() || !content.gap.isEmpty());
  chart_->setContent(std::move(content));
}

std::vector<services::Side> VersionsPanel::sidesShown() const {
  std::vector<services::Side> shown;
  for (const services::Side& s : sides_) {
    const QString name = text(s.name);
    if (name == from_->currentText() || name == to_->currentText() || ticked_.count(name) > 0) shown.push_back(s);
  }
  return shown;
}

void VersionsPanel::fillBeside() {
  const std::vector<services::Side> shown = sidesShown();
  if (shown.empty()) return;
  const services::Snapshot& s = *shown.back().snapshot;
  const services::Comparison c = services::compare(shown);
  std::vector<LedgerRow> rows;
  rows.push_back(headingRow(c.assumptions.empty() ? tr("Assumptions: all the same") : tr("Assumptions that differ")));
  for (const services::BesideLine& line : c.assumptions) {
    LedgerRow row;
    row.label = text(line.label);
    row.unit = unitOf(s, line.kind);
    row.kind = line.kind;
    row.scenario = text(line.scenario);
    for (size_t i = 0; i < line.figures.size(); ++i) {
      const bool path = i < line.words.size() && !line.words[i].empty();
      LedgerCell cell = path ? wordsCell(text(line.words[i])) : figureCell(line.figures[i]);
      if (i < line.reasons.size() && !line.reasons[i].empty()) {
        cell.tip = (path ? text(line.words[i]) + QLatin1Char('\n') : QString()) + text(line.reasons[i]);
      }
      if (!line.row.empty()) cell.story = storyIn(shown[i], line, line.scenario);
      row.cells.push_back(std::move(cell));
    }
    rows.push_back(std::move(row));
  }
  rows.push_back(headingRow(tr("Values")));
  for (const services::BesideLine& line : c.values) {
    if (line.row == s.model().nameOf(model::Role::ValuePerShare) || line.row.empty()) continue;  // in the list above
    LedgerRow row;
    row.label = text(line.label);
    row.unit = unitOf(s, line.kind);
    row.kind = line.kind;
    row.scenario = text(line.scenario);
    for (size_t i = 0; i < line.figures.size(); ++i) {
      row.cells.push_back(figureCell(line.figures[i]));
      row.cells.back().story = storyIn(shown[i], line, line.scenario);
    }
    rows.push_back(std::move(row));
  }
  QStringList headers;
  for (const services::Side& each : shown) headers << text(each.name);
  constexpr int kForSides = 600;
  beside_->setWidths(std::max(120, kForSides / static_cast<int>(shown.size())), 0);
  beside_->ledger().setCorner(cornerOf(s));
  beside_->ledger().fill(headers, std::move(rows));
  beside_->showAll();
}

void VersionsPanel::fillYears() {
  const std::vector<services::Side> shown = sidesShown();
  if (shown.empty()) return;
  const services::Snapshot& s = *shown.back().snapshot;
  const auto& scenarios = bench_.now().caseOf().scenarios;
  const auto chosen = static_cast<size_t>(std::max(0, scenario_->currentIndex()));
  const Scenario& scenario = chosen < scenarios.size() ? scenarios[chosen] : bench_.now().caseOf().base();
  std::vector<LedgerRow> rows;
  QStringList headers;
  for (const model::ViewRow& told : s.model().view("versions")) {
    const std::string& name = s.model()[told.row].name;
    std::vector<services::BesideLine> lines = services::rowBeside(shown, name, scenario.id);
    // Filed years are the same everywhere but for the last.
    const size_t first = static_cast<size_t>(s.evaluation->layout().baseColumn());
    if (lines.size() <= first) continue;
    lines.erase(lines.begin(), lines.begin() + static_cast<std::ptrdiff_t>(first));
    const QString unit = unitOf(s, lines.front().kind);
    rows.push_back(headingRow(text(lines.front().label) + (unit.isEmpty() ? QString() : QStringLiteral(", ") + unit)));
    for (size_t i = 0; i < shown.size(); ++i) {
      LedgerRow row;
      row.label = text(shown[i].name);
      row.kind = lines.front().kind;
      for (const services::BesideLine& line : lines) {
        row.cells.push_back(figureCell(line.figures[i]));
        row.cells.back().story = storyIn(shown[i], line, scenario.id);
      }
      rows.push_back(std::move(row));
    }
    if (!headers.isEmpty()) continue;
    for (const services::BesideLine& line : lines) headers << text(line.period);
  }
  years_->ledger().setCorner(tr("by year, %1").arg(text(scenario.label)));
  years_->ledger().fill(headers, std::move(rows));
  years_->showAll();
}

}  // namespace zl::app
