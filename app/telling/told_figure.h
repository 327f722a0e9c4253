#pragma once
// A figure that can be asked what it stands on, wherever it is shown: a cell of a grid, a mark of a chart or of the
// rail.

#include <optional>

#include "core/model/program.h"
#include "services/stories/story.h"

namespace zl::app {

struct ToldFigure {
  std::optional<model::Cell> source = {};  ///< what the trace shows
  int scenario = -1;                       ///< -1: the scenario looked at
  /// What a figure that is not a row of the model stands on; goes before `source` in the trace.
  services::Telling story = {};

  [[nodiscard]] bool tells() const { return source || story; }
};

}  // namespace zl::app
