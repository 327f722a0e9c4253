#include "app/pages/filings_page.h"

#include <QApplication>
#include <QClipboard>
#include <QDragEnterEvent>
#include <QHBoxLayout>
#include <QMimeData>
#include <QSplitter>
#include <QUrl>
#include <QVBoxLayout>

#include "app/grid/ledger_rows.h"
#include "app/grid/line_choice.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {
namespace {

LedgerCell wordsCell(const QString& words, const QString& tip = {}) {
  LedgerCell cell;
  cell.words = words;
  cell.ink = Ink::Plain;
  cell.tip = tip.isEmpty() ? words : tip;
  return cell;
}

LedgerCell countCell(int count) {
  return wordsCell(QString::number(count));
}

}  // namespace

FilingsPage::FilingsPage(Workbench& bench, QWidget* parent) : Page(bench, Stop::Filings, parent) {
  setAcceptDrops(true);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 4, 0, 0);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 0, 8, 0);
  auto* add = new QPushButton(tr("&Import files…"), this);
  add->setObjectName(QStringLiteral("importFiles"));
  bar->addWidget(add);
  auto* paste = new QPushButton(tr("&Paste cells"), this);
  paste->setObjectName(QStringLiteral("pasteCells"));
  bar->addWidget(paste);
  connect(paste, &QPushButton::clicked, this, &FilingsPage::offerPasted);
  auto* hint =
      new QLabel(tr("or drop files and folders here: filed reports, workbooks, tables, a company record"), this);
  bar->addWidget(hint);
  bar->addStretch();
  layout->addLayout(bar);
  panel_ = new ImportPanel(this);
  layout->addWidget(panel_, 2);
  connect(&bench_, &Workbench::opened, panel_, &ImportPanel::close);  // it was read for another company
  connect(panel_, &ImportPanel::failed, this, [this](const QString& message) { bench_.say(message, true); });
  connect(panel_, &ImportPanel::accepted, this,
          [this](std::vector<services::ImportPreview> previews) { bench_.bringIn(std::move(previews)); });
  auto* splitter = new QSplitter(Qt::Vertical, this);
  splitter->setChildrenCollapsible(false);
  documents_ = addGrid("documents", tr("Documents"));
  documents_->setWidths(280, 120, 0);
  documents_->setColumns({100, 190, 70, 110});
  splitter->addWidget(documents_);
  auto* lower = new QWidget(splitter);
  auto* lowerLayout = new QVBoxLayout(lower);
  lowerLayout->setContentsMargins(0, 0, 0, 0);
  tiesTitle_ = sectionLabel({}, lower);
  tiesTitle_->setObjectName(QStringLiteral("tiesTitle"));
  auto* tiesBar = new QHBoxLayout;
  tiesBar->setContentsMargins(0, 0, 8, 0);
  tiesBar->addWidget(tiesTitle_, 1);
  firstFiled_ = new QCheckBox(tr("every line as &first filed"), lower);
  firstFiled_->setObjectName(QStringLiteral("firstFiled"));
  tiesBar->addWidget(firstFiled_);
  lowerShows_ = new QComboBox(lower);
  lowerShows_->setObjectName(QStringLiteral("filingsShow"));
  lowerShows_->setAccessibleName(tr("Checks shown"));
  lowerShows_->addItems({tr("ties"), tr("restatements")});
  tiesBar->addWidget(lowerShows_);
  lowerLayout->addLayout(tiesBar);
  restated_ = addGrid("restated", tr("Restatements"));
  restated_->setWidths(220, 110, 0);
  restated_->keepLabel(190);
  restated_->setColumns({180, 110, 110, 110, 100});
  restated_->hide();
  lowerLayout->addWidget(restated_, 1);
  connect(lowerShows_, &QComboBox::currentIndexChanged, this, [this] {
    if (bench_.isOpen()) refresh();
  });
  connect(firstFiled_, &QCheckBox::clicked, this, [this](bool on) {
    bench_.apply(services::setFirstFiled(bench_.settled().caseOf(), now().resources->model, kEveryLine, on));
  });
  connect(restated_, &LedgerView::rowActivated, this, [this](int row, int) { toggleFirstFiled(row); });
  ties_ = addGrid("ties", tr("Ties by year"));
  ties_->setWidths(280, 58, 0);
  lowerLayout->addWidget(ties_, 1);
  unmappedTitle_ = sectionLabel({}, lower);
  lowerLayout->addWidget(unmappedTitle_);
  unmapped_ = addGrid("unmapped", tr("Concepts without a rule"));
  unmapped_->setWidths(210, 130, 0);
  unmapped_->keepLabel(190);
  unmapped_->setColumns({160, 150, 46, 140, 178});
  connect(&unmapped_->ledger(), &LedgerModel::typed, this,
          [this](int row, int, const QString& typed) { placeConcept(row, typed); });
  lowerLayout->addWidget(unmapped_, 1);
  splitter->addWidget(lower);
  splitter->setSizes({190, 440});
  layout->addWidget(splitter, 1);
  connect(panel_, &ImportPanel::tableShown, splitter, [splitter](bool shown) { splitter->setVisible(!shown); });
  connect(add, &QPushButton::clicked, this, &FilingsPage::filesWanted);
}

