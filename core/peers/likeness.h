#pragma once
// How alike a peer and the subject are, measure by measure.

#include <functional>
#include <string>
#include <vector>

#include "core/peers/peer.h"

namespace zl {

/// One measure of peers in which companies are alike or not.
struct LikenessRule {
  const char* measure;  ///< of peerMeasures()
  const char* words;    ///< "growth"
  const char* limit;    ///< the monitor whose limit says how far apart is unlike
};
/// Growth, margin, return, leverage.
const std::vector<LikenessRule>& likenessRules();

/// The peer's less the subject's of every rule, in its order: points of ratios, turns of EBITDA. Absent where either is
/// not known.
std::vector<Figure> distancesOf(const Peer& peer, const MeasureBasis& basis,
                                const std::function<Figure(const char* measure)>& subjects);

}  // namespace zl
