#pragma once
// The journal of one assumption: who changed it, when, from what to what, and why.

#include <string>
#include <vector>

#include "services/sessions/session.h"

namespace zl::services {

struct AssumptionChange {
  std::int64_t entry = 0;  ///< number in the journal
  std::string at;
  std::string author;
  std::string label;  ///< of the edit that changed it
  std::string from;   ///< in words; empty: the scenario said nothing of its own
  std::string to;
  std::string reason;  ///< given with what it was changed to
};

struct AssumptionHistory {
  std::vector<AssumptionChange> changes;  ///< latest first
  /// The journal entry before which nothing can be told, because it does not fit the case's present
  /// form; 0: all is told.
  std::int64_t untoldBefore = 0;
};

/// In place of a row: the scenario's probability.
inline constexpr const char* kProbability = "probability";

/// Changes of what a scenario itself says of a driver, an input or its probability. Edits that were
/// undone do not count. Fails when the book cannot be read.
Result<AssumptionHistory> historyOf(Session& session, const std::string& scenario, const std::string& row);

/// A change in a line: from what to what, and why.
std::string changeText(const AssumptionChange& change);
/// That nothing older can be told; empty where all is.
std::string untoldText(const AssumptionHistory& told);

}  // namespace zl::services
