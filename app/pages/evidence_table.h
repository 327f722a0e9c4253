#pragma once
// What stands beside a driver: its history over windows, estimates, guidance, peers, the economy.
// Enter adopts a figure and records where it came from.

#include <QObject>

#include "app/bench/workbench.h"
#include "app/grid/ledger_view.h"
#include "services/views/driver_evidence.h"

namespace zl::app {

class EvidenceTable : public QObject {
  Q_OBJECT

 public:
  /// `grid` is the page's own, so that its cells are summed like any other.
  EvidenceTable(Workbench& bench, LedgerView* grid, QObject* parent);
  void show(const QString& driver);

 private:
  struct Estimates {
    const char* key;
    EstimateBy by;
    QString label;
    const std::vector<Consensus::Spread>& years;
  };
  [[nodiscard]] std::vector<LedgerRow> historyRows(const services::DriverEvidence& e) const;
  void addEstimates(const Estimates& estimates, std::vector<LedgerRow>& rows) const;
  [[nodiscard]] LedgerRow besideRow(const QString& key, const QString& label, const Figure& figure, const QString& tip,
                                    const QString& range = {}) const;
  /// The first cell's story, told of the range beside it.
  static void tellRange(LedgerRow& row);
  void adopt(int row, int column);
  void adoptFigure(const LedgerRow& line, int column);
  void adoptEstimates(const std::vector<Consensus::Spread>& estimates, const QString& label);
  [[nodiscard]] model::RowId row() const;
  [[nodiscard]] const model::Row& driver() const;

  Workbench& bench_;
  LedgerView* grid_;
  QString driver_;
};

}  // namespace zl::app
