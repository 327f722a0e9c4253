#pragma once
// What stands behind the gap to the peers' median, and behind a multiple fitted across peers.

#include "services/stories/story.h"
#include "services/views/why_differs.h"

namespace zl::services {

/// Of one ground of the gap: `figure` is the subject's, the peers' or its part.
Story groundStory(const Snapshot& s, const WhyDiffers& why, size_t ground, const std::string& label,
                  const Figure& figure, Kind kind);
/// Of the whole gap, or what is left of it.
Story gapStory(const Snapshot& s, const WhyDiffers& why, const std::string& label, const Figure& figure, Kind kind);
/// A figure of the fit; with a peer, of that one.
Story fitStory(const Snapshot& s, Multiple m, const MultipleFit& fit, const std::string& label, const Figure& figure,
               Kind kind, const std::string& peer = {});

}  // namespace zl::services
