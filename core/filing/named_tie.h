#pragma once
// Ties by their names, for the lines of a ties text that refer to them.

#include <algorithm>
#include <string>
#include <vector>

#include "core/filing/tie.h"

namespace zl {

/// Null where there is none of that name.
inline const Tie* tieNamed(const std::vector<Tie>& ties, const std::string& name) {
  const auto found = std::find_if(ties.begin(), ties.end(), [&](const Tie& t) { return t.name == name; });
  return found == ties.end() ? nullptr : &*found;
}

}  // namespace zl
