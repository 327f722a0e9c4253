#include "app/pages/history_rows.h"

#include <algorithm>
#include <cmath>

#include "app/look/amounts.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/stories/history_stories.h"
#include "services/stories/peer_stories.h"
#include "services/views/driver_evidence.h"

namespace zl::app {
namespace {

using services::HistoryView;
using services::Reading;
using services::Snapshot;

/// The model's statements, and the analyst's own lines.
std::vector<std::string> groupsOf(const Snapshot& s) {
  std::vector<std::string> groups = s.model().statements;
  groups.emplace_back(services::kOwnLines);
  return groups;
}

/// Rows of a group that history knows.
std::vector<model::RowId> historyRows(const Snapshot& s, const std::string& group) {
  std::vector<model::RowId> list;
  for (const model::RowId index : groupRows(s, group)) {
    const model::Row& r = s.evaluation->model()[index];
    if (r.historyFiled || r.history) list.push_back(index);
  }
  return list;
}

/// Every group that has rows, under its heading.
template <class Make>
void addGroups(const Snapshot& s, HistoryGrid& grid, const Make& make) {
  for (const std::string& group : groupsOf(s)) {
    const std::vector<model::RowId> rows = historyRows(s, group);
    if (rows.empty()) continue;
    grid.rows.push_back(headingRow(text(group)));
    for (const model::RowId index : rows) grid.rows.push_back(make(index));
  }
}

HistoryView viewOf(HistoryShow show) {
  switch (show) {
    case HistoryShow::Growth:
      return HistoryView::Growth;
    case HistoryShow::GrowthTwoYears:
      return HistoryView::GrowthTwoYears;
    case HistoryShow::Change:
      return HistoryView::Change;
    case HistoryShow::ShareOfRevenue:
      return HistoryView::ShareOfRevenue;
    case HistoryShow::PerShare:
      return HistoryView::PerShare;
    default:
      return HistoryView::Amounts;
  }
}

void setKind(const Snapshot& s, LedgerRow& row, Kind kind) {
  if (row.kind == kind) return;
  row.kind = kind;
  row.unit = kind == Kind::Money ? QString() : unitOf(s, kind);
}

LedgerRow periodRow(const Snapshot& s, model::RowId index, HistoryShow show, Reading reading, int scenario) {
  const int to = s.evaluation->layout().historyYears;
  const model::Row& r = s.evaluation->model()[index];
  LedgerRow row = yearRow(s, index, 0, to, scenario);
  const HistoryView view = services::kindIn(viewOf(show), r) ? viewOf(show) : HistoryView::Amounts;
  const std::vector<Figure> figures = services::figuresIn(s, index, view, reading);
  setKind(s, row, *services::kindIn(view, r));
  row.trend = figures;
  for (size_t c = 0; c < row.cells.size(); ++c) {
    LedgerCell& cell = row.cells[c];
    cell.figure = figures[c];
    if (view != HistoryView::Amounts) cell.ink = Ink::Derived;
    const bool filed = view == HistoryView::Amounts && reading == Reading::Adjusted;
    // What stands as filed is traced like any filed figure.
    if (view != HistoryView::Amounts || figures[c] != s.history->at(index, static_cast<int>(c))) {
      cell.story = [index, c, view, reading, figure = figures[c]](const Snapshot& now) {
        return services::viewStory(now, index, static_cast<int>(c), view, reading, figure);
      };
    }
    cell.adjusted = cell.adjusted && filed;
    cell.editable = filed && isAdjustable(r) && cell.figure.hasValue();
  }
  return row;
}

QString marksOf(const SpanTrend& trend, Kind kind) {
  QStringList lines;
  for (const std::string& mark : trend.marks) lines << text(mark);
  if (trend.compound.hasValue() && trend.meanGrowth.hasValue() && kind != Kind::Ratio) {
    lines << QObject::tr("compound %1 %, mean of the yearly rates %2 %")
                 .arg(text(figureText(trend.compound, Kind::Ratio)), text(figureText(trend.meanGrowth, Kind::Ratio)));
  }
  return lines.join(QLatin1Char('\n'));
}

/// Growth a year for amounts, change in points or units for ratios: each says its unit.
LedgerRow trendRow(const Snapshot& s, model::RowId index, Reading reading) {
  const model::Row& r = s.evaluation->model()[index];
  const bool amount = services::kindIn(HistoryView::Growth, r).has_value();
  const services::RowTrends trends = services::trendsOf(s, index, reading);
  LedgerRow row;
  row.label = text(r.label);
  row.key = text(r.name);
  row.kind = amount ? Kind::Ratio : r.kind;
  row.unit = amount ? QString() : unitOf(s, r.kind);
  row.trend = services::figuresIn(s, index, HistoryView::Amounts, reading);
  const std::vector<services::HistorySpan> spans = services::spansOf(s);
  for (size_t i = 0; i < trends.spans.size(); ++i) {
    const SpanTrend& trend = trends.spans[i];
    LedgerCell cell = figureCell(amount ? trend.compound : trend.change, marksOf(trend, row.kind));
    cell.doubted = !trend.marks.empty() && cell.figure.hasValue();
    cell.story = [index, span = spans[i], reading, figure = cell.figure, kind = row.kind](const Snapshot& now) {
      return services::spanStory(now, index, span, reading, figure, kind);
    };
    row.cells.push_back(std::move(cell));
  }
  const auto statistic = [&](LedgerCell cell, const char* what, bool regular, Kind kind) {
    cell.story = [index, reading, what, regular, figure = cell.figure, kind](const Snapshot& now) {
      const services::YearsOf years = services::lastYears(now, index, services::kStatisticsYears, reading, regular);
      return services::yearsStory(now, years, what, figure, kind);
    };
    row.cells.push_back(std::move(cell));
  };
  // Levels have the unit of the row itself, and words for amounts because the row's unit is growth.
  const auto level = [&](const Figure& f, const char* what, bool regular) {
    LedgerCell cell = figureCell(f);
    if (amount) cell.words = shownText(f, r.kind);
    statistic(std::move(cell), what, regular, r.kind);
  };
  if (amount) {
    const Figure& fit = trends.fitted.fit;
    statistic(figureCell(trends.fitted.growth,
                         QObject::tr("fitted over %1 years, R² %2")
                             .arg(trends.fitted.count)
                             .arg(fit.hasValue() ? text(groupedNumber(fit.value(), 2)) : text(fit.reason()))),
              "growth a year that fits all regular years (least squares of the logarithms)", true, Kind::Ratio);
  } else {
    row.cells.push_back(figureCell(Figure::absent("a fit is offered for amounts")));
  }
  level(trends.all.mean, "mean of all years", false);
  level(trends.included.mean, "mean of the regular years", true);
  level(trends.included.median, "median of the regular years", true);
  level(trends.included.low, "lowest of the regular years", true);
  level(trends.included.high, "highest of the regular years", true);
  LedgerCell count;
  count.words = QString::number(trends.included.count);
  row.cells.push_back(std::move(count));
  return row;
}

HistoryGrid trendGrid(const Snapshot& s, Reading reading) {
  HistoryGrid grid;
  grid.corner = QObject::tr("growth % a year · levels %1").arg(cornerOf(s));
  for (const services::HistorySpan& span : services::spansOf(s)) grid.headers << text(span.label);
  grid.headers << QObject::tr("fitted") << QObject::tr("mean") << QObject::tr("regular") << QObject::tr("median")
               << QObject::tr("low") << QObject::tr("high") << QObject::tr("n");
  addGroups(s, grid, [&](model::RowId index) { return trendRow(s, index, reading); });
  return grid;
}

HistoryGrid usesGrid(const Snapshot& s) {
  HistoryGrid grid;
  const std::vector<services::HistorySpan> spans = services::spansOf(s);
  for (const services::HistorySpan& span : spans) grid.headers << text(span.label);
  for (const services::HistorySpan& span : spans) grid.headers << text(span.label) + QStringLiteral(" %");
  grid.rows.push_back(headingRow(QObject::tr("Uses of cash, and shares of operating cash flow")));
  for (const services::CashUse& use : services::usesOfCash(s)) {
    const int years = s.evaluation->layout().historyYears;
    LedgerRow row = yearRow(s, use.row, years, years, 0);
    row.trend = services::figuresIn(s, use.row, HistoryView::Amounts, Reading::AsFiled);
    row.strong = use.row == s.model().find(model::Role::CashGenerated);
    const auto add = [&](const Figure& figure, size_t span, bool share) {
      LedgerCell cell = figureCell(figure);
      if (share && figure.hasValue()) cell.words = text(figureText(figure, Kind::Ratio));  // the head says per cent
      cell.story = [row = use.row, span = spans[span], share, figure](const Snapshot& now) {
        return services::usesStory(now, row, span, share, figure);
      };
      row.cells.push_back(std::move(cell));
    };
    for (size_t i = 0; i < spans.size(); ++i) add(use.sums[i], i, false);
    for (size_t i = 0; i < spans.size(); ++i) add(use.shares[i], i, true);
    grid.rows.push_back(std::move(row));
  }
  return grid;
}

HistoryGrid walkGrid(const Snapshot& s, Reading reading, int scenario) {
  HistoryGrid grid;
  const int years = s.evaluation->layout().historyYears;
  grid.headers = periodHeaders(s, 0, years);
  grid.flagged = services::exceptionalColumns(s);
  const std::vector<services::ProfitStep> steps = services::profitWalk(s, reading);
  const auto part = [&](bool perShare, model::Role total, const QString& heading) {
    grid.rows.push_back(headingRow(heading));
    for (const services::ProfitStep& step : steps) {
      const std::vector<Figure>& figures = perShare ? step.perShare : step.money;
      const bool idle = std::all_of(figures.begin(), figures.end(), [](const Figure& f) { return f.valueOr(0) == 0; });
      if (idle) continue;
      LedgerRow row;
      row.label = text(step.label);
      row.key = !step.row.known() ? QString() : text(s.evaluation->model()[step.row].name);
      row.kind = perShare ? Kind::PerShare : Kind::Money;
      row.unit = perShare ? unitOf(s, Kind::PerShare) : QString();
      row.trend = figures;
      for (size_t c = 0; c < figures.size(); ++c) {
        LedgerCell cell = figureCell(figures[c]);
        cell.story = [label = step.label, at = step.row, c, perShare, reading,
                      figure = figures[c]](const Snapshot& now) {
          return services::profitStepStory(now, label, at, static_cast<int>(c), perShare, reading, figure);
        };
        row.cells.push_back(std::move(cell));
      }
      grid.rows.push_back(std::move(row));
    }
    const model::RowId index = s.evaluation->model().find(total);
    if (!index.known()) return;
    LedgerRow change = periodRow(s, index, HistoryShow::Change, reading, scenario);
    change.label = QObject::tr("= change in the year");
    change.strong = true;
    grid.rows.push_back(std::move(change));
  };
  part(false, model::Role::OwnersProfit, QObject::tr("Net income"));
  part(true, model::Role::EarningsPerShare, QObject::tr("Earnings per share"));
  return grid;
}

ScaleMark scaleOf(const QualityResult& result, bool atLeast) {
  ScaleMark scale;
  scale.threshold = result.threshold;
  scale.atLeast = atLeast;
  if (result.figure.hasValue()) scale.figure = result.figure.value();
  scale.low =
      std::min({result.low.valueOr(result.threshold), result.threshold, scale.figure.value_or(result.threshold)});
  scale.high =
      std::max({result.high.valueOr(result.threshold), result.threshold, scale.figure.value_or(result.threshold)});
  if (scale.high <= scale.low) scale.high = scale.low + 1;
  return scale;
}

QString holdsWord(const QualityResult& result) {
  if (!result.exempt.empty()) return QObject::tr("exempt");
  if (!result.holds) return QObject::tr("no figure");
  return *result.holds ? QObject::tr("holds") : QObject::tr("look");
}

HistoryGrid qualityGrid(const Snapshot& s, Reading reading) {
  HistoryGrid grid;
  grid.corner = QObject::tr("Quality review");
  grid.headers << QObject::tr("figure") << QObject::tr("wanted") << QObject::tr("threshold") << QObject::tr("stands")
               << QObject::tr("years") << QObject::tr("lowest") << QObject::tr("highest") << QObject::tr("peers")
               << QObject::tr("of") << QObject::tr("exempt because");
  std::string group;
  for (const QualityResult& result : services::qualityReview(s, reading)) {
    const QualityTest& test = s.resources->tests[result.test];
    if (test.group != group) {
      group = test.group;
      grid.rows.push_back(headingRow(text(group)));
    }
    const model::RowId index = s.evaluation->model().find(test.row);
    const model::Row& r = s.evaluation->model()[index];
    LedgerRow row;
    row.label = text(test.label);
    row.key = text(test.row);
    const bool rate =
        test.statistic == QualityTest::Statistic::Growth || test.statistic == QualityTest::Statistic::Nonzero;
    row.kind = rate ? Kind::Ratio : r.kind;
    row.unit = unitOf(s, row.kind);
    row.scale = scaleOf(result, test.atLeast);
    const bool ownScale = rate || test.statistic == QualityTest::Statistic::Change;
    if (ownScale) {
      row.scale->low = std::min({0.0, result.threshold, result.figure.valueOr(0)});
      row.scale->high = std::max({0.1 * std::abs(result.threshold), 2 * result.threshold, result.figure.valueOr(0)});
    }
    LedgerCell figure = figureCell(result.figure, text(result.remark));
    const auto asked = [&test, kind = row.kind](LedgerCell& cell, auto story) {
      cell.story = [test, figure = cell.figure, kind, story](const Snapshot& now) {
        return story(now, test, figure, kind);
      };
    };
    asked(figure, [reading](const Snapshot& now, const QualityTest& of, const Figure& f, Kind kind) {
      return services::qualityStory(now, of, reading, f, kind);
    });
    LedgerCell wanted;
    wanted.words = test.atLeast ? QStringLiteral("≥") : QStringLiteral("≤");
    wanted.tip =
        QObject::tr("%1 over %2 years").arg(QString::fromLatin1(statisticWord(test.statistic))).arg(test.years);
    LedgerCell threshold = figureCell(Figure::of(result.threshold), wanted.tip);
    threshold.ink = Ink::Assumed;
    threshold.editable = true;
    threshold.quiet = !result.ownThreshold;
    asked(threshold, services::thresholdStory);
    LedgerCell stands;
    stands.words = holdsWord(result);
    stands.tip = text(result.remark);
    LedgerCell count;
    count.words = QString::number(result.count);
    const PeerSpread peers = services::peersBeside(s, test);
    LedgerCell median = figureCell(peers.median);
    median.tip = peers.count > 0 ? QObject::tr("median of %1 peers' last fiscal years, %2 to %3")
                                       .arg(peers.count)
                                       .arg(shownText(peers.low, row.kind), shownText(peers.high, row.kind))
                                 : QObject::tr("peer tables do not tell this measure");
    asked(median, [](const Snapshot& now, const QualityTest& of, const Figure& f, Kind kind) {
      return services::peerSpreadStory(now, of.row, "median", f, kind);
    });
    const auto end = [&](const Figure& f, const char* what) {
      LedgerCell cell = figureCell(ownScale ? Figure{} : f);
      cell.story = [index, reading, what, f, kind = r.kind](const Snapshot& now) {
        const int years = now.evaluation->layout().historyYears;
        return services::yearsStory(now, services::lastYears(now, index, years, reading, true), what, f, kind);
      };
      return cell;
    };
    LedgerCell peerCount;
    peerCount.words = peers.count > 0 ? QString::number(peers.count) : QString();
    LedgerCell exempt;
    exempt.words = text(result.exempt);
    exempt.left = true;
    exempt.editable = true;
    exempt.ink = Ink::Assumed;
    exempt.quiet = result.exempt.empty();
    row.cells = {std::move(figure),
                 std::move(wanted),
                 std::move(threshold),
                 std::move(stands),
                 std::move(count),
                 end(result.low, "lowest of the regular years"),
                 end(result.high, "highest of the regular years"),
                 std::move(median),
                 std::move(peerCount),
                 std::move(exempt)};
    grid.rows.push_back(std::move(row));
    grid.tests.resize(grid.rows.size());
    grid.tests.back() = test.name;
  }
  return grid;
}

}  // namespace

bool isAdjustable(const model::Row& row) {
  return row.historyFiled && row.kind == Kind::Money && row.timing == model::Timing::Flow;
}

bool isByPeriod(HistoryShow show) {
  return show != HistoryShow::Quality && show != HistoryShow::Trends && show != HistoryShow::UsesOfCash &&
         show != HistoryShow::ProfitWalk;
}

HistoryGrid historyGrid(const Snapshot& s, HistoryShow show, Reading reading, int scenario) {
  if (show == HistoryShow::Trends) return trendGrid(s, reading);
  if (show == HistoryShow::Quality) return qualityGrid(s, reading);
  if (show == HistoryShow::UsesOfCash) return usesGrid(s);
  if (show == HistoryShow::ProfitWalk) return walkGrid(s, reading, scenario);
  HistoryGrid grid;
  grid.headers = periodHeaders(s, 0, s.evaluation->layout().historyYears);
  grid.flagged = services::exceptionalColumns(s);
  addGroups(s, grid, [&](model::RowId index) { return periodRow(s, index, show, reading, scenario); });
  return grid;
}

HistoryGrid interimGrid(const Snapshot& s, HistoryShow show, services::Basis basis, int scenario) {
  constexpr size_t kMostColumns = 20;  ///< five years of quarters; older ones are in the export
  const services::InterimTable table = services::interimTable(s, basis);
  HistoryGrid grid;
  const size_t from = table.periods.size() - std::min(table.periods.size(), kMostColumns);
  for (const std::string& group : groupsOf(s)) {
    const size_t heading = grid.rows.size();
    grid.rows.push_back(headingRow(text(group)));
    for (size_t r = 0; r < table.rows.size(); ++r) {
      const model::RowId index = table.rows[r].row;
      const model::Row& m = s.evaluation->model()[index];
      if (m.group != group) continue;
      LedgerRow row = yearRow(s, index, 0, 0, scenario);
      const HistoryView wanted = viewOf(show);
      const HistoryView view = services::kindIn(wanted, m) ? wanted : HistoryView::Amounts;
      const std::vector<Figure> figures = table.figuresIn(r, view, s.evaluation->model());
      setKind(s, row, *services::kindIn(view, m));
      for (size_t c = from; c < figures.size(); ++c) {
        row.cells.push_back(figureCell(figures[c]));
        row.cells.back().story = [index, period = table.periods[c], view, basis,
                                  figure = figures[c]](const Snapshot& now) {
          return services::interimViewStory(now, index, period, view, basis, figure);
        };
        row.cells.back().ink = m.historyFiled && view == HistoryView::Amounts ? Ink::Filed : Ink::Derived;
      }
      row.trend.assign(figures.begin() + static_cast<std::ptrdiff_t>(from), figures.end());
      grid.rows.push_back(std::move(row));
    }
    if (grid.rows.size() == heading + 1) grid.rows.pop_back();
  }
  for (size_t c = from; c < table.periods.size(); ++c) {
    grid.headers << text(table.periods[c]).remove(3, 2);  // "Q1 25": the century is known
  }
  return grid;
}

}  // namespace zl::app
