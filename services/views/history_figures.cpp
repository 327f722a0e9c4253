#include "services/views/history_figures.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/quantity/number_text.h"

namespace zl::services {
namespace {

std::vector<Figure> amounts(const Snapshot& s, model::RowId row, Reading reading) {
  if (!row.known()) return std::vector<Figure>(s.years().size(), Figure::absent("the model has no such row"));
  std::vector<Figure> list;
  const model::HistoryTable& table = tableOf(s, reading);
  list.reserve(static_cast<size_t>(table.layout().historyYears));
  for (int c = 0; c < table.layout().historyYears; ++c) list.push_back(table.at(row, c));
  return list;
}

std::vector<Figure> over(const std::vector<Figure>& parts, const std::vector<Figure>& wholes, const char* why) {
  std::vector<Figure> list;
  for (size_t i = 0; i < parts.size(); ++i) {
    const bool useless = wholes[i].hasValue() && wholes[i].value() <= 0;
    list.push_back(useless ? Figure::notMeaningful(why) : parts[i] / wholes[i]);
  }
  return list;
}

}  // namespace

const model::HistoryTable& tableOf(const Snapshot& s, Reading reading) {
  return reading == Reading::AsFiled ? *s.asFiled : *s.history;
}

std::vector<std::string> besideFiled(const Snapshot& s, model::RowId row, int column) {
  std::vector<std::string> lines;
  const model::Row& r = s.evaluation->model()[row];
  if (!r.historyFiled || column >= static_cast<int>(s.years().size())) return lines;
  const LineCell& cell = s.filed->statements.at(r.name, column);
  Figure asWritten = Figure::of(0);
  for (const LineCell::Part& part : cell.parts) {
    asWritten = asWritten + Figure::of(part.weight) * s.evidence->facts[part.fact].figure();
  }
  const bool counted = r.kind == Kind::Shares || r.kind == Kind::PerShare;
  if (counted && !s.company().splits.empty() && !cell.parts.empty() && asWritten != cell.figure) {
    lines.push_back(fmt::format("filed {}, restated for later share splits", figureText(asWritten, r.kind)));
  }
  const auto shift = s.shifts().find({r.name, s.years()[static_cast<size_t>(column)].label()});
  if (shift == s.shifts().end()) return lines;
  lines.push_back(fmt::format("filed {}, adjusted by {}", figureText(s.asFiled->at(row, column), r.kind),
                              figureText(Figure::of(shift->second.amount), r.kind)));
  for (const std::string& why : shift->second.why) lines.push_back("because: " + why);
  return lines;
}

std::optional<Kind> kindIn(HistoryView view, const model::Row& row) {
  switch (view) {
    case HistoryView::Amounts:
    case HistoryView::Change:
      return row.kind;
    case HistoryView::Growth:
    case HistoryView::GrowthTwoYears:
      return isAmount(row.kind) ? std::optional(Kind::Ratio) : std::nullopt;
    case HistoryView::ShareOfRevenue:
      return row.kind == Kind::Money ? std::optional(Kind::Ratio) : std::nullopt;
    case HistoryView::PerShare:
      return row.kind == Kind::Money ? std::optional(Kind::PerShare) : std::nullopt;
  }
  return std::nullopt;
}

std::vector<Figure> figuresIn(const Snapshot& s, model::RowId row, HistoryView view, Reading reading) {
  const model::Model& m = s.evaluation->model();
  std::vector<Figure> own = amounts(s, row, reading);
  switch (view) {
    case HistoryView::Amounts:
      return own;
    case HistoryView::Change: {
      std::vector<Figure> list{Figure::absent("there is no earlier year")};
      for (size_t i = 1; i < own.size(); ++i) list.push_back(own[i] - own[i - 1]);
      return list;
    }
    case HistoryView::Growth:
      return stackedGrowth(seriesOf(s, row, reading), 1);
    case HistoryView::GrowthTwoYears:
      return stackedGrowth(seriesOf(s, row, reading), 2);
    case HistoryView::ShareOfRevenue:
      return over(own, amounts(s, m.find(model::Role::Revenue), reading), "revenue is not positive");
    case HistoryView::PerShare:
      return over(own, amounts(s, m.find(model::Role::Shares), reading), "no shares");
  }
  return own;
}

std::vector<bool> leftOut(const Snapshot& s, model::RowId row) {
  std::vector<bool> flags;
  for (const FiscalYear& year : s.years()) flags.push_back(s.caseOf().exceptional.count(year.label()) > 0);
  if (!model::comparesYears(s.evaluation->model()[row])) return flags;
  std::vector<bool> either = flags;
  for (size_t i = 1; i < flags.size(); ++i) either[i] = flags[i] || flags[i - 1];
  return either;
}

Series seriesOf(const Snapshot& s, model::RowId row, Reading reading) {
  Series series;
  series.figures = amounts(s, row, reading);
  series.exceptional = leftOut(s, row);
  for (size_t i = 0; i < s.years().size(); ++i) {
    series.years.push_back(s.years()[i].label());
    series.irregular.push_back(i > 0 && !followsByAYear(s.years()[i - 1].end, s.years()[i].end));
  }
  return series;
}

std::vector<HistorySpan> spansOf(const Snapshot& s) {
  std::vector<HistorySpan> spans;
  const int last = s.years().back().label();
  for (const int years : {1, 3, 5, 10}) {
    if (last - years < s.years().front().label()) break;
    spans.push_back({last - years, last, std::to_string(years) + (years == 1 ? " yr" : " yrs"), ""});
  }
  for (const HistoryWindow& w : s.caseOf().windows) {
    const std::string end = std::to_string(w.to % 100);
    spans.push_back({w.from, w.to, std::to_string(w.from) + "\u2013" + (end.size() == 1 ? "0" + end : end), w.reason});
  }
  return spans;
}

RowTrends trendsOf(const Snapshot& s, model::RowId row, Reading reading) {
  RowTrends trends;
  const Series series = seriesOf(s, row, reading);
  for (const HistorySpan& span : spansOf(s)) trends.spans.push_back(spanTrend(series, span.from, span.to));
  const size_t count = std::min<size_t>(kStatisticsYears, series.figures.size());
  const auto from = static_cast<std::ptrdiff_t>(series.figures.size() - count);
  const std::span<const Figure> recent(series.figures.data() + from, count);
  trends.all = describe(recent);
  trends.included = describe(recent, {series.exceptional.begin() + from, series.exceptional.end()});
  trends.fitted = fittedTrend(series, series.years[static_cast<size_t>(from)], series.years.back());
  return trends;
}

std::vector<ProfitStep> profitWalk(const Snapshot& s, Reading reading) {
  const model::Model& m = s.evaluation->model();
  if (!m.find(model::Role::Shares).known() || !m.find(model::Role::OwnersProfit).known()) return {};
  const std::vector<Figure> shares = amounts(s, m.find(model::Role::Shares), reading);
  const std::vector<Figure> profit = amounts(s, m.find(model::Role::OwnersProfit), reading);
  const Figure first = Figure::absent("there is no earlier year");
  std::vector<ProfitStep> steps;
  std::vector<Figure> explained(shares.size(), Figure::of(0));
  for (const model::ViewRow& line : m.view("profit_make_up")) {
    const model::RowId row = line.row;
    const std::vector<Figure> own = amounts(s, row, reading);
    ProfitStep step{m[row].label, row, {first}, {first}};
    for (size_t i = 1; i < own.size(); ++i) {
      step.money.push_back(Figure::of(line.minus ? -1 : 1) * (own[i] - own[i - 1]));
      step.perShare.push_back(step.money.back() / shares[i - 1]);
      explained[i] = explained[i] + step.money.back();
    }
    steps.push_back(std::move(step));
  }
  // Filed totals need not be the exact sum of their parts; what is left is said, not hidden.
  ProfitStep rest{"Not explained by these lines", {}, {first}, {first}};
  ProfitStep count{"Count of shares", m.find(model::Role::Shares), {first}, {first}};
  for (size_t i = 1; i < shares.size(); ++i) {
    rest.money.push_back(profit[i] - profit[i - 1] - explained[i]);
    rest.perShare.push_back(rest.money.back() / shares[i - 1]);
    count.money.push_back(Figure::of(0));
    count.perShare.push_back(profit[i] / shares[i] - profit[i] / shares[i - 1]);
  }
  steps.push_back(std::move(rest));
  steps.push_back(std::move(count));
  return steps;
}

std::vector<QualityResult> qualityReview(const Snapshot& s, Reading reading) {
  return review(s.resources->tests, s.caseOf().tests, s.company().sector,
                [&](const std::string& row) { return seriesOf(s, s.evaluation->model().find(row), reading); });
}

PeerSpread peersBeside(const Snapshot& s, const QualityTest& test) {
  switch (test.statistic) {
    case QualityTest::Statistic::Growth:
    case QualityTest::Statistic::Change:
    case QualityTest::Statistic::Nonzero:
      return {};
    default:
      break;
  }
  const model::RowId row = s.model().find(test.row);
  const std::optional<model::PeerTie> tie = !row.known() ? std::nullopt : s.model()[row].peers;
  if (!tie) return {};
  return peerSpread(s.market->peers, s.company().id, tie->measure, basisOf(s.model(), s.caseOf()));
}

std::vector<CashUse> usesOfCash(const Snapshot& s) {
  const model::Model& m = s.evaluation->model();
  const auto summed = [&](model::RowId row, const HistorySpan& span) {
    Figure sum = Figure::of(0);
    bool any = false;
    for (size_t c = 0; c < s.years().size(); ++c) {
      if (s.years()[c].label() <= span.from || s.years()[c].label() > span.to) continue;
      sum = sum + s.asFiled->at(row, static_cast<int>(c));
      any = true;
    }
    return any ? sum : Figure::absent("no figures in these years");
  };
  const model::RowId whole = m.find(model::Role::CashGenerated);
  std::vector<CashUse> uses;
  if (!whole.known()) return uses;
  for (const model::ViewRow& shown : m.view("uses_of_cash")) {
    CashUse use;
    use.row = shown.row;
    for (const HistorySpan& span : spansOf(s)) {
      const Figure generated = summed(whole, span);
      use.sums.push_back(summed(use.row, span));
      use.shares.push_back(generated.hasValue() && generated.value() <= 0
                               ? Figure::notMeaningful("no cash was generated")
                               : use.sums.back() / generated);
    }
    uses.push_back(std::move(use));
  }
  return uses;
}

}  // namespace zl::services
