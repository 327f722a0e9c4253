#include "app/pages/exit_panel.h"

#include <QHBoxLayout>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <algorithm>
#include <functional>
#include <iterator>

#include "app/bench/draft_field.h"
#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "app/pages/page.h"
#include "core/quantity/number_text.h"
#include "services/stories/exit_stories.h"

namespace zl::app {

ExitPanel::ExitPanel(Workbench& bench, LedgerView* values, LedgerView* grid, LedgerView* runs, QWidget* parent)
    : QWidget(parent), bench_(bench), values_(values), grid_(grid), runs_(runs) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  sentence_ = new PlainLabel(this);
  sentence_->setObjectName(QStringLiteral("exitSentence"));
  sentence_->setWordWrap(true);
  sentence_->setContentsMargins(8, 0, 8, 4);
  layout->addWidget(sentence_);
  auto* paths = new QHBoxLayout;
  paths->setContentsMargins(8, 0, 8, 0);
  paths_ = new QComboBox(this);
  paths_->setObjectName(QStringLiteral("exitPaths"));
  paths_->setAccessibleName(tr("Paths that drive the exit return"));
  auto* label = new PlainLabel(tr("Shape on &Outlook, beside its evidence"), this);
  label->setBuddy(paths_);
  paths->addWidget(label);
  paths->addWidget(paths_);
  paths->addStretch();
  layout->addLayout(paths);
  connect(paths_, &QComboBox::activated, this, [this](int index) {
    const QString driver = paths_->itemData(index).toString();
    paths_->setCurrentIndex(0);
    if (!driver.isEmpty()) bench_.wantDriver(driver.toStdString());
  });
  values_->setWidths(66, 0);
  layout->addWidget(values_);
  grid_->setWidths(66, 0);
  layout->addWidget(
      sectionLabel(tr("Yearly return in % from today's price: growth by itself down, multiple across"), this));
  layout->addWidget(grid_);
  auto* keeps = new QHBoxLayout;
  keeps->setContentsMargins(8, 6, 8, 0);
  runsTitle_ = new PlainLabel(tr("Runs beside each other; &keep the present one as"), this);
  runName_ = new QLineEdit(this);
  runName_->setObjectName(QStringLiteral("exitRunName"));
  runName_->setPlaceholderText(tr("a name, then Enter: a version with all its assumptions"));
  runName_->setAccessibleName(tr("Name of the version that keeps this run"));
  keepAsDraft(bench_, runName_, runName_->objectName());
  runsTitle_->setBuddy(runName_);
  keeps->addWidget(runsTitle_);
  keeps->addWidget(runName_, 1);
  layout->addLayout(keeps);
  connect(runName_, &QLineEdit::returnPressed, this, &ExitPanel::keepRun);
  runs_->setWidths(66, 0);
  layout->addWidget(runs_);
  connect(&bench_, &Workbench::opened, this, [this] { read_.clear(); });
  layout->addStretch();
}

void ExitPanel::keepRun() {
  if (runName_->text().trimmed().isEmpty()) return;
  if (bench_.keepVersion(runName_->text(), tr("a run of the exit return"))) runName_->clear();
  fillRuns();
}

/// The present run, then the versions kept last.
void ExitPanel::fillRuns() {
  if (bench_.isPreviewing()) return;
  constexpr size_t kMostVersions = 5;
  const std::vector<store::KeptVersion> versions = bench_.versions();
  runs_->setVisible(!versions.empty());
  if (versions.empty()) return;
  std::vector<services::Side> sides;
  if (auto present = bench_.sideOf(QString::fromLatin1(services::kNow))) sides.push_back(std::move(*present));
  for (size_t i = versions.size(); i > 0 && sides.size() <= kMostVersions; --i) {
    const store::KeptVersion& v = versions[i - 1];
    auto known = read_.find(v.id);
    if (known == read_.end()) {
      std::optional<services::Side> side = bench_.sideOf(text(v.name));
      if (!side) continue;  // said in the status line; the others are still shown
      known = read_.emplace(v.id, std::move(*side)).first;
    }
    sides.push_back(known->second);
  }
  const Scenario& scenario = bench_.now().caseOf().scenarios[static_cast<size_t>(bench_.scenario())];
  QStringList headers;
  for (const services::Side& side : sides) headers << text(side.name);
  std::vector<LedgerRow> rows;
  for (const services::ExitRunLine& line : services::exitRuns(sides, scenario.id)) {
    LedgerRow row = headingRow(text(line.label));
    row.heading = false;
    row.kind = line.kind;
    row.unit = unitOf(bench_.now(), line.kind);
    for (size_t i = 0; i < line.figures.size(); ++i) {
      row.cells.push_back(figureCell(line.figures[i]));
      row.cells.back().story = [line, i, run = sides[i].name](const services::Snapshot& shown) {
        return services::exitRunStory(shown, line, i, run);
      };
    }
    rows.push_back(std::move(row));
  }
  runs_->ledger().setCorner(text(scenario.label));
  runs_->ledger().fill(headers, std::move(rows));
  runs_->showAll();
}

