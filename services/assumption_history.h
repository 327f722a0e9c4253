#pragma once
// The journal of one assumption: who changed it, when, from what to what, and why.

#include <string>
#include <vector>

#include "services/session.h"

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

/// Changes of what a scenario itself says of a driver or an input, latest first. Edits that were
/// undone do not count. Fails when the book cannot be read.
Result<std::vector<AssumptionChange>> historyOf(Session& session, const std::string& scenario, const std::string& row);

}  // namespace zl::services
