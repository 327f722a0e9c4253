#pragma once
// The tables of the market as the window shows them: which there are, how their columns are headed and read, and what
// stands in them now.

#include <QString>
#include <QStringList>
#include <map>
#include <vector>

#include "services/stages/snapshot.h"

namespace zl::app {

/// A column as the grid heads it and as the reader of tables knows it; amounts are shown in millions.
struct MarketColumn {
  QString label;
  QString read;
  bool words = false;
  bool needed = false;
  bool amount = false;
};

struct MarketRows {
  enum class Table { Prices, Series, Rates, Regions, Spreads, Peers, Estimates };
  Table table = Table::Prices;
  QString key, label, hint;
  std::vector<MarketColumn> columns;
  std::vector<size_t> names;  ///< columns that say which row is meant
  std::vector<int> widths;    ///< of the first columns
  size_t enough = 1;          ///< cells that a new row needs before it comes in
};

const std::vector<MarketRows>& marketTables();
/// One of them for a company: that of peers has what its own multiples are of besides.
MarketRows marketTable(size_t at, const services::Snapshot& s);
/// What stands in a table now, newest first where it is long; as it would be typed.
std::vector<std::vector<QString>> marketRowsOf(const MarketRows& of, const services::Snapshot& s);
/// What the cells of a column may be chosen from, by column.
std::map<int, QStringList> marketChoices(const MarketRows& of, const services::Snapshot& s);

}  // namespace zl::app
