#pragma once
// Prices, series, rates, peers and estimates as grids that take typing and pasted cells. A row at the top is for what
// is new; a table with headings of its own may be pasted anywhere. Everything goes the way of files.

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>

#include "app/bench/workbench.h"
#include "app/grid/ledger_view.h"
#include "app/pages/market_rows.h"

namespace zl::app {

class MarketPanel : public QWidget {
  Q_OBJECT

 public:
  MarketPanel(Workbench& bench, LedgerView* grid, QWidget* parent);
  void refresh();

 private:
  [[nodiscard]] MarketRows table() const;
  void typeCell(int row, int column, const QString& typed);
  void paste(int row, int column, const QList<QStringList>& cells);
  void pasteWhole();
  void send(const std::vector<QString>& columns, const std::vector<std::vector<QString>>& rows, const QString& label);

  Workbench& bench_;
  LedgerView* grid_;
  QComboBox* which_;
  QLabel* hint_;
  QLineEdit* series_;  ///< whose levels are pasted
  std::vector<QString> fresh_;
};

}  // namespace zl::app
