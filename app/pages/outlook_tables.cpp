#include "app/pages/outlook_tables.h"
#include "app/bench/draft_field.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

#include "app/grid/ledger_rows.h"
#include "app/look/amounts.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "app/pages/outlook_rows.h"
#include "app/pages/page.h"
#include "core/quantity/number_text.h"
#include "services/edits/scenario_edits.h"
#include "services/stories/evidence_stories.h"
#include "services/views/decide.h"
#include "services/views/interim_progress.h"
#include "services/views/published.h"
#include "services/views/roll_forward.h"

namespace zl::app {
OutlookTables::OutlookTables(Workbench& bench, LedgerView* grid, QWidget* parent)
    : QWidget(parent), bench_(bench), grid_(grid) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  bar_ = new QWidget(this);
  makeScenarioBar();
  layout->addWidget(bar_);
  publishBar_ = new QWidget(this);
  makePublishBar();
  layout->addWidget(publishBar_);
  auto* line = new QHBoxLayout;
  line->setContentsMargins(8, 0, 8, 0);
  words_ = new PlainLabel(this);
  words_->setObjectName(QStringLiteral("tableWords"));
  words_->setWordWrap(true);
  line->addWidget(words_, 1);
  name_ = new QLineEdit(this);
  name_->setObjectName(QStringLiteral("newScenario"));
  name_->setPlaceholderText(tr("a further scenario"));
  name_->setAccessibleName(tr("Name of a further scenario"));
  name_->setMaximumWidth(120);
  name_->setMaxLength(30);
  line->addWidget(name_);
  add_ = new QPushButton(tr("a&dd"), this);
  add_->setObjectName(QStringLiteral("addScenario"));
  line->addWidget(add_);
  rename_ = new QPushButton(tr("rena&me"), this);
  rename_->setObjectName(QStringLiteral("renameScenario"));
  rename_->setToolTip(tipText(tr("Calls the scenario chosen at the right by the name typed")));
  line->addWidget(rename_);
  connect(rename_, &QPushButton::clicked, this, [this] {
    const QString name = name_->text().trimmed();
    if (name.isEmpty()) return;
    if (bench_.apply(services::renameScenario(bench_.settled().caseOf(), chosen(to_), name.toStdString()))) {
      name_->clear();
    }
  });
  const auto add = [this] {
    const QString name = name_->text().trimmed();
    if (name.isEmpty()) return;
    if (bench_.apply(services::addScenario(bench_.settled().caseOf(), name.toStdString(), chosen(from_)))) {
      name_->clear();
    }
  };
  connect(add_, &QPushButton::clicked, this, add);
  connect(name_, &QLineEdit::returnPressed, this, add);
  roll_ = new QPushButton(this);
  roll_->setObjectName(QStringLiteral("rollForward"));
  line->addWidget(roll_);
  layout->addLayout(line);
  layout->addWidget(grid_, 1);
  connect(roll_, &QPushButton::clicked, this, [this] { bench_.rollForward(); });
  connect(&grid_->ledger(), &LedgerModel::typed, this, &OutlookTables::typed);
  connect(grid_, &LedgerView::rowActivated, this, [this](int row, int) {
    const QString key = grid_->ledger().ledgerRows()[static_cast<size_t>(row)].key;
    if (!key.isEmpty()) Q_EMIT driverWanted(key);
  });
}