void ExitPanel::refresh() {
  const services::Snapshot& s = bench_.now();
  const auto base = static_cast<size_t>(std::max(0, s.caseOf().indexOf(kBase)));
  std::vector<LedgerRow> rows = scenarioRows(s, "exit_return", services::exitYear(s, static_cast<int>(base)));
  struct Line {
    QString label;
    Figure (*of)(const services::ExitReturn&);
  };
  const Line lines[] = {
      {tr("Return from today's price, a year"), [](const services::ExitReturn& r) { return r.yearly; }},
      {tr("  of the total, by revenue"), [](const services::ExitReturn& r) { return r.split.revenue; }},
      {tr("  by margin"), [](const services::ExitReturn& r) { return r.split.margin; }},
      {tr("  by the count of shares"), [](const services::ExitReturn& r) { return r.split.count; }},
      {tr("  by the multiple"), [](const services::ExitReturn& r) { return r.split.multiple; }},
      {tr("  by dividends"), [](const services::ExitReturn& r) { return r.split.dividends; }}};
  addBeside(rows);
  std::vector<services::ExitReturn> returns;
  for (int k = 0; k < s.evaluation->scenarios(); ++k) returns.push_back(services::exitReturn(s, k));
  for (const Line& line : lines) {
    LedgerRow row = headingRow(line.label);
    row.heading = false;
    row.unit = QStringLiteral("%");
    row.kind = Kind::Ratio;
    for (size_t k = 0; k < returns.size(); ++k) {
      row.cells.push_back(figureCell(line.of(returns[k])));
      row.cells.back().story = [label = line.label.trimmed().toStdString(), of = returns[k],
                                figure = line.of(returns[k]), k](const services::Snapshot& shown) {
        return services::exitStory(shown, label, of, figure, static_cast<int>(k));
      };
    }
    rows.push_back(std::move(row));
  }
  values_->ledger().setCorner(cornerOf(s));
  values_->ledger().fill(scenarioHeaders(s), std::move(rows));
  values_->showAll();
  const services::ExitReturn& of = returns[base];
  QString words =
      of.toPay.hasValue()
          ? tr("Base: a price to pay of %1 for the required return").arg(text(figureText(of.toPay, Kind::Quote)))
          : tr("Base has no price to pay: %1").arg(text(of.toPay.reason()));
  if (of.yearly.hasValue()) words += tr("; at today's price %1 % a year").arg(text(figureText(of.yearly, Kind::Ratio)));
  if (of.lastAtOrUnder)
    words += tr("; last traded at or under it on %1, at %2")
                 .arg(text(dateText(of.lastAtOrUnder->date)),
                      text(figureText(Figure::of(of.lastAtOrUnder->close), Kind::Quote)));
  sentence_->setText(words + QLatin1Char('.'));
  fillPaths();
  fillRuns();
  fillGrid();
}

