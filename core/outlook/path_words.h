#pragma once
// A driver's path in words: "glides from 8.1 to 2.0 % by year 5".

#include <string>

#include "core/outlook/path.h"
#include "core/quantity/kind.h"

namespace zl {

/// Short enough for a cell; figures in the kind's own notation, years counted from 1.
std::string pathWords(const Path& path, Kind kind);

}  // namespace zl
