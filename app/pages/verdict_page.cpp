#include "app/pages/verdict_page.h"
#include "app/bench/draft_field.h"

#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <tuple>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "app/pages/own_ranges.h"
#include "core/quantity/number_text.h"
#include "services/stories/outlook_stories.h"
#include "services/views/method_figures.h"
#include "services/views/ranked_findings.h"

namespace zl::app {

VerdictPage::VerdictPage(Workbench& bench, QWidget* parent) : Page(bench, Stop::Verdict, parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  views_ = new SubViews(this);
  layout->addWidget(views_);
  views_->add("methods", tr("methods"), makeMethods());
  views_->add("findings", tr("findings"), makeFindings());
  views_->add("blend", tr("weights and the blend"), makeBlend());
  auto* kept = new QWidget(views_);
  auto* keptLayout = scrolledLayout(kept);
  LedgerView* list = addGrid("versions", tr("Versions"));
  LedgerView* beside = addGrid("versionsBeside", tr("Versions side by side"));
  LedgerView* years = addGrid("versionsByYear", tr("Versions by year"));
  versions_ = new VersionsPanel(bench_, list, beside, years, kept);
  keptLayout->addWidget(versions_, 1);
  views_->add("versions", tr("versions, and what moved the value"), kept);
  LedgerView* limits = addGrid("monitorLimits", tr("Limits of the monitors"));
  limits_ = new LimitsTable(bench_, limits, this);
  views_->add("limits", tr("limits of the monitors"), limits);
  connect(views_, &SubViews::turned, this, [this] {
    if (bench_.isOpen()) refresh();
  });
}

void VerdictPage::startKeeping() {
  views_->show(QStringLiteral("versions"));
  versions_->startKeeping();
}

void VerdictPage::showVersion(const QString& name) {
  views_->show(QStringLiteral("versions"));
  versions_->placeOn(name);
}

QWidget* VerdictPage::makeMethods() {
  auto* view = new QWidget(views_);
  auto* layout = scrolledLayout(view);
  title_ = new PlainLabel(view);
  title_->setObjectName(QStringLiteral("verdictTitle"));
  QFont f = title_->font();
  f.setPointSizeF(f.pointSizeF() + 4);
  f.setBold(true);
  title_->setFont(f);
  title_->setContentsMargins(8, 0, 8, 0);
  title_->setWordWrap(true);
  layout->addWidget(title_);
  sentence_ = new PlainLabel(view);
  sentence_->setObjectName(QStringLiteral("verdictSentence"));
  sentence_->setWordWrap(true);
  sentence_->setContentsMargins(8, 0, 8, 4);
  layout->addWidget(sentence_);
  ranges_ = new RangeChart(view);
  connectChart(ranges_);
  layout->addWidget(ranges_);
  scenarios_ = addGrid("verdictScenarios", tr("Scenarios"));
  scenarios_->setWidths(90, 0);
  layout->addWidget(scenarios_);
  layout->addStretch();
  connect(&scenarios_->ledger(), &LedgerModel::typed, this, &VerdictPage::takeTyped);
  return view;
}

void VerdictPage::takeTyped(int row, int column, const QString& typed) {
  const LedgerRow& line = scenarios_->ledger().ledgerRows()[static_cast<size_t>(row)];
  const auto figure = typedOrSay(typed, line);
  if (!figure) return;
  const Case& c = bench_.settled().caseOf();
  if (line.key == QLatin1String("probability")) {
    bench_.apply(services::setProbability(c, c.scenarios[static_cast<size_t>(column)].id, *figure));
  } else {
    typeInput(line.key, column, *figure);
  }
}

QWidget* VerdictPage::makeBlend() {
  auto* view = new QWidget(views_);
  auto* layout = scrolledLayout(view);
  auto* words =
      new PlainLabel(tr("A weight for each way to value, by scenario; a way that has a weight and no value leaves "
                        "no blend and is named. The cash value stays the headline until the blend is chosen."),
                     view);
  words->setWordWrap(true);
  words->setContentsMargins(8, 0, 8, 4);
  layout->addWidget(words);
  spread_ = new PlainLabel(view);
  spread_->setObjectName(QStringLiteral("methodSpread"));
  spread_->setWordWrap(true);
  spread_->setContentsMargins(8, 0, 8, 4);
  layout->addWidget(spread_);
  blend_ = addGrid("blend", tr("Weights of the methods and the blend"));
  blend_->setWidths(90, 0);
  layout->addWidget(blend_);
  layout->addStretch();
  takeInputs(blend_);
  return view;
}

QWidget* VerdictPage::makeFindings() {
  auto* view = new QWidget(views_);
  auto* layout = new QVBoxLayout(view);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  findingsTitle_ = sectionLabel({}, view);
  layout->addWidget(findingsTitle_);
  findings_ = new QListWidget(view);
  findings_->setObjectName(QStringLiteral("findings"));
  findings_->setAccessibleName(tr("Findings"));
  findings_->setFrameShape(QFrame::NoFrame);
  findings_->setWordWrap(true);
  findings_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 2, 8, 2);
  why_ = new QLineEdit(view);
  why_->setObjectName(QStringLiteral("acknowledgeReason"));
  keepAsDraft(bench_, why_, why_->objectName());
  auto* label = new PlainLabel(tr("&Why the finding chosen may stand"), view);
  label->setBuddy(why_);
  accept_ = new QPushButton(view);
  accept_->setObjectName(QStringLiteral("acknowledge"));
  bar->addWidget(label);
  bar->addWidget(why_, 1);
  bar->addWidget(accept_);
  layout->addLayout(bar);
  layout->addWidget(findings_, 1);
  connect(why_, &QLineEdit::returnPressed, this, &VerdictPage::acknowledge);
  connect(accept_, &QPushButton::clicked, this, &VerdictPage::acknowledge);
  const auto showChoice = [this] {
    const Finding* f = currentFinding();
    const bool stands = f != nullptr && !f->acknowledged.empty();
    accept_->setText(stands ? tr("Open &again") : tr("Ac&knowledge"));
    accept_->setEnabled(f != nullptr && (stands || !why_->text().trimmed().isEmpty()));
  };
  connect(why_, &QLineEdit::textChanged, this, showChoice);
  connect(findings_, &QListWidget::currentRowChanged, this, showChoice);
  showChoice();
  connect(findings_, &QListWidget::itemActivated, this,
          [this](const QListWidgetItem* item) { bench_.goTo(now().findings()[item->data(Qt::UserRole).toUInt()]); });
  return view;
}

