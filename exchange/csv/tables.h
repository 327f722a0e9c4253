#pragma once
// The documented CSV layouts (docs/formats/csv.md) to core values.

#include <string_view>
#include <vector>

#include "core/capital/rates.h"
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
};
/// date,close — ascending or not; the result ascends. One row a day. A further column `unit` (or `currency`) says what
/// they are quoted in, the same in every row.
Result<PriceTable> readPrices(std::string_view content, const std::string& name);
/// peer,name,currency,price,price_currency,minor_per_major,price_date,shares,debt,leases,
/// preferred,minorities,pension,cash,associates,year_end,revenue,ebitda,net_income,remark —
/// one row a peer and fiscal year; empty cells are absent, never zero.
Result<std::vector<Peer>> readPeers(std::string_view content, const std::string& name);
/// rate,date,figure,source
Result<std::vector<MarketRate>> readRates(std::string_view content, const std::string& name);

/// item,year,low,mean,high,count,date,source — one estimate a row; low, high and count may be empty. A further column
/// `by` says whose: `analysts` (when left out) or `company`, whose mean may be empty between low and high.
Result<std::vector<Estimate>> readEstimates(std::string_view content, const std::string& name);

}  // namespace zl::exchange
