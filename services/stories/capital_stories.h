#pragma once
// What figures of the cost of capital and of the further ways to value stand on, where they are no row of the model.

#include "services/stages/own_beta.h"
#include "services/stories/story.h"
#include "services/views/capital_view.h"
#include "services/views/cash_view.h"

namespace zl::services {

/// A rival of a part of the rate, or the value with it in the part's place.
Story rivalStory(const Snapshot& s, model::RowId row, const Rival& rival, int scenario, bool ofValue);
/// A figure of the subject's own regression.
Story regressionStory(const Snapshot& s, const std::string& label, const Figure& figure, Kind kind, const OwnBeta& own,
                      const BetaSettings& settings);
/// A peer's beta with or without debt, its debt to equity or its tax.
Story peerBetaStory(const Snapshot& s, const std::string& label, const Figure& figure, Kind kind, const PeerBeta& peer);
/// The peers' median, or it relevered.
Story peerMedianStory(const Snapshot& s, const std::string& label, const Figure& figure, const PeerBetas& peers);
/// What a method gives with the hurdle taken one way or another.
Story hurdleStory(const Snapshot& s, const std::string& label, const Figure& figure, int scenario);
/// Costs of equity at which flows to shareholders are worth the price.
Story impliedCostStory(const Snapshot& s, int scenario, const std::string& shown);
/// The yearly return to the dated target.
Story targetStory(const Snapshot& s, int scenario, const DatedTarget& target);

}  // namespace zl::services
