#pragma once
// The demo's files, read as they are.

#include <fstream>
#include <iterator>
#include <string>

namespace zl::test {

inline std::string demoFile(const std::string& name) {
  std::ifstream in(std::string(ZEALOUS_SOURCE) + "/demo/" + name, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}

}  // namespace zl::test
