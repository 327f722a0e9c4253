#include "app/pages/peers_page.h"
#include "app/bench/draft_field.h"

#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>

#include "app/grid/ledger_rows.h"
#include "app/look/amounts.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "app/pages/empty_note.h"
#include "app/pages/own_ranges.h"
#include "core/quantity/number_text.h"
#include "services/stories/exit_stories.h"
#include "services/stories/peer_stories.h"
#include "services/views/company_view.h"

namespace zl::app {

PeersPage::PeersPage(Workbench& bench, QWidget* parent) : Page(bench, Stop::Peers, parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  views_ = new SubViews(this);
  layout->addWidget(views_);
  views_->add("set", tr("set and multiples"), makeSet());
  views_->add("implied", tr("statistics and implied values"), makeImplied());
  views_->add("exit", tr("exit return"), makeExit());
  views_->add("ways", tr("other ways"), makeOthers());
  connect(views_, &SubViews::turned, this, [this] {
    if (bench_.isOpen()) refresh();
  });
}

QWidget* PeersPage::makeSet() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 0, 8, 0);
  auto* why = new PlainLabel(tr("&Reason for the next change"), view);
  reason_ = new QLineEdit(view);
  reason_->setObjectName(QStringLiteral("peerReason"));
  keepAsDraft(bench_, reason_, reason_->objectName());
  reason_->setPlaceholderText(tr("Then press Space on a multiple to take it in or out"));
  why->setBuddy(reason_);
  bar->addWidget(why);
  bar->addWidget(reason_, 1);
  layout->addLayout(bar);
  auto* empty = new EmptyNote(
      bench_,
      tr("No peers yet. A name, a price, shares or a market value and a few figures begin one; a table from a "
         "workbook or a page may be pasted whole."),
      view);
  empty->offer(tr("&Type or paste peers"), Stop::Company, QStringLiteral("market"), QStringLiteral("peers"));
  empty_ = empty;
  layout->addWidget(empty_);
  peers_ = addGrid("peers", tr("Peers and their multiples"));
  peers_->setWidths(100, 0);
  peers_->setColumns({112, 110, 150, 94, 150, 400});
  layout->addWidget(peers_);
  layout->addStretch();
  connect(peers_, &LedgerView::rowActivated, this, &PeersPage::toggle);
  return view;
}

QWidget* PeersPage::makeImplied() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  layout->addWidget(
      sectionLabel(tr("Statistics over the multiples that count, and what they imply for the subject"), view));
  statistics_ = addGrid("peerStatistics", tr("Statistics and implied value"));
  statistics_->setWidths(66, 0);
  layout->addWidget(statistics_);
  layout->addWidget(sectionLabel(tr("Implied value per share against the price"), view));
  ranges_ = new RangeChart(view);
  connectChart(ranges_);
  layout->addWidget(ranges_);
  layout->addStretch();
  return view;
}

QWidget* PeersPage::makeExit() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  exitSentence_ = new PlainLabel(view);
  exitSentence_->setObjectName(QStringLiteral("exitSentence"));
  exitSentence_->setWordWrap(true);
  exitSentence_->setContentsMargins(8, 0, 8, 4);
  layout->addWidget(exitSentence_);
  exit_ = addGrid("exitReturn", tr("Exit return by scenario"));
  exit_->setWidths(66, 0);
  layout->addWidget(exit_);
  exitGrid_ = addGrid("exitGrid", tr("Yearly return by growth and multiple"));
  exitGrid_->setWidths(66, 0);
  layout->addWidget(
      sectionLabel(tr("Yearly return in % from today's price: growth by itself down, multiple across"), view));
  layout->addWidget(exitGrid_);
  layout->addStretch();
  takeInputs(exit_);
  return view;
}

