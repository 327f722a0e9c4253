#pragma once
// The subject's beta from the book's own series, and its peers' by the same way: unlevered, their median, relevered at
// the subject's structure. In: a snapshot and how it is to be reckoned. Out: figures, and every reason why one is not
// sound.

#include <string>
#include <vector>

#include "core/capital/beta.h"
#include "services/stages/snapshot.h"

namespace zl::services {

struct BetaSettings {
  /// A series by name; empty: the first that is nobody's share, one in the share's currency where there is one. A peer
  /// in another currency is held against an index of its own where the book has one.
  std::string index;
  ReturnFrequency frequency = ReturnFrequency::Weekly;
  int years = 3;      ///< back from the valuation date
  bool total = true;  ///< dividends added where they are known
};

/// "weekly, 3 years to 2026-04-30, Broad 100, with dividends"
std::string betaWords(const BetaSettings& settings, const std::string& index, Date to);

struct OwnBeta {
  std::string index, indexUnit;
  Date from{}, to{};
  PairedReturns returns;
  Regression fit;
  std::vector<std::pair<Date, Figure>> rolling;  ///< over half of the window
  std::vector<std::string> notes;                ///< what is not sound, each with what to do
};

/// A company's series, by its short name or its name; null where the book has none.
const MarketSeries* seriesOf(const Snapshot& s, const std::string& id, const std::string& name);
/// Names of series that are an index: those of no peer and not the subject's own.
std::vector<std::string> indicesOf(const Snapshot& s);
OwnBeta ownBeta(const Snapshot& s, const BetaSettings& settings);

struct PeerBeta {
  std::string id, name;
  Figure beta;      ///< with debt: from its series, else as typed under "beta NAME" among the rates
  std::string how;  ///< "weekly, n 156" or date and source
  Figure debtToEquity;
  Figure taxRate;  ///< absent where neither its own nor the subject's is known
  std::string taxSource;
  Figure unlevered;  ///< not meaningful where its equity is unknown
};

struct PeerBetas {
  std::vector<PeerBeta> peers;
  Figure median;        ///< of the unlevered ones
  int count = 0;        ///< that it is of
  Figure debtToEquity;  ///< of the subject, at the weights of the first forecast year
  Figure relevered;
};
PeerBetas peerBetas(const Snapshot& s, const BetaSettings& settings, int scenario);

}  // namespace zl::services
