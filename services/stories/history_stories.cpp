#include "services/stories/history_stories.h"

#include <algorithm>

#include "core/filing/fact_lines.h"
#include "core/quantity/number_text.h"
#include "services/stories/interim_stories.h"
#include "services/stories/rows.h"
#include "services/stories/sources.h"

namespace zl::services {
namespace {

/// A filed year as the reading has it: the trace itself shows adjusted figures.
void readsYear(const Snapshot& s, Story& story, model::RowId row, int column, Reading reading) {
  if (!row.known() || column < 0) return;
  reads(s, story, row, column);
  const bool byYear = rowAt(s, row).timing != model::Timing::Constant;
  if (reading == Reading::AsFiled && byYear) story.reads.back().figure = s.asFiled->at(row, column);
}

const char* viewWords(HistoryView view) {
  switch (view) {
    case HistoryView::Amounts:
      return "";
    case HistoryView::Change:
      return "change";
    case HistoryView::Growth:
      return "growth";
    case HistoryView::GrowthTwoYears:
      return "growth over two years";
    case HistoryView::ShareOfRevenue:
      return "share of revenue";
    case HistoryView::PerShare:
      return "per share";
  }
  return "";
}

const char* ruleWords(HistoryView view) {
  switch (view) {
    case HistoryView::Amounts:
      return "";
    case HistoryView::Change:
      return "less the same a year before";
    case HistoryView::Growth:
      return "over the same a year before, less one";
    case HistoryView::GrowthTwoYears:
      return "over the same two years before, less one";
    case HistoryView::ShareOfRevenue:
      return "over the revenue of the period";
    case HistoryView::PerShare:
      return "over the ordinary shares at the year's end";
  }
  return "";
}

int yearsBack(HistoryView view) {
  const bool compares = view == HistoryView::Change || view == HistoryView::Growth;
  return view == HistoryView::GrowthTwoYears ? 2 : compares ? 1 : 0;
}

Figure figureOf(const InterimTable& table, model::RowId row, size_t column) {
  for (const InterimRow& r : table.rows) {
    if (r.row == row) return r.figures[column];
  }
  return Figure::absent("not reported");
}

}  // namespace

Story factStory(const Snapshot& s, const LineCell::Part& part) {
  const Fact& f = s.evidence->facts[part.fact];
  const std::string name = (f.label.empty() ? f.concept_name : f.label).str();
  Story story = storyAbout(s, name + ", " + f.period.text(), Figure::of(part.weight) * f.figure(), kindOfUnit(f.unit));
  story.lines.push_back(factWords(s, part));
  return story;
}

Story restatementStory(const Snapshot& s, size_t first, size_t last) {
  const Fact& was = s.evidence->facts[first];
  const Fact& is = s.evidence->facts[last];
  Story story = storyAbout(s, was.concept_name.str() + ", " + was.period.text() + ", change",
                           is.figure() - was.figure(), kindOfUnit(was.unit));
  story.lines.push_back("last filed: " + factWords(s, {last, 1}));
  story.lines.push_back("less first filed: " + factWords(s, {first, 1}));
  return story;
}

Story tieStory(const Snapshot& s, const FiledTie& tie) {
  Story story;
  story.title = tie.label + " " + s.periodOf(tie.column);
  story.figure = groupedNumber(std::stod(tie.gap) / shownScale(Kind::Money), 3) + " " +
                 unitText(Kind::Money, s.company().currency, s.company().listing.unit);
  story.lines.push_back((tie.holds ? "ties: off by " : "does not tie: off by ") + tie.gap +
                        ", the filed rounding allows " + tie.tolerance);
  for (const size_t fact : tie.facts) story.lines.push_back(factWords(s, {fact, 1}));
  reads(s, story, s.model().find(tie.total), tie.column);
  return story;
}

YearsOf lastYears(const Snapshot& s, model::RowId row, int count, Reading reading, bool regularOnly) {
  const int last = s.evaluation->layout().baseColumn();
  return {row, std::max(0, last + 1 - count), last, reading, regularOnly};
}

Story viewStory(const Snapshot& s, model::RowId row, int column, HistoryView view, Reading reading,
                const Figure& figure) {
  const model::Row& described = rowAt(s, row);
  const std::string words = viewWords(view);
  const Kind kind = kindIn(view, described).value_or(described.kind);
  Story story =
      storyAbout(s, described.label + " " + s.periodOf(column) + (words.empty() ? "" : ", " + words), figure, kind);
  if (reading == Reading::AsFiled) story.lines.emplace_back("as filed, without the analyst's adjustments");
  if (view == HistoryView::Amounts) {
    if (described.historyFiled) {
      for (const LineCell::Part& part : s.filed->statements.at(described.name, column).parts)
        story.lines.push_back(factWords(s, part));
    } else if (described.history) {
      story.lines.push_back("by history's rule " + expressionText(*described.history));
      const model::Layout& layout = s.evaluation->layout();
      for (const model::Cell read : model::cellsRead(s.evaluation->model(), layout, *described.history, column)) {
        const bool there = std::any_of(story.reads.begin(), story.reads.end(),
                                       [&](const TraceLink& link) { return link.cell == read; });
        if (!there) readsYear(s, story, read.row, read.column, reading);
      }
    }
    return story;
  }
  story.lines.emplace_back(ruleWords(view));
  readsYear(s, story, row, column, reading);
  if (const int back = yearsBack(view); back > 0) readsYear(s, story, row, column - back, reading);
  const model::Model& m = s.evaluation->model();
  if (view == HistoryView::ShareOfRevenue) readsYear(s, story, m.find(model::Role::Revenue), column, reading);
  if (view == HistoryView::PerShare) readsYear(s, story, m.find(model::Role::Shares), column, reading);
  return story;
}

Story interimViewStory(const Snapshot& s, model::RowId row, const std::string& period, HistoryView view, Basis basis,
                       const Figure& figure) {
  const auto span = basis == Basis::Quarters ? InterimStatements::Span::Quarter : InterimStatements::Span::Trailing;
  if (view == HistoryView::Amounts) return interimStory(s, row, period, span, figure);
  const model::Row& described = rowAt(s, row);
  const InterimTable table = interimTable(s, basis);
  Story story = storyAbout(s, described.label + " " + period + ", " + viewWords(view), figure,
                           kindIn(view, described).value_or(described.kind));
  const bool perShare = view == HistoryView::PerShare;
  story.lines.emplace_back(perShare ? "over the mean of the average counts of its quarters, each of the counts at its "
                                      "beginning and end"
                                    : ruleWords(view));
  const auto found = std::find(table.periods.begin(), table.periods.end(), period);
  if (found == table.periods.end()) return story;
  const auto column = static_cast<size_t>(found - table.periods.begin());
  const auto add = [&](model::RowId of, size_t quartersBack) {
    if (quartersBack > column) return;
    const size_t at = column - quartersBack;
    const Story part = interimStory(s, of, table.periods[at], span, figureOf(table, of, at));
    story.lines.push_back(part.title + ": " + part.figure);
    for (const std::string& line : part.lines) story.lines.push_back("    " + line);
  };
  constexpr size_t kQuarters = 4;
  add(row, 0);
  if (const int back = yearsBack(view); back > 0) add(row, kQuarters * static_cast<size_t>(back));
  const model::RowId revenue = s.model().find(model::Role::Revenue);
  const model::RowId shares = s.model().find(model::Role::Shares);
  if (view == HistoryView::ShareOfRevenue && revenue.known()) add(revenue, 0);
  const size_t quarters = basis == Basis::Trailing ? kQuarters : 1;
  for (size_t back = 0; perShare && shares.known() && back <= quarters; ++back) add(shares, back);
  return story;
}

Story yearsStory(const Snapshot& s, const YearsOf& years, const std::string& what, const Figure& figure, Kind kind) {
  Story story = storyAbout(s, rowAt(s, years.row).label + ", " + what, figure, kind);
  const std::vector<bool> out = leftOut(s, years.row);
  if (years.reading == Reading::AsFiled) story.lines.emplace_back("of figures as filed");
  for (int column = years.from; column <= years.to; ++column) {
    readsYear(s, story, years.row, column, years.reading);
    if (!years.regularOnly || !out[static_cast<size_t>(column)]) continue;
    story.lines.push_back(s.periodOf(column) + " is exceptional and left out");
  }
  return story;
}

Story spanStory(const Snapshot& s, model::RowId row, const HistorySpan& span, Reading reading, const Figure& figure,
                Kind kind) {
  const Series series = seriesOf(s, row, reading);
  const SpanTrend trend = spanTrend(series, span.from, span.to);
  const bool growth = kindIn(HistoryView::Growth, rowAt(s, row)).has_value();
  Story story =
      storyAbout(s, rowAt(s, row).label + ", " + span.label + (growth ? ", growth a year" : ", change"), figure, kind);
  story.lines.emplace_back(growth ? "compound, from the first to the last of the two years"
                                  : "the last of the two years less the first");
  if (growth && trend.meanGrowth.hasValue())
    story.lines.push_back("mean of the yearly rates: " + shownWithUnit(s, trend.meanGrowth, Kind::Ratio));
  if (!span.reason.empty()) story.lines.push_back("the window was kept because: " + span.reason);
  for (const std::string& mark : trend.marks) story.lines.push_back(mark);
  for (const int year : {span.to, span.from}) readsYear(s, story, row, series.find(year), reading);
  return story;
}

Story usesStory(const Snapshot& s, model::RowId row, const HistorySpan& span, bool share, const Figure& figure) {
  Story story = storyAbout(s, rowAt(s, row).label + ", " + span.label + (share ? ", share of the cash generated" : ""),
                           figure, share ? Kind::Ratio : Kind::Money);
  story.lines.emplace_back(share ? "sum of the years over the sum of what was generated in them, as filed"
                                 : "sum of the years, as filed");
  if (!span.reason.empty()) story.lines.push_back("the window was kept because: " + span.reason);
  std::vector<model::RowId> rows{row};
  if (share) rows.push_back(s.evaluation->model().find(model::Role::CashGenerated));
  for (const model::RowId each : rows) {
    for (int column = 0; column < static_cast<int>(s.years().size()); ++column) {
      const int year = s.years()[static_cast<size_t>(column)].label();
      if (year > span.from && year <= span.to) readsYear(s, story, each, column, Reading::AsFiled);
    }
  }
  return story;
}

Story profitStepStory(const Snapshot& s, const std::string& label, model::RowId row, int column, bool perShare,
                      Reading reading, const Figure& figure) {
  const model::Model& m = s.evaluation->model();
  const model::RowId shares = m.find(model::Role::Shares);
  const model::RowId profit = m.find(model::Role::OwnersProfit);
  const bool count = row == shares;
  Story story = storyAbout(s, label + " " + s.periodOf(column) + (perShare ? ", per share" : ""), figure,
                           perShare ? Kind::PerShare : Kind::Money);
  story.lines.emplace_back(!row.known() ? "change of net income less what the lines above explain"
                           : count      ? "the year's profit over its own count of shares, less over the year before's"
                                        : "change of the line in the year, as it moves net income");
  if (perShare && !count) story.lines.emplace_back("over the year before's count of shares");
  const model::RowId moved = !row.known() || count ? profit : row;
  readsYear(s, story, moved, column, reading);
  if (!count) readsYear(s, story, moved, column - 1, reading);
  if (count) readsYear(s, story, shares, column, reading);
  if (perShare) readsYear(s, story, shares, column - 1, reading);
  return story;
}

Story qualityStory(const Snapshot& s, const QualityTest& test, Reading reading, const Figure& figure, Kind kind) {
  using Statistic = QualityTest::Statistic;
  const model::RowId row = s.evaluation->model().find(test.row);
  const bool ends = test.statistic == Statistic::Growth || test.statistic == Statistic::Change;
  const int years = test.statistic == Statistic::Last ? 1 : ends ? test.years + 1 : test.years;
  // Whether a payment was made in a year is asked of flagged years too.
  const bool regular = !ends && test.statistic != Statistic::Last && test.statistic != Statistic::Nonzero;
  const YearsOf of = lastYears(s, row, years, reading, regular);
  Story story = yearsStory(s, of, statisticWord(test.statistic), figure, kind);
  story.title = test.label;
  story.lines.insert(story.lines.begin(), std::string(statisticWord(test.statistic)) + " of " + rowAt(s, row).label +
                                              " over " + std::to_string(test.years) +
                                              (test.years == 1 ? " year" : " years"));
  return story;
}

Story thresholdStory(const Snapshot& s, const QualityTest& test, const Figure& figure, Kind kind) {
  Story story = storyAbout(s, test.label + ", threshold", figure, kind);
  const auto own = s.caseOf().tests.find(test.name);
  const bool chosen = own != s.caseOf().tests.end() && own->second.threshold.has_value();
  story.lines.emplace_back(chosen ? "typed by the analyst in this case; type nothing to take the shipped one again"
                                  : "as the review ships; a figure typed in the cell is your own");
  if (chosen) story.lines.push_back("shipped: " + shownWithUnit(s, Figure::of(test.threshold), kind));
  return story;
}

}  // namespace zl::services