QWidget* PeersPage::makeOthers() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  LedgerView* values = addGrid("peersOtherValues", tr("Another way by scenario"));
  LedgerView* years = addGrid("peersOtherYears", tr("Another way by year"));
  const auto words = [](const QString& remark) { return [remark](std::vector<LedgerRow>&) { return remark; }; };
  others_ = new OtherWays(
      "peersWay", bench_, values, years,
      {{"dividends", tr("Dividends"), "dividends", "dividend_years",
        words(
            tr("What is paid out, at the cost of equity: at constant growth, in stages, or with growth that fades."))},
       {"growth", tr("Growth multiple"), "growth_multiple", nullptr,
        words(tr("Earnings times a multiple that grows with growth, by the bond yield then over the yield now."))},
       {"yields", tr("Yields beside bonds"), "yields", nullptr,
        words(tr("What a year brings over the price, beside what high-grade bonds yield."))},
       {"book", tr("Excess return on book"), "excess_book", "excess_book_years",
        words(tr("Book, and what it earns beyond its cost: for companies whose book tells what they are."))}},
      view);
  layout->addWidget(others_);
  takeInputs(values);
  return view;
}

void PeersPage::fillExit() {
  const services::Snapshot& s = now();
  std::vector<LedgerRow> rows = scenarioRows(s, "exit_return");
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
  exit_->ledger().setCorner(cornerOf(s));
  exit_->ledger().fill(scenarioHeaders(s), std::move(rows));
  exit_->showAll();
  const auto base = static_cast<size_t>(std::max(0, s.caseOf().indexOf(kBase)));
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
  exitSentence_->setText(words + QLatin1Char('.'));
  fillExitGrid();
}

void PeersPage::fillExitGrid() {
  const services::Snapshot& s = now();
  const int scenario = bench_.scenario();
  const services::ExitGrid grid = bench_.isPreviewing() ? services::ExitGrid{} : services::exitGrid(s, scenario);
  exitGrid_->setVisible(!grid.growths.empty());
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
  exitGrid_->ledger().setCorner(text(s.caseOf().scenarios[static_cast<size_t>(scenario)].label));
  exitGrid_->ledger().fill(headers, std::move(rows));
  exitGrid_->showAll();
}

void PeersPage::refresh() {
  if (views_->shown() == QLatin1String("exit")) return fillExit();
  if (views_->shown() == QLatin1String("ways")) return others_->refresh();
  empty_->setVisible(now().crossCheck.rows.empty());
  fillPeers();
  fillStatistics();
}

void PeersPage::fillPeers() {
  const services::Snapshot& s = now();
  std::vector<LedgerRow> rows;
  for (const PeerRow& peer : s.crossCheck.rows) {
    LedgerRow row;
    row.label = text(peer.name);
    row.key = text(peer.id);
    row.kind = Kind::Multiple;
    LedgerCell size;
    size.words = shownText(peer.revenue, Kind::Money) + (peer.outOfScale ? QStringLiteral(" ⚠") : QString());
    size.tip = peer.revenue.hasValue()
                   ? (peer.outOfScale ? tr("more than 8 times away from the subject's revenue") : QString())
                   : text(peer.revenue.reason());
    size.figure = peer.revenue;
    size.story = [id = peer.id](const services::Snapshot& of) { return services::peerRevenueStory(of, id); };
    row.cells.push_back(size);
    for (Multiple m : kMultiples) {
      const MultipleCell& c = peer.cells.at(m);
      LedgerCell figure;
      const std::string shown = figureText(c.multiple, Kind::Multiple);
      figure.words = text(shown) + (c.in ? QStringLiteral("  ●") : QStringLiteral("  ○")) +
                     (c.outlier ? QStringLiteral("!") : QString());
      figure.figure = c.multiple;
      figure.struck = !c.in && c.multiple.hasValue();
      figure.ink = c.byHand ? Ink::Assumed : Ink::Derived;
      figure.tip = c.in ? tr("counts%1").arg(c.reason.empty() ? QString() : QStringLiteral(": ") + text(c.reason))
                        : tr("left out: %1").arg(text(c.reason.empty() ? "by hand, no reason given" : c.reason));
      figure.story = [id = peer.id, m](const services::Snapshot& of) { return services::multipleStory(of, id, m); };
      row.cells.push_back(figure);
      LedgerCell reason;
      reason.words = text(c.reason);
      reason.left = true;
      reason.quiet = true;
      row.cells.push_back(reason);
    }
    LedgerCell remark;
    remark.words = text(peer.remark);
    remark.tip = *remark.words;
    const std::string who = services::peerIdentity(s.company(), peer);
    if (!who.empty()) {
      remark.words = text(who) + (peer.remark.empty() ? QString() : QStringLiteral("; ") + *remark.words);
      remark.tip = *remark.words;
    }
    remark.left = true;
    remark.quiet = true;
    row.cells.push_back(remark);
    rows.push_back(std::move(row));
  }
  QStringList headers{tr("revenue, %1 m").arg(text(s.company().currency))};
  for (Multiple m : kMultiples) headers << QString::fromLatin1(multipleLabel(m)) << tr("why");
  headers << tr("remark");
  peers_->ledger().fill(headers, std::move(rows));
  peers_->showAll();
}

