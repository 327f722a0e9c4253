#pragma once
// What taking hold of a path and moving it makes of the path. A shape is kept where the move can
// be told in its own terms; otherwise the years are typed out and the others stay where they are.

#include <vector>

#include "core/outlook/path.h"

namespace zl {

enum class Grip {
  Year,   ///< the point of one year
  Stage,  ///< the years of its stage together
  Level   ///< where the path ends up: its long-run level
};

/// `current` is the path's figures by year, `year` counts from 0, `figure` is where that year (or
/// the level) is moved to. Years without a figure stay without one.
Path moved(const Path& path, const PathGround& ground, const std::vector<Figure>& current, Grip grip, int year,
           double figure);

}  // namespace zl