void OutlookTables::makeScenarioBar() {
  auto* bar = new QHBoxLayout(bar_);
  bar->setContentsMargins(8, 2, 8, 2);
  const auto button = [&](const char* name, const QString& words) {
    auto* b = new QPushButton(words, bar_);
    b->setObjectName(QString::fromLatin1(name));
    bar->addWidget(b);
    return b;
  };
  differences_ = new QCheckBox(tr("differences &only"), bar_);
  differences_->setObjectName(QStringLiteral("differencesOnly"));
  differences_->setChecked(true);
  bar->addWidget(differences_);
  bar->addStretch();
  from_ = new QComboBox(bar_);
  from_->setObjectName(QStringLiteral("scenarioFrom"));
  from_->setAccessibleName(tr("Scenario to take from"));
  bar->addWidget(from_);
  copy_ = button("copyScenario", tr("copy to"));
  to_ = new QComboBox(bar_);
  to_->setObjectName(QStringLiteral("scenarioTo"));
  to_->setAccessibleName(tr("Scenario to change"));
  bar->addWidget(to_);
  swap_ = button("swapScenarios", tr("swap"));
  reset_ = button("resetScenario", tr("reset"));
  remove_ = button("removeScenario", tr("remove"));
  const auto act = [this](QPushButton* b, const std::function<services::CaseEdit(const Case&)>& edit) {
    connect(b, &QPushButton::clicked, this, [this, edit] { bench_.apply(edit(bench_.settled().caseOf())); });
  };
  act(copy_, [this](const Case& c) {
    return services::copyScenario(c, bench_.settled().evaluation->model(), chosen(from_), chosen(to_));
  });
  act(swap_, [this](const Case& c) { return services::swapScenarios(c, chosen(from_), chosen(to_)); });
  act(reset_, [this](const Case& c) { return services::resetScenario(c, chosen(to_)); });
  act(remove_, [this](const Case& c) { return services::removeScenario(c, chosen(to_)); });
  connect(differences_, &QCheckBox::toggled, this, &OutlookTables::refresh);
  for (QComboBox* box : {from_, to_}) box->setMinimumContentsLength(5);
  for (QComboBox* box : {from_, to_}) connect(box, &QComboBox::activated, this, &OutlookTables::refreshScenarioBar);
}

std::string OutlookTables::chosen(const QComboBox* box) const {
  const auto& scenarios = bench_.settled().caseOf().scenarios;
  const int at = box->currentIndex();
  return at >= 0 && at < static_cast<int>(scenarios.size()) ? scenarios[static_cast<size_t>(at)].id : std::string();
}

void OutlookTables::refreshScenarioBar() {
  const QStringList labels = scenarioHeaders(bench_.settled());
  for (QComboBox* box : {from_, to_}) {
    const int at = box->currentIndex();
    box->clear();
    box->addItems(labels);
    const auto otherwise = static_cast<int>(labels.size()) - 1;
    box->setCurrentIndex(at >= 0 && at < labels.size() ? at : box == from_ ? 0 : otherwise);
  }
  const std::string from = chosen(from_);
  const std::string to = chosen(to_);
  const bool shipped = to == "worst" || to == kBase || to == "best";
  copy_->setEnabled(from != to);
  swap_->setEnabled(from != to && from != kBase && to != kBase);
  reset_->setEnabled(to != kBase);
  remove_->setEnabled(!shipped);
}

void OutlookTables::show(Show what) {
  what_ = what;
  refresh();
}

void OutlookTables::refresh() {
  if (!bench_.isOpen()) return;
  for (QWidget* w : std::initializer_list<QWidget*>{bar_, name_, add_, rename_})
    w->setVisible(what_ == Show::Scenarios);
  roll_->setVisible(what_ == Show::Actual && services::yearsAhead(bench_.now()) > 0);
  publishBar_->setVisible(what_ == Show::Published);
  refreshScenarioBar();
  switch (what_) {
    case Show::Scenarios:
      return fillScenarios();
    case Show::Decide:
      return fillDecide();
    case Show::Caution:
      return fillCaution();
    case Show::Actual:
      return fillActual();
    case Show::Interim:
      return fillInterim();
    case Show::Published:
      return fillPublished();
  }
}

void OutlookTables::fillDecide() {
  if (bench_.isPreviewing()) return;  // a hundred valuations are too many for every move of a hand
  const services::Snapshot& s = bench_.now();
  const services::DecideNext next = services::decideNext(s);
  grid_->setWidths(70, 60);
  grid_->setColumns({70, 76, 76, 180, 320});
  grid_->ledger().setCorner({});
  const QString unit = unitOf(s, next.kind);
  words_->setText(next.list.empty()
                      ? tr("Everything is decided.")
                      : tr("What each open driver moves in base, %1, from the lower to the upper quartile "
                           "of its history. Enter shows it; a reason typed here takes it as it stands.")
                            .arg(unit));
  grid_->ledger().fill({unit, tr("at lower"), tr("at upper"), tr("stands at"), tr("because")}, decideRows(s, next),
                       true);
}

