#pragma once
// What peers say, and whether to believe it: which multiples are looked at together, where the subject stands in each,
// what they imply side by side, what one more or one less would do. In: a snapshot. Out: figures, sentences.

#include <optional>
#include <string>
#include <vector>

#include "core/peers/measures.h"
#include "core/peers/peer.h"
#include "services/stages/snapshot.h"

namespace zl::services {

/// Chosen: those that the case shows; where it says nothing, the usual ones and the analyst's own.
enum class MultipleGroup { Chosen, OfPrice, OfFirm, Expected, Normal, All };
std::vector<Multiple> multiplesOf(const Snapshot& s, MultipleGroup group);

/// Where the subject stands among the peers that count.
struct Position {
  Figure own;         ///< the subject's multiple at the price
  Figure percentile;  ///< mid-rank share of the counted peers at or below it
};
Position positionOf(const Snapshot& s, Multiple m);

/// The median and what it implies per share of base, now and with one peer's cell the other way.
struct PeerEffect {
  bool in = false;  ///< as it stands
  Figure median, medianThen, implied, impliedThen;
};
/// Nothing where the cell cannot count.
std::optional<PeerEffect> effectOf(const Snapshot& s, const std::string& peer, Multiple m);

/// A ratio of the subject that its peers have too.
struct PeerRatio {
  model::RowId row;
  PeerSpread peers;                ///< of their last fiscal years, on the basis in use
  Figure apart;                    ///< the subject's of the base year less the peers' median
  std::vector<PeerSpread> before;  ///< of fiscal years before the last, the latest first: two
  /// Better or worse than the peers' quartiles by the ratio's own direction; empty inside them, where it has none, and
  /// without a figure.
  std::string judged;
};
/// Every row of the model that says which measure of peers it is set beside; one row a measure.
std::vector<PeerRatio> peerRatios(const Snapshot& s);

/// How alike a peer is: times the subject's revenue, then the peer's less the subject's by likenessRules().
struct Likeness {
  std::string id, name;
  Figure size;
  std::vector<Figure> apart;
  std::vector<bool> unlike;  ///< of size, then of each: beyond its limit
  std::string identity;      ///< what it does and where, as the record says
};
std::vector<Likeness> likenessOfPeers(const Snapshot& s);

/// What the medians of all multiples that have a value imply for base.
struct ImpliedSpread {
  int count = 0;
  Figure low, middle, high;  ///< per share; the middle is their median
  Multiple lowest{}, highest{};
  std::vector<Multiple> nothing;  ///< by which nothing is left for shareholders; they are not counted
};
ImpliedSpread impliedSpread(const Snapshot& s);
/// In one sentence: how far they lie apart, by which, against the price.
std::string impliedWords(const Snapshot& s);

}  // namespace zl::services
