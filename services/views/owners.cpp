#include "services/views/owners.h"

#include <algorithm>

namespace zl::services {

OwnersView ownersOf(const Snapshot& s) {
  const Figure all = s.given(model::Role::SharesNow).figure;
  OwnersView view;
  for (const Holding& h : s.company().holdings) view.holders.emplace_back(h, Figure::of(h.shares) / all);
  std::stable_sort(view.holders.begin(), view.holders.end(),
                   [](const auto& a, const auto& b) { return a.first.shares > b.first.shares; });
  for (const InsiderTrade& t : s.company().insiderTrades) view.trades.emplace_back(t, Figure::of(t.shares) / all);
  std::stable_sort(view.trades.begin(), view.trades.end(),
                   [](const auto& a, const auto& b) { return a.first.on > b.first.on; });
  return view;
}

}  // namespace zl::services