/// Beneath the multiple: the own past and what is justified, and how far above them it stands, with why.
void ExitPanel::addBeside(std::vector<LedgerRow>& rows) {
  const services::Snapshot& s = bench_.now();
  if (!bench_.isPreviewing() || beside_.scenarios.size() != s.caseOf().scenarios.size())
    beside_ = services::exitBeside(s);
  const auto& parts = s.model().view("exit_parts");
  constexpr size_t kJustified = 11;
  if (parts.size() <= kJustified) return;
  auto at = std::find_if(rows.begin(), rows.end(),
                         [&](const LedgerRow& row) { return row.key == text(s.model()[parts[kJustified].row].name); });
  if (at == rows.end()) return;
  std::vector<LedgerRow> more;
  const auto add = [&](const QString& label, Kind kind,
                       const std::function<Figure(const services::ExitBeside::Of&)>& of, bool ofAll) {
    LedgerRow row = headingRow(label);
    row.heading = false;
    row.kind = kind;
    row.unit = kind == Kind::Ratio ? QStringLiteral("%") : QStringLiteral("×");
    for (size_t k = 0; k < beside_.scenarios.size(); ++k) {
      const Figure figure = of(beside_.scenarios[k]);
      row.cells.push_back(figureCell(figure));
      if (const std::string& reason = beside_.scenarios[k].reason; !ofAll && !reason.empty())
        row.cells.back().tip = text(reason);
      row.cells.back().story = [label = label.toStdString(), beside = beside_, figure, kind,
                                k = ofAll ? -1 : static_cast<int>(k)](const services::Snapshot& shown) {
        return services::exitBesideStory(shown, label, beside, figure, kind, k);
      };
    }
    more.push_back(std::move(row));
  };
  using Of = services::ExitBeside::Of;
  add(
      tr("Own past, lower quartile"), Kind::Multiple, [&](const Of&) { return beside_.lower; }, true);
  add(
      tr("Own past, median"), Kind::Multiple, [&](const Of&) { return beside_.median; }, true);
  add(
      tr("Own past, upper quartile"), Kind::Multiple, [&](const Of&) { return beside_.upper; }, true);
  add(
      tr("Premium over the own past's median"), Kind::Ratio, [](const Of& of) { return of.overMedian; }, false);
  add(
      tr("Premium over what is justified"), Kind::Ratio, [](const Of& of) { return of.overJustified; }, false);
  rows.insert(std::next(at), std::make_move_iterator(more.begin()), std::make_move_iterator(more.end()));
}

/// What drives it, each one key away from its path and evidence.
void ExitPanel::fillPaths() {
  const model::Model& m = bench_.now().model();
  QStringList drivers;
  for (const model::ViewRow& row : m.view("exit_paths")) {
    if (m[row.row].declared == model::Declared::Driver) drivers << text(m[row.row].name);
  }
  if (drivers == drivers_) return;
  drivers_ = drivers;
  const QSignalBlocker quiet(paths_);
  paths_->clear();
  paths_->addItem(tr("a path…"));
  for (const QString& driver : drivers) paths_->addItem(text(m[m.find(driver.toStdString())].label), driver);
}

void ExitPanel::fillGrid() {
  const services::Snapshot& s = bench_.now();
  const int scenario = bench_.scenario();
  const services::ExitGrid grid = bench_.isPreviewing() ? services::ExitGrid{} : services::exitGrid(s, scenario);
  grid_->setVisible(!grid.growths.empty());
  if (grid.growths.empty()) return;
  QStringList headers;
  for (const double multiple : grid.multiples)
    headers << text(figureText(Figure::of(multiple), Kind::Multiple)) + QStringLiteral(" ×");
  std::vector<LedgerRow> rows;
  for (size_t g = 0; g < grid.growths.size(); ++g) {
    LedgerRow row;
    row.label = tr("growth %1 %").arg(text(figureText(Figure::of(grid.growths[g]), Kind::Ratio)));
    row.kind = Kind::Ratio;
    for (size_t m = 0; m < grid.multiples.size(); ++m) {
      row.cells.push_back(figureCell(grid.yearly[g][m]));
      row.cells.back().story = [growth = grid.growths[g], multiple = grid.multiples[m],
                                figure = grid.yearly[g][m]](const services::Snapshot& of) {
        return services::exitGridStory(of, growth, multiple, figure);
      };
    }
    rows.push_back(std::move(row));
  }
  grid_->ledger().setCorner(text(s.caseOf().scenarios[static_cast<size_t>(scenario)].label));
  grid_->ledger().fill(headers, std::move(rows));
  grid_->showAll();
}

}  // namespace zl::app
