#pragma once
// Why the subject's multiple is another than its peers': the gap to their median shared out among growth, payout,
// return and risk, and multiples fitted across peers. In: a snapshot whose model has the view "multiple_grounds".

#include <array>
#include <string>
#include <vector>

#include "core/peers/difference.h"
#include "core/peers/multiple_fit.h"
#include "services/stages/snapshot.h"

namespace zl::services {

/// One of growth, payout, return and risk.
struct GroundOfGap {
  model::RowId row;    ///< the subject's
  Figure here, there;  ///< the subject's in base; the median of the peers that tell it
  int count = 0;       ///< that tell it
  Figure part;         ///< of the gap, in natural logarithms
  std::string how;     ///< what of the peers it is
};

struct WhyDiffers {
  Multiple multiple = Multiple::PriceToEarningsThis;
  Figure own, peers;  ///< multiples: the subject's at the price, the median of those that count
  std::array<GroundOfGap, 4> grounds;
  MultipleGap gap;
  std::string words;  ///< in one sentence
};
/// Of price to this year's earnings; of trailing ones where no peer has an estimate. Absent throughout, and says why,
/// where the model has no such view.
WhyDiffers whyDiffers(const Snapshot& s);

/// What a peer pays for, as fitMultiples() takes it: growth of revenue, margin (of the firm before interest, of price
/// after it) and return on equity, each of its last fiscal year; the subject's of its base year.
MultipleFit fitAcrossPeers(const Snapshot& s, Multiple m);
/// "growth of revenue", "EBIT margin", "return on equity": in the order of the fit.
std::array<std::string, 3> traitsOf(Multiple m);

}  // namespace zl::services
