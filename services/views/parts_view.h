#pragma once
// The sum of the parts as it stands: each part's figure, multiple and worth, and what is still missing. In: a snapshot.

#include <string>
#include <vector>

#include "services/stages/parts.h"
#include "services/stages/snapshot.h"

namespace zl::services {

struct PartsView {
  CutOfParts cut;  ///< empty where nothing is filed by part
  SumOfParts sum;
  Figure byProfit, byRevenue;  ///< what the peers' medians are: EV to EBIT, EV to sales
  std::string words;           ///< in one sentence
};
PartsView partsView(const Snapshot& s);

}  // namespace zl::services
