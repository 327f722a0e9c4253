#pragma once
// Books of many companies, each of the demo's size and with its own name: for benchmarks and for looking
// at a long list. What one company brings is read once and stored for all.

#include <string>

#include "core/quantity/error.h"

namespace zl::bench {

/// Makes a new book of `count` companies, the last short name being "c" and `count` in four digits.
Status makeLibrary(const std::string& path, int count);

}  // namespace zl::bench
