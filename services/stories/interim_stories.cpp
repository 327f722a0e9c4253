#include "services/stories/interim_stories.h"

#include <algorithm>

#include "core/quantity/number_text.h"
#include "services/stories/sources.h"

namespace zl::services {
namespace {

const char* spanWords(InterimStatements::Span span) {
  switch (span) {
    case InterimStatements::Span::Quarter:
      return "the quarter";
    case InterimStatements::Span::YearToDate:
      return "the year to date";
    case InterimStatements::Span::Trailing:
      return "twelve months";
    case InterimStatements::Span::Balance:
      return "at its end";
  }
  return "";
}

/// Standard lines that a history rule reads, through the rows it names.
void linesRead(const model::Model& m, const model::Expr& e, std::vector<model::RowId>& rows, int depth) {
  constexpr int kDeepest = 32;
  if (e.op == model::Op::Ref && depth < kDeepest) {
    const model::Row& row = m[e.row];
    if (row.isStandardLine() && std::count(rows.begin(), rows.end(), e.row) == 0) rows.push_back(e.row);
    if (!row.historyFiled && row.history) linesRead(m, *row.history, rows, depth + 1);
  }
  for (const model::Expr& part : e.args) linesRead(m, part, rows, depth);
}

}  // namespace

Story interimStory(const Snapshot& s, model::RowId row, const std::string& period, InterimStatements::Span span,
                   const Figure& figure) {
  const model::Model& m = s.evaluation->model();
  const model::Row& described = m[row];
  const InterimStatements& interim = *s.review->interim;
  const auto quarter = std::find_if(interim.quarters().begin(), interim.quarters().end(),
                                    [&](const FiscalQuarter& q) { return q.label() == period; });
  const auto index = static_cast<int>(quarter - interim.quarters().begin());
  const auto spanOf = [&](const model::Row& r) {
    return r.timing == model::Timing::Balance ? InterimStatements::Span::Balance : span;
  };
  Story story =
      storyAbout(s, described.label + " " + period + ", " + spanWords(spanOf(described)), figure, described.kind);
  if (quarter == interim.quarters().end()) {
    story.lines.emplace_back("no report of this period is in the book");
    return story;
  }
  if (described.historyFiled) {
    const LineCell cell = interim.cell(spanOf(described), described.name, index);
    for (const LineCell::Part& part : cell.parts) story.lines.push_back(factWords(s, part));
    if (cell.parts.empty() && figure.hasValue())
      story.lines.emplace_back("no document reports this line; taken as none reported");
    return story;
  }
  if (!described.history) return story;
  story.lines.push_back("by history's rule " + expressionText(*described.history));
  std::vector<model::RowId> lines;
  linesRead(m, *described.history, lines, 0);
  for (const model::RowId line : lines) {
    const model::Row& read = m[line];
    const LineCell cell = interim.cell(spanOf(read), read.name, index);
    story.lines.push_back(read.label + ": " + shownWithUnit(s, cell.figure, read.kind));
    for (const LineCell::Part& part : cell.parts) story.lines.push_back("    " + factWords(s, part));
  }
  return story;
}

}  // namespace zl::services