void FilingsPage::offer(const QStringList& paths) {
  if (!paths.isEmpty()) panel_->read(paths, bench_.importContext());
}

void FilingsPage::offerPasted() {
  const QString cells = QApplication::clipboard()->text();
  if (cells.trimmed().isEmpty()) {
    bench_.say(tr("The clipboard holds no cells; copy them in the other program first"), true);
    return;
  }
  panel_->read({"pasted cells", cells.toStdString()}, bench_.importContext());
}

void FilingsPage::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void FilingsPage::dropEvent(QDropEvent* event) {
  QStringList paths;
  for (const QUrl& url : event->mimeData()->urls()) {
    if (url.isLocalFile()) paths << url.toLocalFile();
  }
  offer(paths);
}

void FilingsPage::refresh() {
  refreshDocuments();
  const bool restated = lowerShows_->currentIndex() == 1;
  ties_->setVisible(!restated);
  restated_->setVisible(restated);
  firstFiled_->setVisible(restated);
  firstFiled_->setChecked(now().caseOf().firstFiled.count(kEveryLine) > 0);
  if (restated) {
    refreshRestated();
  } else {
    refreshTies();
  }
  refreshUnmapped();
}

void FilingsPage::refreshDocuments() {
  const services::Snapshot& s = now();
  std::map<std::int64_t, int> facts;
  for (const Fact& f : s.evidence->facts) ++facts[f.document];
  std::vector<LedgerRow> rows;
  for (const store::StoredDocument& d : s.evidence->documents) {
    LedgerRow row;
    row.label = text(d.document.name);
    const bool filing = facts.count(d.document.id) > 0;
    row.cells = {wordsCell(d.document.periodEnd ? text(dateText(*d.document.periodEnd)) : QString()),
                 wordsCell(text(d.document.kind)),
                 wordsCell(filing ? QString::number(facts[d.document.id]) : QString()),
                 wordsCell(text(d.document.importedAt.substr(0, 10)))};
    if (!d.active) {
      for (LedgerCell& cell : row.cells) cell.struck = true;
      row.label += tr(" (undone)");
    }
    rows.push_back(std::move(row));
  }
  documents_->ledger().fill({tr("year to"), tr("kind"), tr("facts"), tr("brought in")}, std::move(rows));
}

