#pragma once
// Peers' figures beside the subject's own: rows of the model that a peer table can tell.

#include <string>
#include <vector>

#include "core/peers/peer.h"

namespace zl {

/// Measures that can be taken of peers, as rows of a model name them (`peers ebit_margin`).
const std::vector<std::string>& peerMeasures();

/// The peer's figure for one of peerMeasures() in its last fiscal year, on the basis: ratios in its
/// own currency, defined as the model defines the row. Absent where the table lacks a part of it.
Figure peerMeasure(const Peer& peer, const std::string& row, const MeasureBasis& basis);

struct PeerSpread {
  int count = 0;  ///< peers with a figure
  Figure low, median, high;
};

/// Over all peers but the subject; absent figures where no peer has one.
PeerSpread peerSpread(const std::vector<Peer>& peers, const std::string& subject, const std::string& row,
                      const MeasureBasis& basis);

}  // namespace zl
