#pragma once
// Filed history as it can be read: amounts, changes, growth, shares, per share; trends over spans
// of years; what moved profit; what cash was used for.

#include <string>
#include <vector>

#include "core/history/trend.h"
#include "core/peers/measures.h"
#include "services/stages/snapshot.h"

namespace zl::services {

enum class HistoryView { Amounts, Change, Growth, GrowthTwoYears, ShareOfRevenue, PerShare };

/// Whether figures are read as filed or with the analyst's adjustments; splits are restated in both.
enum class Reading { Adjusted, AsFiled };

const model::HistoryTable& tableOf(const Snapshot& s, Reading reading);

/// What a filed figure in use was made of: adjustments with their reasons, a split restated. Empty
/// where it stands as filed.
std::vector<std::string> besideFiled(const Snapshot& s, model::RowId row, int column);

/// The kind a row's figures have in a view, nullopt where the view says nothing about the row: the
/// growth of a ratio, the share of a count. Money per share is in reporting currency.
std::optional<Kind> kindIn(HistoryView view, const model::Row& row);

/// One figure per fiscal year; for rows that kindIn() knows in that view.
std::vector<Figure> figuresIn(const Snapshot& s, model::RowId row, HistoryView view, Reading reading);

/// Flagged years, for a row that compares two years also the year after.
std::vector<bool> leftOut(const Snapshot& s, model::RowId row);

Series seriesOf(const Snapshot& s, model::RowId row, Reading reading);

/// A span of years that trends are taken over, ending with the base year or as the analyst keeps it.
struct HistorySpan {
  int from = 0, to = 0;
  std::string label;   ///< "5 yrs", "2016-21"
  std::string reason;  ///< of a window kept
};
/// 1, 3, 5 and 10 years to the base year as far as history goes, then the windows kept.
std::vector<HistorySpan> spansOf(const Snapshot& s);

/// Statistics of a row's history reach so far back.
inline constexpr int kStatisticsYears = 10;

struct RowTrends {
  std::vector<SpanTrend> spans;  ///< in the order of spansOf()
  FittedTrend fitted;            ///< over the last kStatisticsYears
  Statistics all, included;      ///< of the same years, with and without exceptional ones
};
RowTrends trendsOf(const Snapshot& s, model::RowId row, Reading reading);

/// How one line moved net income and earnings per share between two years.
struct ProfitStep {
  std::string label;
  model::RowId row;           ///< names nothing for what no line explains
  std::vector<Figure> money;  ///< by year; the first is absent
  std::vector<Figure> perShare;
};
/// Steps of the income statement whose sums are the changes of net income to shareholders and of
/// earnings per share; a line's step per share is taken at the year before's count, the last step
/// is what the count of shares did.
std::vector<ProfitStep> profitWalk(const Snapshot& s, Reading reading);

/// The quality review on the chosen reading, in the order of Resources::tests.
std::vector<QualityResult> qualityReview(const Snapshot& s, Reading reading);

/// Peers' last fiscal years beside a test, on the basis in use; none for tests of growth, change or
/// the share of years, which one year cannot tell.
PeerSpread peersBeside(const Snapshot& s, const QualityTest& test);

/// Uses of cash over a span: sums, and shares of the operating cash flow of the span (not
/// meaningful where that is not positive).
struct CashUse {
  model::RowId row;
  std::vector<Figure> sums, shares;  ///< in the order of spansOf()
};
std::vector<CashUse> usesOfCash(const Snapshot& s);

}  // namespace zl::services
