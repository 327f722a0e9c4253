#pragma once
// What peers' figures stand on: a multiple, statistics over multiples, what they imply for the
// subject, and spreads of peers' measures beside the subject's own.

#include <string>

#include "core/peers/measures.h"
#include "services/stories/story.h"
#include "services/views/outside_multiples.h"
#include "services/views/past_multiples.h"

namespace zl::services {

/// A peer's revenue in the subject's currency and months.
Story peerRevenueStory(const Snapshot& s, const std::string& peer);
/// A peer's multiple: price, claims, the metric's fiscal years, and why it counts or does not.
Story multipleStory(const Snapshot& s, const std::string& peer, Multiple m);
/// A statistic over the multiples that count.
Story multipleStatisticStory(const Snapshot& s, Multiple m, const std::string& statistic, const Figure& figure);
/// A statistic over peers' measures of a row.
Story peerSpreadStory(const Snapshot& s, const std::string& row, const std::string& statistic, const Figure& figure,
                      Kind kind);

/// A figure of the subject's own past multiples.
Story pastStory(const Snapshot& s, const std::string& label, const PastSeries& of, const Figure& figure, Kind kind);
/// A figure of a sector's multiples over time or of deals.
Story outsideStory(const Snapshot& s, const OutsideMultiples& of, const std::string& label, const Figure& figure,
                   Kind kind);
/// What somebody else says the share is worth.
Story othersStory(const Snapshot& s, const OthersValue& of, const std::string& label, const Figure& figure, Kind kind);
/// What was paid in a fiscal year, payment by payment.
Story dividendStory(const Snapshot& s, const std::string& label, int year, const Figure& figure, Kind kind);
/// How far a peer is from the subject in a measure of peers; in size without one.
Story likenessStory(const Snapshot& s, const std::string& peer, const std::string& measure, const Figure& figure,
                    Kind kind);
/// The enterprise value that a statistic of a multiple implies in Base.
Story impliedEnterpriseStory(const Snapshot& s, Multiple m, const std::string& statistic, const Figure& figure);
/// Where the subject stands among the peers that count.
Story positionStory(const Snapshot& s, Multiple m, const Figure& percentile);

}  // namespace zl::services
