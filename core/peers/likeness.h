#pragma once
// How alike a peer and the subject are, measure by measure.

#include <functional>
#include <string>
#include <vector>

#include "core/peers/peer.h"

namespace zl {

/// One measure of peers in which companies are alike or not.
struct LikenessRule {
  const char* measure;                 ///< of peerMeasures()
  const char* words;                   ///< "growth"
  const char* limit;                   ///< the monitor whose limit says how far apart is unlike
  RevenueMix Peer::*mix = nullptr;     ///< in place of a measure: where its revenue is from
  RevenueMix Subject::*own = nullptr;  ///< the subject's, with `mix`
};
/// Growth, margin, return, leverage, regions, businesses.
const std::vector<LikenessRule>& likenessRules();

/// The peer's less the subject's of every rule, in its order: points of ratios, turns of EBITDA; of mixes the share of
/// revenue that is made elsewhere, see mixApart(). Absent where either is not known.
std::vector<Figure> distancesOf(const Peer& peer, const Subject& subject,
                                const std::function<Figure(const char* measure)>& subjects);

/// Half of the sum of differences between shares, 0 to 1: what would have to move for the two to be alike. Names are
/// the same by their letters, however they are written. Absent where either says nothing.
Figure mixApart(const RevenueMix& a, const RevenueMix& b);

}  // namespace zl