void OutlookTables::fillScenarios() {
  const services::Snapshot& s = bench_.now();
  std::vector<LedgerRow> rows;
  LedgerRow value;
  value.label = tr("Value per share");
  value.unit = unitOf(s, Kind::Quote);
  value.kind = Kind::Quote;
  value.strong = true;
  for (int i = 0; i < s.evaluation->scenarios(); ++i) {
    value.cells.push_back(figureCell(s.evaluation->constant(model::Role::ValuePerShare, i)));
    value.cells.back().source = model::Cell{s.evaluation->model().find(model::Role::ValuePerShare), 0};
    value.cells.back().scenario = i;
  }
  // Whole valuations of their own: while a hand moves a point they stay as they were.
  if (!bench_.isPreviewing() || references_.empty()) {
    references_.clear();
    for (const services::Reference reference : services::kReferences) {
      const Result<Figure> figure = bench_.referenceValue(reference);
      references_.push_back(figure ? *figure : Figure::notMeaningful(figure.error().text()));
    }
  }
  for (size_t i = 0; i < references_.size(); ++i) {
    value.cells.push_back(figureCell(references_[i]));
    value.cells.back().story = [reference = services::kReferences[i],
                                figure = references_[i]](const services::Snapshot& of) {
      return services::referenceValueStory(of, reference, figure);
    };
  }
  rows.push_back(std::move(value));
  QString group;
  for (const services::ScenarioLine& line : services::scenarioLines(s)) {
    if (differences_->isChecked() && !line.differs) continue;
    if (text(line.group) != group) rows.push_back(headingRow(group = text(line.group)));
    LedgerRow row;
    row.label = text(line.label);
    row.unit = unitOf(s, line.kind);
    row.kind = line.kind;
    row.key = line.driver ? text(line.row) : QString();
    const model::RowId described = s.model().find(line.row);
    for (const model::Option& option : s.model()[described].options) row.choices << text(option.label);
    for (size_t i = 0; i < line.cells.size(); ++i) {
      const services::ScenarioCell& from = line.cells[i];
      LedgerCell cell = figureCell(from.figure);
      if (!from.words.empty()) {
        cell.words = text(from.words);
        cell.left = true;
      }
      cell.ink = from.own ? Ink::Assumed : Ink::Derived;
      cell.quiet = !from.own;
      cell.editable = true;
      cell.chooses = !row.choices.isEmpty();
      cell.source =
          model::Cell{s.evaluation->model().find(line.row), line.driver ? s.evaluation->layout().columns() - 1 : 0};
      cell.scenario = static_cast<int>(i);
      cell.tip = text(from.words.empty() ? from.reason : from.words + "\n" + from.reason);
      row.cells.push_back(std::move(cell));
    }
    for (size_t i = 0; i < line.references.size(); ++i) {
      row.cells.push_back(figureCell(line.references[i]));
      row.cells.back().ink = Ink::Filed;
      row.cells.back().story = [index = s.evaluation->model().find(line.row), reference = services::kReferences[i],
                                figure = line.references[i]](const services::Snapshot& of) {
        return services::referenceStory(of, index, reference, figure);
      };
    }
    rows.push_back(std::move(row));
  }
  QStringList headers = scenarioHeaders(s);
  for (const services::Reference reference : services::kReferences) {
    headers << tr(services::referenceWords(reference));
  }
  std::vector<int> widths(s.caseOf().scenarios.size(), 128);
  widths.insert(widths.end(), std::size(services::kReferences), 92);
  grid_->setWidths(128, 0);
  grid_->setColumns(std::move(widths));
  grid_->ledger().setCorner({});
  grid_->ledger().fill(headers, std::move(rows));
  words_->setText(tr("A figure typed holds; quiet ones follow base; Enter shows the driver."));
}