void VerdictPage::refresh() {
  const services::Snapshot& s = now();
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  fillFindings();
  if (views_->shown() == QLatin1String("versions")) return versions_->refresh();
  if (views_->shown() == QLatin1String("limits")) return limits_->refresh();
  if (views_->shown() == QLatin1String("blend")) {
    spread_->setText(text(services::methodSpreadWords(s, bench_.scenario())));
    blend_->ledger().setCorner(cornerOf(s));
    blend_->ledger().fill(scenarioHeaders(s), scenarioRows(s, "blend"));
    return blend_->showAll();
  }
  if (views_->shown() != QLatin1String("methods")) return;
  title_->setText(text(s.company().name));
  const Figure value = s.evaluation->constant(model::Role::ValuePerShare, base);
  const Figure price = s.given(model::Role::Price).figure;
  const QString unit = text(s.company().listing.unit);
  QString words;
  if (value.hasValue() && price.hasValue()) {
    const Figure upside = s.evaluation->constant(model::Role::Upside, base);
    const bool up = upside.valueOr(0) >= 0;
    words = tr("Base value %1 %2 against a price of %3 %2 (%4): %5 of %6 %.")
                .arg(text(figureText(value, Kind::Quote)), unit, text(figureText(price, Kind::Quote)),
                     text(s.given(model::Role::Price).source), up ? tr("upside") : tr("downside"),
                     text(groupedNumber(std::abs(upside.valueOr(0)) * 100, 1)));
  } else {
    words = tr("No base value against a price yet: %1").arg(text(value.hasValue() ? price.reason() : value.reason()));
  }
  const Figure weighted = weightedValue(*s.evaluation, model::Role::ValuePerShare);
  words += weighted.hasValue()
               ? tr("  Weighted by probability: %1 %2.").arg(text(figureText(weighted, Kind::Quote)), unit)
               : tr("  No weighted value: %1.").arg(text(weighted.reason()));
  sentence_->setText(words);
  fillRanges();
  fillScenarios();
}

void VerdictPage::fillRanges() {
  const services::Snapshot& s = now();
  const Evaluation& e = *s.evaluation;
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  std::vector<MethodRange> ranges;
  const auto told = [](model::RowId row, int lane) { return ToldFigure{model::Cell{row, 0}, lane, {}}; };
  for (const model::Method& method : e.model().methods) {
    if (method.low.known()) continue;  // has a range by itself, see ownRanges()
    MethodRange r;
    r.label = text(method.label);
    r.scenarios = true;
    for (int i = 0; i < e.scenarios(); ++i) {
      const Figure f = e.constant(method.value, i);
      if (!f.hasValue()) {
        r.whyNot = text(s.caseOf().scenarios[static_cast<size_t>(i)].label + ": " + f.reason());
        break;
      }
      if (i == 0 || f.value() < r.low) std::tie(r.low, r.lowTold) = std::pair(f.value(), told(method.value, i));
      if (i == 0 || f.value() > r.high) std::tie(r.high, r.highTold) = std::pair(f.value(), told(method.value, i));
      if (i == base) std::tie(r.middle, r.middleTold) = std::pair(std::optional(f.value()), told(method.value, i));
    }
    ranges.push_back(std::move(r));
  }
  for (MethodRange& r : ownRanges(s)) ranges.push_back(std::move(r));
  for (MethodRange& r : othersRanges(s)) ranges.push_back(std::move(r));
  ranges_->setContent(std::move(ranges), rangeMark(s, model::Role::Price), rangeMark(s, model::Role::BuyBelow),
                      text(s.company().listing.unit));
}

