#pragma once
// The demo's and other files, read as they are.

#include <fstream>
#include <iterator>
#include <string>

#include "tests/support/source_folder.h"

namespace zl::test {

inline std::string fileText(const std::string& path) {
  std::ifstream in(path, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}

inline std::string demoFile(const std::string& name) {
  return fileText(sourceFolder() + "/demo/" + name);
}

}  // namespace zl::test