void OutlookTables::typed(int row, int column, const QString& typed) {
  const LedgerRow& line = grid_->ledger().ledgerRows()[static_cast<size_t>(row)];
  const services::Snapshot& s = bench_.settled();
  if (what_ == Show::Decide) {
    const model::RowId open = s.model().find(line.key.toStdString());
    if (typed.trimmed().isEmpty() || !open.known()) return;
    bench_.apply(services::confirm(s, open, bench_.saidNow(typed.trimmed())));
    return;
  }
  if (what_ != Show::Scenarios || column >= static_cast<int>(s.caseOf().scenarios.size())) return;
  const bool chooses = !line.choices.isEmpty();
  const std::optional<double> figure = chooses ? typedOption(typed, line) : typedShown(typed.toStdString(), line.kind);
  if (!figure && chooses) return bench_.say(noSuchOption(typed, line), true);
  if (!figure) {
    bench_.say(tr("'%1' is not a number for %2; nothing was changed").arg(typed.left(40), line.label), true);
    return;
  }
  const model::Model& m = s.evaluation->model();
  const model::Row& target = m[line.cells[static_cast<size_t>(column)].source->row];
  const std::string id = s.caseOf().scenarios[static_cast<size_t>(column)].id;
  if (target.declared == model::Declared::Driver) {
    Path path;
    path.level = *figure;
    bench_.apply(services::setDriver(s.caseOf(), m, id, target.name, path, bench_.saidNow({})));
  } else {
    bench_.apply(services::setInput(s.caseOf(), m, id, target.name, *figure, bench_.saidNow({})));
  }
}

void OutlookTables::fillCaution() {
  if (bench_.isPreviewing()) return;  // fifty valuations are too many for every move of a hand
  const services::Snapshot& s = bench_.now();
  const Result<services::SumOfCaution> sum = bench_.sumOfCaution();
  grid_->setWidths(100, 0);
  grid_->setColumns({100, 100, 120});
  grid_->ledger().setCorner({});
  grid_->ledger().fill({tr("chosen, %1").arg(text(s.periodOf(s.evaluation->layout().columns() - 1))), tr("neutral"),
                        tr("effect, %1").arg(text(s.company().listing.unit))},
                       sum ? cautionRows(s, *sum) : std::vector<LedgerRow>());
  words_->setText(sum ? tr("What each choice of Base does to the value per share against a neutral one: the median of "
                           "the driver's regular years, or the model's preset. Caution below zero costs value.")
                      : text(sum.error().text()));
}

void OutlookTables::fillActual() {
  const services::Snapshot& s = bench_.now();
  QStringList headers = scenarioHeaders(s);
  headers << tr("actual") << tr("gap") << tr("gap, %");
  grid_->setWidths(78, 0);
  grid_->setColumns(std::vector<int>(static_cast<size_t>(headers.size()), 78));
  grid_->ledger().setCorner(cornerOf(s));
  grid_->ledger().fill(headers, actualRows(s));
  const int ahead = services::yearsAhead(s);
  const QString to = QString::number(s.years().back().label() + ahead);
  words_->setText(ahead > 0 ? tr("%1 is filed, and the outlook still starts from %2. Rolling forward keeps the state "
                                 "before as a version, moves the base year on and leaves what was typed with its year.")
                                  .arg(to)
                                  .arg(s.years().back().label())
                            : tr("No year has been filed since %1. When an annual report comes in, it is set against "
                                 "the forecast here before the outlook is rolled forward.")
                                  .arg(s.years().back().label()));
  roll_->setText(tr("&Roll forward to %1").arg(to));
}

void OutlookTables::fillInterim() {
  const services::Snapshot& s = bench_.now();
  const services::InterimProgress progress = services::interimProgress(s);
  const QString year = text(s.periodOf(s.evaluation->layout().historyYears));
  grid_->setWidths(60, 0);
  grid_->setColumns({54, 64, 66, 52, 76, 56, 58, 66});
  grid_->ledger().setCorner(cornerOf(s));
  grid_->ledger().fill({tr("to date"), tr("yr before"), tr("growth, %"), year, tr("reached, %"), tr("usual, %"),
                        tr("to come"), tr("growth, %")},
                       interimRows(s, progress));
  words_->setText(
      progress.period.empty()
          ? tr("No interim report of %1 has been filed. When one comes in, the year to date stands here "
               "against the forecast, with what the year before had reached by then.")
                .arg(year)
          : tr("Year to %1. Usual is what the year before had reached of its whole at that date; to come is "
               "what the forecast of %2 still needs, and its growth over the rest of the year before.")
                .arg(text(progress.period), year));
}

