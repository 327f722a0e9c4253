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
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/filing/fact_lines.h"
#include "core/quantity/number_text.h"
#include "services/stories/history_stories.h"

namespace zl::app {
namespace {

LedgerCell plainCell(const QString& words, const QString& tip = {}) {
  LedgerCell cell;
  cell.words = words;
  cell.ink = Ink::Plain;
  cell.tip = tip.isEmpty() ? words : tip;
  return cell;
}

QString labelsOf(const model::Model& m, const std::vector<std::string>& lines) {
  QStringList labels;
  for (const std::string& line : lines) {
    const model::RowId row = m.find(line);
    labels << text(row.known() ? m[row].label : line);
  }
  return labels.join(QStringLiteral(", "));
}

LedgerCell countCell(int count) {
  return plainCell(QString::number(count));
}

void tell(LedgerCell& cell, const services::FiledTie& tie) {
  cell.story = [tie](const services::Snapshot& s) { return services::tieStory(s, tie); };
}

/// Parts of the company against the whole, a row per concept and axis.
void addSegmentSums(const services::Snapshot& s, std::vector<LedgerRow>& rows,
                    std::map<std::pair<int, int>, std::vector<size_t>>& facts, int& failed) {
  std::map<std::pair<std::string, std::string>, size_t> at;
  for (const SegmentSum& sum : s.review->segmentSums) {
    const auto [found, fresh] = at.try_emplace({sum.concept_name, sum.axis}, rows.size());
    if (fresh) {
      LedgerRow row;
      row.label = text(plainMember(sum.concept_name)) + QObject::tr(" by ") + text(plainMember(sum.axis)).toLower();
      row.cells.assign(s.years().size(), plainCell(QStringLiteral("·"), QObject::tr("no parts are filed")));
      rows.push_back(std::move(row));
    }
    LedgerCell& cell = rows[found->second].cells[static_cast<size_t>(sum.column)];
    cell.tip = QObject::tr("off by %1, the filed rounding allows %2").arg(text(sum.gap), text(sum.tolerance));
    cell.words = sum.ties ? QStringLiteral("✓") : text(groupedNumber(std::stod(sum.gap) / 1e6, 3));
    cell.quiet = sum.ties;
    failed += sum.ties ? 0 : 1;
    facts[{static_cast<int>(found->second), sum.column}] = sum.facts;
    tell(cell, {rows[found->second].label.toStdString(), "", sum.column, sum.ties, sum.gap, sum.tolerance, sum.facts});
  }
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
      new PlainLabel(tr("or drop files and folders here: filed reports, workbooks, tables, a company record"), this);
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
  documents_->setWidths(120, 0);
  documents_->setColumns({100, 190, 70, 110});
  splitter->addWidget(documents_);
  auto* lower = new QWidget(splitter);
  auto* lowerLayout = new QVBoxLayout(lower);
  lowerLayout->setContentsMargins(0, 0, 0, 0);
  tiesTitle_ = sectionLabel({}, lower);
  tiesTitle_->setObjectName(QStringLiteral("tiesTitle"));
  tiesTitle_->setWordWrap(true);
  auto* tiesBar = new QHBoxLayout;
  tiesBar->setContentsMargins(0, 0, 8, 0);
  tiesBar->addWidget(tiesTitle_, 1);
  firstFiled_ = new QCheckBox(tr("every line as &first filed"), lower);
  firstFiled_->setObjectName(QStringLiteral("firstFiled"));
  tiesBar->addWidget(firstFiled_);
  lowerShows_ = new QComboBox(lower);
  lowerShows_->setObjectName(QStringLiteral("filingsShow"));
  lowerShows_->setAccessibleName(tr("Checks shown"));
  lowerShows_->addItems({tr("ties"), tr("restatements"), tr("as filed beside standard")});
  tiesBar->addWidget(lowerShows_);
  lowerLayout->addLayout(tiesBar);
  restated_ = addGrid("restated", tr("Restatements"));
  restated_->setWidths(110, 0);
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
  ties_->setWidths(58, 0);
  lowerLayout->addWidget(ties_, 1);
  connect(ties_, &LedgerView::rowActivated, this, &FilingsPage::showTie);
  beside_ = new BesidePanel(bench_, lower);
  beside_->hide();
  lowerLayout->addWidget(beside_, 3);
  connect(beside_, &BesidePanel::factsWanted, this, &FilingsPage::showFacts);
  connect(beside_, &BesidePanel::lineTyped, this, &FilingsPage::placeConcept);
  unmappedTitle_ = sectionLabel({}, lower);
  lowerLayout->addWidget(unmappedTitle_);
  unmapped_ = addGrid("unmapped", tr("Concepts without a rule"));
  unmapped_->setWidths(130, 0);
  unmapped_->setColumns({160, 150, 46, 140, 178});
  connect(&unmapped_->ledger(), &LedgerModel::typed, this, [this](int row, int, const QString& typed) {
    placeConcept(unmapped_->ledger().ledgerRows()[static_cast<size_t>(row)].key.toStdString(), typed);
  });
  lowerLayout->addWidget(unmapped_, 1);
  splitter->addWidget(lower);
  splitter->setSizes({190, 440});
  views_ = new QStackedWidget(this);
  views_->addWidget(splitter);
  document_ = new DocumentPanel(bench_, views_);
  views_->addWidget(document_);
  layout->addWidget(views_, 1);
  connect(document_, &DocumentPanel::closed, this, [this] {
    views_->setCurrentIndex(0);
    if (before_ != nullptr) before_->setFocus();
  });
  connect(&bench_, &Workbench::opened, this, [this] { views_->setCurrentIndex(0); });
  connect(panel_, &ImportPanel::tableShown, views_, [this](bool shown) { views_->setVisible(!shown); });
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
  const bool beside = lowerShows_->currentIndex() == 2;
  ties_->setVisible(!restated && !beside);
  beside_->setVisible(beside);
  unmapped_->setVisible(!beside);
  unmappedTitle_->setVisible(!beside);
  documents_->setVisible(!beside);
  restated_->setVisible(restated);
  firstFiled_->setVisible(restated);
  firstFiled_->setChecked(now().caseOf().firstFiled.count(kEveryLine) > 0);
  if (beside) {
    tiesTitle_->setText(tr("As filed beside standard lines; Enter shows where a fact stands"));
    beside_->refresh();
  } else if (restated) {
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
    row.cells = {plainCell(d.document.periodEnd ? text(dateText(*d.document.periodEnd)) : QString()),
                 plainCell(text(d.document.kind)),
                 plainCell(filing ? QString::number(facts[d.document.id]) : QString()),
                 plainCell(text(d.document.importedAt.substr(0, 10)))};
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
  const std::vector<TieResult>& results = s.review->ties;
  std::vector<LedgerRow> rows(s.resources->ties.size());
  int failed = 0;
  tieFacts_.clear();
  for (size_t t = 0; t < rows.size(); ++t) rows[t].label = text(s.resources->ties[t].label);
  for (const TieResult& r : results) {
    LedgerCell cell = plainCell({});
    switch (r.state) {
      case TieResult::State::Ties:
        cell = plainCell(QStringLiteral("✓"),
                         tr("ties; off by %1, the filed rounding allows %2").arg(text(r.gap), text(r.tolerance)));
        cell.quiet = true;
        break;
      case TieResult::State::Fails:
        cell = plainCell(text(groupedNumber(std::stod(r.gap) / 1e6, 3)),
                         tr("off by %1, the filed rounding allows %2").arg(text(r.gap), text(r.tolerance)));
        cell.tip += tr("; Enter shows the facts");
        if (!s.resources->ties[r.tie].roll) ++failed;
        cell.quiet = s.resources->ties[r.tie].roll;
        break;
      case TieResult::State::NotChecked:
        cell = plainCell(QStringLiteral("·"), tr("not filed: %1").arg(labelsOf(s.evaluation->model(), r.missing)));
        break;
    }
    const model::RowId row = s.evaluation->model().find(s.resources->ties[r.tie].total.line);
    if (row.known()) cell.source = model::Cell{row, r.column};
    if (r.state != TieResult::State::NotChecked) {
      const Tie& tie = s.resources->ties[r.tie];
      tell(cell, {tie.label, tie.total.line, r.column, r.state == TieResult::State::Ties, r.gap, r.tolerance, r.facts});
    }
    rows[r.tie].cells.push_back(std::move(cell));
    tieFacts_[{static_cast<int>(r.tie), r.column}] = r.facts;
  }
  addSegmentSums(s, rows, tieFacts_, failed);
  tiesTitle_->setText(failed == 0 ? tr("Ties: all hold within the filed rounding")
                                  : tr("Ties: %1 fail, by the amounts shown in millions").arg(failed));
  ties_->ledger().fill(periodHeaders(s, 0, s.evaluation->layout().historyYears), std::move(rows));
}

void FilingsPage::showFacts(const QString& title, const std::vector<size_t>& facts) {
  before_ = QApplication::focusWidget();
  views_->setCurrentWidget(document_);
  document_->show(title, facts);
}

void FilingsPage::showTie(int row, int column) {
  const services::Snapshot& s = now();
  const LedgerRow& shown = ties_->ledger().ledgerRows()[static_cast<size_t>(row)];
  if (column < 0 || column >= static_cast<int>(shown.cells.size())) return;
  const QString title = tr("%1 %2: %3")
                            .arg(shown.label, text(s.periodOf(column)),
                                 shown.cells[static_cast<size_t>(column)].tip.section(QLatin1Char(';'), 0, 0));
  const auto facts = tieFacts_.find({row, column});
  if (facts != tieFacts_.end()) showFacts(title, facts->second);
}

void FilingsPage::refreshRestated() {
  const services::Snapshot& s = now();
  std::vector<LedgerRow> rows;
  for (const Restatement& r : s.review->restatements) {
    const Fact& first = s.evidence->facts[r.first];
    const Fact& last = s.evidence->facts[r.last];
    const std::string line = services::lineOf(*s.filed, *s.resources, first.concept_name);
    const auto from = [&](const Fact& f) {
      const store::StoredDocument* d = s.document(f.document);
      return (d == nullptr ? QString() : text(d->document.name) + QStringLiteral(", ")) + text(f.place);
    };
    const model::RowId index = s.evaluation->model().find(line);
    LedgerRow row;
    row.label = index.known() ? text(s.evaluation->model()[index].label) : text(first.concept_name);
    row.key = text(line);
    const bool useFirst = usesFirstFiled(s.caseOf(), line);
    const auto amount = [&](size_t fact, bool inUse) {
      const Fact& f = s.evidence->facts[fact];
      LedgerCell cell;
      cell.story = [fact](const services::Snapshot& of) { return services::factStory(of, {fact, 1}); };
      cell.figure = f.figure();
      cell.ink = Ink::Filed;
      cell.quiet = !inUse;
      cell.tip = from(f);
      return cell;
    };
    LedgerCell change;
    change.figure = last.figure() - first.figure();
    change.story = [first = r.first, last = r.last](const services::Snapshot& of) {
      return services::restatementStory(of, first, last);
    };
    row.kind = kindOfUnit(first.unit);
    row.cells = {plainCell(text(first.period.text())), amount(r.first, useFirst), amount(r.last, !useFirst), change,
                 plainCell(!index.known() ? tr("no line")
                           : useFirst     ? tr("first filed")
                                          : tr("last filed"))};
    if (index.known()) {
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
    LedgerCell to = plainCell(lineLabel(s.resources->model, choice),
                              tr("Type a line, − before it for the other sign, or nothing to set the concept aside; "
                                 "? lets the rules decide"));
    to.left = true;
    to.editable = true;
    to.chooses = true;
    to.ink = Ink::Assumed;
    to.quiet = s.caseOf().lines.count(concept_name) == 0;
    LedgerCell why = plainCell(text(choice.reason));
    why.left = true;
    row.cells = {std::move(to), std::move(why), countCell(facts)};
    if (example != nullptr) {
      const services::Snapshot& shown = now();
      const store::StoredDocument* document = shown.document(example->document);
      const QString place = (document == nullptr ? QString() : text(document->document.name) + QStringLiteral(", ")) +
                            text(example->place);
      row.cells.push_back(plainCell(text(example->text) + QLatin1Char(' ') + text(example->unit), place));
      const size_t fact = static_cast<size_t>(example - s.evidence->facts.data());
      row.cells.back().story = [fact](const services::Snapshot& of) {
        services::Story story = services::factStory(of, {fact, 1});
        const Fact& asked = of.evidence->facts[fact];
        story.figure = asked.text + ' ' + asked.unit.str();  // exactly as the document has it
        return story;
      };
      row.cells.push_back(plainCell(text(example->period.text()), place));
    }
    rows.push_back(std::move(row));
  };
  // What nothing is known of comes first: it is the only part that asks for a decision.
  size_t unknown = 0;
  for (const bool known : {false, true}) {
    for (const UnmappedConcept& u : filed.statements.unmapped()) {
      if (u.reason.empty() == known) continue;
      addRow(u.concept_name, {"", 1, u.reason}, u.facts, &s.evidence->facts[u.example]);
      unknown += known ? 0 : 1;
    }
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
  unmappedTitle_->setText(
      tr("Concepts without a rule: %1 not known, %2 set aside, %3 placed; %4 facts with segments kept apart")
          .arg(unknown)
          .arg(aside - unknown)
          .arg(rows.size() - aside)
          .arg(filed.statements.segmentFacts()));
  unmapped_->ledger().setChoices(lineLabels(s.resources->model));
  unmapped_->ledger().fill({tr("goes to line"), tr("because"), tr("facts"), tr("for example"), tr("period")},
                           std::move(rows));
}

void FilingsPage::placeConcept(const std::string& concept_name, const QString& typed) {
  const services::Snapshot& s = bench_.settled();
  if (typed.trimmed() == QLatin1String("?")) {
    bench_.apply(services::setLineChoice(s.caseOf(), s.resources->model, concept_name, std::nullopt));
    return;
  }
  const std::optional<LineChoice> choice = typedLine(s.resources->model, typed);
  if (!choice) {
    bench_.say(tr("There is no standard line '%1'; nothing was changed").arg(typed.trimmed().left(40)), true);
    return;
  }
  bench_.apply(services::setLineChoice(s.caseOf(), s.resources->model, concept_name, *choice));
}

}  // namespace zl::app
