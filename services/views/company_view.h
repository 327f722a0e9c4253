#pragma once
// Orientation: what the company does, where, how it is valued today, what was bought, what is due.

#include <string>
#include <vector>

#include "core/capital/price_history.h"
#include "core/review/make_up.h"
#include "services/stages/snapshot.h"

namespace zl::services {

/// The company cut along one axis, by fiscal year.
struct SegmentView {
  std::string axis;                          ///< in words: "Segments"
  std::vector<std::string> members;          ///< in words
  std::vector<std::vector<Figure>> revenue;  ///< by member, then year
  std::vector<std::vector<Figure>> profit;   ///< EBIT of the part; absent where none is filed
  std::vector<std::vector<Figure>> margin;   ///< EBIT over revenue of the part
  std::vector<MarginChange> change;          ///< by year, against the year before
  /// What they were filed as, likewise: indices into the evidence's facts.
  std::vector<std::vector<std::optional<size_t>>> revenueFacts, profitFacts;
};
std::vector<SegmentView> segmentViews(const Snapshot& s);
/// Revenue by year of the parts from one on, together: those that have a figure; absent where none has.
std::vector<Figure> revenueOfRest(const SegmentView& view, size_t from);

/// The share's price and what it makes of the company, at the valuation date. Multiples stand on
/// the base year as adjusted; yields are over the market value of equity.
struct MarketView {
  PriceSummary price;
  Figure marketEquity, enterpriseValue;
  Figure priceToEarnings, evToEbitda, evToRevenue, priceToBook;
  Figure earningsYield, freeCashYield, dividendYield;
};
MarketView marketView(const Snapshot& s);

/// Who a peer is by the record: what it is called, what it does, where, its identifier; empty where it says nothing.
std::string peerIdentity(const Company& company, const PeerRow& peer);

/// Revenue growth without what deals brought, by fiscal year.
std::vector<Figure> organicGrowth(const Snapshot& s);

/// The largest amount of money that the statements show, filed or projected in any scenario; 0 where there is none.
double largestAmount(const Snapshot& s);

/// EBIT of a deal's first twelve months over its price; not meaningful for a sale.
Figure returnOnDeal(const Deal& deal);

/// Debt falling due by year: fixed and floating, in reporting currency.
struct DueView {
  std::vector<int> years;
  std::vector<Figure> fixed, floating;
};
DueView debtDue(const Snapshot& s);

}  // namespace zl::services