void FilingsPage::refreshTies() {
  const services::Snapshot& s = now();
  const std::vector<TieResult>& results = s.filed->ties;
  std::vector<LedgerRow> rows(s.resources->ties.size());
  int failed = 0;
  for (size_t t = 0; t < rows.size(); ++t) rows[t].label = text(s.resources->ties[t].label);
  for (const TieResult& r : results) {
    LedgerCell cell = wordsCell({});
    switch (r.state) {
      case TieResult::State::Ties:
        cell = wordsCell(QStringLiteral("✓"),
                         tr("ties; off by %1, the filed rounding allows %2").arg(text(r.gap), text(r.tolerance)));
        cell.quiet = true;
        break;
      case TieResult::State::Fails:
        cell = wordsCell(text(groupedNumber(std::stod(r.gap) / 1e6, 3)),
                         tr("off by %1, the filed rounding allows %2").arg(text(r.gap), text(r.tolerance)));
        ++failed;
        break;
      case TieResult::State::NotChecked:
        cell = wordsCell(QStringLiteral("·"), tr("%1 is not filed").arg(text(r.missing)));
        break;
    }
    const int row = s.evaluation->model().find(s.resources->ties[r.tie].total.line);
    if (row >= 0) cell.source = model::Cell{row, r.column};
    rows[r.tie].cells.push_back(std::move(cell));
  }
  tiesTitle_->setText(failed == 0 ? tr("Ties: all hold within the filed rounding")
                                  : tr("Ties: %1 fail, by the amounts shown in millions").arg(failed));
  ties_->ledger().fill(periodHeaders(s, 0, s.evaluation->layout().historyYears), std::move(rows));
}

void FilingsPage::refreshRestated() {
  const services::Snapshot& s = now();
  std::vector<LedgerRow> rows;
  for (const Restatement& r : s.filed->restatements) {
    const Fact& first = s.evidence->facts[r.first];
    const Fact& last = s.evidence->facts[r.last];
    const std::string line = services::lineOf(*s.filed, *s.resources, first.concept_name);
    const auto from = [&](const Fact& f) {
      const store::StoredDocument* d = s.document(f.document);
      return (d == nullptr ? QString() : text(d->document.name) + QStringLiteral(", ")) + text(f.place);
    };
    const int index = s.evaluation->model().find(line);
    LedgerRow row;
    row.label =
        index >= 0 ? text(s.evaluation->model().rows[static_cast<size_t>(index)].label) : text(first.concept_name);
    row.key = text(line);
    const bool useFirst = usesFirstFiled(s.caseOf(), line);
    const auto amount = [&](const Fact& f, bool inUse) {
      LedgerCell cell;
      cell.figure = f.figure();
      cell.ink = Ink::Filed;
      cell.quiet = !inUse;
      cell.tip = from(f);
      return cell;
    };
    LedgerCell change;
    change.figure = last.figure() - first.figure();
    row.kind = first.unit == "shares" ? Kind::Shares : Kind::Money;
    row.cells = {wordsCell(text(first.period.text())), amount(first, useFirst), amount(last, !useFirst), change,
                 wordsCell(index < 0  ? tr("no line")
                           : useFirst ? tr("first filed")
                                      : tr("last filed"))};
    if (index >= 0) {
      for (LedgerCell& cell : row.cells) {
        for (int c = 0; c < static_cast<int>(s.years().size()); ++c) {
          if (s.years()[static_cast<size_t>(c)].end == first.period.end) cell.source = model::Cell{index, c};
        }
      }
    }
    rows.push_back(std::move(row));
  }
  tiesTitle_->setText(
      rows.empty()
          ? tr("Restatements: no later filing changed an earlier figure")
          : tr("Restatements: %1 figures that a later filing changed; Enter on a row uses the other").arg(rows.size()));
  restated_->ledger().setCorner(cornerOf(s));
  restated_->ledger().fill({tr("period"), tr("first filed"), tr("last filed"), tr("change"), tr("in use")},
                           std::move(rows));
}

