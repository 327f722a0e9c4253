#pragma once
// The demo's files, read as they are.

#include <fstream>
#include <iterator>
#include <string>

#include "tests/support/source_folder.h"

namespace zl::test {

inline std::string demoFile(const std::string& name) {
  std::ifstream in(sourceFolder() + "/demo/" + name, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}

}  // namespace zl::test