void OutlookTables::makePublishBar() {
  auto* bar = new QHBoxLayout(publishBar_);
  bar->setContentsMargins(8, 2, 8, 2);
  const auto field = [&](const char* name, const QString& hint, int width) {
    auto* edit = new QLineEdit(publishBar_);
    edit->setObjectName(QString::fromLatin1(name));
    edit->setPlaceholderText(hint);
    edit->setAccessibleName(hint);
    keepAsDraft(bench_, edit, edit->objectName());
    edit->setMaximumWidth(width);
    edit->setMaxLength(80);
    bar->addWidget(edit);
    return edit;
  };
  const auto button = [&](const char* name, const QString& words) {
    auto* b = new QPushButton(words, publishBar_);
    b->setObjectName(QString::fromLatin1(name));
    bar->addWidget(b);
    return b;
  };
  publishName_ = field("publishName", tr("name"), 150);
  publishNote_ = field("publishNote", tr("note"), 180);
  publish_ = button("publish", tr("&freeze as published"));
  bar->addStretch();
  sets_ = new QComboBox(publishBar_);
  sets_->setObjectName(QStringLiteral("publishedSets"));
  sets_->setAccessibleName(tr("Published estimates shown"));
  sets_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  sets_->setMinimumContentsLength(14);
  bar->addWidget(sets_);
  withdraw_ = button("withdraw", tr("withdra&w"));
  const auto freeze = [this] {
    const QString name = publishName_->text().trimmed();
    if (name.isEmpty()) return bench_.say(tr("Give the published estimates a name first"), true);
    const services::CaseEdit edit =
        services::publish(bench_.settled(), name.toStdString(), bench_.saidNow(publishNote_->text().trimmed()));
    if (!bench_.apply(edit)) return;
    publishName_->clear();
    publishNote_->clear();
    sets_->setCurrentIndex(sets_->count() - 1);
    refresh();
  };
  connect(publish_, &QPushButton::clicked, this, freeze);
  connect(publishName_, &QLineEdit::returnPressed, this, freeze);
  connect(sets_, &QComboBox::activated, this, [this] { fillPublished(); });
  connect(withdraw_, &QPushButton::clicked, this,
          [this] { bench_.apply(services::withdraw(bench_.settled().caseOf(), sets_->currentText().toStdString())); });
}

void OutlookTables::fillPublished() {
  const services::Snapshot& s = bench_.now();
  const std::vector<PublishedSet>& all = s.caseOf().published;
  QStringList names;
  for (const PublishedSet& set : all) names << text(set.name);
  QStringList there;
  for (int i = 0; i < sets_->count(); ++i) there << sets_->itemText(i);
  if (there != names) {
    const QString before = sets_->currentText();
    sets_->clear();
    sets_->addItems(names);
    sets_->setCurrentIndex(std::max(static_cast<int>(names.indexOf(before)), names.isEmpty() ? -1 : 0));
  }
  const auto set =
      std::find_if(all.begin(), all.end(), [&](const PublishedSet& p) { return text(p.name) == sets_->currentText(); });
  words_->setText(
      set == all.end()
          ? tr("Nothing is published yet. Freezing keeps Base's lines and all values per share of today "
               "under a name; nothing changes them afterwards, and what they have become stands beside them.")
          : tr("Published %1 by %2, valued at %3%4. Frozen; Base and what was filed since stand beside it.")
                .arg(text(set->said.at.substr(0, 10)), text(set->said.author), text(dateText(set->valuationDate)),
                     set->said.reason.empty() ? QString() : QStringLiteral(": ") + text(set->said.reason)));
  withdraw_->setEnabled(!names.isEmpty());
  sets_->setEnabled(!names.isEmpty());
  grid_->setWidths(70, 0);
  grid_->setColumns({70, 64, 60, 50, 72, 104});
  grid_->ledger().setCorner(cornerOf(s));
  grid_->ledger().fill({tr("published"), tr("now"), tr("change"), tr("%"), tr("consensus"), tr("guidance")},
                       set == all.end() ? std::vector<LedgerRow>() : publishedRows(s, *set));
}

}  // namespace zl::app
