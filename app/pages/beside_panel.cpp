#include "app/pages/beside_panel.h"
#include "app/bench/draft_field.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/grid/ledger_rows.h"
#include "app/grid/line_choice.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/filing/fact_lines.h"
#include "services/stories/history_stories.h"

namespace zl::app {
namespace {

LedgerCell saying(const QString& shown, const QString& tip = {}) {
  LedgerCell cell;
  cell.words = shown;
  cell.left = true;
  cell.tip = tip;
  return cell;
}

}  // namespace

BesidePanel::BesidePanel(Workbench& bench, QWidget* parent) : QWidget(parent), bench_(bench) {
  setObjectName(QStringLiteral("besidePanel"));
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 0, 8, 0);
  year_ = new QComboBox(this);
  year_->setObjectName(QStringLiteral("besideYear"));
  auto* yearLabel = new PlainLabel(tr("&Year"), this);
  yearLabel->setBuddy(year_);
  bar->addWidget(yearLabel);
  bar->addWidget(year_);
  bar->addStretch();
  ownName_ = new QLineEdit(this);
  ownName_->setObjectName(QStringLiteral("ownLineName"));
  keepAsDraft(bench_, ownName_, ownName_->objectName());
  ownName_->setPlaceholderText(tr("A line of your own"));
  ownName_->setAccessibleName(tr("Name of a line of your own"));
  ownKind_ = new QComboBox(this);
  ownKind_->setObjectName(QStringLiteral("ownLineKind"));
  ownKind_->setAccessibleName(tr("Flow or balance"));
  ownKind_->addItems({tr("flow"), tr("balance")});
  auto* add = new QPushButton(tr("Add"), this);
  add->setObjectName(QStringLiteral("addOwnLine"));
  auto* drop = new QPushButton(tr("Drop"), this);
  drop->setObjectName(QStringLiteral("dropOwnLine"));
  drop->setToolTip(tipText(tr("Drops the own line under the cursor; what stood on it is placed by the rules again")));
  for (QWidget* w : {static_cast<QWidget*>(ownName_), static_cast<QWidget*>(ownKind_), static_cast<QWidget*>(add),
                     static_cast<QWidget*>(drop)}) {
    bar->addWidget(w);
  }
  layout->addLayout(bar);
  grid_ = new LedgerView(this);
  grid_->setObjectName(QStringLiteral("beside"));
  grid_->setAccessibleName(tr("As filed beside standardised"));
  grid_->setWidths(90, 0);
  grid_->setColumns({84, 84, 180, 120, 110});
  grid_->setRowsDraggable(true);
  layout->addWidget(grid_, 1);
  connect(grid_, &LedgerView::cellFocused, this,
          [this](model::Cell cell, int scenario) { bench_.focus(cell, scenario); });
  connect(grid_, &LedgerView::cellTold, &bench_, &Workbench::tell);
  connect(grid_, &LedgerView::rowActivated, this, [this](int row, int) {
    const Place& place = places_[static_cast<size_t>(row)];
    if (!place.facts.empty())
      Q_EMIT factsWanted(grid_->ledger().ledgerRows()[static_cast<size_t>(row)].label.trimmed(), place.facts);
  });
  connect(grid_, &LedgerView::rowDragged, this, &BesidePanel::drag);
  connect(&grid_->ledger(), &LedgerModel::typed, this,
          [this](int row, int, const QString& typed) { typeLine(row, typed); });
  connect(year_, &QComboBox::currentIndexChanged, this, [this] {
    if (bench_.isOpen()) refresh();
  });
  connect(add, &QPushButton::clicked, this, &BesidePanel::addOwn);
  connect(ownName_, &QLineEdit::returnPressed, this, &BesidePanel::addOwn);
  connect(drop, &QPushButton::clicked, this, &BesidePanel::dropOwn);
}

int BesidePanel::column() const {
  return year_->currentData().toInt();
}

LedgerRow BesidePanel::factRow(size_t index, int weight, const std::string& line) {
  const services::Snapshot& s = bench_.now();
  const Fact& f = s.evidence->facts[index];
  const store::StoredDocument* d = s.document(f.document);
  LedgerRow row;
  row.label = QStringLiteral("      ") + text(f.label.empty() ? f.concept_name : f.label);
  row.kind = kindOfUnit(f.unit);
  if (row.kind != Kind::Money) row.unit = text(f.unit.str());
  row.key = text(f.concept_name);
  LedgerCell filed;
  filed.figure = Figure::of(weight) * f.figure();
  filed.ink = Ink::Filed;
  const FiledInMinor written = s.evidence->asWritten(index);
  filed.story = [index, weight](const services::Snapshot& of) { return services::factStory(of, {index, weight}); };
  filed.tip = text(f.concept_name) + QLatin1Char('\n') + text(written.text) + QLatin1Char(' ') + text(written.unit);
  LedgerCell to =
      saying(lineLabel(s.resources->model, {line, weight, ""}),
             tr("Type a line, − before it for the other sign, nothing to set the concept aside, ? for the rules; "
                "or drag the row on to its line"));
  to.editable = to.chooses = true;
  to.ink = Ink::Assumed;
  to.quiet = s.caseOf().lines.count(f.concept_name) == 0;
  row.cells = {saying({}), filed, std::move(to), saying(d == nullptr ? QString() : text(d->document.name)),
               saying(text(f.place))};
  return row;
}

