#pragma once
// Who holds the company and what its own people traded, against the shares there are.

#include <utility>
#include <vector>

#include "services/stages/snapshot.h"

namespace zl::services {

struct OwnersView {
  std::vector<std::pair<Holding, Figure>> holders;      ///< the largest first; with the share of all ordinary shares
  std::vector<std::pair<InsiderTrade, Figure>> trades;  ///< the latest first; likewise, negative where sold
};
OwnersView ownersOf(const Snapshot& s);

}  // namespace zl::services
