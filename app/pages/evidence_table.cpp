#include "app/pages/evidence_table.h"

#include <algorithm>

#include "app/grid/ledger_rows.h"
#include "app/look/amounts.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/edits/driver_moves.h"
#include "services/stories/evidence_stories.h"
#include "services/stories/history_stories.h"
#include "services/stories/peer_stories.h"

namespace zl::app {
namespace {

constexpr const char* kConsensus = "consensus";
constexpr const char* kGuidance = "guidance";
// Rows that say something and cannot be adopted.
constexpr const char* kTrend = "trend";
constexpr const char* kRank = "rank";

/// Shapes that a level has no place in: an adopted figure then holds.
bool hasNoLevel(Shape shape) {
  return shape == Shape::Typed || shape == Shape::Steps || shape == Shape::Follow;
}

}  // namespace

EvidenceTable::EvidenceTable(Workbench& bench, LedgerView* grid, QObject* parent)
    : QObject(parent), bench_(bench), grid_(grid) {
  grid_->setWidths(60, 0);
  grid_->setColumns({48, 72});
  connect(grid_, &LedgerView::rowActivated, this, &EvidenceTable::adopt);
}

model::RowId EvidenceTable::row() const {
  return bench_.now().evaluation->model().find(driver_.toStdString());
}

const model::Row& EvidenceTable::driver() const {
  return bench_.now().evaluation->model()[row()];
}

std::vector<LedgerRow> EvidenceTable::historyRows(const services::DriverEvidence& e) const {
  std::vector<LedgerRow> rows;
  const auto add = [&](int span, const QString& label, const Figure& all, const Figure& regular, int n, int nRegular) {
    LedgerRow row;
    row.label = label;
    row.kind = driver().kind;
    row.cells = {figureCell(all, counted(n, tr("year counted"), tr("years counted"))),
                 figureCell(regular, counted(nRegular, tr("year counted"), tr("years counted")))};
    for (const bool withoutFlagged : {false, true}) {
      LedgerCell& cell = row.cells[withoutFlagged ? 1 : 0];
      cell.story = [index = this->row(), span, withoutFlagged, what = label.toStdString(),
                    figure = cell.figure](const services::Snapshot& s) {
        const services::YearsOf years =
            services::lastYears(s, index, span, services::Reading::Adjusted, withoutFlagged);
        return services::yearsStory(s, years, what, figure, s.evaluation->model()[index].kind);
      };
    }
    rows.push_back(std::move(row));
  };
  const Figure regularOnly = Figure::absent(tr("change a year, of the regular years only").toStdString());
  for (const services::EvidenceWindow& w : e.windows) {
    add(w.years, tr("median %1 years").arg(w.years), w.all.median, w.regular.median, w.all.count, w.regular.count);
    add(w.years, tr("mean %1 years").arg(w.years), w.all.mean, w.regular.mean, w.all.count, w.regular.count);
    add(w.years, tr("trend %1 years").arg(w.years), regularOnly, w.trend, w.all.count, w.regular.count);
    rows.back().key = QLatin1String(kTrend);
  }
  const services::EvidenceWindow& longest = e.windows.back();
  add(longest.years, tr("low"), longest.all.low, longest.regular.low, longest.all.count, longest.regular.count);
  add(longest.years, tr("high"), longest.all.high, longest.regular.high, longest.all.count, longest.regular.count);
  return rows;
}

LedgerRow EvidenceTable::besideRow(const QString& key, const QString& label, const Figure& figure, const QString& tip,
                                   const QString& range) const {
  LedgerRow row;
  row.label = label;
  row.kind = driver().kind;
  row.key = key;
  row.cells = {figureCell(figure, tip)};
  if (range.isEmpty()) return row;
  LedgerCell words;
  words.words = range;
  words.tip = tip;
  row.cells.push_back(std::move(words));
  return row;
}

void EvidenceTable::tellRange(LedgerRow& row) {
  row.cells[1].story = [of = row.cells[0].story, range = *row.cells[1].words,
                        kind = row.kind](const services::Snapshot& s) {
    services::Story story = of(s);
    story.title += ", lowest to highest";
    story.figure = (range + QLatin1Char(' ') + unitOf(s, kind)).trimmed().toStdString();
    return story;
  };
}

void EvidenceTable::addEstimates(const Estimates& estimates, std::vector<LedgerRow>& rows) const {
  const services::Snapshot& s = bench_.now();
  const auto shown = [&](const Figure& f) { return shownText(f, driver().kind); };
  for (size_t i = 0; i < estimates.years.size(); ++i) {
    const Consensus::Spread& spread = estimates.years[i];
    if (!spread.mean.hasValue()) continue;
    QString tip = tr("Enter takes the years that are estimated, the path runs on from there");
    if (spread.count > 0) tip.prepend(counted(spread.count, tr("analyst; "), tr("analysts; ")));
    // "27E": the century is known, and the column is narrow.
    const QString year = text(s.periodOf(s.evaluation->layout().historyYears + static_cast<int>(i))).mid(2);
    rows.push_back(besideRow(QLatin1String(estimates.key), estimates.label + QLatin1Char(' ') + year, spread.mean, tip,
                             shown(spread.low) + QStringLiteral("–") + shown(spread.high)));
    rows.back().cells[0].story = [index = row(), i, by = estimates.by,
                                  figure = spread.mean](const services::Snapshot& of) {
      const int column = of.evaluation->layout().historyYears + static_cast<int>(i);
      return services::estimateStory(of, index, column, by, EstimateEnd::Mean, figure);
    };
    tellRange(rows.back());
  }
}

void EvidenceTable::show(const QString& name) {
  driver_ = name;
  const services::Snapshot& s = bench_.now();
  const services::DriverEvidence e = services::evidenceOf(s, row(), bench_.scenario());
  std::vector<LedgerRow> rows = historyRows(e);
  const int base = s.evaluation->layout().baseColumn();
  rows.push_back(besideRow({}, tr("last actual, %1").arg(text(s.periodOf(base))), s.history->at(row(), base), {}));
  rows.back().cells[0].ink = Ink::Filed;
  rows.back().cells[0].source = model::Cell{row(), base};
  addEstimates({kConsensus, EstimateBy::Analysts, tr("consensus"), e.consensus}, rows);
  addEstimates({kGuidance, EstimateBy::Company, tr("guidance"), e.guidance}, rows);
  if (e.peers.median.hasValue()) {
    const auto shown = [&](const Figure& f) { return shownText(f, driver().kind); };
    rows.push_back(besideRow(QStringLiteral("peers"), tr("peers' median"), e.peers.median,
                             counted(e.peers.count, tr("peer with a figure"), tr("peers with a figure")),
                             shown(e.peers.low) + QStringLiteral("–") + shown(e.peers.high)));
    rows.back().cells[0].story = [measure = name.toStdString(), figure = e.peers.median,
                                  kind = driver().kind](const services::Snapshot& of) {
      return services::peerSpreadStory(of, measure, "median", figure, kind);
    };
    tellRange(rows.back());
  }
  if (e.economy) {
    rows.push_back(
        besideRow(QStringLiteral("economy"), text(e.economy->name), e.economy->figure, text(e.economy->source)));
    rows.back().cells[0].story = [economy = *e.economy, kind = driver().kind](const services::Snapshot& of) {
      return services::rateStory(of, economy.name, economy.figure, kind, economy.source);
    };
  }
  LedgerRow rank = besideRow(QLatin1String(kRank), tr("last year's choice ranks at"), {}, {});
  rank.kind = Kind::Ratio;
  rank.cells[0].words = QString();
  rank.cells.push_back(figureCell(
      e.percentile, tr("Share of the counted history at or below the last forecast year's figure, in per cent")));
  rank.cells.back().story = [index = row(), scenario = bench_.scenario(),
                             figure = e.percentile](const services::Snapshot& of) {
    return services::rankStory(of, index, scenario, figure);
  };
  rows.push_back(std::move(rank));
  const auto flagged = static_cast<int>(std::count(e.exceptional.begin(), e.exceptional.end(), true));
  grid_->ledger().fill({tr("all"), flagged > 0 ? tr("less ▨ %1").arg(flagged) : tr("regular")}, std::move(rows));
}

void EvidenceTable::adopt(int index, int column) {
  const LedgerRow line = grid_->ledger().ledgerRows()[static_cast<size_t>(index)];
  if (column < 0 || column >= static_cast<int>(line.cells.size())) return;
  const bool consensus = line.key == QLatin1String(kConsensus);
  if (consensus || line.key == QLatin1String(kGuidance)) {
    const services::DriverEvidence e = services::evidenceOf(bench_.settled(), row(), bench_.scenario());
    return adoptEstimates(consensus ? e.consensus : e.guidance, line.label);
  }
  if (line.key != QLatin1String(kRank) && line.key != QLatin1String(kTrend)) adoptFigure(line, column);
}

void EvidenceTable::adoptFigure(const LedgerRow& line, int column) {
  const Figure& figure = line.cells[static_cast<size_t>(column)].figure;
  if (!figure.hasValue()) return;
  const services::Snapshot& s = bench_.settled();
  const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(bench_.scenario())];
  Path path;
  const Assumption* before = s.caseOf().driver(sc, driver_.toStdString());
  if (before != nullptr && !hasNoLevel(before->path.shape)) path = before->path;
  path.level = figure.value();
  const QString reason =
      tr("Adopted: %1%2, %3")
          .arg(line.label, column == 1 ? tr(" without exceptional years") : QString(), shownText(figure, line.kind));
  bench_.apply(services::setDriver(s.caseOf(), s.evaluation->model(), sc.id, driver_.toStdString(), path,
                                   bench_.saidNow(reason)));
}

void EvidenceTable::adoptEstimates(const std::vector<Consensus::Spread>& estimates, const QString& label) {
  const services::Snapshot& s = bench_.settled();
  std::map<int, double> years;
  for (size_t i = 0; i < estimates.size(); ++i) {
    if (estimates[i].mean.hasValue()) years[static_cast<int>(i)] = estimates[i].mean.value();
  }
  const QString reason = tr("Adopted: %1 for %2, own view after (from %3)")
                             .arg(label.section(QLatin1Char(' '), 0, 0),
                                  counted(static_cast<int>(years.size()), tr("year"), tr("years")), label);
  bench_.apply(services::typeDriverYears(s.caseOf(), s.evaluation->model(), bench_.scenarioId(), driver_.toStdString(),
                                         services::forecastOf(s, bench_.scenario(), row()), years,
                                         bench_.saidNow(reason)));
}

}  // namespace zl::app
