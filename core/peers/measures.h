#pragma once
// Peers' figures beside the subject's own: rows of the model that a peer table can tell.

#include <string>
#include <vector>

#include "core/model/syntax.h"
#include "core/peers/peer.h"

namespace zl {

/// Measures that can be taken of peers, as rows of a model name them (`peers ebit_margin`).
const std::vector<std::string>& peerMeasures();

/// The peer's figure for one of peerMeasures() in its last fiscal year, on the basis: ratios in its
/// own currency, defined as the model defines the row. Absent where the table lacks a part of it.
/// `back`: of so many fiscal years before; claims are known of the last balance sheet alone.
Figure peerMeasure(const Peer& peer, const std::string& row, const MeasureBasis& basis, int back = 0);

/// The row of a model that is set beside a measure of peers; unknown where none is.
model::RowId rowOfMeasure(const model::Model& m, const std::string& measure);

/// 1 where more of the measure is better, -1 where less is, 0 where neither is said.
int betterBy(const std::string& row);

struct PeerSpread {
  int count = 0;  ///< peers with a figure
  Figure low, lowerQuartile, median, upperQuartile, high;
};

/// Over all peers but the subject; absent figures where no peer has one.
PeerSpread peerSpread(const std::vector<Peer>& peers, const std::string& subject, const std::string& row,
                      const MeasureBasis& basis, int back = 0);

}  // namespace zl