void PeersPage::fillStatistics() {
  const services::Snapshot& s = now();
  const QString unit = text(s.company().listing.unit);
  std::vector<LedgerRow> rows;
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  for (const auto& [m, st] : s.crossCheck.statistics) {
    LedgerRow multiples;
    multiples.label = QString::fromLatin1(multipleLabel(m));
    multiples.unit = QStringLiteral("×");
    multiples.kind = Kind::Multiple;
    LedgerCell count;
    count.words = QString::number(st.count);
    multiples.cells.push_back(count);
    struct Column {
      const char* what;
      const Figure* multiple;
    };
    const Column columns[] = {
        {"low", &st.low},   {"lower quartile", &st.lowerQuartile}, {"median", &st.median},
        {"mean", &st.mean}, {"harmonic mean", &st.harmonicMean},   {"upper quartile", &st.upperQuartile},
        {"high", &st.high}};
    for (const Column& column : columns) {
      multiples.cells.push_back(figureCell(*column.multiple));
      multiples.cells.back().story = [m = m, column, figure = *column.multiple](const services::Snapshot& of) {
        return services::multipleStatisticStory(of, m, column.what, figure);
      };
    }
    rows.push_back(std::move(multiples));
    LedgerRow value;
    value.label = tr("  implied value per share");
    value.unit = unit;
    value.kind = Kind::Quote;
    value.strong = true;
    LedgerCell none;
    none.words = QString();
    value.cells.push_back(none);
    for (const Column& column : columns) {
      // None where the model values nothing by the statistic.
      const model::RowId row = s.model().peerRow(model::Declared::Row, multipleName(m), column.what);
      if (!row.known()) {
        value.cells.push_back(none);
        continue;
      }
      value.cells.push_back(figureCell(s.evaluation->constant(row, base)));
      value.cells.back().source = model::Cell{row, 0};
      value.cells.back().scenario = base;
    }
    rows.push_back(std::move(value));
  }
  for (LedgerRow& row :
       yearRows(s, "peer_metrics", s.evaluation->layout().baseColumn(), s.evaluation->layout().historyYears, base)) {
    row.label = tr("subject: %1, %2").arg(row.label, text(s.periodOf(s.evaluation->layout().baseColumn())));
    rows.push_back(std::move(row));
  }
  statistics_->ledger().setCorner(cornerOf(s));
  statistics_->ledger().fill(
      {tr("count"), tr("low"), tr("quartile"), tr("median"), tr("mean"), tr("harmonic"), tr("quartile"), tr("high")},
      std::move(rows));
  statistics_->showAll();
  ranges_->setContent(ownRanges(s), rangeMark(s, model::Role::Price), std::nullopt, unit);
}

void PeersPage::toggle(int row, int column) {
  const services::Snapshot& s = bench_.settled();
  if (row < 0 || row >= static_cast<int>(s.crossCheck.rows.size())) return;
  const PeerRow& peer = s.crossCheck.rows[static_cast<size_t>(row)];
  const int which = (column - 1) / 2;
  if (column < 1 || which >= static_cast<int>(std::size(kMultiples))) return;
  const Multiple m = kMultiples[which];
  const MultipleCell& cell = peer.cells.at(m);
  if (!cell.multiple.hasValue() || peer.id == s.company().id) {
    bench_.say(tr("%1 cannot count: %2").arg(text(peer.name), text(cell.reason)), true);
    return;
  }
  const std::string label = (cell.in ? "Take out " : "Take in ") + peer.name + ", " + multipleLabel(m);
  bench_.apply(services::setPeerChoice(s.caseOf(), peerChoiceKey(peer.id, m), label,
                                       PeerChoice{!cell.in, reason_->text().trimmed().toStdString()}));
  reason_->clear();
}

}  // namespace zl::app