void FilingsPage::toggleFirstFiled(int row) {
  const std::string line = restated_->ledger().ledgerRows()[static_cast<size_t>(row)].key.toStdString();
  const Case& c = bench_.settled().caseOf();
  if (c.firstFiled.count(kEveryLine) > 0) {
    bench_.say(tr("Every line is used as first filed; take that back to choose line by line"), true);
  } else if (line.empty()) {
    bench_.say(tr("This concept stands on no line; there is nothing to choose"), true);
  } else {
    bench_.apply(services::setFirstFiled(c, now().resources->model, line, c.firstFiled.count(line) == 0));
  }
}

void FilingsPage::refreshUnmapped() {
  const services::Snapshot& s = now();
  const services::Standardised& filed = *s.filed;
  std::vector<LedgerRow> rows;
  const auto addRow = [&](const std::string& concept_name, const LineChoice& choice, int facts, const Fact* example) {
    LedgerRow row;
    row.label = text(concept_name);
    row.key = row.label;
    LedgerCell to = wordsCell(lineLabel(s.resources->model, choice),
                              tr("Type a line, − before it for the other sign, or nothing to set the concept aside; "
                                 "? lets the rules decide"));
    to.left = true;
    to.editable = true;
    to.chooses = true;
    to.ink = Ink::Assumed;
    to.quiet = s.caseOf().lines.count(concept_name) == 0;
    LedgerCell why = wordsCell(text(choice.reason));
    why.left = true;
    row.cells = {std::move(to), std::move(why), countCell(facts)};
    if (example != nullptr) {
      const services::Snapshot& shown = now();
      const store::StoredDocument* document = shown.document(example->document);
      const QString place = (document == nullptr ? QString() : text(document->document.name) + QStringLiteral(", ")) +
                            text(example->place);
      row.cells.push_back(wordsCell(text(example->text) + QLatin1Char(' ') + text(example->unit), place));
      row.cells.push_back(wordsCell(text(example->period.text()), place));
    }
    rows.push_back(std::move(row));
  };
  for (const UnmappedConcept& u : filed.statements.unmapped()) {
    addRow(u.concept_name, {"", 1, u.reason}, u.facts, &s.evidence->facts[u.example]);
  }
  const size_t aside = rows.size();
  std::map<std::string, std::pair<int, const Fact*>> placed;
  for (const Fact& f : s.evidence->facts) {
    if (filed.choices.count(f.concept_name) == 0) continue;
    auto& [count, example] = placed[f.concept_name];
    ++count;
    example = &f;
  }
  for (const auto& [concept_name, about] : placed) {
    const LineChoice& choice = filed.choices.at(concept_name);
    if (!choice.line.empty()) addRow(concept_name, choice, about.first, about.second);
  }
  unmappedTitle_->setText(tr("Concepts without a rule: %1 set aside, %2 placed; %3 facts with segments kept apart")
                              .arg(aside)
                              .arg(rows.size() - aside)
                              .arg(filed.statements.segmentFacts()));
  unmapped_->ledger().setChoices(lineLabels(s.resources->model));
  unmapped_->ledger().fill({tr("goes to line"), tr("because"), tr("facts"), tr("for example"), tr("period")},
                           std::move(rows));
}

void FilingsPage::placeConcept(int row, const QString& typed) {
  const std::string concept_name = unmapped_->ledger().ledgerRows()[static_cast<size_t>(row)].key.toStdString();
  const model::Model& m = now().resources->model;
  if (typed.trimmed() == QLatin1String("?")) {
    bench_.apply(services::setLineChoice(now().caseOf(), m, concept_name, std::nullopt));
    return;
  }
  const std::optional<LineChoice> choice = typedLine(m, typed);
  if (!choice) {
    bench_.say(tr("There is no standard line '%1'; nothing was changed").arg(typed.trimmed().left(40)), true);
    return;
  }
  bench_.apply(services::setLineChoice(now().caseOf(), m, concept_name, *choice));
}

}  // namespace zl::app