void VerdictPage::fillScenarios() {
  const services::Snapshot& s = now();
  std::vector<LedgerRow> rows;
  LedgerRow probability;
  probability.label = tr("Probability");
  probability.unit = QStringLiteral("%");
  probability.kind = Kind::Ratio;
  probability.key = QStringLiteral("probability");
  for (const Scenario& sc : s.caseOf().scenarios) {
    LedgerCell cell;
    cell.figure = Figure::of(sc.probability);
    cell.ink = Ink::Assumed;
    cell.editable = true;
    const auto lane = static_cast<int>(probability.cells.size());
    cell.story = [this, lane, id = sc.id](const services::Snapshot& of) {
      return services::probabilityStory(of, lane, bench_.historyOf(id, services::kProbability));
    };
    probability.cells.push_back(cell);
  }
  rows.push_back(std::move(probability));
  for (LedgerRow& row : scenarioRows(s, "verdict")) rows.push_back(std::move(row));
  scenarios_->ledger().fill(scenarioHeaders(s), std::move(rows));
  scenarios_->showAll();
}

const Finding* VerdictPage::currentFinding() const {
  const QListWidgetItem* item = findings_->currentItem();
  return item == nullptr ? nullptr : &now().findings()[item->data(Qt::UserRole).toUInt()];
}

void VerdictPage::acknowledge() {
  const Finding* f = currentFinding();
  if (f == nullptr) return;
  const Finding finding = *f;
  if (!f->acknowledged.empty()) {
    bench_.apply(services::acknowledge(bench_.settled().caseOf(), finding, std::nullopt));
  } else if (!why_->text().trimmed().isEmpty()) {
    const Provenance said = bench_.saidNow(why_->text().trimmed());
    const services::Snapshot& s = bench_.settled();
    const services::RankedFindings ranked = services::rankedFindings(s);
    const auto line = std::find_if(ranked.shown.begin(), ranked.shown.end(), [&](const services::RankedFinding& r) {
      return s.findings()[r.finding].key() == finding.key();
    });
    const services::CaseEdit edit = line == ranked.shown.end() ? services::acknowledge(s.caseOf(), finding, said)
                                                               : services::acknowledgeLine(*line, s, said);
    if (bench_.apply(edit)) why_->clear();
  }
}

void VerdictPage::fillFindings() {
  const services::Snapshot& s = now();
  const int current = findings_->currentRow();
  findings_->clear();
  int open = 0;
  const services::RankedFindings ranked = services::rankedFindings(s);
  const auto add = [&](const services::RankedFinding& r) {
    const Finding& f = s.findings()[r.finding];
    const QString mark = !f.acknowledged.empty()           ? QStringLiteral("✓")
                         : f.severity == Severity::Fault   ? QStringLiteral("■")
                         : f.severity == Severity::Warning ? QStringLiteral("▲")
                                                           : QStringLiteral("–");
    auto* item =
        new QListWidgetItem(mark + QStringLiteral("  ") + QString::fromLatin1(stopWord(f.stop)) +
                                QStringLiteral("   ") + text(services::textOf(r, s)) +
                                (f.acknowledged.empty() ? QString() : tr("  (stands: %1)").arg(text(f.acknowledged))),
                            findings_);
    item->setData(Qt::UserRole, static_cast<uint>(r.finding));
    item->setToolTip(tipText(text(s.wordsOf(f))));
    if (f.isOpen()) open += 1 + static_cast<int>(r.alike.size());
  };
  for (const services::RankedFinding& r : ranked.shown) add(r);
  if (const std::string folded = services::foldedText(ranked, s); !folded.empty()) {
    // One line for all of them; Enter goes to the first.
    auto* item = new QListWidgetItem(QStringLiteral("–  ") + text(folded), findings_);
    item->setData(Qt::UserRole, static_cast<uint>(ranked.folded.front().finding));
    item->setToolTip(tipText(text(folded)));
    for (const services::RankedFinding& r : ranked.folded) {
      if (s.findings()[r.finding].isOpen()) open += 1 + static_cast<int>(r.alike.size());
    }
  }
  if (current >= 0) findings_->setCurrentRow(std::min(current, findings_->count() - 1));
  views_->setWords("findings", open == 0 ? tr("findings") : counted(open, tr("finding"), tr("findings")));
  findingsTitle_->setText(
      open == 0
          ? tr("Nothing needs a look")
          : tr("%1 (Enter goes there)").arg(counted(open, tr("finding needs a look"), tr("findings need a look"))));
}

}  // namespace zl::app
