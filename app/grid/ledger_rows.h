#pragma once
// From a snapshot to ledger rows: choosing, never computing.

#include "app/grid/ledger_model.h"
#include "services/stages/snapshot.h"

namespace zl::app {

/// What a proposed figure stands on, in words.
QString proposedTip(const Provenance& said);

/// Units of a row as its label shows them once.
QString unitOf(const services::Snapshot& s, Kind kind);

/// The unit that rows of money leave out, for the grid's corner: "EUR m where no unit is named".
QString cornerOf(const services::Snapshot& s);

/// A cell that shows a figure, or words that read from the left (the whole on hover).
LedgerCell figureCell(Figure figure, const QString& tip = {});
LedgerCell wordsCell(const QString& words, const QString& tip = {});

/// A heading without figures.
LedgerRow headingRow(const QString& label);

/// One row over the columns from..to-1 of one scenario; forecast drivers are editable.
LedgerRow yearRow(const services::Snapshot& s, model::RowId row, int from, int to, int scenario);

/// One row with a cell per scenario; inputs are editable, choices by the names of their options. Of a row with years
/// the forecast year told (from 1, the last at most); a figure typed for a driver is meant for all its years.
LedgerRow scenarioRow(const services::Snapshot& s, model::RowId row, int year = 1);

/// The rows of a view of the model, by year or by scenario; none where the model does not have the view.
std::vector<LedgerRow> yearRows(const services::Snapshot& s, const char* view, int from, int to, int scenario);
std::vector<LedgerRow> scenarioRows(const services::Snapshot& s, const char* view, int year = 1);

QStringList periodHeaders(const services::Snapshot& s, int from, int to);
QStringList scenarioHeaders(const services::Snapshot& s);

/// Figures with gaps kept, for the trend column: history and the given scenario's forecast.
std::vector<Figure> trendOf(const services::Snapshot& s, model::RowId row, int from, int to, int scenario);

/// Rows of a model group that have a figure per year.
std::vector<model::RowId> groupRows(const services::Snapshot& s, const std::string& group);

}  // namespace zl::app
