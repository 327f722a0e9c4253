#pragma once
// What the figures of a part stand on.

#include "services/stories/story.h"
#include "services/views/parts_view.h"

namespace zl::services {

/// Of a part by its place, or of the whole for a place beyond them.
Story partStory(const Snapshot& s, const PartsView& view, size_t part, const std::string& label, const Figure& figure,
                Kind kind);

}  // namespace zl::services