void BesidePanel::addLine(model::RowId index, std::vector<LedgerRow>& rows) {
  const services::Snapshot& s = bench_.now();
  const model::Row& r = s.evaluation->model()[index];
  const LineCell& cell = s.filed->statements.at(r.name, column());
  LedgerRow row = yearRow(s, index, column(), column() + 1, bench_.scenario());
  row.strong = true;
  row.cells.resize(1);
  row.cells.push_back(saying({}));
  row.cells.push_back(saying(cell.origin == Origin::NoneReported ? tr("none reported")
                             : cell.origin == Origin::Missing    ? tr("not filed")
                                                                 : QString()));
  row.cells.push_back(saying({}));
  row.cells.push_back(saying({}));
  Place place{r.name, {}, false};
  for (const LineCell::Part& part : cell.parts) place.facts.push_back(part.fact);
  rows.push_back(std::move(row));
  places_.push_back(place);
  for (const LineCell::Part& part : cell.parts) {
    rows.push_back(factRow(part.fact, part.weight, r.name));
    places_.push_back({r.name, {part.fact}, true});
  }
}

/// Facts of the year that stand on no line, the whole company's only.
void BesidePanel::addLoose(std::vector<LedgerRow>& rows) {
  const services::Snapshot& s = bench_.now();
  const Date end = s.years()[static_cast<size_t>(column())].end;
  rows.push_back(headingRow(tr("On no line")));
  places_.push_back({});
  std::map<std::string, size_t> last;
  for (size_t i = 0; i < s.evidence->facts.size(); ++i) {
    const Fact& f = s.evidence->facts[i];
    if (f.period.end != end || !f.segments.empty() || !(f.period.isInstant() || f.period.isFullYear())) continue;
    if (services::lineOf(*s.filed, *s.resources, f.concept_name).empty()) last[f.concept_name] = i;
  }
  for (const auto& [concept_name, fact] : last) {
    rows.push_back(factRow(fact, 1, {}));
    places_.push_back({{}, {fact}, true});
  }
}

void BesidePanel::refresh() {
  const services::Snapshot& s = bench_.now();
  if (year_->count() != static_cast<int>(s.years().size())) {
    const QSignalBlocker quiet(year_);
    year_->clear();
    for (size_t c = s.years().size(); c-- > 0;)
      year_->addItem(QString::number(s.years()[c].label()), static_cast<int>(c));
  }
  std::vector<LedgerRow> rows;
  places_.clear();
  std::string group;
  const model::Model& m = s.evaluation->model();
  for (size_t r = 0; r < m.rows.size(); ++r) {
    if (!m.rows[r].isStandardLine()) continue;
    if (m.rows[r].group != group) {
      group = m.rows[r].group;
      rows.push_back(headingRow(text(group)));
      places_.push_back({});
    }
    addLine(model::RowId(r), rows);
  }
  addLoose(rows);
  grid_->ledger().setChoices(lineLabels(m));
  grid_->ledger().setCorner(cornerOf(s));
  grid_->ledger().fill({tr("standard"), tr("as filed"), tr("goes to line"), tr("document"), tr("place")},
                       std::move(rows));
}

void BesidePanel::put(const std::string& concept_name, const LineChoice& choice) {
  bench_.apply(
      services::setLineChoice(bench_.settled().caseOf(), bench_.settled().resources->model, concept_name, choice));
}

void BesidePanel::typeLine(int row, const QString& typed) {
  const Place& place = places_[static_cast<size_t>(row)];
  Q_EMIT lineTyped(bench_.settled().evidence->facts[place.facts.front()].concept_name, typed);
}

void BesidePanel::drag(int from, int to) {
  const Place& fact = places_[static_cast<size_t>(from)];
  const Place& line = places_[static_cast<size_t>(to)];
  if (!fact.isFact) {
    bench_.say(tr("A fact is dragged on to a line; lines themselves stay where they are"), true);
    return;
  }
  if (line.line == fact.line) return;
  put(bench_.settled().evidence->facts[fact.facts.front()].concept_name, {line.line, 1, "dragged by hand"});
}

void BesidePanel::addOwn() {
  const QString name = ownName_->text().trimmed();
  if (name.isEmpty()) {
    bench_.say(tr("Write what the line is called"), true);
    ownName_->setFocus();
    return;
  }
  if (bench_.apply(
          services::addOwnLine(bench_.settled().caseOf(), name.toStdString(), ownKind_->currentIndex() == 0))) {
    ownName_->clear();
    bench_.say(tr("%1 stands under Own lines; drag facts on to it or type its name beside them").arg(name));
  }
}

void BesidePanel::dropOwn() {
  const QModelIndex at = grid_->currentIndex();
  const std::string line = at.isValid() ? places_[static_cast<size_t>(at.row())].line : std::string();
  if (!line.starts_with("own_")) {
    bench_.say(tr("Put the cursor on a line of your own; the shipped lines stay"), true);
    return;
  }
  bench_.apply(services::dropOwnLine(bench_.settled().caseOf(), line));
}

}  // namespace zl::app
