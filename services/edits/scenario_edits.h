#pragma once
// Edits of whole scenarios. Base is the ground that the others stand on: it can be copied and
// copied over, never removed.

#include "services/edits/edits.h"

namespace zl::services {

/// A further scenario at probability 0 that holds what `like` holds. Its id comes from the label.
CaseEdit addScenario(const Case& c, const std::string& label, const std::string& like);
CaseEdit removeScenario(const Case& c, const std::string& id);
CaseEdit renameScenario(const Case& c, const std::string& id, const std::string& label);
/// Gives `to` all that `from` holds. Copied over base, the other scenarios stay where they are
/// (those that follow base by a distance follow it still).
CaseEdit copyScenario(const Case& c, const model::Model& m, const std::string& from, const std::string& to);
/// Two scenarios change places in what they say; neither may be base.
CaseEdit swapScenarios(const Case& c, const std::string& a, const std::string& b);
/// The scenario says nothing of its own any more.
CaseEdit resetScenario(const Case& c, const std::string& id);

}  // namespace zl::services
