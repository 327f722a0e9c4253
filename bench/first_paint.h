#pragma once
// The benchmark program started anew to paint one window: time and memory are that start's alone.

#include <string>

namespace zl::bench {

inline constexpr const char* kFirstPaint = "--first-paint";
/// Opens a book, paints its first page and prints the memory at its height in megabytes; the exit status.
int paintOnce(const std::string& path);

}  // namespace zl::bench
