#pragma once
// What a figure that is no row of the model stands on: a mean over years, a peer's multiple, a fact
// of a quarter. Told in words, with the cells of the model that it was made of, so that one walks on.

#include <functional>
#include <string>
#include <vector>

#include "core/outlook/trace.h"
#include "services/stages/snapshot.h"

namespace zl::services {

struct Story {
  std::string title;
  std::string figure;              ///< with its unit; "absent" or "not meaningful" where it has none
  std::vector<std::string> lines;  ///< how it came about: rule, documents and places, reasons; one each
  std::vector<TraceLink> reads;    ///< cells of the model, in the scenario `scenario`
  int scenario = 0;
};

/// A story that waits until it is asked for; it is told of what is shown then.
using Telling = std::function<Story(const Snapshot&)>;

/// A figure with its unit; "absent" or "not meaningful" without one.
std::string shownWithUnit(const Snapshot& s, const Figure& figure, Kind kind);

/// The same, and why there is none.
std::string shownOrWhy(const Snapshot& s, const Figure& figure, Kind kind);

/// A story about a figure; a figure without a value says why in the first line.
Story storyAbout(const Snapshot& s, std::string title, const Figure& figure, Kind kind);

/// Adds a row at a column (none is needed for a constant) to what the story stands on; rows that the model does
/// not have and columns beyond its years are left out.
void reads(const Snapshot& s, Story& story, model::RowId row, int column);
void reads(const Snapshot& s, Story& story, model::Role role, int column = 0);

}  // namespace zl::services
