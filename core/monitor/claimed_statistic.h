#pragma once
// What a reason in words says a multiple is: "near the peers' median" is held against that median, "a tenth under it"
// is not. In the languages that analysts write here: English, German, French, Spanish, Italian, Dutch, Swedish.

#include <string>
#include <utility>

#include "core/peers/peer.h"

namespace zl {

/// The statistic of peers that a reason's first clause says the figure is, with its English name; absent where it names
/// none, or a distance from one.
std::pair<Figure, std::string> claimedStatistic(const std::string& reason, const MultipleStatistics& of);

}  // namespace zl
