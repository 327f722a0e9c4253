#pragma once
// Statements that come in in another scale than those beside them: thousands read as millions.

#include <optional>
#include <set>
#include <string>

#include "core/filing/mapping.h"

namespace zl {

struct ScaleSlip {
  int decades = 0;  ///< the figures are 10^decades times those beside them: 3, 6, -3 or -6
  int lines = 0;    ///< that say so
  int of = 0;       ///< that can be compared
};

/// Amounts that come in, held against the same line of the same year or the nearest one of `present`. Five lines at
/// least must be comparable, and three quarters of them say the same. A year apart a company grows by less than the
/// tolerance of a factor of two; a line that says something else (an asset sold, a profit near zero) is outvoted.
std::optional<ScaleSlip> scaleSlip(const StandardStatements& incoming, const StandardStatements& present,
                                   const std::set<std::string>& lines);

}  // namespace zl
