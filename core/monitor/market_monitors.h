#pragma once
// What monitors find in what the market, the record and the peers say, before any outlook: no edit of a driver changes
// it, so who judges after every edit makes it once.

#include <vector>

#include "core/capital/rates.h"
#include "core/evidence/estimate.h"
#include "core/monitor/finding.h"
#include "core/peers/peer.h"

namespace zl {

struct MarketView {
  const model::Model& model;
  const model::HistoryTable& history;
  int baseColumn = 0;
  const Case& limited;  ///< its limits and its valuation date alone
  const CrossCheck& peers;
  const std::vector<Peer>& companies;  ///< that the cross-check is of
  SpotRates spots;
  const std::vector<PricePoint>& prices;  ///< ascending by date
  const MarketRates& rates;
  const std::vector<Estimate>& estimates;
  std::string currency;  ///< the reporting one
};

MarketFindings monitorMarket(const MarketView& view);

/// How many peers count, who of them is out of scale, stale, of another currency or the subject itself. Part of
/// monitorMarket().
void monitorPeers(const MarketView& view, std::vector<Finding>& found);

/// Prices, rates and estimates older than their limits at the valuation date, and estimates of
/// items that the model does not have. Part of monitorMarket().
void monitorEvidence(const MarketView& view, std::vector<Finding>& found);

}  // namespace zl
