#pragma once
// The documented CSV layouts (docs/formats/csv.md) to core values. A row that cannot be used is set aside with a
// warning; a table without any other fails with what is wrong with its first.

#include <string_view>
#include <vector>

#include "core/capital/rates.h"
#include "core/capital/series.h"
#include "core/evidence/estimate.h"
#include "core/filing/fact.h"
#include "core/peers/peer.h"
#include "core/quantity/error.h"
#include "exchange/stop_check.h"

namespace zl::exchange {

/// concept,label,start,end,unit,decimals,value — one fact a row; empty start: a balance.
Result<Filing> readFactTable(std::string_view content, const std::string& name, const StopCheck& stopped = {});
struct PriceTable {
  std::vector<PricePoint> closes;  ///< ascending
  std::string unit;                ///< that they are quoted in, "EUR" or "GBX"; empty where the table does not say
  std::vector<std::string> warnings;
};
/// What a table says, and its rows that were set aside.
template <class T>
struct TableOf {
  std::vector<T> rows;
  std::vector<std::string> warnings;
};

/// date,close — ascending or not; the result ascends. Of a day with two closes none counts. A further column `unit` (or
/// `currency`) says what they are quoted in, the same in every row.
Result<PriceTable> readPrices(std::string_view content, const std::string& name);
/// peer,name,currency,price,price_currency,minor_per_major,price_date,shares,debt,leases,
/// preferred,minorities,pension,cash,associates,year_end,revenue,ebitda,net_income,remark,source —
/// one row a peer and fiscal year; empty cells are absent, never zero.
Result<TableOf<Peer>> readPeers(std::string_view content, const std::string& name);
/// rate,date,figure,source
Result<TableOf<MarketRate>> readRates(std::string_view content, const std::string& name);

/// series,date,level,unit,dividend,source — levels of any number of indices and shares, in any order; unit, dividend
/// and source may be empty. Of a day with two levels of one series none counts.
Result<TableOf<MarketSeries>> readSeries(std::string_view content, const std::string& name);

/// item,year,low,mean,high,count,date,source — one estimate a row; low, high and count may be empty. A further column
/// `by` says whose: `analysts` (when left out) or `company`, whose mean may be empty between low and high.
Result<TableOf<Estimate>> readEstimates(std::string_view content, const std::string& name);

}  // namespace zl::exchange
