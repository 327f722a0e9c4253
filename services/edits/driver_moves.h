#pragma once
// Moving and shaping drivers' paths: what the board's drags, the keys and the shape bar ask for.

#include <string>
#include <vector>

#include "core/outlook/path_grip.h"
#include "services/edits/edits.h"
#include "services/stages/snapshot.h"

namespace zl::services {

/// What a driver's path in a scenario is drawn from.
PathGround groundOf(const Snapshot& s, int scenario, model::RowId row);
/// The driver's figures by forecast year.
std::vector<Figure> forecastOf(const Snapshot& s, int scenario, model::RowId row);

/// Moves a year, a stage or the long-run level of a driver to `figure` (years count from 0). What
/// would go beyond the driver's range stops at it. Keeps the reason that stood.
CaseEdit moveDriver(const Snapshot& s, int scenario, model::RowId row, Grip grip, int year, double figure,
                    Provenance said);

/// A shape as it is asked for: what was left open is taken from the path as it is, so that
/// changing the shape starts from where the path already runs.
struct ShapeWish {
  Path path;
  bool level = false;     ///< path.level was typed (empty: the last actual)
  bool list = false;      ///< path.typed was typed: by stage, or deviations
  bool distance = false;  ///< path.distance was typed
};

/// The path that a wish stands for in one driver.
Path shaped(const Snapshot& s, int scenario, model::RowId row, const ShapeWish& wish);
/// Shapes several drivers at once, as one edit. Each keeps its reason.
CaseEdit shapeDrivers(const Snapshot& s, int scenario, const std::vector<model::RowId>& rows, const ShapeWish& wish,
                      const Provenance& said);

}  // namespace zl::services
