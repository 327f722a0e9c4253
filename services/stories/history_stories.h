#pragma once
// What figures of the history page stand on: a view of one year, a statistic over years, a quarter,
// a step of the profit walk, a sum of uses of cash, a test of the quality review.

#include <string>

#include "services/stories/story.h"
#include "services/views/history_figures.h"
#include "services/views/interim_table.h"

namespace zl::services {

/// A filed fact as it stands on its line: a negative weight turns its sign.
Story factStory(const Snapshot& s, const LineCell::Part& part);
/// What a later filing changed, indices of facts.
Story restatementStory(const Snapshot& s, size_t first, size_t last);

/// Figures that should add up, in a filed year: what is left over, and the facts of both sides.
struct FiledTie {
  std::string label;
  std::string total;  ///< row of the model, may be empty
  int column = 0;
  bool holds = true;
  std::string gap, tolerance;  ///< exact decimal texts
  std::vector<size_t> facts;
};
Story tieStory(const Snapshot& s, const FiledTie& tie);

/// Years of a row, filed columns from..to.
struct YearsOf {
  model::RowId row;
  int from = 0, to = 0;
  Reading reading = Reading::Adjusted;
  bool regularOnly = false;  ///< flagged years are named as left out
};

/// The last `count` filed years of a row, as far as history goes.
YearsOf lastYears(const Snapshot& s, model::RowId row, int count, Reading reading = Reading::Adjusted,
                  bool regularOnly = false);

/// A filed year read in a view: growth, share of revenue, per share, or the amount as filed.
Story viewStory(const Snapshot& s, model::RowId row, int column, HistoryView view, Reading reading,
                const Figure& figure);

/// The same of an interim period, `period` being a column of `interimTable(s, basis)`.
Story interimViewStory(const Snapshot& s, model::RowId row, const std::string& period, HistoryView view, Basis basis,
                       const Figure& figure);

/// A statistic over years: `what` says which ("median", "fitted growth a year").
Story yearsStory(const Snapshot& s, const YearsOf& years, const std::string& what, const Figure& figure, Kind kind);

/// A trend between the two ends of a span.
Story spanStory(const Snapshot& s, model::RowId row, const HistorySpan& span, Reading reading, const Figure& figure,
                Kind kind);

/// Sums (or, with `share`, shares of the cash generated) over a span, on figures as filed.
Story usesStory(const Snapshot& s, model::RowId row, const HistorySpan& span, bool share, const Figure& figure);

/// A step of profitWalk() in a filed year; `row` is -1 for what no line explains.
Story profitStepStory(const Snapshot& s, const std::string& label, model::RowId row, int column, bool perShare,
                      Reading reading, const Figure& figure);

/// A test's figure.
Story qualityStory(const Snapshot& s, const QualityTest& test, Reading reading, const Figure& figure, Kind kind);
/// What it is held against, and whose that is.
Story thresholdStory(const Snapshot& s, const QualityTest& test, const Figure& figure, Kind kind);

}  // namespace zl::services
