#pragma once
// The multiples there are: of price or of the firm, of what, and of which twelve months. One table says all of it.

#include <string>
#include <vector>

#include "core/quantity/figure.h"

namespace zl {

struct Peer;
struct PeerYear;
struct MeasureBasis;

enum class Multiple {
  PriceToEarnings,
  EvToEbitda,
  PriceToSales,
  PriceToBook,
  PriceToTangibleBook,
  PriceToOperatingCash,
  PriceToFreeCash,
  EvToSales,
  EvToEbit,
  EvToNopat,
  EvToCapital,
  PriceToEarningsThis,
  EvToSalesThis,
  EvToEbitdaThis,
  EvToEbitThis,
  PriceToEarningsNext,
  EvToSalesNext,
  EvToEbitdaNext,
  EvToEbitNext
};

struct MultipleRule {
  Multiple multiple;
  const char* id;     ///< in cases, reports and on the command line: "price-earnings"
  const char* name;   ///< as model text names it: "price_to_earnings"
  const char* label;  ///< "Price to earnings"
  const char* what;   ///< of what: "earnings"
  const char* mark;   ///< short, over a column: "P/E"
  bool ofFirm;        ///< enterprise value over it, else market value of equity
  int ahead;          ///< 0 trailing, 1 this fiscal year of the subject, 2 the next
  bool balance;       ///< of the last balance sheet, else of twelve months
  Figure (*metric)(const MeasureBasis&, const Peer&, const PeerYear&);  ///< in the peer's reporting currency
};

/// In the order in which they are shown.
const std::vector<MultipleRule>& multipleRules();
const MultipleRule& ruleOf(Multiple m);

const char* multipleId(Multiple m);
const char* multipleLabel(Multiple m);
const char* multipleName(Multiple m);

}  // namespace zl
