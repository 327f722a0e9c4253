#pragma once
// What the history grid shows in each of its views: choosing from the snapshot, never computing.

#include "app/grid/ledger_rows.h"
#include "services/views/history_figures.h"
#include "services/views/interim_table.h"

namespace zl::app {

enum class HistoryShow {
  Amounts,
  Growth,
  GrowthTwoYears,
  Change,
  ShareOfRevenue,
  PerShare,
  Trends,
  UsesOfCash,
  ProfitWalk,
  Quality
};

/// Everything a grid needs.
struct HistoryGrid {
  QStringList headers;
  std::vector<LedgerRow> rows;
  std::vector<bool> flagged;
  std::vector<std::string> tests;  ///< of the quality review, by row; empty for headings
  QString corner;                  ///< units, where they are not the usual ones
  bool trend = true;
};

/// Whether a view has one column per period, so that quarters can take the place of years.
bool isByPeriod(HistoryShow show);

HistoryGrid historyGrid(const services::Snapshot& s, HistoryShow show, services::Reading reading, int scenario);
/// The last five years of quarters, or of twelve months to each quarter.
HistoryGrid interimGrid(const services::Snapshot& s, HistoryShow show, services::Basis basis, int scenario);

/// A filed flow of money: what the analyst may adjust.
bool isAdjustable(const model::Row& row);

}  // namespace zl::app
