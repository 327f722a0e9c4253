#pragma once
// Base of the same case upon another model that ships: as much of it as says whether the two agree, and in which flows
// they do not.

#include <map>
#include <string>

#include "core/outlook/probe.h"

namespace zl {

struct OnOtherModel {
  std::string title;
  Figure value;                              ///< per share, before the floor, as quoted
  int columns = 0;                           ///< years filed and forecast
  std::map<std::string, Figure> flowShares;  ///< by row: the last forecast year's flows of its revenue
};

/// Of the scenario that the ground names; figures are absent where the model has no such row.
OnOtherModel onOtherModel(std::string title, const ProbeGround& ground);

}  // namespace zl
